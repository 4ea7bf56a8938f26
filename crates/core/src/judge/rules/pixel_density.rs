//! Enough pixels on each metre of the subject for the task.

use super::{RuleName, RuleResult};
use crate::judge::Verdict;
use crate::judge::sight_line::Sight;

/// Holds the density `across` against the target's need. The worst case takes the target farther,
/// lower or higher, the focal length shorter and the aim to nine places of its range.
pub fn judge(sight: &Sight) -> Option<RuleResult> {
    let (value, limit) = (sight.across, sight.target.need.px_per_m);
    let nominally = value >= limit;
    // Out of the picture there is nothing to be unsure about.
    let worst = sight
        .in_view()
        .then(|| sight.corners([1.0]).map(|corner| sight.head.least_across(corner)).fold(value, f64::min));
    Some(RuleResult {
        rule: RuleName::PixelDensity,
        value: Some(value),
        worst,
        limit,
        broken_past: None,
        unit: "px/m",
        verdict: Verdict::of(nominally, nominally && worst.is_none_or(|worst| worst >= limit)),
        basis: sight.target.need.basis.clone(),
    })
}
