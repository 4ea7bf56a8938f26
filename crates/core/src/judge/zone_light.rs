//! The light on a plate on the move by night, at each sample of where it reads.

use crate::judge::lit::lit_among;
use crate::judge::sight::{Sight, Viewer};
use crate::light::Lit;
use crate::site::{Lane, Run, Target};
use crate::verdict::Verdict;

/// The light at each sample of a run.
#[derive(Clone, Debug, PartialEq)]
pub(crate) struct ZoneLight {
    first: usize,
    /// For each sample that of each height at which plates sit.
    of: Vec<Lit>,
    heights: usize,
}

impl ZoneLight {
    /// The light along a run of a plate's way; none by day.
    pub fn of(viewer: Viewer, target: &Target, lane: &Lane, [from, to]: Run) -> Option<ZoneLight> {
        let lamps = viewer.lamps?;
        let at = |place: usize| lane.heights(place).map(move |point| (place, point));
        let lit = |at| lit_among(&Sight::on_lane_at(viewer, target, lane, at, true), lamps);
        let of: Vec<Lit> = (from..=to).flat_map(at).map(lit).collect();
        Some(ZoneLight { first: from, heights: of.len() / (to - from + 1), of })
    }

    /// The light at each sample of it that lies in a run.
    pub fn within(&self, [from, to]: Run) -> &[Lit] {
        &self.of[(from - self.first) * self.heights..(to + 1 - self.first) * self.heights]
    }

    /// The light at all of them.
    pub fn all(&self) -> &[Lit] {
        &self.of
    }

    /// How a sample is lit: enough, and not over so many times what is needed. Unknown counts as lit, what it is the rules say.
    pub fn stands(&self, place: usize, most: f64) -> Verdict {
        let known = |verdict: Verdict| if verdict == Verdict::Unknown { Verdict::Kept } else { verdict };
        let stands = |lit: &Lit| known(lit.enough()).max(known(lit.not_over(most)));
        self.within([place, place]).iter().map(stands).max().unwrap_or(Verdict::Broken)
    }
}
