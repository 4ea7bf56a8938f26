//! A plate on the move: where along its way a head reads it (handbook, section 10).

use crate::judge::rules::{self, InZone, pixel_density, plate_side, plate_vertical};
use crate::judge::sight::{Sight, Viewer};
use crate::judge::zone::{Zone, told_with};
use crate::judge::zone_light::ZoneLight;
use crate::site::{Lane, Run, Target};
use crate::verdict::{RuleResult, Verdict};
use glam::DVec3;

/// Every so many samples of a zone are held against all that is uncertain: half a metre.
const SURE_STEP: usize = 5;

/// What a head makes of a plate's way.
#[derive(Clone, Debug, Default, PartialEq)]
pub(crate) struct OfLane {
    /// Where it reads.
    pub zone: Option<Zone>,
    /// How well it keeps the overview of the vehicle, at the half-metres of the way; empty where it sees none of it, or nobody asked.
    pub overview: Vec<Verdict>,
    /// How many samples of the way it has in view and clear.
    pub seen: usize,
    /// The sample that is nearest to reading where none does.
    pub nearest: Option<usize>,
}

/// Looks along a plate's way.
pub(crate) fn look_along_lane(viewer: Viewer, target: &Target, lane: &Lane) -> OfLane {
    let mut of = OfLane::default();
    let mut longest: Option<Run> = None;
    let mut run: Option<usize> = None;
    let mut nearest: Option<(f64, usize)> = None;
    for place in 0..lane.samples.len() {
        if viewer.patience.is_over() {
            return OfLane::default();
        }
        let looked = lane.heights(place).map(|point| match viewer.head.in_front(point) {
            Some(true) => reads(&Sight::on_lane_at(viewer, target, lane, (place, point), true)),
            _ => Reads::default(),
        });
        let looked = looked.reduce(Reads::both).unwrap_or_default();
        of.seen += usize::from(looked.seen);
        if looked.seen && nearest.is_none_or(|(so_far, _)| looked.share > so_far) {
            nearest = Some((looked.share, place));
        }
        run = if looked.reads { run.or(Some(place)) } else { None };
        if let Some(first) = run
            && longest.is_none_or(|[from, to]| place - first > to - from)
            && goes_through(lane, [first, place])
        {
            longest = Some([first, place]);
        }
    }
    of.nearest = nearest.map(|(_, place)| place);
    of.zone = longest.map(|stated| Zone { stated, sure: sure_run(viewer, target, lane, stated) });
    of
}

/// What a head makes of one sample of the way.
#[derive(Clone, Copy, Default)]
struct Reads {
    /// Whether every geometric rule holds as stated.
    reads: bool,
    /// Whether the whole plate is in the picture and clear.
    seen: bool,
    /// How much of the density that it needs it gets.
    share: f64,
}

impl Reads {
    /// What it makes of two plates at different heights.
    fn both(self, other: Reads) -> Reads {
        Reads { reads: self.reads && other.reads, seen: self.seen && other.seen, share: self.share.min(other.share) }
    }
}

/// In the picture with the whole plate, clear, dense enough across × cos of the side angle, at both plate angles, not masked.
fn reads(sight: &Sight) -> Reads {
    if !sight.in_view() || !sight.clear() {
        return Reads::default();
    }
    let density = pixel_density::value(sight).unwrap_or(0.0);
    let angle = |found: Option<RuleResult>| found.is_some_and(|found| found.verdict <= Verdict::Tight);
    let masked = || rules::masked::judge(sight).is_some_and(|found| found.verdict == Verdict::Broken);
    let share = density / sight.target.need.px_per_m;
    let reads = share >= 1.0 && angle(plate_side::judge(sight)) && angle(plate_vertical::judge(sight)) && !masked();
    Reads { reads, seen: true, share }
}

/// The longest part of a run at which all rules hold at worst.
fn sure_run(viewer: Viewer, target: &Target, lane: &Lane, [from, to]: Run) -> Option<Run> {
    let mut longest: Option<Run> = None;
    let mut run: Option<usize> = None;
    for place in checked([from, to]) {
        let kept = lane.heights(place).all(|point| {
            rules::geometric(&Sight::on_lane_at(viewer, target, lane, (place, point), true)) == Verdict::Kept
        });
        run = if kept { run.or(Some(place)) } else { None };
        if let Some(first) = run
            && longest.is_none_or(|[from, to]| place - first > to - from)
            && goes_through(lane, [first, place])
        {
            longest = Some([first, place]);
        }
    }
    longest
}

/// Whether a run goes through the point at which the plate must read.
fn goes_through(lane: &Lane, [from, to]: Run) -> bool {
    lane.through.is_none_or(|through| (from..=to).contains(&through))
}

/// The samples of a run that are held against all that is uncertain.
fn checked([from, to]: Run) -> impl Iterator<Item = usize> {
    let last = (!(to - from).is_multiple_of(SURE_STEP)).then_some(to);
    (from..=to).step_by(SURE_STEP).chain(last)
}

impl OfLane {
    /// The sample that tells most: of where it surely reads the one with the fewest pixels, else of where it reads, else the one that
    /// is nearest to reading.
    pub fn telling(&self, viewer: Viewer, lane: &Lane) -> Option<usize> {
        let Some(zone) = self.zone else { return lane.through.or(self.nearest) };
        if lane.through.is_some() {
            return lane.through;
        }
        let across = |place: &usize| viewer.head.view().across_at(lane.samples[*place]);
        checked(zone.sure.unwrap_or(zone.stated)).min_by(|a, b| across(a).total_cmp(&across(b)))
    }

    /// The verdict over all rules.
    pub fn verdict(&self, viewer: Viewer, target: &Target, lane: &Lane) -> Verdict {
        let (Some(zone), Some(telling)) = (self.zone, self.telling(viewer, lane)) else { return Verdict::Broken };
        let there = lane
            .heights(telling)
            .map(|point| rules::verdict(&Sight::on_lane_at(viewer, target, lane, (telling, point), true).in_zone()));
        let there = there.max().unwrap_or(Verdict::Broken);
        lane_rules(viewer, target, lane, zone).into_iter().map(|found| found.verdict).fold(there, Verdict::max)
    }

    /// How well the overview is kept where somebody reads.
    pub fn overview_over(&self, vehicle: &Target, lane: &Lane, zone: Zone) -> Verdict {
        if self.overview.is_empty() {
            return Verdict::Broken;
        }
        let near = |from: DVec3, place: usize| vehicle.samples[place].truncate().distance(from.truncate());
        let nearest = |sample: usize| {
            let at = lane.samples[sample];
            (0..vehicle.samples.len()).min_by(|a, b| near(at, *a).total_cmp(&near(at, *b)))
        };
        let places = zone.stated.map(nearest);
        let [Some(from), Some(to)] = places else { return Verdict::Broken };
        self.overview[from.min(to)..=from.max(to)].iter().copied().max().unwrap_or(Verdict::Broken)
    }
}

/// What the rules of a zone find.
pub(crate) fn lane_rules(viewer: Viewer, target: &Target, lane: &Lane, zone: Zone) -> Vec<RuleResult> {
    let light = ZoneLight::of(viewer, target, lane, zone.stated);
    let told = told_with(viewer, target, lane, zone, light.as_ref());
    rules::judge_zone(&InZone::new(viewer, lane, told, light))
}

/// So many samples of a plate's way cost about as much as a look at one with all that is uncertain.
pub(crate) const SAMPLES_A_LOOK: usize = 8;
