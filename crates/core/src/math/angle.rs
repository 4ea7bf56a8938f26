//! Angles: degrees at the edges, radians inside.

use std::ops::{Add, Mul, Neg, Sub};

/// A plane angle. It is made from and read as degrees, and computes in radians.
///
/// ```
/// use bright_angle_core::math::Angle;
/// assert!((Angle::degrees(30.0).sin() - 0.5).abs() < 1e-15);
/// ```
#[derive(Clone, Copy, Debug, Default, PartialEq, PartialOrd)]
pub struct Angle(f64);

impl Angle {
    /// No angle at all.
    pub const ZERO: Angle = Angle(0.0);

    /// An angle of so many degrees.
    pub fn degrees(value: f64) -> Self {
        Angle(value.to_radians())
    }

    /// An angle of so many radians.
    pub const fn radians(value: f64) -> Self {
        Angle(value)
    }

    /// The direction of the vector (east, north) as a bearing: clockwise from north, −180° to 180°.
    pub fn bearing_of(east: f64, north: f64) -> Self {
        Angle(east.atan2(north))
    }

    /// The angle in degrees.
    pub fn deg(self) -> f64 {
        self.0.to_degrees()
    }

    /// The angle in radians.
    pub const fn rad(self) -> f64 {
        self.0
    }

    /// Its sine.
    pub fn sin(self) -> f64 {
        self.0.sin()
    }

    /// Its cosine.
    pub fn cos(self) -> f64 {
        self.0.cos()
    }

    /// The same direction between −180° and 180°.
    pub fn wrapped(self) -> Self {
        use std::f64::consts::{PI, TAU};
        let turned = self.0.rem_euclid(TAU);
        Angle(if turned > PI { turned - TAU } else { turned })
    }

    /// The size of the angle without its sign.
    pub fn abs(self) -> Self {
        Angle(self.0.abs())
    }
}

impl Add for Angle {
    type Output = Angle;
    fn add(self, other: Angle) -> Angle {
        Angle(self.0 + other.0)
    }
}

impl Sub for Angle {
    type Output = Angle;
    fn sub(self, other: Angle) -> Angle {
        Angle(self.0 - other.0)
    }
}

impl Neg for Angle {
    type Output = Angle;
    fn neg(self) -> Angle {
        Angle(-self.0)
    }
}

impl Mul<f64> for Angle {
    type Output = Angle;
    fn mul(self, factor: f64) -> Angle {
        Angle(self.0 * factor)
    }
}

#[cfg(test)]
mod tests {
    use super::Angle;

    #[test]
    fn wrapping_keeps_the_direction() {
        for (given, expected) in [(0.0, 0.0), (190.0, -170.0), (-190.0, 170.0), (720.0, 0.0), (180.0, 180.0)] {
            assert!((Angle::degrees(given).wrapped().deg() - expected).abs() < 1e-9, "{given}");
        }
    }

    #[test]
    fn bearings_turn_clockwise_from_north() {
        assert_eq!(Angle::bearing_of(0.0, 1.0).deg(), 0.0);
        assert_eq!(Angle::bearing_of(1.0, 0.0).deg(), 90.0);
        assert_eq!(Angle::bearing_of(-1.0, 0.0).deg(), -90.0);
    }
}
