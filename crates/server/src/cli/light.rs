//! The subcommands about the sun, light and plates on their way.

use super::compute::{as_option, json, session};
use super::{Answer, input};
use bright_angle_core::Fault;
use bright_angle_core::file::HeadRef;
use bright_angle_core::show::night::light_told::light_told;
use bright_angle_core::show::plates::on_the_way::plates as plates_of;
use bright_angle_core::show::plates::start_settings::{as_csv, start_settings};
use bright_angle_core::show::sun::sun_told::{sun_told, sun_year};
use bright_angle_core::sun::position;
use bright_angle_core::words::units::Units;
use clap::Args;
use std::path::Path;

/// Where and when the sun is looked at.
#[derive(Args)]
pub struct SunPlace {
    /// Latitude, degrees north
    #[arg(long, allow_hyphen_values = true)]
    latitude_deg: f64,
    /// Longitude, degrees east
    #[arg(long, allow_hyphen_values = true)]
    longitude_deg: f64,
    /// Height over the sea, m
    #[arg(long, default_value_t = 0.0, allow_hyphen_values = true)]
    elevation_m: f64,
    /// When, RFC 3339, as in 2027-10-05T17:30:00Z
    #[arg(long)]
    time: String,
}

pub fn sun_position(place: SunPlace) -> Answer {
    let ranges = [
        ("--latitude-deg", place.latitude_deg, 90.0),
        ("--longitude-deg", place.longitude_deg, 180.0),
        ("--elevation-m", place.elevation_m, 9000.0),
    ];
    let outside = ranges.iter().filter(|(_, value, most)| value.is_nan() || value.abs() > *most);
    let mut faults: Vec<Fault> = outside
        .map(|(name, value, most)| Fault::new(*name, format!("{value} is outside {} to {most}", -most)))
        .collect();
    let time = place.time.parse().map_err(|_| {
        faults.push(Fault::new("--time", format!("\"{}\" is no time, as in 2027-10-05T17:30:00Z", place.time)));
    });
    let Ok(time) = time else { return Err(faults) };
    if !faults.is_empty() {
        return Err(faults);
    }
    let found = position::position(place.latitude_deg, place.longitude_deg, place.elevation_m, time);
    json(&found.map_err(|fault| vec![as_option(fault)])?)
}

/// A year, and one head or all.
#[derive(Args)]
pub struct SunWish {
    /// The year
    #[arg(long, allow_hyphen_values = true)]
    year: i32,
    /// Id of a camera; all where left out
    #[arg(long)]
    camera: Option<String>,
    /// Id of its head
    #[arg(long, requires = "camera")]
    head: Option<String>,
}

pub fn sun(file: &Path, wish: SunWish) -> Answer {
    let site = input::site(file)?;
    let year = sun_year(&site, wish.year)
        .map_err(|fault| vec![if fault.path == "year" { as_option(fault) } else { fault }])?;
    if let Some(camera) = &wish.camera {
        let known = |id: &str| site.heads().iter().any(|head| head.camera_id() == camera && head.id() == id);
        let any = site.heads().iter().any(|head| head.camera_id() == camera);
        if !any {
            return Err(vec![Fault::new("--camera", format!("the site has no camera \"{camera}\""))]);
        }
        if let Some(head) = wish.head.as_ref().filter(|head| !known(head)) {
            return Err(vec![Fault::new("--head", format!("camera \"{camera}\" has no head \"{head}\""))]);
        }
    }
    let session = session(site)?;
    let wanted = |known: &str, id: &Option<String>| id.as_ref().is_none_or(|id| id == known);
    json(&sun_told(&session, &year, |head| wanted(head.camera_id(), &wish.camera) && wanted(head.id(), &wish.head)))
}

pub fn light(file: &Path) -> Answer {
    json(&light_told(&session(input::site(file)?)?))
}

pub fn plates(file: &Path) -> Answer {
    json(&plates_of(&session(input::site(file)?)?))
}

pub fn settings(file: &Path, head: &HeadRef, date: Option<&str>, units: Units) -> Answer {
    let session = session(input::site(file)?)?;
    let cards = start_settings(&session, head, date, units).map_err(|fault| vec![as_option(fault)])?;
    as_csv(&cards).map(|text| text.trim_end().to_owned()).map_err(|fault| vec![fault])
}
