//! A face that looks away shows less and less of itself.

use crate::file::Task;
use crate::judge::sight::Sight;
use crate::verdict::Verdict;
use crate::verdict::{RuleName, RuleResult, Unit};
use std::borrow::Cow;

/// Holds the angle between the face's direction and the line to the camera against the kept and the tight limit of the task,
/// for tasks that use a face with a known facing; at worst over where the face may be.
pub fn judge(sight: &Sight) -> Option<RuleResult> {
    if !sight.target.wants_a_face() {
        return None;
    }
    let value = sight.incidence()?.deg();
    let worst = sight.worst_incidence().map_or(value, |angle| angle.deg().max(value));
    let rules = sight.rules;
    let (kept, tight) = match sight.target.task {
        Task::Recognise => (rules.recognise_turned_kept_deg, rules.recognise_turned_tight_deg),
        _ => (rules.identify_turned_kept_deg, rules.identify_turned_tight_deg),
    };
    Some(RuleResult {
        rule: RuleName::TurnedAway,
        value: Some(value),
        worst: Some(worst),
        limit: Some(kept),
        broken_past: Some(tight),
        unit: Unit::Deg,
        verdict: Verdict::of(value <= tight, worst <= kept),
        basis: Cow::Borrowed("our own limits; common practice, no source"),
    })
}
