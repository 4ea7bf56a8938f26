//! A vehicle from the front, of our own making.

use super::paint::Paint;
use glam::DVec2;

/// The paint at a place right of its middle and up from the ground, m, of a vehicle of a size; `None` beside it.
pub fn vehicle(at: DVec2, size: DVec2) -> Option<Paint> {
    let (x, z) = (at.x.abs() / (size.x / 1.8), at.y / (size.y / 1.5));
    if !(0.0..=1.5).contains(&z) {
        return None;
    }
    let body = Paint::of(0.22, 0.24, 0.26);
    if z < 0.28 {
        return if x > 0.62 && x < 0.86 {
            Some(Paint::of(0.02, 0.02, 0.02))
        } else {
            (z > 0.18 && x < 0.82).then_some(body.times(0.4))
        };
    }
    if z < 0.92 {
        return (x < 0.90 - 0.05 * ((z - 0.8) / 0.12).max(0.0)).then_some(match () {
            () if (0.58..0.74).contains(&z) && (0.55..0.84).contains(&x) => Paint::of(0.75, 0.75, 0.72),
            () if (0.40..0.54).contains(&z) && x < 0.42 => Paint::of(0.03, 0.03, 0.03),
            () => body,
        });
    }
    // The screen leans in.
    let edge = 0.80 - 0.22 * (z - 0.92) / 0.58;
    (x < edge).then_some(if z < 1.42 && x < edge - 0.07 { Paint::of(0.06, 0.08, 0.09) } else { body })
}
