//! The light that a head has and needs: its infrared light as it hangs, the least light of its model, its shutter.

use crate::file::{CameraFile, Exposure};
use crate::light::infrared::Beam;
use crate::math::Angle;
use crate::scene::Scene;
use glam::DVec3;

/// The shutter at which ranges and least light are rated, s; common practice, no source.
pub const RATED_SHUTTER_S: f64 = 1.0 / 30.0;

/// How much brighter a plate that throws light back looks to the lamp beside the lens than paint does (handbook, section 9: order
/// of magnitude).
pub const RETRO: f64 = 50.0;

/// The light that a head has and needs.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct HeadLight {
    /// Its infrared light; none for a head without, or with that turned off.
    pub beam: Option<Beam>,
    /// The least light of its model at the rated shutter, lux.
    pub least_lux: Option<f64>,
    /// How many times the rated light a picture needs at its shutter (handbook, section 9: k stops need 2ᵏ times the light); 1 where
    /// no shutter is set.
    pub times: f64,
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
        HeadLight { beam, least_lux: camera.model.least_lux, times: exposure.map_or(1.0, needed_times) }
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
}

/// How many times the rated light a picture needs at a shutter.
pub fn needed_times(exposure: &Exposure) -> f64 {
    RATED_SHUTTER_S / exposure.shutter_s
}
