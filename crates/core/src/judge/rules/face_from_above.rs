//! A face not seen too steeply, from above (hat brims, tops of heads) or from below.

use crate::file::Subject;
use crate::judge::sight::Sight;
use crate::verdict::Verdict;
use crate::verdict::{RuleName, RuleResult, Unit};
use std::borrow::Cow;

/// Eye height of a standing person, m (handbook, section 4).
pub const EYE_HEIGHT_M: f64 = 1.6;

/// Holds the depression at eye height against the kept and the tight limit, for tasks that use a
/// face. A face target's own height is its eye height; a person's eyes are 1.6 m over
/// the ground that it stands on.
pub fn judge(sight: &Sight) -> Option<RuleResult> {
    if !sight.target.wants_a_face() {
        return None;
    }
    let rise = match sight.target.subject {
        Subject::Face => 0.0,
        _ => sight.target.ground + EYE_HEIGHT_M - sight.point.z,
    };
    let drop = sight.separation.drop - rise;
    let value = drop.abs().atan2(sight.separation.ground).to_degrees();
    let worst = sight.steepest_deg(rise).max(value);
    let (kept, tight) = (sight.rules.face_kept_deg, sight.rules.face_tight_deg);
    Some(RuleResult {
        rule: RuleName::FaceFromAbove,
        value: Some(value),
        worst: Some(worst),
        limit: Some(kept),
        broken_past: Some(tight),
        unit: Unit::Deg,
        verdict: Verdict::of(value <= tight, worst <= kept),
        basis: Cow::Borrowed("depression at eye height, from memory"),
    })
}
