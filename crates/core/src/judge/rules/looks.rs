//! A plate on the move is seen often enough.

use super::in_zone::InZone;
use crate::verdict::{RuleName, RuleResult, Unit, Verdict};

/// Holds the pictures that are taken while it reads against how many a reader wants; at worst only those on the stretch that is sharp,
/// lit and one lane wide count.
pub fn judge(zone: &InZone) -> Option<RuleResult> {
    let limits = zone.viewer.rules;
    let verdict = match zone.told.looks {
        None => Verdict::Unknown,
        Some(_) if zone.good_looks >= limits.looks_kept => Verdict::Kept,
        Some(looks) if looks >= limits.looks_tight => Verdict::Tight,
        Some(_) => Verdict::Broken,
    };
    let basis = "at worst only those that are sharp, lit and one lane wide; common practice, no source";
    let found = RuleResult::of(RuleName::Looks, Unit::Looks, zone.told.looks)
        .worst(zone.is_set().then_some(zone.good_looks))
        .limit(limits.looks_kept)
        .past(limits.looks_tight);
    Some(found.judged(verdict, zone.said(basis)))
}
