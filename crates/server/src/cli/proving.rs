//! The subcommands of proving: a later picture against the reference, what is proved, what is due.

use super::compute::{as_option, json, session};
use super::{Answer, input};
use crate::calendar::calendar;
use crate::picture::{digest, pixels};
use bright_angle_core::Fault;
use bright_angle_core::file::ProvingRules;
use bright_angle_core::prove::compare::compare as core_compare;
use bright_angle_core::prove::due::due as core_due;
use bright_angle_core::prove::log_csv::log_csv;
use bright_angle_core::prove::proved::proved;
use bright_angle_core::prove::shot::Shot;
use bright_angle_core::show::sun::sun_told::sun_year;
use std::path::Path;

/// The largest picture that is read, bytes: originals are compared, not what the store makes of them.
const LARGEST: u64 = 64 * 1024 * 1024;

pub fn compare(reference: &Path, later: &Path, hfov_deg: f64) -> Answer {
    let before = shot(reference)?;
    let after = shot(later)?;
    let found = core_compare(&before, &after, hfov_deg, &ProvingRules::default());
    let place = |fault: Fault| match fault.path.as_str() {
        "hfov_deg" => Fault::new("--hfov-deg", fault.message),
        _ => Fault::new(later.display().to_string(), fault.message),
    };
    json(&found.map_err(|fault| vec![place(fault)])?)
}

pub fn prove(file: &Path) -> Answer {
    json(&proved(&session(input::site(file)?)?))
}

pub fn due(file: &Path, on: Option<String>, as_calendar: bool) -> Answer {
    let session = session(input::site(file)?)?;
    let on = on.unwrap_or_else(|| time::OffsetDateTime::now_utc().date().to_string());
    let year = on.get(..4).and_then(|year| year.parse().ok());
    let sun = year.and_then(|year| sun_year(session.site(), year).ok());
    let found = core_due(&session, &on, sun.as_ref()).map_err(|fault| vec![as_option(fault)])?;
    let site = session.site().file();
    if !as_calendar {
        return json(&found);
    }
    // The same site of the same name is the same calendar.
    let key = digest(site.name.as_bytes());
    Ok(calendar(&site.name, &key[..16], &found).trim_end().to_owned())
}

pub fn log(file: &Path) -> Answer {
    Ok(log_csv(input::site(file)?.file()).trim_end().to_owned())
}

/// A picture from a file.
fn shot(path: &Path) -> Result<Shot, Vec<Fault>> {
    let bytes = input::bytes_up_to(path, LARGEST)?;
    let image = pixels(&bytes).map_err(|wrong| vec![Fault::new(path.display().to_string(), wrong)])?;
    Ok(Shot { width: image.width() as usize, height: image.height() as usize, rgb: image.into_raw() })
}
