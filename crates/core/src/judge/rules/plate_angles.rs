//! The two angles at which a plate is seen, under the site's school.

use super::{RuleName, RuleResult};
use crate::file::{PlateSchool, Subject};
use crate::judge::Verdict;
use crate::judge::sight_line::Sight;
use crate::math::Angle;
use std::borrow::Cow;

/// Holds the horizontal angle between the plate's normal and the bearing to the camera against the
/// school's limit; unknown while nobody said which way the plate points.
pub fn side(sight: &Sight) -> Option<RuleResult> {
    let (limit, _, basis) = limits(sight)?;
    let value = sight.target.facing.map(|facing| {
        let to_camera = sight.separation.bearing() + Angle::degrees(180.0);
        (to_camera - facing).wrapped().abs().deg()
    });
    let verdict = value.map_or(Verdict::Unknown, |value| Verdict::of(value <= limit, value <= limit));
    Some(result(RuleName::PlateSide, value, None, limit, verdict, basis))
}

/// Holds the vertical angle against the school's limit, at worst with the plate nearer, lower and
/// higher.
pub fn vertical(sight: &Sight) -> Option<RuleResult> {
    let (_, limit, basis) = limits(sight)?;
    let steep = |point: glam::DVec3| {
        let step = point - sight.head.position();
        step.z.abs().atan2(step.truncate().length()).to_degrees()
    };
    let value = steep(sight.point);
    let worst = sight.corners([-1.0]).map(steep).fold(value, f64::max);
    let verdict = Verdict::of(value <= limit, worst <= limit);
    Some(result(RuleName::PlateVertical, Some(value), Some(worst), limit, verdict, basis))
}

/// Side limit, vertical limit and basis; `None` where the subject is not a plate.
fn limits(sight: &Sight) -> Option<(f64, f64, &'static str)> {
    if sight.target.subject != Subject::Plate {
        return None;
    }
    let rules = sight.rules;
    Some(match rules.plate_school {
        PlateSchool::Level => {
            (rules.level_side_deg, rules.level_vertical_deg, "level school; common practice, no source")
        }
        PlateSchool::Raised => {
            (rules.raised_side_deg, rules.raised_vertical_deg, "raised school; common practice, no source")
        }
    })
}

fn result(
    rule: RuleName,
    value: Option<f64>,
    worst: Option<f64>,
    limit: f64,
    verdict: Verdict,
    basis: &'static str,
) -> RuleResult {
    RuleResult { rule, value, worst, limit, broken_past: None, unit: "deg", verdict, basis: Cow::Borrowed(basis) }
}
