//! The aims that a build takes as it hangs (handbook, section 6, "Build"; common practice, no source).

use crate::file::{Form, MountedAs};

/// A bubble lets a lens look so far off the axis of its base, degrees; one of long range further.
const BUBBLE_DEG: f64 = 67.0;
const LONG_BUBBLE_DEG: f64 = 85.0;
/// A fisheye is fixed: it looks along the axis of its base, but for the slack of a bracket, degrees; ours.
const FIXED_DEG: f64 = 5.0;

/// The aims that a build takes.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Takes {
    /// From the least to the greatest tilt, degrees below the horizontal.
    Tilts([f64; 2]),
    /// So many degrees off the way out of its wall.
    OffWall(f64),
}

/// What a form takes that hangs in a way.
///
/// ```
/// use bright_angle_core::equipment::build::{Takes, takes};
/// use bright_angle_core::file::{Form, MountedAs};
/// assert_eq!(takes(Form::Dome, false, MountedAs::Ceiling), Takes::Tilts([23.0, 90.0]));
/// ```
pub fn takes(form: Form, long_range: bool, mounted: MountedAs) -> Takes {
    let bubble = if long_range { LONG_BUBBLE_DEG } else { BUBBLE_DEG };
    match (form, mounted) {
        (Form::Dome | Form::VandalDome, MountedAs::Wall) => Takes::OffWall(bubble),
        (Form::Dome | Form::VandalDome, _) => Takes::Tilts([90.0 - bubble, 90.0]),
        (Form::Fisheye, MountedAs::Wall) => Takes::OffWall(FIXED_DEG),
        (Form::Fisheye, _) => Takes::Tilts([90.0 - FIXED_DEG, 90.0]),
        (Form::Turret | Form::Bullet, _) => Takes::Tilts([-5.0, 80.0]),
        (Form::Box | Form::Plate, _) => Takes::Tilts([-45.0, 90.0]),
        (Form::Ptz, _) => Takes::Tilts([-10.0, 90.0]),
        (Form::MultiHead, _) => Takes::Tilts([15.0, 75.0]),
    }
}

/// The usual ways in which a form hangs that take different aims.
pub fn usual(form: Form) -> &'static [MountedAs] {
    match form {
        Form::Dome | Form::VandalDome | Form::Fisheye => &[MountedAs::Ceiling, MountedAs::Wall],
        _ => &[MountedAs::Wall],
    }
}
