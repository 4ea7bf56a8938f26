//! What is lost with a camera: the promises that stand worse without it.

use crate::judge::evaluation;
use crate::judge::session::Session;
use crate::site::housed::in_one_housing;
use crate::verdict::Verdict;
use serde::Serialize;
use utoipa::ToSchema;

/// A promise that stands worse when a camera fails.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Lost {
    /// The camera's id.
    pub camera: String,
    /// The target's id.
    pub target: String,
    /// Its verdict with the camera.
    pub before: Verdict,
    /// Its verdict without it.
    pub after: Verdict,
}

/// A promise that stands worse when several cameras fail together.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Fallen {
    /// The target's id.
    pub target: String,
    /// Its verdict with them.
    pub before: Verdict,
    /// Its verdict without them.
    pub after: Verdict,
}

/// Every promise that stands worse without one of the cameras, camera by camera. All heads of a camera fail with it, and all that stand
/// in its housing.
pub fn lost(session: &Session) -> Vec<Lost> {
    let file = session.site().file();
    let housed = in_one_housing(file, (0..file.cameras.len()).collect());
    let each = file.cameras.iter().enumerate().flat_map(|(place, camera)| {
        let together = file.cameras.iter().zip(&housed).filter(|(_, with)| **with == housed[place]);
        let together: Vec<String> = together.map(|(camera, _)| camera.id.clone()).collect();
        let fallen = lost_together(session, &together);
        fallen.into_iter().map(|Fallen { target, before, after }| Lost {
            camera: camera.id.clone(),
            target,
            before,
            after,
        })
    });
    each.collect()
}

/// Every promise that stands worse when these cameras fail together: behind one link, one box.
pub fn lost_together(session: &Session, cameras: &[String]) -> Vec<Fallen> {
    let site = session.site();
    let file = site.file();
    let mut left = evaluation::seen_by(site, session.views());
    left.retain(|seen| !cameras.contains(&file.cameras[seen.head.camera()].id));
    let then = evaluation::verdicts(site, &left);
    let pairs = session.results().iter().zip(&then).filter(|(now, then)| then.verdict > now.verdict);
    pairs.map(|(now, then)| Fallen { target: now.target.clone(), before: now.verdict, after: then.verdict }).collect()
}
