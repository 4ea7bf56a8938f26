//! Ways to keep a promise: the computed changes to one camera after which a sight line is kept.

mod change;
mod rank;
mod search;
mod words;

use crate::equipment::catalogue;
use crate::file::{CameraFile, Fault, PatchOp, Question};
use crate::judge::evaluation::{HeadView, TargetResult, verdicts, view, viewer_of};
use crate::judge::sight_line::{Viewer, keeps};
use crate::judge::{Session, Verdict};
use crate::scene::Eye;
use crate::site::{Head, Site};
use crate::words::cautions::{Work, cautions};
use crate::words::units::Units;
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
    /// What to mind before hands follow any of them; empty without a way.
    pub cautions: Vec<String>,
    /// If there is none: what stands against it.
    #[schema(required)]
    pub why_none: Option<String>,
}

/// Finds the ways to keep a sight line. Each holds over the stated uncertainties at their worst.
///
/// Ways that break no other promise come first, then those with the least effort: a turn of a
/// screw before a new height, that before a new model, that before a new spot.
///
/// # Errors
/// Names the id that the site does not have.
pub fn ways(session: &Session, question: &Question, units: Units) -> Result<Ways, Fault> {
    let desk = Desk::new(session, question)?;
    if desk.keeps(desk.camera()) {
        return Ok(Ways {
            ways: vec![],
            cautions: vec![],
            why_none: Some("This sight line is kept as it is.".to_owned()),
        });
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
    let works: Vec<Work> = ways.iter().flat_map(|way| &way.patch).filter_map(|op| work(&op.path)).collect();
    let cautions = if ways.is_empty() { vec![] } else { cautions(&works) };
    Ok(Ways { ways, cautions, why_none })
}

/// What work a change of a place in the file takes on site.
fn work(path: &str) -> Option<Work> {
    match path.rsplit('/').next()? {
        "height_m" | "position" => Some(Work::Move),
        "model" => Some(Work::Exchange),
        _ => None,
    }
}

/// A sight line under the hand: the site, and which part of it may change.
struct Desk<'a> {
    site: &'a Site,
    session: &'a Session,
    camera_place: usize,
    head_place: usize,
    target_place: usize,
    /// What stands around the camera as it is.
    eye: Eye,
}

impl<'a> Desk<'a> {
    fn new(session: &'a Session, question: &Question) -> Result<Self, Fault> {
        let site = session.site();
        let head = site.head(&question.camera, &question.head)?;
        let target_place = site.target_place(&question.target)?;
        let eye = Eye::new(site.scene(), head.position().truncate());
        Ok(Desk { site, session, camera_place: head.camera(), head_place: head.place(), target_place, eye })
    }

    /// The camera as it is.
    fn camera(&self) -> &'a CameraFile {
        &self.site.file().cameras[self.camera_place]
    }

    /// The head in question of a changed camera.
    fn head(&self, camera: &CameraFile) -> Head {
        Head::new(self.camera_place, camera, self.head_place, self.site.rules())
    }

    /// Lets a head of the changed camera look.
    fn looking<T>(&self, head: &Head, look: impl FnOnce(Viewer) -> T) -> T {
        let here = head.position().truncate();
        if here.to_array() == self.camera().position {
            look(viewer_of(self.site, head, &self.eye))
        } else {
            look(viewer_of(self.site, head, &Eye::new(self.site.scene(), here)))
        }
    }

    /// Whether a changed camera keeps the sight line, at worst, and stands where a camera can.
    fn keeps(&self, camera: &CameraFile) -> bool {
        let head = self.head(camera);
        let target = &self.site.targets()[self.target_place];
        self.looking(&head, |viewer| keeps(viewer, target))
            && (camera.position == self.camera().position || self.site.scene().solid_around(head.position()).is_none())
    }

    /// How a candidate ranks and what it does to the site's promises.
    fn consequences(&self, candidate: &change::Candidate) -> (rank::Rank, Vec<Effect>) {
        let camera = candidate.applied(self.camera());
        let changed: Vec<HeadView> = (0..camera.heads.len())
            .map(|place| {
                let head = Head::new(self.camera_place, &camera, place, self.site.rules());
                self.looking(&head, |viewer| view(self.site, &head, viewer.eye))
            })
            .collect();
        let mut replacements = changed.iter();
        let views: Vec<&HeadView> = self
            .site
            .heads()
            .iter()
            .zip(self.session.views())
            .map(
                |(head, view)| {
                    if head.camera() == self.camera_place { replacements.next().unwrap_or(view) } else { view }
                },
            )
            .collect();
        let then: Vec<TargetResult> = verdicts(self.site, &views);
        rank::compare_sites(candidate, self.session.results(), &then)
    }
}
