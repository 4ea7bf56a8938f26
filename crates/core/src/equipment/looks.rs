//! How a camera looks to people: how large its body is, and what of it tells where it points.
//!
//! A sign is recognised by an eye of visual acuity 1.0 where it spans five minutes of arc, its details one (ISO 8596, Landolt rings; from
//! memory); other acuities in proportion. The sizes are common practice, no source.

use crate::file::Form;

/// What a sign spans where an eye of acuity 1.0 just recognises it, minutes of arc.
const SIGN_ARCMIN: f64 = 5.0;
/// The acuity that the figures are stated for; what a poor eye has that still may drive a car; what a very good one has.
pub const ACUITY: f64 = 1.0;
/// A poor eye.
pub const POOR_ACUITY: f64 = 0.5;
/// A very good eye.
pub const GOOD_ACUITY: f64 = 2.0;

/// How a camera looks.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Looks {
    /// How wide its body is, m.
    pub body_m: f64,
    /// How wide the part is that tells where it points, m; none where nothing does: a bubble, a lens that sees all around.
    pub points_m: Option<f64>,
}

/// How a camera of a form looks.
pub fn looks(form: Form) -> Looks {
    let (body_m, points_m) = match form {
        Form::Bullet => (0.09, Some(0.09)),
        Form::Turret => (0.11, Some(0.06)),
        Form::Dome | Form::VandalDome => (0.12, None),
        Form::Box => (0.12, Some(0.12)),
        Form::Fisheye => (0.13, None),
        Form::MultiHead => (0.22, None),
        Form::Ptz => (0.20, None),
        Form::Plate => (0.10, Some(0.10)),
    };
    Looks { body_m, points_m }
}

/// From how far an eye of an acuity recognises what is so wide, m.
///
/// ```
/// use bright_angle_core::equipment::looks::recognised_to;
/// // 1 m spans five minutes of arc at 1 / tan(5/60°).
/// assert!((recognised_to(1.0, 1.0) - 687.55).abs() < 0.01);
/// assert!((recognised_to(0.1, 0.5) - 34.377).abs() < 0.001);
/// ```
pub fn recognised_to(wide_m: f64, acuity: f64) -> f64 {
    wide_m / (SIGN_ARCMIN / acuity / 60.0).to_radians().tan()
}
