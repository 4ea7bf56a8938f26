//! The section along a sight line: what an upright cut from the head to the target shows.

use super::edges::{edge_between, range_of};
use crate::file::{Fault, Question, Task};
use crate::judge::Session;
use crate::math::{Angle, Interval, Separation};
use crate::site::{Head, Site};
use glam::DVec3;
use serde::Serialize;
use utoipa::ToSchema;

/// How far behind the camera the section begins, m.
const BEHIND_M: f64 = 4.0;

/// A cut along the bearing from a head to a target. Distances are along the ground from the camera.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Section {
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// The target's id.
    pub target: String,
    /// Bearing of the cut, degrees.
    pub bearing_deg: f64,
    /// Height of the camera, m.
    pub camera_height_m: f64,
    /// Ground distance to the target, m.
    pub ground_m: f64,
    /// Height of the target, m.
    pub target_height_m: f64,
    /// Where the section begins (negative: behind the camera) and ends, m.
    pub from_m: f64,
    /// Where it ends, m.
    pub to_m: f64,
    /// The picture's edges on this bearing; null when the bearing is not in the picture.
    #[schema(required)]
    pub edges: Option<PictureEdges>,
    /// The solids that the cut meets.
    pub solids: Vec<CutSolid>,
    /// Where each need ends along the ground, at the target's height.
    pub need_ends: Vec<NeedEnd>,
}

/// The upper and lower edge of the picture on one bearing.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct PictureEdges {
    /// Depression of the upper edge, degrees; negative above the horizon.
    pub top_deg: f64,
    /// Depression of the lower edge, degrees.
    pub bottom_deg: f64,
    /// Ground nearer than this is unseen, m; null when the lower edge never meets the ground.
    #[schema(required)]
    pub unseen_ground_to_m: Option<f64>,
    /// At the target's height nothing nearer than this is seen, m.
    #[schema(required)]
    pub unseen_at_height_to_m: Option<f64>,
}

/// A solid in the cut.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct CutSolid {
    /// The obstacle's id.
    pub id: String,
    /// Where the cut enters it, m.
    pub start_m: f64,
    /// Where the cut leaves it, m; the same as `start_m` for a thin wall.
    pub end_m: f64,
    /// Height of its underside, m.
    pub base_m: f64,
    /// Height of its top, m.
    pub top_m: f64,
    /// Whether it hides what is behind it.
    pub blocks: bool,
    /// Whether it is in the way of this sight line.
    pub in_the_way: bool,
}

/// Where a need ends.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct NeedEnd {
    /// The task.
    pub task: Task,
    /// Its need, px/m.
    pub px_per_m: f64,
    /// The greatest ground distance at which it is met, m.
    pub ground_m: f64,
}

/// Cuts a site along one sight line.
///
/// # Errors
/// Names the id that the site does not have.
pub fn section(session: &Session, question: &Question) -> Result<Section, Fault> {
    let line = session.line(question)?;
    let site = session.site();
    let head = site.view(&question.head_ref())?;
    let target = &site.targets()[site.target_place(&question.target)?];
    let here = head.position();
    // Behind the head there is no line: the cut then runs to the target's first point.
    let point = line.map_or(target.samples[0], |line| DVec3::new(line.at[0], line.at[1], target.samples[0].z));
    let apart = Separation::between(here, point, || head.view().heading());
    let to_m = (1.3 * apart.ground).max(apart.ground + 4.0);
    let edges = picture_edges(head, apart.bearing(), point.z);
    Ok(Section {
        camera: head.camera_id().to_owned(),
        head: head.id().to_owned(),
        target: target.id.clone(),
        bearing_deg: apart.bearing().deg(),
        camera_height_m: here.z,
        ground_m: apart.ground,
        target_height_m: point.z,
        from_m: -BEHIND_M,
        to_m,
        edges,
        solids: cut_solids(site, head, apart.bearing(), to_m, point),
        need_ends: need_ends(site, head, apart.bearing(), point.z),
    })
}

fn at(here: DVec3, bearing: Angle, ground: f64, z: f64) -> DVec3 {
    DVec3::new(here.x + bearing.sin() * ground, here.y + bearing.cos() * ground, z)
}

/// The depressions, degrees, that the picture spans on a bearing.
fn picture_edges(head: &Head, bearing: Angle, height: f64) -> Option<PictureEdges> {
    const STEP_DEG: f64 = 0.25;
    let here = head.position();
    let holds = |depression: f64| {
        let down = Angle::degrees(depression);
        let ray = DVec3::new(bearing.sin() * down.cos(), bearing.cos() * down.cos(), -down.sin());
        head.view().holds(here + ray)
    };
    let steps = (179.0 / STEP_DEG) as u32;
    let angles = (0..=steps).map(|step| -89.5 + f64::from(step) * STEP_DEG);
    let held: Vec<f64> = angles.filter(|angle| holds(*angle)).collect();
    let (first, last) = (*held.first()?, *held.last()?);
    let top_deg = edge_between(first - STEP_DEG, first, holds);
    let bottom_deg = edge_between(last + STEP_DEG, last, holds);
    let reaches = |drop: f64| {
        let below = Angle::degrees(bottom_deg);
        (below.rad() > 0.0 && drop > 0.0).then(|| (drop * below.cos() / below.sin()).max(0.0))
    };
    Some(PictureEdges {
        top_deg,
        bottom_deg,
        unseen_ground_to_m: reaches(here.z),
        unseen_at_height_to_m: reaches(here.z - height),
    })
}

fn cut_solids(site: &Site, head: &Head, bearing: Angle, to_m: f64, point: DVec3) -> Vec<CutSolid> {
    let here = head.position();
    let eye = site.scene().out_of_mounting(here, head.mounted_on());
    let (from, to) = (at(here, bearing, -BEHIND_M, 0.0).truncate(), at(here, bearing, to_m, 0.0).truncate());
    let length = to_m + BEHIND_M;
    let ground = |share: f64| share * length - BEHIND_M;
    let mut solids = Vec::new();
    for solid in site.scene().solids() {
        let in_the_way = solid.first_hit(eye, point).is_some();
        solids.extend(solid.over(from, to).into_iter().map(|Interval { start, end }| CutSolid {
            id: solid.id().to_owned(),
            start_m: ground(start),
            end_m: ground(end),
            base_m: solid.base(),
            top_m: solid.top(),
            blocks: solid.blocks(),
            in_the_way,
        }));
    }
    solids
}

/// Where each need of the site's table ends along a bearing, at a height.
fn need_ends(site: &Site, head: &Head, bearing: Angle, height: f64) -> Vec<NeedEnd> {
    let here = head.position();
    let density = |ground: f64| head.view().across_at(at(here, bearing, ground, height));
    let contours = site.rules().needs.contours();
    let farthest = range_of(head, contours[0].1);
    contours
        .into_iter()
        .filter(|(_, need)| density(0.01) >= *need)
        .map(|(task, need)| NeedEnd {
            task,
            px_per_m: need,
            ground_m: edge_between(farthest, 0.01, |ground| density(ground) >= need),
        })
        .collect()
}
