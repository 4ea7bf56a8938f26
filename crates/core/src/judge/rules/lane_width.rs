//! A plate on the move: a picture no wider than its lane.

use super::in_zone::{InZone, STRETCH};
use crate::verdict::{RuleName, RuleResult, Unit};

/// Holds the greatest width of the picture where it reads against the site's limit.
pub fn judge(zone: &InZone) -> Option<RuleResult> {
    let (width, most) = (zone.told.scene_width_m, zone.viewer.rules.lane_width_m);
    let holds = width <= most;
    let basis = if holds { "a wider picture invites false reads; common practice, no source" } else { STRETCH };
    Some(RuleResult::of(RuleName::LaneWidth, Unit::M, Some(width)).limit(most).judged(zone.over(holds), basis))
}
