//! Nothing opaque in the way.

use super::{RuleName, RuleResult};
use crate::Verdict;
use crate::sight_line::Sight;
use std::borrow::Cow;

/// Whether nothing is in the way, also with the target nearer, farther, lower and higher; what
/// begins only behind the target does not count.
pub fn verdict(sight: &Sight) -> Verdict {
    let at_worst = sight.clear && sight.corners(&[-1.0, 1.0]).into_iter().all(|corner| sight.surely_clear(corner));
    Verdict::of(sight.clear, at_worst)
}

/// Counts the solids in the way.
pub fn judge(sight: &Sight) -> Option<RuleResult> {
    Some(RuleResult {
        rule: RuleName::Clear,
        value: Some(sight.in_the_way().iter().filter(|solid| solid.blocks).count() as f64),
        worst: None,
        limit: 0.0,
        broken_past: None,
        unit: "obstacles",
        verdict: verdict(sight),
        basis: Cow::Borrowed("geometry, over the stated uncertainties"),
    })
}
