//! The subcommands about what a head will see: its picture as a PNG, its aiming card, and what must be masked.

use super::compute::{as_option, json, session};
use super::ground::HeadArgs;
use super::{Answer, input};
use bright_angle_core::Fault;
use bright_angle_core::file::HeadRef;
use bright_angle_core::judge::Session;
use bright_angle_core::picture::{Drape, Exposed, Light, Picture, PictureWish, Window};
use bright_angle_core::show::coverage::masks::masks as masks_of;
use bright_angle_core::show::papers::card::card as card_of;
use clap::{Args, ValueEnum};
use std::path::{Path, PathBuf};
use std::sync::Arc;

/// The widest picture that is written, px.
const WIDEST_PX: u32 = 8192;
/// So many rays take about ten seconds on two slow cores: of more, fewer samples are taken, and that is said.
const MOST_RAYS: f64 = 24e6;
/// How many sensor pixels a loupe shows across and down.
const LOUPE_PX: [u32; 2] = [160, 120];

/// How a picture is exposed by night.
#[derive(Clone, Copy, Debug, PartialEq, Eq, ValueEnum)]
enum ExposedArg {
    /// By its shutter
    AsSet,
    /// By its automatic
    Automatic,
}

/// Which picture, and how.
#[derive(Args)]
pub struct ViewArgs {
    #[command(flatten)]
    head: HeadArgs,
    /// Width of the picture, px
    #[arg(long, default_value_t = 640)]
    width: u32,
    /// Where the PNG is written
    #[arg(short, long)]
    out: PathBuf,
    /// By night, with the camera's own infrared
    #[arg(long)]
    night: bool,
    /// How it is exposed; as set where the shutter is fixed, else by its automatic
    #[arg(long, requires = "night")]
    exposed: Option<ExposedArg>,
    /// Lighter than that by so many stops
    #[arg(long, default_value_t = 0.0, requires = "night", allow_hyphen_values = true)]
    stops: f64,
    /// The pixels of the sensor themselves around a target, by its id
    #[arg(long)]
    loupe: Option<String>,
    /// A grid of metres on the ground
    #[arg(long)]
    grid: bool,
    /// How long the shutter is open, s: what moves is drawn out so long
    #[arg(long, default_value_t = 0.0)]
    shutter_s: f64,
    /// The site's overhead picture, PNG or JPEG, to be laid on the ground
    #[arg(long)]
    overhead: Option<PathBuf>,
    /// Samples to a side of each pixel
    #[arg(long, default_value_t = 3)]
    samples: u32,
}

impl ExposedArg {
    fn meant(self) -> Exposed {
        match self {
            ExposedArg::AsSet => Exposed::AsSet,
            ExposedArg::Automatic => Exposed::Automatic,
        }
    }
}

pub fn view(file: &Path, args: ViewArgs) -> Answer {
    if !(1..=WIDEST_PX).contains(&args.width) {
        return Err(vec![Fault::new("--width", format!("{} is outside 1 to {WIDEST_PX} px", args.width))]);
    }
    if !(-20.0..=20.0).contains(&args.stops) {
        return Err(vec![Fault::new("--stops", format!("{} is outside -20 to 20", args.stops))]);
    }
    if !(0.0..=1.0).contains(&args.shutter_s) {
        return Err(vec![Fault::new("--shutter-s", format!("{} is outside 0 to 1 s", args.shutter_s))]);
    }
    let session = session(input::site(file)?)?;
    let head: HeadRef = args.head.into();
    let whole = args.loupe.is_none();
    let samples = if whole { affordable(&session, &head, args.width, args.samples)? } else { args.samples };
    let wish = PictureWish {
        window: match args.loupe {
            Some(target) => Window::Loupe { target, across: LOUPE_PX[0], down: LOUPE_PX[1] },
            None => Window::Whole { width: args.width },
        },
        light: if args.night {
            Light::Night { stops: args.stops, exposed: args.exposed.map(ExposedArg::meant) }
        } else {
            Light::Day
        },
        grid: args.grid,
        samples,
        shutter_s: args.shutter_s,
    };
    let drape = args.overhead.map(|path| overhead(&session, &path)).transpose()?;
    let of_loupe = |fault: Fault| if fault.path == "target" { Fault::new("loupe", fault.message) } else { fault };
    let mut picture =
        Picture::begin(&session, &head, &wish, drape).map_err(|fault| vec![as_option(of_loupe(fault))])?;
    while picture.step(session.site()) {}
    let written = image::save_buffer_with_format(
        &args.out,
        picture.rgba(),
        picture.width(),
        picture.height(),
        image::ExtendedColorType::Rgba8,
        image::ImageFormat::Png,
    );
    written.map_err(|error| vec![Fault::new("--out", error.to_string())])?;
    json(&picture.told())
}

/// How many samples a picture of a width is worked out with: as many as wished, unless nobody would wait for them.
fn affordable(session: &Session, head: &HeadRef, width: u32, samples: u32) -> Result<u32, Vec<Fault>> {
    let Ok(view) = session.site().view(head) else { return Ok(samples) };
    let size = view.view().projection.size();
    let tall = f64::from(width) * size.y / size.x;
    let fits = (MOST_RAYS / (f64::from(width) * tall)).sqrt().floor();
    if fits < 1.0 {
        let widest = (MOST_RAYS * size.x / size.y).sqrt().floor();
        let message = format!("{width} px take longer than anybody waits; at most {widest} px of this head");
        return Err(vec![Fault::new("--width", message)]);
    }
    if fits < f64::from(samples) {
        eprintln!("left out: {samples} samples a pixel to a side take too long at {width} px; taken with {fits}");
    }
    Ok(samples.min(fits as u32))
}

/// The aiming card of a head.
pub fn card(file: &Path, head: &HeadRef) -> Answer {
    json(&card_of(&session(input::site(file)?)?, head).map_err(|fault| vec![as_option(fault)])?)
}

/// The masks of all heads.
pub fn masks(file: &Path) -> Answer {
    json(&masks_of(&session(input::site(file)?)?))
}

/// The overhead picture of a file, as the site's drawing lays it.
fn overhead(session: &Session, path: &Path) -> Result<Arc<Drape>, Vec<Fault>> {
    let of_option = |message: String| vec![Fault::new("--overhead", message)];
    let drawing = session.site().file().drawing.as_ref();
    let drawing = drawing.ok_or_else(|| of_option("the site has no drawing that says where it lies".to_owned()))?;
    let picture = image::open(path).map_err(|error| of_option(error.to_string()))?.into_rgba8();
    let drape = Drape::new(drawing, picture.dimensions(), picture.as_raw());
    drape.map(Arc::new).ok_or_else(|| of_option("the site's drawing has no scale".to_owned()))
}
