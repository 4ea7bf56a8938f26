//! The evaluation of a whole site: every head, every sight line, every promise.

use crate::file::HeadRef;
use crate::judge::sight_line::{Judged, SampleView, Viewer, describe as describe_line, judge};
use crate::judge::{SightLine, Verdict};
use crate::scene::Eye;
use crate::site::{GroundEdges, Head, Site, Target};
use serde::Serialize;
use std::cmp::Ordering;
use utoipa::ToSchema;

/// What a site's design achieves.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Evaluation {
    /// Each head by itself.
    pub heads: Vec<HeadResult>,
    /// Each head × target pair whose target is in front of the head.
    pub sight_lines: Vec<SightLine>,
    /// Each target with its verdict.
    pub targets: Vec<TargetResult>,
}

/// One head by itself.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct HeadResult {
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// Horizontal field of view, degrees.
    pub hfov_deg: f64,
    /// Vertical field of view, degrees.
    pub vfov_deg: f64,
    /// Bend of the projection, −½ (equisolid) to 1 (distortion-free).
    pub bend: f64,
    /// Whether the bend came out of a published field of view; if not it is 1 for want of one.
    pub published_field: bool,
    /// Effective focal length, mm.
    pub effective_focal_mm: f64,
    /// Ground distance to the nearest ground in the picture straight ahead, m; null without ground.
    #[schema(required)]
    pub near_edge_m: Option<f64>,
    /// Ground distance to the farthest, m; null when the horizon is in view or no ground is.
    #[schema(required)]
    pub far_edge_m: Option<f64>,
    /// Whether the horizon straight ahead is in the picture.
    pub horizon_in_view: bool,
}

/// How a promise stands.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct TargetResult {
    /// The target's id.
    pub target: String,
    /// Kept, tight, broken or unknown.
    pub verdict: Verdict,
    /// The head that serves it best; null when it is in front of none.
    #[schema(required)]
    pub best: Option<HeadRef>,
    /// The density that the best head gives it, px/m; of a line or area the least well served
    /// sample's; zero where nothing has it in view and clear.
    pub px_per_m: f64,
    /// What it needs, px/m.
    pub needs_px_per_m: f64,
    /// Where the need comes from.
    pub basis: String,
}

/// What one head makes of all targets: the part of an evaluation that a change to another camera
/// leaves as it is. In the order of the site's targets.
#[derive(Clone, Debug, Default, PartialEq)]
pub(crate) struct HeadView {
    pub targets: Vec<Judged>,
}

/// Evaluates a site. Numbers are not rounded.
pub fn evaluate(site: &Site) -> Evaluation {
    let eyes = eyes(site);
    let views: Vec<HeadView> = site.heads().iter().map(|head| view(site, head, &eyes[head.camera()])).collect();
    let targets = verdicts(site, &views.iter().collect::<Vec<_>>());
    let in_front = views.iter().flat_map(|view| &view.targets).filter(|judged| judged.deciding.is_some()).count();
    let mut sight_lines = Vec::with_capacity(in_front);
    for (head, view) in site.heads().iter().zip(&views) {
        let viewer = viewer_of(site, head, &eyes[head.camera()]);
        let lines = site.targets().iter().zip(&view.targets);
        sight_lines.extend(lines.filter_map(|(target, judged)| describe_line(viewer, target, judged)));
    }
    Evaluation { heads: site.heads().iter().map(describe_head).collect(), sight_lines, targets }
}

/// What stands around each camera of a site.
pub(crate) fn eyes(site: &Site) -> Vec<Eye> {
    let cameras = site.file().cameras.iter();
    cameras.map(|camera| Eye::new(site.scene(), camera.position.into())).collect()
}

/// A head of a site, or one that may come to be, as it looks about.
pub(crate) fn viewer_of<'a>(site: &'a Site, head: &'a Head, eye: &'a Eye) -> Viewer<'a> {
    Viewer { head, eye, scene: site.scene(), rules: site.rules() }
}

/// What one head makes of all targets of a site.
pub(crate) fn view(site: &Site, head: &Head, eye: &Eye) -> HeadView {
    let viewer = viewer_of(site, head, eye);
    HeadView { targets: site.targets().iter().map(|target| judge(viewer, target)).collect() }
}

/// How each promise stands, given the heads' views.
pub(crate) fn verdicts(site: &Site, views: &[&HeadView]) -> Vec<TargetResult> {
    (0..site.targets().len()).map(|place| promise(site, place, views)).collect()
}

/// One head by itself.
pub(crate) fn describe_head(head: &Head) -> HeadResult {
    let edges = GroundEdges::of(head);
    HeadResult {
        camera: head.camera_id().to_owned(),
        head: head.id().to_owned(),
        hfov_deg: head.view().projection.hfov().to_degrees(),
        vfov_deg: head.view().projection.vfov().to_degrees(),
        bend: head.fitted().bend(),
        published_field: head.fitted().is_published(),
        effective_focal_mm: head.effective_focal_mm(),
        near_edge_m: edges.near_m,
        far_edge_m: edges.far_m,
        horizon_in_view: edges.horizon_in_view,
    }
}

/// A target's verdict: every sample needs as many heads as wished; the worst sample counts.
pub(crate) fn promise(site: &Site, place: usize, views: &[&HeadView]) -> TargetResult {
    let target = &site.targets()[place];
    let heads = views.iter().map(|view| &view.targets[place]);
    let (verdict, px_per_m) = together(target, heads.clone().filter(|judged| judged.counts.seen > 0));
    let in_front = heads.enumerate().filter(|(_, judged)| judged.deciding.is_some());
    let best = in_front.min_by(|(_, a), (_, b)| serves_better(a, b)).map(|(head, _)| site.name_of(head));
    TargetResult {
        target: target.id.clone(),
        verdict,
        best,
        px_per_m,
        needs_px_per_m: target.need.px_per_m,
        basis: target.need.basis.to_string(),
    }
}

/// The verdict that the heads which see a target reach together, and the density that they leave its least well served sample.
fn together<'a>(target: &Target, heads: impl Iterator<Item = &'a Judged>) -> (Verdict, f64) {
    let heads: Vec<&Judged> = heads.collect();
    let mut views: Vec<SampleView> = Vec::with_capacity(heads.len());
    let (mut verdict, mut px_per_m) = (Verdict::Kept, f64::INFINITY);
    for sample in 0..target.samples.len() {
        views.clear();
        views.extend(heads.iter().map(|judged| judged.sample(sample)));
        verdict = verdict.max(nth_best(&mut views, target.heads_wanted));
        px_per_m = px_per_m.min(best_density(&views));
    }
    (verdict, px_per_m)
}

/// The verdict that `wanted` heads reach together: the worst of the best so many.
fn nth_best(views: &mut [SampleView], wanted: usize) -> Verdict {
    if wanted == 1 {
        return views.iter().map(|view| view.verdict).min().unwrap_or(Verdict::Broken);
    }
    views.sort_unstable_by_key(|view| view.verdict);
    views.get(wanted - 1).map_or(Verdict::Broken, |view| view.verdict)
}

/// The density that the best head gives a sample, px/m: of the heads with the best verdict the
/// densest; zero where none has it in view and clear.
fn best_density(views: &[SampleView]) -> f64 {
    let best = views.iter().map(|view| view.verdict).min();
    views.iter().filter(|view| Some(view.verdict) == best).filter_map(|view| view.seen).fold(0.0, f64::max)
}

/// Orders sight lines to one target from best to worst: by verdict, by samples kept and seen, then
/// by density.
fn serves_better(a: &Judged, b: &Judged) -> Ordering {
    let (Some(x), Some(y)) = (&a.deciding, &b.deciding) else { return a.deciding.is_none().cmp(&b.deciding.is_none()) };
    x.verdict
        .cmp(&y.verdict)
        .then_with(|| b.counts.kept.cmp(&a.counts.kept))
        .then_with(|| b.counts.seen.cmp(&a.counts.seen))
        .then_with(|| (y.in_view && y.clear).cmp(&(x.in_view && x.clear)))
        .then_with(|| y.across.total_cmp(&x.across))
}
