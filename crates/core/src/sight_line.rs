//! Sight lines: one head looking at one target, sample by sample.

use crate::aim_slack::aim_slack;
use crate::rules::{self, RuleResult, Rules};
use crate::scene::Near;
use crate::view::{Look, Separation};
use crate::{Angle, Head, Scene, Solid, Target, Verdict};
use glam::DVec3;
use serde::Serialize;
use std::cell::OnceCell;
use utoipa::ToSchema;

/// One head looking at one sample of one target, with what the rules ask about it.
pub(crate) struct Sight<'a> {
    pub head: &'a Head,
    pub target: &'a Target,
    pub rules: &'a Rules,
    scene: &'a Scene,
    /// The solids that this line and those to its corners may meet.
    near: Near<'a>,
    /// The sample.
    pub point: DVec3,
    pub look: Look,
    pub separation: Separation,
    /// Whether nothing opaque is in the way.
    pub clear: bool,
    /// What is in the way first.
    blocker: Option<&'a Solid>,
    /// Whether another part of the target is not even in front of the head.
    partly_behind: bool,
    /// Asked for twice, by the rule and by the report, and costly.
    aim_slack: OnceCell<Angle>,
}

impl<'a> Sight<'a> {
    /// `None` when the point is not in front of the head.
    fn new(head: &'a Head, target: &'a Target, rules: &'a Rules, scene: &'a Scene, point: DVec3) -> Option<Self> {
        let look = head.view.look(point)?;
        let separation = Separation::between(head.position(), point, || head.view.heading());
        let slack = distance_slack(head, target, rules, separation.ground);
        let give = most_off_line(&separation, slack, rules);
        let near = scene.near(head.position(), point, give);
        let blocker = near.first_blocker(head.position(), point).map(|(solid, _)| solid);
        Some(Sight {
            head,
            target,
            rules,
            scene,
            near,
            point,
            look,
            separation,
            clear: blocker.is_none(),
            blocker,
            partly_behind: false,
            aim_slack: OnceCell::new(),
        })
    }

    /// Whether the sample, and with it the target, is in the picture.
    pub fn in_view(&self) -> bool {
        self.look.in_view && !self.partly_behind
    }

    /// The extremes of where the sample may lie as seen from the head: for each of `distances`
    /// (in parts of the stated uncertainty) lower and higher.
    pub fn corners<const N: usize>(&self, distances: [f64; N]) -> impl Iterator<Item = DVec3> {
        let here = self.head.position();
        let towards = self.separation.towards;
        let [low, high] = [-1.0, 1.0].map(|sign| self.point.z + sign * self.rules.uncertainties.height_m);
        distances.into_iter().flat_map(move |part| {
            let flat = here.truncate() + towards * self.ground_off_by(part);
            [flat.extend(low), flat.extend(high)]
        })
    }

    /// The ground distance, m, off by so many parts of its stated uncertainty.
    fn ground_off_by(&self, part: f64) -> f64 {
        let slack = distance_slack(self.head, self.target, self.rules, self.separation.ground);
        (self.separation.ground + part * slack).max(0.0)
    }

    /// Whether nothing is in the way to any corner, as far as the sample's own distance.
    pub fn surely_clear(&self) -> bool {
        let here = self.head.position();
        let ground = self.separation.ground;
        // A line to a farther corner is cut off at the sample's own distance, at the height it has there.
        let heights = [-1.0, 1.0].map(|part| {
            let off = self.ground_off_by(part).max(1e-9);
            [-1.0, 1.0].map(|sign| {
                let end = self.point.z + sign * self.rules.uncertainties.height_m;
                if off > ground { here.z + (end - here.z) * ground / off } else { end }
            })
        });
        let nearer = here.truncate() + self.separation.towards * self.ground_off_by(-1.0);
        self.near.all_clear(here, nearer, &heights[0]) && self.near.all_clear(here, self.point.truncate(), &heights[1])
    }

    /// The smallest pan or tilt error that takes the sample out of the picture.
    pub fn aim_slack(&self) -> Angle {
        let slack = || if self.in_view() { aim_slack(self.head, self.point) } else { Angle::ZERO };
        *self.aim_slack.get_or_init(slack)
    }

    /// The angle between the subject's normal and the line to the camera; `None` for any facing.
    pub fn incidence(&self) -> Option<Angle> {
        let facing = self.target.facing?;
        let normal = DVec3::new(facing.sin(), facing.cos(), 0.0);
        let to_camera = (self.head.position() - self.point).normalize_or_zero();
        Some(Angle::radians(normal.dot(to_camera).clamp(-1.0, 1.0).acos()))
    }
}

/// How far the ground distance from a head to a target may be off, ± m.
fn distance_slack(head: &Head, target: &Target, rules: &Rules, ground: f64) -> f64 {
    rules.uncertainties.distance(&target.distance, head.spot.as_deref(), ground)
}

/// How far above or below the line to the sample, m, the lines to its corners run at most.
fn most_off_line(separation: &Separation, slack: f64, rules: &Rules) -> f64 {
    let nearest = (separation.ground - slack).max(0.0);
    let share = if nearest > 0.0 { slack / nearest } else { 1.0 };
    rules.uncertainties.height_m * (1.0 + share) + separation.drop.abs() * share.min(1.0)
}

/// What one head makes of one sample.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct SampleView {
    pub verdict: Verdict,
    /// The density across, px/m, if the sample is in view and clear.
    pub seen: Option<f64>,
}

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
    /// The target's id.
    pub target: String,
    /// Whether the target is in the picture, all of it.
    pub in_view: bool,
    /// Whether nothing opaque is in the way.
    pub clear: bool,
    /// The id of the first obstacle in the way.
    #[schema(required)]
    pub blocked_by: Option<String>,
    /// The ids of see-through obstacles in the way.
    pub seen_through: Vec<String>,
    /// Where it lands, px right and down from the top-left corner; it may lie outside the picture.
    pub pixel: [f64; 2],
    /// Pixel density across, px/m.
    pub px_per_m: f64,
    /// Pixel density up, px/m.
    pub px_per_m_up: f64,
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
    /// The point that these figures are for, metres east and north.
    pub at: [f64; 2],
    /// How many of the target's samples this head has.
    pub samples: Samples,
    /// What each rule found.
    pub rules: Vec<RuleResult>,
    /// All rules together.
    pub verdict: Verdict,
}

/// A head's sight line to a target with what it makes of each sample.
pub(crate) struct Judged {
    /// `None` when nothing of the target is in front of the head.
    pub line: Option<SightLine>,
    pub samples: Vec<SampleView>,
}

const UNSEEN: SampleView = SampleView { verdict: Verdict::Broken, seen: None };

/// Judges one head against one target.
pub(crate) fn judge(head: &Head, target: &Target, rules: &Rules, scene: &Scene) -> Judged {
    let mut samples = Vec::with_capacity(target.samples.len());
    let mut behind = false;
    let mut deciding: Option<Decider> = None;
    for point in &target.samples {
        let (view, decider) = match_sample(head, target, rules, scene, *point);
        samples.push(view);
        behind |= decider.is_none();
        if let Some(decider) = decider
            && deciding.as_ref().is_none_or(|worst| decider.is_worse_than(worst))
        {
            deciding = Some(decider);
        }
    }
    let line = deciding
        .and_then(|decider| decider.sight.or_else(|| Sight::new(head, target, rules, scene, decider.point)))
        .map(|sight| describe(&Sight { partly_behind: behind, ..sight }, &samples));
    Judged { line, samples }
}

/// A sample that may decide; ordered by how much it does.
struct Decider<'a> {
    point: DVec3,
    /// What was found out about it already.
    sight: Option<Sight<'a>>,
    verdict: Verdict,
    in_view: bool,
    clear: bool,
    /// Breaks ties, greater for the worse: how far away it is, or how few pixels it gets.
    worse: f64,
}

impl Decider<'_> {
    fn is_worse_than(&self, other: &Decider) -> bool {
        let key = |k: &Decider| (k.verdict, !k.in_view, !k.clear);
        match key(self).cmp(&key(other)) {
            std::cmp::Ordering::Equal => self.worse > other.worse,
            order => order.is_gt(),
        }
    }
}

fn match_sample<'a>(
    head: &'a Head,
    target: &'a Target,
    rules: &'a Rules,
    scene: &'a Scene,
    point: DVec3,
) -> (SampleView, Option<Decider<'a>>) {
    let Some(in_view) = head.view.in_front(point) else { return (UNSEEN, None) };
    if !in_view {
        // Broken whatever else holds: what is in the way is asked only of the sample that decides.
        let far = point.distance_squared(head.position());
        let decider = Decider { point, sight: None, verdict: Verdict::Broken, in_view, clear: true, worse: far };
        return (UNSEEN, Some(decider));
    }
    let Some(sight) = Sight::new(head, target, rules, scene, point) else { return (UNSEEN, None) };
    let look = sight.look;
    let verdict = rules::verdict(&sight);
    let seen = sight.clear.then_some(look.across);
    let clear = sight.clear;
    let decider = Decider { point, sight: Some(sight), verdict, in_view: true, clear, worse: -look.across };
    (SampleView { verdict, seen }, Some(decider))
}

/// The sight line as its deciding sample shows it.
fn describe(sight: &Sight, samples: &[SampleView]) -> SightLine {
    let passed = sight.scene.passed(sight.head.position(), sight.point);
    let found = rules::judge(sight);
    let verdict = found.iter().map(|result| result.verdict).max().unwrap_or(Verdict::Unknown);
    SightLine {
        camera: sight.head.camera_id.clone(),
        head: sight.head.id.clone(),
        target: sight.target.id.clone(),
        in_view: sight.in_view(),
        clear: sight.clear,
        blocked_by: sight.blocker.map(|solid| solid.id.clone()),
        seen_through: passed.iter().map(|solid| solid.id.clone()).collect(),
        pixel: sight.look.pixel.to_array(),
        px_per_m: sight.look.across,
        px_per_m_up: sight.look.up,
        ground_m: sight.separation.ground,
        slant_m: sight.separation.slant(),
        depression_deg: sight.separation.depression().deg(),
        incidence_deg: sight.incidence().map(Angle::deg),
        aim_slack_deg: sight.aim_slack().deg(),
        at: [sight.point.x, sight.point.y],
        samples: Samples {
            all: samples.len(),
            seen: samples.iter().filter(|sample| sample.seen.is_some()).count(),
            kept: samples.iter().filter(|sample| sample.verdict == Verdict::Kept).count(),
        },
        rules: found,
        verdict,
    }
}

/// Whether a head keeps a target, all of it: the verdict of [`judge`] without the report.
pub(crate) fn keeps(head: &Head, target: &Target, rules: &Rules, scene: &Scene) -> bool {
    target.samples.iter().all(|point| match_sample(head, target, rules, scene, *point).0.verdict == Verdict::Kept)
}

/// The rules that do not hold at worst at some sample in front of the head.
pub(crate) fn not_kept(head: &Head, target: &Target, rules: &Rules, scene: &Scene) -> Vec<rules::RuleName> {
    let sights = target.samples.iter().filter_map(|point| Sight::new(head, target, rules, scene, *point));
    sights
        .flat_map(|sight| rules::judge(&sight))
        .filter(|result| result.verdict != Verdict::Kept)
        .map(|result| result.rule)
        .collect()
}
