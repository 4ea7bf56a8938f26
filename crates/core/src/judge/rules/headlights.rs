//! A front plate by night is read between its own headlights.

use super::in_zone::InZone;
use crate::verdict::{RuleName, RuleResult, Unit, Verdict};

/// The longest shutter at which headlights do not glare, s; common practice, no source.
const LONGEST_S: f64 = 1.0 / 1000.0;

/// By night, of a plate that comes towards the head: tight with a shutter longer than 1/1000 s, or one that nobody set (handbook,
/// section 10). Tail lights do no harm, and no vehicle lights its own plate.
pub fn judge(zone: &InZone) -> Option<RuleResult> {
    if zone.light.is_none() || !zone.told.front {
        return None;
    }
    let shutter = zone.viewer.head.exposure().and_then(|exposure| exposure.fixed_s());
    let holds = shutter.is_some_and(|shutter| shutter <= LONGEST_S * (1.0 + 1e-9));
    let verdict = if holds { Verdict::Kept } else { Verdict::Tight };
    let basis = "headlights glare around a front plate; common practice, no source";
    Some(RuleResult::of(RuleName::Headlights, Unit::S, shutter).limit(LONGEST_S).judged(verdict, basis))
}
