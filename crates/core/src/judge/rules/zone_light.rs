//! A plate on the move by night: enough light on it and not too much, where its pictures are taken.

use super::in_zone::{InZone, STRETCH};
use super::light_enough::{BY_INFRARED, BY_LAMPS, UNKNOWN};
use super::overexposed::BASIS;
use crate::light::Lit;
use crate::verdict::{RuleName, RuleResult, Unit, Verdict};

/// Holds the light against what is needed, sample by sample; where it is not enough all over the zone, it is enough that there is a stretch
/// with enough looks. Told is the least light of the samples that count; where none does, the most that any gets.
pub fn enough(zone: &InZone) -> Option<RuleResult> {
    let light = zone.light.as_ref()?;
    let verdict = zone.lit(Lit::enough);
    let [value, worst] = zone.figures(Lit::best, f64::min, f64::max);
    let by_lamps = zone.counted().iter().all(Lit::is_by_lamps);
    let basis = match verdict {
        Verdict::Unknown => UNKNOWN,
        _ if !light.all().iter().all(|lit| lit.enough() == Verdict::Kept) => STRETCH,
        _ if by_lamps => BY_LAMPS,
        _ => BY_INFRARED,
    };
    Some(RuleResult::of(RuleName::LightEnough, Unit::Times, value).worst(worst).limit(1.0).judged(verdict, basis))
}

/// Holds it against what bleaches a plate, likewise. Told is the most light of the samples that count; where none does, the least that any
/// gets.
pub fn not_over(zone: &InZone) -> Option<RuleResult> {
    let light = zone.light.as_ref()?;
    let limit = zone.viewer.rules.overexposed_times;
    let verdict = zone.lit(|lit| lit.not_over(limit));
    let figures = |lit: &Lit| lit.together().map(|times| (!lit.nothing_stated).then_some(times));
    let [value, worst] = zone.figures(figures, f64::max, f64::min);
    let found = RuleResult::of(RuleName::Overexposed, Unit::Times, value).worst(worst).limit(limit);
    let all = light.all().iter().all(|lit| lit.not_over(limit) == Verdict::Kept);
    Some(found.judged(verdict, if all { BASIS } else { STRETCH }))
}
