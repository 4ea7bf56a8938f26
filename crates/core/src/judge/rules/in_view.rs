//! In the picture, also with the aim a little off.

use super::{RuleName, RuleResult};
use crate::judge::Verdict;
use crate::judge::sight_line::Sight;
use std::borrow::Cow;

/// Whether the point stays in the picture with pan and tilt off together, the focal length longer
/// and the target nearer, farther, lower and higher.
pub fn verdict(sight: &Sight) -> Verdict {
    let nominally = sight.in_view();
    let at_worst = nominally && sight.corners([-1.0, 1.0]).all(|corner| sight.head.surely_holds(corner));
    Verdict::of(nominally, at_worst)
}

/// Reports the aim slack against the stated uncertainty of the aim.
pub fn judge(sight: &Sight) -> Option<RuleResult> {
    Some(RuleResult {
        rule: RuleName::InView,
        value: Some(sight.aim_slack().deg()),
        worst: None,
        limit: sight.rules.uncertainties.aim_deg,
        broken_past: None,
        unit: "deg",
        verdict: verdict(sight),
        basis: Cow::Borrowed("geometry, over the stated uncertainties"),
    })
}
