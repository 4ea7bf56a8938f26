//! What a screen asks, and the type of each answer: the one door for a core that runs beside an interface.
//!
//! A question is declared once, in the table below, with its fields, the type of its answer and who gives it. [`Ask`] and [`Answer`] are
//! made from it, and from their schemas the front end's types: there a question has the type of its answer, too.

mod asked;
mod door;
mod sights;
pub mod standing;

pub use asked::COMMON_SENSOR;
pub use door::Door;
pub use sights::Sights;

use crate::change::compare::{Difference, compare};
use crate::change::designs::{SideBySide, adopt, side_by_side};
use crate::change::edits::{Aim, aim_at, at_slant, new_camera, with_model, with_this_model};
use crate::change::forms::spread;
use crate::change::merge::{Choice, Merged, merge};
use crate::change::store_cuts::{StoreCuts, store_cuts};
use crate::change::ways::Way;
use crate::change::ways::look_back::look_back;
use crate::change::ways::mend::{Mends, washed_ways};
use crate::change::ways::picture::{PictureWays, picture_ways};
use crate::change::ways::{Ways, ways};
use crate::equipment::catalogue;
use crate::equipment::lens_facts::{LensFacts, lens_facts};
use crate::equipment::mounts::mount_parts;
use crate::equipment::stock::Stock;
use crate::equipment::stock_csv::{read_csv as read_models, write_csv as write_models};
use crate::exchange::network_file::NetworkFile;
use crate::file::{
    CameraFile, Fault, HeadRef, Hung, Model, MountPart, PatchOp, Point2, Proof, Question, Reading, SiteFile, Task,
    read_json,
};
use crate::fit::corner::{GreyPiece, strongest_corner};
use crate::fit::day::{Days, days};
use crate::fit::edge_match::{EdgeMatch, GreyPicture, edge_match};
use crate::fit::hangs::{Hangs, HangsWish, hangs};
use crate::fit::landmarks::{Clickable, clickables};
use crate::fit::materials::{Materials, materials, materials_csv};
use crate::fit::mount_checks::{MountCheck, mount_checks, with_mount};
use crate::fit::settings_card::{SettingsCard, settings_cards, settings_cards_csv};
use crate::fit::steps::{Steps, all_steps};
use crate::ground::lost::{Fallen, Lost, lost, lost_together};
use crate::ground::seasons::{OtherState, other_states};
use crate::ground::told::{Ground, GroundWish};
use crate::ground::why::{Why, why};
use crate::judge::tours::Tours;
use crate::prove::due::Due;
use crate::prove::log_csv::log_csv;
use crate::prove::proved::{Proved, proved};
use crate::prove::walk::{ProofTold, proof_told};
use crate::show::coverage::masks::{Masked, masks};
use crate::show::coverage::picture_use::{PictureUse, picture_use_of};
use crate::show::night::light_told::{LightTold, light_told};
use crate::show::papers::card::{Card, card};
use crate::show::papers::parts::{Part, parts};
use crate::show::plates::on_the_way::{PlateTold, SchoolTold, plates, schools};
use crate::show::plates::start_settings::{StartSettings, as_csv, start_settings};
use crate::show::seen::seen_from::{SeenFrom, seen_from};
use crate::show::seen::wish::{WishTold, wishes};
use crate::show::sun::live_sun::SunHoursTold;
use crate::show::sun::sun_told::{SunAt, SunCalendar, sun_at};
use crate::site::centred::{Centred, TurnedAt, centred};
use crate::site::link::{LinkFound, PointedThrough, link_of, point_through};
use crate::survey::drawing::WorldFile;
use crate::survey::finished_lines::{FinishedLines, LineWish, finished_lines};
use crate::survey::first_answer::{Asked, FirstAnswer};
use crate::survey::spot_for::{SpotPlace, spot_for};
use crate::survey::{ReadCsv, Survey, TakenShot, read_csv_into, survey, take_shot_on, write_csv};
use crate::trainer::lesson::{Lesson, LessonKind, lesson};
use crate::wire::estimate::{CableEstimate, cable_estimate};
use crate::wire::mend::{WireWay, wire_ways};
use crate::wire::read_switch::{Differs, SwitchReport, differs};
use crate::wire::sheet::{NetworkSheet, network_sheet};
use crate::wire::told::Wired;
use crate::wire::wired::wired;
use crate::words::because::{Because, reasons};
use crate::words::guide::{Guide, guide};
use crate::words::units::Units;
use crate::work::Patience;
use asked::{
    due_on, first_answer_to, hung_now, straightened, sun_calendar, sun_hours_of, sun_ways_out, tours_of, world_file_of,
};
use serde::de::IgnoredAny;
use serde::{Deserialize, Serialize, Serializer};
use sights::sights;
use utoipa::ToSchema;

macro_rules! questions {
    ($(
        $(#[$about:meta])*
        $name:ident $({ $( $(#[$of:meta])* $field:ident: $type:ty, )* })? -> $answer:ty = |$door:ident| $given:expr;
    )*) => {
        /// What can be asked.
        #[derive(Clone, Debug, Deserialize, Serialize, ToSchema)]
        #[serde(tag = "ask", rename_all = "snake_case", deny_unknown_fields)]
        pub enum Ask {
            $( $(#[$about])* $name $({ $( $(#[$of])* $field: $type, )* })?, )*
        }

        /// What is answered. It is written as the answer alone: whoever asked knows to what. The schema names it by its question.
        #[derive(Clone, Debug, ToSchema)]
        #[schema(rename_all = "snake_case")]
        // One at a time, and written at once.
        #[allow(clippy::large_enum_variant)]
        pub enum Answer {
            $( $(#[$about])* $name($answer), )*
        }

        #[derive(Deserialize)]
        #[serde(rename_all = "snake_case")]
        enum Asking {
            $( $name, )*
        }

        impl Ask {
            /// Reads a question: first which one it is, then its fields straight from the text. (Reading by tag holds the whole question
            /// first; all that a question may hold, site files too, would be read by code of their own.)
            ///
            /// # Errors
            /// What is no question, with its place.
            pub fn read(text: &str) -> Result<Ask, Vec<Fault>> {
                #[derive(Deserialize)]
                struct Tag {
                    ask: Asking,
                }
                match read_json::<Tag>(text)?.ask {
                    $( Asking::$name => {
                        // Its schema is nobody's: the fields of the table say things about theirs.
                        #[derive(Deserialize, ToSchema)]
                        #[serde(deny_unknown_fields)]
                        struct Fields {
                            #[serde(rename = "ask")]
                            #[schema(value_type = String)]
                            _ask: IgnoredAny,
                            $( $( $(#[$of])* $field: $type, )* )?
                        }
                        #[allow(clippy::unneeded_field_pattern)]
                        let Fields { _ask: _, $( $( $field, )* )? } = read_json(text)?;
                        Ok(Ask::$name $({ $($field),* })?)
                    } )*
                }
            }
        }

        impl Serialize for Answer {
            fn serialize<S: Serializer>(&self, to: S) -> Result<S::Ok, S::Error> {
                match self {
                    $( Answer::$name(answer) => answer.serialize(to), )*
                }
            }
        }

        impl Door {
            /// Answers a question.
            ///
            /// # Errors
            /// Names the id that the site does not have, or the figure that makes no sense.
            pub fn ask(&mut self, ask: Ask) -> Result<Answer, Vec<Fault>> {
                match ask {
                    $( Ask::$name $({ $($field),* })? => {
                        #[allow(unused_variables)]
                        let $door = self;
                        Ok(Answer::$name($given))
                    } )*
                }
            }
        }
    };
}

questions! {
    /// What the screen shows at once.
    Sights {
        /// The target in hand.
        #[serde(default)]
        target: Option<String>,
        /// The head in hand.
        #[serde(default)]
        head: Option<HeadRef>,
    } -> Sights = |door| sights(door.session(), target, head)?;

    /// Why each promise stands as it does, in words.
    Reasons {
        /// Units of the words.
        units: Units,
    } -> Vec<Because> = |door| reasons(door.session(), units);

    /// The ways to keep a sight line.
    Ways {
        /// The sight line.
        line: Question,
        /// Units of the words.
        units: Units,
    } -> Ways = |door| ways(door.session(), &line, units)?;

    /// What a survey lacks, and what its readings make of the drawing.
    Survey -> Survey = |door| survey(door.session().site());

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
        /// Whether the spot is outdoors, where somebody said.
        outdoor: Option<bool>,
        /// Whether a hand can reach it, where somebody said.
        in_reach: Option<bool>,
    } -> FirstAnswer = |door| {
        first_answer_to(door.session(), Asked { slant_m, spot_height_m, target_height_m, task, outdoor, in_reach })?
    };

    /// Finished lines for a target from a spot: cameras put up there, set, aimed and judged.
    FinishedLines {
        /// What is asked for.
        wish: LineWish,
        /// Units of the words.
        units: Units,
    } -> FinishedLines = |door| finished_lines(door.session(), &wish, units)?;

    /// The reading that a shot makes, with those before it.
    Reading {
        /// The shot.
        shot: TakenShot,
    } -> Reading = |door| take_shot_on(door.session().site().file(), &shot)?;

    /// The readings of a CSV file.
    ReadReadings {
        /// The file.
        csv: String,
    } -> ReadCsv = |door| read_csv_into(door.session().site(), &csv, &Patience::ENDLESS).map_err(|over| Fault::new("", over.to_string()))?;

    /// The site's readings as CSV.
    WriteReadings -> String = |door| write_csv(&door.session().site().file().readings);

    /// What a world file says of a picture.
    WorldFile {
        /// The file.
        text: String,
        /// The share of its width that the picture was scaled down to, 1 for none.
        share: f64,
    } -> WorldFile = |door| world_file_of(&text, share)?;

    /// The aim of a head at a target.
    Aim {
        /// The sight line.
        line: Question,
    } -> Aim = |door| aim_at(door.session().site(), &line)?;

    /// The points of a target at a slant distance from a camera.
    Slant {
        /// The camera's id.
        camera: String,
        /// The target's id.
        target: String,
        /// Slant distance, m.
        slant_m: f64,
    } -> Vec<(f64, f64)> = |door| at_slant(door.session().site(), &camera, &target, slant_m)?.into_iter().map(Into::into).collect();

    /// A camera with another model.
    Model {
        /// The camera's id.
        camera: String,
        /// The model's name.
        model: String,
        /// The model itself, where it is one of the firm's own.
        #[serde(default)]
        own: Option<Box<Model>>,
    } -> CameraFile = |door| match own {
        Some(own) => with_this_model(door.session().site(), &camera, *own)?,
        None => with_model(door.session().site(), &camera, &model)?,
    };

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
    } -> CameraFile = |door| new_camera(door.session().site(), at, reach_m, target.as_deref())?;

    /// What is different in this site, seen from another state of it.
    Compare {
        /// The other state.
        before: Box<SiteFile>,
        /// Units of the words.
        units: Units,
    } -> Vec<Difference> = |door| compare(&before, door.session().site().file(), units);

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
    } -> Merged = |door| merge(&base, door.session().site().file(), &theirs, &choices, units);

    /// How much of the ground is seen how often, what nobody sees, and the quiet path.
    Ground {
        /// What is asked about it.
        wish: GroundWish,
    } -> Ground = |door| door.ground(&wish)?;

    /// Cameras that look back along the wall that a way follows.
    LookBack {
        /// The way, m east and north.
        #[schema(value_type = Vec<[f64; 2]>)]
        path: Vec<Point2>,
        /// At which height whoever goes there is looked at, m.
        height_m: f64,
        /// The density that counts as seen, px/m.
        need_px_per_m: f64,
        /// Units of the words.
        units: Units,
    } -> Vec<Way> = |door| look_back(door.session(), &path, height_m, need_px_per_m, units)?;

    /// Which cameras somebody sees who stands at a place.
    SeenFrom {
        /// The place, m east and north.
        #[schema(value_type = [f64; 2])]
        at: Point2,
        /// The height of the ground there, m.
        ground_m: f64,
        /// What lengths are said in.
        units: Units,
    } -> SeenFrom = |door| seen_from(door.session().site(), at, ground_m, units)?;

    /// What becomes of the wishes that cameras deter or go unnoticed.
    Wishes {
        /// What lengths are said in.
        units: Units,
    } -> Vec<WishTold> = |door| wishes(door.session().site(), units);

    /// Where a spot goes that nobody has drawn yet.
    SpotFor {
        /// The target's id.
        target: String,
        /// How far off it is in a straight line, m.
        slope_m: f64,
    } -> SpotPlace = |door| spot_for(door.session().site(), &target, slope_m)?;

    /// What cables, boxes, links and the store make of the cameras.
    Wire -> Wired = |door| wired(door.session().site().file());

    /// The ways to mend a cable or a box.
    WireWays {
        /// Its id.
        id: String,
    } -> Vec<WireWay> = |door| wire_ways(door.session().site().file(), &id)?;

    /// How much cable a site takes, as far as it is known: for the quote.
    CableEstimate -> CableEstimate = |door| cable_estimate(door.session().site().file());

    /// The network sheet: addresses, ports, loads, labels.
    NetworkSheet -> NetworkSheet = |door| network_sheet(door.session().site().file());

    /// The wiring as a file: a table or a graph.
    NetworkFile {
        /// Which.
        of: NetworkFile,
    } -> String = |door| of.written(door.session().site().file())?;

    /// What the store makes of so many days, and what gives.
    StoreCuts {
        /// How many days are to be kept.
        days: u32,
    } -> StoreCuts = |door| store_cuts(door.session(), days)?;

    /// What a switch reports that is not as planned.
    SwitchDiffers {
        /// The box's id.
        node: String,
        /// What it reports.
        report: SwitchReport,
    } -> Vec<Differs> = |door| differs(door.session().site().file(), &node, &report)?;

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
    } -> Why = |door| why(door.session().site(), at, height_m, need_px_per_m, units)?;

    /// What is lost with each camera.
    Lost -> Vec<Lost> = |door| lost(door.session());

    /// What is lost when several cameras fail together.
    LostTogether {
        /// Their ids.
        cameras: Vec<String>,
    } -> Vec<Fallen> = |door| lost_together(door.session(), &cameras);

    /// How the promises stand in other states of the site: season, growth, doors.
    OtherStates -> Vec<OtherState> = |door| other_states(door.session());

    /// What a head's picture is used for.
    PictureUse {
        /// The head.
        head: HeadRef,
    } -> PictureUse = |door| picture_use_of(door.session(), &head)?;

    /// What would put more of a head's picture to use.
    PictureWays {
        /// The head.
        head: HeadRef,
        /// Units of the words.
        units: Units,
    } -> PictureWays = |door| picture_ways(door.session(), &head, units)?;

    /// How a head is aimed on the ladder.
    Card {
        /// The head.
        head: HeadRef,
    } -> Card = |door| card(door.session(), &head)?;

    /// What must be masked of each head's picture.
    Masks -> Vec<Masked> = |door| masks(door.session());

    /// Where every head reads every plate on its way.
    Plates -> Vec<PlateTold> = |door| plates(door.session());

    /// Where a plate on its way reads by each of the two schools.
    Schools {
        /// The sight line.
        line: Question,
    } -> Vec<SchoolTold> = |door| schools(door.session(), &line)?;

    /// The light of a night at each target, and what of each picture washes out.
    Light -> LightTold = |door| light_told(door.session());

    /// The ways that mend what infrared light does to a head's picture.
    WashedWays {
        /// The head.
        head: HeadRef,
        /// Units of the words.
        units: Units,
    } -> Mends = |door| washed_ways(door.session(), &head, units)?;

    /// What a plate camera is set to on the first evening.
    StartSettings {
        /// The head.
        head: HeadRef,
        /// The day that clock times are told for, as in `2027-10-05`.
        #[serde(default)]
        date: Option<String>,
        /// Units of the words.
        units: Units,
    } -> Vec<StartSettings> = |door| start_settings(door.session(), &head, date.as_deref(), units)?;

    /// The same as CSV.
    StartSettingsCsv {
        /// The head.
        head: HeadRef,
        /// The day that clock times are told for, as in `2027-10-05`.
        #[serde(default)]
        date: Option<String>,
        /// Units of the words.
        units: Units,
    } -> String = |door| as_csv(&start_settings(door.session(), &head, date.as_deref(), units)?)?;

    /// Where the sun stands for a head.
    SunAt {
        /// The head.
        head: HeadRef,
        /// The day by the site's clock, as in `2027-10-05`.
        date: String,
        /// Minutes since midnight by the site's clock.
        minute: u16,
    } -> SunAt = |door| sun_at(door.session().site(), &head, &date, minute)?;

    /// The sun in a head's picture through a year, day by day.
    SunCalendar {
        /// The head.
        head: HeadRef,
        /// The target that it may stand behind.
        #[serde(default)]
        target: Option<String>,
        /// The year.
        year: i32,
    } -> SunCalendar = |door| sun_calendar(door, &head, target.as_deref(), year)?;

    /// The ways that lessen the sun in a head's picture.
    SunWays {
        /// The head.
        head: HeadRef,
        /// The year.
        year: i32,
        /// Units of the words.
        units: Units,
    } -> Mends = |door| sun_ways_out(door, &head, year, units)?;

    /// How many hours a year the sun stands in the picture of one head; heads go in the site's order, one a question, so that whoever
    /// is overtaken can stop.
    SunHours {
        /// The year.
        year: i32,
        /// The place of the head in the site's order.
        place: usize,
    } -> SunHoursTold = |door| sun_hours_of(door, year, place)?;

    /// The tours of all heads that are turned.
    Tours {
        /// How long the event is that chances are told for, s.
        event_s: f64,
    } -> Tours = |door| tours_of(door.session().site(), event_s)?;

    /// How a head that a fixed view points hangs, and how well its pairs agree.
    LinkOf {
        /// The camera's id.
        camera: String,
        /// The head's id.
        head: String,
    } -> LinkFound = |door| link_of(door.session().site(), &camera, &head)?;

    /// The pan and tilt with which it looks at what a pixel of the fixed view shows.
    PointThrough {
        /// The camera's id.
        camera: String,
        /// The head's id.
        head: String,
        /// The pixel, right and down from the top-left corner.
        #[schema(value_type = [f64; 2])]
        pixel: Point2,
        /// Of which of the fixed views that point it; the first where left out.
        #[serde(default)]
        by: usize,
    } -> PointedThrough = |door| point_through(door.session().site(), &camera, &head, pixel, by)?;

    /// The pan and tilt with which a turned head has in the middle what a pixel of its picture shows.
    Centre {
        /// The camera's id.
        camera: String,
        /// The head's id.
        head: String,
        /// How it stood when the picture was taken.
        stood: TurnedAt,
        /// The pixel, right and down from the top-left corner.
        #[schema(value_type = [f64; 2])]
        pixel: Point2,
    } -> Centred = |door| centred(door.session().site(), &camera, &head, &stood, pixel)?;

    /// A camera with its heads spread evenly.
    Spread {
        /// The camera's id.
        camera: String,
        /// Over so many degrees about the middle; 360 for the whole turn.
        over_deg: f64,
    } -> CameraFile = |door| spread(door.session().site(), &camera, over_deg)?;

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
    } -> SideBySide = |door| side_by_side(door.session().site().file(), left.as_deref(), right.as_deref(), &wish)?;

    /// The change that adopts a design.
    Adopt {
        /// Its id.
        design: String,
    } -> Vec<PatchOp> = |door| adopt(door.session().site().file(), &design)?;

    /// What the design is made of, by model.
    Parts -> Vec<Part> = |door| parts(door.session().site());

    /// The parts of mounts to choose from.
    MountParts -> Vec<MountPart> = |_door| mount_parts()?;

    /// Whether what a camera hangs by will do.
    MountChecks {
        /// The camera's id.
        camera: String,
    } -> Vec<MountCheck> = |door| mount_checks(door.session().site(), &camera)?;

    /// A camera with another mount, where its parts bring it.
    WithMount {
        /// The camera's id.
        camera: String,
        /// The parts, from the surface outwards.
        parts: Vec<MountPart>,
        /// The bearing in which it stands out, degrees; out of its wall where left out.
        #[serde(default)]
        out_deg: Option<f64>,
    } -> CameraFile = |door| with_mount(door.session().site(), &camera, parts, out_deg)?;

    /// The steps at every camera, from the bench to the film.
    Steps -> Vec<Steps> = |door| all_steps(door.session().site().file())?;

    /// All that is bought and brought.
    Materials -> Materials = |door| materials(door.session().site().file());

    /// The same as CSV.
    MaterialsCsv -> String = |door| materials_csv(&materials(door.session().site().file()));

    /// What each camera is set to.
    SettingsCards -> Vec<SettingsCard> = |door| settings_cards(door.session().site().file());

    /// The same as CSV.
    SettingsCardsCsv -> String = |door| settings_cards_csv(&settings_cards(door.session().site().file()));

    /// The work in visits.
    Days -> Days = |door| days(door.session().site().file())?;

    /// What can be clicked in a head's picture.
    Clickables {
        /// The head.
        head: HeadRef,
    } -> Vec<Clickable> = |door| clickables(door.session().site(), &head)?;

    /// The map that straightens a photo of a monitor, nine figures, rows first.
    Straighten {
        /// Its corners as clicked: top left, top right, bottom right, bottom left.
        #[schema(value_type = Vec<[f64; 2]>)]
        corners: [Point2; 4],
        /// The size of the straight picture, px.
        #[schema(value_type = [f64; 2])]
        size: Point2,
    } -> Vec<f64> = |_door| straightened(corners, size)?;

    /// The strongest corner near a click.
    StrongestCorner {
        /// The piece of the picture around the click.
        piece: GreyPiece,
    } -> Option<(f64, f64)> = |_door| strongest_corner(&piece)?.map(Into::into);

    /// How a head hangs, from the edges of its picture.
    EdgeMatch {
        /// The head.
        head: HeadRef,
        /// Its picture, scaled down.
        picture: GreyPicture,
    } -> EdgeMatch = |door| edge_match(door.session().site(), &head, &picture)?;

    /// How a head hangs, from what was clicked in its picture.
    Hangs {
        /// What was clicked.
        wish: HangsWish,
    } -> Hangs = |door| hangs(door.session(), &wish)?;

    /// What is proved of the promises, and what is left.
    Proved -> Proved = |door| proved(door.session());

    /// How a view hangs now: what is found with it is kept with that.
    Hung {
        /// The view.
        head: HeadRef,
    } -> Hung = |door| hung_now(door.session().site(), &head)?;

    /// What a try shows, before it is kept.
    TryOut {
        /// The try.
        proof: Box<Proof>,
    } -> ProofTold = |door| proof_told(door.session(), &proof)?;

    /// A question for a new colleague, with its truth.
    Lesson {
        /// What it asks.
        kind: LessonKind,
        /// Which of all questions: another one for each number.
        number: u32,
        /// About a made-up yard, not the site in hand.
        invented: bool,
    } -> Lesson = |door| lesson(door.session(), kind, number, invented)?;

    /// What is due to keep the site, and when.
    Due {
        /// The day, as in `2027-05-30`.
        on: String,
    } -> Due = |door| due_on(door, &on)?;

    /// The log of visits as CSV.
    LogCsv -> String = |door| log_csv(door.session().site().file());

    /// What a model's lens does.
    LensFacts {
        /// The model.
        model: Box<Model>,
    } -> LensFacts = |_door| lens_facts(&model)?;

    /// Models as a table.
    WriteModels {
        /// The models.
        models: Vec<Model>,
    } -> String = |_door| write_models(&models)?;

    /// The models of a table.
    ReadModels {
        /// The table.
        csv: String,
    } -> Vec<Model> = |_door| read_models(&csv)?;

    /// A catalogue out of its file.
    ReadStock {
        /// The file.
        text: String,
    } -> Stock = |_door| Stock::parse(&text)?;

    /// The camera models to choose from.
    Catalogue -> Vec<Model> = |door| catalogue::models()?;

    /// What a site asks for and what is usual.
    Guide -> Guide = |door| guide();
}
