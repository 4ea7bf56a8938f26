//! Aimed no further than the camera's build goes.

use crate::judge::sight::Sight;
use crate::verdict::Verdict;
use crate::verdict::{RuleName, RuleResult, Unit};
use std::borrow::Cow;

/// Holds the tilt against the least and the greatest that the model says its build takes. Where the model says nothing, nothing is
/// judged; a flat picture that is cut out of a round one has no build.
pub fn judge(sight: &Sight) -> Option<RuleResult> {
    let head = sight.head;
    let [least, most] = head.tilts_deg().filter(|_| !head.is_flattened())?;
    let tilt = head.tilt().deg();
    let limit = if tilt - least < most - tilt { least } else { most };
    let holds = (least - 1e-9..=most + 1e-9).contains(&tilt);
    Some(RuleResult {
        rule: RuleName::Build,
        value: Some(tilt),
        worst: None,
        limit: Some(limit),
        broken_past: None,
        unit: Unit::Deg,
        verdict: if holds { Verdict::Kept } else { Verdict::Broken },
        basis: Cow::Owned(format!("tilts that the model's build takes: {least} to {most}°")),
    })
}
