//! Somebody who stands there: a generic figure of stated height.

use super::face::face;
use super::paint::Paint;
use glam::DVec2;

/// Width and height of a face, m, of somebody 1.75 m tall.
const FACE: DVec2 = DVec2::new(0.20, 0.28);

/// The paint of a figure at a place right of its middle and up from its feet, m, of a size; `None` beside it. From behind it has no
/// face.
pub fn person(at: DVec2, size: DVec2, behind: bool) -> Option<Paint> {
    let tall = size.y / 1.75;
    let (x, z) = (at.x.abs() / (size.x / 0.5), at.y / tall);
    let chin = 1.75 - FACE.y;
    if !(0.0..=1.75).contains(&z) {
        return None;
    }
    if z >= chin - 0.01 {
        let from_middle = DVec2::new(at.x, (z - chin - FACE.y / 2.0) * tall);
        return face(from_middle, FACE * tall).map(|paint| if behind { Paint::of(0.05, 0.035, 0.025) } else { paint });
    }
    let coat = Paint::of(0.10, 0.16, 0.26);
    if z >= chin - 0.05 {
        return (x < 0.06).then_some(Paint::of(0.44, 0.28, 0.21));
    }
    if z >= 0.82 {
        // Shoulders slope, arms hang to the hips.
        let shoulder = 0.25 - 0.10 * ((z - 1.32) / 0.10).clamp(0.0, 1.0);
        let hand = z < 0.87 && x > 0.19;
        return (x < shoulder).then_some(match () {
            () if hand => Paint::of(0.44, 0.28, 0.21),
            () if (x - 0.175).abs() < 0.008 && z < 1.25 => coat.times(0.6),
            () if x < 0.012 => coat.times(0.7),
            () => coat,
        });
    }
    if z < 0.07 {
        return (x > 0.02 && x < 0.15).then_some(Paint::of(0.03, 0.03, 0.03));
    }
    let leg = x > 0.012 + 0.02 * (0.82 - z) && x < 0.165 - 0.05 * (0.82 - z);
    leg.then_some(Paint::of(0.09, 0.09, 0.10))
}
