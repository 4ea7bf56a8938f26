//! What is in a body, with faults that name the place.

use super::error::ApiError;
use bright_angle_core::{Fault, Site};
use serde::Deserialize;
use serde_json::value::RawValue;

/// The largest body of text that is read, MiB.
pub const LARGEST_MIB: u64 = 8;

/// The fields around a site file; the file itself is parsed by its own door.
pub fn envelope<'a, T: Deserialize<'a>>(text: &'a str) -> Result<T, ApiError> {
    let mut reader = serde_json::Deserializer::from_str(text);
    let read = serde_path_to_error::deserialize(&mut reader);
    let value = read.map_err(|error| match error.path().to_string().as_str() {
        "." => Fault::new("", error.inner().to_string()),
        path => Fault::new(path, error.inner().to_string()),
    })?;
    reader.end().map_err(|error| Fault::new("", error.to_string()))?;
    Ok(value)
}

/// A site file inside an envelope; its faults are named by their place in the file.
pub fn site(raw: &RawValue) -> Result<Site, ApiError> {
    Ok(Site::parse(raw.get())?)
}
