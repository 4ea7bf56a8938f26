//! A face that looks away shows the back of a head.

use super::{RuleName, RuleResult};
use crate::judge::Verdict;
use crate::judge::sight_line::Sight;
use std::borrow::Cow;

/// From this angle on nothing of a face is seen, degrees: it is plain geometry.
const EDGE_ON_DEG: f64 = 90.0;

/// Holds the incidence against a quarter turn, for tasks that use a face with a known facing.
pub fn judge(sight: &Sight) -> Option<RuleResult> {
    if !sight.target.wants_a_face() {
        return None;
    }
    let value = sight.incidence()?.deg();
    let holds = value < EDGE_ON_DEG;
    Some(RuleResult {
        rule: RuleName::TurnedAway,
        value: Some(value),
        worst: None,
        limit: EDGE_ON_DEG,
        broken_past: None,
        unit: "deg",
        verdict: Verdict::of(holds, holds),
        basis: Cow::Borrowed("geometry: past a quarter turn there is no face to see"),
    })
}
