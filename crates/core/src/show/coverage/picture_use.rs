//! What a head's picture is used for: the share that lands where somebody can be seen well enough for its task, and what takes up the
//! rest: its own building, what stands near, other walls, the sky, ground that is too far.

use crate::file::{Fault, HeadRef, Task};
use crate::judge::session::Session;
use crate::scene::Eye;
use crate::site::ray::{Met, ray};
use crate::site::{Head, Site};
use glam::{DVec2, DVec3};
use serde::Serialize;
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// The rays that a picture is judged by: columns and rows, each in the middle of its share of the picture.
const COLUMNS: usize = 32;
const ROWS: usize = 20;
/// Somebody who stands on the ground reaches up to here, m.
const TALL_M: f64 = 1.8;
/// A wall so near to the camera is what it hangs on, m.
const OWN_M: f64 = 0.6;
/// Infrared light comes back off what is nearer than this ahead … (handbook, section 6; our default)
const NEAR_AHEAD_M: f64 = 3.0;
/// … and nearer than this off the axis, m.
const NEAR_ASIDE_M: f64 = 1.0;

/// What a head's picture is used for, as shares of it that together make 1.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PictureUse {
    /// The head.
    pub head: HeadRef,
    /// The task that it is judged for: the least of those that it serves best, or detect where it serves none.
    pub task: Task,
    /// The need of it, px/m.
    pub need_px_per_m: f64,
    /// On ground, or on somebody who may stand there, within reach of the task.
    pub useful: f64,
    /// On the building that it hangs on.
    pub own: f64,
    /// On something else so near that it takes infrared light back, or hides what is behind it.
    pub near: f64,
    /// On other walls and things.
    pub solids: f64,
    /// On ground past its reach.
    pub too_far: f64,
    /// On the sky.
    pub sky: f64,
    /// What stands in its infrared beam too near, with the share of the picture that it takes; empty for a head without.
    pub in_beam: Vec<InBeam>,
}

/// Something in the infrared beam.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct InBeam {
    /// The obstacle's id.
    pub obstacle: String,
    /// The share of the picture that it takes.
    pub share: f64,
    /// How near it comes, m.
    pub nearest_m: f64,
}

/// What every head's picture is used for.
pub fn picture_uses(session: &Session) -> Vec<PictureUse> {
    let site = session.site();
    let eyes: Vec<Eye> = crate::judge::evaluation::eyes(site);
    let of = |head: &Head| picture_use(site, head, &eyes[head.camera()], task_of(session, head));
    site.heads().iter().map(of).collect()
}

/// What one head's picture is used for.
///
/// # Errors
/// Names the head that the site does not have.
pub fn picture_use_of(session: &Session, head: &HeadRef) -> Result<PictureUse, Fault> {
    let site = session.site();
    let head = site.view(head)?;
    Ok(picture_use(site, head, &crate::judge::evaluation::eye_around(site, head), task_of(session, head)))
}

/// The task that a head serves: the least demanding of the promises that it serves best, with its need.
pub fn task_of(session: &Session, head: &Head) -> (Task, f64) {
    let site = session.site();
    let name = head.name();
    let results = session.results().iter().zip(site.targets());
    let served = results.filter(|(result, _)| result.best.as_ref() == Some(&name)).map(|(_, target)| target);
    let least = served.min_by(|a, b| a.need.px_per_m.total_cmp(&b.need.px_per_m));
    least.map_or_else(
        || (Task::Detect, site.rules().needs.need(Task::Detect).px_per_m),
        |target| (target.task, target.need.px_per_m),
    )
}

/// What a head's picture is used for, for a task and its need, px/m.
pub fn picture_use(site: &Site, head: &Head, eye: &Eye, (task, need): (Task, f64)) -> PictureUse {
    let size = head.view().projection.size();
    let mut tally = Tally::default();
    let mut all = 0_u32;
    let lit = site.file().cameras.get(head.camera()).is_some_and(|camera| camera.model.infrared_light().is_some());
    let beam = 0.25 * head.view().projection.hfov();
    for row in 0..ROWS {
        for column in 0..COLUMNS {
            let place = DVec2::new((column as f64 + 0.5) / COLUMNS as f64, (row as f64 + 0.5) / ROWS as f64);
            let Some(ray) = ray(head, eye, site.scene(), place * size) else { continue };
            all += 1;
            if lit && let Met::Obstacle(solid) = ray.met {
                let ahead = head.view().pose.forward.dot(ray.direction).clamp(-1.0, 1.0).acos() < beam;
                if ray.distance < NEAR_ASIDE_M || (ahead && ray.distance < NEAR_AHEAD_M) {
                    let (count, nearest) = tally.in_beam.entry(solid.id().to_owned()).or_insert((0, f64::INFINITY));
                    (*count, *nearest) = (*count + 1, nearest.min(ray.distance));
                }
            }
            let sees_somebody = meets_somebody(ray.from, ray.direction)
                .is_some_and(|(at, point)| at < ray.distance && head.about_across(point) >= need);
            let count = match ray.met {
                Met::Obstacle(_) | Met::Ground | Met::Sky if sees_somebody => &mut tally.useful,
                Met::Obstacle(solid) if is_own(head, eye, solid) => &mut tally.own,
                Met::Obstacle(_) if ray.distance < NEAR_AHEAD_M => &mut tally.near,
                Met::Obstacle(_) => &mut tally.solids,
                Met::Ground => &mut tally.too_far,
                Met::Sky => &mut tally.sky,
            };
            *count += 1;
        }
    }
    let share = |count: u32| f64::from(count) / f64::from(all.max(1));
    PictureUse {
        head: head.name(),
        task,
        need_px_per_m: need,
        useful: share(tally.useful),
        own: share(tally.own),
        near: share(tally.near),
        solids: share(tally.solids),
        too_far: share(tally.too_far),
        sky: share(tally.sky),
        in_beam: tally
            .in_beam
            .into_iter()
            .map(|(obstacle, (count, nearest_m))| InBeam { obstacle, share: share(count), nearest_m })
            .collect(),
    }
}

#[derive(Default)]
struct Tally {
    useful: u32,
    own: u32,
    near: u32,
    solids: u32,
    too_far: u32,
    sky: u32,
    in_beam: BTreeMap<String, (u32, f64)>,
}

/// Where a ray first comes so low that somebody who stands there is met: how far, m, and the point; not nearer than a metre.
fn meets_somebody(from: DVec3, direction: DVec3) -> Option<(f64, DVec3)> {
    let at = if from.z <= TALL_M {
        0.0
    } else if direction.z < 0.0 {
        (from.z - TALL_M) / -direction.z
    } else {
        return None;
    };
    let at = at.max(1.0);
    let point = from + direction * at;
    (point.z <= TALL_M + 1e-9 && point.z >= 0.0).then_some((at, point))
}

/// Whether a solid is what the camera hangs on: said so, or so near.
fn is_own(head: &Head, eye: &Eye, solid: &crate::scene::Solid) -> bool {
    let at = eye.from().truncate();
    head.mounted_on() == Some(solid.id()) || solid.nearest_on_outline(at).distance(at) < OWN_M
}

#[cfg(test)]
mod tests {
    use super::*;

    fn use_of(tilt: f64, obstacles: &str) -> PictureUse {
        let site = format!(
            r#"{{"format": "bright-angle/site", "version": 1, "name": "Use", "obstacles": [{obstacles}], "targets": [],
              "cameras": [{{"id": "c1", "name": "C", "position": [0, 0], "height_m": 3, "model": {{"name": "M", "form": "bullet",
                "sensor": {{"width_px": 1920, "height_px": 1080, "width_mm": 5.376, "height_mm": 3.024}}, "infrared_m": 30,
                "lens": {{"focal_min_mm": 6, "focal_max_mm": 6}}}},
                "heads": [{{"id": "h1", "pan_deg": 0, "tilt_deg": {tilt}, "focal_mm": 6}}]}}]}}"#
        );
        let session = Session::on(Site::parse(&site).unwrap());
        picture_uses(&session).remove(0)
    }

    #[test]
    fn half_of_a_level_picture_is_sky() {
        let level = use_of(0.0, "");
        assert!((level.sky - 0.5).abs() < 1e-9, "{level:?}");
        let shares = level.useful + level.own + level.near + level.solids + level.too_far + level.sky;
        assert!((shares - 1.0).abs() < 1e-9);
        // 25 px/m reach 6 × 1920 / (5.376 × 25) = 85.7 m: at 1.8 m up that is 0.8° below the horizon, of 14.1° to the bottom edge.
        let by_hand = 0.5 * (1.0 - (1.2_f64 / 85.7) / 14.1_f64.to_radians().tan());
        assert!((level.useful - by_hand).abs() < 1.0 / ROWS as f64, "{} {by_hand}", level.useful);
    }

    #[test]
    fn a_wall_before_it_is_told_with_its_share_and_stands_in_the_beam() {
        let wall =
            r#"{"id": "w", "name": "W", "kind": "wall", "outline": [[-9, 2], [9, 2]], "closed": false, "top_m": 9}"#;
        let shut = use_of(0.0, wall);
        assert_eq!((shut.near, shut.sky), (1.0, 0.0));
        assert!(shut.in_beam[0].share > 0.3 && (shut.in_beam[0].nearest_m - 2.0).abs() < 0.01, "{:?}", shut.in_beam);
        let aside = use_of(0.0, &wall.replace("[[-9, 2], [9, 2]]", "[[1.5, 0], [1.5, 9]]"));
        assert!(aside.in_beam.is_empty() && aside.solids > 0.1, "three metres off where it comes into the picture");
    }
}
