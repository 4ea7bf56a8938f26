//! The catalogue of camera models that ships with the program: generic ones, none of any maker.

use crate::site::Fault;
use crate::site::file::{Form, Model};

/// The catalogue as it is written.
pub const CATALOGUE_JSON: &str = include_str!("../data/catalogue.json");

/// The models of the catalogue.
///
/// # Errors
/// The catalogue is read at build time and held against its types in the tests; a fault here means
/// that the data file was changed and the tests were not run.
pub fn models() -> Result<Vec<Model>, Fault> {
    serde_json::from_str(CATALOGUE_JSON).map_err(|error| Fault::new("catalogue", error.to_string()))
}

impl Form {
    /// What the form is called.
    pub fn word(self) -> &'static str {
        match self {
            Form::Bullet => "bullet",
            Form::Turret => "turret",
            Form::Dome => "dome",
            Form::VandalDome => "vandal-resistant dome",
            Form::Box => "box",
            Form::Fisheye => "fisheye",
            Form::MultiHead => "multi-head",
            Form::Ptz => "PTZ",
            Form::Plate => "plate camera",
        }
    }
}
