//! Sight lines: one head looking at one target, sample by sample.

use crate::judge::lane::{OfLane, SAMPLES_A_LOOK, lane_rules, look_along_lane};
use crate::judge::rules;
use crate::judge::sight::{Sight, Viewer, run_volume};
use crate::judge::unseen::{Unseen, hidden_on, unseen};
use crate::judge::zone::{ZoneTold, told};
use crate::math::Angle;
use crate::site::{Head, Lane, Target};
use crate::verdict::{RuleName, RuleResult, Verdict};
use glam::DVec3;
use serde::Serialize;
use utoipa::ToSchema;

/// What one head makes of one sample.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct SampleView {
    pub verdict: Verdict,
    /// The density across, px/m, if what counts at the sample is in view and clear.
    pub seen: Option<f64>,
}

pub(crate) const UNSEEN: SampleView = SampleView { verdict: Verdict::Broken, seen: None };

/// How many of a target's samples a head has.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, ToSchema)]
pub struct Samples {
    /// All of them.
    pub all: usize,
    /// In view and clear.
    pub seen: usize,
    /// Kept.
    pub kept: usize,
}

/// One head looking at one target. For a line or area the figures are those of the sample that
/// decides: the one with the worst verdict; of those the farthest one out of the picture, then one that is
/// blocked, then the one with the least density.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SightLine {
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// The id of the preset that it is of; null for a head's own aim.
    #[schema(required)]
    pub preset: Option<String>,
    /// The id of the flattened view that it is of; null for the round picture and every other.
    #[schema(required)]
    pub flattened: Option<String>,
    /// The target's id.
    pub target: String,
    /// Whether the target's points are in the picture, all of them.
    pub in_view: bool,
    /// Whether nothing opaque is in the way to the point that these figures are for.
    pub clear: bool,
    /// The share of the subject that is hidden there, 0 to 1; the rule `clear` judges it.
    pub hidden_share: f64,
    /// How much of a line or an area this head does not see; null for a point, and where it sees no sample of it.
    #[schema(required)]
    pub unseen: Option<Unseen>,
    /// The id of the first obstacle in the way.
    #[schema(required)]
    pub blocked_by: Option<String>,
    /// The ids of see-through obstacles in the way.
    pub seen_through: Vec<String>,
    /// The ids of obstacles that are not in the way as stated, but may be over what is uncertain: why `clear` is tight.
    pub may_hide: Vec<String>,
    /// Where it lands, px right and down from the top-left corner; it may lie outside the picture.
    pub pixel: [f64; 2],
    /// Pixel density across, px/m; null out of the picture.
    #[schema(required)]
    pub px_per_m: Option<f64>,
    /// Pixel density up, px/m; null out of the picture.
    #[schema(required)]
    pub px_per_m_up: Option<f64>,
    /// Ground distance, m.
    pub ground_m: f64,
    /// Slant distance, m.
    pub slant_m: f64,
    /// Angle below the horizontal from head to target, degrees.
    pub depression_deg: f64,
    /// Angle between the subject's normal and the line to the camera, degrees; null for any facing.
    #[schema(required)]
    pub incidence_deg: Option<f64>,
    /// The smallest single pan or tilt error that takes it out of the picture, degrees.
    pub aim_slack_deg: f64,
    /// Where a plate on the move reads; null for any other target, and where it does not.
    #[schema(required)]
    pub zone: Option<ZoneTold>,
    /// The point that these figures are for, metres east and north.
    pub at: [f64; 2],
    /// How many of the target's samples this head has.
    pub samples: Samples,
    /// What each rule found.
    pub rules: Vec<RuleResult>,
    /// All rules together.
    pub verdict: Verdict,
}

/// What a head makes of a target: each sample, each stretch between two of them, and what decides. Words come only when it
/// is described.
#[derive(Clone, Debug, Default, PartialEq)]
pub(crate) struct Judged {
    /// The samples, and after them the runs; empty where none of them is seen.
    parts: Vec<SampleView>,
    pub counts: Samples,
    /// `None` when nothing of the target is in front of the head.
    pub deciding: Option<Deciding>,
    /// What it makes of the way of a plate on the move.
    pub lane: Option<Box<OfLane>>,
}

/// The place that decides a sight line.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct Deciding {
    /// Where it is, m.
    pub point: DVec3,
    /// The verdict of the sight line.
    pub verdict: Verdict,
    /// Whether the target is in the picture, all of it.
    pub in_view: bool,
    pub clear: bool,
    /// Pixel density across, px/m; zero out of the picture.
    pub across: f64,
    /// Breaks ties, greater for the worse: how far away it is, or how few pixels it gets.
    worse: f64,
}

impl Judged {
    /// What the head makes of a sample, or, past the samples, of a run.
    pub fn part(&self, place: usize) -> SampleView {
        self.parts.get(place).copied().unwrap_or(UNSEEN)
    }
}

impl Deciding {
    fn is_worse_than(&self, other: &Deciding) -> bool {
        let key = |k: &Deciding| (k.verdict, !k.in_view, !k.clear);
        match key(self).cmp(&key(other)) {
            std::cmp::Ordering::Equal => self.worse > other.worse,
            order => order.is_gt(),
        }
    }

    /// A sample out of the picture: broken whatever else holds; what is in the way is asked only if it decides.
    fn out_of_picture(point: DVec3, far: f64) -> Self {
        Deciding { point, verdict: Verdict::Broken, in_view: false, clear: true, across: 0.0, worse: far }
    }

    fn worst(so_far: &mut Option<Deciding>, next: Deciding) {
        if so_far.as_ref().is_none_or(|worst| next.is_worse_than(worst)) {
            *so_far = Some(next);
        }
    }
}

/// Judges one head against one target.
pub(crate) fn judge(viewer: Viewer, target: &Target) -> Judged {
    if let Some(lane) = target.moving_lane() {
        return on_its_way(viewer, target, lane);
    }
    let mut judged =
        if out_of_picture(viewer.head, target) { outside(viewer.head, target) } else { looked_at(viewer, target) };
    judged.counts.all = target.samples.len();
    judged
}

/// A plate on the move: it is enough that it reads somewhere on its way, often enough.
fn on_its_way(viewer: Viewer, target: &Target, lane: &Lane) -> Judged {
    let counts = Samples { all: lane.samples.len(), ..Samples::default() };
    let vehicle_out = target.overview.as_ref().is_none_or(|vehicle| out_of_picture(viewer.head, vehicle));
    if vehicle_out && out_of_picture(viewer.head, target) {
        return Judged { counts, ..outside(viewer.head, target) };
    }
    let of = OfLane { overview: overview(viewer, target), ..look_along_lane(viewer, target, lane) };
    let Some(telling) = of.telling(viewer, lane) else {
        let unseen =
            if out_of_picture(viewer.head, target) { outside(viewer.head, target) } else { looked_at(viewer, target) };
        return Judged { counts, deciding: unseen.deciding, lane: Some(Box::new(of)), parts: vec![] };
    };
    let point = lane.samples[telling];
    let across = viewer.head.view().across_at(point);
    let verdict = of.verdict(viewer, target, lane);
    let kept = of.zone.and_then(|zone| zone.sure).map_or(0, |[from, to]| to - from + 1);
    Judged {
        counts: Samples { seen: of.seen, kept, ..counts },
        deciding: Some(Deciding { point, verdict, in_view: true, clear: true, across, worse: -across }),
        lane: Some(Box::new(of)),
        parts: vec![],
    }
}

/// How well a head keeps the vehicle that carries a plate, at the half-metres of its way; empty where it sees none of it.
pub(crate) fn overview(viewer: Viewer, target: &Target) -> Vec<Verdict> {
    let Some(vehicle) = &target.overview else { return vec![] };
    let judged = judge(viewer, vehicle);
    if judged.counts.seen == 0 {
        return vec![];
    }
    (0..vehicle.samples.len()).map(|place| judged.part(place).verdict).collect()
}

/// Whether all of a target lies outside the cone around the picture.
fn out_of_picture(head: &Head, target: &Target) -> bool {
    let cosine = head.view().projection.corner_cosine();
    if cosine <= 0.0 {
        return false;
    }
    let middle = head.view().pose.to_camera(target.middle - head.position());
    // How far the middle lies off the cone, m.
    let off = middle.truncate().length() * cosine - middle.z * (1.0 - cosine * cosine).sqrt();
    off > target.reach * (1.0 + 1e-9) + 1e-9
}

/// A target that is not in the picture at all: the farthest sample in front of the head decides.
fn outside(head: &Head, target: &Target) -> Judged {
    let forward = head.view().pose.forward;
    let mut deciding: Option<Deciding> = None;
    for point in &target.samples {
        let step = *point - head.position();
        if forward.dot(step) > 0.0 {
            Deciding::worst(&mut deciding, Deciding::out_of_picture(*point, step.length_squared()));
        }
    }
    Judged { deciding, ..Judged::default() }
}

fn looked_at(viewer: Viewer, target: &Target) -> Judged {
    let mut judged = Judged::default();
    let mut behind = false;
    let mut any_seen = false;
    judged.parts.reserve_exact(target.samples.len() + target.runs.len());
    for point in &target.samples {
        if viewer.patience.is_over() {
            // Nobody will see what comes of it.
            return Judged::default();
        }
        let (view, deciding) = look_at(viewer, target, *point);
        judged.parts.push(view);
        any_seen |= view != UNSEEN;
        judged.counts.seen += usize::from(view.seen.is_some());
        judged.counts.kept += usize::from(view.verdict == Verdict::Kept);
        behind |= deciding.is_none();
        if let Some(deciding) = deciding {
            Deciding::worst(&mut judged.deciding, deciding);
        }
    }
    if any_seen {
        for [from, to] in &target.runs {
            if viewer.patience.is_over() {
                return Judged::default();
            }
            let ends = [judged.parts[*from], judged.parts[*to]];
            let (view, deciding) = look_along(viewer, target, [target.samples[*from], target.samples[*to]], ends);
            judged.parts.push(view);
            if let Some(deciding) = deciding {
                Deciding::worst(&mut judged.deciding, deciding);
            }
        }
    } else {
        judged.parts = Vec::new();
    }
    if let Some(deciding) = judged.deciding.as_mut().filter(|_| behind) {
        // Another part of the target is not even in front of the head.
        deciding.in_view = false;
        deciding.verdict = Verdict::Broken;
    }
    judged
}

fn look_at(viewer: Viewer, target: &Target, point: DVec3) -> (SampleView, Option<Deciding>) {
    let head = viewer.head;
    let Some(in_view) = head.in_front(point) else { return (UNSEEN, None) };
    if !in_view {
        return (UNSEEN, Some(Deciding::out_of_picture(point, point.distance_squared(head.position()))));
    }
    let sight = Sight::new(viewer, target, point, true);
    let verdict = rules::verdict(&sight);
    let [across, _] = sight.densities();
    let clear = verdict != Verdict::Broken || sight.clear();
    let seen = (clear && sight.in_view()).then_some(across);
    (SampleView { verdict, seen }, Some(Deciding { point, verdict, in_view: true, clear, across, worse: -across }))
}

/// What a head makes of a stretch between two samples, given what it makes of these: what is narrower than the way between
/// them must not slip through. Only a stretch that is worse than both its ends decides anything.
fn look_along(
    viewer: Viewer,
    target: &Target,
    between: [DVec3; 2],
    ends: [SampleView; 2],
) -> (SampleView, Option<Deciding>) {
    let [from, to] = between;
    let verdict = ends[0].verdict.max(ends[1].verdict);
    let (Some(a), Some(b)) = (ends[0].seen, ends[1].seen) else { return (UNSEEN, None) };
    let as_ends = SampleView { verdict, seen: Some(a.min(b)) };
    if verdict == Verdict::Broken || viewer.eye.is_clear(viewer.scene, &run_volume(viewer, target, between)) {
        return (as_ends, None);
    }
    // Something stands near: where just it hides the line, all that counts is judged.
    let mut worst: Option<Deciding> = None;
    for hidden in hidden_on(viewer, from, to) {
        let point = from.lerp(to, 0.5 * (hidden.start + hidden.end));
        if let (_, Some(deciding)) = look_at(viewer, target, point) {
            Deciding::worst(&mut worst, deciding);
        }
    }
    match worst {
        Some(deciding) if deciding.verdict > verdict => {
            let seen = (deciding.in_view && deciding.clear).then_some(deciding.across.min(a).min(b));
            (SampleView { verdict: deciding.verdict, seen }, Some(deciding))
        }
        // Nothing hides it, but it may once things are a little off.
        _ if target.may_be_hidden == 0.0 && verdict == Verdict::Kept => {
            let point = from.lerp(to, 0.5);
            let across = viewer.head.view().across_at(point);
            let tight = Deciding { point, verdict: Verdict::Tight, in_view: true, clear: true, across, worse: -across };
            (SampleView { verdict: Verdict::Tight, ..as_ends }, Some(tight))
        }
        _ => (as_ends, None),
    }
}

/// The sight line as the place that decides shows it; `None` when nothing of the target is in front of the head.
pub(crate) fn describe(viewer: Viewer, target: &Target, judged: &Judged) -> Option<SightLine> {
    let deciding = judged.deciding?;
    let Viewer { head, eye, scene, .. } = viewer;
    let point = deciding.point;
    let look = head.look(point)?;
    let blocker = eye.first_blocker(scene, point);
    let moving = target.moving_lane().zip(judged.lane.as_deref());
    let telling = moving.and_then(|(lane, of)| of.telling(viewer, lane).map(|sample| (lane, sample)));
    let sight = match telling {
        Some((lane, sample)) => Sight::on_lane(viewer, target, lane, sample, look.in_view),
        None => Sight::new(viewer, target, point, look.in_view),
    };
    let zone = moving.and_then(|(lane, of)| of.zone.map(|zone| (lane, zone)));
    // Where it reads, light is judged all over that.
    let sight = if zone.is_some() { sight.in_zone() } else { sight };
    let mut found = rules::judge(&sight);
    found.extend(zone.into_iter().flat_map(|(lane, zone)| lane_rules(viewer, target, lane, zone)));
    if !deciding.in_view {
        // Another part of it is out of the picture, if not this one.
        found.iter_mut().filter(|result| result.rule == RuleName::InView).for_each(|result| {
            result.verdict = Verdict::Broken;
        });
    } else if deciding.verdict == Verdict::Tight && found.iter().all(|result| result.verdict == Verdict::Kept) {
        // Between two samples something stands so near that it may be in the way.
        found.iter_mut().filter(|result| result.rule == RuleName::Clear).for_each(|result| {
            result.verdict = Verdict::Tight;
        });
    }
    let figure = |value: f64| look.in_view.then_some(value);
    let near_by = || eye.in_volume(scene, &sight.whole()).next().map(|solid| solid.id().to_owned());
    let hidden = sight.hidden();
    Some(SightLine {
        camera: head.camera_id().to_owned(),
        head: head.id().to_owned(),
        preset: head.view_id().filter(|_| !head.is_flattened()).map(str::to_owned),
        flattened: head.view_id().filter(|_| head.is_flattened()).map(str::to_owned),
        target: target.id.clone(),
        in_view: deciding.in_view,
        clear: blocker.is_none(),
        hidden_share: hidden,
        zone: zone.map(|(lane, zone)| told(viewer, target, lane, zone)),
        unseen: (judged.counts.seen > 0 && moving.is_none()).then(|| unseen(viewer, target)).flatten(),
        blocked_by: blocker.map(|solid| solid.id().to_owned()).or_else(|| (hidden > 0.0).then(near_by).flatten()),
        seen_through: scene.passed(eye.from(), point).iter().map(|solid| solid.id().to_owned()).collect(),
        may_hide: may_hide(viewer, target, &sight, &found),
        pixel: look.pixel.to_array(),
        px_per_m: figure(look.across),
        px_per_m_up: figure(look.up),
        ground_m: sight.separation.ground,
        slant_m: sight.separation.slant(),
        depression_deg: sight.separation.depression().deg(),
        incidence_deg: sight.incidence().map(Angle::deg),
        aim_slack_deg: sight.aim_slack().deg(),
        at: [point.x, point.y],
        samples: judged.counts,
        verdict: found
            .iter()
            .map(|result| result.verdict)
            .max()
            .unwrap_or(Verdict::Unknown)
            .max(moving.map_or(Verdict::Kept, |_| deciding.verdict)),
        rules: found,
    })
}

/// What makes the rule `clear` tight.
fn may_hide(viewer: Viewer, target: &Target, sight: &Sight, found: &[RuleResult]) -> Vec<String> {
    let tight = |result: &RuleResult| result.rule == RuleName::Clear && result.verdict == Verdict::Tight;
    if !found.iter().any(tight) {
        return vec![];
    }
    let Viewer { eye, scene, .. } = viewer;
    let mut near = eye.all_in_volume(scene, &sight.uncertain());
    if near.is_empty() {
        // It stands between this sample and the next.
        let ends = |run: &&[usize; 2]| run.iter().any(|place| target.samples[*place].distance(sight.point) < 1.0);
        let runs = target.runs.iter().filter(ends);
        near.extend(runs.flat_map(|run| {
            eye.all_in_volume(scene, &run_volume(viewer, target, run.map(|place| target.samples[place])))
        }));
    }
    let mut ids: Vec<String> = near.iter().map(|solid| solid.id().to_owned()).collect();
    ids.dedup();
    ids
}

/// Whether a head keeps a target, all of it: the verdict of [`judge`] without the report. The sample at `first` is looked at
/// first; `go_on` hears of each one looked at and whether it held, and may end it all.
pub(crate) fn keeps(viewer: Viewer, target: &Target, first: usize, go_on: &mut dyn FnMut(usize, bool) -> bool) -> bool {
    if out_of_picture(viewer.head, target) {
        return false;
    }
    if let Some(lane) = target.moving_lane() {
        // A look along the way is many looks at a sample, each a cheap one.
        return (0..=lane.samples.len() / SAMPLES_A_LOOK).all(|_| go_on(first, true))
            && look_along_lane(viewer, target, lane).verdict(viewer, target, lane) == Verdict::Kept;
    }
    let count = target.samples.len();
    let samples = (0..count).map(|i| (first + i) % count).all(|place| {
        let held = look_at(viewer, target, target.samples[place]).0.verdict == Verdict::Kept;
        go_on(place, held) && held
    });
    samples
        && target.runs.iter().all(|[from, to]| {
            let ends = SampleView { verdict: Verdict::Kept, seen: Some(f64::INFINITY) };
            let between = [target.samples[*from], target.samples[*to]];
            go_on(*from, true) && look_along(viewer, target, between, [ends; 2]).0.verdict == Verdict::Kept
        })
}

/// The rules that do not hold at worst at some sample in front of the head.
pub(crate) fn not_kept(viewer: Viewer, target: &Target) -> Vec<RuleName> {
    if target.moving_lane().is_some() {
        let line = describe(viewer, target, &judge(viewer, target));
        let found = line.map(|line| line.rules).unwrap_or_default().into_iter();
        return found.filter(|result| result.verdict != Verdict::Kept).map(|result| result.rule).collect();
    }
    let sights = target.samples.iter().filter_map(|point| {
        let in_view = viewer.head.in_front(*point)?;
        Some(Sight::new(viewer, target, *point, in_view))
    });
    sights
        .flat_map(|sight| rules::judge(&sight))
        .filter(|result| result.verdict != Verdict::Kept)
        .map(|result| result.rule)
        .collect()
}
