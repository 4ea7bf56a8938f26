//! Where on the earth a site is: what the sun needs to be told.

use super::Fault;
use super::zones::rule_of;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The place of a site on the earth; the site's y stays north.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GeoPlace {
    /// Latitude, degrees north.
    #[schema(minimum = -90, maximum = 90)]
    pub latitude_deg: f64,
    /// Longitude, degrees east.
    #[schema(minimum = -180, maximum = 180)]
    pub longitude_deg: f64,
    /// Height over the sea, m.
    #[serde(default)]
    pub elevation_m: f64,
    /// Name of its time zone in the IANA database, as in `Europe/London`.
    pub time_zone: String,
}

impl GeoPlace {
    /// What is wrong with it, each with its place.
    pub fn faults(&self) -> Vec<Fault> {
        let range = |name: &str, value: f64, least: f64, most: f64, unit: &str| {
            let message = || format!("{value} is outside {least} to {most}{unit}");
            (!(least..=most).contains(&value)).then(|| Fault::new(format!("place.{name}"), message()))
        };
        let zone = || {
            let message =
                format!("\"{}\" is no time zone that is known here; one is \"Europe/London\"", self.time_zone);
            rule_of(&self.time_zone).is_none().then(|| Fault::new("place.time_zone", message))
        };
        [
            range("latitude_deg", self.latitude_deg, -90.0, 90.0, "°"),
            range("longitude_deg", self.longitude_deg, -180.0, 180.0, "°"),
            range("elevation_m", self.elevation_m, -500.0, 9000.0, " m"),
            zone(),
        ]
        .into_iter()
        .flatten()
        .collect()
    }
}
