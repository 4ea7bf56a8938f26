//! All solids of a site, indexed so that a sight line asks only those whose boxes it meets.

use super::{BLOCKS_UP_TO, Solid, Volume};
use glam::{DVec2, DVec3};
use rstar::{AABB, ParentNode, RTree, RTreeNode, RTreeObject};

/// How deep inside a solid a camera may be drawn that is mounted on it, m; common practice, no source: a hand's accuracy on a plan.
const MOUNTING_M: f64 = 0.05;
/// The same where the file says what it is mounted on.
const MOUNTED_ON_M: f64 = 0.5;
/// Its lines begin so far off the face, m.
const CLEAR_OF_FACE_M: f64 = 1e-6;

/// The solids of a site in R-trees of their boxes: those that block, and those seen through.
#[derive(Clone, Debug, Default)]
pub struct Scene {
    solids: Vec<Solid>,
    blocking: RTree<Boxed>,
    seen_through: RTree<Boxed>,
}

/// The plan box of one solid. Sites are flat: splitting them by height would only spread neighbours.
#[derive(Clone, Copy, Debug)]
struct Boxed {
    solid: usize,
    bounds: AABB<[f64; 2]>,
    base: f64,
    top: f64,
}

impl RTreeObject for Boxed {
    type Envelope = AABB<[f64; 2]>;
    fn envelope(&self) -> Self::Envelope {
        self.bounds
    }
}

/// A straight line as the index asks about it.
struct AlongLine {
    middle: DVec2,
    /// Half the way from start to end, and the same without signs.
    half: DVec2,
    reach: DVec2,
    lowest: f64,
    highest: f64,
}

impl AlongLine {
    /// The line `from`–`to`.
    fn new(from: DVec3, to: DVec3) -> Self {
        let half = (to.truncate() - from.truncate()) / 2.0;
        AlongLine {
            middle: from.truncate() + half,
            half,
            reach: half.abs(),
            lowest: from.z.min(to.z),
            highest: from.z.max(to.z),
        }
    }

    /// Whether its plan line meets a box: no axis of the box nor the line's normal keeps them apart.
    fn meets(&self, bounds: &AABB<[f64; 2]>) -> bool {
        let (lower, upper) = (DVec2::from_array(bounds.lower()), DVec2::from_array(bounds.upper()));
        let size = (upper - lower) / 2.0;
        let apart = (lower + upper) / 2.0 - self.middle;
        apart.x.abs() <= size.x + self.reach.x
            && apart.y.abs() <= size.y + self.reach.y
            && apart.perp_dot(self.half).abs() <= size.x * self.reach.y + size.y * self.reach.x + 1e-9
    }

    fn meets_solid(&self, boxed: &Boxed) -> bool {
        boxed.base <= self.highest && boxed.top >= self.lowest && self.meets(&boxed.bounds)
    }
}

/// Visits the solids below a node whose boxes a line meets.
fn visit(node: &ParentNode<Boxed>, line: &AlongLine, found: &mut impl FnMut(usize)) {
    for child in node.children() {
        match child {
            RTreeNode::Leaf(boxed) if line.meets_solid(boxed) => found(boxed.solid),
            RTreeNode::Parent(parent) if line.meets(&parent.envelope()) => visit(parent, line, found),
            _ => {}
        }
    }
}

impl Scene {
    /// Indexes solids.
    pub fn new(solids: Vec<Solid>) -> Self {
        let boxes = |blocks: bool| {
            let places = (0..solids.len()).filter(|place| solids[*place].blocks() == blocks);
            RTree::bulk_load(places.map(|place| boxed(place, &solids[place])).collect())
        };
        Scene { blocking: boxes(true), seen_through: boxes(false), solids }
    }

    /// The solids, in the file's order.
    pub fn solids(&self) -> &[Solid] {
        &self.solids
    }

    /// The first blocking solid on the straight line, and the share of the line up to it; of two at once the earlier in the file.
    pub fn first_blocker(&self, from: DVec3, to: DVec3) -> Option<(&Solid, f64)> {
        let mut first: Option<(f64, usize)> = None;
        visit(self.blocking.root(), &AlongLine::new(from, to), &mut |place| {
            if let Some(share) = self.solids[place].first_hit(from, to)
                && first.is_none_or(|so_far| (share, place) < so_far)
            {
                first = Some((share, place));
            }
        });
        first.map(|(share, place)| (&self.solids[place], share))
    }

    /// Whether a blocking solid stands in a volume.
    pub fn stands_in(&self, volume: &Volume) -> bool {
        let (lower, upper) = volume.bounds();
        let (low, high) = volume.heights();
        let near = AABB::from_corners(lower.to_array(), upper.to_array());
        self.blocking
            .locate_in_envelope_intersecting(&near)
            .any(|boxed| boxed.base < high && boxed.top > low && volume.meets(&self.solids[boxed.solid]))
    }

    /// The see-through solids in the straight line, in the file's order.
    pub fn passed(&self, from: DVec3, to: DVec3) -> Vec<&Solid> {
        let mut places = Vec::new();
        if self.seen_through.size() == 0 {
            return vec![];
        }
        visit(self.seen_through.root(), &AlongLine::new(from, to), &mut |place| {
            if self.solids[place].first_hit(from, to).is_some() {
                places.push(place);
            }
        });
        places.sort_unstable();
        places.into_iter().map(|place| &self.solids[place]).collect()
    }

    /// Whether there is anything that one sees through.
    pub fn has_see_through(&self) -> bool {
        self.seen_through.size() > 0
    }

    /// The see-through solids in the straight line: the share of the line up to each, and its place in the file.
    pub fn passed_at(&self, from: DVec3, to: DVec3) -> Vec<(f64, usize)> {
        let mut hits = Vec::new();
        visit(self.seen_through.root(), &AlongLine::new(from, to), &mut |place| {
            hits.extend(self.solids[place].first_hit(from, to).map(|share| (share, place)));
        });
        hits
    }

    /// Whether see-through solids can stand in series at all.
    pub fn has_several_see_through(&self) -> bool {
        self.seen_through.size() > 1
    }

    /// Where several see-through solids in the straight line together let half or less of it through: the share of the line up
    /// to the one that takes too much, and its place in the file. What each lets through multiplies.
    pub fn dimmed_by(&self, from: DVec3, to: DVec3) -> Option<(f64, usize)> {
        let mut hits = self.passed_at(from, to);
        hits.sort_by(|a, b| a.partial_cmp(b).unwrap_or(std::cmp::Ordering::Equal));
        let mut left = 1.0;
        hits.into_iter().find(|(_, place)| {
            left *= self.solids[*place].see_through();
            left <= BLOCKS_UP_TO
        })
    }

    /// Where the lines of a camera begin that was drawn at a point: what it is mounted on does not hide anything, so a point that
    /// was drawn a little inside of a solid goes out to its face.
    pub fn out_of_mounting(&self, at: DVec3, mounted_on: Option<&str>) -> DVec3 {
        let mut at = at;
        // In an inside corner there are two.
        for _ in 0..2 {
            let Some(solid) = self.solid_around(at) else { break };
            let depth = if mounted_on == Some(solid.id()) { MOUNTED_ON_M } else { MOUNTING_M };
            let face = solid.nearest_on_outline(at.truncate());
            let out = face - at.truncate();
            if out.length() > depth {
                break;
            }
            at = (face + out.normalize_or_zero() * CLEAR_OF_FACE_M).extend(at.z);
        }
        at
    }

    /// The blocking solid that a point lies strictly inside of.
    pub fn solid_around(&self, at: DVec3) -> Option<&Solid> {
        self.blocking
            .locate_in_envelope_intersecting(&AABB::from_point([at.x, at.y]))
            .map(|boxed| &self.solids[boxed.solid])
            .find(|solid| solid.contains(at))
    }
}

/// The box of the solid at a place.
fn boxed(place: usize, solid: &Solid) -> Boxed {
    let (lower, upper) = solid.bounds();
    let bounds = AABB::from_corners(lower.to_array(), upper.to_array());
    Boxed { solid: place, bounds, base: solid.base(), top: solid.top() }
}
