//! One question about one view: which lens, how high, how far, what will spoil it by night. The truth is the core's own, with what it
//! rests on.

use super::made_up::made_up;
use crate::file::{Conditions, Fault, HeadRef, SiteFile, Subject};
use crate::judge::{Session, SightLine};
use crate::site::Target;
use crate::verdict::{RuleName, Verdict};
use crate::words::units::INCH_M;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// An answer is right within this share of the truth (our default).
const NEAR: f64 = 0.15;
/// The thumb rule that a millimetre of focal length goes with a metre of distance where a face is to be known. Common practice, no source.
const MM_PER_M: f64 = 1.0;
/// The thumb rule that what is farther than 60 ft takes a zoom lens. Common practice, no source.
const ZOOM_PAST_M: f64 = 60.0 * 12.0 * INCH_M;

/// So many sight lines are looked at for a question, and two questions begin so many apart.
const MOST_LOOKED_AT: usize = 2_000;
const APART: usize = 7;

/// What a question asks.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LessonKind {
    /// Which focal length.
    Lens,
    /// How high it may hang.
    Height,
    /// Up to how far.
    Reach,
    /// What will spoil it by night.
    Night,
}

/// A question with its truth.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Lesson {
    /// What it asks.
    pub kind: LessonKind,
    /// The made-up site that it is about; null for the site in hand.
    #[schema(required)]
    pub site: Option<Box<SiteFile>>,
    /// The view that is shown.
    pub head: HeadRef,
    /// The promise.
    pub target: String,
    /// The question.
    pub asks: String,
    /// How it is answered.
    pub answer: LessonAnswer,
    /// The truth in words, with what it rests on.
    pub because: Vec<String>,
    /// A rule of thumb, and how far it is off here; null where none is known.
    #[schema(required)]
    pub thumb: Option<String>,
}

/// How a question is answered.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LessonAnswer {
    /// By a figure.
    Figure {
        /// Its unit.
        unit: &'static str,
        /// The least that can be said.
        least: f64,
        /// The greatest.
        most: f64,
        /// The truth.
        truth: f64,
        /// Right within so much, as a share of the truth.
        near: f64,
    },
    /// By one of several sentences.
    Choice {
        /// The sentences.
        options: Vec<&'static str>,
        /// The place of the true one.
        truth: usize,
    },
}

/// What can spoil a view by night, and the rules that say so.
const NIGHT: [(&str, &[RuleName]); 5] = [
    ("Too little light comes back from there", &[RuleName::LightEnough]),
    ("It is overexposed: too much light comes back", &[RuleName::Overexposed]),
    ("Headlights blind it", &[RuleName::Headlights]),
    ("What moves is drawn out: the shutter stays open too long", &[RuleName::Blur]),
    ("Nothing: it is by night as by day", &[]),
];

/// The question of a number about the site in hand, or about a made-up one.
///
/// # Errors
/// A site in which no camera has a promise in its picture.
pub fn lesson(session: &Session, kind: LessonKind, number: u32, invented: bool) -> Result<Lesson, Fault> {
    if invented {
        let made = made_up(number)?;
        let session = Session::open(made.clone()).map_err(|faults| faults[0].clone())?;
        let about = asked(&session, kind, number)?;
        return Ok(Lesson { site: Some(Box::new(made)), ..about });
    }
    asked(session, kind, number)
}

/// A sight line that something can be asked about.
struct About<'a> {
    line: SightLine,
    target: &'a Target,
    name: &'a str,
    density: f64,
}

fn asked(session: &Session, kind: LessonKind, number: u32) -> Result<Lesson, Fault> {
    let site = session.site();
    let fit = |about: &About| match kind {
        LessonKind::Height => matches!(about.target.subject, Subject::Face | Subject::Person),
        LessonKind::Lens | LessonKind::Reach | LessonKind::Night => about.target.subject != Subject::Scene,
    };
    let heads: Vec<_> =
        site.heads().iter().filter(|head| !head.is_flattened() && !site.goes(head.camera_id())).collect();
    let pairs = heads.len() * site.targets().len();
    let about = |pair: usize| -> Result<Option<About>, Fault> {
        let (head, place) = (heads[pair / site.targets().len()], pair % site.targets().len());
        let target = &site.targets()[place];
        let Some(line) = session.line(&head.name().to(&target.id))? else { return Ok(None) };
        let density = line.rules.iter().find(|rule| rule.rule == RuleName::PixelDensity).and_then(|rule| rule.value);
        let seen = line.in_view && line.clear && line.ground_m > 1.0;
        let name = site.file().targets[place].name.as_str();
        Ok(density.filter(|_| seen).map(|density| About { line, target, name, density }).filter(fit))
    };
    // The first that something can be asked about, from another place for each number.
    let mut found = None;
    for step in 0..pairs.min(MOST_LOOKED_AT) {
        found = about((number as usize * APART + step) % pairs)?;
        if found.is_some() {
            break;
        }
    }
    let none = || Fault::new("site", "no camera has such a promise in its picture: take a made-up yard");
    let about = &found.ok_or_else(none)?;
    Ok(match kind {
        LessonKind::Lens => lens(session, about)?,
        LessonKind::Height => height(session, about),
        LessonKind::Reach => reach(about),
        LessonKind::Night => night(session, about)?,
    })
}

fn begun(kind: LessonKind, about: &About, asks: String, answer: LessonAnswer) -> Lesson {
    let line = &about.line;
    let view = line.preset.clone().or_else(|| line.flattened.clone());
    let head = HeadRef { camera: line.camera.clone(), head: line.head.clone(), view };
    Lesson { kind, site: None, head, target: line.target.clone(), asks, answer, because: vec![], thumb: None }
}

fn figure(unit: &'static str, [least, most]: [f64; 2], truth: f64) -> LessonAnswer {
    LessonAnswer::Figure { unit, least: least.min(truth * 0.5), most: most.max(truth * 1.5), truth, near: NEAR }
}

/// How a rule of thumb does here; nothing where it is near enough.
fn breaks(says: &str, gives: f64, truth: f64, unit: &str) -> Option<String> {
    let off = gives / truth - 1.0;
    let word = if off > 0.0 { "more" } else { "less" };
    (off.abs() > NEAR).then(|| {
        format!(
            "Rule of thumb: {says}, {gives:.0} {unit}. Here that is {:.0} % {word} than it takes.",
            100.0 * off.abs()
        )
    })
}

/// Density grows with the focal length: what it takes is as many times the one that is set as density is short.
fn lens(session: &Session, about: &About) -> Result<Lesson, Fault> {
    let (line, need) = (&about.line, about.target.need.px_per_m);
    let site = session.site();
    let head =
        site.view(&HeadRef { camera: line.camera.clone(), head: line.head.clone(), view: line.preset.clone() })?;
    let camera = &site.file().cameras[head.camera()];
    let set = camera.heads[head.place()].aimed(head.which()).focal_mm;
    let truth = set * need / about.density;
    let sensor = &camera.model.sensor;
    let asks = format!(
        "{} is {:.1} m off, and needs {need:.0} px/m. Which focal length does that take on this sensor, {} px over {:.1} mm?",
        about.name, line.slant_m, sensor.width_px, sensor.width_mm
    );
    let mut lesson = begun(LessonKind::Lens, about, asks, figure("mm", [2.0, 30.0], truth));
    lesson.because = vec![
        format!("With {set:.1} mm it gets {:.0} px/m there.", about.density),
        format!("Density grows with the focal length: {set:.1} × {need:.0} / {:.0} = {truth:.1} mm.", about.density),
    ];
    lesson.thumb = breaks("a millimetre a metre", MM_PER_M * line.slant_m, truth, "mm");
    Ok(lesson)
}

/// A face is seen from above by the angle whose tangent is the drop over the distance.
fn height(session: &Session, about: &About) -> Lesson {
    let kept = session.site().rules().face_kept_deg;
    let (far, face) = (about.line.ground_m, about.target.middle.z - about.target.ground);
    let truth = face + far * kept.to_radians().tan();
    let asks = format!(
        "{} is {far:.1} m off over the ground. How high may a camera hang before it sees people there from more than {kept:.0}° above?",
        about.name
    );
    let mut lesson = begun(LessonKind::Height, about, asks, figure("m", [1.0, 12.0], truth));
    lesson.because = vec![
        format!("The face is {face:.1} m up: {face:.1} + {far:.1} × tan {kept:.0}° = {truth:.1} m."),
        "Near targets want low cameras: past that angle the picture is of caps and hair.".to_owned(),
    ];
    lesson.thumb = breaks("hang it at 3 m, out of reach", 3.0, truth, "m").filter(|_| truth < 3.0);
    lesson
}

/// Density falls with the distance.
fn reach(about: &About) -> Lesson {
    let need = about.target.need.px_per_m;
    let truth = about.line.slant_m * about.density / need;
    let asks = format!(
        "With the lens that is set, up to how far does somebody like at {} get the {need:.0} px/m that it needs?",
        about.name
    );
    let mut lesson = begun(LessonKind::Reach, about, asks, figure("m", [1.0, 80.0], truth));
    lesson.because = vec![
        format!("At {:.1} m it gets {:.0} px/m.", about.line.slant_m, about.density),
        format!(
            "Twice as far is half of it: {:.1} × {:.0} / {need:.0} = {truth:.1} m.",
            about.line.slant_m, about.density
        ),
    ];
    lesson.thumb = (truth > ZOOM_PAST_M).then(|| {
        format!(
            "Rule of thumb: past {ZOOM_PAST_M:.0} m it is a zoom's work. Not always: this fixed lens on this sensor reaches {truth:.0} m."
        )
    });
    lesson
}

/// The site by night, judged: the first rule of the light that does not hold.
fn night(session: &Session, about: &About) -> Result<Lesson, Fault> {
    let mut file = session.site().file().clone();
    file.conditions = Conditions { night: true, ..file.conditions };
    let by_night = Session::open(file).map_err(|faults| faults[0].clone())?;
    let asks = format!("By night, with the lamps as they are: what spoils {} in this view first?", about.name);
    let line = by_night.line(
        &HeadRef { camera: about.line.camera.clone(), head: about.line.head.clone(), view: about.line.preset.clone() }
            .to(&about.line.target),
    )?;
    let rules = line.map(|line| line.rules).unwrap_or_default();
    let fails = |names: &[RuleName]| {
        rules.iter().find(|rule| names.contains(&rule.rule) && matches!(rule.verdict, Verdict::Broken | Verdict::Tight))
    };
    let found = NIGHT.iter().position(|(_, names)| fails(names).is_some());
    let truth = found.unwrap_or(NIGHT.len() - 1);
    let options = NIGHT.map(|(says, _)| says).to_vec();
    let mut lesson = begun(LessonKind::Night, about, asks, LessonAnswer::Choice { options, truth });
    lesson.because = match fails(NIGHT[truth].1) {
        Some(rule) => {
            let figure = rule.value.map_or("not known".to_owned(), |value| format!("{value:.2}"));
            let limit = rule.limit.map_or(String::new(), |limit| format!(", the limit {limit:.2}"));
            vec![format!("The rule finds {figure}{limit} ({}): {}.", rule.basis, rule.verdict.word())]
        }
        None => vec!["Every rule of the light holds there by night.".to_owned()],
    };
    Ok(lesson)
}
