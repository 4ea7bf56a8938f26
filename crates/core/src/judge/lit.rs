//! The light on a subject by night, in what a picture needs of it: from lamps against the model's least light, from the head's infrared
//! light against its rated range, each at the shutter that is set or that its automatic takes (handbook, section 9).

use crate::file::Subject;
use crate::judge::automatic::{Plate, automatic_times};
use crate::judge::sight::Sight;
use crate::light::infrared::Beam;
use crate::light::{LampLight, Lit, Spread};
use crate::scene::Volume;
use glam::{DVec2, DVec3};

/// The light on a sight's subject, if it is judged by night, and here: worked out once.
pub(crate) fn lit<'s>(sight: &'s Sight) -> Option<&'s Lit> {
    let lamps = sight.lamps()?;
    Some(sight.lit(|| lit_among(sight, lamps)))
}

/// The light on a sight's subject among the site's lamps.
pub(crate) fn lit_among(sight: &Sight, lamps: &[LampLight]) -> Lit {
    let light = sight.head.light();
    let places = sight.places();
    let lux = lamps_over(sight, lamps, &places);
    let infrared = light.beam.as_ref().map(|beam| infrared_over(sight, beam, &places));
    let needs = if !light.is_fixed && sight.target.subject == Subject::Plate {
        let reflecting = sight.target.is_reflecting;
        let most = sight.rules.retro_times;
        let back = if reflecting { light.thrown_back(sight.head.position(), sight.point, most) } else { 1.0 };
        let plate = Plate {
            point: sight.point,
            infrared: infrared.map_or(0.0, |found| found.stated / back),
            back,
            lux: lux.stated,
            half: DVec2::new(sight.target.body.half, sight.target.body.high),
        };
        automatic_times(sight.viewer(), &[plate])
    } else {
        light.times
    };
    let of_lamps = match light.least_lux {
        _ if lux.most == 0.0 => Some(Spread::default()),
        Some(least) => Some(lux.times(1.0 / (least * needs))),
        None => None,
    };
    let nothing_stated = light.beam.is_none() && light.least_lux.is_none();
    Lit { infrared: infrared.map(|found| found.times(1.0 / needs)), lamps: of_lamps, nothing_stated }
}

/// The head's own infrared light on a sight's subject, 1 at the rated range, with what a plate throws back; none for a head without.
pub(crate) fn infrared_on(sight: &Sight) -> Option<Spread> {
    Some(infrared_over(sight, sight.head.light().beam.as_ref()?, &sight.places()))
}

/// The head's own infrared light over where a subject may be, 1 at the rated range, with what a plate throws back.
fn infrared_over(sight: &Sight, beam: &Beam, places: &[DVec3]) -> Spread {
    let (light, eye) = (sight.head.light(), sight.head.position());
    let off = sight.head.aim_uncertain().rad();
    let back = |place: DVec3| {
        if sight.target.is_reflecting { light.thrown_back(eye, place, sight.rules.retro_times) } else { 1.0 }
    };
    let stated = beam.at(sight.point) * back(sight.point);
    let least = places.iter().map(|place| beam.least_at(*place, off) * back(*place)).fold(stated, f64::min);
    let most_back = places.iter().map(|place| back(*place)).fold(back(sight.point), f64::max);
    let nearest = sight.nearest_to(beam.from);
    let most = beam.most_over(sight.point, places, nearest, off) * most_back;
    let open = Spread { stated, least, most };
    if light.from_aside(eye).is_some() { shaded(sight, beam.from, places, open) } else { open }
}

/// The light of lamps over where a subject may be, lux, upright and facing the head.
fn lamps_over(sight: &Sight, lamps: &[LampLight], places: &[DVec3]) -> Spread {
    let eye = sight.head.position();
    let mut all = Spread::default();
    for lamp in lamps.iter().filter(|lamp| lamp.inside.is_none()) {
        let lux = |place: DVec3| lamp.lux(place, (eye - place).with_z(0.0).normalize_or_zero());
        let stated = lux(sight.point);
        let near = places.iter().copied().chain([sight.nearest_to(lamp.from)]).map(lux);
        let (least, most) = near.fold((stated, stated), |(least, most), lux| (least.min(lux), most.max(lux)));
        if most == 0.0 {
            continue;
        }
        let found = shaded(sight, lamp.from, places, Spread { stated, least, most });
        all.stated += found.stated;
        all.least += found.least;
        all.most += found.most;
    }
    all
}

/// What solids leave of light that comes from a point: none at worst where one may stand in it, and at most that of the places that it gets
/// to.
fn shaded(sight: &Sight, from: DVec3, places: &[DVec3], open: Spread) -> Spread {
    let scene = sight.scene();
    let reaches = |place: DVec3| scene.first_blocker(from, place).is_none();
    let plan: Vec<DVec2> = places.iter().chain([&sight.point]).map(|place| place.truncate()).collect();
    let heights = places.iter().map(|place| place.z);
    let (low, high) = heights.fold((sight.point.z, sight.point.z), |(low, high), z| (low.min(z), high.max(z)));
    let off = sight.rules.uncertainties.camera_height_m;
    let volume = Volume::new(from, off, &plan, sight.point.truncate(), low, high);
    if !scene.stands_in(&volume) {
        return open;
    }
    let stated = if reaches(sight.point) { open.stated } else { 0.0 };
    let any = stated > 0.0 || places.iter().any(|place| reaches(*place));
    Spread { stated, least: 0.0, most: if any { open.most } else { 0.0 } }
}
