//! A plate on the move is seen often enough.

use super::in_zone::InZone;
use crate::verdict::{RuleName, RuleResult, Unit, Verdict};

/// Holds the pictures that are taken while it reads against how many a reader wants; at worst only those on the stretch that is sharp,
/// lit and one lane wide count, and of a tour only those that it takes whatever it looked at when the plate came. Where a tour may miss
/// it altogether it is at most tight, and broken where the chance to see it is too small (handbook, section 10).
pub fn judge(zone: &InZone) -> Option<RuleResult> {
    let limits = zone.viewer.rules;
    let chance = zone.told.chance.unwrap_or(1.0);
    let verdict = match zone.told.looks {
        None => Verdict::Unknown,
        Some(_) if chance < limits.tour_chance => Verdict::Broken,
        Some(_) if zone.good_looks >= limits.looks_kept => Verdict::Kept,
        Some(_) if zone.lit_looks >= limits.looks_tight => Verdict::Tight,
        Some(_) => Verdict::Broken,
    };
    let basis = match zone.told.chance {
        Some(_) => "in the worst case those that a tour takes however it came; common practice, no source",
        None => "in the worst case only those that are sharp, lit and one lane wide; common practice, no source",
    };
    let found = RuleResult::of(RuleName::Looks, Unit::Looks, zone.told.looks)
        .worst(zone.is_set().then_some(zone.good_looks))
        .limit(limits.looks_kept)
        .past(limits.looks_tight);
    Some(found.judged(verdict, zone.said(basis)))
}
