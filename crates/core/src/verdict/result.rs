//! What a rule found.

use super::{RuleName, Unit, Verdict};
use serde::Serialize;
use std::borrow::Cow;
use utoipa::ToSchema;

/// What a rule found.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct RuleResult {
    /// The rule.
    pub rule: RuleName,
    /// What was found, in `unit`; null when data is missing.
    #[schema(required)]
    pub value: Option<f64>,
    /// The same at the worst of the stated uncertainties, where the rule computes it.
    #[schema(required)]
    pub worst: Option<f64>,
    /// What it is held against, in `unit`; null where nobody said.
    #[schema(required)]
    pub limit: Option<f64>,
    /// Past this it is broken, where that differs from `limit`; between the two it is tight.
    #[schema(required)]
    pub broken_past: Option<f64>,
    /// The unit of all of them.
    pub unit: Unit,
    /// What follows.
    pub verdict: Verdict,
    /// Where the limit comes from.
    pub basis: Cow<'static, str>,
}

impl RuleResult {
    /// What a rule found, held against a limit; nothing follows yet.
    ///
    /// ```
    /// use bright_angle_core::verdict::{RuleName, RuleResult, Unit, Verdict};
    /// let found = RuleResult::of(RuleName::Blur, Unit::Px, Some(0.8)).limit(1.0).judged(Verdict::Kept, "a pixel");
    /// assert_eq!((found.limit, found.verdict), (Some(1.0), Verdict::Kept));
    /// ```
    pub fn of(rule: RuleName, unit: Unit, value: Option<f64>) -> RuleResult {
        let basis = Cow::Borrowed("");
        RuleResult { rule, value, worst: None, limit: None, broken_past: None, unit, verdict: Verdict::Unknown, basis }
    }

    /// The same at worst.
    #[must_use]
    pub fn worst(self, worst: impl Into<Option<f64>>) -> Self {
        RuleResult { worst: worst.into(), ..self }
    }

    /// What it is held against.
    #[must_use]
    pub fn limit(self, limit: impl Into<Option<f64>>) -> Self {
        RuleResult { limit: limit.into(), ..self }
    }

    /// What it is broken past.
    #[must_use]
    pub fn past(self, broken_past: f64) -> Self {
        RuleResult { broken_past: Some(broken_past), ..self }
    }

    /// What follows, and where the limit comes from.
    #[must_use]
    pub fn judged(self, verdict: Verdict, basis: impl Into<Cow<'static, str>>) -> Self {
        RuleResult { verdict, basis: basis.into(), ..self }
    }
}
