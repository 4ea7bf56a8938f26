//! The two angles at which a plate is seen, under the site's school.

use super::{RuleName, RuleResult};
use crate::file::{PlateSchool, Subject};
use crate::judge::Verdict;
use crate::judge::sight::Sight;
use std::borrow::Cow;

/// Holds the horizontal angle between the plate's normal and the bearing to the camera against the
/// school's limit, at worst with the plate nearer and to the side; unknown while nobody said which way the plate points.
pub fn side(sight: &Sight) -> Option<RuleResult> {
    let (limit, _, basis) = limits(sight)?;
    let value = sight.side_deg();
    let worst = value.map(|value| (value + sight.bearing_off_deg()).min(180.0));
    let verdict = match (value, worst) {
        (Some(value), Some(worst)) => Verdict::of(value <= limit, worst <= limit),
        _ => Verdict::Unknown,
    };
    Some(result(RuleName::PlateSide, value, worst, limit, verdict, basis))
}

/// Holds the vertical angle against the school's limit, at worst with the plate nearer, lower and
/// higher.
pub fn vertical(sight: &Sight) -> Option<RuleResult> {
    let (_, limit, basis) = limits(sight)?;
    let value = sight.separation.depression().abs().deg();
    let worst = sight.steepest_deg(0.0).max(value);
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
    RuleResult {
        rule,
        value,
        worst,
        limit: Some(limit),
        broken_past: None,
        unit: "deg",
        verdict,
        basis: Cow::Borrowed(basis),
    }
}
