//! The space that sight lines sweep: from an eye of uncertain height to a footprint of the plan, between two heights there.
//! Whatever stands in it may hide something; what stands outside it hides nothing.

use super::Solid;
use crate::math::{Ring, clip, hull, keep_left, nearest_on, ring_area as area, sides};
use glam::{DVec2, DVec3};

/// A shorter shared edge than this, m, is a touch and no hindrance.
const TOUCH: f64 = 1e-7;
/// Less shared ground than this is a touch, m²: what runs along a face shares none, but for rounding.
const TOUCH_M2: f64 = 1e-10;
/// A thin wall that an end of the line lies on, so near, m, is where the line ends and not in its way.
const ON_WALL_M: f64 = 0.01;

/// All sight lines from an eye to the points over a footprint.
///
/// In the upright direction it is bounded by what the steepest and the flattest of these lines have at a distance along
/// the middle bearing. That is exact for a single distance, and for several a little more than the lines sweep.
#[derive(Clone, Debug)]
pub struct Volume {
    eye: DVec2,
    towards: DVec2,
    /// The outline of all of it, the eye included, counter-clockwise.
    plan: Ring,
    /// The outline of where the lines end.
    footprint: Ring,
    /// A nominal end, for what it lies on.
    end: DVec2,
    near: f64,
    far: f64,
    /// Lowest and highest height of the eye, m.
    eye_z: (f64, f64),
    /// Lowest and highest height of the ends, m.
    end_z: (f64, f64),
    /// The box around its outline.
    bounds: (DVec2, DVec2),
}

impl Volume {
    /// The volume from an eye, up to `eye_off` m lower or higher, to the points between the heights `low` and `high` over a
    /// footprint, given by points that it is the hull of. `end` is where the line nominally ends.
    pub fn new(eye: DVec3, eye_off: f64, footprint: &[DVec2], end: DVec2, low: f64, high: f64) -> Self {
        let here = eye.truncate();
        let middle = footprint.iter().sum::<DVec2>() / footprint.len() as f64;
        let towards = (middle - here).normalize_or(DVec2::Y);
        let along = |p: &DVec2| (*p - here).dot(towards);
        let near = footprint.iter().map(along).fold(f64::INFINITY, f64::min);
        let far = footprint.iter().map(along).fold(f64::NEG_INFINITY, f64::max);
        let ends = hull(footprint.iter().copied());
        let plan = hull(ends.iter().copied().chain([here]));
        Volume {
            eye: here,
            towards,
            bounds: box_of(&plan),
            plan,
            footprint: ends,
            end,
            near,
            far,
            eye_z: (eye.z - eye_off, eye.z + eye_off),
            end_z: (low, high),
        }
    }

    /// The box around it on the plan, m.
    pub fn bounds(&self) -> (DVec2, DVec2) {
        self.bounds
    }

    /// Lowest and highest height anywhere in it, m.
    pub fn heights(&self) -> (f64, f64) {
        (self.eye_z.0.min(self.end_z.0), self.eye_z.1.max(self.end_z.1))
    }

    /// The corners of its outline on the plan.
    pub fn corners(&self) -> &[DVec2] {
        &self.plan
    }

    /// Whether its ends lie all around the eye.
    pub fn surrounds_eye(&self) -> bool {
        self.near <= 0.0
    }

    /// Whether something of a solid stands in it. The ends do not lie inside the solid: a door in its face is not hidden by it.
    pub fn meets(&self, solid: &Solid) -> bool {
        let (low, high) = self.heights();
        if solid.base() >= high || solid.top() <= low || self.misses_box(solid) {
            return false;
        }
        if !solid.is_filled() {
            return solid.edges().any(|edge| self.meets_wall(solid, edge));
        }
        match self.before(solid) {
            Some(before) => before.meets_filled(solid),
            None => self.meets_filled(solid),
        }
    }

    fn meets_filled(&self, solid: &Solid) -> bool {
        let shared = clip(solid.corners().iter().copied().collect(), &self.plan);
        if shared.len() < 3 || area(&shared).abs() < TOUCH_M2 {
            return false;
        }
        self.shares_height(solid, &shared)
    }

    /// Whether one of the boxes' own directions keeps them apart on the plan.
    fn misses_box(&self, solid: &Solid) -> bool {
        let ((lower, upper), (least, most)) = (solid.bounds(), self.bounds);
        if lower.x > most.x || lower.y > most.y || upper.x < least.x || upper.y < least.y {
            return true;
        }
        // A side of the outline with the whole box outside it.
        let (middle, half) = ((lower + upper) / 2.0, (upper - lower) / 2.0);
        sides(&self.plan).any(|(a, b)| {
            let normal = (b - a).perp();
            normal.dot(middle - a) + normal.abs().dot(half) < 0.0
        })
    }

    fn meets_wall(&self, solid: &Solid, (a, b): (DVec2, DVec2)) -> bool {
        if distance_to(self.end, a, b) < ON_WALL_M || distance_to(self.eye, a, b) < TOUCH {
            return false;
        }
        let (mut start, mut end) = (0.0_f64, 1.0_f64);
        for (p, q) in sides(&self.plan) {
            let normal = (q - p).perp();
            let (from, to) = (normal.dot(a - p), normal.dot(b - p));
            match (from >= 0.0, to >= 0.0) {
                (false, false) => return false,
                (true, true) => {}
                (false, true) => start = start.max(from / (from - to)),
                (true, false) => end = end.min(from / (from - to)),
            }
        }
        (end - start) * a.distance(b) > TOUCH && self.shares_height(solid, &[a.lerp(b, start), a.lerp(b, end)])
    }

    /// Whether a solid is at some distance of a stretch of ground both under the highest and over the lowest line.
    fn shares_height(&self, solid: &Solid, ground: &[DVec2]) -> bool {
        let along = |p: &DVec2| (*p - self.eye).dot(self.towards).max(0.0);
        let from = ground.iter().map(along).fold(f64::INFINITY, f64::min);
        let to = ground.iter().map(along).fold(0.0, f64::max);
        if self.near <= 0.0 {
            // The ends lie all around the eye: anything between the heights may be in the way.
            return true;
        }
        // Where the lowest line runs under the top, and where the highest runs over the base: an interval each, because
        // the one sags and the other bulges.
        let (Some(under), Some(over)) =
            (self.where_lowest_is_under(solid.top()), self.where_highest_is_over(solid.base()))
        else {
            return false;
        };
        let (start, end) = (from.max(under.0).max(over.0), to.min(under.1).min(over.1));
        start < end || (from == to && start <= end)
    }

    /// The distances at which the lowest line is under a height.
    fn where_lowest_is_under(&self, height: f64) -> Option<(f64, f64)> {
        let (eye, end) = (self.eye_z.0, self.end_z.0);
        let steepest = if end < eye { self.near } else { self.far };
        stretch(&[(0.0, eye), (steepest, end), (self.far, end)], |z| height - z)
    }

    /// The distances at which the highest line is over a height.
    fn where_highest_is_over(&self, height: f64) -> Option<(f64, f64)> {
        let (eye, end) = (self.eye_z.1, self.end_z.1);
        let steepest = if end > eye { self.near } else { self.far };
        stretch(&[(0.0, eye), (steepest, end), (self.far, end)], |z| z - height)
    }

    /// The same volume without the ends that would lie inside a solid, where a side of it cuts off just these.
    fn before(&self, solid: &Solid) -> Option<Volume> {
        let (lower, upper) = solid.bounds();
        let in_box = |p: &DVec2| p.cmpge(lower).all() && p.cmple(upper).all();
        let inside = |p: &DVec2| in_box(p) && solid.holds_or_touches(*p);
        if self.end_z.0 >= solid.top() || self.end_z.1 <= solid.base() || !self.footprint.iter().any(inside) {
            return None;
        }
        let turned = area(solid.corners()).signum();
        let outside =
            |(a, b): (DVec2, DVec2), p: DVec2| (b - a).perp().dot(p - a) * turned / a.distance(b) <= ON_WALL_M;
        solid.edges().find_map(|(a, b)| {
            if !outside((a, b), self.end) || !outside((a, b), self.eye) {
                return None;
            }
            let (out, within) = if turned > 0.0 { ((b, a), (a, b)) } else { ((a, b), (b, a)) };
            let beyond = keep_left(&self.footprint, within);
            let rest = keep_left(&self.footprint, out);
            let all_inside = !beyond.is_empty() && beyond.iter().all(|p| solid.holds_or_touches(*p));
            if !all_inside || rest.is_empty() {
                return None;
            }
            let plan = hull(rest.iter().copied().chain([self.eye]));
            Some(Volume { bounds: box_of(&plan), plan, footprint: rest, ..self.clone() })
        })
    }
}

/// Where a broken line of (distance, height) has a positive `over`; it is a single stretch for what sags or bulges.
fn stretch(line: &[(f64, f64); 3], over: impl Fn(f64) -> f64) -> Option<(f64, f64)> {
    let mut found: Option<(f64, f64)> = None;
    for pair in line.windows(2) {
        let ((s0, z0), (s1, z1)) = (pair[0], pair[1]);
        let (a, b) = (over(z0), over(z1));
        if a <= TOUCH && b <= TOUCH {
            continue;
        }
        let crossing = || s0 + (s1 - s0) * a / (a - b);
        let from = if a > 0.0 { s0 } else { crossing() };
        let to = if b > 0.0 { s1 } else { crossing() };
        found = Some(found.map_or((from, to), |(start, end)| (start.min(from), end.max(to))));
    }
    // Beyond the last end nothing is asked.
    found
}

/// The box around some points.
fn box_of(points: &[DVec2]) -> (DVec2, DVec2) {
    points.iter().fold((DVec2::MAX, DVec2::MIN), |(least, most), p| (least.min(*p), most.max(*p)))
}

fn distance_to(p: DVec2, a: DVec2, b: DVec2) -> f64 {
    p.distance(nearest_on(p, a, b))
}
