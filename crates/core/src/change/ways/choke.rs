//! The search for choke points: from which spot, with which plate camera, at which height and aim a plate on its way is read best.

use super::beyond;
use super::change::{patch, placed_on};
use super::desk::Desk;
use super::places::free_spots;
use super::rank::Rank;
use super::way::{Measures, Way, WayKind};
use crate::change::edits::{aim_between, fresh_id, neat};
use crate::file::{Aimed, CameraFile, Exposure, Form, HeadFile, Model, PatchOp, PlateSchool, Spot, USUAL_FPS, Which};
use crate::judge::lane::{SAMPLES_A_LOOK, look_along_lane};
use crate::judge::zone::{ZoneTold, looks, told};
use crate::show::plates::start_settings::shutter_for;
use crate::site::Lane;
use crate::verdict::Verdict;
use crate::words::units::Units;
use glam::DVec2;
use serde_json::json;

/// Aims are tried at places of the way so far apart, m.
const AIM_STEP_M: f64 = 1.0;
/// At most so many of them.
const MOST_AIMS: usize = 60;
/// How many spots are looked at, the nearest to the way first.
const MOST_SPOTS: usize = 12;
/// How many are named.
const MOST_NAMED: usize = 3;
/// A plate camera stands between these distances from where it reads, m; common practice, no source.
const DISTANCES_M: std::ops::RangeInclusive<f64> = 3.0..=60.0;
/// Usual heights of the two schools, m (handbook, section 6).
const LEVEL_M: f64 = 1.2;
const RAISED_M: f64 = 3.0;
/// How wide the picture is made: shares of the widest that a lane may have.
const WIDTHS: [f64; 2] = [0.85, 0.65];

/// A place to read from, with what it gives.
struct Choke {
    camera: CameraFile,
    at: String,
    zone: ZoneTold,
    /// Pictures of a plate at worst.
    looks: f64,
    by: f64,
}

/// The best places to read a plate on its way from, each with what it changes; the best first.
pub fn chokes(desk: &Desk, models: &[Model], units: Units) -> Vec<(Rank, Way)> {
    let Some(lane) = desk.target().moving_lane() else { return vec![] };
    let models: Vec<&Model> = models.iter().filter(|model| model.form == Form::Plate).collect();
    let mut found: Vec<Choke> =
        places(desk, lane).iter().filter_map(|spot| best_at(desk, lane, spot, &models)).collect();
    found.sort_by(|a, b| b.looks.total_cmp(&a.looks).then(a.by.total_cmp(&b.by)));
    found.into_iter().take(MOST_NAMED).enumerate().filter_map(|(place, choke)| way(desk, choke, place, units)).collect()
}

/// Where a plate camera can hang: where the one in question does, and the free spots.
fn places(desk: &Desk, lane: &Lane) -> Vec<Spot> {
    let file = desk.site.file();
    let camera = desk.camera();
    let far = |spot: &Spot| {
        let at = DVec2::from_array(spot.position);
        lane.samples.iter().step_by(10).map(|sample| sample.truncate().distance(at)).fold(f64::INFINITY, f64::min)
    };
    let mut spots: Vec<Spot> = free_spots(file).into_iter().cloned().collect();
    spots.sort_by(|a, b| far(a).total_cmp(&far(b)));
    spots.truncate(MOST_SPOTS);
    if is_reader(camera) {
        let held = camera.spot.as_ref().and_then(|id| file.spots.iter().find(|spot| spot.id == *id));
        let here = held.cloned().unwrap_or_else(|| Spot {
            position: camera.position,
            height_m: camera.height_m,
            ground_m: camera.ground_m,
            ..Spot::named("", "where it is")
        });
        spots.insert(0, here);
    }
    spots
}

/// Whether a camera is there to read plates, so that it may be moved for them.
fn is_reader(camera: &CameraFile) -> bool {
    camera.model.form == Form::Plate && camera.heads.len() == 1
}

fn best_at(desk: &Desk, lane: &Lane, spot: &Spot, models: &[&Model]) -> Option<Choke> {
    desk.budget.next_search();
    let rules = desk.site.rules();
    let (side, vertical, usual) = match rules.plate_school {
        PlateSchool::Level => (rules.level_side_deg, rules.level_vertical_deg, LEVEL_M),
        PlateSchool::Raised => (rules.raised_side_deg, rules.raised_vertical_deg, RAISED_M),
    };
    let mut heights = vec![spot.height_m.max(0.05)];
    // No higher than what stands there.
    if usual < spot.height_m - 0.05 {
        heights.push(usual);
    }
    let step = ((AIM_STEP_M / (lane.along.get(1).copied().unwrap_or(1.0))).round() as usize).max(1);
    let step = step.max(lane.samples.len() / MOST_AIMS);
    let mut best: Option<Choke> = None;
    for height in heights {
        let mut base = base_camera(desk, spot, height);
        let eye = base.eye();
        for sample in (0..lane.samples.len()).step_by(step) {
            let point = lane.samples[sample];
            let apart = eye - point;
            let ground = apart.truncate().length();
            let facing = desk.target().facing.unwrap_or_else(|| lane.facing(sample, eye.truncate()));
            let off = (apart.x * facing.sin() + apart.y * facing.cos()) / ground.max(1e-9);
            let steep = apart.z.abs().atan2(ground).to_degrees();
            if !DISTANCES_M.contains(&apart.length())
                || off.clamp(-1.0, 1.0).acos().to_degrees() > side
                || steep > vertical
            {
                continue;
            }
            let aim = aim_between(eye, &[point], 0.0);
            for model in models {
                for width in WIDTHS {
                    let wished = model.sensor.width_mm * apart.length() / (rules.lane_width_m * width);
                    let focal = neat(wished, 0.1).clamp(model.lens.focal_min_mm, model.lens.focal_max_mm);
                    base.model = (*model).clone();
                    base.heads[0] = head_of(
                        desk,
                        Aimed { pan_deg: aim.pan_deg, tilt_deg: aim.tilt_deg, roll_deg: 0.0, focal_mm: focal },
                    );
                    if let Some(choke) = tried(desk, lane, &base, spot)
                        && best.as_ref().is_none_or(|best| choke.looks > best.looks)
                    {
                        best = Some(choke);
                    }
                }
            }
        }
    }
    best
}

fn base_camera(desk: &Desk, spot: &Spot, height: f64) -> CameraFile {
    let mut camera = desk.camera().clone();
    if !is_reader(&camera) {
        camera.id = fresh_id("c", desk.site.file().cameras.iter().map(|camera| camera.id.as_str()));
        camera.name = camera.id.to_uppercase();
        camera.heads.truncate(1);
        camera.emitter = None;
    }
    placed_on(&mut camera, (!spot.id.is_empty()).then_some(spot));
    camera.height_m = height;
    camera
}

fn head_of(desk: &Desk, aimed: Aimed) -> HeadFile {
    let held = desk.camera().heads[desk.head_place].exposure;
    let fps = held.map_or(USUAL_FPS, |held| held.fps);
    let id = if is_reader(desk.camera()) { desk.camera().heads[0].id.as_str() } else { "h1" };
    HeadFile { exposure: Some(Exposure::fixed(0.001, fps)), ..HeadFile::new(id, aimed) }
}

/// A camera as it would hang, if it keeps the promise there.
fn tried(desk: &Desk, lane: &Lane, camera: &CameraFile, spot: &Spot) -> Option<Choke> {
    if !desk.budget.pay((2 + lane.samples.len() / SAMPLES_A_LOOK) * desk.look_costs()) || !desk.can_be_built(camera) {
        return None;
    }
    let target = desk.target();
    let head = desk.site.head_of(desk.camera_place, camera, (0, Which::Own));
    if desk.site.scene().solid_around(desk.site.scene().out_of_mounting(head.position(), head.mounted_on())).is_some() {
        return None;
    }
    let first = desk.looking(&head, |viewer| {
        let of = look_along_lane(viewer, target, lane);
        of.zone.map(|zone| (told(viewer, target, lane, zone), of))
    });
    let (zone, of) = first?;
    let mut camera = camera.clone();
    if let Some(exposure) = &mut camera.heads[0].exposure {
        *exposure = exposure.with_shutter(shutter_for(zone.shutter_wanted_s));
    }
    // Where it reads does not hang on the shutter.
    let head = desk.site.head_of(desk.camera_place, &camera, (0, Which::Own));
    let (verdict, looks) = desk.looking(&head, |viewer| {
        let good = zone.serves.map_or(0.0, |[from, to]| looks(viewer, lane, to - from));
        (of.verdict(viewer, target, lane), good)
    });
    let by = DVec2::from_array(camera.position).distance(DVec2::from_array(desk.camera().position));
    (verdict == Verdict::Kept).then(|| Choke { camera, at: spot.name.clone(), zone, looks, by })
}

fn way(desk: &Desk, choke: Choke, place: usize, units: Units) -> Option<(Rank, Way)> {
    let Choke { camera, at, zone, looks, by } = choke;
    let head = &camera.heads[0];
    let effort = 2.2 + 0.3 * place as f64 + by / 100.0;
    let says = format!(
        "Read them from {at}: {}, {} mm, {} up, aim {:.1}° and {:.1}° down",
        camera.model.name,
        head.focal_mm,
        units.length(camera.height_m),
        head.pan_deg,
        head.tilt_deg
    );
    let why = format!(
        "readable over {} of the path, {looks:.0} good pictures in the worst case, from {} to {} away; shutter {}",
        units.length(zone.to - zone.from),
        units.length(zone.near_m),
        units.length(zone.far_m),
        crate::show::plates::start_settings::fraction(
            head.exposure.and_then(|exposure| exposure.shutter_s).unwrap_or_default()
        ),
    );
    let target = Some(desk.target().id.clone());
    let of = |head, patch: Vec<PatchOp>, effects, rank: Rank| {
        let (kind, measures, harms) = (WayKind::Choke, Measures::default(), rank.harms());
        (rank, Way { kind, says, why, head, target, measures, patch, effects, harms })
    };
    if is_reader(desk.camera()) {
        let (rank, effects) = desk.consequences(effort, &camera)?;
        let patch = patch(desk.camera_place, desk.camera(), &camera);
        return (!patch.is_empty()).then(|| of(desk.head(desk.camera()).name(), patch, effects, rank));
    }
    let (rank, effects, camera) = beyond::added(desk, camera, effort + 4.0)?;
    let put_up = PatchOp { op: "add", path: "/cameras/-".to_owned(), value: Some(json!(camera)) };
    Some(of(beyond::first_head_of(&camera), vec![put_up], effects, rank))
}
