//! Sight lines: one head looking at one target, sample by sample.

use crate::file::Rules;
use crate::judge::Verdict;
use crate::judge::aim_slack::aim_slack;
use crate::judge::rules::{self, RuleResult};
use crate::math::{Angle, Separation};
use crate::scene::{Eye, Scene};
use crate::site::{Head, Target};
use glam::DVec3;
use serde::Serialize;
use std::cell::OnceCell;
use utoipa::ToSchema;

/// A head that looks, what stands around it, and the rules that hold.
#[derive(Clone, Copy)]
pub(crate) struct Viewer<'a> {
    pub head: &'a Head,
    pub eye: &'a Eye,
    pub scene: &'a Scene,
    pub rules: &'a Rules,
}

/// One head looking at one sample of one target, with what the rules ask about it.
pub(crate) struct Sight<'a> {
    pub head: &'a Head,
    pub target: &'a Target,
    pub rules: &'a Rules,
    viewer: Viewer<'a>,
    /// The sample.
    pub point: DVec3,
    /// Pixel density across at the sample, px/m.
    pub across: f64,
    pub separation: Separation,
    /// How far the ground distance may be off, ± m.
    slack: f64,
    in_view: bool,
    /// Whether nothing opaque is in the way.
    pub clear: bool,
    /// Asked for twice, by the rule and by the report, and costly.
    aim_slack: OnceCell<Angle>,
}

impl<'a> Sight<'a> {
    /// A sample that lies in front of the head, with its density across, px/m.
    fn new(viewer: Viewer<'a>, target: &'a Target, point: DVec3, across: f64, in_view: bool, clear: bool) -> Self {
        let Viewer { head, rules, .. } = viewer;
        let separation = Separation::between(head.position(), point, || head.view().heading());
        Sight {
            head,
            target,
            rules,
            viewer,
            point,
            across,
            slack: rules.uncertainties.distance(&target.distance, head.spot(), separation.ground),
            separation,
            in_view,
            clear,
            aim_slack: OnceCell::new(),
        }
    }

    /// Whether the sample, and with it the target, is in the picture.
    pub fn in_view(&self) -> bool {
        self.in_view
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
        (self.separation.ground + part * self.slack).max(0.0)
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
        let Viewer { eye, scene, .. } = self.viewer;
        eye.all_clear(scene, here, nearer, &heights[0])
            && eye.all_clear(scene, here, self.point.truncate(), &heights[1])
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

/// What one head makes of one sample.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct SampleView {
    pub verdict: Verdict,
    /// The density across, px/m, if the sample is in view and clear.
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

/// What a head makes of a target: each sample, and which of them decides. Words come only when it is described.
#[derive(Clone, Debug, Default, PartialEq)]
pub(crate) struct Judged {
    /// The samples; empty where none of them is in the picture.
    samples: Vec<SampleView>,
    pub counts: Samples,
    /// `None` when nothing of the target is in front of the head.
    pub deciding: Option<Deciding>,
}

/// The sample that decides a sight line.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct Deciding {
    sample: usize,
    /// The verdict of the sight line.
    pub verdict: Verdict,
    /// Whether the target is in the picture, all of it.
    pub in_view: bool,
    pub clear: bool,
    /// Pixel density across, px/m.
    pub across: f64,
    /// Breaks ties, greater for the worse: how far away it is, or how few pixels it gets.
    worse: f64,
}

impl Judged {
    /// What the head makes of a sample.
    pub fn sample(&self, place: usize) -> SampleView {
        self.samples.get(place).copied().unwrap_or(UNSEEN)
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
    fn out_of_picture(sample: usize, far: f64) -> Self {
        Deciding { sample, verdict: Verdict::Broken, in_view: false, clear: true, across: 0.0, worse: far }
    }
}

/// Judges one head against one target.
pub(crate) fn judge(viewer: Viewer, target: &Target) -> Judged {
    let mut judged =
        if out_of_picture(viewer.head, target) { outside(viewer.head, target) } else { looked_at(viewer, target) };
    judged.counts.all = target.samples.len();
    if let Some(deciding) = &mut judged.deciding
        && !deciding.in_view
    {
        deciding.across = viewer.head.view().across_at(target.samples[deciding.sample]);
    }
    judged
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
    for (place, point) in target.samples.iter().enumerate() {
        let step = *point - head.position();
        if forward.dot(step) > 0.0 {
            let out = Deciding::out_of_picture(place, step.length_squared());
            if deciding.as_ref().is_none_or(|worst| out.is_worse_than(worst)) {
                deciding = Some(out);
            }
        }
    }
    Judged { deciding, ..Judged::default() }
}

fn looked_at(viewer: Viewer, target: &Target) -> Judged {
    let mut judged = Judged::default();
    let mut behind = false;
    let mut any_seen = false;
    judged.samples.reserve_exact(target.samples.len());
    for (place, point) in target.samples.iter().enumerate() {
        let (view, deciding) = look_at(viewer, target, place, *point);
        judged.samples.push(view);
        any_seen |= view != UNSEEN;
        judged.counts.seen += usize::from(view.seen.is_some());
        judged.counts.kept += usize::from(view.verdict == Verdict::Kept);
        behind |= deciding.is_none();
        if let Some(deciding) = deciding
            && judged.deciding.as_ref().is_none_or(|worst| deciding.is_worse_than(worst))
        {
            judged.deciding = Some(deciding);
        }
    }
    if !any_seen {
        judged.samples = Vec::new();
    }
    if let Some(deciding) = judged.deciding.as_mut().filter(|_| behind) {
        // Another part of the target is not even in front of the head.
        deciding.in_view = false;
        deciding.verdict = Verdict::Broken;
    }
    judged
}

fn look_at(viewer: Viewer, target: &Target, sample: usize, point: DVec3) -> (SampleView, Option<Deciding>) {
    let head = viewer.head;
    let Some(in_view) = head.in_front(point) else { return (UNSEEN, None) };
    if !in_view {
        return (UNSEEN, Some(Deciding::out_of_picture(sample, point.distance_squared(head.position()))));
    }
    let clear = !viewer.eye.is_blocked(viewer.scene, head.position(), point);
    // What is hidden gives no figure: about how dense it would be is enough to tell which sample decides.
    let across = if clear { head.view().across_at(point) } else { head.about_across(point) };
    let sight = Sight::new(viewer, target, point, across, true, clear);
    let verdict = rules::verdict(&sight);
    let deciding = Deciding { sample, verdict, in_view: true, clear, across, worse: -across };
    (SampleView { verdict, seen: clear.then_some(across) }, Some(deciding))
}

/// The sight line as its deciding sample shows it; `None` when nothing of the target is in front of the head.
pub(crate) fn describe(viewer: Viewer, target: &Target, judged: &Judged) -> Option<SightLine> {
    let deciding = judged.deciding?;
    let Viewer { head, eye, scene, .. } = viewer;
    let point = target.samples[deciding.sample];
    let look = head.view().look(point)?;
    let blocker = eye.first_blocker(scene, head.position(), point);
    let sight = Sight::new(viewer, target, point, look.across, deciding.in_view, blocker.is_none());
    let found = rules::judge(&sight);
    Some(SightLine {
        camera: head.camera_id().to_owned(),
        head: head.id().to_owned(),
        target: target.id.clone(),
        in_view: deciding.in_view,
        clear: blocker.is_none(),
        blocked_by: blocker.map(|solid| solid.id().to_owned()),
        seen_through: scene.passed(head.position(), point).iter().map(|solid| solid.id().to_owned()).collect(),
        pixel: look.pixel.to_array(),
        px_per_m: look.across,
        px_per_m_up: look.up,
        ground_m: sight.separation.ground,
        slant_m: sight.separation.slant(),
        depression_deg: sight.separation.depression().deg(),
        incidence_deg: sight.incidence().map(Angle::deg),
        aim_slack_deg: sight.aim_slack().deg(),
        at: [point.x, point.y],
        samples: judged.counts,
        verdict: found.iter().map(|result| result.verdict).max().unwrap_or(Verdict::Unknown),
        rules: found,
    })
}

/// Whether a head keeps a target, all of it: the verdict of [`judge`] without the report.
pub(crate) fn keeps(viewer: Viewer, target: &Target) -> bool {
    let kept = |(place, point): (usize, &DVec3)| look_at(viewer, target, place, *point).0.verdict == Verdict::Kept;
    !out_of_picture(viewer.head, target) && target.samples.iter().enumerate().all(kept)
}

/// The rules that do not hold at worst at some sample in front of the head.
pub(crate) fn not_kept(viewer: Viewer, target: &Target) -> Vec<rules::RuleName> {
    let head = viewer.head;
    let sights = target.samples.iter().filter_map(|point| {
        let in_view = head.in_front(*point)?;
        let clear = !viewer.eye.is_blocked(viewer.scene, head.position(), *point);
        Some(Sight::new(viewer, target, *point, head.view().across_at(*point), in_view, clear))
    });
    sights
        .flat_map(|sight| rules::judge(&sight))
        .filter(|result| result.verdict != Verdict::Kept)
        .map(|result| result.rule)
        .collect()
}
