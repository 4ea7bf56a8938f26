//! The light that a head has and needs: its infrared light as it hangs, the least light of its model, its shutter.

use super::{LampLight, lux_upright, retro_gain};
use crate::file::{CameraFile, Exposure};
use crate::light::infrared::Beam;
use crate::math::Angle;
use crate::scene::Scene;
use glam::DVec3;

/// The shutter at which ranges and least light are rated, s; common practice, no source.
pub const RATED_SHUTTER_S: f64 = 1.0 / 30.0;
/// The shortest shutter that an automatic takes, s (handbook, section 6).
const SHORTEST_S: f64 = 1.0 / 10_000.0;
/// How far an automatic lowers its gain where its limit is not stated, dB; our default.
const USUAL_GAIN_DB: f64 = 30.0;

/// The light that a head has and needs.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct HeadLight {
    /// Its infrared light; none for a head without, or with that turned off.
    pub beam: Option<Beam>,
    /// The least light of its model at the rated shutter, lux.
    pub least_lux: Option<f64>,
    /// How many times the rated light a picture needs at its shutter (handbook, section 9: k stops need 2ᵏ times the light); of an
    /// automatic at the longest that it takes; 1 where none is set.
    pub times: f64,
    /// From where to where its automatic takes that.
    pub range: TimesRange,
    /// Whether its shutter is fixed.
    pub is_fixed: bool,
}

/// From where to where an automatic may choose how many times the rated light a picture takes.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct TimesRange {
    /// With the longest shutter and all of its gain.
    pub least: f64,
    /// With the shortest shutter and none.
    pub most: f64,
}

impl HeadLight {
    /// The light of a head of a camera that hangs at a point, with the axis and the widest field of its lens. A lamp of its own points
    /// where the camera points.
    pub fn new(camera: &CameraFile, exposure: Option<&Exposure>, at: DVec3, axis: DVec3, widest: Angle) -> HeadLight {
        let own = || camera.model.infrared_light().map(|light| (light, at));
        let aside = camera.emitter.map(|emitter| {
            let [x, y] = emitter.position;
            (emitter.light, DVec3::new(x, y, camera.ground_m + emitter.height_m))
        });
        let share = exposure.and_then(|exposure| exposure.infrared_share).unwrap_or(1.0);
        let lit = aside.or_else(own).filter(|(light, _)| light.range_m > 0.0 && share > 0.0);
        // Without a stated beam it is as wide as the lens at its widest (handbook, section 9).
        let beam = lit.map(|(light, from)| {
            Beam::new(from, axis, light.range_m, light.beam_deg.map_or(widest.rad(), f64::to_radians))
                .turned_down(share)
        });
        let times = exposure.and_then(|exposure| exposure.shutter_s).map_or(1.0, needed_times);
        let is_fixed = exposure.and_then(Exposure::fixed_s).is_some();
        let gain_db = exposure.and_then(|exposure| exposure.gain_max_db).unwrap_or(USUAL_GAIN_DB);
        let most = needed_times(SHORTEST_S) * 10_f64.powf(gain_db / 20.0);
        let least = if is_fixed { 1.0 } else { times };
        let range = TimesRange { least, most: most.max(least) };
        HeadLight { beam, least_lux: camera.model.least_lux, times, range, is_fixed }
    }
}

/// Infrared light that comes from further beside the lens than this throws shadows that the lens sees, m.
const ASIDE_M: f64 = 0.3;

impl HeadLight {
    /// Its infrared light, if that comes from so far beside a head that hangs at a point that solids may shade it alone.
    pub fn from_aside(&self, at: DVec3) -> Option<&Beam> {
        self.beam.as_ref().filter(|beam| beam.from.distance(at) > ASIDE_M)
    }

    /// The infrared light at a point, as solids let it through to there; what is behind the lens's own blockers is not asked.
    pub fn infrared_at(&self, eye: DVec3, point: DVec3, scene: &Scene) -> f64 {
        let Some(beam) = &self.beam else { return 0.0 };
        let shaded = self.from_aside(eye).is_some_and(|beam| scene.first_blocker(beam.from, point).is_some());
        if shaded { 0.0 } else { beam.at(point) }
    }

    /// Whether somebody upright at a point who faces the lens gets light enough for a picture, of the head's own or of lamps.
    pub fn is_enough(&self, eye: DVec3, point: DVec3, scene: &Scene, lamps: &[LampLight]) -> bool {
        if self.infrared_at(eye, point, scene) >= self.times {
            return true;
        }
        let least = self.least_lux.map_or(f64::INFINITY, |least| least * self.times);
        let normal = (eye - point).with_z(0.0).normalize_or_zero();
        // Rays are cast only where it may matter.
        let open: f64 = lamps.iter().map(|lamp| lamp.lux(point, normal)).sum();
        open >= least && lux_upright(lamps, scene, point, eye).0 >= least
    }

    /// How many times brighter than paint a plate at a point throws its infrared light back to a lens, where `most` times come back
    /// along the light itself.
    pub fn thrown_back(&self, eye: DVec3, point: DVec3, most: f64) -> f64 {
        let off = self.beam.map_or(0.0, |beam| (beam.from - point).angle_between(eye - point));
        retro_gain(if off.is_nan() { 0.0 } else { off }, most)
    }
}

/// How many times the rated light a picture needs at a shutter, s.
pub fn needed_times(shutter_s: f64) -> f64 {
    RATED_SHUTTER_S / shutter_s
}
