//! All solids of a site, indexed so that a sight line asks only those whose boxes it meets.

use super::Solid;
use glam::{DVec2, DVec3};
use rstar::{AABB, ParentNode, RTree, RTreeNode, RTreeObject};

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
