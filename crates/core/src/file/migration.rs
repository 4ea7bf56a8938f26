//! Reading a site file of any version that this program knows.

use super::site_file::{FORMAT, SiteFile, VERSION};
use super::{Fault, FaultCode};
use serde::Deserialize;

/// The two fields that say how to read the rest.
#[derive(Deserialize)]
struct Header {
    format: String,
    version: u32,
}

impl SiteFile {
    /// Reads a file of any version that this program knows, without validating its figures.
    pub fn parse(text: &str) -> Result<SiteFile, Vec<Fault>> {
        // Where the header cannot be read, reading it all names the place better.
        let header: Header = read_json(text).map_err(|faults| read_json::<SiteFile>(text).err().unwrap_or(faults))?;
        if header.format != FORMAT {
            let message = format!("\"{}\" is not a site file; expected \"{FORMAT}\"", shortened(&header.format));
            return Err(vec![Fault::new("format", message).of(FaultCode::Unreadable)]);
        }
        match header.version {
            VERSION => read_json(text),
            0 => Err(vec![Fault::new("version", "there is no version 0").of(FaultCode::Version)]),
            newer => Err(vec![
                Fault::new(
                    "version",
                    format!("{newer} is newer than this program reads ({VERSION}); update it to open this file"),
                )
                .of(FaultCode::Version),
            ]),
        }
    }
}

/// Reads JSON; a fault names the place down to the field (without the feature `paths`: the line and column in the text).
///
/// # Errors
/// What cannot be read, with its place.
pub fn read_json<'de, T: Deserialize<'de>>(text: &'de str) -> Result<T, Vec<Fault>> {
    let mut reader = serde_json::Deserializer::from_str(text);
    let value = read_value(&mut reader)?;
    reader.end().map_err(|error| vec![Fault::new("", error.to_string()).of(FaultCode::Unreadable)])?;
    Ok(value)
}

type Reader<'de> = serde_json::Deserializer<serde_json::de::StrRead<'de>>;

#[cfg(feature = "paths")]
fn read_value<'de, T: Deserialize<'de>>(reader: &mut Reader<'de>) -> Result<T, Vec<Fault>> {
    serde_path_to_error::deserialize(reader).map_err(|error| {
        let path = match error.path().to_string() {
            whole if whole == "." => String::new(),
            path => path,
        };
        vec![Fault::new(path, error.inner().to_string()).of(FaultCode::Unreadable)]
    })
}

#[cfg(not(feature = "paths"))]
fn read_value<'de, T: Deserialize<'de>>(reader: &mut Reader<'de>) -> Result<T, Vec<Fault>> {
    T::deserialize(reader).map_err(|error| vec![Fault::new("", error.to_string()).of(FaultCode::Unreadable)])
}

/// A text cut to what fits a message.
fn shortened(text: &str) -> String {
    text.chars().take(60).collect()
}
