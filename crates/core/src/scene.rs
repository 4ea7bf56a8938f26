//! All solids of a site, indexed so that a sight line asks only those whose boxes it meets.

use crate::obstacle::Solid;
use glam::{DVec2, DVec3};
use rstar::{AABB, ParentNode, RTree, RTreeNode, RTreeObject};
use smallvec::SmallVec;

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
    /// The line `from`–`to`, passing above or below by at most `give` metres.
    fn new(from: DVec3, to: DVec3, give: f64) -> Self {
        let half = (to.truncate() - from.truncate()) / 2.0;
        AlongLine {
            middle: from.truncate() + half,
            half,
            reach: half.abs(),
            lowest: from.z.min(to.z) - give,
            highest: from.z.max(to.z) + give,
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

/// The few solids that lines close to each other may meet.
#[derive(Clone, Debug)]
pub struct Near<'a>(SmallVec<[&'a Solid; 8]>);

impl<'a> Near<'a> {
    /// The first of them on the straight line, and the share of the line up to it.
    pub fn first_blocker(&self, from: DVec3, to: DVec3) -> Option<(&'a Solid, f64)> {
        let hits = self.0.iter().filter_map(|solid| Some((*solid, solid.first_hit(from, to)?)));
        hits.reduce(|first, next| if next.1 < first.1 { next } else { first })
    }

    /// Whether none of them is in any of some lines that start at `from` and run over the same plan line to
    /// `to`, each to a height of its own there.
    pub fn all_clear(&self, from: DVec3, to: DVec2, heights_at_end: &[f64]) -> bool {
        !self.0.iter().any(|solid| solid.hinders_any(from, to, heights_at_end))
    }
}

impl Scene {
    /// Indexes solids.
    pub fn new(solids: Vec<Solid>) -> Self {
        let boxes = |blocks: bool| {
            let places = (0..solids.len()).filter(|place| solids[*place].blocks == blocks);
            RTree::bulk_load(places.map(|place| boxed(place, &solids[place])).collect())
        };
        Scene { blocking: boxes(true), seen_through: boxes(false), solids }
    }

    /// The solids, in the file's order.
    pub fn solids(&self) -> &[Solid] {
        &self.solids
    }

    /// The blocking solids whose boxes a straight line meets, or passes above or below by at most `give` metres.
    pub fn near(&self, from: DVec3, to: DVec3, give: f64) -> Near<'_> {
        let mut met = SmallVec::new();
        visit(self.blocking.root(), &AlongLine::new(from, to, give), &mut |place| met.push(&self.solids[place]));
        Near(met)
    }

    /// The first blocking solid on the straight line, and the share of the line up to it.
    pub fn first_blocker(&self, from: DVec3, to: DVec3) -> Option<(&Solid, f64)> {
        self.near(from, to, 0.0).first_blocker(from, to)
    }

    /// The see-through solids in the straight line, in the file's order.
    pub fn passed(&self, from: DVec3, to: DVec3) -> Vec<&Solid> {
        let mut places = Vec::new();
        visit(self.seen_through.root(), &AlongLine::new(from, to, 0.0), &mut |place| {
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
    let corners = solid.corners().iter().copied();
    let lower = corners.clone().reduce(|a, b| a.min(b)).unwrap_or_default();
    let upper = corners.reduce(|a, b| a.max(b)).unwrap_or_default();
    let bounds = AABB::from_corners(lower.to_array(), upper.to_array());
    Boxed { solid: place, bounds, base: solid.base, top: solid.top }
}
