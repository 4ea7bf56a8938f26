//! Solids that may stand in the way: outlines extruded from a base to a top.

use super::USUAL_REFLECTANCE;
use crate::math::{Interval, nearest_on};
use geo::coordinate_position::{CoordPos, CoordinatePosition};
use geo::{Coord, LineString, Polygon};
use glam::{DVec2, DVec3};
use smallvec::{SmallVec, smallvec};

/// Shorter shared stretches than this, in metres, are touches and not hindrances.
const TOUCH_M: f64 = 1e-7;
/// A point less deep than this inside a side lies on it, m.
const ON_SIDE_M: f64 = 1e-9;
/// A point nearer to an outline than this touches it, m.
const NEAR_M: f64 = 0.01;
/// The share up to which a see-through solid still blocks.
pub const BLOCKS_UP_TO: f64 = 0.5;

/// Shares of a line: most outlines are crossed a few times.
type Shares = SmallVec<[f64; 8]>;

/// A solid standing between two heights: a filled outline, or thin upright walls along an open one.
#[derive(Clone, Debug)]
pub struct Solid {
    id: String,
    corners: Vec<DVec2>,
    shape: Shape,
    base: f64,
    top: f64,
    see_through: f64,
    /// The share of light that its upright faces give back.
    reflectance: f64,
    /// South-west and north-east corner of the box around its outline.
    bounds: (DVec2, DVec2),
}

/// What the outline encloses.
#[derive(Clone, Debug)]
enum Shape {
    /// Nothing: thin walls along it.
    Walls,
    /// A convex area, by its sides.
    Convex(Vec<Side>),
    /// Any other simple area.
    Simple(Polygon<f64>),
}

/// The straight line through a side of a convex outline: a point p lies inside it where normal·p < offset.
#[derive(Clone, Copy, Debug)]
struct Side {
    /// Outwards, of length one.
    normal: DVec2,
    offset: f64,
}

impl Solid {
    /// A solid from its outline, heights and how well one sees through it (0 opaque … 1).
    pub fn new(id: &str, outline: &[[f64; 2]], closed: bool, base: f64, top: f64, see_through: f64) -> Self {
        let corners: Vec<DVec2> = outline.iter().map(|p| DVec2::from_array(*p)).collect();
        let shape = if closed { Shape::enclosed(&corners) } else { Shape::Walls };
        let lower = corners.iter().copied().reduce(DVec2::min).unwrap_or_default();
        let upper = corners.iter().copied().reduce(DVec2::max).unwrap_or_default();
        let reflectance = USUAL_REFLECTANCE;
        Solid { id: id.to_owned(), corners, shape, base, top, see_through, reflectance, bounds: (lower, upper) }
    }

    /// The same with faces that give back a share of light.
    #[must_use]
    pub fn giving_back(self, reflectance: f64) -> Self {
        Solid { reflectance, ..self }
    }

    /// The share of light that its upright faces give back on the mean, 0 to 1.
    pub fn reflectance(&self) -> f64 {
        self.reflectance
    }

    /// Its id in the site file.
    pub fn id(&self) -> &str {
        &self.id
    }

    /// The corners of its outline, m.
    pub fn corners(&self) -> &[DVec2] {
        &self.corners
    }

    /// Height of its underside, m.
    pub fn base(&self) -> f64 {
        self.base
    }

    /// Height of its top, m.
    pub fn top(&self) -> f64 {
        self.top
    }

    /// Whether it hides what is behind it.
    pub fn blocks(&self) -> bool {
        self.see_through <= BLOCKS_UP_TO
    }

    /// The share of what is behind it that one sees through it, 0 to 1.
    pub fn see_through(&self) -> f64 {
        self.see_through
    }

    /// Whether its outline is filled; if not, it is thin walls.
    pub fn is_filled(&self) -> bool {
        !matches!(self.shape, Shape::Walls)
    }

    /// Whether its outline is filled and convex.
    pub fn is_convex(&self) -> bool {
        matches!(self.shape, Shape::Convex(_))
    }

    /// South-west and north-east corner of the box around its outline, m.
    pub fn bounds(&self) -> (DVec2, DVec2) {
        self.bounds
    }

    /// The edges of its outline.
    pub fn edges(&self) -> impl Iterator<Item = (DVec2, DVec2)> + '_ {
        let closing = self.is_filled().then(|| (self.corners[self.corners.len() - 1], self.corners[0]));
        self.corners.windows(2).map(|w| (w[0], w[1])).chain(closing)
    }

    /// Whether a point of the plan lies strictly inside the filled outline; of an outline that is not convex exact, also on its edges.
    fn encloses(&self, at: DVec2) -> bool {
        match &self.shape {
            Shape::Walls => false,
            Shape::Convex(sides) => sides.iter().all(|side| side.depth(at) > ON_SIDE_M),
            Shape::Simple(area) => area.coordinate_position(&Coord { x: at.x, y: at.y }) == CoordPos::Inside,
        }
    }

    /// The same for a point that is known to lie off the edges: edges to its east are counted.
    fn encloses_off_edge(&self, at: DVec2) -> bool {
        let east = |(a, b): &(DVec2, DVec2)| {
            (a.y > at.y) != (b.y > at.y) && at.x < a.x + (at.y - a.y) * (b.x - a.x) / (b.y - a.y)
        };
        self.edges().filter(east).count() % 2 == 1
    }

    /// Whether a point lies strictly inside the solid.
    pub fn contains(&self, at: DVec3) -> bool {
        at.z > self.base && at.z < self.top && self.encloses(at.truncate())
    }

    /// Whether a point of the plan lies inside the filled outline or within a centimetre of it.
    pub fn holds_or_touches(&self, at: DVec2) -> bool {
        self.is_filled() && (self.encloses(at) || self.nearest_on_outline(at).distance(at) <= NEAR_M)
    }

    /// The point of the outline that is nearest to a point of the plan.
    pub fn nearest_on_outline(&self, at: DVec2) -> DVec2 {
        let on = |(a, b): (DVec2, DVec2)| nearest_on(at, a, b);
        let near = |p: &DVec2, q: &DVec2| p.distance_squared(at).total_cmp(&q.distance_squared(at));
        self.edges().map(on).min_by(near).unwrap_or(at)
    }

    /// The heights, m, at which a line that starts at height `z` and ends over the end of the plan line `from`–`to` is hidden
    /// there, as intervals: one for each time that it runs over the outline.
    pub fn hidden_heights(&self, from: DVec2, z: f64, to: DVec2) -> SmallVec<[Interval; 4]> {
        let at = |height: f64, share: f64| z + (height - z) / share.max(1e-9);
        let over = self.over(from, to);
        let heights = over.iter().map(|over| Interval {
            start: at(self.base, over.start).min(at(self.base, over.end)),
            end: at(self.top, over.start).max(at(self.top, over.end)),
        });
        heights.collect()
    }

    /// The shares of the straight plan line `from`–`to` at which it crosses the outline, ascending,
    /// and whether it runs along an edge.
    fn cuts(&self, from: DVec2, to: DVec2) -> (Shares, bool) {
        let along = to - from;
        let parallel_within = 1e-18 * along.length_squared();
        let mut cuts = Shares::new();
        let mut grazes = false;
        for (a, b) in self.edges() {
            let edge = b - a;
            let cross = along.perp_dot(edge);
            if cross * cross <= parallel_within * edge.length_squared() {
                grazes = true;
                if cross == 0.0 {
                    continue;
                }
            }
            let off_line = (a - from).perp_dot(along);
            // Most edges lie well to one side of the line: they are told apart without dividing.
            let give = 1e-11 * cross.abs();
            if off_line.abs() > cross.abs() + give || off_line * cross.signum() < -give {
                continue;
            }
            let share = (a - from).perp_dot(edge) / cross;
            let on_edge = off_line / cross;
            if (0.0..=1.0).contains(&share) && (-1e-12..=1.0 + 1e-12).contains(&on_edge) {
                cuts.push(share);
            }
        }
        cuts.sort_by(f64::total_cmp);
        (cuts, grazes)
    }

    /// The stretches of the plan line `from`–`to`, as shares of it, that lie over the outline. For
    /// thin walls each is a single share (start = end).
    pub fn over(&self, from: DVec2, to: DVec2) -> SmallVec<[Interval; 4]> {
        let length = from.distance(to);
        if !self.is_filled() {
            let clear_of_ends = TOUCH_M / length.max(TOUCH_M);
            return self
                .cuts(from, to)
                .0
                .into_iter()
                .filter(|share| *share > clear_of_ends && *share < 1.0 - clear_of_ends)
                .map(|share| Interval { start: share, end: share })
                .collect();
        }
        if length < TOUCH_M {
            let inside = self.encloses((from + to) / 2.0);
            return if inside { smallvec![Interval { start: 0.0, end: 1.0 }] } else { smallvec![] };
        }
        if let Shape::Convex(sides) = &self.shape {
            let inside = clipped(sides, from, to - from);
            return inside.filter(|over| over.length() * length > TOUCH_M).into_iter().collect();
        }
        let (mut stops, grazes) = self.cuts(from, to);
        stops.insert(0, 0.0);
        stops.push(1.0);
        let mut stretches: SmallVec<[Interval; 4]> = SmallVec::new();
        for pair in stops.windows(2).filter(|pair| (pair[1] - pair[0]) * length > TOUCH_M) {
            let middle = from.lerp(to, 0.5 * (pair[0] + pair[1]));
            let inside = if grazes { self.encloses(middle) } else { self.encloses_off_edge(middle) };
            if !inside {
                continue;
            }
            match stretches.last_mut() {
                Some(last) if (pair[0] - last.end) * length <= TOUCH_M => last.end = pair[1],
                _ => stretches.push(Interval { start: pair[0], end: pair[1] }),
            }
        }
        stretches
    }

    /// The first share of the straight line `from`–`to` at which the solid is in its way. Touching
    /// a face or a corner is not being in the way, and neither is a wall that an end is mounted on.
    pub fn first_hit(&self, from: DVec3, to: DVec3) -> Option<f64> {
        let between = self.shares_at_height(from.z, to.z - from.z)?.meet(Interval { start: 0.0, end: 1.0 })?;
        let over = self.over(from.truncate(), to.truncate());
        Solid::first_shared(&over, between, from.distance(to))
    }

    /// Where a line of a length first runs over the outline and between base and top at once.
    fn first_shared(over: &[Interval], between: Interval, length: f64) -> Option<f64> {
        over.iter().find_map(|over| {
            if over.start == over.end {
                return (over.start > between.start && over.start < between.end).then_some(over.start);
            }
            let shared = over.meet(between)?;
            (shared.length() * length > TOUCH_M).then_some(shared.start)
        })
    }

    /// The shares of a line that starts at height `z` and rises by `rise` at which it runs between
    /// base and top.
    fn shares_at_height(&self, z: f64, rise: f64) -> Option<Interval> {
        if rise == 0.0 {
            let inside = z > self.base && z < self.top;
            // Wider than the line, so that its ends count as between.
            return inside.then_some(Interval { start: -1.0, end: 2.0 });
        }
        let (a, b) = ((self.base - z) / rise, (self.top - z) / rise);
        Interval::new(a.min(b), a.max(b))
    }
}

impl Shape {
    /// The area that an outline encloses.
    fn enclosed(corners: &[DVec2]) -> Shape {
        convex_sides(corners).map_or_else(
            || {
                let ring = corners.iter().map(|p| (p.x, p.y)).collect::<Vec<_>>();
                Shape::Simple(Polygon::new(LineString::from(ring), vec![]))
            },
            Shape::Convex,
        )
    }
}

impl Side {
    /// How far inside a point lies, m.
    fn depth(&self, at: DVec2) -> f64 {
        self.offset - self.normal.dot(at)
    }
}

/// The sides of a convex outline; `None` for one that is not convex.
fn convex_sides(corners: &[DVec2]) -> Option<Vec<Side>> {
    let count = corners.len();
    let corner = |i: usize| corners[i % count];
    let doubled: f64 = (0..count).map(|i| corner(i).perp_dot(corner(i + 1))).sum();
    let way = doubled.signum();
    let turns_one_way =
        (0..count).all(|i| way * (corner(i + 1) - corner(i)).perp_dot(corner(i + 2) - corner(i + 1)) >= 0.0);
    // A star turns one way too, but more than once around.
    let turned: f64 = (0..count).map(|i| (corner(i + 1) - corner(i)).angle_to(corner(i + 2) - corner(i + 1))).sum();
    if !turns_one_way || turned.abs() > 1.5 * std::f64::consts::TAU {
        return None;
    }
    let side = |i: usize| {
        let normal = (-(corner(i + 1) - corner(i)).perp() * way).normalize();
        // The corner that lies farther out, so that both lie inside or on it.
        Side { normal, offset: normal.dot(corner(i)).max(normal.dot(corner(i + 1))) }
    };
    Some((0..count).map(side).collect())
}

/// The shares of `from + share·along`, between 0 and 1, that lie inside a convex outline (Cyrus and Beck's clipping).
fn clipped(sides: &[Side], from: DVec2, along: DVec2) -> Option<Interval> {
    let parallel_within = 1e-12 * (along.x.abs() + along.y.abs());
    let (mut start, mut end) = (0.0_f64, 1.0_f64);
    for side in sides {
        let depth = side.depth(from);
        let leaving = side.normal.dot(along);
        if leaving.abs() <= parallel_within {
            // Along a side or outside it.
            if depth <= ON_SIDE_M {
                return None;
            }
        } else if leaving > 0.0 {
            end = end.min(depth / leaving);
        } else {
            start = start.max(depth / leaving);
        }
        if start >= end {
            return None;
        }
    }
    Interval::new(start, end)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn block() -> Solid {
        Solid::new("o1", &[[2.0, -1.0], [4.0, -1.0], [4.0, 1.0], [2.0, 1.0]], true, 0.0, 3.0, 0.0)
    }

    fn hit(solid: &Solid, from: [f64; 3], to: [f64; 3]) -> Option<f64> {
        solid.first_hit(DVec3::from_array(from), DVec3::from_array(to))
    }

    #[test]
    fn through_over_and_beside() {
        assert_eq!(hit(&block(), [0.0, 0.0, 1.0], [8.0, 0.0, 1.0]), Some(0.25));
        assert_eq!(hit(&block(), [0.0, 0.0, 3.5], [8.0, 0.0, 3.5]), None);
        assert_eq!(hit(&block(), [0.0, 2.0, 1.0], [8.0, 2.0, 1.0]), None);
        assert!(hit(&block(), [0.0, 0.0, 5.0], [8.0, 0.0, 0.5]).is_some(), "comes down into it");
        assert_eq!(hit(&block(), [0.0, 0.0, 9.0], [8.0, 0.0, 1.0]), None, "passes over");
    }

    #[test]
    fn touching_is_not_hindering() {
        assert_eq!(hit(&block(), [0.0, 1.0, 1.0], [8.0, 1.0, 1.0]), None, "along a face");
        assert_eq!(hit(&block(), [0.0, -1.0, 1.0], [4.0, 3.0, 1.0]), None, "past a corner");
        assert_eq!(hit(&block(), [0.0, 0.0, 3.0], [8.0, 0.0, 3.0]), None, "over the top, touching");
        assert_eq!(hit(&block(), [4.0, 0.0, 2.5], [9.0, 0.0, 1.6]), None, "mounted on it, looking away");
        assert_eq!(hit(&block(), [0.0, 0.0, 2.5], [2.0, 0.0, 1.6]), None, "a door in its face");
        assert!(hit(&block(), [4.0, 0.0, 2.5], [0.0, 0.0, 1.6]).is_some(), "mounted on it, looking through");
    }

    #[test]
    fn thin_walls_hide_from_both_sides() {
        let wall = Solid::new("w", &[[2.0, -1.0], [2.0, 1.0], [5.0, 1.0]], false, 0.5, 2.0, 0.0);
        assert_eq!(hit(&wall, [0.0, 0.0, 1.0], [4.0, 0.0, 1.0]), Some(0.5));
        assert_eq!(hit(&wall, [4.0, 0.0, 1.0], [0.0, 0.0, 1.0]), Some(0.5));
        assert_eq!(hit(&wall, [0.0, 0.0, 0.4], [4.0, 0.0, 0.4]), None, "under it");
        assert_eq!(hit(&wall, [2.0, 0.0, 1.0], [4.0, 0.0, 1.0]), None, "mounted on it");
        assert!(hit(&wall, [1.0, 0.0, 1.0], [3.0, 2.0, 1.0]).is_some(), "through its corner");
    }

    #[test]
    fn straight_down_inside_and_beside() {
        assert!(hit(&block(), [3.0, 0.0, 5.0], [3.0, 0.0, 1.0]).is_some());
        assert_eq!(hit(&block(), [5.0, 0.0, 5.0], [5.0, 0.0, 1.0]), None);
    }

    #[test]
    fn convex_outlines_are_told_from_others() {
        let solid = |outline: &[[f64; 2]]| Solid::new("o", outline, true, 0.0, 3.0, 0.0).is_convex();
        assert!(solid(&[[0.0, 0.0], [4.0, 0.0], [4.0, 2.0], [0.0, 2.0]]));
        assert!(solid(&[[0.0, 0.0], [0.0, 2.0], [4.0, 2.0], [4.0, 0.0]]), "the other way round");
        assert!(solid(&[[0.0, 0.0], [2.0, 0.0], [4.0, 0.0], [4.0, 2.0]]), "with a corner on a side");
        assert!(!solid(&[[0.0, 0.0], [4.0, 0.0], [4.0, 4.0], [2.0, 1.0], [0.0, 4.0]]), "with a bay");
    }

    #[test]
    fn a_convex_outline_and_the_same_with_a_bay_elsewhere_agree() {
        // The bay lies out of every line's way: the two ways to compute must answer the same.
        let plain = Solid::new("o", &[[2.0, -1.0], [4.0, -1.0], [4.0, 1.0], [2.0, 1.0]], true, 0.0, 3.0, 0.0);
        let bay = Solid::new(
            "o",
            &[[2.0, -1.0], [4.0, -1.0], [4.0, 1.0], [3.1, 1.0], [3.0, 0.9999], [2.9, 1.0], [2.0, 1.0]],
            true,
            0.0,
            3.0,
            0.0,
        );
        assert!(plain.is_convex() && !bay.is_convex());
        for i in 0..400 {
            let at = |k: usize| f64::from(i) * 0.618_034 * (k as f64 + 1.0);
            let from = [at(0).sin() * 6.0, -2.0 + at(1).cos(), 1.0 + at(2).sin()];
            let to = [at(3).cos() * 7.0, -0.5 + 0.4 * at(4).sin(), 2.0 + at(5).cos()];
            let (a, b) = (hit(&plain, from, to), hit(&bay, from, to));
            assert_eq!(a.is_some(), b.is_some(), "{from:?} {to:?}");
            assert!((a.unwrap_or(0.0) - b.unwrap_or(0.0)).abs() < 1e-9);
        }
    }
}
