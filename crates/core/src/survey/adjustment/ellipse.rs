//! The standard error ellipse of a point.

use nalgebra::Matrix2;
use serde::Serialize;
use utoipa::ToSchema;

/// A standard error ellipse: the square roots of the eigenvalues of a point's covariance.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct Ellipse {
    /// The long half axis, m.
    pub major_m: f64,
    /// The short half axis, m.
    pub minor_m: f64,
    /// Bearing of the long axis, degrees in [0, 180).
    pub bearing_deg: f64,
}

impl Ellipse {
    /// The ellipse of a covariance of east and north, m².
    pub fn of(covariance: Matrix2<f64>) -> Self {
        let (ee, nn, en) = (covariance[(0, 0)], covariance[(1, 1)], covariance[(0, 1)]);
        let middle = 0.5 * (ee + nn);
        let apart = (0.5 * (ee - nn)).hypot(en);
        // The long axis makes the angle t with north where tan 2t = 2·cov(e, n) / (var n − var e).
        let bearing = 0.5 * (2.0 * en).atan2(nn - ee);
        let degrees = bearing.to_degrees().rem_euclid(180.0);
        Ellipse {
            major_m: (middle + apart).max(0.0).sqrt(),
            minor_m: (middle - apart).max(0.0).sqrt(),
            bearing_deg: if degrees >= 180.0 { 0.0 } else { degrees },
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn axes_and_bearings_of_turned_ellipses() {
        for bearing in [0.0, 30.0, 90.0, 135.0, 179.0_f64] {
            let (sin, cos) = bearing.to_radians().sin_cos();
            // Half axes 3 along the bearing and 1 across it, turned by hand.
            let (long, short) = (9.0, 1.0);
            let covariance = Matrix2::new(
                long * sin * sin + short * cos * cos,
                (long - short) * sin * cos,
                (long - short) * sin * cos,
                long * cos * cos + short * sin * sin,
            );
            let found = Ellipse::of(covariance);
            assert!((found.major_m - 3.0).abs() < 1e-12 && (found.minor_m - 1.0).abs() < 1e-12);
            assert!((found.bearing_deg - bearing).abs() < 1e-9, "{found:?}");
        }
    }
}
