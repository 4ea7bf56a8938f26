//! The shadow that a solid throws on a level: where a point at that height is hidden from an eye.
//!
//! A point P of the level is hidden where the line from the eye C to it passes over the outline between base and top. With
//! t the share of the line, the heights leave an interval of t; the plan point C + t(P − C) must lie in the outline O, so P
//! lies in C + (O − C)/t. The shadow is the union of copies of the outline, scaled about the eye by s = 1/t.

use super::Solid;
use crate::math::sides;
use crate::math::{Interval, hull};
use glam::{DVec2, DVec3};

/// A scale that stands for all the way to the horizon.
const ENDLESS: f64 = 1e7;

/// The shadow of one solid on a level.
#[derive(Clone, Debug, PartialEq)]
pub struct Shadow {
    /// Convex parts, each the convex hull of its points, m.
    pub hulls: Vec<Vec<DVec2>>,
    /// A filled outline that is not convex, m.
    pub filled: Option<Vec<DVec2>>,
}

/// The shadow that a solid throws from an eye on the level at height `level`; `None` where it throws none.
pub fn shadow(solid: &Solid, eye: DVec3, level: f64) -> Option<Shadow> {
    let (nearest, farthest) = scales(solid, eye.z, level)?;
    let at = eye.truncate();
    let scaled = |corner: DVec2, by: f64| at + (corner - at) * by;
    if solid.is_convex() {
        // Scaled copies of a convex outline make a convex whole: the hull of the first and the last.
        let both = [nearest, farthest].into_iter().flat_map(|by| solid.corners().iter().map(move |c| scaled(*c, by)));
        return Some(Shadow { hulls: vec![both.collect()], filled: None });
    }
    let swept =
        |(a, b): (DVec2, DVec2)| vec![scaled(a, nearest), scaled(b, nearest), scaled(a, farthest), scaled(b, farthest)];
    // What leaves the copies on the way from the last to the first crosses an edge; the rest is in the first.
    let filled = solid.is_filled().then(|| solid.corners().iter().map(|corner| scaled(*corner, nearest)).collect());
    Some(Shadow { hulls: solid.edges().map(swept).collect(), filled })
}

/// The stretches of a level line that a solid hides from an eye, as shares of it, in no order; they may overlap.
pub fn hidden_stretches(solid: &Solid, eye: DVec3, from: DVec3, to: DVec3) -> Vec<Interval> {
    let Some(shadow) = shadow(solid, eye, from.z) else { return vec![] };
    let (a, b) = (from.truncate(), to.truncate());
    let mut hidden: Vec<Interval> = shadow.hulls.into_iter().filter_map(|points| within(&points, a, b)).collect();
    if let Some(outline) = shadow.filled {
        let outline: Vec<[f64; 2]> = outline.iter().map(|p| p.to_array()).collect();
        hidden.extend(Solid::new("", &outline, true, 0.0, 1.0, 0.0).over(a, b));
    }
    hidden
}

/// The stretch of a line inside the hull of some points.
fn within(points: &[DVec2], a: DVec2, b: DVec2) -> Option<Interval> {
    let ring = hull(points.iter().copied());
    if ring.len() < 3 {
        return None;
    }
    let (mut start, mut end) = (0.0_f64, 1.0_f64);
    for (p, q) in sides(&ring) {
        let normal = (q - p).perp() / p.distance(q);
        let (from, to) = (normal.dot(a - p), normal.dot(b - p));
        match (from > 0.0, to > 0.0) {
            (true, true) => {}
            (false, false) => return None,
            (false, true) => start = start.max(from / (from - to)),
            (true, false) => end = end.min(from / (from - to)),
        }
    }
    Interval::new(start, end)
}

/// The least and the greatest scale of the copies.
fn scales(solid: &Solid, eye: f64, level: f64) -> Option<(f64, f64)> {
    let rise = level - eye;
    let (low, high) = if rise == 0.0 {
        if eye <= solid.base() || eye >= solid.top() {
            return None;
        }
        (0.0, 1.0)
    } else {
        let (a, b) = ((solid.base() - eye) / rise, (solid.top() - eye) / rise);
        (a.min(b).max(0.0), a.max(b).min(1.0))
    };
    (high > low).then(|| (1.0 / high, (1.0 / low).min(ENDLESS)))
}

#[cfg(test)]
mod tests {
    use super::*;

    fn wall(base: f64, top: f64) -> Solid {
        Solid::new("w", &[[10.0, -1.0], [12.0, -1.0], [12.0, 1.0], [10.0, 1.0]], true, base, top, 0.0)
    }

    #[test]
    fn a_post_hides_just_its_shadow_of_a_line() {
        // A post 0.2 m wide, 10 m ahead, hides 0.4 m of a line 20 m ahead: by similar triangles, its far side at 10.2 m is inside.
        let post = Solid::new("p", &[[-0.1, 10.0], [0.1, 10.0], [0.1, 10.2], [-0.1, 10.2]], true, 0.0, 3.0, 0.0);
        let level = |x: f64| DVec3::new(x, 20.0, 1.6);
        let hidden = hidden_stretches(&post, DVec3::new(0.0, 0.0, 2.5), level(-1.0), level(1.0));
        assert_eq!(hidden.len(), 1);
        assert!((hidden[0].start - 0.4).abs() < 1e-9 && (hidden[0].end - 0.6).abs() < 1e-9, "{hidden:?}");
        assert!(hidden_stretches(&post, DVec3::new(0.0, 0.0, 9.0), level(-1.0), level(1.0)).is_empty(), "over it");
    }

    #[test]
    fn a_low_wall_throws_a_short_shadow() {
        // By hand: from 4 m up over a 2 m wall to the ground the light falls 2 m in 10 to 12 m: to 24 m.
        assert_eq!(scales(&wall(0.0, 2.0), 4.0, 0.0), Some((1.0, 2.0)));
        assert_eq!(scales(&wall(0.0, 5.0), 4.0, 0.0), Some((1.0, ENDLESS)));
        assert_eq!(scales(&wall(1.0, 2.0), 4.0, 0.0), Some((4.0 / 3.0, 2.0)), "light passes under it");
        assert_eq!(scales(&wall(0.0, 1.0), 4.0, 1.6), None, "the level lies above it");
        assert_eq!(scales(&wall(0.0, 2.0), 1.0, 1.0), Some((1.0, ENDLESS)), "level with the eye");
        assert_eq!(scales(&wall(0.0, 2.0), 1.2, 1.6), Some((1.0, ENDLESS)), "the eye below the level");
        assert_eq!(scales(&wall(2.0, 3.0), 1.2, 1.6), None, "both below it");
    }
}
