//! The directions of pixels without trigonometry: a projection's inverse, tabulated.

use super::Projection;
use glam::{DVec2, DVec3};

/// Steps of the table. Between two of them it is straight; the direction is off by less than 10⁻⁷ radian (tests).
const STEPS: usize = 4096;

/// sin θ / r and cos θ by r², for focal length one: what makes a unit direction of a place of the picture.
#[derive(Clone, Debug)]
pub struct RayCurve {
    half: DVec2,
    per_px: f64,
    per_square: f64,
    /// None past the edge of what the projection can show.
    nodes: Vec<Option<[f64; 2]>>,
}

impl RayCurve {
    /// The curve of a projection, as far as its picture reaches.
    pub fn new(projection: &Projection) -> RayCurve {
        let half = projection.size() / 2.0;
        let per_px = 1.0 / projection.focal_px();
        // A little farther than the corners.
        let most = (half * per_px).length_squared() * (1.0 + 2.0 / STEPS as f64);
        let node = |i: usize| {
            let radius = (most * i as f64 / STEPS as f64).sqrt();
            let direction = projection.unproject(half + DVec2::new(radius / per_px, 0.0))?;
            Some([if radius < 1e-9 { 1.0 } else { direction.x / radius }, direction.z])
        };
        RayCurve { half, per_px, per_square: STEPS as f64 / most, nodes: (0..=STEPS).map(node).collect() }
    }

    /// The direction in camera axes that lands on a pixel of the picture; `None` where the projection shows nothing.
    #[inline]
    pub fn direction(&self, pixel: DVec2) -> Option<DVec3> {
        let flat = (pixel - self.half) * self.per_px;
        let along = flat.length_squared() * self.per_square;
        let place = (along as usize).min(STEPS - 1);
        let (a, b) = (self.nodes[place]?, self.nodes[place + 1]?);
        let share = along - place as f64;
        Some((flat * (a[0] + (b[0] - a[0]) * share)).extend(a[1] + (b[1] - a[1]) * share))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn directions_are_those_of_the_projection() {
        for (bend, focal) in [(1.0, 900.0), (1.0, 9000.0), (0.5, 800.0), (0.0, 750.0), (-0.5, 820.0), (-0.3, 1400.0)] {
            let projection = Projection::of(bend, focal, DVec2::new(2688.0, 1520.0));
            let curve = RayCurve::new(&projection);
            for row in 0..39 {
                for column in 0..68 {
                    let pixel = DVec2::new(f64::from(column), f64::from(row)) * 39.9 + 0.5;
                    let (Some(exact), Some(found)) = (projection.unproject(pixel), curve.direction(pixel)) else {
                        panic!("bend {bend} at {pixel}");
                    };
                    let off = (exact - found).length();
                    assert!(off < 1e-7, "bend {bend}, focal length {focal} px, at {pixel}: {off}");
                }
            }
        }
    }
}
