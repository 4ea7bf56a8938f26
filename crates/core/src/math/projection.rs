//! From directions to pixels and back: one family of projections from rectilinear to equisolid.
//!
//! A ray at angle θ off the axis lands at r = f·tan(bθ)/b from the centre (handbook, section 3).
//! *Bend* b = 1 is the distortion-free pinhole, b = ½ stereographic, b → 0 equidistant, b = −½
//! equisolid.

use glam::{DVec2, DVec3};
use std::f64::consts::{FRAC_PI_2, PI};

/// The bend of the family at its rectilinear end.
pub const PINHOLE: f64 = 1.0;
/// The bend of the family at its equisolid end.
pub const EQUISOLID: f64 = -0.5;
/// Nearer to zero than this the equidistant limit is used.
const STRAIGHT: f64 = 1e-9;

/// tan(bθ)/b for focal length one; for b < 0 it is sin(−bθ)/(−b), at b = 0 it is θ.
pub fn radius(bend: f64, theta: f64) -> f64 {
    if bend.abs() < STRAIGHT {
        theta
    } else if bend > 0.0 {
        (bend * theta).tan() / bend
    } else {
        (-bend * theta).sin() / -bend
    }
}

/// The derivative in θ of [`radius`] where it is `radius`. With t = tan(bθ) it is 1 + t²; with s = sin(−bθ) it is √(1 − s²).
pub fn slope_of(bend: f64, radius: f64) -> f64 {
    let square = (bend * radius) * (bend * radius);
    if bend > 0.0 { 1.0 + square } else { (1.0 - square).max(0.0).sqrt() }
}

/// The inverse of [`radius`]; `None` past the edge of what the projection can show.
pub fn angle_at(bend: f64, radius: f64) -> Option<f64> {
    if bend.abs() < STRAIGHT {
        (radius <= PI).then_some(radius)
    } else if bend > 0.0 {
        Some((bend * radius).atan() / bend)
    } else {
        let sine = -bend * radius;
        (sine <= (-bend * PI).min(FRAC_PI_2).sin()).then(|| sine.asin() / -bend)
    }
}

/// The greatest angle off the axis that the family shows for this bend (exclusive for b > 0).
pub fn greatest_angle(bend: f64) -> f64 {
    if bend > STRAIGHT { (FRAC_PI_2 / bend).min(PI) } else { PI }
}

/// A lens in front of a picture: bend, focal length in pixels and picture size.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Projection {
    bend: f64,
    focal_px: f64,
    size: DVec2,
    /// Radius of the image circle, px; infinite where the lens fills the picture.
    circle: f64,
    /// Cosine of the greatest angle off the axis in the picture, that of its corners.
    corner_cosine: f64,
}

impl Projection {
    /// A projection by its bend, focal length and picture size in pixels.
    pub fn of(bend: f64, focal_px: f64, size: DVec2) -> Self {
        Projection { bend, focal_px, size, circle: f64::INFINITY, corner_cosine: 1.0 }.bounded()
    }

    /// The same behind a lens whose image circle has a radius, px.
    pub fn in_circle(self, radius: f64) -> Self {
        Projection { circle: radius, ..self }.bounded()
    }

    fn bounded(self) -> Self {
        let reach = (self.size.length() / 2.0).min(self.circle);
        // A little wider, so that rounding never cuts a corner off.
        Projection { corner_cosine: (self.angle_off_axis(reach) + 1e-9).min(PI).cos(), ..self }
    }

    /// Bend of the family, −½ to 1.
    pub fn bend(&self) -> f64 {
        self.bend
    }

    /// Effective focal length, px.
    pub fn focal_px(&self) -> f64 {
        self.focal_px
    }

    /// Picture size, px.
    pub fn size(&self) -> DVec2 {
        self.size
    }

    /// Cosine of the greatest angle off the axis in the picture.
    pub fn corner_cosine(&self) -> f64 {
        self.corner_cosine
    }

    /// The pixel on which a direction in camera axes lands; it may lie outside the picture.
    /// `None` where the projection has no place for it (behind a pinhole).
    pub fn project(&self, direction: DVec3) -> Option<DVec2> {
        let flat = direction.truncate();
        let off_axis = flat.length();
        let theta = off_axis.atan2(direction.z);
        if theta >= greatest_angle(self.bend) {
            return None;
        }
        let scale =
            if off_axis > 1e-12 * direction.z.abs() { radius(self.bend, theta) / off_axis } else { 1.0 / direction.z };
        Some(self.size / 2.0 + flat * (self.focal_px * scale))
    }

    /// How the pixel moves, px per unit, when the direction moves by `step`: the exact Jacobian of
    /// [`Projection::project`] applied to a vector.
    pub fn pixel_velocity(&self, direction: DVec3, step: DVec3) -> DVec2 {
        let [velocity] = self.pixel_velocities(direction, [step]);
        velocity
    }

    /// The same for several steps from one direction.
    pub fn pixel_velocities<const N: usize>(&self, direction: DVec3, steps: [DVec3; N]) -> [DVec2; N] {
        let flat = direction.truncate();
        let off_axis = flat.length();
        if off_axis <= 1e-9 * direction.z.abs() {
            return steps.map(|step| step.truncate() * (self.focal_px / direction.z));
        }
        let out = flat / off_axis;
        let radius = radius(self.bend, off_axis.atan2(direction.z));
        let slope = slope_of(self.bend, radius);
        steps.map(|step| {
            let flat_step = step.truncate();
            let off_axis_step = out.dot(flat_step);
            let theta_step = (direction.z * off_axis_step - off_axis * step.z) / direction.length_squared();
            let around = (flat_step - out * off_axis_step) * (radius / off_axis);
            (out * (slope * theta_step) + around) * self.focal_px
        })
    }

    /// The direction in camera axes that lands on a pixel; `None` outside the image circle.
    pub fn unproject(&self, pixel: DVec2) -> Option<DVec3> {
        let flat = (pixel - self.size / 2.0) / self.focal_px;
        let r = flat.length();
        if r < 1e-15 {
            return Some(DVec3::Z);
        }
        let theta = angle_at(self.bend, r)?;
        Some((flat * (theta.sin() / r)).extend(theta.cos()))
    }

    /// Whether a pixel lies in the picture, edges included.
    pub fn holds(&self, pixel: DVec2) -> bool {
        pixel.cmpge(DVec2::ZERO).all()
            && pixel.cmple(self.size).all()
            && (pixel - self.size / 2.0).length_squared() <= self.circle * self.circle
    }

    /// Radius of the image circle, px; infinite where the lens fills the picture.
    pub fn circle(&self) -> f64 {
        self.circle
    }

    /// How far inside the nearest edge of the picture a place lies, px from its centre; negative outside.
    pub fn inside_by(&self, from_centre: DVec2) -> f64 {
        let edges = (self.size / 2.0 - from_centre.abs()).min_element();
        if self.circle.is_finite() { edges.min(self.circle - from_centre.length()) } else { edges }
    }

    /// The angle off the axis at `px` from the picture's centre, at most what the family shows.
    pub fn angle_off_axis(&self, px: f64) -> f64 {
        angle_at(self.bend, px / self.focal_px).unwrap_or_else(|| greatest_angle(self.bend))
    }

    /// Horizontal field of view, radians.
    pub fn hfov(&self) -> f64 {
        2.0 * self.angle_off_axis((self.size.x / 2.0).min(self.circle))
    }

    /// Vertical field of view, radians.
    pub fn vfov(&self) -> f64 {
        2.0 * self.angle_off_axis((self.size.y / 2.0).min(self.circle))
    }

    /// The same lens with its focal length scaled.
    pub fn scaled(&self, factor: f64) -> Self {
        Projection { focal_px: self.focal_px * factor, ..*self }.bounded()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn projection(bend: f64) -> Projection {
        Projection::of(bend, 1200.0, DVec2::new(2688.0, 1520.0))
    }

    #[test]
    fn the_family_joins_up_at_its_named_members() {
        // Stereographic r = 2 tan(θ/2), equidistant r = θ, equisolid r = 2 sin(θ/2): the textbook forms.
        let theta = 0.7_f64;
        assert!((radius(0.5, theta) - 2.0 * (theta / 2.0).tan()).abs() < 1e-15);
        assert!((radius(0.0, theta) - theta).abs() < 1e-15);
        assert!((radius(-0.5, theta) - 2.0 * (theta / 2.0).sin()).abs() < 1e-15);
        assert!((radius(1e-7, theta) - radius(0.0, theta)).abs() < 1e-9);
        assert!((radius(-1e-7, theta) - radius(0.0, theta)).abs() < 1e-9);
    }

    #[test]
    fn behind_a_pinhole_there_is_no_pixel() {
        assert_eq!(projection(1.0).project(DVec3::new(0.1, 0.0, -1.0)), None);
        assert!(projection(0.0).project(DVec3::new(0.1, 0.0, -1.0)).is_some());
    }

    #[test]
    fn outside_the_image_circle_there_is_no_direction() {
        let wide = projection(-0.5).scaled(0.25);
        assert!(wide.unproject(DVec2::new(1344.0 + 599.0, 760.0)).is_some());
        assert!(wide.unproject(DVec2::new(1344.0 + 601.0, 760.0)).is_none());
    }

    #[test]
    fn the_jacobian_is_the_limit_of_small_steps() {
        for bend in [1.0, 0.5, 0.48327, 0.0, -0.33514, -0.5] {
            let p = projection(bend);
            for at in [DVec3::new(0.4, -0.3, 1.0), DVec3::new(1e-12, 0.0, 2.0), DVec3::new(0.0, 3.0, 1.5)] {
                for step in [DVec3::X, DVec3::Y, DVec3::Z, DVec3::new(0.3, 0.5, -0.7)] {
                    let h = 1e-6;
                    let apart = p.project(at + step * h).unwrap() - p.project(at - step * h).unwrap();
                    let slope = p.pixel_velocity(at, step);
                    assert!((apart / (2.0 * h) - slope).length() < 1e-3, "bend {bend} at {at} step {step}");
                }
            }
        }
    }
}
