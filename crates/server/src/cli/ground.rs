//! The subcommands about the ground, pictures, tours and designs: each asks the core one question about a site file.

use super::compute::{as_option, json, session};
use super::{Answer, input};
use bright_angle_core::change::designs::side_by_side;
use bright_angle_core::file::HeadRef;
use bright_angle_core::ground::told::{GroundWish, ground as ground_of};
use bright_angle_core::ground::why::why as why_at;
use bright_angle_core::judge::evaluation::eyes;
use bright_angle_core::judge::tours::tours as tours_of;
use bright_angle_core::show::coverage::picture_use::picture_uses;
use bright_angle_core::show::seen::seen_from::seen_from;
use bright_angle_core::show::seen::wish::wishes;
use bright_angle_core::site::ray::{Met, ray};
use bright_angle_core::words::units::Units;
use bright_angle_core::{Fault, file};
use clap::Args;
use std::fmt::Write;
use std::io::Read;
use std::path::Path;

/// How the ground is looked at.
#[derive(Args)]
pub struct Look {
    /// The density that counts as seen, px/m
    #[arg(long, default_value_t = 25.0)]
    need: f64,
    /// Height that is looked at, m
    #[arg(long, default_value_t = 1.6)]
    at_height_m: f64,
}

/// A place of the plan.
pub type Place = [f64; 2];

/// Reads a place: `x,y`.
pub fn place(text: &str) -> Result<Place, String> {
    let axes: Option<Vec<f64>> = text.split(',').map(|axis| axis.trim().parse().ok()).collect();
    axes.and_then(|axes| axes.try_into().ok()).ok_or_else(|| format!("{text} is no place: x,y in metres"))
}

pub fn tours(file: &Path, event_s: f64) -> Answer {
    if !(0.0..=86_400.0).contains(&event_s) {
        return Err(vec![Fault::new("--event-s", format!("{event_s} is outside 0 to 86400 s"))]);
    }
    json(&tours_of(&input::site(file)?, event_s))
}

pub fn ground(file: &Path, look: &Look, goal: Option<Place>) -> Answer {
    let wish = GroundWish { need_px_per_m: look.need, height_m: look.at_height_m, goal };
    json(&ground_of(&input::site(file)?, &wish).map_err(|fault| vec![as_option(fault)])?)
}

pub fn why(file: &Path, look: &Look, at: Place, units: Units) -> Answer {
    let site = input::site(file)?;
    json(&why_at(&site, at, look.at_height_m, look.need, units).map_err(|fault| vec![as_option(fault)])?)
}

pub fn seen(file: &Path, at: Option<Place>, ground_m: f64, units: Units) -> Answer {
    let site = input::site(file)?;
    match at {
        Some(at) => json(&seen_from(&site, at, ground_m, units).map_err(|fault| vec![as_option(fault)])?),
        None => json(&wishes(&site, units)),
    }
}

pub fn picture_use(file: &Path) -> Answer {
    json(&picture_uses(&session(input::site(file)?)?))
}

pub fn designs(file: &Path, look: &Look, left: Option<&str>, right: Option<&str>) -> Answer {
    let wish = GroundWish { need_px_per_m: look.need, height_m: look.at_height_m, goal: None };
    json(&side_by_side(input::site(file)?.file(), left, right, &wish)?)
}

/// CSV of pixels on standard input, CSV of what their rays meet as the answer.
pub fn rays(file: &Path, head: &HeadRef) -> Answer {
    let site = input::site(file)?;
    let head = site.view(head).map_err(|fault| vec![as_option(fault)])?;
    let eye = &eyes(&site)[head.camera()];
    let mut text = String::new();
    let read = std::io::stdin().lock().take(input::LARGEST).read_to_string(&mut text);
    read.map_err(|error| vec![Fault::new("-", error.to_string())])?;
    let mut out = String::from("u,v,hit,id,distance_m");
    for (line, row) in text.lines().enumerate().filter(|(_, row)| !row.trim().is_empty()) {
        // The first line may be a header, or the first pixel already.
        if line == 0 && row.trim().trim_start_matches('\u{feff}').split(',').take(2).map(str::trim).eq(["u", "v"]) {
            continue;
        }
        let pixel = place(row).map_err(|_| {
            let or = if line == 0 { ", nor a header that begins with u,v" } else { "" };
            vec![Fault::new(format!("line {}", line + 1), format!("is no pixel: u,v{or}"))]
        })?;
        let [u, v] = pixel;
        let met = ray(head, eye, site.scene(), pixel.into());
        // Writing to a string cannot fail.
        let _ = match met.map(|ray| (ray.met, ray.distance)) {
            Some((Met::Obstacle(solid), distance)) => write!(out, "\n{u},{v},obstacle,{},{distance}", solid.id()),
            Some((Met::Ground, distance)) => write!(out, "\n{u},{v},ground,,{distance}"),
            Some((Met::Sky, _)) => write!(out, "\n{u},{v},sky,,"),
            None => write!(out, "\n{u},{v},,,"),
        };
    }
    Ok(out)
}

/// The head that options name.
#[derive(Args)]
pub struct HeadArgs {
    /// Id of the camera
    #[arg(long)]
    camera: String,
    /// Id of its head
    #[arg(long)]
    head: String,
    /// Id of one of its presets or flattened views
    #[arg(long)]
    view: Option<String>,
}

impl From<HeadArgs> for file::HeadRef {
    fn from(head: HeadArgs) -> Self {
        file::HeadRef { camera: head.camera, head: head.head, view: head.view }
    }
}
