//! The evaluation of a whole site: every head, every sight line, every promise.

use crate::file::{CameraFile, Fault, Form, HeadRef, Which};
use crate::judge::SightLine;
use crate::judge::build::build;
use crate::judge::sight::Viewer;
use crate::judge::sight_line::{Judged, SampleView, describe as describe_line, judge};
use crate::scene::Eye;
use crate::site::{GroundEdges, Head, Site, Target};
use crate::verdict::{Given, Verdict, leaves_out};
use crate::work::{Over, Patience};
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
    /// The least and the greatest tilt that its build takes, degrees: as the model says, else as is usual for its form.
    pub tilts_deg: [f64; 2],
    /// Whether its build takes its aim.
    pub takes_tilt: bool,
    /// What of it does, and how it is taken to hang.
    pub build: String,
    /// What is told of its height, which no verdict holds against it.
    #[schema(required)]
    pub told: Option<String>,
    /// The id of the solid that its camera is drawn inside of, deeper than what it is mounted on explains.
    #[schema(required)]
    pub inside: Option<String>,
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
    /// The id of the solid that its middle is drawn inside of.
    #[schema(required)]
    pub inside: Option<String>,
    /// How the overview beside whoever reads a plate on the move stands; null for any other target, where nobody reads it, and where the
    /// site wishes for none.
    #[schema(required)]
    pub overview: Option<Overview>,
    /// What the verdict leaves out.
    pub leaves_out: String,
}

/// The second camera that keeps *observe* on the vehicle where a plate is read.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Overview {
    /// The head that keeps it best; null when no other camera sees it.
    #[schema(required)]
    pub head: Option<HeadRef>,
    /// How it is kept.
    pub verdict: Verdict,
}

/// What one head makes of all targets: the part of an evaluation that a change to another camera
/// leaves as it is. In the order of the site's targets.
#[derive(Clone, Debug, Default, PartialEq)]
pub(crate) struct HeadView {
    pub targets: Vec<Judged>,
}

/// The most looks of a head at a sample that a site may take: with what is kept of each, a hundred megabytes.
const MOST_LOOKS: usize = 4_000_000;

/// How many looks of a head at a sample the evaluation of a site takes.
fn looks(site: &Site) -> usize {
    let way = |target: &Target| target.lane.as_ref().map_or(0, |lane| lane.samples.len());
    let samples =
        site.targets().iter().map(|target| target.samples.len() + target.runs.len() + way(target)).sum::<usize>();
    samples.saturating_mul(site.heads().len())
}

/// So many sight lines are told one by one: each is some kilobytes of words and figures.
const MOST_SIGHT_LINES: usize = 20_000;

/// Whether a site can be evaluated at all.
///
/// # Errors
/// Says why it is too large.
pub fn within_reach(site: &Site) -> Result<(), Over> {
    let looks = looks(site);
    if looks <= MOST_LOOKS {
        return Ok(());
    }
    let largest = site.targets().iter().max_by_key(|target| target.samples.len());
    let (name, samples) = largest.map_or(("", 0), |target| (target.id.as_str(), target.samples.len()));
    Err(Over(format!(
        "{} camera views would look at {} places of all targets, together more than {MOST_LOOKS} times; the largest target, {name}, takes {samples} of them, one every half metre. Is a figure a decimal point off? Else split the site",
        site.heads().len(),
        looks / site.heads().len().max(1)
    )))
}

/// Evaluates a site. Numbers are not rounded.
pub fn evaluate(site: &Site) -> Evaluation {
    evaluation(site, &Patience::ENDLESS).expect("nobody grows tired")
}

/// Evaluates a site, if it is not too large for somebody's patience.
///
/// # Errors
/// Says why it is too large.
pub fn evaluate_within(site: &Site, patience: &Patience) -> Result<Evaluation, Over> {
    within_reach(site)?;
    let (heads, targets) = (site.heads().len(), site.targets().len());
    if heads * targets > MOST_SIGHT_LINES {
        return Err(Over(format!(
            "{heads} camera views and {targets} targets make more than {MOST_SIGHT_LINES} sight lines; evaluate a part of the site"
        )));
    }
    evaluation(site, patience)
}

/// Why a site took too long.
pub(crate) fn took_too_long(site: &Site) -> String {
    let (heads, targets) = (site.heads().len(), site.targets().len());
    let solids = site.scene().solids().len();
    format!("{heads} camera views, {targets} targets and {solids} obstacles together take longer than is allowed here")
}

fn evaluation(site: &Site, patience: &Patience) -> Result<Evaluation, Over> {
    let eyes = eyes(site);
    let mut views: Vec<HeadView> = Vec::with_capacity(site.heads().len());
    for head in site.heads() {
        views.push(view_within(site, head, &eyes[head.camera()], patience));
        patience.check(|| took_too_long(site))?;
    }
    let targets = verdicts(site, &seen_by(site, &views));
    let in_front = views.iter().flat_map(|view| &view.targets).filter(|judged| judged.deciding.is_some()).count();
    let mut sight_lines = Vec::with_capacity(in_front);
    for (head, view) in site.heads().iter().zip(&views) {
        let viewer = viewer_of(site, head, &eyes[head.camera()]);
        for (target, judged) in site.targets().iter().zip(&view.targets) {
            patience.check(|| took_too_long(site))?;
            sight_lines.extend(describe_line(viewer, target, judged));
        }
    }
    Ok(Evaluation { heads: describe_heads(site), sight_lines, targets })
}

/// What stands around each camera of a site.
pub fn eyes(site: &Site) -> Vec<Eye> {
    let cameras = site.file().cameras.iter();
    let eye = |c: &CameraFile| Eye::new(site.scene(), c.eye(), c.mounted_on.as_deref());
    cameras.map(eye).collect()
}

/// What stands around a head of a site, or one that may come to be.
pub(crate) fn eye_around(site: &Site, head: &Head) -> Eye {
    Eye::new(site.scene(), head.position(), head.mounted_on())
}

/// A head of a site, or one that may come to be, as it looks about.
pub(crate) fn viewer_of<'a>(site: &'a Site, head: &'a Head, eye: &'a Eye) -> Viewer<'a> {
    Viewer {
        head,
        eye,
        scene: site.scene(),
        rules: site.rules(),
        private: site.private(),
        lamps: site.file().conditions.night.then(|| site.lamps()),
        patience: &Patience::ENDLESS,
    }
}

/// What one head makes of all targets of a site.
pub(crate) fn view(site: &Site, head: &Head, eye: &Eye) -> HeadView {
    view_within(site, head, eye, &Patience::ENDLESS)
}

/// The same while somebody waits for it; what comes of it after that means nothing.
pub(crate) fn view_within(site: &Site, head: &Head, eye: &Eye, patience: &Patience) -> HeadView {
    let viewer = Viewer { patience, ..viewer_of(site, head, eye) };
    HeadView { targets: site.targets().iter().map(|target| judge(viewer, target)).collect() }
}

/// A head with what it makes of all targets.
#[derive(Clone, Copy)]
pub(crate) struct Seen<'a> {
    pub head: &'a Head,
    pub view: &'a HeadView,
}

/// The heads of a site with their views.
pub(crate) fn seen_by<'a>(site: &'a Site, views: &'a [HeadView]) -> Vec<Seen<'a>> {
    site.heads().iter().zip(views).map(|(head, view)| Seen { head, view }).collect()
}

/// How each promise stands, given the heads' views.
pub(crate) fn verdicts(site: &Site, seen: &[Seen]) -> Vec<TargetResult> {
    (0..site.targets().len()).map(|place| promise(site, place, seen)).collect()
}

/// Each head of the file by itself, at its own aim: where it parks, if it has presets.
pub(crate) fn describe_heads(site: &Site) -> Vec<HeadResult> {
    let heads = site.file().cameras.iter().enumerate().filter(|(_, camera)| !camera.goes());
    let heads = heads.flat_map(|(camera, file)| (0..file.heads.len()).map(move |place| (camera, place)));
    heads.map(|(camera, place)| describe_head(site, &parked(site, camera, place))).collect()
}

/// A head at its own aim.
fn parked(site: &Site, camera: usize, place: usize) -> Head {
    let own = |head: &&Head| head.camera() == camera && head.place() == place && head.which() == Which::Own;
    let file = site.file();
    let anew = || site.head_of(camera, &file.cameras[camera], (place, Which::Own));
    site.heads().iter().find(own).cloned().unwrap_or_else(anew)
}

/// A head by its name: one of its views, or without one the head at its own aim.
///
/// # Errors
/// Names the id that the site does not have.
pub(crate) fn head_named(site: &Site, name: &HeadRef) -> Result<Head, Fault> {
    let head = site.view(name)?;
    Ok(if name.view.is_none() { parked(site, head.camera(), head.place()) } else { head.clone() })
}

/// One head by itself.
pub(crate) fn describe_head(site: &Site, head: &Head) -> HeadResult {
    let edges = GroundEdges::of(head);
    let build = build(head, site.scene());
    let at = site.scene().out_of_mounting(head.position(), head.mounted_on());
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
        tilts_deg: build.as_ref().map_or([-90.0, 90.0], |build| build.tilts),
        takes_tilt: build.as_ref().is_none_or(|build| build.holds),
        build: build.map_or(String::new(), |build| build.says),
        told: told_of_height(site, head),
        inside: site.scene().solid_around(at).map(|solid| solid.id().to_owned()),
    }
}

/// What is told of a head that hangs lower or higher than is usual; a plate camera has its own school, and a PTZ may hang higher.
fn told_of_height(site: &Site, head: &Head) -> Option<String> {
    let (mounting, rules) = (head.mounting(), site.rules());
    let [least, most] = [rules.mount_min_m, rules.usual_max_m];
    let (low, high) = (mounting.height_m < least - 1e-9, mounting.height_m > most + 1e-9);
    let says = |how: &str| Some(format!("hangs {how} than is usual, {least} to {most} m; common practice, no source"));
    match mounting.form {
        Form::Plate => None,
        _ if low => says("lower"),
        Form::Ptz => None,
        _ if high => says("higher"),
        _ => None,
    }
}

/// A target's verdict: every sample, and every stretch between two, needs as many heads as wished; the worst counts.
pub(crate) fn promise(site: &Site, place: usize, seen: &[Seen]) -> TargetResult {
    let heads = seen.iter().map(|seen| (seen.head, &seen.view.targets[place]));
    promise_of(site, &site.targets()[place], &heads.collect::<Vec<_>>())
}

/// The same for a target, given what each head makes of it.
pub(crate) fn promise_of(site: &Site, target: &Target, heads: &[(&Head, &Judged)]) -> TargetResult {
    let looking = heads.iter().filter(|(_, judged)| judged.counts.seen > 0);
    let (verdict, px_per_m) = together(target, looking.map(|(head, judged)| (site.fails_with(head.camera()), *judged)));
    let in_front = heads.iter().filter(|(_, judged)| judged.deciding.is_some());
    let best = in_front.min_by(|(_, a), (_, b)| serves_better(a, b));
    let overview = best.and_then(|best| overview_beside(site, target, *best, heads));
    // A plate without the vehicle that carries it is half of a promise.
    let without = overview.as_ref().map_or(Verdict::Kept, |overview| overview.verdict.min(Verdict::Tight));
    TargetResult {
        target: target.id.clone(),
        verdict: verdict.max(without),
        overview,
        best: best.map(|(head, _)| head.name()),
        px_per_m,
        needs_px_per_m: target.need.px_per_m,
        basis: target.need.basis.to_string(),
        inside: site.scene().solid_around(target.middle).map(|solid| solid.id().to_owned()),
        leaves_out: leaves_out(Given {
            night: site.file().conditions.night,
            moving: target.moving_lane().is_some(),
            speed: target.speed > 0.0,
        }),
    }
}

/// The overview beside the head that reads a plate on the move best.
fn overview_beside(
    site: &Site,
    target: &Target,
    (reader, judged): (&Head, &Judged),
    heads: &[(&Head, &Judged)],
) -> Option<Overview> {
    let lane = target.moving_lane().filter(|_| site.rules().overview_pair && target.overview.is_some())?;
    let zone = judged.lane.as_ref()?.zone?;
    let others = heads.iter().filter(|(head, _)| head.camera() != reader.camera());
    let kept = others.filter_map(|(head, judged)| {
        let of = judged.lane.as_ref().filter(|of| !of.overview.is_empty())?;
        Some((of.overview_over(target.overview.as_ref()?, lane, zone), *head))
    });
    let best = kept.min_by_key(|(verdict, _)| *verdict).filter(|(verdict, _)| *verdict <= Verdict::Unknown);
    Some(Overview {
        head: best.as_ref().map(|(_, head)| head.name()),
        verdict: best.map_or(Verdict::Broken, |(verdict, _)| verdict),
    })
}

/// The verdict that the heads which see a target reach together, and the density that they leave its least well served sample.
/// Each comes with the place of the camera that it fails with.
fn together<'a>(target: &Target, heads: impl Iterator<Item = (usize, &'a Judged)>) -> (Verdict, f64) {
    let heads: Vec<(usize, &Judged)> = heads.collect();
    let mut views: Vec<(usize, SampleView)> = Vec::with_capacity(heads.len());
    if target.moving_lane().is_some() {
        let whole = |(camera, judged): &(usize, &Judged)| {
            judged.deciding.map(|found| (*camera, SampleView { verdict: found.verdict, seen: Some(found.across) }))
        };
        views.extend(heads.iter().filter_map(whole));
        return (nth_best(&mut views, target.heads_wanted), best_density(&views));
    }
    let (mut verdict, mut px_per_m) = (Verdict::Kept, f64::INFINITY);
    let samples = target.samples.len();
    for part in 0..samples + target.runs.len() {
        views.clear();
        views.extend(heads.iter().map(|(camera, judged)| (*camera, judged.part(part))));
        verdict = verdict.max(nth_best(&mut views, target.heads_wanted));
        if part < samples {
            px_per_m = px_per_m.min(best_density(&views));
        }
    }
    (verdict, px_per_m)
}

/// The verdict that `wanted` heads reach together: the worst of the best so many. Heads in one housing, or behind one cable, fail
/// together, so of each such group only the best counts.
fn nth_best(views: &mut Vec<(usize, SampleView)>, wanted: usize) -> Verdict {
    if wanted == 1 {
        return views.iter().map(|(_, view)| view.verdict).min().unwrap_or(Verdict::Broken);
    }
    views.sort_unstable_by_key(|(camera, view)| (*camera, view.verdict));
    views.dedup_by_key(|(camera, _)| *camera);
    views.sort_unstable_by_key(|(_, view)| view.verdict);
    views.get(wanted - 1).map_or(Verdict::Broken, |(_, view)| view.verdict)
}

/// The density that the best head gives a sample, px/m: of the heads with the best verdict the
/// densest; zero where none has it in view and clear.
fn best_density(views: &[(usize, SampleView)]) -> f64 {
    let views = views.iter().map(|(_, view)| view);
    let best = views.clone().map(|view| view.verdict).min();
    views.filter(|view| Some(view.verdict) == best).filter_map(|view| view.seen).fold(0.0, f64::max)
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
