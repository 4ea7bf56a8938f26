//! The catalogue of camera models that ships with the program: generic ones, none of any maker.

use crate::file::{Fault, Model};

/// The catalogue as it is written.
pub const CATALOGUE_JSON: &str = include_str!("../../data/catalogue.json");

/// The models of the catalogue.
///
/// # Errors
/// The catalogue is read at build time and held against its types in the tests; a fault here means
/// that the data file was changed and the tests were not run.
pub fn models() -> Result<Vec<Model>, Fault> {
    serde_json::from_str(CATALOGUE_JSON).map_err(|error| Fault::new("catalogue", error.to_string()))
}
