//! The subcommands that take a site file and answer JSON.

use super::{Answer, Line, input};
use crate::relief::{asked_grid, whole_relief};
use bright_angle_core::change::ways;
use bright_angle_core::file::Question;
use bright_angle_core::judge::Session;
use bright_angle_core::show::coverage::section;
use bright_angle_core::survey::{self, adjustment};
use bright_angle_core::words::units::Units;
use bright_angle_core::work::{Over, Patience};
use bright_angle_core::{Fault, Site, evaluate_within, file};
use serde::Serialize;
use std::path::Path;

/// Any answer as JSON.
pub fn json(value: &impl Serialize) -> Answer {
    serde_json::to_string_pretty(value).map_err(|error| vec![Fault::new("", error.to_string())])
}

pub fn evaluate(file: &Path) -> Answer {
    let site = input::site(file)?;
    if site.targets().is_empty() {
        eprintln!("targets: there are none yet, so there is nothing to keep");
    }
    json(&evaluate_within(&site, &Patience::ENDLESS).map_err(too_large)?)
}

pub fn ways(file: &Path, line: Line, units: Units) -> Answer {
    let site = input::site(file)?;
    json(&ways::ways(&session(site)?, &line.into(), units).map_err(|fault| vec![as_option(fault)])?)
}

pub fn section(file: &Path, line: Line) -> Answer {
    let site = input::site(file)?;
    json(&section::section(&session(site)?, &line.into()).map_err(|fault| vec![as_option(fault)])?)
}

pub fn adjust(file: &Path) -> Answer {
    json(&adjustment::adjust(&input::site(file)?).map_err(|fault| vec![fault])?)
}

pub fn survey(file: &Path) -> Answer {
    json(&survey::survey(&input::site(file)?))
}

pub fn readings(file: &Path) -> Answer {
    Ok(survey::write_csv(&input::site(file)?.file().readings).trim_end().to_owned())
}

pub fn relief(file: &Path, at_height_m: f64, cell_m: f64, bounds: &[f64]) -> Answer {
    let bounds: [f64; 4] =
        bounds.try_into().map_err(|_| vec![Fault::new("--bounds", "are four figures: west,south,east,north, m")])?;
    let cells = asked_grid(bounds, cell_m, at_height_m)
        .map_err(|fault| vec![Fault::new(format!("--{}", fault.path.replace('_', "-")), fault.message)])?;
    let relief = whole_relief(&input::site(file)?, cells, at_height_m, &Patience::ENDLESS).map_err(too_large)?;
    Ok(relief.to_ascii_grid().trim_end().to_owned())
}

pub(super) fn session(site: Site) -> Result<Session, Vec<Fault>> {
    Session::within(site, &Patience::ENDLESS).map_err(too_large)
}

fn too_large(over: Over) -> Vec<Fault> {
    vec![Fault::new("", over.to_string())]
}

/// A fault of an id given on the command line names its option.
pub(super) fn as_option(fault: Fault) -> Fault {
    Fault::new(format!("--{}", fault.path), fault.message)
}

impl From<Line> for Question {
    fn from(line: Line) -> Self {
        let file::HeadRef { camera, head, view } = line.head.into();
        Question { camera, head, view, target: line.target }
    }
}
