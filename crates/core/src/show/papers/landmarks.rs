//! What is sharp enough in a site to be found again in a picture: corners of what is built, and other cameras.

use crate::file::ObstacleKind;
use crate::scene::Eye;
use crate::site::{Head, Site};
use crate::words::compass::compass;
use glam::{DVec2, DVec3};

/// What is nearer than this moves too much when the camera does, m.
const NEAREST_M: f64 = 1.5;
/// A corner is a corner if the outline turns by so much there, degrees.
const TURNS_DEG: f64 = 20.0;
/// A ray that comes so near to a landmark, m, has reached it.
const REACHED_M: f64 = 0.03;
/// A stated uncertainty, ±, is so many standard deviations.
pub(crate) const SIGMAS: f64 = 2.0;

/// Something to be found again.
#[derive(Clone, Debug, PartialEq)]
pub struct Mark {
    /// An id for it, from those of the file.
    pub id: String,
    /// What it is.
    pub says: String,
    /// Where it is, m.
    pub at: DVec3,
    /// How well that is known: one standard deviation each way, m.
    pub sigma_m: f64,
}

/// Whether a ray reaches a point that may lie on a solid.
pub fn reaches(site: &Site, eye: &Eye, at: DVec3) -> bool {
    let distance = eye.from().distance(at);
    let first = eye.first_solid(site.scene(), at);
    distance > NEAREST_M && first.is_none_or(|(share, _)| share * distance > distance - REACHED_M)
}

/// Everything of a site that is sharp enough to be a landmark: corners of what is built, top and foot, and other cameras.
pub fn candidates(site: &Site, head: &Head) -> Vec<Mark> {
    let mut found = vec![];
    let drawn = site.rules().uncertainties.plan_across_m / SIGMAS;
    for obstacle in &site.file().obstacles {
        if matches!(obstacle.kind, ObstacleKind::Tree | ObstacleKind::Vehicle) || obstacle.open_outline.is_some() {
            // They are not there, or not so, on the day.
            continue;
        }
        let corners: Vec<DVec2> = obstacle.standing().iter().map(|p| DVec2::from_array(*p)).collect();
        let middle = corners.iter().sum::<DVec2>() / corners.len() as f64;
        for (place, corner) in corners.iter().enumerate() {
            if !turns(&corners, place, obstacle.closed) {
                continue;
            }
            let side = compass(*corner - middle);
            let what = if obstacle.closed { "corner" } else { "end" };
            let stands = obstacle.base_m <= 0.0;
            let foot = if stands { "foot" } else { "underside" };
            for (height, which) in [(obstacle.top_m, "top"), (obstacle.base_m, foot)] {
                let at = corner.extend(obstacle.ground_m + height);
                found.push(Mark {
                    id: format!("{}.{place}.{}", obstacle.id, if height == obstacle.top_m { "top" } else { "foot" }),
                    says: format!("{}, {side} {what}, {which}", obstacle.name),
                    at,
                    sigma_m: drawn,
                });
            }
        }
    }
    let others = site.file().cameras.iter().filter(|camera| camera.id != head.camera_id());
    found.extend(others.map(|camera| Mark {
        id: camera.id.clone(),
        says: format!("camera {}", camera.name),
        at: camera.eye(),
        sigma_m: drawn,
    }));
    found
}

/// Whether an outline turns at a corner, so that there is something to see; the ends of an open one always are.
fn turns(corners: &[DVec2], place: usize, closed: bool) -> bool {
    let count = corners.len();
    if !closed && (place == 0 || place + 1 == count) {
        return true;
    }
    let before = corners[place] - corners[(place + count - 1) % count];
    let after = corners[(place + 1) % count] - corners[place];
    before.angle_to(after).abs().to_degrees() >= TURNS_DEG
}
