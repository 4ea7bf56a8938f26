//! A plate is not seen too steeply.

use super::plate_school;
use crate::judge::sight::Sight;
use crate::verdict::{RuleName, RuleResult, Unit, Verdict};

/// Holds the vertical angle against the school's limit, at worst with the plate nearer, lower and
/// higher.
pub fn judge(sight: &Sight) -> Option<RuleResult> {
    let (_, limit, basis) = plate_school::limits(sight)?;
    let value = sight.separation.depression().abs().deg();
    let worst = sight.steepest_deg(0.0).max(value);
    let verdict = Verdict::of(value <= limit, worst <= limit);
    Some(
        RuleResult::of(RuleName::PlateVertical, Unit::Deg, Some(value))
            .worst(worst)
            .limit(limit)
            .judged(verdict, basis),
    )
}
