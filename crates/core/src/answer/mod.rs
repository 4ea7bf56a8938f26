//! What a screen asks a session, and the answers as JSON: the one door for a core that runs beside an interface.

use crate::change::compare::compare;
use crate::change::designs::{adopt, side_by_side};
use crate::change::edits::{aim_at, at_slant, new_camera, with_model};
use crate::change::forms::spread;
use crate::change::merge::{Choice, merge};
use crate::change::ways::mend::washed_ways;
use crate::change::ways::picture::picture_ways;
use crate::change::ways::ways;
use crate::equipment::catalogue;
use crate::file::{Fault, HeadRef, Point2, Question, Sensor, SiteFile, Task};
use crate::ground::lost::lost;
use crate::ground::seasons::other_states;
use crate::ground::told::{GroundWish, ground};
use crate::ground::why::why;
use crate::judge::evaluation::head_named;
use crate::judge::session::{HeadVerdict, Summary};
use crate::judge::tours::tours;
use crate::judge::{HeadResult, Session, SightLine};
use crate::show::card::card;
use crate::show::light_told::light_told;
use crate::show::masks::masks;
use crate::show::outline::outline;
use crate::show::picture_use::picture_use_of;
use crate::show::plates::{plates, schools};
use crate::show::section::{Section, section};
use crate::show::start_settings::{as_csv, start_settings};
use crate::show::sun_told::sun_at;
use crate::site::link::{link_of, point_through};
use crate::survey::drawing::parse_world_file;
use crate::survey::first_answer::{Asked, first_answer};
use crate::survey::{TakenShot, read_csv_into, survey, take_shot_on, write_csv};
use crate::words::guide::guide;
use crate::words::shortfall;
use crate::words::units::Units;
use crate::work::Patience;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A common sensor, that the plain focal length of a first answer is told for.
pub const COMMON_SENSOR: Sensor =
    Sensor { width_px: 2688, height_px: 1520, width_mm: 5.376, height_mm: 3.04, image_circle_px: None };

/// What can be asked.
#[derive(Clone, Debug, Deserialize, Serialize, ToSchema)]
#[serde(tag = "ask", rename_all = "snake_case", deny_unknown_fields)]
pub enum Ask {
    /// What the screen shows at once: [`Sights`].
    Sights {
        /// The target in hand.
        #[serde(default)]
        target: Option<String>,
        /// The head in hand.
        #[serde(default)]
        head: Option<HeadRef>,
    },
    /// The ways to keep a sight line.
    Ways {
        /// The sight line.
        line: Question,
        /// Units of the words.
        units: Units,
    },
    /// What a survey lacks, and what its readings make of the drawing.
    Survey,
    /// Which lens a reading asks for.
    FirstAnswer {
        /// Slant distance, m.
        slant_m: f64,
        /// Height of the spot, m.
        spot_height_m: f64,
        /// Height of what must be seen, m.
        target_height_m: f64,
        /// The task.
        task: Task,
    },
    /// The reading that a shot makes, with those before it.
    Reading {
        /// The shot.
        shot: TakenShot,
    },
    /// The readings of a CSV file.
    ReadReadings {
        /// The file.
        csv: String,
    },
    /// The site's readings as CSV.
    WriteReadings,
    /// What a world file says of a picture.
    WorldFile {
        /// The file.
        text: String,
        /// The share of its width that the picture was scaled down to, 1 for none.
        share: f64,
    },
    /// The aim of a head at a target.
    Aim {
        /// The sight line.
        line: Question,
    },
    /// The points of a target at a slant distance from a camera.
    Slant {
        /// The camera's id.
        camera: String,
        /// The target's id.
        target: String,
        /// Slant distance, m.
        slant_m: f64,
    },
    /// A camera with another model.
    Model {
        /// The camera's id.
        camera: String,
        /// The model's name.
        model: String,
    },
    /// A new camera.
    NewCamera {
        /// Where.
        #[schema(value_type = [f64; 2])]
        at: Point2,
        /// How near a spot takes it, m.
        reach_m: f64,
        /// The target that it is aimed at.
        #[serde(default)]
        target: Option<String>,
    },
    /// What is different in this site, seen from another state of it.
    Compare {
        /// The other state.
        before: Box<SiteFile>,
        /// Units of the words.
        units: Units,
    },
    /// This site and another state put together that both came from one.
    Merge {
        /// What both came from.
        base: Box<SiteFile>,
        /// The other state.
        theirs: Box<SiteFile>,
        /// What was chosen so far.
        choices: Vec<Choice>,
        /// Units of the words.
        units: Units,
    },
    /// How much of the ground is seen how often, what nobody sees, and the quiet path.
    Ground {
        /// What is asked about it.
        wish: GroundWish,
    },
    /// Why a place is seen or not, head by head.
    Why {
        /// Where, m east and north.
        #[schema(value_type = [f64; 2])]
        at: Point2,
        /// At which height, m.
        height_m: f64,
        /// The density that counts as seen, px/m.
        need_px_per_m: f64,
        /// Units of the words.
        units: Units,
    },
    /// What is lost with each camera.
    Lost,
    /// How the promises stand in other states of the site: season, growth, doors.
    OtherStates,
    /// What a head's picture is used for.
    PictureUse {
        /// The head.
        head: HeadRef,
    },
    /// What would put more of a head's picture to use.
    PictureWays {
        /// The head.
        head: HeadRef,
        /// Units of the words.
        units: Units,
    },
    /// How a head is aimed on the ladder.
    Card {
        /// The head.
        head: HeadRef,
    },
    /// What must be masked of each head's picture.
    Masks,
    /// Where every head reads every plate on its way.
    Plates,
    /// Where a plate on its way reads by each of the two schools.
    Schools {
        /// The sight line.
        line: Question,
    },
    /// The light of a night at each target, and what of each picture washes out.
    Light,
    /// The ways that mend what infrared light does to a head's picture.
    WashedWays {
        /// The head.
        head: HeadRef,
        /// Units of the words.
        units: Units,
    },
    /// What a plate camera is set to on the first evening.
    StartSettings {
        /// The head.
        head: HeadRef,
        /// The day that clock times are told for, as in `2027-10-05`.
        #[serde(default)]
        date: Option<String>,
        /// Units of the words.
        units: Units,
    },
    /// The same as CSV.
    StartSettingsCsv {
        /// The head.
        head: HeadRef,
        /// The day that clock times are told for, as in `2027-10-05`.
        #[serde(default)]
        date: Option<String>,
        /// Units of the words.
        units: Units,
    },
    /// Where the sun stands for a head.
    SunAt {
        /// The head.
        head: HeadRef,
        /// The day by the site's clock, as in `2027-10-05`.
        date: String,
        /// Minutes since midnight by the site's clock.
        minute: u16,
    },
    /// The tours of all heads that are turned.
    Tours {
        /// How long the event is that chances are told for, s.
        event_s: f64,
    },
    /// How a head that a fixed view points hangs, and how well its pairs agree.
    LinkOf {
        /// The camera's id.
        camera: String,
        /// The head's id.
        head: String,
    },
    /// The pan and tilt with which it looks at what a pixel of the fixed view shows.
    PointThrough {
        /// The camera's id.
        camera: String,
        /// The head's id.
        head: String,
        /// The pixel, right and down from the top-left corner.
        #[schema(value_type = [f64; 2])]
        pixel: Point2,
    },
    /// A camera with its heads spread evenly.
    Spread {
        /// The camera's id.
        camera: String,
        /// Over so many degrees about the middle; 360 for the whole turn.
        over_deg: f64,
    },
    /// Two designs side by side.
    Designs {
        /// The id of the one; none for the design in hand.
        #[serde(default)]
        left: Option<String>,
        /// The id of the other; none for the design in hand.
        #[serde(default)]
        right: Option<String>,
        /// How the ground is looked at.
        wish: GroundWish,
    },
    /// The change that adopts a design.
    Adopt {
        /// Its id.
        design: String,
    },
    /// The camera models to choose from.
    Catalogue,
    /// What a site asks for and what is usual.
    Guide,
}

/// What the Aim screen shows at once.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Sights {
    /// Every promise and every head in short.
    pub summary: Summary,
    /// What each head is worth to the target in hand.
    pub heads: Vec<HeadVerdict>,
    /// The sight line in hand; null without one, or where the target is behind the head.
    #[schema(required)]
    pub line: Option<SightLine>,
    /// How its density stands to the need, in words.
    #[schema(required)]
    pub shortfall: Option<String>,
    /// The head in hand.
    #[schema(required)]
    pub head: Option<HeadResult>,
    /// The outline of its picture on the ground, m: lines that end at the horizon, or one that closes.
    pub outline: Vec<Vec<[f64; 2]>>,
    /// The section along the sight line in hand.
    #[schema(required)]
    pub section: Option<Section>,
}

/// Answers a question, as JSON.
///
/// # Errors
/// Names the id that the site does not have, or the figure that makes no sense.
pub fn answer(session: &Session, ask: Ask) -> Result<String, Vec<Fault>> {
    let site = session.site();
    match ask {
        Ask::Sights { target, head } => json(&sights(session, target, head)?),
        Ask::Ways { line, units } => json(&ways(session, &line, units)?),
        Ask::Survey => json(&survey(site)),
        Ask::FirstAnswer { slant_m, spot_height_m, target_height_m, task } => {
            let asked = Asked { slant_m, spot_height_m, target_height_m, task };
            asked.checked().map_err(|fault| vec![fault])?;
            json(&first_answer(asked, site.rules(), COMMON_SENSOR, &catalogue::models()?))
        }
        Ask::Reading { shot } => json(&take_shot_on(site.file(), &shot)?),
        Ask::ReadReadings { csv } => json(
            &read_csv_into(site, &csv, &Patience::ENDLESS).map_err(|over| vec![Fault::new("", over.to_string())])?,
        ),
        Ask::WriteReadings => json(&write_csv(&site.file().readings)),
        Ask::WorldFile { share, .. } if !(share > 0.0 && share <= 1.0) => {
            Err(vec![Fault::new("share", format!("{share} is no share of a width"))])
        }
        Ask::WorldFile { text, share } => json(&parse_world_file(&text)?.of_picture_scaled_to(share)),
        Ask::Aim { line } => json(&aim_at(site, &line)?),
        Ask::Slant { camera, target, slant_m } => json(&at_slant(site, &camera, &target, slant_m)?),
        Ask::Model { camera, model } => json(&with_model(site, &camera, &model)?),
        Ask::NewCamera { at, reach_m, target } => json(&new_camera(site, at, reach_m, target.as_deref())?),
        Ask::Compare { before, units } => json(&compare(&before, site.file(), units)),
        Ask::Merge { base, theirs, choices, units } => json(&merge(&base, site.file(), &theirs, &choices, units)),
        Ask::Ground { wish } => json(&ground(site, &wish)?),
        Ask::Why { at, height_m, need_px_per_m, units } => json(&why(site, at, height_m, need_px_per_m, units)?),
        Ask::Lost => json(&lost(session)),
        Ask::OtherStates => json(&other_states(session)),
        Ask::PictureUse { head } => json(&picture_use_of(session, &head)?),
        Ask::PictureWays { head, units } => json(&picture_ways(session, &head, units)?),
        Ask::Card { head } => json(&card(session, &head)?),
        Ask::Masks => json(&masks(session)),
        Ask::Plates => json(&plates(session)),
        Ask::Schools { line } => json(&schools(session, &line)?),
        Ask::Light => json(&light_told(session)),
        Ask::WashedWays { head, units } => json(&washed_ways(session, &head, units)?),
        Ask::StartSettings { head, date, units } => json(&start_settings(session, &head, date.as_deref(), units)?),
        Ask::StartSettingsCsv { head, date, units } => {
            json(&as_csv(&start_settings(session, &head, date.as_deref(), units)?)?)
        }
        Ask::SunAt { head, date, minute } => json(&sun_at(site, &head, &date, minute)?),
        Ask::Tours { event_s } if !(0.0..=86_400.0).contains(&event_s) => {
            Err(vec![Fault::new("event_s", format!("{event_s} is outside 0 to 86400 s"))])
        }
        Ask::Tours { event_s } => json(&tours(site, event_s)),
        Ask::LinkOf { camera, head } => json(&link_of(site, &camera, &head)?),
        Ask::PointThrough { camera, head, pixel } => json(&point_through(site, &camera, &head, pixel)?),
        Ask::Spread { camera, over_deg } => json(&spread(site, &camera, over_deg)?),
        Ask::Designs { left, right, wish } => {
            json(&side_by_side(site.file(), left.as_deref(), right.as_deref(), &wish)?)
        }
        Ask::Adopt { design } => json(&adopt(site.file(), &design)?),
        Ask::Catalogue => json(&catalogue::models()?),
        Ask::Guide => json(&guide()),
    }
}

fn sights(session: &Session, target: Option<String>, head: Option<HeadRef>) -> Result<Sights, Fault> {
    let line = target.as_ref().zip(head.as_ref()).map(|(target, head)| Question {
        camera: head.camera.clone(),
        head: head.head.clone(),
        view: head.view.clone(),
        target: target.clone(),
    });
    let found = line.as_ref().map(|line| session.line(line)).transpose()?.flatten();
    let short = |line: &SightLine| -> Result<Option<String>, Fault> {
        let target = &session.site().targets()[session.site().target_place(&line.target)?];
        Ok(line.px_per_m.map(|found| shortfall(found, target.need.px_per_m, target.task)))
    };
    Ok(Sights {
        summary: session.summary(),
        heads: target.as_ref().map_or(Ok(vec![]), |target| session.heads_of(target))?,
        shortfall: found.as_ref().map(short).transpose()?.flatten(),
        line: found,
        head: head.as_ref().map(|head| session.head(head)).transpose()?,
        outline: match &head {
            Some(head) => outline(&head_named(session.site(), head)?),
            None => vec![],
        },
        section: line.as_ref().map(|line| section(session, line)).transpose()?,
    })
}

fn json(value: &impl Serialize) -> Result<String, Vec<Fault>> {
    serde_json::to_string(value).map_err(|error| vec![Fault::new("", error.to_string())])
}
