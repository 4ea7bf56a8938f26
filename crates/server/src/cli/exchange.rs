//! Solids from and to other programs' files, on the command line.

use super::compute::json;
use super::{Answer, input};
use crate::drawing::{self, Kind};
use crate::dxf::Unit;
use crate::plan_out::written;
use crate::sheet;
use bright_angle_core::Fault;
use bright_angle_core::work::Patience;
use std::path::Path;
use std::process::ExitCode;

pub fn import(file: &Path, unit: Option<&str>) -> Answer {
    let bytes = input::bytes(file)?;
    drawing::fall_silently();
    let is_dxf = file.extension().is_some_and(|ending| ending.eq_ignore_ascii_case("dxf"));
    let unit = unit.map(Unit::parse).transpose().map_err(|fault| vec![Fault::new("--unit", fault.message)])?;
    let read = drawing::read(if is_dxf { Kind::Dxf } else { Kind::Geojson }, unit, &bytes);
    json(&read.map_err(|fault| vec![Fault::new(file.display().to_string(), fault.message)])?)
}

pub fn read_drawing(kind: Kind, unit: Option<&str>) -> ExitCode {
    let unit = unit.map(Unit::parse).transpose().map_err(|fault| fault.message);
    match unit.and_then(|unit| drawing::serve_one(kind, unit)) {
        Ok(()) => ExitCode::SUCCESS,
        Err(why) => {
            eprintln!("{why}");
            ExitCode::FAILURE
        }
    }
}

pub fn sheet(file: &Path) -> Answer {
    let bytes = input::bytes(file)?;
    drawing::fall_silently();
    json(&sheet::read(&bytes).map_err(|fault| vec![Fault::new(file.display().to_string(), fault.message)])?)
}

pub fn export(file: &Path, format: &str) -> Answer {
    Ok(written(input::site(file)?, format, &Patience::ENDLESS).map_err(|fault| vec![fault])?.trim_end().to_owned())
}
