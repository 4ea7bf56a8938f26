//! A plate on the move: where along its way a head reads it, and what time, blur, focus and light make of that (handbook, section 10).

use crate::equipment::infrared::stops_across;
use crate::equipment::optics::{Sharp, centring_focus_m};
use crate::judge::Verdict;
use crate::judge::rules::{self, RuleName, RuleResult, pixel_density, plate_angles};
use crate::judge::sight::{Sight, Viewer};
use crate::math::Angle;
use crate::site::{Lane, Target};
use glam::DVec3;
use serde::Serialize;
use std::borrow::Cow;
use utoipa::ToSchema;

/// Every so many samples of a zone are held against all that is uncertain: half a metre.
const SURE_STEP: usize = 5;

/// Samples from the first to the last of a run.
type Run = [usize; 2];

/// Where a head reads a plate on its way.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct Zone {
    /// The longest run of samples at which every geometric rule holds as stated.
    pub stated: Run,
    /// The longest part of it at which they hold at worst.
    pub sure: Option<Run>,
}

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

/// Where along its way a plate reads, and what comes of it. What nobody said enough for is null.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ZoneTold {
    /// Where it begins to read, metres along the way.
    pub from: f64,
    /// Where it ends to.
    pub to: f64,
    /// The least slant distance in it, m.
    pub near_m: f64,
    /// The greatest, m.
    pub far_m: f64,
    /// How long the plate is in it, s; null for one that stands.
    #[schema(required)]
    pub time_s: Option<f64>,
    /// How many pictures are taken of it there.
    #[schema(required)]
    pub looks: Option<f64>,
    /// The shutter that leaves no more blur than is kept, s.
    #[schema(required)]
    pub shutter_wanted_s: Option<f64>,
    /// The worst blur at the shutter that is set, px.
    #[schema(required)]
    pub blur_px: Option<f64>,
    /// The distance that it is, or should be, focused at, m.
    pub focus_m: f64,
    /// What is sharp then.
    #[schema(required)]
    pub sharp: Option<SharpTold>,
    /// By how many stops infrared light differs between the ends.
    pub infrared_stops: f64,
    /// The least height of its characters, px.
    pub char_height_px: f64,
    /// The least width of their strokes, px.
    pub stroke_px: f64,
    /// The least and the greatest width of a plate that a reader should look for, px.
    pub size_window_px: [f64; 2],
    /// The greatest width of the picture there, m.
    pub scene_width_m: f64,
    /// Where it begins and ends, metres east and north, with the corners of the way between.
    pub path: Vec<[f64; 2]>,
    /// The part that reads at worst, metres along the way.
    #[schema(required)]
    pub sure: Option<[f64; 2]>,
    /// The longest part of that which is also sharp, evenly lit and no wider than a lane, metres along the way.
    #[schema(required)]
    pub serves: Option<[f64; 2]>,
    /// The same as a line, metres east and north; empty where there is none.
    pub serves_path: Vec<[f64; 2]>,
}

/// What is sharp.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct SharpTold {
    /// From, m.
    pub near_m: f64,
    /// To, m; null where it goes on without end.
    #[schema(required)]
    pub far_m: Option<f64>,
}

/// Looks along a plate's way.
pub(crate) fn look_along_lane(viewer: Viewer, target: &Target, lane: &Lane) -> OfLane {
    let mut of = OfLane::default();
    let mut longest: Option<Run> = None;
    let mut run: Option<usize> = None;
    let mut nearest: Option<(f64, usize)> = None;
    for (place, point) in lane.samples.iter().enumerate() {
        if viewer.patience.is_over() {
            return OfLane::default();
        }
        let looked = match viewer.head.in_front(*point) {
            Some(true) => reads(&Sight::on_lane(viewer, target, lane, place, true)),
            _ => Reads::default(),
        };
        of.seen += usize::from(looked.seen);
        if looked.seen && nearest.is_none_or(|(so_far, _)| looked.share > so_far) {
            nearest = Some((looked.share, place));
        }
        run = if looked.reads { run.or(Some(place)) } else { None };
        if let Some(first) = run
            && longest.is_none_or(|[from, to]| place - first > to - from)
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

/// In the picture with the whole plate, clear, dense enough across × cos of the side angle, at both plate angles, not masked.
fn reads(sight: &Sight) -> Reads {
    if !sight.in_view() || !sight.clear() {
        return Reads::default();
    }
    let density = pixel_density::value(sight).unwrap_or(0.0);
    let angle = |found: Option<RuleResult>| found.is_some_and(|found| found.verdict <= Verdict::Tight);
    let masked = || rules::masked::judge(sight).is_some_and(|found| found.verdict == Verdict::Broken);
    let share = density / sight.target.need.px_per_m;
    let reads = share >= 1.0 && angle(plate_angles::side(sight)) && angle(plate_angles::vertical(sight)) && !masked();
    Reads { reads, seen: true, share }
}

/// The longest part of a run at which all rules hold at worst.
fn sure_run(viewer: Viewer, target: &Target, lane: &Lane, [from, to]: Run) -> Option<Run> {
    let mut longest: Option<Run> = None;
    let mut run: Option<usize> = None;
    for place in checked([from, to]) {
        let kept = rules::geometric(&Sight::on_lane(viewer, target, lane, place, true)) == Verdict::Kept;
        run = if kept { run.or(Some(place)) } else { None };
        if let Some(first) = run
            && longest.is_none_or(|[from, to]| place - first > to - from)
        {
            longest = Some([first, place]);
        }
    }
    longest
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
        let Some(zone) = self.zone else { return self.nearest };
        let across = |place: &usize| viewer.head.view().across_at(lane.samples[*place]);
        checked(zone.sure.unwrap_or(zone.stated)).min_by(|a, b| across(a).total_cmp(&across(b)))
    }

    /// The verdict over all rules.
    pub fn verdict(&self, viewer: Viewer, target: &Target, lane: &Lane) -> Verdict {
        let (Some(zone), Some(telling)) = (self.zone, self.telling(viewer, lane)) else { return Verdict::Broken };
        let there = rules::verdict(&Sight::on_lane(viewer, target, lane, telling, true));
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

/// The rules that only a plate on the move is held to. Sharpness, infrared light and the width of the picture are asked of the whole
/// zone; where they do not hold all over it, it is enough that all of them hold together on a stretch with enough looks.
pub(crate) fn lane_rules(viewer: Viewer, target: &Target, lane: &Lane, zone: Zone) -> Vec<RuleResult> {
    let told = told(viewer, target, lane, zone);
    let good_looks = told.serves.map_or(0.0, |[from, to]| looks(viewer, lane, to - from));
    let limits = viewer.rules;
    let set = viewer.head.exposure().is_some();
    let on_a_stretch = if !set {
        // Whether there are looks enough nobody can say.
        Verdict::Unknown
    } else if good_looks >= limits.looks_kept {
        Verdict::Kept
    } else if good_looks >= limits.looks_tight {
        Verdict::Tight
    } else {
        Verdict::Broken
    };
    let over_zone = |holds: bool| if holds { Verdict::Kept } else { on_a_stretch };
    let stops_past = told.infrared_stops <= limits.zone_stops;
    let narrow = told.scene_width_m <= limits.lane_width_m;
    let half_stroke = (told.stroke_px / 2.0).max(limits.blur_kept_px);
    let looks_verdict = match told.looks {
        None => Verdict::Unknown,
        Some(_) if good_looks >= limits.looks_kept => Verdict::Kept,
        Some(looks) if looks >= limits.looks_tight => Verdict::Tight,
        Some(_) => Verdict::Broken,
    };
    let blur_verdict = match told.blur_px {
        None => Verdict::Unknown,
        Some(blur) if blur <= limits.blur_kept_px => Verdict::Kept,
        Some(blur) if blur <= half_stroke => Verdict::Tight,
        Some(_) => Verdict::Broken,
    };
    let said = |basis: &'static str| if set { basis } else { NO_EXPOSURE };
    let mut found = vec![
        result(RuleName::Looks, told.looks, set.then_some(good_looks), limits.looks_kept, "looks")
            .past(limits.looks_tight)
            .judged(
                looks_verdict,
                said("at worst only those that are sharp, lit and one lane wide; common practice, no source"),
            ),
        result(RuleName::Blur, told.blur_px, None, limits.blur_kept_px, "px")
            .past(half_stroke)
            .judged(blur_verdict, said("a pixel, tight up to half a stroke; common practice, no source")),
        sharp_rule(viewer, &told, over_zone),
    ];
    if viewer.head.light().beam.is_some() {
        found.push(
            result(RuleName::ZoneInfrared, Some(told.infrared_stops), None, limits.zone_stops, "stops")
                .judged(over_zone(stops_past), if stops_past { WHOLE } else { STRETCH }),
        );
    }
    found.push(
        result(RuleName::LaneWidth, Some(told.scene_width_m), None, limits.lane_width_m, "m")
            .judged(over_zone(narrow), if narrow { WIDTH } else { STRETCH }),
    );
    found
}

const NO_EXPOSURE: &str = "nobody said which shutter, and how many pictures a second";
const WHOLE: &str = "one setting has to serve both ends; common practice, no source";
const WIDTH: &str = "a wider picture invites false reads; common practice, no source";
const STRETCH: &str = "not at both ends of where it reads; judged by the looks on the stretch that is sure, sharp, evenly lit and one lane wide; common practice, no source";

fn sharp_rule(viewer: Viewer, told: &ZoneTold, over_zone: impl Fn(bool) -> Verdict) -> RuleResult {
    let spot = [told.near_m, told.far_m].map(|at| viewer.head.spot_px(told.focus_m, at));
    let spot = spot[0].zip(spot[1]).map(|(near, far)| near.max(far));
    let (verdict, basis) = match told.sharp {
        Some(sharp) => {
            let holds = told.near_m >= sharp.near_m && sharp.far_m.is_none_or(|far| told.far_m <= far);
            let basis = if holds { "depth of field, one pixel, at the widest aperture" } else { STRETCH };
            (over_zone(holds), basis)
        }
        None => (Verdict::Unknown, "the lens does not say its aperture"),
    };
    result(RuleName::Sharp, spot, None, 1.0, "px").judged(verdict, basis)
}

/// The longest stretch, metres along the way, on which a plate surely reads and is sharp, with infrared light that differs little enough
/// and a picture that is narrow enough.
fn serves(viewer: Viewer, lane: &Lane, zone: Zone, sharp: Option<SharpTold>) -> Option<[f64; 2]> {
    let [first, last] = zone.sure?;
    let (head, limits) = (viewer.head, viewer.rules);
    let lit = head.light().beam.is_some();
    let ratio = if lit { 2_f64.powf(limits.zone_stops / 2.0) } else { f64::INFINITY };
    let least_density = head.view().projection.size().x / limits.lane_width_m;
    let slant = |place: usize| lane.samples[place].distance(head.position());
    let good = |place: usize| {
        let at = slant(place);
        let in_focus = sharp.is_none_or(|sharp| at >= sharp.near_m && sharp.far_m.is_none_or(|far| at <= far));
        in_focus && head.view().across_at(lane.samples[place]) >= least_density
    };
    let good: Vec<bool> = (first..=last).map(good).collect();
    let mut best: Option<Run> = None;
    for from in first..=last {
        let (mut near, mut far) = (f64::INFINITY, 0.0_f64);
        for to in from..=last {
            (near, far) = (near.min(slant(to)), far.max(slant(to)));
            if !good[to - first] || far > near * ratio {
                break;
            }
            if best.is_none_or(|[a, b]| to - from > b - a) {
                best = Some([from, to]);
            }
        }
        if best.is_some_and(|[a, b]| last - from <= b - a) {
            break;
        }
    }
    best.map(|run| run.map(|place| lane.along[place]))
}

fn result(rule: RuleName, value: Option<f64>, worst: Option<f64>, limit: f64, unit: &'static str) -> RuleResult {
    let basis = Cow::Borrowed("");
    RuleResult { rule, value, worst, limit: Some(limit), broken_past: None, unit, verdict: Verdict::Unknown, basis }
}

impl RuleResult {
    fn past(self, broken_past: f64) -> Self {
        RuleResult { broken_past: Some(broken_past), ..self }
    }

    fn judged(self, verdict: Verdict, basis: &'static str) -> Self {
        RuleResult { verdict, basis: Cow::Borrowed(basis), ..self }
    }
}

/// So many samples of a plate's way cost about as much as a look at one with all that is uncertain.
pub(crate) const SAMPLES_A_LOOK: usize = 8;

/// How many pictures are taken while the plate goes so many metres.
pub(crate) fn looks(viewer: Viewer, lane: &Lane, length: f64) -> f64 {
    let fps = viewer.head.exposure().map_or(0.0, |exposure| exposure.fps);
    // A figure that should be whole is not lost to a rounding.
    (fps * length / lane.speed * (1.0 + 1e-12)).floor()
}

/// What a zone comes to.
pub(crate) fn told(viewer: Viewer, target: &Target, lane: &Lane, zone: Zone) -> ZoneTold {
    let head = viewer.head;
    let [from, to] = zone.stated;
    let mut near_m = f64::INFINITY;
    let mut far_m = 0.0_f64;
    let (mut speed_px, mut across_least, mut up_least) = (0.0_f64, f64::INFINITY, f64::INFINITY);
    let (mut plate_least, mut plate_most) = (f64::INFINITY, 0.0_f64);
    let eye = head.position();
    let view = head.view();
    for place in from..=to {
        let point = lane.samples[place];
        let slant = point.distance(eye);
        (near_m, far_m) = (near_m.min(slant), far_m.max(slant));
        let moves = (lane.travel[place] * lane.speed).extend(0.0);
        let direction = view.pose.to_camera(point - eye);
        speed_px = speed_px.max(view.projection.pixel_velocity(direction, view.pose.to_camera(moves)).length());
        if let Some(look) = head.look(point) {
            across_least = across_least.min(look.across);
            up_least = up_least.min(look.up);
            let wide = look.across * turned(lane, place, eye, target.facing) * lane.size.x;
            (plate_least, plate_most) = (plate_least.min(wide), plate_most.max(wide));
        }
    }
    let exposure = head.exposure();
    let length = lane.along[to] - lane.along[from];
    let moves = lane.speed > 0.0;
    let focus_m = exposure.and_then(|exposure| exposure.focus_m).unwrap_or(centring_focus_m(near_m, far_m));
    let sharp = head.sharp_at(focus_m).map(|Sharp { near_m, far_m }| SharpTold { near_m, far_m });
    let serves = serves(viewer, lane, zone, sharp);
    ZoneTold {
        from: lane.along[from],
        to: lane.along[to],
        near_m,
        far_m,
        time_s: moves.then(|| length / lane.speed),
        looks: exposure.filter(|_| moves).map(|_| looks(viewer, lane, length)),
        shutter_wanted_s: (speed_px > 0.0).then(|| viewer.rules.blur_kept_px / speed_px),
        blur_px: exposure.map(|exposure| speed_px * exposure.shutter_s),
        focus_m,
        sharp,
        infrared_stops: stops_across(near_m, far_m),
        char_height_px: up_least * lane.plate.character_m,
        stroke_px: across_least * lane.plate.stroke_m,
        size_window_px: [0.9 * plate_least, 1.1 * plate_most],
        scene_width_m: view.projection.size().x / across_least,
        path: path(lane, zone.stated),
        sure: zone.sure.map(|[from, to]| [lane.along[from], lane.along[to]]),
        serves,
        serves_path: serves.map_or(vec![], |ends| path(lane, ends.map(|end| sample_at(lane, end)))),
    }
}

/// How much of its width a plate shows at a sample.
fn turned(lane: &Lane, place: usize, eye: DVec3, facing: Option<Angle>) -> f64 {
    let facing = facing.unwrap_or_else(|| lane.facing(place, eye.truncate()));
    let to_camera = (eye - lane.samples[place]).truncate().normalize_or_zero();
    (facing.sin() * to_camera.x + facing.cos() * to_camera.y).max(0.0)
}

/// The sample nearest to so many metres along the way.
fn sample_at(lane: &Lane, along: f64) -> usize {
    lane.along.partition_point(|at| *at < along - 1e-9).min(lane.along.len() - 1)
}

/// The ends of a run, with the corners of the way between.
fn path(lane: &Lane, [from, to]: Run) -> Vec<[f64; 2]> {
    let corner = |place: &usize| *place == from || *place == to || lane.travel[*place] != lane.travel[*place - 1];
    (from..=to).filter(corner).map(|place| lane.samples[place].truncate().to_array()).collect()
}
