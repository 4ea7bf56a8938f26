//! Ways to keep a promise: the computed changes to a site after which a sight line is kept, or another one keeps the promise.

mod aim;
mod beyond;
mod change;
mod choke;
mod desk;
mod lamp;
pub mod look_back;
pub mod mend;
mod overview;
pub mod picture;
mod places;
mod rank;
mod search;
mod settings;
mod together;
mod way;
mod words;

#[cfg(feature = "route")]
pub(crate) use places::hangs_at;
pub use way::{Effect, Measures, Way, WayKind, Ways};

use crate::file::{CameraFile, Fault, Model, Question};
use crate::judge::Session;
use crate::words::cautions::{Work, cautions};
use crate::words::units::Units;
use crate::work::Patience;
use change::patch;
use desk::{Budget, Desk};
use rank::Rank;

/// How many ways are offered at most.
const MOST_WAYS: usize = 8;

/// So many models are tried.
const MOST_MODELS: usize = 120;

/// Finds the ways to keep a sight line. Each holds over the stated uncertainties at their worst.
///
/// Ways that break no other promise come first, then those that make none tight, then those with the least effort, less what
/// they gain elsewhere: a turn of a screw before a new height, that before a surveyed spot, that before a new model, that before a
/// place in mid-air. The work is bounded.
///
/// # Errors
/// Names the id that the site does not have.
pub fn ways(session: &Session, question: &Question, units: Units) -> Result<Ways, Fault> {
    ways_within(session, question, units, &Patience::ENDLESS)
}

/// The same while somebody waits: what was found until then, and `cut_short` says so.
///
/// # Errors
/// Names the id that the site does not have.
pub fn ways_within(session: &Session, question: &Question, units: Units, patience: &Patience) -> Result<Ways, Fault> {
    let budget = Budget::within(patience);
    let desk = Desk::new(session, question, &budget)?;
    let models = likely(session.models()?, desk.camera());
    if desk.is_kept() {
        let ways: Vec<Way> = overview::overviews(&desk, &models, units).into_iter().map(|(_, way)| way).collect();
        let why_none = ways.is_empty().then(|| "This sight line is kept as it is.".to_owned());
        let cautions = if ways.is_empty() { vec![] } else { cautions(&[Work::Exchange]) };
        return Ok(Ways { ways, cautions, why_none, cut_short: None });
    }
    // Where a plate is read best is found first: of a long way every look costs much.
    let chokes = choke::chokes(&desk, &models, units);
    let mut ranked: Vec<(Rank, Way)> = search::candidates(&desk, &models)
        .into_iter()
        .filter_map(|candidate| {
            let then = candidate.applied(desk.camera());
            let (rank, effects) = desk.consequences(candidate.effort, &then)?;
            let way = Way {
                kind: candidate.kind(),
                says: words::says(&desk, &candidate, units),
                why: words::why(&desk, &candidate, units),
                head: desk.head(&then).name(),
                target: Some(desk.target().id.clone()),
                measures: Measures::default(),
                patch: patch(desk.camera_place, desk.camera(), &then),
                effects,
                harms: rank.harms(),
            };
            Some((rank, way))
        })
        .collect();
    ranked.extend(chokes);
    ranked.extend(beyond::measured(&desk));
    ranked.extend(beyond::other_heads(&desk, units));
    ranked.extend(beyond::one_more(&desk, &models, units));
    ranked.extend(lamp::one_more_lamp(&desk, units));
    ranked.extend(together::together(&desk, units));
    ranked.sort_by(|(a, _), (b, _)| a.compare(b));
    rank::keep_the_best_of_each(&mut ranked);
    ranked.truncate(MOST_WAYS);
    let ways: Vec<Way> = ranked.into_iter().map(|(_, way)| way).collect();
    // What was not tried whole is no reason.
    let why = || if budget.is_spent() { words::NOT_YET.to_owned() } else { words::why_none(&desk, units) };
    let why_none = ways.is_empty().then(why);
    let works: Vec<Work> = ways.iter().flat_map(|way| &way.patch).filter_map(|op| work(&op.path)).collect();
    let cautions = if ways.is_empty() { vec![] } else { cautions(&works) };
    let cut_short = budget.is_spent().then(|| words::CUT_SHORT.to_owned());
    Ok(Ways { ways, cautions, why_none, cut_short })
}

/// The models that are tried: of many so many only, those of the camera's own form first.
fn likely(mut models: Vec<Model>, camera: &CameraFile) -> Vec<Model> {
    if models.len() > MOST_MODELS {
        models.sort_by_key(|model| model.form != camera.model.form);
        models.truncate(MOST_MODELS);
    }
    models
}

/// What work a change of a place in the file takes on site.
fn work(path: &str) -> Option<Work> {
    match path.rsplit('/').next()? {
        "height_m" | "position" => Some(Work::Move),
        "model" | "-" => Some(Work::Exchange),
        _ => None,
    }
}
