//! A face of our own making with features of known size.

use super::paint::Paint;
use glam::DVec2;

/// Between the middles of the eyes, m; from memory: the mean of adults.
const EYES_APART_M: f64 = 0.063;
/// The size that the features are of, m.
const SIZE: DVec2 = DVec2::new(0.20, 0.28);

/// The paint of a face at a place from its middle, right and up, m, of a face of a size; `None` beside it.
pub fn face(at: DVec2, size: DVec2) -> Option<Paint> {
    let at = at * SIZE / size;
    let within = |x: f64, y: f64, wide: f64, tall: f64| {
        let from = (at - DVec2::new(x, y)) / DVec2::new(wide / 2.0, tall / 2.0);
        from.length_squared() <= 1.0
    };
    // Ears stand out a little, so that the head is as wide as is said.
    let head = within(0.0, 0.0, 0.168, 0.28) || within(0.0, -0.005, SIZE.x, 0.062);
    if !head {
        return None;
    }
    let hair = at.y > 0.082 - 0.6 * at.x * at.x / 0.1;
    let mirrored = DVec2::new(at.x.abs(), at.y);
    let near = |x: f64, y: f64, wide: f64, tall: f64| {
        let from = (mirrored - DVec2::new(x, y)) / DVec2::new(wide / 2.0, tall / 2.0);
        from.length_squared() <= 1.0
    };
    let eye = EYES_APART_M / 2.0;
    Some(if hair {
        Paint::of(0.05, 0.035, 0.025)
    } else if near(eye, 0.012, 0.012, 0.012) {
        Paint::of(0.02, 0.02, 0.03)
    } else if near(eye, 0.012, 0.030, 0.014) {
        Paint::of(0.72, 0.72, 0.70)
    } else if mirrored.x > 0.014 && mirrored.x < 0.052 && (mirrored.y - 0.036).abs() < 0.0045 {
        Paint::of(0.06, 0.04, 0.03)
    } else if within(0.0, -0.074, 0.052, 0.016) {
        Paint::of(0.34, 0.10, 0.09)
    } else if near(0.011, -0.038, 0.010, 0.007) {
        Paint::of(0.18, 0.09, 0.06)
    } else if at.x > 0.0 && at.x < 0.012 && at.y > -0.036 && at.y < 0.012 {
        // The nose throws a soft shadow.
        Paint::of(0.36, 0.22, 0.16)
    } else {
        Paint::of(0.50, 0.32, 0.24)
    })
}
