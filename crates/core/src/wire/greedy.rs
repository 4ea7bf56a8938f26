//! A first answer for routing: boxes put down and taken away one by one while that makes it cheaper, each camera wired by the cheapest way
//! that still fits. The search begins from it, so that there is an answer whenever it ends.

use super::attach::Attachment;
use super::places::{KITS, Place, Stands};
use std::collections::HashSet;

/// What a first answer is made of.
pub struct Stock<'a> {
    /// The places.
    pub places: &'a [Place],
    /// The ways of the cameras.
    pub attachments: &'a [Attachment],
    /// For each place the cheapest link to where a recorder is reached, and what it costs; none where there is no such link.
    pub link: Vec<Option<(usize, usize, f64)>>,
    /// What each kit costs.
    pub kits: Vec<f64>,
    /// How many cameras there are.
    pub cameras: usize,
    /// The share of ports and power that is left free on new switches.
    pub free: f64,
    /// Whether a box that is there leads to a recorder or must be linked first.
    pub must_open: Vec<bool>,
}

/// A first answer.
#[derive(Clone, Debug, Default)]
pub struct First {
    /// The ways, by their places.
    pub attachments: Vec<usize>,
    /// The links.
    pub links: Vec<usize>,
    /// The kit at each place.
    pub kits: Vec<Option<usize>>,
    /// The boxes that are linked to be used.
    pub used: Vec<bool>,
    /// The cameras that are left.
    pub left: Vec<usize>,
    costs: f64,
}

/// What a camera that is left counts: more than any cable.
const LEFT: f64 = 1e7;

impl Stock<'_> {
    /// The best that is found.
    pub fn first(&self) -> First {
        let count = self.places.len();
        let mut kits: Vec<Option<usize>> = vec![None; count];
        let mut used: Vec<bool> = self.must_open.clone();
        let mut best = self.wired(&kits, &used);
        loop {
            let before = best.costs;
            for p in 0..count {
                let held = (kits[p], used[p]);
                for tried in self.states(p) {
                    (kits[p], used[p]) = tried;
                    let found = self.wired(&kits, &used);
                    if found.costs < best.costs - 1e-9 {
                        best = found;
                    }
                }
                (kits[p], used[p]) = held;
                (kits[p], used[p]) = (best.kits[p], best.used[p]);
            }
            if best.costs >= before - 1e-9 {
                return best;
            }
        }
    }

    /// What can stand at a place.
    fn states(&self, p: usize) -> Vec<(Option<usize>, bool)> {
        match &self.places[p].stands {
            Stands::Free { .. } if self.link[p].is_some() => {
                [None].into_iter().chain((0..KITS.len()).map(Some)).map(|kit| (kit, false)).collect()
            }
            Stands::Box { reached: false, .. } if self.link[p].is_some() && !self.must_open[p] => {
                vec![(None, false), (None, true)]
            }
            _ => vec![(None, self.must_open[p])],
        }
    }

    /// The cameras wired to what is open, the cheapest ways first.
    fn wired(&self, kits: &[Option<usize>], used: &[bool]) -> First {
        let mut first = First { kits: kits.to_vec(), used: used.to_vec(), ..First::default() };
        let mut left: Vec<[f64; 3]> = vec![];
        let mut class = vec![];
        for (p, place) in self.places.iter().enumerate() {
            let (of, highest) = match (&place.stands, kits[p].map(|kit| &KITS[kit])) {
                (Stands::Box { reached: true, .. }, _) => {
                    ([place.left.ports, place.left.watts, place.left.extended], 8)
                }
                (Stands::Box { reached: false, .. }, _) if used[p] => {
                    ([place.left.ports, place.left.watts, place.left.extended], 8)
                }
                (Stands::Free { .. }, Some(kit)) => {
                    let keep = 1.0 - self.free;
                    ([(keep * f64::from(kit.ports) + 1e-9).floor(), keep * kit.budget_w, 0.0], kit.port_class)
                }
                _ => ([0.0; 3], 0),
            };
            left.push(of);
            class.push(highest);
        }
        for p in 0..self.places.len() {
            if kits[p].is_none() && !used[p] {
                continue;
            }
            let Some((link, to, costs)) = self.link[p] else {
                first.costs = f64::INFINITY;
                return first;
            };
            first.links.push(link);
            first.costs += costs + kits[p].map_or(0.0, |kit| self.kits[kit]);
            left[p][0] -= 1.0;
            left[to][0] -= 1.0;
        }
        if left.iter().any(|of| of[0] < 0.0) {
            first.costs = f64::INFINITY;
            return first;
        }
        let done = self.wire_up(&mut first, left, &class);
        first.left = (0..self.cameras).filter(|c| !done[*c]).collect();
        first.costs += LEFT * first.left.len() as f64;
        first
    }

    /// One cable after the other, each time the one that costs least a camera: what is dug already costs nothing more.
    fn wire_up(&self, first: &mut First, mut left: Vec<[f64; 3]>, class: &[u32]) -> Vec<bool> {
        let mut done = vec![false; self.cameras];
        let mut dug: HashSet<usize> = HashSet::new();
        let each = |a: usize, dug: &HashSet<usize>| {
            let way = &self.attachments[a];
            let digs = way.digs.iter().filter(|(leg, _)| !dug.contains(leg)).map(|dig| dig.1).sum::<f64>();
            (way.costs + digs) / way.cameras.len() as f64
        };
        let open = (0..self.attachments.len()).filter(|a| class[self.attachments[*a].place] > 0);
        let mut waiting: Vec<(f64, usize)> = open.map(|a| (each(a, &dug), a)).collect();
        loop {
            waiting.retain(|(_, a)| {
                let way = &self.attachments[*a];
                let [ports, watts, extended] = left[way.place];
                ports >= 1.0
                    && watts >= way.watts
                    && extended >= way.extended
                    && way.class <= class[way.place]
                    && way.cameras.iter().all(|c| !done[*c])
            });
            let Some((costs, a)) = waiting.iter().copied().min_by(|a, b| a.0.total_cmp(&b.0).then(a.1.cmp(&b.1)))
            else {
                return done;
            };
            let way = &self.attachments[a];
            let room = &mut left[way.place];
            *room = [room[0] - 1.0, room[1] - way.watts, room[2] - way.extended];
            way.cameras.iter().for_each(|c| done[*c] = true);
            first.costs += costs * way.cameras.len() as f64;
            first.attachments.push(a);
            let before = dug.len();
            dug.extend(way.digs.iter().map(|dig| dig.0));
            if dug.len() > before {
                waiting.iter_mut().for_each(|(costs, a)| *costs = each(*a, &dug));
            }
        }
    }
}
