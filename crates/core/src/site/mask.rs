//! The mask that keeps a private place out of a picture.

use crate::math::{Ring, clip, ring_area, sides};
use glam::DVec2;

/// The most corners of a mask: what recorders and cameras commonly take (common practice, no source).
pub const MOST_CORNERS: usize = 8;

/// A part of a head's picture that must be masked.
#[derive(Clone, Debug, PartialEq)]
pub struct Mask {
    /// The private place's place in the file.
    pub place: usize,
    /// Its outline, px right and down from the picture's top-left corner: convex, at most [`MOST_CORNERS`] corners.
    pub outline: Ring,
}

impl Mask {
    /// The share of a convex part of the picture that it covers, 0 to 1; of a point all or nothing.
    pub fn share_of(&self, part: &Ring) -> f64 {
        let area = ring_area(part).abs();
        if area < 1e-9 {
            let inside = |at: &DVec2| sides(&self.outline).all(|(a, b)| (b - a).perp_dot(*at - a) >= 0.0);
            return if part.iter().any(inside) { 1.0 } else { 0.0 };
        }
        (ring_area(&clip(part.clone(), &self.outline)) / area).clamp(0.0, 1.0)
    }

    /// The share of a picture of a size, px, that it covers.
    pub fn share_of_picture(&self, size: DVec2) -> f64 {
        ring_area(&self.outline) / (size.x * size.y)
    }

    /// Its corners in per cent of a picture's width and height.
    pub fn in_per_cent(&self, size: DVec2) -> Vec<[f64; 2]> {
        self.outline.iter().map(|corner| (*corner / size * 100.0).to_array()).collect()
    }
}
