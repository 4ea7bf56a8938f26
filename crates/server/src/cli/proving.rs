//! The subcommands of proving: a later picture against the reference.

use super::compute::json;
use super::{Answer, input};
use crate::picture::pixels;
use bright_angle_core::Fault;
use bright_angle_core::prove::compare::{CompareLimits, compare as core_compare};
use bright_angle_core::prove::shot::Shot;
use std::path::Path;

/// The largest picture that is read, bytes: originals are compared, not what the store makes of them.
const LARGEST: u64 = 64 * 1024 * 1024;

pub fn compare(reference: &Path, later: &Path, hfov_deg: f64) -> Answer {
    let before = shot(reference)?;
    let after = shot(later)?;
    let found = core_compare(&before, &after, hfov_deg, &CompareLimits::default());
    let place = |fault: Fault| match fault.path.as_str() {
        "hfov_deg" => Fault::new("--hfov-deg", fault.message),
        _ => Fault::new(later.display().to_string(), fault.message),
    };
    json(&found.map_err(|fault| vec![place(fault)])?)
}

/// A picture from a file.
fn shot(path: &Path) -> Result<Shot, Vec<Fault>> {
    let bytes = input::bytes_up_to(path, LARGEST)?;
    let image = pixels(&bytes).map_err(|wrong| vec![Fault::new(path.display().to_string(), wrong)])?;
    Ok(Shot { width: image.width() as usize, height: image.height() as usize, rgb: image.into_raw() })
}
