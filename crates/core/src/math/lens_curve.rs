//! A projection's radius by the cosine of the angle off the axis, tabulated: the hot path without trigonometry.

use super::projection::{PINHOLE, greatest_angle, radius, slope_of};
use glam::DVec3;
use std::f64::consts::PI;
use std::sync::Arc;

/// Steps of the table.
const STEPS: usize = 256;
/// Past this cosine the table would come too near to straight behind, where it has no value.
const LEAST_COSINE: f64 = -0.95;

/// k(c) = r(θ)/sin θ with c = cos θ for focal length one, so that a unit direction (x, y, c) lands at k·(x, y).
///
/// Cubic Hermite interpolation between exact values and slopes; the error is under 1e-9 of the value wherever a picture
/// of the family reaches (tests). Outside the table it computes exactly.
#[derive(Clone, Debug, PartialEq)]
pub struct LensCurve {
    bend: f64,
    /// The least cosine in the table.
    least: f64,
    per_cosine: f64,
    /// The cosine of the greatest angle that the projection shows; less than −1 where it shows all.
    shows_past: f64,
    /// Value and step × slope at each node; none for the pinhole, whose k is 1/c.
    nodes: Arc<[[f64; 2]]>,
}

impl LensCurve {
    /// The curve of a bend for cosines from `least` on.
    pub fn new(bend: f64, least: f64) -> Self {
        let least = least.clamp(LEAST_COSINE, 0.999);
        let step = (1.0 - least) / STEPS as f64;
        let nodes = if bend == PINHOLE {
            Arc::from([])
        } else {
            (0..=STEPS).map(|i| node(bend, if i == STEPS { 1.0 } else { least + step * i as f64 }, step)).collect()
        };
        let greatest = greatest_angle(bend);
        let shows_past = if greatest < PI { greatest.cos() } else { f64::NEG_INFINITY };
        LensCurve { bend, least, per_cosine: 1.0 / step, shows_past, nodes }
    }

    /// k at a cosine; the cosine must be one that the projection shows.
    #[inline]
    pub fn factor(&self, cosine: f64) -> f64 {
        if self.nodes.is_empty() {
            return 1.0 / cosine;
        }
        let along = (cosine - self.least) * self.per_cosine;
        if !(0.0..=STEPS as f64).contains(&along) {
            return exact(self.bend, cosine);
        }
        let place = (along as usize).min(STEPS - 1);
        let t = along - place as f64;
        let ([v0, d0], [v1, d1]) = (self.nodes[place], self.nodes[place + 1]);
        let rise = v1 - v0;
        // Hermite's cubic about the left node.
        v0 + t * (d0 + t * (3.0 * rise - 2.0 * d0 - d1 + t * (d0 + d1 - 2.0 * rise)))
    }

    /// The square of dr/dθ where the radius is r.
    #[inline]
    pub fn slope_squared(&self, radius: f64) -> f64 {
        let square = (self.bend * radius) * (self.bend * radius);
        if self.bend > 0.0 { (1.0 + square) * (1.0 + square) } else { (1.0 - square).max(0.0) }
    }

    /// Pixel density, px/m, for focal length one px: how long one metre along `step` is in the picture, for a direction at
    /// distance `length` and cosine `cosine` off the axis, where `step` is a unit vector square to the direction and
    /// `forward_step` its component along the axis.
    ///
    /// With k = r/sin θ, q = forward_step²/(length·sin θ)²: density² = k²/length² + q·((dr/dθ)² − k²), which follows from
    /// the Jacobian of the projection because the step is square to the direction.
    #[inline]
    pub fn density(&self, length_squared: f64, cosine: f64, factor: f64, forward_step: f64) -> f64 {
        let sine_squared = (1.0 - cosine * cosine).max(0.0);
        let square = factor * factor;
        let q = forward_step * forward_step / (length_squared * sine_squared + f64::MIN_POSITIVE);
        let slope = self.slope_squared((square * sine_squared).sqrt());
        (square / length_squared + q * (slope - square)).max(0.0).sqrt()
    }

    /// The place of a direction in camera axes, for focal length one; `None` past what the projection shows.
    #[inline]
    pub fn place(&self, direction: DVec3) -> Option<glam::DVec2> {
        let length = direction.length();
        let cosine = direction.z / length;
        if cosine <= self.shows_past {
            return None;
        }
        Some(direction.truncate() * (self.factor(cosine) / length))
    }
}

/// k at a cosine, exactly.
fn exact(bend: f64, cosine: f64) -> f64 {
    let theta = cosine.clamp(-1.0, 1.0).acos();
    if theta < 1e-8 { 1.0 } else { radius(bend, theta) / theta.sin() }
}

/// k at a cosine and the step times its slope: dk/dc = −(r'·sin θ − r·cos θ)/sin³ θ.
fn node(bend: f64, cosine: f64, step: f64) -> [f64; 2] {
    let theta = cosine.acos();
    if theta < 1e-6 {
        // On the axis r = θ + β·θ³ with β = b²/3 or −b²/6, so that k = 1 + (β + 1/6)·2(1 − c).
        let beta = if bend > 0.0 { bend * bend / 3.0 } else { -bend * bend / 6.0 };
        return [1.0, -2.0 * (beta + 1.0 / 6.0) * step];
    }
    let (sine, r) = (theta.sin(), radius(bend, theta));
    let slope = -(slope_of(bend, r) * sine - r * cosine) / (sine * sine * sine);
    [r / sine, slope * step]
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn it_agrees_with_the_exact_projection() {
        for bend in [1.0, 0.95, 0.5, 0.48327, 0.1, 0.0, -0.33514, -0.5] {
            // As wide as pictures of the family are: a pinhole to 2 · 65°, a fisheye to 2 · 110°.
            let widest = (0.8 * greatest_angle(bend)).min(110.0_f64.to_radians());
            let curve = LensCurve::new(bend, widest.cos());
            for i in 0..=2000 {
                let cosine = widest.cos() + (1.0 - widest.cos()) * f64::from(i) / 2000.0;
                let (found, expected) = (curve.factor(cosine), exact(bend, cosine));
                assert!((found / expected - 1.0).abs() < 1e-9, "bend {bend} cosine {cosine}: {found} {expected}");
            }
        }
    }
}
