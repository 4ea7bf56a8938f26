//! A plate on the move: infrared light that differs little enough between both ends.

use super::in_zone::{InZone, STRETCH};
use crate::verdict::{RuleName, RuleResult, Unit};

/// Holds the stops between both ends against the site's limit; only for a head with infrared light.
pub fn judge(zone: &InZone) -> Option<RuleResult> {
    zone.viewer.head.light().beam.as_ref()?;
    let (stops, most) = (zone.told.infrared_stops, zone.viewer.rules.zone_stops);
    let holds = stops <= most;
    let basis = if holds { "one setting has to serve both ends; common practice, no source" } else { STRETCH };
    Some(RuleResult::of(RuleName::ZoneInfrared, Unit::Stops, Some(stops)).limit(most).judged(zone.over(holds), basis))
}
