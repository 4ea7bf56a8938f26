//! The subcommands that take a site file and answer JSON.

use super::{Answer, Line, input};
use bright_angle_core::units::Units;
use bright_angle_core::ways::Question;
use bright_angle_core::{Fault, adjustment, section, survey, ways};
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
    json(&bright_angle_core::evaluate(&site))
}

pub fn ways(file: &Path, line: Line, units: Units) -> Answer {
    let site = input::site(file)?;
    json(&ways::ways(&site, &line.into(), units).map_err(|fault| vec![as_option(fault)])?)
}

pub fn section(file: &Path, line: Line) -> Answer {
    let site = input::site(file)?;
    json(&section::section(&site, &line.into()).map_err(|fault| vec![as_option(fault)])?)
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

/// A fault of an id given on the command line names its option.
fn as_option(fault: Fault) -> Fault {
    Fault::new(format!("--{}", fault.path), fault.message)
}

impl From<Line> for Question {
    fn from(line: Line) -> Self {
        Question { camera: line.camera, head: line.head, target: line.target }
    }
}
