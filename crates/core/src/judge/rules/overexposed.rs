//! A plate by night is not bleached.

use crate::file::Subject;
use crate::judge::lit::lit;
use crate::judge::sight::Sight;
use crate::verdict::{RuleName, RuleResult, Unit};

pub(super) const BASIS: &str = "more than this overexposes a plate; common practice, no source";

/// By night: how many times what a picture needs a plate gets, from lamps and from the head's own infrared light together, at the shutter
/// that is set or that its automatic takes; at worst with the plate where it gets most (handbook, section 9, "Too bright").
pub fn judge(sight: &Sight) -> Option<RuleResult> {
    if sight.target.subject != Subject::Plate {
        return None;
    }
    let lit = lit(sight)?;
    let limit = sight.rules.overexposed_times;
    let [value, worst] = lit.together().map(|times| (!lit.nothing_stated).then_some(times));
    let found = RuleResult::of(RuleName::Overexposed, Unit::Times, value).worst(worst).limit(limit);
    Some(found.judged(lit.not_over(limit), BASIS))
}
