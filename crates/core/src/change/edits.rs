//! What a hand does to cameras and targets: aim at a target, set a measured distance, take another model, put a camera up.

use crate::equipment::catalogue;
pub use crate::file::fresh_id;
use crate::file::{Aimed, CameraFile, Fault, HeadFile, Model, Point2, Question, SiteFile, Spot, TargetFile};
use crate::math::{Angle, Separation, ground_of_slant};
use crate::site::Site;
use glam::DVec3;
use serde::Serialize;
use utoipa::ToSchema;

/// Height that a camera is put up at where nothing else says, m.
const USUAL_HEIGHT_M: f64 = 3.0;
/// Tilt of a camera that is aimed at nothing yet, degrees.
const USUAL_TILT_DEG: f64 = 15.0;
/// The model that a new camera begins with: a common one that the dials then change.
const FIRST_MODEL: &str = "Turret 4 MP 2.8–12 mm";

/// Where a head points.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct Aim {
    /// Bearing of the optical axis, degrees.
    pub pan_deg: f64,
    /// Its angle below the horizontal, degrees.
    pub tilt_deg: f64,
}

/// The aim that has some points in the middle of the angles they span, to a tenth of a degree; `plumb_deg` is the bearing for a
/// point straight below.
pub fn aim_between(from: DVec3, points: &[DVec3], plumb_deg: f64) -> Aim {
    let plumb = Angle::degrees(plumb_deg);
    let first = Separation::between(from, points[0], || plumb).bearing();
    let (mut pan, mut tilt) = ((f64::MAX, f64::MIN), (f64::MAX, f64::MIN));
    for point in points {
        let apart = Separation::between(from, *point, || plumb);
        let turn = (apart.bearing() - first).wrapped().deg();
        pan = (pan.0.min(turn), pan.1.max(turn));
        tilt = (tilt.0.min(apart.depression().deg()), tilt.1.max(apart.depression().deg()));
    }
    let bearing = (first.deg() + 0.5 * (pan.0 + pan.1)).rem_euclid(360.0);
    Aim { pan_deg: neat(bearing, 0.1), tilt_deg: neat(0.5 * (tilt.0 + tilt.1), 0.1) }
}

/// The aim of a head of a camera at a target of the site.
///
/// # Errors
/// Names the id that the site does not have.
pub fn aim_at(site: &Site, line: &Question) -> Result<Aim, Fault> {
    let head = site.view(&line.head_ref())?;
    let target = &site.targets()[site.target_place(&line.target)?];
    Ok(aim_between(head.position(), &target.samples, head.pan().deg()))
}

/// Where a target's points lie once it is at a slant distance, m, from a camera, along the bearing that its middle lies on.
///
/// # Errors
/// Names the id that the site does not have.
pub fn at_slant(site: &Site, camera: &str, target: &str, slant_m: f64) -> Result<Vec<Point2>, Fault> {
    let place = site.target_place(target)?;
    let camera = site.file().cameras.iter().find(|c| c.id == camera);
    let camera = camera.ok_or_else(|| Fault::new("camera", "the site has no such camera"))?;
    let from = camera.eye();
    let file = &site.file().targets[place];
    let middle = middle_of(file);
    let apart = Separation::between(from, middle, || Angle::ZERO);
    let by = apart.towards * (ground_of_slant(slant_m, apart.drop) - apart.ground);
    Ok(file.shape.points.iter().map(|p| [neat(p[0] + by.x, 1e-4), neat(p[1] + by.y, 1e-4)]).collect())
}

/// A camera with another model of the catalogue: focal lengths that its lens does not have go to the nearest that it has, and
/// it gets as many heads as the model, the new ones spread about the first.
///
/// # Errors
/// Names what the site or the catalogue does not have.
pub fn with_model(site: &Site, camera: &str, model: &str) -> Result<CameraFile, Fault> {
    with_this_model(site, camera, model_named(model)?)
}

/// The same with a model that is brought along.
///
/// # Errors
/// Names the camera that the site does not have.
pub fn with_this_model(site: &Site, camera: &str, model: Model) -> Result<CameraFile, Fault> {
    let held = site.file().cameras.iter().find(|c| c.id == camera);
    let mut camera = held.ok_or_else(|| Fault::new("camera", format!("the site has no camera \"{camera}\"")))?.clone();
    camera.model = model;
    camera.fit_heads();
    let wanted = camera.model.head_count.unwrap_or(1).max(1) as usize;
    camera.heads.truncate(wanted);
    let first = camera.heads[0].clone();
    while camera.heads.len() < wanted {
        let turn = 360.0 * camera.heads.len() as f64 / wanted as f64;
        let id = fresh_id("h", camera.heads.iter().map(|head| head.id.as_str()));
        camera.heads.push(HeadFile { id, pan_deg: (first.pan_deg + turn) % 360.0, ..first.clone() });
    }
    Ok(camera)
}

/// A new camera at a place, or on the spot nearest to it within `reach` m; aimed at a target if one is named.
///
/// # Errors
/// Names what the site does not have.
pub fn new_camera(site: &Site, at: Point2, reach: f64, target: Option<&str>) -> Result<CameraFile, Fault> {
    let far = |spot: &&Spot| (spot.position[0] - at[0]).hypot(spot.position[1] - at[1]);
    let nearest = site.file().spots.iter().min_by(|a, b| far(a).total_cmp(&far(b)));
    let mut camera = camera_at(site.file(), at, nearest.filter(|spot| far(spot) <= reach))?;
    if let Some(target) = target {
        let samples = &site.targets()[site.target_place(target)?].samples;
        let aim = aim_between(camera.eye(), samples, 0.0);
        (camera.heads[0].pan_deg, camera.heads[0].tilt_deg) = (aim.pan_deg, aim.tilt_deg);
    }
    Ok(camera)
}

/// A new camera of the model that all begin with, under the next free number: on a spot, or else at a place.
///
/// # Errors
/// The catalogue does not have that model.
pub fn camera_at(file: &SiteFile, at: Point2, spot: Option<&Spot>) -> Result<CameraFile, Fault> {
    let model = model_named(FIRST_MODEL)?;
    let id = fresh_id("c", file.cameras.iter().map(|camera| camera.id.as_str()));
    Ok(CameraFile {
        mount: None,
        reacts: None,
        fitting: None,
        name: id.to_uppercase(),
        id,
        position: spot.map_or(at.map(|axis| neat(axis, 0.01)), |spot| spot.position),
        spot: spot.map(|spot| spot.id.clone()),
        mounted_on: None,
        mounted_as: None,
        housing: None,
        emitter: None,
        power: None,
        stream: None,
        device: None,
        existing: None,
        housed_with: None,
        height_m: spot.map_or(USUAL_HEIGHT_M, |spot| spot.height_m).max(0.05),
        ground_m: spot.map_or(0.0, |spot| spot.ground_m),
        heads: vec![HeadFile::new(
            "h1",
            Aimed { pan_deg: 0.0, tilt_deg: USUAL_TILT_DEG, roll_deg: 0.0, focal_mm: model.lens.focal_min_mm },
        )],
        model,
    })
}

fn model_named(name: &str) -> Result<Model, Fault> {
    let found = catalogue::models()?.into_iter().find(|model| model.name == name);
    found.ok_or_else(|| Fault::new("model", format!("the catalogue has no \"{name}\"")))
}

/// The mean of a target's points, at its height.
fn middle_of(target: &TargetFile) -> DVec3 {
    let points = &target.shape.points;
    let sum = points.iter().fold([0.0, 0.0], |sum, p| [sum[0] + p[0], sum[1] + p[1]]);
    DVec3::new(sum[0] / points.len() as f64, sum[1] / points.len() as f64, target.ground_m + target.height_m)
}

/// A value rounded to a decimal step such as 0.1 or 0.001, printed without a tail of digits.
pub fn neat(value: f64, step: f64) -> f64 {
    let per_unit = (1.0 / step).round();
    (value * per_unit).round() / per_unit
}

#[cfg(test)]
mod tests {
    use super::*;

    fn demo() -> Site {
        Site::parse(include_str!("../../../../demo/tern-quay.json")).unwrap()
    }

    #[test]
    fn a_head_is_aimed_at_a_point() {
        let aim = aim_between(DVec3::new(0.0, 0.0, 3.6), &[DVec3::new(10.0, 10.0, 1.6)], 0.0);
        // By hand: the bearing is 45°, the depression atan(2 / 14.142) = 8.05°.
        assert_eq!(aim, Aim { pan_deg: 45.0, tilt_deg: 8.0 });
    }

    #[test]
    fn a_measured_distance_moves_the_target_along_its_bearing() {
        let site = demo();
        let (camera, target) = (&site.file().cameras[3], &site.file().targets[0]);
        let points = at_slant(&site, &camera.id, &target.id, 12.0).unwrap();
        let step = [points[0][0] - camera.position[0], points[0][1] - camera.position[1]];
        let slant = (step[0].hypot(step[1])).hypot(camera.height_m - target.height_m);
        assert!((slant - 12.0).abs() < 1e-3, "{slant}");
        assert!(at_slant(&site, "c99", &target.id, 12.0).is_err());
    }

    #[test]
    fn another_model_brings_its_heads_and_keeps_what_fits() {
        let site = demo();
        let multi = catalogue::models().unwrap().into_iter().find(|model| model.head_count == Some(4)).unwrap();
        let camera = with_model(&site, "c4", &multi.name).unwrap();
        assert_eq!(camera.heads.len(), 4);
        let pans: Vec<f64> =
            camera.heads.iter().map(|head| (head.pan_deg - camera.heads[0].pan_deg).rem_euclid(360.0)).collect();
        assert_eq!(pans, [0.0, 90.0, 180.0, 270.0]);
        assert!(camera.heads.iter().all(|head| multi.lens.has_focal(head.focal_mm)));
        assert!(with_model(&site, "c4", "No such model").is_err());
    }

    #[test]
    fn a_new_camera_sits_on_a_spot_near_by() {
        let site = demo();
        let spot = &site.file().spots[0];
        let near = new_camera(&site, [spot.position[0] + 0.4, spot.position[1]], 1.0, Some("t1")).unwrap();
        assert_eq!((near.spot.as_deref(), near.position), (Some(spot.id.as_str()), spot.position));
        let free = new_camera(&site, [500.0, 500.0], 1.0, None).unwrap();
        assert_eq!((free.spot, free.heads[0].tilt_deg), (None, USUAL_TILT_DEG));
        let empty = Site::from_file(SiteFile::empty("Nothing")).unwrap();
        assert_eq!(new_camera(&empty, [1.0, 1.0], 1.0, None).unwrap().id, "c1");
    }
}
