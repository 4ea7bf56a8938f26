//! What a sheet says of light: its own infrared, and the least that it needs.

use super::Said;
use super::numbers::{DEGREES, LUX, figures, length_m};
use super::page::Page;
use serde_json::json;

const INFRARED: [&str; 6] = ["ir ", "ir-", "infrared", "infrarot", "infrarouge", "night vision"];
const BEAM: [&str; 3] = ["angle", "beam", "winkel"];
const SENSITIVE: [&str; 6] =
    ["lux", "illumination", "sensitivity", "lichtempfindlichkeit", "sensibilit", "illuminazione"];

pub fn light(page: &Page, said: &mut Vec<Said>, contradicts: &mut Vec<String>) {
    for line in page.with(&INFRARED) {
        if said.iter().any(|one| one.field == "infrared_m") {
            break;
        }
        match length_m(&line.plain) {
            Some(Ok(range)) if range > 0.0 && range <= 2000.0 => {
                said.push(Said::of_all("infrared_m", json!(range), &line.text));
            }
            Some(Err((metres, feet))) => contradicts.push(format!(
                "the infrared range is {metres} m, and in feet {feet:.0} m (\u{201c}{}\u{201d})",
                line.text
            )),
            _ => {}
        }
    }
    let beam = page.with(&INFRARED).filter(|line| line.has(&BEAM)).find_map(|line| {
        let angle = figures(&line.plain, &DEGREES).into_iter().find(|angle| (1.0..=179.0).contains(&angle.value))?;
        Some((angle.value, line))
    });
    // A beam without its range is half a light.
    let range = said.iter().position(|one| one.field == "infrared_m");
    if let (Some((beam, line)), Some(range)) = (beam, range) {
        let range = said.remove(range);
        said.push(Said { field: "infrared.range_m", ..range });
        said.push(Said::of_all("infrared.beam_deg", json!(beam), &line.text));
    }
    // In colour, without its own light: that is what a usable picture takes.
    let least = page.with(&SENSITIVE).find_map(|line| {
        let lux = figures(&line.plain, &LUX).into_iter().find(|lux| lux.value > 0.0)?;
        Some((lux.value, line))
    });
    if let Some((least, line)) = least.filter(|(least, _)| (0.000_001..=10_000.0).contains(least)) {
        said.push(Said::of_all("least_lux", json!(least), &line.text));
    }
}
