//! What a head sees: a pose behind a projection.

use crate::math::{Angle, Pose, Projection};
use glam::{DVec2, DVec3};

/// A projection held at a pose.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct View {
    /// Where it is and which way it looks.
    pub pose: Pose,
    /// The lens and the picture.
    pub projection: Projection,
}

/// One look at one point: where it lands and what that costs.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Look {
    /// The pixel, u right and v down from the top-left corner; it may lie outside the picture.
    pub pixel: DVec2,
    /// Whether the pixel lies in the picture.
    pub in_view: bool,
    /// Pixel density along the horizontal square to the bearing, px/m.
    pub across: f64,
    /// Pixel density along the vertical, px/m.
    pub up: f64,
}

/// Where a point lies as seen from another.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Separation {
    /// Ground distance, m.
    pub ground: f64,
    /// How far the point lies below, m.
    pub drop: f64,
    /// The horizontal direction from here to there, of length one.
    pub towards: DVec2,
}

impl Separation {
    /// The separation from `from` to `to`; a point straight below or above lies on bearing `plumb`.
    pub fn between(from: DVec3, to: DVec3, plumb: impl FnOnce() -> Angle) -> Self {
        let step = to - from;
        let flat = step.truncate();
        let ground = flat.length();
        let towards = if ground > 1e-9 {
            flat / ground
        } else {
            let plumb = plumb();
            DVec2::new(plumb.sin(), plumb.cos())
        };
        Separation { ground, drop: -step.z, towards }
    }

    /// Slant distance, m.
    pub fn slant(&self) -> f64 {
        (self.ground * self.ground + self.drop * self.drop).sqrt()
    }

    /// Bearing from here to there.
    pub fn bearing(&self) -> Angle {
        Angle::bearing_of(self.towards.x, self.towards.y)
    }

    /// Angle below the horizontal from here to there.
    pub fn depression(&self) -> Angle {
        Angle::radians(self.drop.atan2(self.ground))
    }
}

impl View {
    /// The bearing of the optical axis; for an axis straight down, that of the picture's top edge.
    pub fn heading(&self) -> Angle {
        let f = self.pose.forward;
        let axis = if f.x.hypot(f.y) > 1e-9 { f } else { -self.pose.down };
        Angle::bearing_of(axis.x, axis.y)
    }

    /// The pixel of a point, and whether it lies in the picture.
    pub fn pixel_of(&self, point: DVec3) -> Option<(DVec2, bool)> {
        let pixel = self.projection.project(self.pose.to_camera(point - self.pose.position))?;
        Some((pixel, self.projection.holds(pixel)))
    }

    /// Whether a point lands in the picture.
    pub fn holds(&self, point: DVec3) -> bool {
        self.pixel_of(point).is_some_and(|(_, inside)| inside)
    }

    /// Looks at a point. `None` when it is not in front of the head (nor in a picture that reaches
    /// behind it, as a fisheye's may).
    pub fn look(&self, point: DVec3) -> Option<Look> {
        let direction = self.pose.to_camera(point - self.pose.position);
        let pixel = self.projection.project(direction)?;
        let in_view = self.projection.holds(pixel);
        if direction.z <= 0.0 && !in_view {
            return None;
        }
        let steps = [self.across(point), DVec3::Z].map(|step| self.pose.to_camera(step));
        let [across, up] = self.projection.pixel_velocities(direction, steps).map(DVec2::length);
        Some(Look { pixel, in_view, across, up })
    }

    /// Pixel density at a point along the horizontal square to the bearing from here, px/m.
    pub fn across_at(&self, point: DVec3) -> f64 {
        let direction = self.pose.to_camera(point - self.pose.position);
        self.projection.pixel_velocity(direction, self.pose.to_camera(self.across(point))).length()
    }

    /// The horizontal direction square to the bearing of a point.
    fn across(&self, point: DVec3) -> DVec3 {
        let step = (point - self.pose.position).truncate();
        let ground = step.length();
        if ground > 1e-9 {
            DVec3::new(step.y / ground, -step.x / ground, 0.0)
        } else {
            let plumb = self.heading();
            DVec3::new(plumb.cos(), -plumb.sin(), 0.0)
        }
    }
}
