//! All solids of a site, indexed so that a sight line asks only those whose boxes it meets.

use crate::obstacle::Solid;
use glam::DVec3;
use rstar::{AABB, RTree, RTreeObject, SelectionFunction};
use std::cell::Cell;

/// The solids of a site in an R-tree of their boxes.
#[derive(Clone, Debug, Default)]
pub struct Scene {
    solids: Vec<Solid>,
    index: RTree<Boxed>,
}

/// The box of one solid.
#[derive(Clone, Copy, Debug)]
struct Boxed {
    solid: usize,
    bounds: AABB<[f64; 3]>,
}

impl RTreeObject for Boxed {
    type Envelope = AABB<[f64; 3]>;
    fn envelope(&self) -> Self::Envelope {
        self.bounds
    }
}

/// Selects the boxes that a straight line meets, up to a share of it that may shrink meanwhile.
struct AlongLine<'a> {
    from: [f64; 3],
    step: [f64; 3],
    up_to: &'a Cell<f64>,
}

impl AlongLine<'_> {
    fn meets(&self, bounds: &AABB<[f64; 3]>) -> bool {
        let (lower, upper) = (bounds.lower(), bounds.upper());
        let (mut enter, mut leave) = (0.0_f64, self.up_to.get());
        for axis in 0..3 {
            if self.step[axis] == 0.0 {
                if self.from[axis] < lower[axis] || self.from[axis] > upper[axis] {
                    return false;
                }
                continue;
            }
            let a = (lower[axis] - self.from[axis]) / self.step[axis];
            let b = (upper[axis] - self.from[axis]) / self.step[axis];
            enter = enter.max(a.min(b));
            leave = leave.min(a.max(b));
        }
        enter <= leave
    }
}

impl SelectionFunction<Boxed> for AlongLine<'_> {
    fn should_unpack_parent(&self, envelope: &AABB<[f64; 3]>) -> bool {
        self.meets(envelope)
    }
    fn should_unpack_leaf(&self, leaf: &Boxed) -> bool {
        self.meets(&leaf.bounds)
    }
}

impl Scene {
    /// Indexes solids.
    pub fn new(solids: Vec<Solid>) -> Self {
        let boxes = solids
            .iter()
            .enumerate()
            .map(|(solid, s)| {
                let corners = s.corners();
                let lower = corners.iter().copied().reduce(|a, b| a.min(b)).unwrap_or_default();
                let upper = corners.iter().copied().reduce(|a, b| a.max(b)).unwrap_or_default();
                Boxed { solid, bounds: AABB::from_corners([lower.x, lower.y, s.base], [upper.x, upper.y, s.top]) }
            })
            .collect();
        Scene { solids, index: RTree::bulk_load(boxes) }
    }

    /// The solids, in the file's order.
    pub fn solids(&self) -> &[Solid] {
        &self.solids
    }

    /// The places in `solids` of those whose boxes the line meets, up to a share of it that the
    /// caller may lower as it goes.
    fn near_line(&self, from: DVec3, to: DVec3, up_to: &Cell<f64>) -> impl Iterator<Item = usize> {
        let along = AlongLine { from: from.to_array(), step: (to - from).to_array(), up_to };
        self.index.locate_with_selection_function(along).map(|boxed| boxed.solid)
    }

    /// The first blocking solid on the straight line, and the share of the line up to it.
    pub fn first_blocker(&self, from: DVec3, to: DVec3) -> Option<(&Solid, f64)> {
        let nearest = Cell::new(1.0);
        let mut first: Option<(usize, f64)> = None;
        for place in self.near_line(from, to, &nearest).filter(|place| self.solids[*place].blocks) {
            if let Some(share) = self.solids[place].first_hit(from, to)
                && first.is_none_or(|(_, best)| share < best)
            {
                nearest.set(share);
                first = Some((place, share));
            }
        }
        first.map(|(place, share)| (&self.solids[place], share))
    }

    /// All solids in the straight line, see-through ones included, in the file's order.
    pub fn all_on(&self, from: DVec3, to: DVec3) -> Vec<&Solid> {
        let whole = Cell::new(1.0);
        let mut places: Vec<usize> = self
            .near_line(from, to, &whole)
            .filter(|place| self.solids[*place].first_hit(from, to).is_some())
            .collect();
        places.sort_unstable();
        places.into_iter().map(|place| &self.solids[place]).collect()
    }

    /// The solid that a point lies strictly inside of.
    pub fn solid_around(&self, at: DVec3) -> Option<&Solid> {
        self.index
            .locate_in_envelope_intersecting(&AABB::from_point(at.to_array()))
            .map(|boxed| &self.solids[boxed.solid])
            .find(|solid| solid.blocks && solid.contains(at))
    }
}
