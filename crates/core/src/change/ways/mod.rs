//! Ways to keep a promise: the computed changes to a site after which a sight line is kept, or another one keeps the promise.

mod aim;
mod beyond;
mod change;
mod choke;
mod desk;
pub mod mend;
mod overview;
pub mod picture;
mod places;
mod rank;
mod search;
mod words;

use crate::equipment::catalogue;
use crate::file::{Fault, PatchOp, Question};
use crate::judge::Session;
use crate::verdict::Verdict;
use crate::words::cautions::{Work, cautions};
use crate::words::units::Units;
use crate::work::Patience;
use change::patch;
use desk::{Budget, Desk};
use rank::Rank;
use serde::Serialize;
use utoipa::ToSchema;

/// How many ways are offered at most.
const MOST_WAYS: usize = 8;

/// What a way changes.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum WayKind {
    /// The focal length, inside the lens's range.
    Focal,
    /// Pan and tilt.
    Aim,
    /// The turn about the optical axis: a corridor picture, with the aim that goes with it.
    Roll,
    /// How long a tour stays at each of its presets.
    Tour,
    /// The mounting height.
    Height,
    /// The mounting place: a surveyed spot.
    Spot,
    /// The mounting place, along the ground towards the target.
    Nearer,
    /// The mounting place, straight back from the target.
    Back,
    /// The mounting place, sideways: along the wall, or square to the line.
    Sideways,
    /// The lens: another model with the same build and sensor.
    Lens,
    /// The model: another sensor or build.
    Model,
    /// More than one of these.
    Several,
    /// How the distance was got: it holds as drawn, and only that is not sure enough.
    Measure,
    /// Another head that is already there: it keeps the promise, the sight line in question stays as it is.
    OtherHead,
    /// One more camera, on a surveyed spot: it keeps the promise.
    Camera,
    /// Shutter and pictures a second.
    Exposure,
    /// Where a plate on its way is read best: spot, lens, height, aim and shutter.
    Choke,
    /// One more camera that keeps the overview beside whoever reads a plate.
    Overview,
}

/// What a change does to one promise of the site.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Effect {
    /// The target's id.
    pub target: String,
    /// Its verdict now.
    pub before: Verdict,
    /// Its verdict with the change.
    pub after: Verdict,
}

/// One way to keep a sight line, or the promise by another one (`other_head`, `camera`).
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Way {
    /// What it changes.
    pub kind: WayKind,
    /// What to do, in plain words.
    pub says: String,
    /// What that gives, in plain words.
    pub why: String,
    /// The change as a JSON Patch (RFC 6902) on the site file.
    pub patch: Vec<PatchOp>,
    /// Every target of the site whose verdict or best head changes.
    pub effects: Vec<Effect>,
}

/// The ways to keep a sight line, the best first.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Ways {
    /// The ways.
    pub ways: Vec<Way>,
    /// What to mind before hands follow any of them; empty without a way.
    pub cautions: Vec<String>,
    /// If there is none: what stands against it.
    #[schema(required)]
    pub why_none: Option<String>,
    /// Set when there was more to try than there was work allowed for: these are the best so far.
    #[schema(required)]
    pub cut_short: Option<String>,
}

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
    let models = catalogue::models()?;
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
                patch: patch(desk.camera_place, desk.camera(), &then),
                effects,
            };
            Some((rank, way))
        })
        .collect();
    ranked.extend(chokes);
    ranked.extend(beyond::measured(&desk));
    ranked.extend(beyond::other_heads(&desk, units));
    ranked.extend(beyond::one_more(&desk, units));
    ranked.sort_by(|(a, _), (b, _)| a.compare(b));
    rank::keep_the_best_of_each(&mut ranked);
    ranked.truncate(MOST_WAYS);
    let ways: Vec<Way> = ranked.into_iter().map(|(_, way)| way).collect();
    let why_none = ways.is_empty().then(|| words::why_none(&desk, units));
    let works: Vec<Work> = ways.iter().flat_map(|way| &way.patch).filter_map(|op| work(&op.path)).collect();
    let cautions = if ways.is_empty() { vec![] } else { cautions(&works) };
    let cut_short = budget.is_spent().then(|| words::CUT_SHORT.to_owned());
    Ok(Ways { ways, cautions, why_none, cut_short })
}

/// What work a change of a place in the file takes on site.
fn work(path: &str) -> Option<Work> {
    match path.rsplit('/').next()? {
        "height_m" | "position" => Some(Work::Move),
        "model" | "-" => Some(Work::Exchange),
        _ => None,
    }
}
