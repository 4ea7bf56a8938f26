//! Ways to the overview beside whoever reads a plate: one more camera that keeps *observe* on the vehicle where it is read.

use super::desk::Desk;
use super::places::free_spots;
use super::rank::{Rank, compare_sites};
use super::way::{Measures, Way, WayKind};
use crate::change::edits::{aim_between, fresh_id};
use crate::file::{Aimed, CameraFile, Form, HeadFile, Model, PatchOp, Spot, Which};
use crate::judge::evaluation::{Seen, eye_around, seen_by, verdicts, view, viewer_of};
use crate::judge::lane::{OfLane, look_along_lane};
use crate::judge::sight_line::overview;
use crate::judge::zone::Zone;
use crate::site::Lane;
use crate::verdict::Verdict;
use crate::words::units::Units;
use glam::{DVec2, DVec3};
use serde_json::json;

/// How many spots are looked at, the nearest to where it is read first.
const MOST_SPOTS: usize = 8;
/// How high over the reader, on its own post, an overview hangs, m; where there is no spot.
const OVER_READER_M: f64 = 3.2;

/// One more camera for the overview, if the promise lacks one only.
pub fn overviews(desk: &Desk, models: &[Model], units: Units) -> Option<(Rank, Way)> {
    let result = &desk.session.results()[desk.target_place];
    let lane = desk.target().moving_lane()?;
    if result.overview.as_ref()?.verdict == Verdict::Kept {
        return None;
    }
    let head = desk.head(desk.camera());
    let zone = desk.looking(&head, |viewer| look_along_lane(viewer, desk.target(), lane)).zone?;
    let seen = ends_of(desk, lane, zone);
    let plain = |model: &&Model| {
        model.head_count.unwrap_or(1) == 1
            && !matches!(model.form, Form::Plate | Form::Ptz | Form::Fisheye)
            && model.infrared_light().is_some()
    };
    let models: Vec<&Model> = models.iter().filter(plain).collect();
    spots(desk, seen).into_iter().find_map(|spot| {
        models
            .iter()
            .find_map(|model| desk.budget.pay(40).then(|| with(desk, lane, zone, &spot, model, units)).flatten())
    })
}

/// The middle of the vehicle where its plate begins and ends to read.
fn ends_of(desk: &Desk, lane: &Lane, zone: Zone) -> [DVec3; 2] {
    let height = desk.target().overview.as_ref().map_or(0.0, |vehicle| vehicle.middle.z);
    zone.stated.map(|sample| lane.samples[sample].with_z(height))
}

fn spots(desk: &Desk, [from, to]: [DVec3; 2]) -> Vec<Spot> {
    let middle = ((from + to) / 2.0).truncate();
    let far = |spot: &Spot| DVec2::from_array(spot.position).distance(middle);
    let least = desk.site.rules().mount_min_m;
    let mut spots: Vec<Spot> =
        free_spots(desk.site.file()).into_iter().filter(|s| s.height_m >= least).cloned().collect();
    spots.sort_by(|a, b| far(a).total_cmp(&far(b)));
    spots.truncate(MOST_SPOTS);
    let camera = desk.camera();
    spots.push(Spot {
        position: camera.position,
        height_m: OVER_READER_M,
        ground_m: camera.ground_m,
        ..Spot::named("", &format!("a taller post where {} stands", camera.name))
    });
    spots
}

fn with(desk: &Desk, lane: &Lane, zone: Zone, spot: &Spot, model: &Model, units: Units) -> Option<(Rank, Way)> {
    let file = desk.site.file();
    let id = fresh_id("c", file.cameras.iter().map(|camera| camera.id.as_str()));
    let height_m = spot.height_m;
    let eye = DVec3::new(spot.position[0], spot.position[1], spot.ground_m + height_m);
    let aim = aim_between(eye, &ends_of(desk, lane, zone), 0.0);
    let aimed =
        Aimed { pan_deg: aim.pan_deg, tilt_deg: aim.tilt_deg, roll_deg: 0.0, focal_mm: model.lens.focal_min_mm };
    let camera = CameraFile {
        mount: None,
        reacts: None,
        fitting: None,
        name: id.to_uppercase(),
        id,
        position: spot.position,
        spot: (!spot.id.is_empty()).then(|| spot.id.clone()),
        mounted_on: None,
        mounted_as: None,
        housing: None,
        height_m,
        ground_m: spot.ground_m,
        model: model.clone(),
        emitter: None,
        power: None,
        stream: None,
        device: None,
        existing: None,
        housed_with: None,
        heads: vec![HeadFile::new("h1", aimed)],
    };
    let head = desk.site.head_of(file.cameras.len(), &camera, (0, Which::Own));
    let eye = eye_around(desk.site, &head);
    let viewer = viewer_of(desk.site, &head, &eye);
    let of = OfLane { overview: overview(viewer, desk.target()), ..OfLane::default() };
    let vehicle = desk.target().overview.as_ref()?;
    if of.overview_over(vehicle, lane, zone) != Verdict::Kept {
        return None;
    }
    let own = view(desk.site, &head, &eye);
    let mut all: Vec<Seen> = seen_by(desk.site, desk.session.views());
    all.push(Seen { head: &head, view: &own });
    let (rank, effects) = compare_sites(2.0, desk.site, desk.session.results(), &verdicts(desk.site, &all));
    let way = Way {
        kind: WayKind::Overview,
        says: format!("Put up an overview camera at {}: {}", spot.name, camera.model.name),
        why: format!(
            "by night whoever reads plates sees nothing else: from {} up it keeps the vehicle where it is read · one more cable, and one more camera to pay",
            units.length(height_m)
        ),
        // The reader in hand looks at it as before.
        head: desk.head(desk.camera()).name(),
        target: Some(desk.target().id.clone()),
        measures: Measures::default(),
        patch: vec![PatchOp { op: "add", path: "/cameras/-".to_owned(), value: Some(json!(camera)) }],
        effects,
        harms: rank.harms(),
    };
    Some((rank, way))
}
