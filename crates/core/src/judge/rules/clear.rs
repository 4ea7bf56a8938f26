//! Nothing opaque in the way.

use super::{RuleName, RuleResult};
use crate::judge::Verdict;
use crate::judge::sight_line::Sight;
use std::borrow::Cow;

/// Whether nothing is in the way, also with the target nearer, farther, lower and higher; what
/// begins only behind the target does not count.
pub fn verdict(sight: &Sight) -> Verdict {
    Verdict::of(sight.clear, sight.clear && sight.surely_clear())
}

/// Says whether something is in the way: 0 or 1 against 0.
pub fn judge(sight: &Sight) -> Option<RuleResult> {
    Some(RuleResult {
        rule: RuleName::Clear,
        value: Some(if sight.clear { 0.0 } else { 1.0 }),
        worst: None,
        limit: 0.0,
        broken_past: None,
        unit: "blocked",
        verdict: verdict(sight),
        basis: Cow::Borrowed("geometry, over the stated uncertainties"),
    })
}
