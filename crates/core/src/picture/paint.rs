//! What a surface gives back of the light that falls on it.

use glam::Vec3;

/// What a surface gives back, 0 to 1 in red, green and blue, and whether it throws light back to where it came from.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Paint {
    /// Shares of red, green and blue light, linear.
    pub colour: Vec3,
    /// Whether it throws light back.
    pub retro: bool,
}

impl Paint {
    /// Paint of a colour, linear.
    pub const fn of(red: f32, green: f32, blue: f32) -> Paint {
        Paint { colour: Vec3::new(red, green, blue), retro: false }
    }

    /// The same that throws light back.
    pub const fn thrown_back(self) -> Paint {
        Paint { retro: true, ..self }
    }

    /// The paint so much lighter (over 1) or darker.
    pub fn times(self, by: f32) -> Paint {
        Paint { colour: (self.colour * by).min(Vec3::ONE), ..self }
    }
}

/// A linear share of light as a byte of a picture (IEC 61966-2-1, the sRGB curve).
pub fn byte_of(light: f32) -> u8 {
    let light = light.clamp(0.0, 1.0);
    let curved = if light <= 0.003_130_8 { 12.92 * light } else { 1.055 * light.powf(1.0 / 2.4) - 0.055 };
    (curved * 255.0 + 0.5) as u8
}

/// The curve looked up: raising to a power for each pixel took as long as its ray.
#[derive(Clone, Debug)]
pub struct Curve(Vec<u8>);

/// So many steps: finer than a byte is where the curve is steepest.
const STEPS: usize = 4096;

impl Curve {
    /// The whole curve.
    pub fn new() -> Curve {
        Curve((0..=STEPS).map(|step| byte_of(step as f32 / STEPS as f32)).collect())
    }

    /// [`byte_of`], within one.
    pub fn byte(&self, light: f32) -> u8 {
        self.0[(light.clamp(0.0, 1.0) * STEPS as f32 + 0.5) as usize]
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn bytes_follow_the_standard_curve() {
        // IEC 61966-2-1: 18 % grey is 118 of 255, and a half 188.
        assert_eq!([0.0, 0.18, 0.5, 1.0, 7.0].map(byte_of), [0, 118, 188, 255, 255]);
        let curve = Curve::new();
        assert!((0..=10_000).map(|i| i as f32 / 9_000.0).all(|light| curve.byte(light).abs_diff(byte_of(light)) <= 1));
    }
}
