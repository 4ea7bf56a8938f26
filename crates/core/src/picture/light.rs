//! The light of a picture: an open sky with the sun to one side, or the head's own infrared.

use super::paint::{Paint, RETRO};
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
    /// By night, with the infrared light of the camera, exposed by so many stops over what makes the promises of the head well lit.
    Night {
        /// Stops, a doubling each.
        #[serde(default)]
        stops: f64,
    },
}

/// The light as it falls.
#[derive(Clone, Copy, Debug)]
pub(super) enum Falling {
    Day,
    Infrared(Beam),
    /// Night, and a camera without light of its own.
    Dark,
}

/// The infrared light of a head.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Beam {
    /// The axis of the beam.
    pub axis: DVec3,
    /// Rated range, m: there the light is 1 on the axis.
    pub range: f64,
    /// How fast it falls off to the side: cosᵐ.
    pub power: f64,
    /// What the exposure makes of light 1.
    pub gain: f64,
}

impl Beam {
    /// A beam whose edge, half of an angle off its axis, has half of the light (handbook, section 9).
    pub fn new(axis: DVec3, range: f64, wide: f64) -> Beam {
        let edge = (wide / 2.0).clamp(0.02, 1.55);
        Beam { axis, range, power: 0.5_f64.ln() / edge.cos().ln(), gain: 1.0 }
    }

    /// The light at a distance, m, along a direction: (R/s)²·cosᵐθ.
    pub fn at(&self, direction: DVec3, distance: f64) -> f64 {
        let ahead = self.axis.dot(direction);
        if ahead <= 0.0 {
            return 0.0;
        }
        (self.range / distance.max(0.05)).powi(2) * ahead.powf(self.power)
    }
}

impl Falling {
    /// The light that comes back from paint, 1 for white.
    pub fn back(&self, paint: Paint, normal: DVec3, direction: DVec3, distance: f64) -> Vec3 {
        match self {
            Falling::Day => {
                let lit = normal.dot(SUN).max(0.0) as f32;
                // What faces up has the whole sky, an upright wall half of it.
                let open = 0.5 + 0.5 * normal.z as f32;
                paint.colour * (SKY_SHARE * open.max(0.25) + (1.0 - SKY_SHARE) * lit) * 1.25
            }
            Falling::Infrared(beam) => {
                let slope = if paint.retro { 1.0 } else { (-normal.dot(direction)).max(0.0) };
                let light = (beam.at(direction, distance) * slope * beam.gain) as f32;
                let back = if paint.retro { RETRO } else { 1.0 };
                // A sensor without its filter has no colours.
                Vec3::splat(paint.colour.element_sum() / 3.0 * light * back + NIGHT_GLOW)
            }
            Falling::Dark => Vec3::splat(paint.colour.element_sum() / 3.0 * NIGHT_GLOW),
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

    #[test]
    fn infrared_falls_off_as_the_handbook_says() {
        let beam = Beam::new(DVec3::X, 30.0, 60_f64.to_radians());
        // Section 9: 1 at the rated range on the axis, four times that at half of it, half at the beam's edge.
        assert!((beam.at(DVec3::X, 30.0) - 1.0).abs() < 1e-12);
        assert!((beam.at(DVec3::X, 15.0) - 4.0).abs() < 1e-12);
        let edge = DVec3::new(30_f64.to_radians().cos(), 30_f64.to_radians().sin(), 0.0);
        assert!((beam.at(edge, 30.0) - 0.5).abs() < 1e-12);
        assert_eq!(beam.at(-DVec3::X, 1.0), 0.0);
    }

    #[test]
    fn a_plate_comes_back_fifty_times_brighter_however_it_is_turned() {
        let mut beam = Beam::new(DVec3::X, 10.0, 1.0);
        beam.gain = 0.001;
        let paint = Paint::of(0.5, 0.5, 0.5);
        let back = |paint| Falling::Infrared(beam).back(paint, -DVec3::X, DVec3::X, 10.0).x - NIGHT_GLOW;
        assert!((back(paint.thrown_back()) / back(paint) - 50.0).abs() < 1e-3);
    }
}
