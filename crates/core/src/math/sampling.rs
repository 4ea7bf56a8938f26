//! Points that stand for a line or an area, no further than half a metre apart.

use geo::{BoundingRect, Contains, LineString, Point, Polygon};

/// The greatest step between neighbouring samples, m.
pub const STEP_M: f64 = 0.5;

/// Samples along a polyline, its corners included.
pub fn along(points: &[[f64; 2]]) -> Vec<[f64; 2]> {
    let mut samples = vec![points[0]];
    for pair in points.windows(2) {
        let [a, b] = [pair[0], pair[1]];
        let steps = ((b[0] - a[0]).hypot(b[1] - a[1]) / STEP_M).ceil().max(1.0);
        samples.extend((1..=steps as usize).map(|i| {
            let along = i as f64 / steps;
            [a[0] + (b[0] - a[0]) * along, a[1] + (b[1] - a[1]) * along]
        }));
    }
    samples
}

/// Samples of an area: its outline, and a grid over what it encloses; and how many of them, the first, lie on the outline.
pub fn within(outline: &[[f64; 2]]) -> (Vec<[f64; 2]>, usize) {
    let mut ring = outline.to_vec();
    ring.push(outline[0]);
    let mut samples = along(&ring);
    samples.pop();
    let around = samples.len();
    let area = Polygon::new(LineString::from(ring.iter().map(|p| (p[0], p[1])).collect::<Vec<_>>()), vec![]);
    let Some(bounds) = area.bounding_rect() else { return (samples, around) };
    let steps = |length: f64| (length / STEP_M).ceil().max(1.0);
    let (across, up) = (steps(bounds.width()), steps(bounds.height()));
    for j in 1..up as usize {
        for i in 1..across as usize {
            let at =
                [bounds.min().x + bounds.width() * i as f64 / across, bounds.min().y + bounds.height() * j as f64 / up];
            if area.contains(&Point::new(at[0], at[1])) {
                samples.push(at);
            }
        }
    }
    (samples, around)
}

/// About how many samples a shape will take, without making them.
pub fn expected(points: &[[f64; 2]], area: bool) -> f64 {
    let ends = points.len();
    let length: f64 = (1..ends).map(|i| (points[i][0] - points[i - 1][0]).hypot(points[i][1] - points[i - 1][1])).sum();
    let span = |axis: usize| {
        let values = points.iter().map(|p| p[axis]);
        values.clone().fold(f64::MIN, f64::max) - values.fold(f64::MAX, f64::min)
    };
    let inside = if area { span(0) * span(1) / (STEP_M * STEP_M) } else { 0.0 };
    ends as f64 + length / STEP_M + inside
}

#[cfg(test)]
mod tests {
    use super::*;

    fn widest_gap(samples: &[[f64; 2]]) -> f64 {
        samples.windows(2).map(|w| (w[1][0] - w[0][0]).hypot(w[1][1] - w[0][1])).fold(0.0, f64::max)
    }

    #[test]
    fn a_line_keeps_its_corners_and_its_step() {
        let samples = along(&[[0.0, 0.0], [3.2, 0.0], [3.2, 0.3]]);
        assert!(widest_gap(&samples) <= STEP_M + 1e-12);
        for corner in [[0.0, 0.0], [3.2, 0.0], [3.2, 0.3]] {
            assert!(samples.contains(&corner));
        }
    }

    #[test]
    fn an_area_is_covered_and_not_exceeded() {
        let l_shape = [[0.0, 0.0], [4.0, 0.0], [4.0, 2.0], [2.0, 2.0], [2.0, 4.0], [0.0, 4.0]];
        let (samples, around) = within(&l_shape);
        assert_eq!(around, 32, "the outline, 16 m of it, comes first");
        assert!(samples.iter().all(|p| p[0] <= 2.0 + 1e-9 || p[1] <= 2.0 + 1e-9));
        for probe in [[0.3, 3.7], [3.7, 0.3], [1.1, 1.1], [1.9, 1.9]] {
            let nearest =
                samples.iter().map(|p: &[f64; 2]| (p[0] - probe[0]).hypot(p[1] - probe[1])).fold(f64::MAX, f64::min);
            assert!(nearest <= STEP_M, "{probe:?} is {nearest} from a sample");
        }
        assert!(samples.len() as f64 <= expected(&l_shape, true) * 1.5);
    }
}
