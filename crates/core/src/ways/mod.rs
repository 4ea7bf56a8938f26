//! Ways to keep a promise: the computed changes to one camera after which a sight line is kept.

mod change;
mod rank;
mod search;
mod words;

use crate::evaluation::{HeadView, TargetResult, verdicts, view};
use crate::site::file::CameraFile;
use crate::units::Units;
use crate::{Fault, Head, Site, Verdict, catalogue};
pub use change::PatchOp;
use serde::{Deserialize, Serialize};
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
    /// The mounting height.
    Height,
    /// The mounting place, along the ground towards the target.
    Nearer,
    /// The lens: another model with the same build and sensor.
    Lens,
    /// The model: another sensor or build.
    Model,
    /// More than one of these.
    Several,
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

/// One way to keep a sight line.
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
    /// If there is none: what stands against it.
    #[schema(required)]
    pub why_none: Option<String>,
}

/// Which sight line is to be kept.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Question {
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// The target's id.
    pub target: String,
}

/// Finds the ways to keep a sight line. Each holds over the stated uncertainties at their worst.
///
/// Ways that break no other promise come first, then those with the least effort: a turn of a
/// screw before a new height, that before a new model, that before a new spot.
///
/// # Errors
/// Names the id that the site does not have.
pub fn ways(site: &Site, question: &Question, units: Units) -> Result<Ways, Fault> {
    let desk = Desk::new(site, question)?;
    if desk.keeps(desk.camera()) {
        return Ok(Ways { ways: vec![], why_none: Some("This sight line is kept as it is.".to_owned()) });
    }
    let models = catalogue::models()?;
    let mut ranked: Vec<(rank::Rank, Way)> = search::candidates(&desk, &models)
        .into_iter()
        .map(|candidate| {
            let (rank, effects) = desk.consequences(&candidate);
            let way = Way {
                kind: candidate.kind(),
                says: words::says(&desk, &candidate, units),
                why: words::why(&desk, &candidate, units),
                patch: candidate.patch(desk.camera_place, desk.camera()),
                effects,
            };
            (rank, way)
        })
        .collect();
    ranked.sort_by(|(a, _), (b, _)| a.compare(b));
    rank::keep_the_best_models(&mut ranked);
    ranked.truncate(MOST_WAYS);
    let ways: Vec<Way> = ranked.into_iter().map(|(_, way)| way).collect();
    let why_none = ways.is_empty().then(|| words::why_none(&desk, units));
    Ok(Ways { ways, why_none })
}

/// A sight line under the hand: the site, and which part of it may change.
struct Desk<'a> {
    site: &'a Site,
    camera_place: usize,
    head_place: usize,
    target_place: usize,
    /// What every head of the site makes of every target now.
    views: Vec<HeadView>,
    now: Vec<TargetResult>,
}

impl<'a> Desk<'a> {
    fn new(site: &'a Site, question: &Question) -> Result<Self, Fault> {
        let head = site.head(&question.camera, &question.head)?;
        let target_place = site.target_place(&question.target)?;
        let views: Vec<HeadView> = site.heads().iter().map(|head| view(site, head)).collect();
        let now = verdicts(site, &views.iter().collect::<Vec<_>>());
        Ok(Desk { site, camera_place: head.camera, head_place: head.place, target_place, views, now })
    }

    /// The camera as it is.
    fn camera(&self) -> &'a CameraFile {
        &self.site.file().cameras[self.camera_place]
    }

    /// The head in question of a changed camera.
    fn head(&self, camera: &CameraFile) -> Head {
        Head::new(self.camera_place, camera, self.head_place, self.site.rules())
    }

    /// Whether a changed camera keeps the sight line, at worst, and stands where a camera can.
    fn keeps(&self, camera: &CameraFile) -> bool {
        let head = self.head(camera);
        let target = &self.site.targets()[self.target_place];
        let scene = self.site.scene();
        crate::sight_line::keeps(&head, target, self.site.rules(), scene)
            && (camera.position == self.camera().position || scene.solid_around(head.position()).is_none())
    }

    /// How a candidate ranks and what it does to the site's promises.
    fn consequences(&self, candidate: &change::Candidate) -> (rank::Rank, Vec<Effect>) {
        let camera = candidate.applied(self.camera());
        let changed: Vec<HeadView> = (0..camera.heads.len())
            .map(|place| view(self.site, &Head::new(self.camera_place, &camera, place, self.site.rules())))
            .collect();
        let mut replacements = changed.iter();
        let views: Vec<&HeadView> = self
            .site
            .heads()
            .iter()
            .zip(&self.views)
            .map(
                |(head, view)| {
                    if head.camera == self.camera_place { replacements.next().unwrap_or(view) } else { view }
                },
            )
            .collect();
        let then = verdicts(self.site, &views);
        rank::compare_sites(candidate, &self.now, &then)
    }
}
