//! A face not seen too steeply from above: hat brims and tops of heads.

use super::{RuleName, RuleResult};
use crate::file::Subject;
use crate::judge::Verdict;
use crate::judge::sight_line::Sight;
use crate::math::Angle;
use std::borrow::Cow;

/// Eye height of a standing person, m (handbook, section 4).
pub const EYE_HEIGHT_M: f64 = 1.6;

/// Holds the depression at eye height against the kept and the tight limit, for tasks that use a
/// face. A face target's own height is its eye height; a person's eyes are at 1.6 m.
pub fn judge(sight: &Sight) -> Option<RuleResult> {
    if !sight.target.wants_a_face() {
        return None;
    }
    let rise = match sight.target.subject {
        Subject::Face => 0.0,
        _ => EYE_HEIGHT_M - sight.point.z,
    };
    let from_above = |point: glam::DVec3| -> f64 {
        let ground = (point - sight.head.position()).truncate().length();
        Angle::radians((sight.head.position().z - point.z - rise).atan2(ground)).deg()
    };
    let value = from_above(sight.point);
    let worst = sight.corners([-1.0]).map(from_above).fold(value, f64::max);
    let (kept, tight) = (sight.rules.face_kept_deg, sight.rules.face_tight_deg);
    Some(RuleResult {
        rule: RuleName::FaceFromAbove,
        value: Some(value),
        worst: Some(worst),
        limit: kept,
        broken_past: Some(tight),
        unit: "deg",
        verdict: Verdict::of(value <= tight, worst <= kept),
        basis: Cow::Borrowed("depression at eye height, from memory"),
    })
}
