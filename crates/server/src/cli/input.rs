//! Site files from disk or from standard input.

use bright_angle_core::{Fault, Site};
use std::io::Read;
use std::path::Path;

/// The largest site file that is read, bytes.
pub const LARGEST: u64 = 8 * 1024 * 1024;

/// Reads and validates a site file; `-` is standard input.
pub fn site(path: &Path) -> Result<Site, Vec<Fault>> {
    Site::parse(&text(path)?)
}

/// Reads a text; `-` is standard input.
pub fn text(path: &Path) -> Result<String, Vec<Fault>> {
    let name = path.display().to_string();
    String::from_utf8(bytes(path)?).map_err(|error| vec![Fault::new(name.as_str(), format!("is not UTF-8: {error}"))])
}

/// Reads a file as it is; `-` is standard input.
pub fn bytes(path: &Path) -> Result<Vec<u8>, Vec<Fault>> {
    bytes_up_to(path, LARGEST)
}

/// The same of a file with at most so many bytes.
pub fn bytes_up_to(path: &Path, most: u64) -> Result<Vec<u8>, Vec<Fault>> {
    let name = path.display().to_string();
    let cannot = |error: std::io::Error| vec![Fault::new(name.as_str(), error.to_string())];
    let mut bytes = Vec::new();
    let read = |reader: &mut dyn Read, bytes: &mut Vec<u8>| reader.take(most + 1).read_to_end(bytes);
    if name == "-" {
        read(&mut std::io::stdin().lock(), &mut bytes).map_err(cannot)?;
    } else {
        let mut file = std::fs::File::open(path).map_err(cannot)?;
        read(&mut file, &mut bytes).map_err(cannot)?;
    }
    if bytes.len() as u64 > most {
        return Err(vec![Fault::new(name, format!("is larger than {} MiB", most / 1024 / 1024))]);
    }
    Ok(bytes)
}
