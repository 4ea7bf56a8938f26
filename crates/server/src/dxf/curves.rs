//! Round things as corners: no side is farther from what it stands for than so much.

use std::f64::consts::TAU;

/// A point of a drawing, in its own unit.
pub type Place = [f64; 2];

/// The fewest corners of a whole round, and the most of one curve.
const FEWEST: f64 = 12.0;
const MOST: usize = 1_500;
/// So often a stretch of a spline is halved.
const DEEPEST: usize = 9;

/// So many steps a turn is cut into: the middle of a chord is off by r (1 - cos(step / 2)).
fn steps(radius: f64, turn: f64, off: f64) -> usize {
    let step = if off < radius { 2.0 * (1.0 - off / radius).acos() } else { TAU };
    let count = (turn.abs() / step.min(TAU / FEWEST)).ceil();
    if count.is_finite() { (count as usize).clamp(1, MOST) } else { 1 }
}

/// An elliptical arc: from an angle (of its parameter) by a turn, both ends with it. `across` and `along` are its half axes.
pub fn arc(centre: Place, across: Place, along: Place, from: f64, turn: f64, off: f64) -> Vec<Place> {
    let longest = across[0].hypot(across[1]).max(along[0].hypot(along[1]));
    let count = steps(longest, turn, off);
    let at = |i: usize| {
        let (sin, cos) = (from + turn * i as f64 / count as f64).sin_cos();
        [0, 1].map(|axis| centre[axis] + across[axis] * cos + along[axis] * sin)
    };
    (0..=count).map(at).collect()
}

/// A whole round, without its first corner at the end.
pub fn round(centre: Place, across: Place, along: Place, off: f64) -> Vec<Place> {
    let mut corners = arc(centre, across, along, 0.0, TAU, off);
    corners.pop();
    corners
}

/// The corners between two ends of a side that bulges: the tangent of a quarter of the angle that it turns by, to the right of the chord
/// where it is positive (the format's reference). Without the ends.
pub fn bulge(a: Place, b: Place, bulge: f64, off: f64) -> Vec<Place> {
    let chord = [b[0] - a[0], b[1] - a[1]];
    let length = chord[0].hypot(chord[1]);
    let turn = 4.0 * bulge.atan();
    let radius = 0.5 * length / (0.5 * turn).sin().abs();
    if !(length > 0.0 && radius.is_finite()) {
        return vec![];
    }
    // From the chord's middle to the left, by so much, stands the centre.
    let rise = 0.5 * length * (1.0 - bulge * bulge) / (2.0 * bulge);
    let left = [-chord[1] / length, chord[0] / length];
    let centre = [0, 1].map(|axis| 0.5 * (a[axis] + b[axis]) + left[axis] * rise);
    let from = [a[0] - centre[0], a[1] - centre[1]];
    let corners = arc(centre, from, [-from[1], from[0]], 0.0, turn, off);
    corners[1..corners.len() - 1].to_vec()
}

/// A B-spline, with weights (a NURBS) or without.
#[derive(Clone, Copy, Debug)]
pub struct Spline<'a> {
    /// Its degree.
    pub degree: usize,
    /// Its knots, which do not fall.
    pub knots: &'a [f64],
    /// Its control points.
    pub controls: &'a [Place],
    /// Their weights; all one where there are none.
    pub weights: &'a [f64],
}

impl Spline<'_> {
    /// Its corners, or none if its figures are those of no spline.
    pub fn corners(&self, off: f64) -> Option<Vec<Place>> {
        let Spline { degree, knots, controls, weights } = *self;
        let fits = (1..=11).contains(&degree)
            && controls.len() > degree
            && knots.len() == controls.len() + degree + 1
            && knots.windows(2).all(|pair| pair[0] <= pair[1])
            && (weights.is_empty() || weights.len() == controls.len() && weights.iter().all(|weight| *weight > 0.0));
        if !fits {
            return None;
        }
        let mut corners = vec![self.at(degree, knots[degree])];
        for span in degree..controls.len() {
            let (from, to) = (knots[span], knots[span + 1]);
            if to > from {
                self.refine(span, [from, to], off, 0, &mut corners);
            }
            if corners.len() > MOST {
                return None;
            }
        }
        corners.iter().flatten().all(|axis| axis.is_finite()).then_some(corners)
    }

    /// Adds corners up to the end of a stretch: one, or those of its halves where places between are too far off the chord.
    fn refine(&self, span: usize, [from, to]: [f64; 2], off: f64, depth: usize, corners: &mut Vec<Place>) {
        let (a, b) = (self.at(span, from), self.at(span, to));
        let share = |share: f64| self.at(span, from + (to - from) * share);
        let far = [0.25, 0.5, 0.75].into_iter().map(|at| from_chord(share(at), a, b)).fold(0.0, f64::max);
        // Half as far between: what is looked at is three places only.
        if depth < DEEPEST && far > 0.5 * off {
            let middle = 0.5 * (from + to);
            self.refine(span, [from, middle], off, depth + 1, corners);
            self.refine(span, [middle, to], off, depth + 1, corners);
        } else if corners.len() <= MOST {
            corners.push(b);
        }
    }

    /// The point at a parameter of a span of knots, by de Boor's algorithm (C. de Boor, A Practical Guide to Splines, 1978).
    fn at(&self, span: usize, t: f64) -> Place {
        let degree = self.degree;
        let mut held: Vec<[f64; 3]> = (0..=degree)
            .map(|j| {
                let place = j + span - degree;
                let weight = self.weights.get(place).copied().unwrap_or(1.0);
                let [x, y] = self.controls[place];
                [x * weight, y * weight, weight]
            })
            .collect();
        for level in 1..=degree {
            for j in (level..=degree).rev() {
                let (low, high) = (self.knots[j + span - degree], self.knots[j + 1 + span - level]);
                let share = if high > low { (t - low) / (high - low) } else { 0.0 };
                held[j] = std::array::from_fn(|axis| held[j - 1][axis] * (1.0 - share) + held[j][axis] * share);
            }
        }
        let [x, y, weight] = held[degree];
        [x / weight, y / weight]
    }
}

/// How far a point is from a chord.
fn from_chord(p: Place, a: Place, b: Place) -> f64 {
    let (chord, to) = ([b[0] - a[0], b[1] - a[1]], [p[0] - a[0], p[1] - a[1]]);
    let square = chord[0] * chord[0] + chord[1] * chord[1];
    let share = if square > 0.0 { ((to[0] * chord[0] + to[1] * chord[1]) / square).clamp(0.0, 1.0) } else { 0.0 };
    (to[0] - chord[0] * share).hypot(to[1] - chord[1] * share)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_half_round_side_runs_to_the_right_of_its_chord() {
        // From (0, 0) to (2, 0) with a bulge of 1: half a circle of radius 1, counter-clockwise, so below the chord.
        let corners = bulge([0.0, 0.0], [2.0, 0.0], 1.0, 0.001);
        assert!(corners.iter().all(|p| ((p[0] - 1.0).hypot(p[1]) - 1.0).abs() < 1e-12 && p[1] < 0.0), "{corners:?}");
        assert!(bulge([0.0, 0.0], [2.0, 0.0], -0.3, 0.001).iter().all(|p| p[1] > 0.0));
        assert!(bulge([1.0, 1.0], [1.0, 1.0], 1.0, 0.001).is_empty());
    }

    #[test]
    fn sides_are_no_farther_off_than_was_asked() {
        for (radius, off) in [(0.2, 0.05), (5.0, 0.05), (80.0, 0.05), (80_000.0, 50.0)] {
            let corners = round([3.0, 4.0], [radius, 0.0], [0.0, radius], off);
            let next = corners.iter().cycle().skip(1);
            let worst = corners.iter().zip(next).map(|(a, b)| {
                let middle = [0.5 * (a[0] + b[0]), 0.5 * (a[1] + b[1])];
                radius - (middle[0] - 3.0).hypot(middle[1] - 4.0)
            });
            assert!(worst.fold(0.0, f64::max) <= off * (1.0 + 1e-9) && corners.len() >= 12, "{radius}");
        }
    }

    #[test]
    fn a_spline_with_weights_is_a_quarter_of_a_circle() {
        // The textbook NURBS of a quarter circle: weights 1, √½, 1.
        let weights = [1.0, 0.5_f64.sqrt(), 1.0];
        let controls = [[1.0, 0.0], [1.0, 1.0], [0.0, 1.0]];
        let quarter =
            Spline { degree: 2, knots: &[0.0, 0.0, 0.0, 1.0, 1.0, 1.0], controls: &controls, weights: &weights };
        let corners = quarter.corners(0.001).unwrap();
        assert!(corners.len() > 10 && corners.iter().all(|p| (p[0].hypot(p[1]) - 1.0).abs() < 1e-12), "{corners:?}");
        assert_eq!((corners[0], corners[corners.len() - 1]), ([1.0, 0.0], [0.0, 1.0]));
        assert!(Spline { knots: &[0.0, 1.0], ..quarter }.corners(0.001).is_none());
        assert!(Spline { weights: &[1.0, -1.0, 1.0], ..quarter }.corners(0.001).is_none());
    }
}
