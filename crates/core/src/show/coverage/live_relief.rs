//! A relief that follows a session: after a change only the layers that it touches are worked out again, one a step, so that
//! whoever works it out can stop between any two.

use crate::file::{Fault, HeadRef};
use crate::judge::session::Delta;
use crate::math::Grid;
use crate::show::coverage::relief::Relief;
use crate::site::{Head, Site};
use glam::DVec3;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The most cells that are worked out at once.
const MOST_CELLS: f64 = 4_000_000.0;

/// Bounds and cells of a relief, m.
#[derive(Clone, Copy, Debug, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ReliefWish {
    /// Western bound, m.
    pub west: f64,
    /// Southern bound, m.
    pub south: f64,
    /// Eastern bound, m.
    pub east: f64,
    /// Northern bound, m.
    pub north: f64,
    /// Side of a cell, m.
    pub cell: f64,
    /// The height that is looked at, m.
    pub height: f64,
}

impl ReliefWish {
    /// The grid that it asks for.
    ///
    /// # Errors
    /// Bounds that enclose nothing, or too many cells.
    pub fn grid(&self) -> Result<Grid, Fault> {
        let [width, depth] = [self.east - self.west, self.north - self.south];
        if !(width > 0.0 && depth > 0.0 && self.cell > 0.0 && self.height.is_finite()) {
            return Err(Fault::new("relief", "bounds enclose something, and cells have a side"));
        }
        let cells = (width / self.cell).ceil() * (depth / self.cell).ceil();
        if cells > MOST_CELLS {
            return Err(Fault::new("cell", format!("makes {cells} cells, more than {MOST_CELLS}")));
        }
        Ok(Grid::over([self.west, self.south, self.east, self.north], self.cell))
    }
}

/// Which of several that share the work this one is: it takes the heads `hand`, `hand + hands`, ….
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Share {
    /// Which one, from 0.
    pub hand: usize,
    /// How many there are.
    pub hands: usize,
}

impl Share {
    /// All heads.
    pub const WHOLE: Share = Share { hand: 0, hands: 1 };

    fn takes(self, place: usize) -> bool {
        place % self.hands.max(1) == self.hand
    }
}

/// The relief of every so many heads of a site, kept up with its changes.
#[derive(Clone, Debug)]
pub struct LiveRelief {
    relief: Relief,
    /// Which heads' layers are out of date, by place.
    stale: Vec<bool>,
    /// The names of the heads, to see when one comes or goes.
    names: Vec<HeadRef>,
    share: Share,
}

impl LiveRelief {
    /// A relief of a share of the heads of a site, nothing of it worked out yet.
    pub fn new(site: &Site, grid: Grid, height: f64, share: Share) -> Self {
        let heads = site.heads().len();
        let names = names(site);
        let stale = (0..heads).map(|place| share.takes(place)).collect();
        LiveRelief { relief: Relief::empty(grid, height, heads), stale, names, share }
    }

    /// The relief as far as it is worked out.
    pub fn relief(&self) -> &Relief {
        &self.relief
    }

    /// Whether it is of this grid and height, and of this share.
    pub fn is_of(&self, grid: &Grid, height: f64, share: Share) -> bool {
        self.relief.grid() == grid && self.relief.height() == height && self.share == share
    }

    /// Marks what a change of the site put out of date.
    pub fn changed(&mut self, site: &Site, delta: &Delta) {
        if self.names != names(site) {
            *self = LiveRelief::new(site, *self.relief.grid(), self.relief.height(), self.share);
            return;
        }
        for (place, head) in site.heads().iter().enumerate().filter(|(place, _)| self.share.takes(*place)) {
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
