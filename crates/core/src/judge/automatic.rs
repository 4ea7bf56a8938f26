//! What an automatic exposure makes of a night: it brings the mean of its picture to 18 % of white, within its shutter and its gain
//! (handbook, section 9, "Too bright").
//!
//! Its picture is metered on a coarse grid of rays: what each meets gives back the light that falls on it, from lamps and from the head's
//! own infrared light; lamps in the picture and the plates asked about are added by the part of the picture that they take. What is lighter
//! than white counts as white.

use crate::file::ObstacleKind;
use crate::judge::sight::Viewer;
use crate::light::{DRAWN_LEAST_LUX, LampLight, Part, TimesRange, WHITE, exposure_for_grey};
use crate::scene::{GROUND_REFLECTANCE, PLATE_REFLECTANCE, Scene, face_of, reflectance_of};
use crate::site::Head;
use crate::site::ray::{Met, Ray, follow};
use glam::{DVec2, DVec3};

/// Rays across and down.
const COLUMNS: usize = 36;
const ROWS: usize = 24;
/// A lamp's bright part, half of its width, m; ours.
const LAMP_HALF_M: f64 = 0.1;
/// The vehicle behind a plate, m, and how far its plate is up.
const VEHICLE: DVec2 = DVec2::new(1.8, 1.5);
const PLATE_UP_M: f64 = 0.75;
/// How much of it is in the picture is told by so many places across and up.
const CELLS: usize = 6;
/// Shadows are looked for so far out of a surface, m: it does not shade itself.
const OUT_OF_SURFACE_M: f64 = 1e-3;

/// A plate in the picture.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Plate {
    pub point: DVec3,
    /// The infrared light on it, 1 at the rated range.
    pub infrared: f64,
    /// How many times brighter than paint it comes back.
    pub back: f64,
    /// Light of lamps on it, lux.
    pub lux: f64,
    /// Half of its width and height, m.
    pub half: DVec2,
}

/// How many times the rated light a picture takes with a head's automatic, plates included.
pub(crate) fn automatic_times(viewer: Viewer, plates: &[Plate]) -> f64 {
    let TimesRange { least, most } = viewer.head.light().range;
    // A flat picture is as light as the round one that it is cut out of.
    let viewer = Viewer { head: viewer.head.under(), ..viewer };
    let metered = viewer.head.metered(|| metered(viewer));
    let before: Vec<Part> = plates.iter().flat_map(|plate| plate_and_vehicle(viewer.head, plate)).collect();
    1.0 / exposure_for_grey(metered, &before, 1.0 / most, 1.0 / least)
}

/// A plate and the vehicle that carries it, as far as they are in the picture.
fn plate_and_vehicle(head: &Head, plate: &Plate) -> [Part; 2] {
    let Some(look) = head.look(plate.point) else { return [Part { light: 0.0, share: 0.0, far: f64::INFINITY }; 2] };
    let size = head.view().projection.size();
    let towards = (head.position() - plate.point).with_z(0.0).normalize_or(-DVec3::Y);
    let right = DVec3::new(-towards.y, towards.x, 0.0);
    // How much of an upright rectangle around the plate, from heights under it to over it, is in the picture.
    let share = |half: f64, low: f64, high: f64| {
        let cells =
            (0..CELLS * CELLS).map(|cell| [cell % CELLS, cell / CELLS].map(|i| (i as f64 + 0.5) / CELLS as f64));
        let place =
            |[x, y]: [f64; 2]| plate.point + right * half * (2.0 * x - 1.0) + DVec3::Z * (low + (high - low) * y);
        let seen =
            cells.filter(|cell| head.in_front(place(*cell)) == Some(true)).count() as f64 / (CELLS * CELLS) as f64;
        (seen * 2.0 * half * (high - low) * look.across * look.up / (size.x * size.y)).min(1.0)
    };
    let of_plate = share(plate.half.x, -plate.half.y, plate.half.y);
    let of_vehicle = (share(VEHICLE.x / 2.0, -PLATE_UP_M, VEHICLE.y - PLATE_UP_M) - of_plate).max(0.0);
    let far = plate.point.distance(head.position());
    let of_lux = 1.0 / head.light().least_lux.unwrap_or(DRAWN_LEAST_LUX);
    let light = |reflectance: f64, back: f64| WHITE * reflectance * (plate.infrared * back + plate.lux * of_lux);
    [
        Part { light: light(PLATE_REFLECTANCE, plate.back), share: of_plate, far },
        Part { light: light(reflectance_of(ObstacleKind::Vehicle), 1.0), share: of_vehicle, far },
    ]
}

/// The parts of a head's picture by night, plates aside.
fn metered(viewer: Viewer) -> Vec<Part> {
    let Viewer { head, eye, scene, .. } = viewer;
    let size = head.view().projection.size();
    let lamps = viewer.lamps.unwrap_or_default();
    let share = 1.0 / (COLUMNS * ROWS) as f64;
    let mut parts = Vec::with_capacity(COLUMNS * ROWS + lamps.len());
    for place in 0..COLUMNS * ROWS {
        let at = DVec2::new((place % COLUMNS) as f64 + 0.5, (place / COLUMNS) as f64 + 0.5);
        let pixel = at / DVec2::new(COLUMNS as f64, ROWS as f64) * size;
        let view = head.view();
        let Some(ray) = view.projection.unproject(pixel).filter(|_| view.projection.holds(pixel)) else { continue };
        let ray = follow(eye, scene, view.pose.to_site(ray));
        parts.push(Part { light: WHITE * given_back(head, scene, lamps, &ray), share, far: ray.distance });
    }
    parts.extend(lamps.iter().filter_map(|lamp| {
        let seen = lamp.candela > 0.0 && lamp.inside.is_none() && !eye.is_blocked(scene, lamp.from);
        let look = head.look(lamp.from).filter(|look| seen && look.in_view)?;
        let share = std::f64::consts::PI * LAMP_HALF_M * LAMP_HALF_M * look.across * look.up / (size.x * size.y);
        Some(Part { light: f64::MAX, share: share.min(1.0), far: lamp.from.distance(head.position()) })
    }));
    parts
}

/// What the surface that a ray meets gives back of infrared light, 1 at the rated range, and of lamps in the least light that the model
/// needs.
fn given_back(head: &Head, scene: &Scene, lamps: &[LampLight], ray: &Ray) -> f64 {
    let at = ray.from + ray.direction * ray.distance;
    let (normal, reflectance) = match ray.met {
        Met::Sky => return 0.0,
        Met::Ground => (DVec3::Z, GROUND_REFLECTANCE),
        Met::Obstacle(solid) => (face_of(solid, at, ray.direction).0, solid.reflectance()),
    };
    let light = head.light();
    let out = at + normal * OUT_OF_SURFACE_M;
    let slope = light.beam.map_or(0.0, |beam| normal.dot((beam.from - at).normalize_or_zero()).max(0.0));
    let infrared = if slope > 0.0 { light.infrared_at(ray.from, out, scene) * slope } else { 0.0 };
    let lux: f64 = lamps
        .iter()
        .map(|lamp| (lamp, lamp.lux(at, normal)))
        .filter(|(lamp, lux)| *lux > 0.0 && lamp.reaches(out, scene))
        .map(|(_, lux)| lux)
        .sum();
    reflectance * (infrared + lux / light.least_lux.unwrap_or(DRAWN_LEAST_LUX))
}
