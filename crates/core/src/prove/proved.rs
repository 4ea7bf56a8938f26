//! How each promise stands by design, as built and as proved, by day and by night; and what is left until all of it is proved.

use super::later::{LookKind, Looked, looked};
use super::walk::{Counted, ProofTold, proof_told};
use crate::file::{HeadRef, Subject, TargetFile};
use crate::fit::designed::as_designed;
use crate::judge::Session;
use crate::judge::evaluation::TargetResult;
use crate::site::Target;
use crate::verdict::Verdict;
use serde::Serialize;
use utoipa::ToSchema;

/// What is proved of a site, and what is left.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Proved {
    /// The promises, worst first.
    pub promises: Vec<PromiseProved>,
    /// The cameras' pictures against their references.
    pub cameras: Vec<Looked>,
    /// What is left.
    pub left: Vec<ProveTodo>,
    /// Whether nothing is.
    pub done: bool,
}

/// How a promise stands.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PromiseProved {
    /// The target's id.
    pub target: String,
    /// What it is called.
    pub name: String,
    /// What it must get, px/m.
    pub needs_px_per_m: f64,
    /// How it is tried.
    pub walk: Walk,
    /// By design.
    pub design: Verdict,
    /// As the cameras hang by the file.
    pub built: Verdict,
    /// Whether the camera that serves it best was found to hang so by its picture.
    pub found: bool,
    /// The view that serves it best.
    #[schema(required)]
    pub best: Option<HeadRef>,
    /// As proved by day.
    pub day: HalfProved,
    /// As proved by night.
    pub night: HalfProved,
}

/// How a target is tried.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Walk {
    /// With a board: two marks a known distance apart.
    Board,
    /// With a car: what can be read of its plate.
    Plate,
}

/// By day, or by night.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct HalfProved {
    /// How it stands; unknown where nothing that still counts was tried.
    pub verdict: Verdict,
    /// It in words.
    pub says: String,
    /// What was tried, the newest first.
    pub proofs: Vec<ProofTold>,
}

/// Something that is left to do.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ProveTodo {
    /// What kind of thing.
    pub kind: TodoKind,
    /// The target that it is about.
    #[schema(required)]
    pub target: Option<String>,
    /// The view that it is about.
    #[schema(required)]
    pub head: Option<HeadRef>,
    /// By night.
    pub night: bool,
    /// What to do, in plain words.
    pub says: String,
}

/// What can be left.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TodoKind {
    /// A promise that a try showed broken or tight.
    Falls,
    /// A camera whose picture differs from its reference.
    Differs,
    /// A promise that nobody tried.
    Walk,
    /// A camera whose picture is not kept.
    Keep,
}

/// What is proved of a site.
pub fn proved(session: &Session) -> Proved {
    let designed = as_designed(session.site().file()).and_then(|file| Session::open(file).ok());
    let by_design = designed.as_ref().unwrap_or(session).results();
    let targets = session.site().targets().iter().zip(&session.site().file().targets);
    let told = targets.zip(session.results().iter().zip(by_design));
    let mut promises: Vec<PromiseProved> =
        told.map(|((target, file), (built, design))| promise(session, target, file, built, design)).collect();
    let cameras = looked(session);
    let mut left: Vec<ProveTodo> = promises.iter().flat_map(walks_left).collect();
    left.extend(cameras.iter().filter_map(pictures_left));
    left.sort_by_key(|todo| (todo.kind, todo.night));
    promises.sort_by_key(|promise| std::cmp::Reverse(rank(promise)));
    Proved { done: left.is_empty() && !promises.is_empty(), promises, cameras, left }
}

/// The worst first: what a try showed, then what nobody tried, then the plan.
fn rank(promise: &PromiseProved) -> (Verdict, Verdict) {
    (promise.day.verdict.max(promise.night.verdict), promise.built)
}

fn promise(
    session: &Session,
    target: &Target,
    file: &TargetFile,
    built: &TargetResult,
    design: &TargetResult,
) -> PromiseProved {
    let found = built.best.as_ref().is_some_and(|best| {
        let cameras = &session.site().file().cameras;
        let camera = cameras.iter().find(|camera| camera.id == best.camera);
        camera.is_some_and(|camera| camera.heads.iter().any(|head| head.id == best.head && head.as_built().is_some()))
    });
    let half = |night: bool| half(session, file, night);
    PromiseProved {
        target: file.id.clone(),
        name: file.name.clone(),
        needs_px_per_m: target.need.px_per_m,
        walk: if file.subject == Subject::Plate { Walk::Plate } else { Walk::Board },
        design: design.verdict,
        built: built.verdict,
        found,
        best: built.best.clone(),
        day: half(false),
        night: half(true),
    }
}

/// What was tried at a target by day or by night. Of each view the newest counts; as many views as are promised must keep it.
fn half(session: &Session, target: &TargetFile, night: bool) -> HalfProved {
    let file = session.site().file();
    let own = file.proofs.iter().filter(|proof| proof.target == target.id && proof.night == night);
    let mut proofs: Vec<ProofTold> = own.filter_map(|proof| proof_told(session, proof).ok()).collect();
    // One that says no time is older than any that does; the file's order settles the rest.
    proofs.reverse();
    proofs
        .sort_by_key(|proof| std::cmp::Reverse(proof.at.as_deref().and_then(|at| at.parse::<jiff::Timestamp>().ok())));
    let counts = |proof: &&ProofTold| proof.past.is_none();
    // A board, a plate and a word are tries of their own: a view keeps the promise only if the newest of each says so.
    let mut tries: Vec<&ProofTold> = vec![];
    for proof in proofs.iter().filter(counts) {
        if !tries.iter().any(|held| held.head == proof.head && held.counted == proof.counted) {
            tries.push(proof);
        }
    }
    // Pixels alone read no plate.
    let reads = |proof: &&ProofTold| {
        let read = |held: &&ProofTold| held.head == proof.head && held.counted == Counted::Characters;
        target.subject != Subject::Plate || tries.iter().any(read)
    };
    let mut by_view: Vec<(&HeadRef, Verdict, &str)> = vec![];
    for proof in tries.iter().copied().filter(|proof| reads(proof)) {
        match by_view.iter_mut().find(|(held, ..)| **held == proof.head) {
            Some(held) if held.1 < proof.verdict => *held = (&proof.head, proof.verdict, &proof.says),
            Some(_) => {}
            None => by_view.push((&proof.head, proof.verdict, &proof.says)),
        }
    }
    by_view.sort_by_key(|(_, verdict, _)| *verdict);
    let wanted = target.heads_wanted as usize;
    let (verdict, says) = match by_view.get(wanted - 1) {
        Some((_, verdict, says)) => (*verdict, (*says).to_owned()),
        None if by_view.is_empty() && proofs.is_empty() => (Verdict::Unknown, "not tried yet".to_owned()),
        None if by_view.is_empty() && !tries.is_empty() => (Verdict::Unknown, "its plate is not read yet".to_owned()),
        None if by_view.is_empty() => {
            let past = proofs[0].past.clone().unwrap_or_default();
            (Verdict::Unknown, format!("to be tried again: {past}"))
        }
        None => (Verdict::Unknown, format!("{} of {wanted} cameras tried", by_view.len())),
    };
    HalfProved { verdict, says, proofs }
}

fn walks_left(promise: &PromiseProved) -> Vec<ProveTodo> {
    let of = |night: bool, half: &HalfProved| {
        let when = if night { "by night" } else { "by day" };
        let (kind, says) = match half.verdict {
            Verdict::Kept => return None,
            Verdict::Unknown => (TodoKind::Walk, format!("{}, {when}: {}", promise.name, half.says)),
            Verdict::Tight | Verdict::Broken => (TodoKind::Falls, format!("{}, {when}: {}", promise.name, half.says)),
        };
        Some(ProveTodo { kind, target: Some(promise.target.clone()), head: promise.best.clone(), night, says })
    };
    [of(false, &promise.day), of(true, &promise.night)].into_iter().flatten().collect()
}

fn pictures_left(looked: &Looked) -> Option<ProveTodo> {
    let when = if looked.night { "by night" } else { "by day" };
    let todo = |kind: TodoKind, says: String| ProveTodo {
        kind,
        target: None,
        head: Some(looked.head.clone()),
        night: looked.night,
        says,
    };
    match (&looked.reference, &looked.past) {
        (None, _) => Some(todo(TodoKind::Keep, format!("{}: keep its picture {when}", looked.name))),
        (Some(_), Some(past)) => {
            Some(todo(TodoKind::Keep, format!("{}: keep a new picture {when}, {past}", looked.name)))
        }
        (Some(_), None) if looked.faults.is_empty() => None,
        (Some(_), None) => {
            let says: Vec<&str> = looked.faults.iter().map(|fault| fault_word(fault.kind)).collect();
            Some(todo(TodoKind::Differs, format!("{}, {when}: {}", looked.name, says.join(", "))))
        }
    }
}

fn fault_word(kind: LookKind) -> &'static str {
    match kind {
        LookKind::Moved => "it moved",
        LookKind::Blocked => "something hides part of it",
        LookKind::Grown => "something grew into it",
        LookKind::Hazed => "dirty or hazed",
        LookKind::OutOfFocus => "out of focus",
        LookKind::Darker => "darker",
        LookKind::ClockWrong => "its clock is wrong",
    }
}
