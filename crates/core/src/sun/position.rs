//! Where the sun stands: the NREL algorithm (Reda and Andreas, NREL/TP-560-34302), apparent, by the `solar-positioning` crate.

use super::clock::YEARS;
use crate::file::{Fault, GeoPlace};
use glam::DVec3;
use jiff::Timestamp;
use jiff::tz::TimeZone;
use serde::Serialize;
use solar_positioning::time::JulianDate;
use solar_positioning::{Location, RefractionCorrection, SolarPositions};
use utoipa::ToSchema;

/// Air that bends the light: pressure in mbar and temperature in °C (handbook, section 9).
const AIR: (f64, f64) = (1013.25, 10.0);
/// TT − UT1, s, as in the algorithm's worked example. What it is off in any year of the table moves the sun by less than 0.001°.
const DELTA_T_S: f64 = 67.0;

/// Where the sun stands.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct SunPosition {
    /// Bearing from north, degrees.
    pub azimuth_deg: f64,
    /// Angle from straight up with the bending of the light, degrees.
    pub zenith_deg: f64,
    /// Height over the horizon with the bending of the light, degrees.
    pub apparent_elevation_deg: f64,
}

/// Where the sun stands over a place, m over the sea, at a time.
///
/// # Errors
/// A place or a time that it is not told for.
///
/// ```
/// use bright_angle_core::sun::position::position;
/// // NREL/TP-560-34302, table A5.1, with its own air in place of ours the zenith is 50.11162°.
/// let time = "2003-10-17T12:30:30-07:00".parse().unwrap();
/// let sun = position(39.742476, -105.1786, 1830.14, time).unwrap();
/// assert!((sun.azimuth_deg - 194.34024).abs() < 1e-5 && (sun.zenith_deg - 50.11162).abs() < 5e-3);
/// ```
pub fn position(latitude_deg: f64, longitude_deg: f64, elevation_m: f64, at: Timestamp) -> Result<SunPosition, Fault> {
    let of_time = |path: &str, error: &dyn std::fmt::Display| Fault::new(path, error.to_string());
    let year = i32::from(TimeZone::UTC.to_datetime(at).year());
    check_year(year, "time")?;
    let air = RefractionCorrection::new(AIR.0, AIR.1).map_err(|error| of_time("", &error))?;
    let time = JulianDate::new(julian(at), DELTA_T_S).map_err(|error| of_time("time", &error))?;
    let location = Location { latitude: latitude_deg, longitude: longitude_deg };
    let found = SolarPositions::new().at_from_julian(time, location, elevation_m, Some(air));
    let found = found.map_err(|error| of_time("", &error))?;
    Ok(SunPosition {
        azimuth_deg: found.azimuth(),
        zenith_deg: found.zenith_angle(),
        apparent_elevation_deg: 90.0 - found.zenith_angle(),
    })
}

/// Where the sun stands over the place of a site.
///
/// # Errors
/// A time that it is not told for.
pub fn over(place: &GeoPlace, at: Timestamp) -> Result<SunPosition, Fault> {
    position(place.latitude_deg, place.longitude_deg, place.elevation_m, at)
}

/// Whether the sun is told for a year.
///
/// # Errors
/// Says for which it is.
pub fn check_year(year: i32, path: &str) -> Result<(), Fault> {
    let message = || format!("the sun is told for the years {} to {}, not for {year}", YEARS.start(), YEARS.end());
    if YEARS.contains(&year) { Ok(()) } else { Err(Fault::new(path, message())) }
}

impl SunPosition {
    /// The way to it in the site, of length one.
    pub fn direction(&self) -> DVec3 {
        let (azimuth, up) = (self.azimuth_deg.to_radians(), self.apparent_elevation_deg.to_radians());
        DVec3::new(azimuth.sin() * up.cos(), azimuth.cos() * up.cos(), up.sin())
    }
}

/// By how much the air lifts the sun that stands so high without it, degrees (NREL/TP-560-34302, equation 42); nothing once it is
/// well under the horizon.
pub(super) fn lifted_deg(elevation_deg: f64) -> f64 {
    if elevation_deg < -(0.266_67 + 0.5667) {
        return 0.0;
    }
    let bent = (elevation_deg + 10.3 / (elevation_deg + 5.11)).to_radians();
    AIR.0 / 1010.0 * 283.0 / (273.0 + AIR.1) * 1.02 / (60.0 * bent.tan())
}

/// Where the sun stands without air, as the algorithm has it.
pub(super) fn without_air(place: &GeoPlace, julian: f64) -> Option<(f64, f64)> {
    let time = JulianDate::new(julian, DELTA_T_S).ok()?;
    let location = Location { latitude: place.latitude_deg, longitude: place.longitude_deg };
    let found = SolarPositions::new().at_from_julian(time, location, place.elevation_m, None).ok()?;
    Some((found.azimuth().to_radians(), found.elevation_angle().to_radians()))
}

/// A moment as a Julian date of UTC.
pub(super) fn julian(at: Timestamp) -> f64 {
    2_440_587.5 + at.as_millisecond() as f64 / 86_400_000.0
}
