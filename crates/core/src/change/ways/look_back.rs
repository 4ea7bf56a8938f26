//! Look back at the building: people hug its walls under cameras that look outward. Where the least-seen way follows a wall, a camera that
//! looks along that wall sees whoever comes (handbook, section 6, "Overlap").

use super::beyond::first_head_of;
use super::change::{Candidate, Change, patch};
use super::desk::{Budget, Desk};
use super::rank::compare_sites;
use super::way::{Measures, Way, WayKind};
use super::words;
use crate::change::edits::{aim_between, fresh_id, neat, new_camera};
use crate::file::{CameraFile, Fault, Form, ObstacleKind, PatchOp, Point2, Which};
use crate::judge::Session;
use crate::judge::evaluation::{Seen, eye_around, seen_by, verdicts, view};
use crate::scene::{Eye, Solid};
use crate::site::{Head, Site};
use crate::words::units::Units;
use crate::work::Patience;
use glam::{DVec2, DVec3};
use serde_json::json;

/// A way that runs so near to a wall hugs it, m; common practice, no source.
const HUGS_M: f64 = 1.5;
/// Less of it than this is nothing to look along, m.
const LEAST_M: f64 = 3.0;
/// The way is looked at in such steps, m.
const STEP_M: f64 = 0.25;
/// A camera hangs so far off the corner of a wall, and so high, m: out of reach.
const OFF_CORNER_M: f64 = 0.2;
const UP_M: f64 = 3.0;
/// A spot or a camera so near to the wall looks along it, m.
const BESIDE_M: f64 = 1.0;
/// How many ways are offered.
const MOST: usize = 3;
/// The longest way that is looked at, in corners.
const MOST_POINTS: usize = 2000;

/// Cameras that look along the wall that a way follows: one that hangs there turned, or one more on a spot or a corner; that which sees most
/// of it first, and what costs a promise last.
///
/// # Errors
/// A way that is none.
pub fn look_back(
    session: &Session,
    path: &[Point2],
    height_m: f64,
    need: f64,
    units: Units,
) -> Result<Vec<Way>, Fault> {
    if path.len() > MOST_POINTS || path.iter().flatten().any(|axis| !axis.is_finite() || axis.abs() > 1e6) {
        return Err(Fault::new("path", "is no route on a site"));
    }
    let site = session.site();
    let Some((wall, stretch)) = hugged(site, path) else { return Ok(vec![]) };
    let points: Vec<DVec3> = stretch.iter().map(|at| at.extend(height_m)).collect();
    let long = stretch.len() as f64 * STEP_M;
    let name = site.file().obstacles.iter().find(|o| o.id == wall.id()).map_or("the wall", |o| o.name.as_str());
    let budget = Budget::within(&Patience::ENDLESS);
    let mut found: Vec<(f64, Way)> = Vec::new();
    for head in site.heads().iter().filter(|head| head.which() == Which::Own && beside(wall, head.position())) {
        let desk = Desk::of(session, head, 0, &budget);
        let aim = aim_between(head.position(), &points, head.pan().deg());
        let changes = vec![Change::Aim(neat(aim.pan_deg, 0.1), neat(aim.tilt_deg, 0.1))];
        let candidate = Candidate { head: (desk.head_place, desk.which), changes, effort: 1.0 };
        let then = candidate.applied(desk.camera());
        budget.next_search();
        let turned = desk.head(&then);
        let seen = seen_of(site, &turned, &points, need);
        let Some((rank, effects)) = desk.consequences(1.0, &then).filter(|_| desk.can_be_built(&then)) else {
            continue;
        };
        found.push((
            seen,
            Way {
                kind: WayKind::Aim,
                says: format!(
                    "Look back along {name}: {} of {}",
                    lower(&words::says(&desk, &candidate, units)),
                    desk.camera().name
                ),
                why: told(seen, long, units),
                head: turned.name(),
                target: None,
                measures: Measures::default(),
                patch: patch(desk.camera_place, desk.camera(), &then),
                effects,
                harms: rank.harms(),
            },
        ));
    }
    found.extend(new_cameras(session, wall, &points, need).into_iter().map(|(seen, place, camera)| {
        let head = site.head_of(site.file().cameras.len(), &camera, (0, Which::Own));
        let eye = eye_around(site, &head);
        let own = view(site, &head, &eye);
        let mut all: Vec<Seen> = seen_by(site, session.views());
        all.push(Seen { head: &head, view: &own });
        let (rank, effects) = compare_sites(7.0, site, session.results(), &verdicts(site, &all));
        let way = Way {
            kind: WayKind::Camera,
            says: format!("Look back along {name}: one more camera {place}, {}", camera.model.name),
            why: format!("{} · one more cable, and one more camera to pay", told(seen, long, units)),
            head: first_head_of(&camera),
            target: None,
            measures: Measures::default(),
            patch: vec![PatchOp { op: "add", path: "/cameras/-".to_owned(), value: Some(json!(camera)) }],
            effects,
            harms: rank.harms(),
        };
        (seen, way)
    }));
    found.retain(|(seen, _)| *seen >= LEAST_M);
    found.sort_by(|a, b| a.1.harms.cmp(&b.1.harms).then(b.0.total_cmp(&a.0)));
    found.truncate(MOST);
    Ok(found.into_iter().map(|(_, way)| way).collect())
}

fn told(seen: f64, long: f64, units: Units) -> String {
    format!("sees {} of the {} of it along the wall", units.length(seen), units.length(long))
}

/// The solid that a way follows longest, and the places of it on the way.
fn hugged<'a>(site: &'a Site, path: &[Point2]) -> Option<(&'a Solid, Vec<DVec2>)> {
    let corners: Vec<DVec2> = path.iter().map(|at| DVec2::from_array(*at)).collect();
    let steps = corners.windows(2).flat_map(|pair| {
        let count = (pair[0].distance(pair[1]) / STEP_M).ceil().clamp(1.0, 4000.0) as usize;
        (0..count).map(move |i| pair[0].lerp(pair[1], i as f64 / count as f64))
    });
    let steps: Vec<DVec2> = steps.collect();
    // A parked van is no wall.
    let is_wall = |solid: &&Solid| {
        let kind = site.file().obstacles.iter().find(|o| o.id == solid.id()).map(|o| o.kind);
        matches!(kind, Some(ObstacleKind::Building | ObstacleKind::Wall))
    };
    let high = |solid: &&Solid| solid.blocks() && solid.top() > UP_M - 1.0;
    let walls = site.scene().solids().iter().filter(high).filter(is_wall);
    let along = |solid: &Solid| -> Vec<DVec2> {
        steps.iter().copied().filter(|at| solid.nearest_on_outline(*at).distance(*at) <= HUGS_M).collect()
    };
    let found = walls.map(|solid| (solid, along(solid))).max_by_key(|(_, stretch)| stretch.len());
    found.filter(|(_, stretch)| stretch.len() as f64 * STEP_M >= LEAST_M)
}

fn beside(wall: &Solid, at: DVec3) -> bool {
    wall.nearest_on_outline(at.truncate()).distance(at.truncate()) <= BESIDE_M
}

/// How much of some places a head sees at a need, m; by night only what is lit.
fn seen_of(site: &Site, head: &Head, points: &[DVec3], need: f64) -> f64 {
    let eye: Eye = eye_around(site, head);
    let night = site.file().conditions.night;
    let lit = |point: DVec3| head.light().is_enough(head.position(), point, site.scene(), site.lamps());
    let sees = |point: &&DVec3| {
        head.look(**point).is_some_and(|look| look.in_view && look.across >= need)
            && !eye.is_blocked(site.scene(), **point)
            && (!night || lit(**point))
    };
    points.iter().filter(sees).count() as f64 * STEP_M
}

/// Cameras that may be put up on the wall, each with where that is.
fn new_cameras(session: &Session, wall: &Solid, points: &[DVec3], need: f64) -> Vec<(f64, String, CameraFile)> {
    let site = session.site();
    let file = site.file();
    let least = site.rules().mount_min_m;
    let spots = super::places::free_spots(file)
        .into_iter()
        .filter(|spot| spot.height_m >= least && beside(wall, DVec2::from_array(spot.position).extend(0.0)));
    let spots: Vec<(String, Point2, Option<f64>)> =
        spots.map(|spot| (format!("at {}", spot.name), spot.position, None)).collect();
    let middle = wall.corners().iter().sum::<DVec2>() / wall.corners().len().max(1) as f64;
    let corners = wall.corners().iter().map(|corner| {
        let at = *corner + (*corner - middle).normalize_or_zero() * OFF_CORNER_M;
        ("on its corner".to_owned(), [neat(at.x, 0.01), neat(at.y, 0.01)], Some(UP_M.max(least)))
    });
    let usual = file.cameras.iter().map(|camera| &camera.model).find(|model| {
        !matches!(model.form, Form::Plate | Form::Ptz | Form::Fisheye) && model.head_count.unwrap_or(1) == 1
    });
    let places = spots.into_iter().chain(corners);
    let tried = places.filter_map(|(says, at, height)| {
        let mut camera = new_camera(site, at, 0.05, None).ok()?;
        if let Some(model) = usual {
            camera.model = model.clone();
        }
        camera.heads.truncate(1);
        camera.id = fresh_id("c", file.cameras.iter().map(|camera| camera.id.as_str()));
        camera.heads[0].focal_mm = camera.model.lens.focal_min_mm;
        camera.height_m = height.unwrap_or(camera.height_m);
        let aim = aim_between(camera.eye(), points, 0.0);
        (camera.heads[0].pan_deg, camera.heads[0].tilt_deg) = (aim.pan_deg, aim.tilt_deg);
        let head = site.head_of(file.cameras.len(), &camera, (0, Which::Own));
        let free = site.scene().solid_around(head.position()).is_none();
        free.then(|| (seen_of(site, &head, points, need), says, camera))
    });
    // The best surveyed spot, and the best corner.
    let (on_spots, on_corners): (Vec<_>, Vec<_>) = tried.partition(|(_, _, camera)| camera.spot.is_some());
    let best = |of: Vec<(f64, String, CameraFile)>| of.into_iter().max_by(|a, b| a.0.total_cmp(&b.0));
    best(on_spots).into_iter().chain(best(on_corners)).collect()
}

fn lower(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or(String::new(), |first| first.to_lowercase().chain(letters).collect())
}
