//! A plate is not seen too much from the side.

use super::plate_school;
use crate::judge::sight::Sight;
use crate::verdict::{RuleName, RuleResult, Unit, Verdict};

/// Holds the horizontal angle between the plate's normal and the bearing to the camera against the
/// school's limit, at worst with the plate nearer and to the side; unknown while nobody said which way the plate points.
pub fn judge(sight: &Sight) -> Option<RuleResult> {
    let (limit, _, basis) = plate_school::limits(sight)?;
    let value = sight.side_deg();
    let worst = value.map(|value| (value + sight.bearing_off_deg()).min(180.0));
    let verdict = match (value, worst) {
        (Some(value), Some(worst)) => Verdict::of(value <= limit, worst <= limit),
        _ => Verdict::Unknown,
    };
    Some(RuleResult::of(RuleName::PlateSide, Unit::Deg, value).worst(worst).limit(limit).judged(verdict, basis))
}
