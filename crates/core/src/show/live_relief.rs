//! A relief that follows a session: after a change only the layers that it touches are worked out again, one a step, so that
//! whoever works it out can stop between any two.

use crate::file::HeadRef;
use crate::judge::session::Delta;
use crate::math::Grid;
use crate::show::relief::Relief;
use crate::site::{Head, Site};
use glam::DVec3;

/// The relief of every so many heads of a site, kept up with its changes.
#[derive(Clone, Debug)]
pub struct LiveRelief {
    relief: Relief,
    /// Which heads' layers are out of date, by place.
    stale: Vec<bool>,
    /// The names of the heads, to see when one comes or goes.
    names: Vec<HeadRef>,
    hand: usize,
    hands: usize,
}

impl LiveRelief {
    /// A relief of the heads `hand`, `hand + hands`, … of a site, nothing of it worked out yet.
    pub fn new(site: &Site, grid: Grid, height: f64, hand: usize, hands: usize) -> Self {
        let heads = site.heads().len();
        let names = names(site);
        let stale = (0..heads).map(|place| place % hands.max(1) == hand).collect();
        LiveRelief { relief: Relief::empty(grid, height, heads), stale, names, hand, hands }
    }

    /// The relief as far as it is worked out.
    pub fn relief(&self) -> &Relief {
        &self.relief
    }

    /// Whether it is of this grid and height.
    pub fn is_of(&self, grid: &Grid, height: f64) -> bool {
        self.relief.grid() == grid && self.relief.height() == height
    }

    /// Marks what a change of the site put out of date.
    pub fn changed(&mut self, site: &Site, delta: &Delta) {
        if self.names != names(site) {
            *self = LiveRelief::new(site, *self.relief.grid(), self.relief.height(), self.hand, self.hands);
            return;
        }
        for (place, head) in site.heads().iter().enumerate().skip(self.hand).step_by(self.hands.max(1)) {
            let moved = delta.touched.all || delta.touched.cameras.contains(head.camera_id());
            self.stale[place] |= moved || delta.boxes.iter().any(|(lower, upper)| may_see(head, *lower, *upper));
        }
    }

    /// Works out one layer that is out of date; `false` when there is none left.
    pub fn step(&mut self, site: &Site) -> bool {
        let Some(place) = self.stale.iter().position(|stale| *stale) else { return false };
        self.stale[place] = false;
        self.relief.put(site, place);
        true
    }
}

fn names(site: &Site) -> Vec<HeadRef> {
    site.heads().iter().map(Head::name).collect()
}

/// Whether a box may stand in the cone around a head's picture. What shades a point of the picture stands in the cone, because
/// the line to the point runs in it.
fn may_see(head: &Head, lower: DVec3, upper: DVec3) -> bool {
    let cosine = head.view().projection.corner_cosine();
    if cosine <= 0.0 {
        return true;
    }
    let (middle, reach) = ((lower + upper) / 2.0, (upper - lower).length() / 2.0);
    let seen = head.view().pose.to_camera(middle - head.position());
    seen.truncate().length() * cosine - seen.z * (1.0 - cosine * cosine).sqrt() <= reach + 1e-6
}
