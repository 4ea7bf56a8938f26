//! Solids from and to other programs' files, on the command line.

use super::compute::json;
use super::{Answer, input};
use crate::api::exchange::written;
use crate::dxf::{self, Unit};
use bright_angle_core::Fault;
use bright_angle_core::exchange::geojson;
use std::path::Path;

pub fn import(file: &Path, unit: Option<&str>) -> Answer {
    let text = input::text(file)?;
    let is_dxf = file.extension().is_some_and(|ending| ending.eq_ignore_ascii_case("dxf"));
    let unit = unit.map(Unit::parse).transpose().map_err(|fault| vec![Fault::new("--unit", fault.message)])?;
    let read = if is_dxf { dxf::read(&text, unit) } else { geojson::read(&text) };
    json(&read.map_err(|fault| vec![Fault::new(file.display().to_string(), fault.message)])?)
}

pub fn export(file: &Path, format: &str) -> Answer {
    Ok(written(input::site(file)?.file(), format).map_err(|fault| vec![fault])?.trim_end().to_owned())
}
