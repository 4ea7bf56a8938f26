//! Nothing opaque in the way, or no more than may be.

use crate::judge::sight::Sight;
use crate::verdict::Verdict;
use crate::verdict::{RuleName, RuleResult, Unit};
use std::borrow::Cow;

/// Whether no more of the subject is hidden than may be, also with the target nearer, to the side, lower and higher and the head
/// lower and higher; what begins only behind the target does not count.
pub fn verdict(sight: &Sight) -> Verdict {
    Verdict::of(sight.clear(), sight.clear() && sight.surely_clear())
}

/// Says which share of the subject is hidden against the share that may be.
pub fn judge(sight: &Sight) -> Option<RuleResult> {
    Some(RuleResult {
        rule: RuleName::Clear,
        value: Some(sight.hidden()),
        worst: None,
        limit: Some(sight.target.may_be_hidden),
        broken_past: None,
        unit: Unit::Hidden,
        verdict: verdict(sight),
        basis: Cow::Borrowed("geometry of the whole subject, over the tolerances"),
    })
}
