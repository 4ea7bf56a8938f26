//! What a site asks for and what is usual: tasks as people say them, the answers that are usual for a kind of site, and what
//! must be answered before one leaves. All of it common practice, no source.

use super::begins::{Begins, begins};
use crate::file::limits::{LIMITS, PROVING, UNCERTAINTIES, WIRING};
use crate::file::{
    Brief, KnownPlate, ProvingRules, Rules, SiteKind, Subject, Task, USUAL_APART_DEG, WiringRules, known_plates,
};
use crate::site::link::LEAST_PAIRS;
use crate::site::subject::usual_size;
use crate::site::tour::{USUAL_SLEW_DEG_S, USUAL_ZOOM_S};
use serde::Serialize;
use utoipa::ToSchema;

/// A task as people say it, with what it stands for.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct PlainTask {
    /// How people say it.
    pub says: &'static str,
    /// What must be seen.
    pub subject: Subject,
    /// What the picture is used for.
    pub task: Task,
    /// The usual height of what must be seen, m.
    pub height_m: f64,
}

/// What is usual for a kind of site.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Usual {
    /// The kind.
    pub kind: SiteKind,
    /// Answers that are filled in where nobody has answered yet.
    pub brief: Brief,
    /// What there usually is to be seen, what matters most first.
    pub targets: Vec<UsualTarget>,
}

/// What there usually is to be seen on a kind of site.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct UsualTarget {
    /// What it is called.
    pub name: &'static str,
    /// The task, as people say it: one of the guide's.
    pub says: &'static str,
}

/// A field that must be answered before one leaves, with the question.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct Needed {
    /// The field's name in the file.
    pub field: &'static str,
    /// The question.
    pub asks: &'static str,
}

/// The usual size of a subject.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct SubjectSize {
    /// The subject.
    pub subject: Subject,
    /// Its width and height, m.
    pub size_m: [f64; 2],
}

/// What is taken where a file does not say.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct Defaults {
    /// How fast a head turns from afar, degrees a second.
    pub slew_deg_s: f64,
    /// How long it zooms, s.
    pub zoom_s: f64,
    /// How near two heads come on the ring of a multi-head, degrees.
    pub apart_deg: f64,
}

/// The range of a limit or an uncertainty of a site.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct LimitRange {
    /// Its name in the file's `rules`, or in their `uncertainties`.
    pub field: &'static str,
    /// The least.
    pub least: f64,
    /// The greatest.
    pub most: f64,
}

/// Heights on the ground that people ask about, m: the ground itself, a plate's, a face's.
const HEIGHTS_M: [f64; 3] = [0.0, 0.7, 1.6];
/// A solid so near to a camera may be what it sits on, m: drawings are rough.
const SITS_ON_WITHIN_M: f64 = 1.0;
/// A picture of a moving plate is looked at with the shutter open so long, s (handbook, section 6).
const LOOKED_AT_SHUTTER_S: f64 = 1.0 / 500.0;
/// Kilometres an hour in a metre a second.
const KMH: f64 = 3.6;

/// All of it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Guide {
    /// Tasks as people say them.
    pub tasks: Vec<PlainTask>,
    /// What is usual.
    pub usual: Vec<Usual>,
    /// What a brief needs.
    pub brief: Vec<Needed>,
    /// What a spot needs.
    pub spot: Vec<Needed>,
    /// What every target needs.
    pub target: Vec<Needed>,
    /// How large subjects usually are; a scene has no size.
    pub sizes: Vec<SubjectSize>,
    /// The number plates that can be chosen from.
    pub plates: Vec<KnownPlate>,
    /// What is taken where a file does not say.
    pub defaults: Defaults,
    /// The limits and uncertainties where a file does not say.
    pub rules: Rules,
    /// The limits of wiring where a file does not say.
    pub wiring: WiringRules,
    /// The limits of proving and upkeep where a file does not say.
    pub proving: ProvingRules,
    /// Their ranges.
    pub limits: Vec<LimitRange>,
    /// How things begin.
    pub begins: Begins,
    /// Heights on the ground that people ask about, m.
    pub heights_m: [f64; 3],
    /// A solid so near to a camera may be what it sits on, m.
    pub sits_on_within_m: f64,
    /// How few pairs link a fixed view to a head that is turned.
    pub link_pairs: usize,
    /// A picture of something that moves is looked at with the shutter open so long, s.
    pub shutter_s: f64,
    /// Kilometres an hour in a metre a second.
    pub kmh: f64,
}

/// The guide.
pub fn guide() -> Guide {
    let kinds = [SiteKind::Home, SiteKind::Shop, SiteKind::Office, SiteKind::Yard, SiteKind::Other];
    Guide {
        tasks: PLAIN_TASKS.to_vec(),
        usual: kinds.map(|kind| Usual { kind, brief: usual(kind), targets: usual_targets(kind).to_vec() }).to_vec(),
        brief: BRIEF_NEEDS.to_vec(),
        spot: SPOT_NEEDS.to_vec(),
        target: TARGET_NEEDS.to_vec(),
        sizes: [Subject::Person, Subject::Face, Subject::Vehicle, Subject::Plate, Subject::Scene]
            .into_iter()
            .filter_map(|subject| Some(SubjectSize { subject, size_m: usual_size(subject)? }))
            .collect(),
        plates: known_plates(),
        defaults: Defaults { slew_deg_s: USUAL_SLEW_DEG_S, zoom_s: USUAL_ZOOM_S, apart_deg: USUAL_APART_DEG },
        rules: Rules::default(),
        wiring: WiringRules::default(),
        proving: ProvingRules::default(),
        limits: limits(),
        begins: begins(),
        heights_m: HEIGHTS_M,
        sits_on_within_m: SITS_ON_WITHIN_M,
        link_pairs: LEAST_PAIRS,
        shutter_s: LOOKED_AT_SHUTTER_S,
        kmh: KMH,
    }
}

fn limits() -> Vec<LimitRange> {
    let range = |field, [least, most]: [f64; 2]| LimitRange { field, least, most };
    let rules = LIMITS.iter().map(|limit| range(limit.field, limit.range));
    let wiring = WIRING.iter().map(|limit| range(limit.field, limit.range));
    let proving = PROVING.iter().map(|limit| range(limit.field, limit.range));
    let uncertain = UNCERTAINTIES.iter().map(|limit| range(limit.field, limit.range));
    rules.chain(uncertain).chain(wiring).chain(proving).collect()
}

const fn plain(says: &'static str, subject: Subject, task: Task, height_m: f64) -> PlainTask {
    PlainTask { says, subject, task, height_m }
}

/// Tasks as people say them.
pub const PLAIN_TASKS: [PlainTask; 10] = [
    plain("identify a face", Subject::Face, Task::Identify, 1.6),
    plain("recognise a person", Subject::Face, Task::Recognise, 1.6),
    plain("see what somebody does", Subject::Person, Task::Observe, 1.2),
    plain("see that somebody is there", Subject::Person, Task::Detect, 1.2),
    plain("see a crowd or a queue", Subject::Person, Task::Monitor, 1.2),
    plain("read plates", Subject::Plate, Task::Read, 0.7),
    plain("recognise a vehicle", Subject::Vehicle, Task::Recognise, 1.0),
    plain("see that a vehicle is there", Subject::Vehicle, Task::Detect, 1.0),
    plain("watch over the whole area", Subject::Scene, Task::Observe, 0.5),
    plain("see small things, notes, hands", Subject::Scene, Task::Inspect, 1.0),
];

/// What is usual for a kind of site.
pub fn usual(kind: SiteKind) -> Brief {
    let (days, hours) = match kind {
        SiteKind::Home => (Some(14), Some("lived in")),
        SiteKind::Shop => (Some(30), Some("9 to 18, closed on Sundays")),
        SiteKind::Office => (Some(30), Some("8 to 18 on weekdays")),
        SiteKind::Yard => (Some(30), Some("7 to 18")),
        SiteKind::Other => (None, None),
    };
    Brief { retention_days: days, sound: Some(false), hours: hours.map(str::to_owned), ..Brief::default() }
}

const fn seen(name: &'static str, says: &'static str) -> UsualTarget {
    UsualTarget { name, says }
}

/// What there usually is to be seen on a kind of site, in the order of importance: who comes in by the main entrance first.
pub const fn usual_targets(kind: SiteKind) -> &'static [UsualTarget] {
    const FACE: &str = "identify a face";
    const PERSON: &str = "recognise a person";
    const DOES: &str = "see what somebody does";
    const THERE: &str = "see that somebody is there";
    match kind {
        SiteKind::Home => {
            &const {
                [
                    seen("Main entrance", FACE),
                    seen("Side door", FACE),
                    seen("Garage door", PERSON),
                    seen("Back door", FACE),
                    seen("Drive", "recognise a vehicle"),
                    seen("Garden gate", PERSON),
                    seen("Garden", THERE),
                ]
            }
        }
        SiteKind::Shop => {
            &const {
                [
                    seen("Main entrance", FACE),
                    seen("Till", "see small things, notes, hands"),
                    seen("Staff door", FACE),
                    seen("Loading door", PERSON),
                    seen("Stock room", DOES),
                    seen("Sales floor", DOES),
                ]
            }
        }
        SiteKind::Office => {
            &const {
                [
                    seen("Main entrance", FACE),
                    seen("Reception", FACE),
                    seen("Side door", FACE),
                    seen("Server room door", FACE),
                    seen("Car park", "recognise a vehicle"),
                ]
            }
        }
        SiteKind::Yard => {
            &const {
                [
                    seen("Gate, who comes in", FACE),
                    seen("Gate, plates", "read plates"),
                    seen("Office door", FACE),
                    seen("Loading dock", PERSON),
                    seen("Stock", DOES),
                    seen("Fence", THERE),
                ]
            }
        }
        SiteKind::Other => &const { [seen("Main entrance", FACE), seen("Side door", FACE)] },
    }
}

const fn needed(field: &'static str, asks: &'static str) -> Needed {
    Needed { field, asks }
}

/// What the client is asked that a later stage needs.
pub const BRIEF_NEEDS: [Needed; 12] = [
    needed("client", "Who is the client?"),
    needed("kind", "What kind of site is it?"),
    needed("must_see", "What must be seen, in the client's words?"),
    needed("retention_days", "How many days of recording?"),
    needed("recorder_place", "Where does the recorder go?"),
    needed("colour", "Which colour, black or white?"),
    needed("sound", "Is sound wanted?"),
    needed("viewers", "Who may see recordings?"),
    needed("night_light", "What light is there at night?"),
    needed("access", "How do the fitters get up there: ladder, lift, permit?"),
    needed("private_places", "Which private places stay out of view?"),
    needed("decides", "Who decides?"),
];

/// What must be known of a spot.
pub const SPOT_NEEDS: [Needed; 6] = [
    needed("kind", "what kind of place is it?"),
    needed("surface", "what is the surface?"),
    needed("back_box", "is a back box needed?"),
    needed("outdoor", "indoors or outdoors?"),
    needed("in_reach", "can a hand reach it?"),
    needed("cable_m", "how long is the cable way?"),
];

/// What must be known of every target.
pub const TARGET_NEEDS: [Needed; 1] = [needed("night_light", "what light is there at night?")];
