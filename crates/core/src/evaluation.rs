//! The evaluation of a whole site: every head, every sight line, every promise.

use crate::ground_edges::GroundEdges;
use crate::sight_line::{Judged, SampleView, judge};
use crate::{Head, SightLine, Site, Target, Verdict};
use serde::{Deserialize, Serialize};
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

/// Names a head.
#[derive(Clone, Debug, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
pub struct HeadRef {
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
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
/// leaves as it is.
pub(crate) struct HeadView {
    pub targets: Vec<Judged>,
}

/// Evaluates a site. Numbers are not rounded.
pub fn evaluate(site: &Site) -> Evaluation {
    let views: Vec<HeadView> = site.heads().iter().map(|head| view(site, head)).collect();
    let targets = verdicts(site, &views.iter().collect::<Vec<_>>());
    let sight_lines = views.into_iter().flat_map(|view| view.targets).filter_map(|judged| judged.line).collect();
    Evaluation { heads: site.heads().iter().map(describe).collect(), sight_lines, targets }
}

/// What one head makes of all targets of a site.
pub(crate) fn view(site: &Site, head: &Head) -> HeadView {
    HeadView { targets: site.targets().iter().map(|target| judge(head, target, site.rules(), site.scene())).collect() }
}

/// How each promise stands, given the heads' views.
pub(crate) fn verdicts(site: &Site, views: &[&HeadView]) -> Vec<TargetResult> {
    site.targets()
        .iter()
        .enumerate()
        .map(|(place, target)| {
            let judged: Vec<&Judged> = views.iter().map(|view| &view.targets[place]).collect();
            promise(target, &judged)
        })
        .collect()
}

fn describe(head: &Head) -> HeadResult {
    let edges = GroundEdges::of(head);
    HeadResult {
        camera: head.camera_id.clone(),
        head: head.id.clone(),
        hfov_deg: head.view.projection.hfov().to_degrees(),
        vfov_deg: head.view.projection.vfov().to_degrees(),
        bend: head.fitted.bend,
        published_field: head.fitted.published,
        effective_focal_mm: head.effective_focal_mm,
        near_edge_m: edges.near_m,
        far_edge_m: edges.far_m,
        horizon_in_view: edges.horizon_in_view,
    }
}

/// A target's verdict: every sample needs as many heads as wished; the worst sample counts.
fn promise(target: &Target, heads: &[&Judged]) -> TargetResult {
    let of_sample = |sample: usize| -> Vec<SampleView> { heads.iter().map(|head| head.samples[sample]).collect() };
    let mut verdict = Verdict::Kept;
    let mut px_per_m = f64::INFINITY;
    for sample in 0..target.samples.len() {
        let views = of_sample(sample);
        verdict = verdict.max(nth_best(&views, target.heads_wanted));
        px_per_m = px_per_m.min(best_density(&views));
    }
    let best = heads.iter().filter_map(|head| head.line.as_ref()).min_by(|a, b| serves_better(a, b));
    TargetResult {
        target: target.id.clone(),
        verdict,
        best: best.map(|line| HeadRef { camera: line.camera.clone(), head: line.head.clone() }),
        px_per_m,
        needs_px_per_m: target.need.px_per_m,
        basis: target.need.basis.to_string(),
    }
}

/// The verdict that `wanted` heads reach together: the worst of the best so many.
fn nth_best(views: &[SampleView], wanted: usize) -> Verdict {
    let mut verdicts: Vec<Verdict> = views.iter().map(|view| view.verdict).collect();
    verdicts.sort_unstable();
    verdicts.get(wanted - 1).copied().unwrap_or(Verdict::Broken)
}

/// The density that the best head gives a sample, px/m: of the heads with the best verdict the
/// densest; zero where none has it in view and clear.
fn best_density(views: &[SampleView]) -> f64 {
    let best = views.iter().map(|view| view.verdict).min();
    views.iter().filter(|view| Some(view.verdict) == best).filter_map(|view| view.seen).fold(0.0, f64::max)
}

/// Orders sight lines to one target from best to worst: by verdict, by samples kept and seen, then
/// by density.
fn serves_better(a: &SightLine, b: &SightLine) -> Ordering {
    let seen = |line: &SightLine| line.in_view && line.clear;
    a.verdict
        .cmp(&b.verdict)
        .then_with(|| b.samples.kept.cmp(&a.samples.kept))
        .then_with(|| b.samples.seen.cmp(&a.samples.seen))
        .then_with(|| seen(b).cmp(&seen(a)))
        .then_with(|| b.px_per_m.total_cmp(&a.px_per_m))
}
