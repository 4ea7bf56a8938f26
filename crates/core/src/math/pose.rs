//! Where a head is and which way it looks (handbook, section 3).

use crate::math::Angle;
use glam::DVec3;

/// A position with the three axes of the picture, as unit vectors of the site frame.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Pose {
    /// The optical centre, in metres.
    pub position: DVec3,
    /// Towards the right edge of the picture.
    pub right: DVec3,
    /// Towards the bottom edge of the picture.
    pub down: DVec3,
    /// Along the optical axis.
    pub forward: DVec3,
}

impl Pose {
    /// The pose with bearing `pan`, `tilt` below the horizontal and `roll` clockwise as seen from
    /// behind: f = (sin p cos t, cos p cos t, −sin t), r0 = (cos p, −sin p, 0), d0 = f × r0,
    /// right = r0 cos ρ + d0 sin ρ, down = d0 cos ρ − r0 sin ρ.
    pub fn new(position: DVec3, pan: Angle, tilt: Angle, roll: Angle) -> Self {
        let forward = DVec3::new(pan.sin() * tilt.cos(), pan.cos() * tilt.cos(), -tilt.sin());
        let level_right = DVec3::new(pan.cos(), -pan.sin(), 0.0);
        let level_down = forward.cross(level_right);
        Pose {
            position,
            right: level_right * roll.cos() + level_down * roll.sin(),
            down: level_down * roll.cos() - level_right * roll.sin(),
            forward,
        }
    }

    /// A direction of the site frame in camera axes (right, down, forward).
    pub fn to_camera(&self, direction: DVec3) -> DVec3 {
        DVec3::new(self.right.dot(direction), self.down.dot(direction), self.forward.dot(direction))
    }

    /// A direction in camera axes in the site frame.
    pub fn to_site(&self, direction: DVec3) -> DVec3 {
        self.right * direction.x + self.down * direction.y + self.forward * direction.z
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_level_head_facing_north_has_east_on_its_right() {
        let pose = Pose::new(DVec3::ZERO, Angle::ZERO, Angle::ZERO, Angle::ZERO);
        assert_eq!(pose.forward, DVec3::Y);
        assert_eq!(pose.right, DVec3::X);
        assert_eq!(pose.down, DVec3::NEG_Z);
    }

    #[test]
    fn a_quarter_roll_puts_the_ground_on_the_right() {
        let pose = Pose::new(DVec3::ZERO, Angle::ZERO, Angle::ZERO, Angle::degrees(90.0));
        assert!((pose.right - DVec3::NEG_Z).length() < 1e-12);
        assert!((pose.down - DVec3::NEG_X).length() < 1e-12);
    }

    #[test]
    fn there_and_back_is_the_same_direction() {
        let pose = Pose::new(DVec3::ZERO, Angle::degrees(211.0), Angle::degrees(33.0), Angle::degrees(-17.0));
        let direction = DVec3::new(0.3, -2.0, 0.7);
        assert!((pose.to_site(pose.to_camera(direction)) - direction).length() < 1e-12);
    }
}
