//! Whether an outline is simple: closed, it neither crosses nor touches itself.

use geo::line_intersection::{LineIntersection, line_intersection};
use geo::{Coord, Line};

/// Whether the sides of a closed outline meet only where one follows the other, each at its end.
///
/// The sides are swept from west to east, so that only those are held against each other which lie over the same stretch.
///
/// ```
/// use bright_angle_core::math::is_simple;
/// assert!(is_simple(&[[0.0, 0.0], [4.0, 0.0], [4.0, 3.0]]));
/// assert!(!is_simple(&[[0.0, 0.0], [4.0, 3.0], [4.0, 0.0], [0.0, 3.0]]), "a bow tie");
/// ```
pub fn is_simple(outline: &[[f64; 2]]) -> bool {
    let sides: Vec<Line> = (0..outline.len())
        .map(|i| {
            let [a, b] = [outline[i], outline[(i + 1) % outline.len()]];
            Line::new(Coord { x: a[0], y: a[1] }, Coord { x: b[0], y: b[1] })
        })
        .collect();
    let west = |side: &Line| side.start.x.min(side.end.x);
    let east = |side: &Line| side.start.x.max(side.end.x);
    let mut order: Vec<usize> = (0..sides.len()).collect();
    order.sort_by(|a, b| west(&sides[*a]).total_cmp(&west(&sides[*b])));
    let mut open: Vec<usize> = Vec::new();
    for next in order {
        let from = west(&sides[next]);
        open.retain(|held| east(&sides[*held]) >= from);
        if open.iter().any(|held| !may_stand(&sides, next, *held)) {
            return false;
        }
        open.push(next);
    }
    true
}

/// Whether two sides of an outline may both stand.
fn may_stand(sides: &[Line], a: usize, b: usize) -> bool {
    let (one, other) = (&sides[a], &sides[b]);
    let over = |lower: f64, upper: f64| lower > upper;
    if over(one.start.y.min(one.end.y), other.start.y.max(other.end.y))
        || over(other.start.y.min(other.end.y), one.start.y.max(one.end.y))
    {
        return true;
    }
    let apart = a.abs_diff(b);
    let neighbours = apart == 1 || apart == sides.len() - 1;
    match line_intersection(*one, *other) {
        None => true,
        Some(LineIntersection::SinglePoint { is_proper, .. }) => neighbours && !is_proper,
        Some(LineIntersection::Collinear { intersection }) => neighbours && intersection.start == intersection.end,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use geo::{Area, LineString, Polygon, Validation};

    /// Numbers that look random and are the same each time (a linear congruential generator after Knuth).
    fn numbers() -> impl FnMut(usize) -> usize {
        let mut state = 1_u64;
        move |below| {
            state = state.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
            (state >> 33) as usize % below
        }
    }

    /// The library `geo` relates a polygon's rings as the OGC's Simple Features say.
    #[test]
    fn agrees_with_geo_on_outlines_of_a_small_grid() {
        let mut next = numbers();
        let mut simple = 0;
        for _ in 0..20_000 {
            let corners = 3 + next(5);
            let mut outline: Vec<[f64; 2]> = Vec::new();
            while outline.len() < corners {
                let at = [next(5) as f64, next(5) as f64];
                if outline.last() != Some(&at) && !(outline.len() == corners - 1 && outline[0] == at) {
                    outline.push(at);
                }
            }
            let ring = LineString::from(outline.iter().map(|p| (p[0], p[1])).collect::<Vec<_>>());
            let polygon = Polygon::new(ring, vec![]);
            if polygon.unsigned_area() == 0.0 {
                // What encloses nothing is refused by its area; geo does not call a flat triangle invalid.
                continue;
            }
            let valid = polygon.is_valid();
            assert_eq!(is_simple(&outline), valid, "{outline:?}");
            simple += usize::from(valid);
        }
        assert!((2_000..18_000).contains(&simple), "both kinds came: {simple}");
    }

    #[test]
    fn a_comb_of_two_thousand_teeth_is_simple_until_one_tooth_touches_another() {
        let teeth = 999;
        let there = (0..teeth).map(|i| [i as f64 * 0.01, f64::from(i % 2) * 100.0]);
        let back = (0..teeth).rev().map(|i| [i as f64 * 0.01, f64::from(i % 2) * 100.0 + 1.0]);
        let mut comb: Vec<[f64; 2]> = there.chain(back).collect();
        assert!(is_simple(&comb));
        comb[500][0] += 0.05;
        assert!(!is_simple(&comb));
    }
}
