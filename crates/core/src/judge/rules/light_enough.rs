//! Enough light on the subject by night.

use crate::judge::sight::Sight;
use crate::light::{LampLight, RETRO};
use crate::verdict::Verdict;
use crate::verdict::{RuleName, RuleResult, Unit};
use std::borrow::Cow;

/// By night: how many times what a picture needs the subject gets, from lamps (against the model's least lux) or from the head's own
/// infrared light (against its rated range), whichever is more; each at the shutter that is set. At worst with the subject where it
/// gets least and the axis off by the uncertain aim. Unknown where what would decide is not stated.
pub fn judge(sight: &Sight) -> Option<RuleResult> {
    let lamps = sight.lamps()?;
    let of_lamps = by_lamps(sight, lamps);
    let infrared = by_infrared(sight);
    let known = [of_lamps.known(), infrared];
    let best = |place: usize| known.iter().flatten().map(|found| found[place]).reduce(f64::max);
    let (value, worst) = (best(0), best(1));
    let enough = |figure: Option<f64>| figure.is_some_and(|figure| figure >= 1.0);
    let nothing_stated = infrared.is_none() && sight.head.light().least_lux.is_none();
    let unknown = of_lamps.is_unknown() || nothing_stated;
    let verdict = match Verdict::of(enough(value), enough(worst)) {
        Verdict::Broken if unknown => Verdict::Unknown,
        verdict => verdict,
    };
    let by_lamps_alone = of_lamps.known().is_some_and(|found| Some(found[0]) == value && found[0] > 0.0);
    Some(RuleResult {
        rule: RuleName::LightEnough,
        value: if nothing_stated { None } else { value },
        worst: if nothing_stated { None } else { worst },
        limit: Some(1.0),
        broken_past: None,
        unit: Unit::Times,
        verdict,
        basis: Cow::Borrowed(if verdict == Verdict::Unknown {
            "the model says neither how far its infrared light reaches nor how little light it needs, or lamps reach and it does not say the latter"
        } else if by_lamps_alone {
            "lamps: inverse square and cosine, against the model's least light at its shutter"
        } else {
            "its own infrared light: inverse square, against its rated range at its shutter"
        }),
    })
}

enum OfLamps {
    /// As stated and at worst.
    Times([f64; 2]),
    /// There is light, but the model does not say how little it needs.
    NoLeastLux,
}

impl OfLamps {
    fn known(&self) -> Option<[f64; 2]> {
        if let OfLamps::Times(times) = self { Some(*times) } else { None }
    }

    fn is_unknown(&self) -> bool {
        matches!(self, OfLamps::NoLeastLux)
    }
}

fn by_lamps(sight: &Sight, lamps: &[LampLight]) -> OfLamps {
    let lux = sight.lux(lamps);
    let light = sight.head.light();
    match light.least_lux {
        _ if lux[0] == 0.0 => OfLamps::Times([0.0; 2]),
        Some(least) => OfLamps::Times(lux.map(|lux| lux / (least * light.times))),
        None => OfLamps::NoLeastLux,
    }
}

/// `None` for a head without infrared light.
fn by_infrared(sight: &Sight) -> Option<[f64; 2]> {
    let light = sight.head.light();
    let beam = light.beam?;
    let times = if sight.target.is_reflecting { RETRO } else { 1.0 } / light.times;
    let off = sight.rules.uncertainties.aim_deg.to_radians();
    let stated = light.infrared_at(sight.head.position(), sight.point, sight.scene());
    if stated == 0.0 {
        return Some([0.0; 2]);
    }
    let least = sight.point_corners().into_iter().map(|point| beam.least_at(point, off)).fold(stated, f64::min);
    Some([stated * times, least * times])
}
