//! What a camera's later pictures show against its reference, and which promises that costs.

use super::grown::grown;
use crate::file::{Against, CameraFile, Differs, HeadRef, ListChange, Moved, Region, SiteChange, Snapshot};
use crate::judge::Session;
use crate::math::{Angle, Pose};
use crate::site::Head;
use crate::verdict::Verdict;
use glam::{DVec2, DVec3};
use serde::Serialize;
use utoipa::ToSchema;

/// The pictures of one view of a camera, by day or by night.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Looked {
    /// The view.
    pub head: HeadRef,
    /// The camera's name, and the head's where it has several.
    pub name: String,
    /// By night.
    pub night: bool,
    /// Its field across by which pictures are compared, degrees: a pinhole has no more than 150.
    pub hfov_deg: f64,
    /// The id of the reference; null where none is kept.
    #[schema(required)]
    pub reference: Option<String>,
    /// The id of the last picture that was held against it; null where none was.
    #[schema(required)]
    pub later: Option<String>,
    /// Why the reference says nothing any more; null where it does.
    #[schema(required)]
    pub past: Option<String>,
    /// What differs in the last picture, worst first.
    pub faults: Vec<LookFault>,
}

/// Something that differs.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LookFault {
    /// What.
    pub kind: LookKind,
    /// It with its figure, in words.
    pub says: String,
    /// What to do.
    pub mend: String,
    /// Where, px of the later picture.
    pub regions: Vec<Region>,
    /// The promises that it costs.
    pub costs: Vec<LookCost>,
}

/// What can differ.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LookKind {
    /// The camera turned, or its lens was set otherwise.
    Moved,
    /// Something hides what was seen.
    Blocked,
    /// Something grew into the picture: it stays over several pictures.
    Grown,
    /// A dirty cover, haze, light into the lens.
    Hazed,
    /// Out of focus.
    OutOfFocus,
    /// Less light.
    Darker,
    /// The camera's clock is wrong.
    ClockWrong,
}

/// A promise that something costs.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LookCost {
    /// The target's id.
    pub target: String,
    /// What it is called.
    pub name: String,
    /// How it stands by the plan.
    pub before: Verdict,
    /// How it stands now, where that can be worked out; null where it can only be looked at.
    #[schema(required)]
    pub now: Option<Verdict>,
}

/// Every view of every camera that is not taken down, by day and by night.
pub fn looked(session: &Session) -> Vec<Looked> {
    let site = session.site();
    let heads = site.heads().iter().filter(|head| !site.goes(head.camera_id()) && !head.is_flattened());
    heads.flat_map(|head| [false, true].map(|night| of_head(session, head, night))).collect()
}

fn of_head(session: &Session, head: &Head, night: bool) -> Looked {
    let file = session.site().file();
    let name = head.name();
    let own = |snapshot: &&Snapshot| snapshot.night == night && snapshot.head_ref() == name;
    let taken: Vec<&Snapshot> = file.snapshots.iter().filter(own).collect();
    let reference = last(taken.iter().copied().filter(|snapshot| snapshot.against.is_none()));
    let of_reference = |snapshot: &&&Snapshot| {
        snapshot.against.as_ref().is_some_and(|against| Some(&against.reference) == reference.map(|one| &one.id))
    };
    let held: Vec<&Snapshot> = taken.iter().filter(of_reference).copied().collect();
    let later = last(held.iter().copied());
    let camera = &file.cameras[head.camera()];
    let hung = camera.hung(&name.head, name.view.as_deref());
    let past = reference.zip(hung).and_then(|(reference, now)| reference.hung.differs(&now)).map(str::to_owned);
    let mut faults = vec![];
    if let Some((snapshot, against)) = later.and_then(|later| Some((later, later.against.as_ref()?))) {
        let grown = grown(&held, &file.rules.proving);
        faults = faults_of(session, head, snapshot, against, grown);
    }
    Looked {
        name: called(camera, head),
        head: name,
        night,
        hfov_deg: head.view().projection.hfov().to_degrees().min(150.0),
        reference: reference.map(|one| one.id.clone()),
        later: later.map(|one| one.id.clone()),
        past,
        faults,
    }
}

/// The newest of some pictures.
fn last<'a>(of: impl Iterator<Item = &'a Snapshot>) -> Option<&'a Snapshot> {
    of.max_by_key(|snapshot| snapshot.at.parse::<jiff::Timestamp>().ok())
}

/// What a view is called.
fn called(camera: &CameraFile, head: &Head) -> String {
    let several = camera.heads.len() > 1 || head.view_id().is_some();
    let own = head.view_id().unwrap_or(head.id());
    if several { format!("{} {own}", camera.name) } else { camera.name.clone() }
}

fn faults_of(
    session: &Session,
    head: &Head,
    snapshot: &Snapshot,
    against: &Against,
    grown: Vec<Region>,
) -> Vec<LookFault> {
    let found = &against.found;
    let scale = head.view().projection.size().x / snapshot.picture.width_px;
    let regions =
        |kind: Differs| -> Vec<Region> { found.regions.iter().filter(|region| region.kind == kind).cloned().collect() };
    let mut faults = vec![];
    let mut add = |kind: LookKind, says: String, mend: &str, regions: Vec<Region>, costs: Vec<LookCost>| {
        faults.push(LookFault { kind, says, mend: mend.to_owned(), regions, costs });
    };
    let has = |kind: Differs| found.says.contains(&kind);
    if has(Differs::Moved) {
        let costs =
            found.moved.map_or_else(|| served(session, head, None, scale), |moved| turned(session, head, moved));
        add(
            LookKind::Moved,
            moved_says(found.moved),
            "Aim it again by its picture, then keep a new one.",
            vec![],
            costs,
        );
    }
    let blocked = regions(Differs::Blocked);
    // What stays is grown; what only this picture has is blocked.
    if !grown.is_empty() {
        let says = format!("something grew over {} of the picture", percent(&grown));
        let costs = served(session, head, Some(&grown), scale);
        add(LookKind::Grown, says, "Cut it back, or see whether the camera can stand elsewhere.", grown, costs);
    } else if has(Differs::Blocked) {
        let says = match blocked.is_empty() {
            true => "nothing of the reference is found again: it is covered".to_owned(),
            false => format!("something hides {} of the picture", percent(&blocked)),
        };
        let all = (!blocked.is_empty()).then_some(&blocked[..]);
        let costs = served(session, head, all, scale);
        add(LookKind::Blocked, says, "Look at the place: is it parked there, hung there, or grown?", blocked, costs);
    }
    let share = |share: f64| format!("{:.0} %", 100.0 * share);
    for (differs, kind, says, mend) in [
        (
            Differs::Hazed,
            LookKind::Hazed,
            format!("{} of the contrast is left", share(found.contrast_share)),
            "Clean the cover, inside too; look for light into the lens.",
        ),
        (
            Differs::OutOfFocus,
            LookKind::OutOfFocus,
            format!("{} of the sharpness is left", share(found.sharpness_share)),
            "Set the focus again, by day and by night.",
        ),
        (
            Differs::Darker,
            LookKind::Darker,
            format!("{} of the light is left", share(found.light_share)),
            "Look at lamps, infrared and exposure.",
        ),
    ] {
        if has(differs) {
            let part = regions(differs);
            // All of the picture, where the figure of the whole says so.
            let whole = part.is_empty();
            let costs = served(session, head, if whole { None } else { Some(&part) }, scale);
            let says = if whole { says } else { format!("{says} on the whole; worst over {}", percent(&part)) };
            add(kind, says, mend, part, costs);
        }
    }
    if let Some(off) = snapshot.clock_off_s.filter(|off| off.abs() > session.site().rules().proving.clock_s) {
        let word = if off > 0.0 { "fast" } else { "slow" };
        let says = format!("its clock is {} {word}", long(off.abs()));
        add(LookKind::ClockWrong, says, "Set its clock, and where it takes the time from.", vec![], vec![]);
    }
    faults
}

fn percent(regions: &[Region]) -> String {
    format!("{:.0} %", 100.0 * regions.iter().map(|region| region.share).sum::<f64>())
}

/// How long something is, in words.
fn long(seconds: f64) -> String {
    match seconds {
        s if s < 120.0 => format!("{s:.0} s"),
        s if s < 7200.0 => format!("{:.0} min", s / 60.0),
        s if s < 172_800.0 => format!("{:.1} h", s / 3600.0),
        s => format!("{:.0} days", s / 86_400.0),
    }
}

/// How a camera turned, in words.
fn moved_says(moved: Option<Moved>) -> String {
    let Some(moved) = moved else {
        return "it looks somewhere else: nothing of the reference is found again".to_owned();
    };
    let mut parts = vec![];
    let mut add = |by: f64, least: f64, more: &str, less: &str| {
        if by.abs() >= least {
            parts.push(format!("{:.1}° {}", by.abs(), if by > 0.0 { more } else { less }));
        }
    };
    add(moved.right_deg, 0.05, "to the right", "to the left");
    add(moved.down_deg, 0.05, "down", "up");
    add(moved.roll_deg, 0.1, "clockwise", "anticlockwise");
    if (moved.scale - 1.0).abs() >= 0.005 {
        let word = if moved.scale > 1.0 { "in" } else { "out" };
        parts.push(format!("zoomed {word} by {:.1} %", 100.0 * (moved.scale - 1.0).abs()));
    }
    if parts.is_empty() { "it moved a little".to_owned() } else { format!("it turned {}", parts.join(", ")) }
}

/// The promises that a view serves best, all of them or those that lie in some regions of the picture.
fn served(session: &Session, head: &Head, regions: Option<&[Region]>, scale: f64) -> Vec<LookCost> {
    let name = head.name();
    let targets = session.site().targets().iter().zip(&session.site().file().targets);
    let hit = |point: &DVec3| {
        let pixel = head.view().pixel_of(*point).filter(|(_, inside)| *inside).map(|(pixel, _)| pixel);
        pixel
            .is_some_and(|pixel| regions.is_none_or(|regions| regions.iter().any(|region| holds(region, pixel, scale))))
    };
    let pairs = targets.zip(session.results());
    let served =
        pairs.filter(|((target, _), result)| result.best.as_ref() == Some(&name) && target.samples.iter().any(hit));
    let cost = |((_, file), result): ((_, &crate::file::TargetFile), &crate::judge::evaluation::TargetResult)| {
        LookCost { target: file.id.clone(), name: file.name.clone(), before: result.verdict, now: None }
    };
    served.map(cost).collect()
}

fn holds(region: &Region, pixel: DVec2, scale: f64) -> bool {
    let [left, top, right, bottom] = region.box_px.map(|side| side * scale);
    (left..=right).contains(&pixel.x) && (top..=bottom).contains(&pixel.y)
}

/// The promises that stand worse with a head turned as its picture says: judged, not guessed.
fn turned(session: &Session, head: &Head, moved: Moved) -> Vec<LookCost> {
    let mut camera = session.site().file().cameras[head.camera()].clone();
    let one = &mut camera.heads[head.place()];
    let mut aim = one.aimed(head.which());
    let pose = &head.view().pose;
    let [right, down] = [moved.right_deg, moved.down_deg].map(|deg| deg.to_radians().tan());
    let forward = (pose.forward + pose.right * right + pose.down * down).normalize();
    let level = Angle::radians(-forward.z.clamp(-1.0, 1.0).asin());
    let pan = if forward.x.hypot(forward.y) > 1e-9 { Angle::bearing_of(forward.x, forward.y) } else { head.pan() };
    // The picture's own right edge goes along; against the level one it is how far it rolled.
    let plain = Pose::new(pose.position, pan, level, Angle::ZERO);
    let edge = pose.right - forward * pose.right.dot(forward);
    let roll = edge.dot(plain.down).atan2(edge.dot(plain.right)).to_degrees() + moved.roll_deg;
    (aim.pan_deg, aim.tilt_deg, aim.roll_deg) = (pan.deg().rem_euclid(360.0), level.deg(), roll);
    let lens = camera.model.lens;
    aim.focal_mm = (aim.focal_mm * moved.scale).clamp(lens.focal_min_mm, lens.focal_max_mm);
    one.set_aimed(head.which(), aim);
    let mut now = session.clone();
    let cameras = Some(ListChange { order: None, put: vec![camera] });
    if now.apply(SiteChange { cameras, ..SiteChange::default() }).is_err() {
        return served(session, head, None, 1.0);
    }
    let pairs = session.site().file().targets.iter().zip(session.results().iter().zip(now.results()));
    pairs
        .filter(|(_, (before, after))| after.verdict > before.verdict)
        .map(|(target, (before, after))| LookCost {
            target: target.id.clone(),
            name: target.name.clone(),
            before: before.verdict,
            now: Some(after.verdict),
        })
        .collect()
}
