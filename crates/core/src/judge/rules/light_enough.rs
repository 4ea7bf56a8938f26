//! Enough light on the subject by night.

use crate::judge::lit::lit;
use crate::judge::sight::Sight;
use crate::verdict::{RuleName, RuleResult, Unit, Verdict};

pub(super) const UNKNOWN: &str = "the model says neither how far its infrared light reaches nor how little light it needs, or lamps reach and it does not say the latter";
pub(super) const BY_LAMPS: &str = "lamps: inverse square and cosine, against the model's least light at its shutter";
pub(super) const BY_INFRARED: &str = "its own infrared light: inverse square, against its rated range at its shutter";

/// By night: how many times what a picture needs the subject gets, from lamps (against the model's least lux) or from the head's own
/// infrared light (against its rated range), whichever is more; each at the shutter that is set. At worst with the subject where it
/// gets least, what may shade the light in its way and the axis off by the uncertain aim. Unknown where what would decide is not stated.
pub fn judge(sight: &Sight) -> Option<RuleResult> {
    let lit = lit(sight)?;
    let verdict = lit.enough();
    let basis = match verdict {
        Verdict::Unknown => UNKNOWN,
        _ if lit.is_by_lamps() => BY_LAMPS,
        _ => BY_INFRARED,
    };
    let [value, worst] = lit.best();
    Some(RuleResult::of(RuleName::LightEnough, Unit::Times, value).worst(worst).limit(1.0).judged(verdict, basis))
}
