//! Solids that may stand in the way: outlines extruded from a base to a top.

use crate::interval::Interval;
use geo::coordinate_position::{CoordPos, CoordinatePosition};
use geo::{Coord, LineString, Polygon};
use glam::{DVec2, DVec3};
use smallvec::{SmallVec, smallvec};

/// Shorter shared stretches than this, in metres, are touches and not hindrances.
const TOUCH_M: f64 = 1e-7;
/// The share up to which a see-through solid still blocks.
pub const BLOCKS_UP_TO: f64 = 0.5;

/// Shares of a line: most outlines are crossed a few times.
type Shares = SmallVec<[f64; 8]>;

/// A solid standing between two heights: a filled outline, or thin upright walls along an open one.
#[derive(Clone, Debug)]
pub struct Solid {
    /// Its id in the site file.
    pub id: String,
    /// The corners of its outline.
    corners: Vec<DVec2>,
    /// The filled outline; `None` for thin walls.
    filled: Option<Polygon<f64>>,
    /// Height of its underside, m.
    pub base: f64,
    /// Height of its top, m.
    pub top: f64,
    /// Whether it hides what is behind it.
    pub blocks: bool,
}

impl Solid {
    /// A solid from its outline, heights and how well one sees through it (0 opaque … 1).
    pub fn new(id: &str, outline: &[[f64; 2]], closed: bool, base: f64, top: f64, see_through: f64) -> Self {
        let corners: Vec<DVec2> = outline.iter().map(|p| DVec2::from_array(*p)).collect();
        let filled = closed
            .then(|| Polygon::new(LineString::from(outline.iter().map(|p| (p[0], p[1])).collect::<Vec<_>>()), vec![]));
        Solid { id: id.to_owned(), corners, filled, base, top, blocks: see_through <= BLOCKS_UP_TO }
    }

    /// The corners of its outline.
    pub fn corners(&self) -> &[DVec2] {
        &self.corners
    }

    /// The edges of its outline.
    fn edges(&self) -> impl Iterator<Item = (DVec2, DVec2)> + '_ {
        let closing = self.filled.as_ref().map(|_| (self.corners[self.corners.len() - 1], self.corners[0]));
        self.corners.windows(2).map(|w| (w[0], w[1])).chain(closing)
    }

    /// Whether a point of the plan lies strictly inside the filled outline. Exact, also on its edges.
    fn encloses(&self, at: DVec2) -> bool {
        let at = Coord { x: at.x, y: at.y };
        self.filled.as_ref().is_some_and(|area| area.coordinate_position(&at) == CoordPos::Inside)
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
        if self.filled.is_none() {
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

    /// Whether any of some lines is hindered that start at `from` and run over the same plan line
    /// `from`–`to`, each to a height of its own at `to`.
    pub fn hinders_any(&self, from: DVec3, to: DVec2, heights_at_end: &[f64]) -> bool {
        let over = self.over(from.truncate(), to);
        !over.is_empty()
            && heights_at_end.iter().any(|height| {
                let between = self.shares_at_height(from.z, height - from.z);
                between.is_some_and(|between| {
                    Solid::first_shared(&over, between, from.distance(to.extend(*height))).is_some()
                })
            })
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
}
