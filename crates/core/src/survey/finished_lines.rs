//! Finished lines: at a target, looking at a spot, each camera of the catalogue put up there, set and aimed, and held against every rule.
//!
//! The readings settle first where the spot and the target are; then all candidates are judged at once, as they would hang. What the form
//! on paper has one line for is one [`FinishedLine`], and its patch takes it.

use super::adjustment::adjust;
use super::first_answer::{Asked, WIDE_MM, suits};
use super::pocket;
use crate::change::edits::{aim_between, camera_at, neat};
use crate::file::{Aimed, CameraFile, Fault, HeadFile, HeadRef, Model, PatchOp, SiteFile};
use crate::judge::Session;
use crate::site::Site;
use crate::verdict::Verdict;
use crate::words::because::what_holds_back;
use crate::words::units::Units;
use serde::{Deserialize, Serialize};
use serde_json::json;
use std::cmp::Ordering;
use utoipa::ToSchema;

/// So many lines are told.
const MOST_LINES: usize = 8;
/// A lens that reaches so many times farther than is asked is too narrow where another is not; ours.
const MUCH: f64 = 1.35;
/// So many models are judged.
const MOST_JUDGED: usize = 60;
/// A zoom lens is tried at so many times the focal length that just reaches on the axis: the first that is kept is taken.
const TRIED_ZOOMS: [f64; 6] = [1.0, 1.06, 1.14, 1.25, 1.45, 1.8];
/// Focal lengths go by tenths of a millimetre: what a hand sets.
const FOCAL_STEP_MM: f64 = 0.1;

/// What somebody who stands at a target asks for.
#[derive(Clone, Debug, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LineWish {
    /// The target's id.
    pub target: String,
    /// The spot's id.
    pub spot: String,
    /// Whether only wide lenses are asked about: it was called near enough for one, and not measured.
    #[serde(default)]
    pub near: bool,
    /// Names of models that are taken before others, the one liked most first.
    #[serde(default)]
    pub usual: Vec<String>,
    /// A camera's id: only its model is asked about.
    #[serde(default)]
    pub like: Option<String>,
}

/// One line of the form: a camera put up on the spot, set and aimed, with what comes of it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct FinishedLine {
    /// The camera as it would hang.
    pub camera: CameraFile,
    /// Whether it keeps the target.
    pub verdict: Verdict,
    /// What holds it back, in words; null where nothing does.
    #[schema(required)]
    pub because: Option<String>,
    /// Pixel density at the target, px/m; null where it is not seen.
    #[schema(required)]
    pub px_per_m: Option<f64>,
    /// How far from it the target may be for its need, on the axis, m.
    pub holds_to_m: f64,
    /// Whether it is one that is usually taken.
    pub is_usual: bool,
    /// What was asked for and it does not have, or does not state, in words.
    pub lacks: Vec<String>,
    /// The change that takes it: the readings' positions, and the camera.
    pub patch: Vec<PatchOp>,
}

/// The lines for a target from a spot, the best first.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct FinishedLines {
    /// The lines.
    pub lines: Vec<FinishedLine>,
    /// How many models were tried.
    pub tried: usize,
    /// Slant distance from the spot to the target as the readings have it, m.
    pub slant_m: f64,
    /// What the target needs, px/m.
    pub needs_px_per_m: f64,
}

/// All that makes a line before it is judged.
struct Candidate {
    camera: CameraFile,
    holds_to_m: f64,
}

/// The finished lines for a target from a spot.
///
/// # Errors
/// Names the target, the spot or the camera that the site does not have.
pub fn finished_lines(session: &Session, wish: &LineWish, units: Units) -> Result<FinishedLines, Vec<Fault>> {
    let site = session.site();
    let settled = adjust(site).map(|found| found.patch).unwrap_or_default();
    let file = with(site.file(), &settled)?;
    let spot = file.spots.iter().find(|spot| spot.id == wish.spot);
    let spot = spot.ok_or_else(|| Fault::new("spot", format!("the site has no spot \"{}\"", wish.spot)))?.clone();
    let liked = match &wish.like {
        None => None,
        Some(id) => {
            let held = file.cameras.iter().find(|camera| &camera.id == id);
            Some(held.ok_or_else(|| Fault::new("like", format!("the site has no camera \"{id}\"")))?.clone())
        }
    };
    let target_file = file.targets.iter().find(|target| target.id == wish.target);
    let target_file =
        target_file.ok_or_else(|| Fault::new("target", format!("the site has no target \"{}\"", wish.target)))?;
    // Alone, with what stands there: what other cameras and promises make of it is not asked.
    let (targets, cameras, variants) = (vec![target_file.clone()], vec![], vec![]);
    let alone = SiteFile { targets, cameras, variants, readings: vec![], ..file.clone() };
    let alone = Site::from_file(alone)?;
    let target = &alone.targets()[0];
    let hung = camera_at(&file, spot.position, Some(&spot))?;
    let slant_m = hung.eye().distance(target.middle).max(0.1);
    let asked = Asked {
        slant_m,
        spot_height_m: spot.height_m,
        target_height_m: target_file.height_m,
        task: target.task,
        outdoor: spot.outdoor,
        in_reach: spot.in_reach,
    };
    let models: Vec<Model> = match liked {
        Some(camera) => vec![camera.model],
        None => candidates_of(session.models()?, wish, asked, target.need.px_per_m),
    };
    let need = target.need.px_per_m;
    let candidates: Vec<Candidate> = models
        .iter()
        .flat_map(|model| {
            let hold = pocket::hold(model, slant_m, need);
            settings(hold.focal_mm, model, wish.near)
                .into_iter()
                .map(|focal_mm| {
                    let aim = aim_between(hung.eye(), &target.samples, 0.0);
                    let aimed = Aimed { pan_deg: aim.pan_deg, tilt_deg: aim.tilt_deg, roll_deg: 0.0, focal_mm };
                    let camera =
                        CameraFile { model: model.clone(), heads: vec![HeadFile::new("h1", aimed)], ..hung.clone() };
                    // The density goes with one over the distance.
                    let holds_to_m = pocket::density(model, focal_mm, slant_m) * slant_m / need;
                    Candidate { camera, holds_to_m }
                })
                .collect::<Vec<_>>()
        })
        .collect();
    let mut lines = judged(alone.file(), &wish.target, candidates, units)?;
    let tried = models.len();
    for line in &mut lines {
        line.lacks = lacks(&file, &line.camera.model);
        line.is_usual = wish.usual.contains(&line.camera.model.name);
        line.patch = settled.clone();
        line.patch.push(PatchOp { op: "add", path: "/cameras/-".to_owned(), value: Some(json!(line.camera)) });
    }
    sort(&mut lines, &wish.usual, session.own(), slant_m);
    lines.truncate(MOST_LINES);
    Ok(FinishedLines { lines, tried, slant_m, needs_px_per_m: need })
}

/// The models that are judged: those that suit, the likeliest first. Of many only so many.
fn candidates_of(models: Vec<Model>, wish: &LineWish, asked: Asked, need: f64) -> Vec<Model> {
    let LineWish { usual, near, .. } = wish;
    let wide = |model: &Model| !near || model.lens.focal_min_mm <= WIDE_MM;
    let mut models: Vec<(bool, f64, Model)> = models
        .into_iter()
        .filter(|model| model.form.looks_one_way() && suits(model, asked) && wide(model))
        .map(|model| {
            let held = pocket::hold(&model, asked.slant_m, need);
            // What reaches with the least to spare; what does not comes after all that do.
            let off = (held.px_per_m / need).ln().abs() + if held.reaches { 0.0 } else { 100.0 };
            (!usual.contains(&model.name), off, model)
        })
        .collect();
    models.sort_by(|a, b| a.0.cmp(&b.0).then(a.1.total_cmp(&b.1)));
    models.truncate(MOST_JUDGED);
    models.into_iter().map(|(.., model)| model).collect()
}

/// The focal lengths to try: a fixed lens has one.
fn settings(reaches_mm: f64, model: &Model, near: bool) -> Vec<f64> {
    let lens = model.lens;
    if !lens.is_zoom() || near {
        return vec![lens.focal_min_mm];
    }
    let mut tried: Vec<f64> = TRIED_ZOOMS
        .iter()
        .map(|times| neat((reaches_mm * times / FOCAL_STEP_MM).ceil() * FOCAL_STEP_MM, FOCAL_STEP_MM))
        .map(|focal| focal.clamp(lens.focal_min_mm, lens.focal_max_mm))
        .collect();
    tried.dedup();
    tried
}

/// All candidates judged as they would hang, each model at the first of its settings that does best.
fn judged(
    alone: &SiteFile,
    target: &str,
    candidates: Vec<Candidate>,
    units: Units,
) -> Result<Vec<FinishedLine>, Vec<Fault>> {
    let numbered = candidates.iter().enumerate().map(|(place, candidate)| CameraFile {
        id: format!("try{place}"),
        name: format!("try{place}"),
        ..candidate.camera.clone()
    });
    let session = Session::open(SiteFile { cameras: numbered.collect(), ..alone.clone() })?;
    let mut lines: Vec<FinishedLine> = Vec::new();
    for (place, candidate) in candidates.into_iter().enumerate() {
        let head = HeadRef { camera: format!("try{place}"), head: "h1".to_owned(), view: None };
        let line = session.line(&head.to(target))?;
        let found = FinishedLine {
            verdict: line.as_ref().map_or(Verdict::Broken, |line| line.verdict),
            because: line.as_ref().and_then(|line| what_holds_back(&session, line, units)),
            px_per_m: line.as_ref().and_then(|line| line.px_per_m),
            camera: candidate.camera,
            holds_to_m: candidate.holds_to_m,
            is_usual: false,
            lacks: vec![],
            patch: vec![],
        };
        match lines.iter_mut().find(|held| held.camera.model.name == found.camera.model.name) {
            Some(held) if found.verdict < held.verdict => *held = found,
            Some(_) => {}
            None => lines.push(found),
        }
    }
    Ok(lines)
}

/// What the brief asked for and a model does not have, or does not state.
fn lacks(file: &SiteFile, model: &Model) -> Vec<String> {
    let Some(brief) = &file.brief else { return vec![] };
    let mut lacks = Vec::new();
    if brief.sound == Some(true) && model.sound != Some(true) {
        lacks.push(if model.sound == Some(false) { "no sound" } else { "sound not stated" }.to_owned());
    }
    if let Some(colour) = brief.colour.as_ref().map(|colour| colour.trim().to_lowercase()).filter(|c| !c.is_empty())
        && !model.colours.iter().any(|own| colour.contains(&own.to_lowercase()))
        && !model.colours.is_empty()
    {
        lacks.push(format!("not in {colour}"));
    }
    lacks
}

/// The best first: what is kept, what is usual, what the firm has of its own, what has all that was asked for, what costs least where that is known, what
/// sees not much more narrowly than it need, a fixed lens before one that must be set, and of those that see enough the one that sees most. Of what is broken the one that lacks least.
fn sort(lines: &mut [FinishedLine], usual: &[String], own: &[Model], slant_m: f64) {
    let liking =
        |line: &FinishedLine| usual.iter().position(|name| name == &line.camera.model.name).unwrap_or(usize::MAX);
    let is_own = |line: &FinishedLine| own.iter().any(|model| model.name == line.camera.model.name);
    let price = |line: &FinishedLine| line.camera.model.price.unwrap_or(f64::INFINITY);
    lines.sort_by(|a, b| {
        let width = |line: &FinishedLine| line.holds_to_m;
        let kept = a.verdict == Verdict::Kept && b.verdict == Verdict::Kept;
        let broken = a.verdict == Verdict::Broken && b.verdict == Verdict::Broken;
        if broken {
            return width(b).total_cmp(&width(a));
        }
        a.verdict
            .cmp(&b.verdict)
            .then(liking(a).cmp(&liking(b)))
            .then(is_own(b).cmp(&is_own(a)))
            .then(a.lacks.len().cmp(&b.lacks.len()))
            .then(price(a).total_cmp(&price(b)))
            .then(if kept { much_more(a, slant_m).cmp(&much_more(b, slant_m)) } else { Ordering::Equal })
            .then(a.camera.model.lens.is_zoom().cmp(&b.camera.model.lens.is_zoom()))
            // Of those that are kept the least that is enough; of those that fall short the most that there is.
            .then(if kept { width(a).total_cmp(&width(b)) } else { width(b).total_cmp(&width(a)) })
    });
}

/// By how many steps of [`MUCH`] a lens reaches farther than is asked: so much narrower is its picture than it need be.
fn much_more(line: &FinishedLine, slant_m: f64) -> i64 {
    ((line.holds_to_m / slant_m).max(1.0).ln() / MUCH.ln()).floor() as i64
}

/// A file with the readings' positions in it.
fn with(file: &SiteFile, patch: &[PatchOp]) -> Result<SiteFile, Vec<Fault>> {
    if patch.is_empty() {
        return Ok(file.clone());
    }
    let mut value = serde_json::to_value(file).map_err(|error| Fault::new("", error.to_string()))?;
    for op in patch {
        let (Some((parent, field)), Some(new)) = (op.path.rsplit_once('/'), &op.value) else { continue };
        match value.pointer_mut(parent) {
            Some(serde_json::Value::Object(held)) => drop(held.insert(field.to_owned(), new.clone())),
            Some(serde_json::Value::Array(held)) => {
                if let Some(held) = field.parse().ok().and_then(|place: usize| held.get_mut(place)) {
                    *held = new.clone();
                }
            }
            _ => {}
        }
    }
    serde_json::from_value(value).map_err(|error| vec![Fault::new("", error.to_string())])
}
