//! The command line: one subcommand a file, each thin over the core.

mod compute;
mod exchange;
mod fitting;
mod ground;
mod input;
mod keeping;
mod lens;
mod light;
mod offer;
mod proving;
mod serve;
mod view;
mod wiring;

use crate::drawing::Kind;
use crate::papers::{PaperPart, PaperSize};
use bright_angle_core::Fault;
use bright_angle_core::equipment::stock::catalogue_schema;
use bright_angle_core::file::schema::site_schema;
use bright_angle_core::words::guide::guide;
use bright_angle_core::words::units::Units;
use clap::{Args, Parser, Subcommand, ValueEnum};
use offer::{AmongArg, ByArg, PaperUnits};
use std::io::Write;
use std::path::PathBuf;
use std::process::ExitCode;
use wiring::{NetworkArg, WishArg};

/// Exit code for input that was refused; each fault is a line on standard error.
const REFUSED: u8 = 2;

/// Aim security cameras with evidence: fields of view, pixel density, what stands in the way, and
/// the changes that keep a promise.
#[derive(Parser)]
#[command(name = "bright-angle", version, about, max_term_width = 100)]
struct Cli {
    #[command(subcommand)]
    command: Command,
}

#[derive(Subcommand)]
enum Command {
    /// Evaluate a site file: every head, sight line and promise, as JSON
    Evaluate {
        /// Site file, or - for standard input
        file: PathBuf,
    },
    /// The changes that would keep a sight line, best first, each as a JSON Patch
    Ways {
        /// Site file, or - for standard input
        file: PathBuf,
        #[command(flatten)]
        line: Line,
        /// Units of the words; figures in the patch are in metres always
        #[arg(long, value_enum, default_value_t = UnitsArg::Metres)]
        units: UnitsArg,
    },
    /// The upright cut along a sight line, as JSON
    Section {
        /// Site file, or - for standard input
        file: PathBuf,
        #[command(flatten)]
        line: Line,
    },
    /// The best pixel density that any head gives, over the cells of a grid, as an ESRI ASCII grid
    Relief {
        /// Site file, or - for standard input
        file: PathBuf,
        /// Height that is looked at, m
        #[arg(long, default_value_t = 1.6)]
        at_height_m: f64,
        /// Side of a cell, m
        #[arg(long, default_value_t = 0.5)]
        cell_m: f64,
        /// West, south, east, north, m, as in 0,0,120,90
        #[arg(long, value_delimiter = ',', allow_hyphen_values = true, required = true)]
        bounds: Vec<f64>,
    },
    /// How much of the ground is seen how often, what nobody sees, and the least-seen route, as JSON
    Ground {
        /// Site file, or - for standard input
        file: PathBuf,
        #[command(flatten)]
        look: ground::Look,
        /// Where the least-seen route leads, m east,north
        #[arg(long, value_parser = ground::place, allow_hyphen_values = true)]
        goal: Option<ground::Place>,
    },
    /// Why a place is seen or not, head by head, as JSON
    Why {
        /// Site file, or - for standard input
        file: PathBuf,
        #[command(flatten)]
        look: ground::Look,
        /// The place, m east,north
        #[arg(long, value_parser = ground::place, allow_hyphen_values = true)]
        at: ground::Place,
        /// Units of the words
        #[arg(long, value_enum, default_value_t = UnitsArg::Metres)]
        units: UnitsArg,
    },
    /// Which cameras are seen themselves, from a place; or what becomes of the wishes that they deter or go unnoticed, as JSON
    Seen {
        /// Site file, or - for standard input
        file: PathBuf,
        /// The place, m east,north
        #[arg(long, value_parser = ground::place, allow_hyphen_values = true)]
        at: Option<ground::Place>,
        /// Height of the ground there, m
        #[arg(long, default_value_t = 0.0, allow_hyphen_values = true, requires = "at")]
        ground_m: f64,
        /// Units of the words
        #[arg(long, value_enum, default_value_t = UnitsArg::Metres)]
        units: UnitsArg,
    },
    /// What every head's picture is used for, as JSON
    PictureUse {
        /// Site file, or - for standard input
        file: PathBuf,
    },
    /// The tours of all heads that are turned from afar, as JSON
    Tours {
        /// Site file, or - for standard input
        file: PathBuf,
        /// How long the event is that chances are told for, s
        #[arg(long, default_value_t = bright_angle_core::judge::tours::USUAL_EVENT_S)]
        event_s: f64,
    },
    /// Two options of a site on the same promises, as JSON
    Designs {
        /// Site file, or - for standard input
        file: PathBuf,
        #[command(flatten)]
        look: ground::Look,
        /// Id of the one; the design in hand where left out
        #[arg(long)]
        left: Option<String>,
        /// Id of the other; the design in hand where left out
        #[arg(long)]
        right: Option<String>,
    },
    /// What pixels' rays meet first: CSV `u,v` on standard input, CSV out
    Rays {
        /// Site file
        file: PathBuf,
        #[command(flatten)]
        head: ground::HeadArgs,
    },
    /// The picture that a head will have, as a PNG; which part of the sensor it shows, as JSON
    View {
        /// Site file, or - for standard input
        file: PathBuf,
        #[command(flatten)]
        view: view::ViewArgs,
    },
    /// How a head is aimed on the ladder: where promises and landmarks must sit, what the tape must show, as JSON
    Card {
        /// Site file, or - for standard input
        file: PathBuf,
        #[command(flatten)]
        head: ground::HeadArgs,
    },
    /// What must be masked of each head's picture for the site's private places, and what that costs, as JSON
    Masks {
        /// Site file, or - for standard input
        file: PathBuf,
    },
    /// Where the sun stands over a place, as JSON
    SunPosition(light::SunPlace),
    /// When the sun stands in the picture of each head, and how long it back-lights what, minute by minute through a year, as JSON
    Sun {
        /// Site file, or - for standard input
        file: PathBuf,
        #[command(flatten)]
        wish: light::SunWish,
    },
    /// What lamps and infrared light give at each target by night, and what is overexposed, as JSON
    Light {
        /// Site file, or - for standard input
        file: PathBuf,
    },
    /// Where every camera reads every moving plate, and what time, motion blur and focus make of it, as JSON
    Plates {
        /// Site file, or - for standard input
        file: PathBuf,
    },
    /// What a plate camera is set to on the first evening, each figure with its reason, as CSV
    Settings {
        /// Site file, or - for standard input
        file: PathBuf,
        #[command(flatten)]
        head: ground::HeadArgs,
        /// The day that clock times are told for, as in 2027-10-05
        #[arg(long)]
        date: Option<String>,
        /// Units of the words
        #[arg(long, value_enum, default_value_t = UnitsArg::Metres)]
        units: UnitsArg,
    },
    /// What a GeoJSON or DXF file would bring to a site, by layer, and what would be left out, as JSON
    Import {
        /// The file, .geojson, .json or .dxf
        file: PathBuf,
        /// mm, cm, m, in or ft, in place of what a DXF's header says
        #[arg(long)]
        unit: Option<String>,
    },
    /// Reads one drawing from standard input within limits: what the server does in a process of its own
    #[command(hide = true)]
    ReadDrawing {
        /// What it is
        #[arg(value_enum)]
        kind: Kind,
        /// mm, cm, m, in or ft
        #[arg(long)]
        unit: Option<String>,
    },
    /// What a data sheet says of the cameras in it: figures with the lines they were read from, what is missing, what contradicts
    Sheet {
        /// Text or PDF, or - for standard input
        file: PathBuf,
    },
    /// A site as GeoJSON, its solids as DXF, or its plan as SVG
    Export {
        /// Site file, or - for standard input
        file: PathBuf,
        /// geojson (degrees of WGS 84 where the site has a place), geojson-metres, dxf or svg
        #[arg(long, value_parser = ["geojson", "geojson-metres", "dxf", "svg"])]
        format: String,
    },
    /// Adjust drawn positions to the readings of a site file, by least squares, as JSON
    Adjust {
        /// Site file, or - for standard input
        file: PathBuf,
    },
    /// What a survey still lacks, as JSON
    Survey {
        /// Site file, or - for standard input
        file: PathBuf,
    },
    /// The readings of a site file as CSV
    Readings {
        /// Site file, or - for standard input
        file: PathBuf,
    },
    /// The fewest cameras, or the cheapest, that keep every promise, as JSON: of those in the file, or of all that might hang
    Fewest {
        /// Site file, or - for standard input
        file: PathBuf,
        /// What counts
        #[arg(long, value_enum, default_value_t = ByArg::Count)]
        by: ByArg,
        /// What is chosen from
        #[arg(long, value_enum, default_value_t = AmongArg::Spots)]
        among: AmongArg,
        /// Units of the words
        #[arg(long, value_enum, default_value_t = UnitsArg::Metres)]
        units: UnitsArg,
    },
    /// Options of one design with what falls away and what each costs, as JSON
    Options {
        /// Site file, or - for standard input
        file: PathBuf,
    },
    /// What the design costs, as JSON; what has no price is named on standard error
    Bill {
        /// Site file, or - for standard input
        file: PathBuf,
        /// The prices as CSV, with what still has none
        #[arg(long)]
        csv: bool,
    },
    /// The papers of a site as a PDF
    Papers {
        /// Site file, or - for standard input
        file: PathBuf,
        /// Where the PDF is written
        #[arg(short, long)]
        out: PathBuf,
        /// The parts, in their order
        #[arg(long, value_enum, value_delimiter = ',', default_value = "quote,options,plan,views,notes,sign")]
        parts: Vec<PaperPart>,
        /// The size of a page
        #[arg(long, value_enum, default_value_t = PaperSize::A4)]
        paper: PaperSize,
        /// Units of lengths: m or ft
        #[arg(long, value_enum, default_value_t = PaperUnits::M)]
        units: PaperUnits,
    },
    /// The pocket calculator: which focal length a task takes at a distance
    Lens(lens::LensArgs),
    /// What cables, boxes, links and the store make of the cameras, as JSON
    Wire {
        /// Site file, or - for standard input
        file: PathBuf,
    },
    /// Wire what is not wired yet, the cheapest legal way that is found: a JSON Patch
    Route {
        /// Site file, or - for standard input
        file: PathBuf,
        /// What counts most
        #[arg(long, value_enum, default_value_t = WishArg::Cheapest)]
        wish: WishArg,
        /// The whole answer with its costs, not the patch alone
        #[arg(long)]
        all: bool,
    },
    /// The wiring as a file: cables, ports, labels or materials as CSV, or a graph
    Network {
        /// Site file, or - for standard input
        file: PathBuf,
        /// Which
        #[arg(long, value_enum, default_value_t = NetworkArg::Cables)]
        of: NetworkArg,
    },
    /// What the store makes of so many days of recording, and what gives, as JSON
    Store {
        /// Site file, or - for standard input
        file: PathBuf,
        /// How many days
        #[arg(long)]
        days: u32,
    },
    /// A camera's later picture against its reference: whether it moved, is out of focus, hazed, blocked or darker, as JSON
    Compare {
        /// The picture that was kept as the reference, PNG or JPEG
        reference: PathBuf,
        /// The later one
        later: PathBuf,
        /// The camera's field across, degrees
        #[arg(long, default_value_t = 60.0)]
        hfov_deg: f64,
    },
    /// What is proved of the promises, by day and by night, and what is left, as JSON
    Prove {
        /// Site file, or - for standard input
        file: PathBuf,
    },
    /// What is due to keep a site as it was handed over, and when, as JSON
    Due {
        /// Site file, or - for standard input
        file: PathBuf,
        /// The day that is asked about, as in 2027-05-30; today where left out
        #[arg(long)]
        on: Option<String>,
        /// As a calendar (iCalendar, RFC 5545)
        #[arg(long)]
        calendar: bool,
    },
    /// The log of visits, as CSV
    Log {
        /// Site file, or - for standard input
        file: PathBuf,
    },
    /// How a head hangs: CSV `id,x,y,z,u,v` on standard input, metres of the site and pixels of the full picture; JSON out
    Pose {
        /// Site file
        file: PathBuf,
        #[command(flatten)]
        head: ground::HeadArgs,
        #[command(flatten)]
        pose: fitting::PoseArgs,
    },
    /// All that is bought and brought, as JSON
    Materials {
        /// Site file, or - for standard input
        file: PathBuf,
        /// As CSV
        #[arg(long)]
        csv: bool,
    },
    /// The steps at each camera, from the bench to the film, as JSON
    Steps {
        /// Site file, or - for standard input
        file: PathBuf,
        /// Id of one camera; all where left out
        #[arg(long)]
        camera: Option<String>,
    },
    /// Whether what a camera hangs by will do, as JSON
    Mount {
        /// Site file, or - for standard input
        file: PathBuf,
        /// The camera's id
        #[arg(long)]
        camera: String,
    },
    /// The work in visits, as JSON
    Day {
        /// Site file, or - for standard input
        file: PathBuf,
    },
    /// A stand-in for the cameras of a site, for demonstrations and tests: HTTP with Digest on loopback
    Camera {
        /// Site file, or - for standard input
        file: PathBuf,
        /// Port on 127.0.0.1
        #[arg(long, default_value_t = 8022)]
        port: u16,
        /// What is wrong, as in c3/h1:turned=3, with commas between
        #[arg(long, value_delimiter = ',')]
        fault: Vec<bright_angle_camera::Fault>,
    },
    /// The JSON Schema of the site file, or of a catalogue
    Schema {
        /// Of what
        #[arg(long, value_enum, default_value_t = SchemaOf::Site)]
        of: SchemaOf,
    },
    /// What is asked and usual: tasks, sizes, plates, limits with their ranges, how things begin, as JSON
    Guide,
    /// The OpenAPI document of the server
    Openapi,
    /// Bring the tables of a PostgreSQL database up to date, as their owner
    Migrate(keeping::OwnerArgs),
    /// Write all sites, revisions and pictures into a folder that is not there yet
    Backup(keeping::FolderArgs),
    /// Bring a backup into a database that never held a site
    Restore(keeping::FolderArgs),
    /// Serve the application (needs a PostgreSQL database)
    Serve(serve::ServeArgs),
}

/// Names a sight line.
#[derive(Args)]
struct Line {
    #[command(flatten)]
    head: ground::HeadArgs,
    /// Id of the target
    #[arg(long)]
    target: String,
}

#[derive(Clone, Copy, ValueEnum)]
enum SchemaOf {
    Site,
    Catalogue,
}

#[derive(Clone, Copy, ValueEnum)]
enum UnitsArg {
    Metres,
    Feet,
}

impl From<UnitsArg> for Units {
    fn from(units: UnitsArg) -> Self {
        match units {
            UnitsArg::Metres => Units::Metres,
            UnitsArg::Feet => Units::Feet,
        }
    }
}

/// Runs the program with the arguments of the process.
pub fn run() -> ExitCode {
    let answer = match Cli::parse().command {
        Command::Evaluate { file } => compute::evaluate(&file),
        Command::Ways { file, line, units } => compute::ways(&file, line, units.into()),
        Command::Section { file, line } => compute::section(&file, line),
        Command::Relief { file, at_height_m, cell_m, bounds } => compute::relief(&file, at_height_m, cell_m, &bounds),
        Command::Ground { file, look, goal } => ground::ground(&file, &look, goal),
        Command::Seen { file, at, ground_m, units } => ground::seen(&file, at, ground_m, units.into()),
        Command::Why { file, look, at, units } => ground::why(&file, &look, at, units.into()),
        Command::PictureUse { file } => ground::picture_use(&file),
        Command::Tours { file, event_s } => ground::tours(&file, event_s),
        Command::Designs { file, look, left, right } => {
            ground::designs(&file, &look, left.as_deref(), right.as_deref())
        }
        Command::Rays { file, head } => ground::rays(&file, &head.into()),
        Command::View { file, view } => view::view(&file, view),
        Command::Card { file, head } => view::card(&file, &head.into()),
        Command::Masks { file } => view::masks(&file),
        Command::SunPosition(place) => light::sun_position(place),
        Command::Sun { file, wish } => light::sun(&file, wish),
        Command::Light { file } => light::light(&file),
        Command::Plates { file } => light::plates(&file),
        Command::Settings { file, head, date, units } => {
            light::settings(&file, &head.into(), date.as_deref(), units.into())
        }
        Command::Import { file, unit } => exchange::import(&file, unit.as_deref()),
        Command::ReadDrawing { kind, unit } => return exchange::read_drawing(kind, unit.as_deref()),
        Command::Sheet { file } => exchange::sheet(&file),
        Command::Export { file, format } => exchange::export(&file, &format),
        Command::Adjust { file } => compute::adjust(&file),
        Command::Survey { file } => compute::survey(&file),
        Command::Readings { file } => compute::readings(&file),
        Command::Fewest { file, by, among, units } => offer::fewest(&file, by.into(), among.into(), units.into()),
        Command::Options { file } => offer::options(&file),
        Command::Bill { file, csv } => offer::bill(&file, csv),
        Command::Papers { file, out, parts, paper, units } => offer::papers(&file, &out, parts, paper, units.into()),
        Command::Lens(args) => lens::lens(&args),
        Command::Wire { file } => wiring::wire(&file),
        Command::Route { file, wish, all } => wiring::route(&file, wish.into(), all),
        Command::Network { file, of } => wiring::network(&file, of.into()),
        Command::Store { file, days } => wiring::store(&file, days),
        Command::Compare { reference, later, hfov_deg } => proving::compare(&reference, &later, hfov_deg),
        Command::Prove { file } => proving::prove(&file),
        Command::Due { file, on, calendar } => proving::due(&file, on, calendar),
        Command::Log { file } => proving::log(&file),
        Command::Pose { file, head, pose } => fitting::pose(&file, head.into(), &pose),
        Command::Materials { file, csv } => fitting::materials(&file, csv),
        Command::Steps { file, camera } => fitting::steps(&file, camera.as_deref()),
        Command::Mount { file, camera } => fitting::mount(&file, &camera),
        Command::Day { file } => fitting::day(&file),
        Command::Camera { file, port, fault } => return fitting::camera(&file, port, fault),
        Command::Schema { of: SchemaOf::Site } => compute::json(&site_schema()),
        Command::Schema { of: SchemaOf::Catalogue } => compute::json(&catalogue_schema()),
        Command::Guide => compute::json(&guide()),
        Command::Openapi => compute::json(&crate::api::document()),
        Command::Migrate(args) => keeping::migrate(&args),
        Command::Backup(args) => keeping::backup(&args),
        Command::Restore(args) => keeping::restore(&args),
        Command::Serve(args) => return serve::serve(args),
    };
    match answer {
        Ok(text) => print(&text),
        Err(faults) => {
            faults.iter().for_each(|fault| eprintln!("{fault}"));
            ExitCode::from(REFUSED)
        }
    }
}

/// Prints an answer; a reader that went away early is no fault of ours.
fn print(text: &str) -> ExitCode {
    let mut out = std::io::stdout().lock();
    match writeln!(out, "{text}").and_then(|()| out.flush()) {
        Ok(()) => ExitCode::SUCCESS,
        Err(error) if error.kind() == std::io::ErrorKind::BrokenPipe => ExitCode::SUCCESS,
        Err(error) => {
            eprintln!("standard output: {error}");
            ExitCode::FAILURE
        }
    }
}

/// What a subcommand answers: text for standard output, or faults.
type Answer = Result<String, Vec<Fault>>;
