//! Parts of outlines inside convex ones (Sutherland and Hodgman 1974).

use super::Ring;
use glam::DVec2;

/// The sides of an outline, each from its first corner to its second.
pub fn sides(ring: &[DVec2]) -> impl Iterator<Item = (DVec2, DVec2)> + '_ {
    (0..ring.len()).map(|i| (ring[i], ring[(i + 1) % ring.len()]))
}

/// The area of an outline, in the square of its unit; positive when it runs counter-clockwise.
pub fn ring_area(ring: &[DVec2]) -> f64 {
    let first = ring.first().copied().unwrap_or_default();
    0.5 * sides(ring).map(|(a, b)| (a - first).perp_dot(b - first)).sum::<f64>()
}

/// The part of an outline to the left of the line `a`–`b`.
pub fn keep_left(ring: &[DVec2], (a, b): (DVec2, DVec2)) -> Ring {
    let normal = (b - a).perp();
    let depth = |p: DVec2| normal.dot(p - a);
    let mut kept = Ring::new();
    for (p, q) in sides(ring) {
        let (from, to) = (depth(p), depth(q));
        if from >= 0.0 {
            kept.push(p);
        }
        if (from > 0.0 && to < 0.0) || (from < 0.0 && to > 0.0) {
            kept.push(p.lerp(q, from / (from - to)));
        }
    }
    kept
}

/// The part of an outline inside a convex one, which runs counter-clockwise.
pub fn clip(mut ring: Ring, convex: &[DVec2]) -> Ring {
    for side in sides(convex) {
        if ring.is_empty() {
            break;
        }
        ring = keep_left(&ring, side);
    }
    ring
}

#[cfg(test)]
mod tests {
    use super::*;

    fn square(at: f64, size: f64) -> Ring {
        [[at, at], [at + size, at], [at + size, at + size], [at, at + size]]
            .map(DVec2::from_array)
            .into_iter()
            .collect()
    }

    #[test]
    fn what_two_squares_share() {
        assert_eq!(ring_area(&clip(square(0.0, 2.0), &square(1.0, 2.0))), 1.0);
        assert_eq!(ring_area(&clip(square(0.5, 1.0), &square(0.0, 2.0))), 1.0);
        assert!(clip(square(0.0, 1.0), &square(3.0, 1.0)).is_empty());
    }
}
