//! Ways to put more of a head's picture to use, and what the two schools of tilt would cost it.

use super::change::{Candidate, Change, Moved, Place, patch};
use super::desk::{Budget, Desk};
use super::places::free_spots;
use super::way::{Measures, Way, WayKind};
use super::words;
use crate::file::{CameraFile, Fault, HeadRef, Which};
use crate::judge::Session;
use crate::judge::evaluation::eye_around;
use crate::show::coverage::picture_use::{picture_use, task_of};
use crate::site::{GroundEdges, Head, half_upright};
use crate::words::units::Units;
use crate::work::Patience;
use glam::DVec2;
use serde::Serialize;
use utoipa::ToSchema;

/// Tilts that are tried: so many steps up and down, degrees each.
const TILT_STEPS: i32 = 15;
const TILT_STEP_DEG: f64 = 2.0;
/// Longer lenses that are tried, as multiples of the focal length.
const LONGER: [f64; 3] = [1.25, 1.5, 2.0];
/// How many free spots are looked at.
const MOST_SPOTS: usize = 4;
/// A way that gains less of the picture than this is none.
const LEAST_GAIN: f64 = 0.03;
/// Tilt of the school of shade on walls, degrees (handbook, section 6; common practice, no source).
const SHADE_TILT_DEG: f64 = 45.0;
/// What that school is called.
pub(super) const SHADE: &str = "Method: shade";

/// The useful share of a head's picture now, and what would change it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PictureWays {
    /// The useful share now, 0 to 1.
    pub useful: f64,
    /// How far out the ground straight ahead is of use now, m.
    pub reach_m: f64,
    /// What gains, without making a promise worse, the most first; then what each school of tilt would give and cost.
    pub ways: Vec<Way>,
}

/// Finds ways to put more of a head's picture to use that make no promise worse, and prices the two schools of tilt.
///
/// # Errors
/// Names the head that the site does not have.
pub fn picture_ways(session: &Session, head: &HeadRef, units: Units) -> Result<PictureWays, Fault> {
    let budget = Budget::within(&Patience::ENDLESS);
    let site = session.site();
    let head = site.view(head)?;
    let desk = Desk::of(session, head, 0, &budget);
    let served = task_of(session, head);
    let useful_of = |head: &Head| picture_use(site, head, &eye_around(site, head), served).useful;
    let now = useful_of(head);
    let mut ways = Vec::new();
    for (kind, mut tried) in [
        (WayKind::Tilt, tilts(&desk)),
        (WayKind::Corridor, vec![Change::Roll(if head.roll().sin().abs() < 0.5 { 90.0 } else { 0.0 })]),
        (WayKind::Longer, longer(&desk)),
        (WayKind::Spot, spots(&desk)),
    ] {
        let fits = |change: &Change| candidate(&desk, change).is_some();
        tried.retain(fits);
        let mut found: Vec<(f64, Change)> = tried
            .into_iter()
            .filter_map(|change| Some((useful_of(&desk.head(&candidate(&desk, &change)?.1)), change)))
            .filter(|(useful, _)| *useful >= now + LEAST_GAIN)
            .collect();
        found.sort_by(|a, b| b.0.total_cmp(&a.0));
        let priced = found
            .into_iter()
            .take(6)
            .filter_map(|(useful, change)| way(&desk, kind, change, (useful, served.1), units));
        ways.extend(priced.into_iter().find(|way| !way.harms));
    }
    ways.sort_by(|a: &Way, b| b.measures.useful.unwrap_or(0.0).total_cmp(&a.measures.useful.unwrap_or(0.0)));
    if !matches!(head.which(), Which::Flattened(_)) {
        let [(_, shade), (_, reach)] = tilt_schools(head);
        for (kind, tilt) in [(WayKind::Shade, shade), (WayKind::Reach, reach)] {
            let change = Change::Aim(head.pan().deg(), tilt);
            let Some((_, then)) = candidate(&desk, &change) else { continue };
            let useful = useful_of(&desk.head(&then));
            ways.extend(way(&desk, kind, change, (useful, served.1), units));
        }
    }
    Ok(PictureWays { useful: now, reach_m: reach(head, served.1), ways })
}

/// The tilts of the two schools (handbook, section 6), degrees down: *shade* well down, *reach* with the top edge at the horizon.
pub(super) fn tilt_schools(head: &Head) -> [(&'static str, f64); 2] {
    let half_up = half_upright(head);
    [(SHADE, SHADE_TILT_DEG), ("Method: reach", (half_up.to_degrees() * 2.0).round() / 2.0)]
}

/// A change made, if the build takes it.
fn candidate(desk: &Desk, change: &Change) -> Option<(Candidate, CameraFile)> {
    let candidate = Candidate { head: (desk.head_place, desk.which), changes: vec![change.clone()], effort: 0.0 };
    let then = candidate.applied(desk.camera());
    desk.can_be_built(&then).then_some((candidate, then))
}

/// How far out the ground straight ahead is in the picture and within reach of a need, px/m, m: to the far edge, or to where the
/// need ends on the axis.
fn reach(head: &Head, need: f64) -> f64 {
    let far = GroundEdges::of(head).far_m.unwrap_or(f64::INFINITY);
    let range = head.view().projection.focal_px() / need;
    let ground = (range * range - head.position().z.powi(2)).max(0.0).sqrt();
    far.min(ground)
}

fn way(desk: &Desk, kind: WayKind, change: Change, (useful, need): (f64, f64), units: Units) -> Option<Way> {
    let (candidate, then) = candidate(desk, &change)?;
    let (rank, effects) = desk.consequences(0.0, &then)?;
    let says = match kind {
        WayKind::Shade => format!("Shade: tilt {SHADE_TILT_DEG:.0}° down, away from sun and sky"),
        WayKind::Reach => format!(
            "Reach: tilt {:.1}°, the top edge at the horizon",
            then.heads[desk.head_place].aimed(desk.which).tilt_deg
        ),
        _ => words::says(desk, &candidate, units),
    };
    let patch = patch(desk.camera_place, desk.camera(), &then);
    let head = desk.head(&then);
    let measures = Measures { useful: Some(useful), reach_m: Some(reach(&head, need)), left: None };
    let (head, why, harms) = (head.name(), String::new(), rank.harms());
    Some(Way { kind, says, why, head, target: None, measures, patch, effects, harms })
}

fn tilts(desk: &Desk) -> Vec<Change> {
    let aim = desk.camera().heads[desk.head_place].aimed(desk.which);
    let steps = (-TILT_STEPS..=TILT_STEPS).filter(|step| *step != 0);
    let tilts = steps.map(|step| aim.tilt_deg + f64::from(step) * TILT_STEP_DEG);
    tilts.filter(|tilt| tilt.abs() <= 90.0).map(|tilt| Change::Aim(aim.pan_deg, tilt)).collect()
}

fn longer(desk: &Desk) -> Vec<Change> {
    let lens = desk.camera().lens_of(desk.head_place);
    let now = desk.camera().heads[desk.head_place].aimed(desk.which).focal_mm;
    let neat = |by: f64| (now * by * 10.0).round() / 10.0;
    LONGER.into_iter().map(neat).filter(|focal| lens.has_focal(*focal) && *focal > now).map(Change::Focal).collect()
}

fn spots(desk: &Desk) -> Vec<Change> {
    let here = DVec2::from_array(desk.camera().position);
    let mut free = free_spots(desk.site.file());
    free.sort_by(|a, b| {
        let far = |spot: &crate::file::Spot| DVec2::from_array(spot.position).distance(here);
        far(a).total_cmp(&far(b))
    });
    free.truncate(MOST_SPOTS);
    let place = |spot: &crate::file::Spot| {
        Change::Place(Place {
            how: Moved::Spot { id: spot.id.clone(), height_m: spot.height_m.max(0.05), ground_m: spot.ground_m },
            position: spot.position,
            by: DVec2::from_array(spot.position).distance(here),
            on: Some(spot.name.clone()),
            mounted_on: None,
        })
    };
    free.into_iter().map(place).collect()
}
