//! What the rules of a plate on the move are asked about: where it reads, and the stretch of that on which all of it holds together.

use crate::judge::sight::Viewer;
use crate::judge::zone::{ZoneTold, looks};
use crate::site::Lane;
use crate::verdict::Verdict;

/// A zone under judgement. Sharpness, infrared light and the width of the picture are asked of the whole zone; where they do not hold all
/// over it, it is enough that all of them hold together on a stretch with enough looks.
pub(crate) struct InZone<'a> {
    pub viewer: Viewer<'a>,
    pub told: ZoneTold,
    /// How many pictures are taken on the stretch where all holds.
    pub good_looks: f64,
}

/// Why a rule holds on a stretch only.
pub(super) const STRETCH: &str = "not at both ends of where it reads; judged by the looks on the stretch that is sure, sharp, evenly lit and one lane wide; common practice, no source";

impl<'a> InZone<'a> {
    pub fn new(viewer: Viewer<'a>, lane: &Lane, told: ZoneTold) -> Self {
        let good_looks = told.serves.map_or(0.0, |[from, to]| looks(viewer, lane, to - from));
        InZone { viewer, told, good_looks }
    }

    /// Whether somebody said which shutter, and how many pictures a second.
    pub fn is_set(&self) -> bool {
        self.viewer.head.exposure().is_some()
    }

    /// The basis of what hangs on that.
    pub(super) fn said(&self, basis: &'static str) -> &'static str {
        if self.is_set() { basis } else { "nobody said which shutter, and how many pictures a second" }
    }

    /// What holds all over the zone is kept; else the looks on the stretch decide.
    pub(super) fn over(&self, holds: bool) -> Verdict {
        let limits = self.viewer.rules;
        match () {
            () if holds => Verdict::Kept,
            // Whether there are looks enough nobody can say.
            () if !self.is_set() => Verdict::Unknown,
            () if self.good_looks >= limits.looks_kept => Verdict::Kept,
            () if self.good_looks >= limits.looks_tight => Verdict::Tight,
            () => Verdict::Broken,
        }
    }
}
