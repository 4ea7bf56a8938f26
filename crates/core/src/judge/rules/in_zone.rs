//! What the rules of a plate on the move are asked about: where it reads, and the stretch of that on which all of it holds together.

use crate::judge::sight::Viewer;
use crate::judge::zone::{ZoneTold, looks, looks_at_worst, sample_at};
use crate::judge::zone_light::ZoneLight;
use crate::light::Lit;
use crate::site::{Lane, Run};
use crate::verdict::Verdict;

/// A zone under judgement. Sharpness, infrared light, light and the width of the picture are asked of the whole zone; where they do not hold
/// all over it, it is enough that all of them hold together on a stretch with enough looks.
pub(crate) struct InZone<'a> {
    pub viewer: Viewer<'a>,
    pub told: ZoneTold,
    /// By night, the light on it.
    pub light: Option<ZoneLight>,
    /// How many pictures are taken on the stretch where all holds, at worst of a tour.
    pub good_looks: f64,
    /// How many are taken where it is well lit as stated.
    pub lit_looks: f64,
    /// Whether it goes through a point, where it must read: there is no way whose ends differ.
    pub through_a_point: bool,
    /// The samples of the stretch where all holds.
    serves: Option<Run>,
}

/// Why a rule holds on a stretch only.
pub(super) const STRETCH: &str = "not at both ends of where it is readable; judged by the pictures on the stretch that is read reliably; common practice, no source";

impl<'a> InZone<'a> {
    pub fn new(viewer: Viewer<'a>, lane: &Lane, told: ZoneTold, light: Option<ZoneLight>) -> Self {
        let long = |stretch: Option<[f64; 2]>| stretch.map_or(0.0, |[from, to]| to - from);
        let lit = if light.is_some() { long(told.lit) } else { told.to - told.from };
        InZone {
            good_looks: looks_at_worst(viewer, lane, long(told.serves)),
            lit_looks: looks(viewer, lane, lit),
            serves: told.serves.map(|ends| ends.map(|end| sample_at(lane, end))),
            through_a_point: lane.through.is_some(),
            viewer,
            told,
            light,
        }
    }

    /// Whether somebody said how many pictures a second.
    pub fn is_set(&self) -> bool {
        self.viewer.head.exposure().is_some()
    }

    /// The basis of what hangs on that.
    pub(super) fn said(&self, basis: &'static str) -> &'static str {
        if self.is_set() { basis } else { "neither shutter nor frame rate is stated" }
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

    /// What a rule of light comes to: kept where it holds all over the zone; else the looks decide, at worst and as stated.
    pub(super) fn lit(&self, rule: impl Fn(&Lit) -> Verdict) -> Verdict {
        let Some(light) = &self.light else { return Verdict::Kept };
        let limits = self.viewer.rules;
        let found: Vec<Verdict> = light.all().iter().map(rule).collect();
        let (best, worst) = (found.iter().min(), found.iter().max());
        match () {
            () if worst == Some(&Verdict::Kept) => Verdict::Kept,
            () if best == Some(&Verdict::Broken) => Verdict::Broken,
            () if !self.is_set() || found.contains(&Verdict::Unknown) => Verdict::Unknown,
            () if self.good_looks >= limits.looks_kept => Verdict::Kept,
            () if self.lit_looks >= limits.looks_tight => Verdict::Tight,
            () => Verdict::Broken,
        }
    }

    /// The light of the samples that count: those of the stretch where all holds, and where there is none, of the whole zone.
    pub(super) fn counted(&self) -> &[Lit] {
        match (&self.light, self.serves) {
            (Some(light), Some(run)) => light.within(run),
            (Some(light), None) => light.all(),
            (None, _) => &[],
        }
    }

    /// As stated and at worst, over the stretch where all holds; where there is none, what comes nearest to it.
    pub(super) fn figures(
        &self,
        of: impl Fn(&Lit) -> [Option<f64>; 2],
        worst: fn(f64, f64) -> f64,
        nearest: fn(f64, f64) -> f64,
    ) -> [Option<f64>; 2] {
        let fold = if self.serves.is_some() { worst } else { nearest };
        [0, 1].map(|place| self.counted().iter().filter_map(|lit| of(lit)[place]).reduce(fold))
    }
}
