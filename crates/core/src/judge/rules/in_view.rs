//! In the picture, all of the subject that counts, also with the aim a little off.

use crate::judge::sight::Sight;
use crate::verdict::Verdict;
use crate::verdict::{RuleName, RuleResult, Unit};
use std::borrow::Cow;

/// Whether the subject stays in the picture with pan, tilt and roll off together, the focal length longer, the target nearer,
/// farther, to the side, lower and higher and the head lower and higher.
pub fn verdict(sight: &Sight) -> Verdict {
    let nominally = sight.in_view();
    Verdict::of(nominally, nominally && sight.surely_in_view())
}

/// Reports the aim slack of the subject's point against the stated uncertainty of the aim.
pub fn judge(sight: &Sight) -> Option<RuleResult> {
    Some(RuleResult {
        rule: RuleName::InView,
        value: Some(sight.aim_slack().deg()),
        worst: None,
        limit: Some(sight.head.aim_uncertain().deg()),
        broken_past: None,
        unit: Unit::Deg,
        verdict: verdict(sight),
        basis: Cow::Borrowed("geometry of the whole subject, over the tolerances"),
    })
}
