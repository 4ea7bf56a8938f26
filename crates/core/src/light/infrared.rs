//! Infrared light on the subject, by the inverse square of the distance (handbook, section 4).

use glam::DVec3;

/// By how many stops the exposure that infrared light asks for changes across a zone from `near_m` to `far_m`
/// (slant distances, m): 2·log2(far / near). One camera setting has to serve both ends.
///
/// ```
/// use bright_angle_core::light::infrared::stops_across;
/// assert_eq!(stops_across(10.0, 20.0), 2.0);
/// ```
pub fn stops_across(near_m: f64, far_m: f64) -> f64 {
    2.0 * (far_m / near_m).log2()
}

/// A beam of infrared light: its axis, how far it is rated, and how fast it falls off to the side (handbook, section 9).
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Beam {
    /// Where it comes from, m.
    pub from: DVec3,
    /// The axis of the beam, of length one.
    pub axis: DVec3,
    /// Rated range, m: there the light is 1 on the axis.
    pub range: f64,
    /// How far off its axis it has half of its light, radians.
    pub edge: f64,
    /// How fast it falls off to the side: cosᵐ.
    power: f64,
    /// The share of it that is used.
    share: f64,
}

/// Nearer than this the light grows no more, m: an emitter is no point.
const NEAREST_M: f64 = 0.05;

impl Beam {
    /// A beam whose edge, half of an angle (radians) off its axis, has half of the light.
    pub fn new(from: DVec3, axis: DVec3, range: f64, wide: f64) -> Beam {
        let edge = (wide / 2.0).clamp(0.005, 1.55);
        Beam { from, axis, range, edge, power: 0.5_f64.ln() / edge.cos().ln(), share: 1.0 }
    }

    /// The same with only a share of its light.
    pub fn turned_down(self, share: f64) -> Beam {
        Beam { share: self.share * share, ..self }
    }

    /// The light at a distance, m, along a direction of length one: (R/s)²·cosᵐθ; 1 at the rated range on the axis.
    pub fn along(&self, direction: DVec3, distance: f64) -> f64 {
        self.off_axis(self.axis.dot(direction), distance)
    }

    /// The light at a point.
    pub fn at(&self, point: DVec3) -> f64 {
        let step = point - self.from;
        self.along(step.normalize_or_zero(), step.length())
    }

    /// The least light at a point with the axis off by so many radians.
    pub fn least_at(&self, point: DVec3, off: f64) -> f64 {
        let step = point - self.from;
        let angle = self.axis.angle_between(step).min(std::f64::consts::PI) + off;
        self.off_axis(if angle < std::f64::consts::FRAC_PI_2 { angle.cos() } else { 0.0 }, step.length())
    }

    /// The most light over places, none further off the line to `middle` than they are, of which `nearest` is the nearest, with the axis
    /// off by so many radians.
    pub fn most_over(&self, middle: DVec3, places: &[DVec3], nearest: DVec3, off: f64) -> f64 {
        let towards = middle - self.from;
        let spread = places.iter().map(|place| towards.angle_between(*place - self.from)).fold(0.0, f64::max);
        let angle = (self.axis.angle_between(towards) - spread - off).max(0.0);
        if angle.is_nan() {
            return self.off_axis(1.0, 0.0);
        }
        self.off_axis(angle.cos(), nearest.distance(self.from))
    }

    fn off_axis(&self, cosine: f64, distance: f64) -> f64 {
        if cosine <= 0.0 {
            return 0.0;
        }
        self.share * (self.range / distance.max(NEAREST_M)).powi(2) * cosine.min(1.0).powf(self.power)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn infrared_falls_off_as_the_handbook_says() {
        let beam = Beam::new(DVec3::ZERO, DVec3::X, 30.0, 60_f64.to_radians());
        // Section 9: 1 at the rated range on the axis, four times that at half of it, half at the beam's edge.
        assert!((beam.along(DVec3::X, 30.0) - 1.0).abs() < 1e-12);
        assert!((beam.at(DVec3::X * 15.0) - 4.0).abs() < 1e-12);
        let edge = DVec3::new(30_f64.to_radians().cos(), 30_f64.to_radians().sin(), 0.0);
        assert!((beam.along(edge, 30.0) - 0.5).abs() < 1e-12);
        assert!((beam.least_at(DVec3::X * 30.0, 30_f64.to_radians()) - 0.5).abs() < 1e-12);
        assert_eq!(beam.at(-DVec3::X), 0.0);
        assert_eq!(beam.turned_down(0.25).at(DVec3::X * 15.0), 1.0);
    }

    #[test]
    fn one_setting_does_not_serve_25_and_75_feet() {
        // Common practice, no source: the two differ by 3.2 stops.
        assert!((stops_across(25.0, 75.0) - 3.2).abs() < 0.05);
    }
}
