//! The command line: one subcommand a file, each thin over the core.

mod compute;
mod input;
mod keeping;
mod lens;
mod serve;

use bright_angle_core::Fault;
use bright_angle_core::file::schema::site_schema;
use bright_angle_core::words::units::Units;
use clap::{Args, Parser, Subcommand, ValueEnum};
use std::io::Write;
use std::path::PathBuf;
use std::process::ExitCode;

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
    /// The pocket calculator: which focal length a task takes at a distance
    Lens(lens::LensArgs),
    /// The JSON Schema of the site file
    Schema,
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
    /// Id of the camera
    #[arg(long)]
    camera: String,
    /// Id of its head
    #[arg(long)]
    head: String,
    /// Id of the target
    #[arg(long)]
    target: String,
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
        Command::Adjust { file } => compute::adjust(&file),
        Command::Survey { file } => compute::survey(&file),
        Command::Readings { file } => compute::readings(&file),
        Command::Lens(args) => lens::lens(&args),
        Command::Schema => compute::json(&site_schema()),
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
