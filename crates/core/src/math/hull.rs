//! The convex hull of points of the plan (Andrew's monotone chain).

use glam::DVec2;
use smallvec::SmallVec;

/// A convex outline, anticlockwise, without its first corner again at the end.
pub type Ring = SmallVec<[DVec2; 8]>;

/// The convex hull of some points. Points on a straight line make a hull of two.
pub fn hull(points: impl IntoIterator<Item = DVec2>) -> Ring {
    let mut sorted: Ring = points.into_iter().collect();
    sorted.sort_unstable_by(|a, b| a.x.total_cmp(&b.x).then(a.y.total_cmp(&b.y)));
    sorted.dedup();
    if sorted.len() < 3 {
        return sorted;
    }
    let mut hull = Ring::new();
    for half in 0..2 {
        let begins = hull.len();
        let mut add = |p: DVec2| {
            while hull.len() >= begins + 2
                && (hull[hull.len() - 1] - hull[hull.len() - 2]).perp_dot(p - hull[hull.len() - 1]) <= 0.0
            {
                hull.pop();
            }
            hull.push(p);
        };
        if half == 0 {
            sorted.iter().for_each(|p| add(*p));
        } else {
            sorted.iter().rev().for_each(|p| add(*p));
        }
        hull.pop();
    }
    hull
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_lies_within_is_left_out() {
        let corners = [[0.0, 0.0], [4.0, 0.0], [4.0, 3.0], [0.0, 3.0]].map(DVec2::from_array);
        let inside = [[1.0, 1.0], [2.0, 0.0], [4.0, 3.0]].map(DVec2::from_array);
        assert_eq!(hull(corners.into_iter().chain(inside)).as_slice(), corners);
        assert_eq!(hull([DVec2::ONE, DVec2::ZERO, DVec2::ONE]).len(), 2);
        assert_eq!(hull([0.0, 1.0, 2.0].map(DVec2::splat)).len(), 2, "a straight line");
    }
}
