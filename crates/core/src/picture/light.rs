//! The light of a picture: an open sky with the sun to one side, or the head's own infrared.

use super::paint::Paint;
use crate::light::infrared::Beam;
use crate::light::{LampLight, RETRO, retro_gain};
use crate::scene::Scene;
use glam::{DVec3, Vec3};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Where the sun stands while no date is known: in the south-west, 40° up; our convention.
const SUN: DVec3 = DVec3::new(-0.541_675_220, -0.541_675_220, 0.642_787_610);
/// How much of the light of a day comes from the whole sky, our choice.
const SKY_SHARE: f32 = 0.45;
/// Light that is there at night without a lamp, as a share of what the exposure makes white; our choice.
const NIGHT_GLOW: f32 = 0.004;

/// Which light a picture is taken in.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case", deny_unknown_fields)]
pub enum Light {
    /// By day.
    Day,
    /// By night, by the infrared light of the camera and by lamps.
    Night {
        /// Lighter than it is exposed by so many stops, a doubling each.
        #[serde(default)]
        stops: f64,
        /// How it is exposed; where left out as set where its shutter is fixed, else by its automatic.
        #[serde(default)]
        exposed: Option<Exposed>,
    },
}

/// How a picture is exposed by night.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Exposed {
    /// As it is set: by its shutter; with none set by the one that its light is rated for.
    AsSet,
    /// As its automatic does it: the mean of the picture brought to 18 % of white, within its shutter and its gain.
    Automatic,
}

/// The light as it falls.
#[derive(Clone, Debug)]
pub(super) enum Falling {
    Day,
    Night(Night),
}

/// The light of a night: the head's own infrared, and lamps.
#[derive(Clone, Debug)]
pub(super) struct Night {
    /// The infrared light, if it has any.
    pub beam: Option<Beam>,
    /// Whether that comes from beside the lens, so that it throws shadows that the lens sees.
    pub from_aside: bool,
    pub lamps: Vec<LampLight>,
    /// How many times brighter than paint plates come back along the light.
    pub retro: f64,
    /// What the exposure makes of infrared light 1.
    pub gain: f64,
    /// What it makes of one lux.
    pub of_lux: f64,
}

/// A place of a surface that light falls on.
#[derive(Clone, Copy, Debug)]
pub(super) struct Place {
    /// m.
    pub at: DVec3,
    /// Out of the surface, towards who looks.
    pub normal: DVec3,
}

/// Shadows are looked for so far out of a surface, m: it does not shade itself.
const OUT_OF_SURFACE_M: f64 = 1e-3;

impl Night {
    /// Night without any light.
    pub const DARK: Night =
        Night { beam: None, from_aside: false, lamps: vec![], retro: RETRO, gain: 0.0, of_lux: 0.0 };

    /// How many times brighter than paint a plate at a point comes back to a lens that looks along a direction.
    fn thrown_back(&self, at: DVec3, direction: DVec3) -> f64 {
        let off = self.beam.map_or(0.0, |beam| (beam.from - at).angle_between(-direction));
        retro_gain(if self.from_aside && off.is_finite() { off } else { 0.0 }, self.retro)
    }

    /// The light on a surface, 1 for what the exposure makes white: infrared, and that of lamps.
    fn on(&self, scene: &Scene, Place { at, normal }: Place) -> [f64; 2] {
        let out = at + normal * OUT_OF_SURFACE_M;
        let infrared = self.beam.map_or(0.0, |beam| {
            let light = beam.at(at) * self.gain;
            let shaded = light > 0.0 && self.from_aside && scene.first_blocker(beam.from, out).is_some();
            if shaded { 0.0 } else { light }
        });
        let lamps = self.lamps.iter().map(|lamp| (lamp, lamp.lux(at, normal) * self.of_lux));
        // What adds nothing to be seen needs no ray.
        let lit = lamps.filter(|(lamp, light)| *light > LEAST_SEEN && lamp.reaches(out, scene));
        [infrared, lit.map(|(_, light)| light).sum()]
    }
}

/// Light that makes less than this of white is not seen.
const LEAST_SEEN: f64 = 1e-3;

impl Falling {
    /// The light that comes back from paint along a direction from the lens, 1 for white.
    pub fn back(&self, scene: &Scene, paint: Paint, place: Place, direction: DVec3) -> Vec3 {
        let normal = place.normal;
        match self {
            Falling::Day => {
                let lit = normal.dot(SUN).max(0.0) as f32;
                // What faces up has the whole sky, an upright wall half of it.
                let open = 0.5 + 0.5 * normal.z as f32;
                paint.colour * (SKY_SHARE * open.max(0.25) + (1.0 - SKY_SHARE) * lit) * 1.25
            }
            Falling::Night(night) => {
                let [infrared, lamps] = night.on(scene, place);
                let slope = if paint.retro { 1.0 } else { (-normal.dot(direction)).max(0.0) };
                let back = if paint.retro { night.thrown_back(place.at, direction) as f32 } else { 1.0 };
                // A sensor without its filter has no colours.
                let grey = paint.colour.element_sum() / 3.0;
                let lit = grey * ((infrared * slope) as f32 * back + lamps as f32);
                let dark = night.beam.is_none() && night.lamps.is_empty();
                Vec3::splat(if dark { grey * NIGHT_GLOW } else { lit + NIGHT_GLOW })
            }
        }
    }

    /// The sky in a direction.
    pub fn sky(&self, direction: DVec3) -> Vec3 {
        match self {
            Falling::Day => {
                let up = (direction.z.max(0.0) as f32).sqrt();
                let near_sun = direction.dot(SUN).max(0.0).powi(6) as f32;
                Vec3::new(0.72, 0.80, 0.86).lerp(Vec3::new(0.32, 0.48, 0.66), up) + Vec3::splat(0.22 * near_sun)
            }
            _ => Vec3::splat(NIGHT_GLOW / 2.0),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::scene::Solid;

    #[test]
    fn a_plate_comes_back_fifty_times_brighter_however_it_is_turned() {
        let beam = Beam::new(DVec3::ZERO, DVec3::X, 10.0, 1.0);
        let night = Falling::Night(Night { beam: Some(beam), gain: 0.001, ..Night::DARK });
        let paint = Paint::of(0.5, 0.5, 0.5);
        let scene = Scene::new(vec![]);
        let place = Place { at: DVec3::X * 10.0, normal: -DVec3::X };
        let back = |paint| night.back(&scene, paint, place, DVec3::X).x - NIGHT_GLOW;
        assert!((back(paint.thrown_back()) / back(paint) - 50.0).abs() < 1e-2);
    }

    #[test]
    fn lamps_light_what_faces_them_and_is_not_in_shadow() {
        let lamp = |from| LampLight { id: "l".into(), from, candela: 1000.0, inside: None };
        let lit = |lamps: Vec<LampLight>, solids| {
            let night = Falling::Night(Night { lamps, of_lux: 0.01, ..Night::DARK });
            let place = Place { at: DVec3::ZERO, normal: DVec3::Z };
            night.back(&Scene::new(solids), Paint::of(1.0, 1.0, 1.0), place, -DVec3::Z).x - NIGHT_GLOW
        };
        // 40 lux straight below at 5 m, 100 lux white.
        assert!((lit(vec![lamp(DVec3::Z * 5.0)], vec![]) - 0.4).abs() < 1e-6);
        let roof = Solid::new("r", &[[-1.0, -1.0], [1.0, -1.0], [1.0, 1.0], [-1.0, 1.0]], true, 2.0, 3.0, 0.0);
        assert_eq!(lit(vec![lamp(DVec3::Z * 5.0)], vec![roof]), 0.0);
        assert_eq!(lit(vec![lamp(-DVec3::Z)], vec![]), 0.0);
    }
}
