//! Not left unseen for too long by a head that looks elsewhere in between.

use crate::judge::sight::Sight;
use crate::verdict::Verdict;
use crate::verdict::{RuleName, RuleResult, Unit};
use std::borrow::Cow;

/// Holds how long a tour looks elsewhere against how long the target may go unseen; where nobody said that, it is tight. A head
/// that never looks away is not asked.
pub fn judge(sight: &Sight) -> Option<RuleResult> {
    let gap = sight.head.gap_s()?;
    let limit = sight.target.unseen_at_most_s;
    let verdict = match limit {
        None => Verdict::Tight,
        Some(limit) if gap <= limit => Verdict::Kept,
        Some(_) => Verdict::Broken,
    };
    Some(RuleResult {
        rule: RuleName::Unseen,
        value: Some(gap),
        worst: Some(gap),
        limit,
        broken_past: None,
        unit: Unit::S,
        verdict,
        basis: Cow::Borrowed(match limit {
            Some(_) => "how long this target may go unseen",
            None => "the PTZ is elsewhere at times, and no limit is stated",
        }),
    })
}
