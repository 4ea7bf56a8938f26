//! The catalogue of camera models that ships with the program: generic ones, none of any maker.

use crate::file::{Fault, Model};
use std::collections::HashSet;

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

/// The models there are to choose from: the firm's own, and of those that ship with the program the ones whose names are not taken.
///
/// # Errors
/// As [`models`].
pub fn with_own(own: &[Model]) -> Result<Vec<Model>, Fault> {
    let names: HashSet<&str> = own.iter().map(|model| model.name.as_str()).collect();
    let shipped = models()?.into_iter().filter(|model| !names.contains(model.name.as_str()));
    Ok(own.iter().cloned().chain(shipped).collect())
}
