//! The map of a plane seen aslant: from four corners as they were clicked to the rectangle that they are.
//!
//! The direct linear transformation of four pairs (R. Hartley and A. Zisserman, *Multiple View Geometry*, 2nd edition, section 4.1; from
//! memory): eight equations for eight figures, the ninth is one.

use glam::DVec2;
use nalgebra::{SMatrix, SVector};

/// The nine figures, rows first, that take each of four points to the corner of a rectangle, in the order top left, top right, bottom right,
/// bottom left. `None` where three of the points lie in one line.
///
/// ```
/// use bright_angle_core::math::homography::{applied, to_rectangle};
/// use glam::DVec2;
/// let corners = [[10.0, 5.0], [110.0, 0.0], [115.0, 80.0], [8.0, 70.0]].map(DVec2::from_array);
/// let map = to_rectangle(corners, DVec2::new(200.0, 100.0)).unwrap();
/// assert!(applied(&map, corners[2]).distance(DVec2::new(200.0, 100.0)) < 1e-9);
/// ```
pub fn to_rectangle(corners: [DVec2; 4], size: DVec2) -> Option<[f64; 9]> {
    let to = [DVec2::ZERO, DVec2::new(size.x, 0.0), size, DVec2::new(0.0, size.y)];
    let mut rows = SMatrix::<f64, 8, 8>::zeros();
    let mut right = SVector::<f64, 8>::zeros();
    for (place, (from, to)) in corners.into_iter().zip(to).enumerate() {
        let (x, y) = (from.x, from.y);
        let lines = [
            ([x, y, 1.0, 0.0, 0.0, 0.0, -to.x * x, -to.x * y], to.x),
            ([0.0, 0.0, 0.0, x, y, 1.0, -to.y * x, -to.y * y], to.y),
        ];
        for (line, (row, value)) in lines.into_iter().enumerate() {
            rows.row_mut(2 * place + line).copy_from_slice(&row);
            right[2 * place + line] = value;
        }
    }
    if !is_convex(corners) {
        return None;
    }
    let found = rows.lu().solve(&right)?;
    let figures: [f64; 9] = std::array::from_fn(|place| if place < 8 { found[place] } else { 1.0 });
    figures.iter().all(|figure| figure.is_finite()).then_some(figures)
}

/// Where a map takes a point.
pub fn applied(map: &[f64; 9], at: DVec2) -> DVec2 {
    let row = |place: usize| map[place] * at.x + map[place + 1] * at.y + map[place + 2];
    DVec2::new(row(0), row(3)) / row(6)
}

/// Whether four corners go around a convex shape, either way.
fn is_convex(corners: [DVec2; 4]) -> bool {
    let turn = |place: usize| {
        let [a, b, c] = [0, 1, 2].map(|step| corners[(place + step) % 4]);
        (b - a).perp_dot(c - b)
    };
    let turns = [0, 1, 2, 3].map(turn);
    let least = 1e-6 * corners[0].distance_squared(corners[2]).max(corners[1].distance_squared(corners[3]));
    turns.iter().all(|turn| *turn > least) || turns.iter().all(|turn| *turn < -least)
}

#[cfg(test)]
mod tests {
    use super::*;

    /// OpenCV 5.0, getPerspectiveTransform of the same corners onto 1920 × 1080 (outside/pose/straighten.py).
    #[test]
    fn the_figures_are_those_of_opencv() {
        let table: Vec<([[f64; 2]; 4], [f64; 9])> =
            serde_json::from_str(include_str!("../../../../outside/pose/straighten.json")).unwrap();
        for (corners, theirs) in table {
            let map = to_rectangle(corners.map(DVec2::from_array), DVec2::new(1920.0, 1080.0)).unwrap();
            for (ours, theirs) in map.into_iter().zip(theirs) {
                assert!((ours - theirs).abs() < 1e-7 * theirs.abs().max(1.0), "{ours} for {theirs}");
            }
        }
    }

    #[test]
    fn corners_in_one_line_or_crossed_make_no_rectangle() {
        let of = |corners: [[f64; 2]; 4]| to_rectangle(corners.map(DVec2::from_array), DVec2::new(10.0, 10.0));
        assert!(of([[0.0, 0.0], [5.0, 0.0], [10.0, 0.0], [0.0, 9.0]]).is_none());
        assert!(of([[0.0, 0.0], [9.0, 9.0], [9.0, 0.0], [0.0, 9.0]]).is_none());
    }
}
