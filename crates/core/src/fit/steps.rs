//! The steps at a camera, from the bench to the film: for exactly its form, mount, surface and cable (handbook, section 13).
//!
//! The steps are rules as data (`data/steps.json`): what is said, and when. No text is written for one model.

use super::spot_facts::SpotFacts;
use crate::file::{
    Access, CableEntry, CameraFile, Existing, Fault, Form, HeadFile, MountPart, MountedAs, PartKind, SiteFile, StepHow,
    Surface,
};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

const STEPS_JSON: &str = include_str!("../../data/steps.json");

const LONGEST_ID: usize = 64;

/// When in the work a step comes.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Phase {
    /// Before the ladder.
    Bench,
    /// At the spot, until it hangs.
    PutUp,
    /// With its picture in hand.
    Aim,
    /// Until it is closed.
    Close,
}

/// How far a camera is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FitState {
    /// Something is left to do on the bench.
    OnTheBench,
    /// It can go up.
    Ready,
    /// It hangs.
    Hung,
    /// It is aimed.
    Aimed,
    /// It is closed.
    Closed,
}

/// A fact that a step can hang on.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Deserialize)]
#[serde(rename_all = "snake_case")]
enum Fact {
    Alike,
    AlarmLines,
    Arm,
    BackBox,
    Card,
    Conduit,
    Corridor,
    Crimped,
    Holes,
    Housing,
    Infrared,
    MotorAimed,
    Outdoor,
    Parapet,
    Parts,
    PoleStrap,
    Ptz,
    Sound,
    Stays,
    SurfaceUnknown,
    Wireless,
    Zoom,
}

/// When a step is one of a camera's: all of what is said must hold.
#[derive(Clone, Debug, Default, Deserialize)]
#[serde(deny_unknown_fields, default)]
struct When {
    forms: Vec<Form>,
    surfaces: Vec<Surface>,
    mounted: Vec<MountedAs>,
    entry: Vec<CableEntry>,
    has: Vec<Fact>,
    any: Vec<Fact>,
    lacks: Vec<Fact>,
}

/// A step as the data has it.
#[derive(Clone, Debug, Deserialize)]
#[serde(deny_unknown_fields)]
struct Rule {
    id: String,
    phase: Phase,
    says: String,
    #[serde(default)]
    caution: Option<String>,
    #[serde(default)]
    when: When,
    #[serde(default)]
    each_head: bool,
    #[serde(default)]
    aims: bool,
    #[serde(default)]
    again: bool,
    #[serde(default)]
    photo: bool,
}

/// A step at a camera.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct FitStep {
    /// Its id; with a head's where it is done at each, `step.head`.
    pub id: String,
    /// When it comes.
    pub phase: Phase,
    /// The head that it is done at.
    #[schema(required)]
    pub head: Option<String>,
    /// What is done.
    pub says: String,
    /// What to mind at it.
    #[schema(required)]
    pub caution: Option<String>,
    /// Whether it is the one where the head is aimed by its picture.
    pub aims: bool,
    /// Whether a photo belongs to it.
    pub photo: bool,
    /// What became of it; null where it is still to be done.
    #[schema(required)]
    pub how: Option<StepHow>,
    /// When that was.
    #[schema(required)]
    pub at: Option<String>,
}

/// The card of a camera: what is brought, and each step.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Steps {
    /// The camera's id.
    pub camera: String,
    /// What it is called.
    pub name: String,
    /// How far it is.
    pub state: FitState,
    /// The step to go on with; null when nothing is left.
    #[schema(required)]
    pub next: Option<String>,
    /// How many steps are left.
    pub left: usize,
    /// The steps that were left for later.
    pub later: Vec<String>,
    /// What is brought to this spot.
    pub bring: Vec<String>,
    /// The steps in their order.
    pub steps: Vec<FitStep>,
}

/// The steps at one camera.
///
/// # Errors
/// Names the camera that the site does not have, or that goes.
pub fn steps_of(site: &SiteFile, camera: &str) -> Result<Steps, Fault> {
    let found = site.cameras.iter().find(|held| held.id == camera);
    let found = found.ok_or_else(|| Fault::new("camera", format!("the site has no camera \"{camera}\"")))?;
    if found.goes() {
        return Err(Fault::new("camera", format!("camera \"{camera}\" goes: it is taken down, not put up")));
    }
    Ok(card(site, found, &rules()?))
}

/// The steps at every camera that stays or comes.
///
/// # Errors
/// As for the data of the steps, which tests hold against their types.
pub fn all_steps(site: &SiteFile) -> Result<Vec<Steps>, Fault> {
    let rules = rules()?;
    Ok(site.cameras.iter().filter(|camera| !camera.goes()).map(|camera| card(site, camera, &rules)).collect())
}

fn rules() -> Result<Vec<Rule>, Fault> {
    serde_json::from_str(STEPS_JSON).map_err(|error| Fault::new("steps", error.to_string()))
}

fn card(site: &SiteFile, camera: &CameraFile, rules: &[Rule]) -> Steps {
    let facts = SpotFacts::of(site, camera);
    let blanks = Blanks::of(site, &facts);
    let mut steps = vec![];
    for rule in rules {
        if rule.each_head {
            let heads = camera.heads.iter().filter(|head| holds(site, &rule.when, &facts, Some(head)));
            let several = camera.heads.len() > 1;
            steps.extend(heads.map(|head| step(rule, &facts, &blanks, Some(head), several)));
        } else if holds(site, &rule.when, &facts, None) {
            steps.push(step(rule, &facts, &blanks, None, false));
        }
    }
    let later: Vec<String> =
        steps.iter().filter(|step| step.how == Some(StepHow::Later)).map(|step| step.id.clone()).collect();
    // With nothing left for later nothing is asked again.
    let again = |id: &str| rules.iter().any(|rule| rule.again && rule.id == id);
    steps.retain(|step| !again(&step.id) || !later.is_empty());
    steps.sort_by_key(|step| step.phase);
    let is_left = |step: &&FitStep| step.how.is_none();
    let next = steps.iter().find(is_left).or_else(|| steps.iter().find(|step| step.how == Some(StepHow::Later)));
    Steps {
        camera: camera.id.clone(),
        name: camera.name.clone(),
        state: state(&steps),
        next: next.map(|step| step.id.clone()),
        left: steps.iter().filter(|step| !matches!(step.how, Some(StepHow::Done | StepHow::LeftOut))).count(),
        later,
        bring: bring(&facts),
        steps,
    }
}

fn step(rule: &Rule, facts: &SpotFacts, blanks: &Blanks, head: Option<&HeadFile>, several: bool) -> FitStep {
    let id = head.map_or_else(|| rule.id.clone(), |head| id_at(&rule.id, facts.camera, head));
    let done = facts.camera.fitting.iter().flat_map(|fitting| &fitting.done).find(|done| done.id == id);
    let says = blanks.filled(&rule.says, head);
    let which = head.filter(|_| several).map(|head| format!("Head {}: ", head.id));
    FitStep {
        id,
        phase: rule.phase,
        head: head.map(|head| head.id.clone()),
        says: format!("{}{says}", which.unwrap_or_default()),
        caution: rule.caution.clone(),
        aims: rule.aims,
        photo: rule.photo,
        how: done.map(|done| done.how),
        at: done.and_then(|done| done.at.clone()),
    }
}

/// The id of a step at a head. Ids have 64 characters at most: one that is too long takes the head's place for its id.
fn id_at(step: &str, camera: &CameraFile, head: &HeadFile) -> String {
    let id = format!("{step}.{}", head.id);
    let place = camera.heads.iter().position(|held| held.id == head.id).unwrap_or_default();
    if id.len() <= LONGEST_ID { id } else { format!("{step}.{}", place + 1) }
}

/// How far a camera is: a phase is over when each step of it was done or left, one way or the other. Closed is only what left nothing for
/// later.
fn state(steps: &[FitStep]) -> FitState {
    let over = |phase: Phase| steps.iter().filter(|step| step.phase == phase).all(|step| step.how.is_some());
    let all_said = steps.iter().all(|step| matches!(step.how, Some(StepHow::Done | StepHow::LeftOut)));
    match (over(Phase::Bench), over(Phase::PutUp), over(Phase::Aim)) {
        (true, true, true) if all_said => FitState::Closed,
        (true, true, true) => FitState::Aimed,
        (true, true, false) => FitState::Hung,
        (true, false, _) => FitState::Ready,
        (false, ..) => FitState::OnTheBench,
    }
}

fn holds(site: &SiteFile, when: &When, facts: &SpotFacts, head: Option<&HeadFile>) -> bool {
    let among = |said: &[Form]| said.is_empty() || said.contains(&facts.camera.model.form);
    let is = |fact: &Fact| is_so(site, *fact, facts, head);
    among(&when.forms)
        && (when.surfaces.is_empty() || facts.surface.is_some_and(|surface| when.surfaces.contains(&surface)))
        && (when.mounted.is_empty() || when.mounted.contains(&facts.hangs))
        && (when.entry.is_empty() || when.entry.contains(&facts.entry))
        && when.has.iter().all(is)
        && (when.any.is_empty() || when.any.iter().any(is))
        && !when.lacks.iter().any(is)
}

fn is_so(site: &SiteFile, fact: Fact, facts: &SpotFacts, head: Option<&HeadFile>) -> bool {
    let (camera, model) = (facts.camera, &facts.camera.model);
    let mount = camera.mount.as_ref();
    let turned = |head: &HeadFile| (45.0..135.0).contains(&head.roll_deg.rem_euclid(180.0));
    match fact {
        Fact::Alike => alike(site, camera).is_some(),
        Fact::AlarmLines => model.alarm_inputs.unwrap_or(0) + model.alarm_outputs.unwrap_or(0) > 0,
        Fact::Arm => facts.has(PartKind::Arm) || facts.has(PartKind::Corner),
        Fact::BackBox => facts.wants_back_box(),
        Fact::Card => model.card_gb.unwrap_or(0) > 0,
        Fact::Conduit => mount.is_some_and(|mount| mount.conduit_mm.is_some()),
        Fact::Corridor => head.map_or_else(|| camera.heads.iter().any(turned), turned),
        Fact::Crimped => mount.is_some_and(|mount| mount.crimped_before == Some(true)),
        Fact::Holes => mount.is_some_and(|mount| mount.seal_holes.unwrap_or(1) > 1),
        Fact::Housing => facts.is_housed(),
        Fact::Infrared => model.infrared_light().is_some(),
        Fact::MotorAimed => model.motor_aimed,
        Fact::Outdoor => facts.outdoor,
        Fact::Parapet => facts.has(PartKind::Parapet),
        Fact::Parts => !facts.parts().is_empty(),
        Fact::PoleStrap => facts.has(PartKind::PoleStrap),
        Fact::Ptz => model.form == Form::Ptz,
        Fact::Sound => model.sound == Some(true) || model.form == Form::Fisheye,
        Fact::Stays => camera.existing == Some(Existing::Stays),
        Fact::SurfaceUnknown => facts.surface.is_none(),
        Fact::Wireless => facts.wireless,
        Fact::Zoom => model.lens.is_zoom(),
    }
}

/// Another camera of the same model that is set already.
fn alike<'a>(site: &'a SiteFile, camera: &CameraFile) -> Option<&'a CameraFile> {
    let is_set = |other: &&CameraFile| {
        let done = other.fitting.iter().flat_map(|fitting| &fitting.done);
        other.id != camera.id
            && other.model.name == camera.model.name
            && done.into_iter().any(|done| done.id == "day-night")
    };
    site.cameras.iter().find(is_set)
}

/// What the blanks of the steps are filled with.
struct Blanks<'a> {
    facts: &'a SpotFacts<'a>,
    pairs: Vec<(&'static str, String)>,
}

impl<'a> Blanks<'a> {
    fn of(site: &SiteFile, facts: &'a SpotFacts<'a>) -> Blanks<'a> {
        let camera = facts.camera;
        let spot = facts.spot.map_or_else(|| "its spot".to_owned(), |spot| spot.name.clone());
        let address = camera.device.as_ref().and_then(|device| device.address);
        let names: Vec<&str> = facts.parts().iter().map(|part| part.name.as_str()).collect();
        let presets: Vec<&str> =
            camera.heads.iter().flat_map(|head| &head.presets).map(|preset| preset.name.as_str()).collect();
        let access = match facts.access() {
            Access::Ladder => "A ladder",
            Access::Lift => "A lift",
            Access::Roof => "From the roof",
        };
        let holes = camera.mount.as_ref().and_then(|mount| mount.seal_holes).unwrap_or(1);
        let pairs = vec![
            ("{name}", camera.name.clone()),
            ("{spot}", spot),
            ("{height}", format!("{:.1}", facts.foot_m())),
            ("{address}", address.map_or_else(|| "its address".to_owned(), |address| address.to_string())),
            ("{surface}", facts.surface.map_or("the surface", Surface::word).to_owned()),
            ("{anchors}", facts.screws().to_string()),
            ("{parts}", names.join(", then ")),
            ("{load}", format!("{:.0}", (super::mount_checks::LOAD_TIMES * facts.hangs_kg()).ceil())),
            ("{cables}", facts.cables.to_string()),
            ("{holes}", holes.to_string()),
            ("{presets}", if presets.is_empty() { "those of the client".to_owned() } else { presets.join(", ") }),
            ("{access}", access.to_owned()),
            ("{alike}", alike(site, camera).map_or_else(String::new, |other| other.name.clone())),
        ];
        Blanks { facts, pairs }
    }

    fn filled(&self, says: &str, head: Option<&HeadFile>) -> String {
        let mut said = says.to_owned();
        for (blank, with) in &self.pairs {
            said = said.replace(blank, with);
        }
        let head = head.unwrap_or(&self.facts.camera.heads[0]);
        said.replace("{bearing}", &format!("{:.0}", head.pan_deg.rem_euclid(360.0)))
            .replace("{tilt}", &format!("{:.0}", head.tilt_deg))
    }
}

/// What is brought to a spot.
fn bring(facts: &SpotFacts) -> Vec<String> {
    let camera = facts.camera;
    let mut said = vec![format!("{}, {}", camera.name, camera.model.name)];
    if camera.existing == Some(Existing::Stays) {
        return vec![format!("{} hangs there already", camera.name), "Phone or tablet for its picture".to_owned()];
    }
    said.extend(facts.parts().iter().map(|part: &MountPart| part.name.clone()));
    if facts.wants_back_box() && !facts.has(PartKind::BackBox) {
        said.push(camera.model.back_box.clone().unwrap_or_else(|| "Back box for it".to_owned()));
    }
    let surface = facts.surface.map_or("a surface nobody named", Surface::word);
    said.push(format!("{} anchors for {surface}", facts.screws()));
    said.push("Lanyard, desiccant, seal".to_owned());
    if facts.outdoor && !facts.wireless {
        said.push("Weather boot, tape, plugs for seal holes".to_owned());
    }
    said.push("Hand screwdriver, lens tool".to_owned());
    said.push("Phone or tablet for its picture".to_owned());
    said.push(match facts.access() {
        Access::Ladder => format!("Ladder for {:.1} m", facts.foot_m()),
        Access::Lift => format!("Lift for {:.1} m", facts.foot_m()),
        Access::Roof => "Way to the roof".to_owned(),
    });
    said
}
