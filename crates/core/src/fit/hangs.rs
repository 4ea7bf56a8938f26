//! How a head hangs against how it should: the pose, what to do, what each promise gets now, and the change that takes it over.

use super::designed::head_as_designed;
use super::landmarks::is_shape_of;
use super::pose::{PoseFound, PoseWish, pose_of};
use super::pose_points::PosePoint;
use super::turns::{SIDE_DEG, Turn, TurnKind, turns};
use crate::equipment::lens::FittedLens;
use crate::file::{
    Aimed, AsBuilt, CameraFile, Fault, HeadRef, Lens, ListChange, PatchOp, SiteChange, Variant, Which, fresh_id,
};
use crate::judge::Session;
use crate::site::Head;
use crate::verdict::Verdict;
use serde::{Deserialize, Serialize};
use serde_json::{Value, json};
use utoipa::ToSchema;

/// What the design is called once what hangs there has come in its place.
pub const AS_DESIGNED: &str = "As designed";
/// What it is called then.
pub const AS_BUILT: &str = "As built";
/// A focal length so near to the lens's own, as a share, is the lens's own: makers round.
const SAME_FOCAL: f64 = 0.005;
/// So many options a site holds.
const MOST_OPTIONS: usize = 12;

/// The picture that was clicked in.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PictureSize {
    /// Its width, px.
    pub width_px: f64,
    /// Its height, px.
    pub height_px: f64,
}

/// What is asked: how a head hangs whose picture shows these points.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HangsWish {
    /// The head.
    pub head: HeadRef,
    /// What was clicked, in pixels of the full picture.
    pub points: Vec<PosePoint>,
    /// How well it was clicked, and what is known of the place.
    pub wish: PoseWish,
    /// The size of the picture as it came in, where it is not the head's own.
    #[serde(default)]
    pub picture: Option<PictureSize>,
    /// When, as in `2026-11-24T14:02:00Z`.
    #[serde(default)]
    pub at: Option<String>,
}

/// A promise before and now.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PromiseNow {
    /// The target's id.
    pub target: String,
    /// What it is called.
    pub name: String,
    /// How it stands by the design.
    pub designed: Verdict,
    /// How it stands as the head hangs.
    pub now: Verdict,
    /// Whether this head is the one that keeps it, by the design.
    pub serves: bool,
}

/// How a head hangs.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Hangs {
    /// The pose.
    pub pose: PoseFound,
    /// What to do, in the order in which hands do it.
    pub turns: Vec<Turn>,
    /// The promises that hang on this head.
    pub promises: Vec<PromiseNow>,
    /// Whether it hangs as it should: upright, with its own lens, each promise as well as the design has it.
    pub done: bool,
    /// The change that takes it over: what hangs there is what is judged from then on, and the design is kept beside it.
    pub take_over: Vec<PatchOp>,
}

/// How a head hangs whose picture shows these points.
///
/// # Errors
/// What is wrong with the points or the picture, or why they cannot tell.
pub fn hangs(session: &Session, wish: &HangsWish) -> Result<Hangs, Vec<Fault>> {
    let site = session.site();
    let head = site.view(&wish.head)?;
    if let Some(size) = wish.picture {
        picture_fits(head, size)?;
    }
    let pose = pose_of(site, head, &wish.points, wish.wish)?;
    let file = &site.file().cameras[head.camera()];
    let designed = design_of(session, head);
    let lens = file.lens_of(head.place());
    let camera = built(file, head, &pose, designed, wish);
    let now = with_camera(session, camera.clone())?;
    // Where it was taken over before, the plan is still the design.
    let planned = match head_as_designed(&file.heads[head.place()]) {
        Some(one) => {
            let mut camera = file.clone();
            camera.heads[head.place()] = one;
            with_camera(session, camera)?
        }
        None => session.clone(),
    };
    let promises = promises(&planned, &now, head);
    let turns = turns(&pose, &designed, &lens);
    Ok(Hangs {
        done: is_done(&turns, &promises, site.rules().uncertainties.aim_deg),
        turns,
        promises,
        take_over: take_over(session, head, &camera),
        pose,
    })
}

/// Whether a head hangs as it should: with its own lens, not over or on its side, each promise that hangs on it as well as by the design. One
/// that no promise hangs on is aimed where the design has it, to what an aim may be off.
fn is_done(turns: &[Turn], promises: &[PromiseNow], aim_deg: f64) -> bool {
    let upright = turns.iter().all(|turn| turn.kind != TurnKind::Roll || turn.by.abs() < SIDE_DEG);
    let own_lens = turns.iter().all(|turn| turn.kind != TurnKind::Lens || turn.enough);
    let mut served = promises.iter().filter(|promise| promise.serves).peekable();
    let kept = match served.peek() {
        Some(_) => served.all(|promise| promise.now <= promise.designed),
        None => {
            let degrees = turns.iter().filter(|turn| !matches!(turn.kind, TurnKind::Zoom | TurnKind::Lens));
            degrees.into_iter().all(|turn| turn.by.abs() <= aim_deg)
        }
    };
    upright && own_lens && kept
}

/// A picture of another shape than the head's is not its own.
fn picture_fits(head: &Head, size: PictureSize) -> Result<(), Fault> {
    let own = head.view().projection.size();
    let sound =
        size.width_px >= 16.0 && size.height_px >= 16.0 && size.width_px.is_finite() && size.height_px.is_finite();
    if sound && is_shape_of(head, size.width_px, size.height_px) {
        return Ok(());
    }
    let turned = sound && is_shape_of(head, size.height_px, size.width_px);
    let message = format!(
        "{} × {} px is not the shape of this head's picture, {} × {} px",
        size.width_px, size.height_px, own.x, own.y
    );
    let hint = if turned {
        "It lies on its side: turn the picture first, or look at the corridor setting."
    } else {
        "Is it cut, or of another picture mode? A photo of a monitor is straightened by its four corners first."
    };
    Err(Fault::new("picture", message).hint(hint))
}

/// The site with a camera in place of the one of its id, judged.
fn with_camera(session: &Session, camera: CameraFile) -> Result<Session, Vec<Fault>> {
    let mut changed = session.clone();
    let cameras = Some(ListChange { order: None, put: vec![camera] });
    changed.apply(SiteChange { cameras, ..SiteChange::default() })?;
    Ok(changed)
}

/// The aim that was designed: what it was before somebody took over how it hangs.
fn design_of(session: &Session, head: &Head) -> Aimed {
    let file = &session.site().file().cameras[head.camera()].heads[head.place()];
    file.as_built()
        .filter(|_| head.which() == Which::Own)
        .map_or_else(|| file.aimed(head.which()), |built| built.designed)
}

/// The camera with the head as it hangs.
fn built(file: &CameraFile, head: &Head, pose: &PoseFound, designed: Aimed, wish: &HangsWish) -> CameraFile {
    let mut camera = file.clone();
    let lens = camera.lens_of(head.place());
    let (focal_mm, own) = focal_of(head, lens, pose.at.focal_mm);
    let found = Aimed { pan_deg: pose.at.pan_deg, tilt_deg: pose.at.tilt_deg, roll_deg: pose.at.roll_deg, focal_mm };
    let one = &mut camera.heads[head.place()];
    one.set_aimed(head.which(), found);
    one.lens = own.or(one.lens);
    if head.which() == Which::Own {
        let sigma = pose.sigma;
        // A bearing counts for less the steeper it looks.
        let pan = sigma.pan_deg * pose.at.tilt_deg.to_radians().cos();
        one.as_built = Some(AsBuilt {
            found,
            aim_sigma_deg: pan.max(sigma.tilt_deg).max(sigma.roll_deg.min(90.0)).min(90.0),
            focal_sigma: (sigma.focal_mm / pose.at.focal_mm).min(1.0),
            designed,
            at: wish.at.clone(),
        });
    }
    if let (Some(east), Some(north), Some(height)) = (pose.at.east_m, pose.at.north_m, pose.at.height_m) {
        (camera.position, camera.height_m) = ([east, north], height.max(0.05));
    }
    camera
}

/// The focal length as the file writes it, and the head's own lens where it is none of the model's.
fn focal_of(head: &Head, lens: Lens, focal_mm: f64) -> (f64, Option<Lens>) {
    let held = focal_mm.clamp(lens.focal_min_mm, lens.focal_max_mm);
    if (focal_mm / held - 1.0).abs() <= SAME_FOCAL {
        return (held, None);
    }
    // Outside the lens's range the end's ratio effective/nominal is held.
    let fitted: &FittedLens = head.fitted();
    let hfov = fitted.projection(held).scaled(focal_mm / held).hfov().to_degrees();
    let own = Lens {
        focal_min_mm: focal_mm,
        focal_max_mm: focal_mm,
        hfov_at_min_deg: Some(hfov),
        hfov_at_max_deg: Some(hfov),
        f_number: lens.f_number,
    };
    (focal_mm, Some(own))
}

/// The promises that hang on a head: those that it serves best by the design, and those that stand otherwise now.
fn promises(session: &Session, now: &Session, head: &Head) -> Vec<PromiseNow> {
    let name = head.name();
    let targets = session.site().file().targets.iter();
    let pairs = targets.zip(session.results().iter().zip(now.results()));
    let mut found: Vec<PromiseNow> = pairs
        .map(|(target, (designed, now))| PromiseNow {
            target: target.id.clone(),
            name: target.name.clone(),
            designed: designed.verdict,
            now: now.verdict,
            serves: designed.best.as_ref() == Some(&name),
        })
        .filter(|promise| promise.serves || promise.designed != promise.now)
        .collect();
    found.sort_by_key(|promise| !promise.serves);
    found
}

/// The change that takes a camera over as it hangs. The first one keeps the design beside it.
fn take_over(session: &Session, head: &Head, camera: &CameraFile) -> Vec<PatchOp> {
    let file = session.site().file();
    let set = |op, path: String, value: Value| PatchOp { op, path, value: Some(value) };
    let mut patch = vec![set("replace", format!("/cameras/{}", head.camera()), json!(camera))];
    // Where no more options fit, each head still keeps its own design.
    let kept = file.variants.len() >= MOST_OPTIONS || file.variants.iter().any(|variant| variant.name == AS_DESIGNED);
    if !kept {
        let id = fresh_id("v", file.variants.iter().map(|variant| variant.id.as_str()));
        let aside = Variant { id, name: AS_DESIGNED.to_owned(), cameras: file.cameras.clone() };
        let variants: Vec<&Variant> = file.variants.iter().chain([&aside]).collect();
        patch.push(set("add", "/variants".to_owned(), json!(variants)));
        patch.push(set("add", "/design".to_owned(), json!(AS_BUILT)));
    }
    patch
}
