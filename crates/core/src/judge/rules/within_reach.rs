//! Not within reach of a hand, or in a build that takes one.

use crate::file::Form;
use crate::judge::sight::Sight;
use crate::verdict::{RuleName, RuleResult, Unit, Verdict};

/// The least protection against blows within reach: five joules (IEC 62262).
const LEAST_IK: u32 = 8;

/// Where the surveyor says that a hand reaches it: a camera or a housing that states IK08 or more is kept, one that states nothing tight,
/// any other broken; a turret's collar stays turnable, so its own rating does not help (handbook, section 6). Where nobody said, a head
/// that hangs lower than is out of reach is told, and kept.
pub fn judge(sight: &Sight) -> Option<RuleResult> {
    let (mounting, rules) = (sight.head.mounting(), sight.rules);
    let low = mounting.height_m < rules.mount_min_m - 1e-9;
    let found = RuleResult::of(RuleName::WithinReach, Unit::M, Some(mounting.height_m)).limit(rules.mount_min_m);
    let turnable = mounting.form == Form::Turret && !mounting.is_housed;
    let (verdict, basis) = match (mounting.in_reach, mounting.ik) {
        (None, _) if low => (
            Verdict::Kept,
            "lower than is usually out of reach; whether a hand reaches it is not stated; common practice, no source",
        ),
        (None | Some(false), _) => return None,
        (Some(true), _) if turnable => {
            (Verdict::Broken, "a hand reaches it, and can turn a turret; common practice, no source")
        }
        (Some(true), Some(ik)) if ik >= LEAST_IK => {
            (Verdict::Kept, "a hand reaches it, and it withstands blows (IEC 62262)")
        }
        (Some(true), None) => {
            (Verdict::Tight, "a hand reaches it, and it does not state what blows it withstands (IEC 62262)")
        }
        (Some(true), Some(_)) => (Verdict::Broken, "a hand reaches it, and it states less than IK08 (IEC 62262)"),
    };
    Some(found.judged(verdict, basis))
}
