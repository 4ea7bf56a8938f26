//! What is lost with a camera: the promises that stand worse without it.

use crate::judge::evaluation;
use crate::judge::session::Session;
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

/// Every promise that stands worse without one of the cameras, camera by camera. All heads of a camera fail with it.
pub fn lost(session: &Session) -> Vec<Lost> {
    let site = session.site();
    let mut found = Vec::new();
    for (place, camera) in site.file().cameras.iter().enumerate() {
        let left = evaluation::seen_by(site, session.views());
        let left: Vec<_> = left.into_iter().filter(|seen| seen.head.camera() != place).collect();
        let then = evaluation::verdicts(site, &left);
        let pairs = session.results().iter().zip(&then).filter(|(now, then)| then.verdict > now.verdict);
        found.extend(pairs.map(|(now, then)| Lost {
            camera: camera.id.clone(),
            target: now.target.clone(),
            before: now.verdict,
            after: then.verdict,
        }));
    }
    found
}
