//! What a sheet says of lens and sensor.

use super::numbers::{DEGREES, MILLIMETRES, figures, pattern};
use super::page::{Line, Page};
use super::{Said, Suggestion};
use crate::equipment::dotted::at;
use serde_json::{Value, json};

/// Words beside which millimetres are a focal length.
const FOCAL: [&str; 9] =
    ["focal", "lens", "brennweite", "objektiv", "focale", "objectif", "distancia focal", "lente", "obiettivo"];
/// Words beside which degrees are a field of view, across.
const ACROSS: [&str; 8] = ["horizontal", "hfov", "h:", "h.", "h ", "(h)", "horiz", "orizzontale"];
const UPRIGHT: [&str; 7] = ["vertical", "vfov", "v:", "vertikal", "verticale", "v ", "(v)"];
const DIAGONAL: [&str; 5] = ["diagonal", "dfov", "d:", "d ", "(d)"];
const FIELD: [&str; 10] = [
    "field of view",
    "angle of view",
    "viewing angle",
    "view angle",
    "fov",
    "hfov",
    "bildwinkel",
    "blickwinkel",
    "angle de champ",
    "horizontal",
];
/// Words of what is measured in millimetres and is no focal length.
const NO_FOCAL: [&str; 6] = ["dimension", "diameter", "ø", "abmessung", "size", "thread"];

pattern!(ZOOM = r"(\d+(?:\.\d+)?)\s*(?:mm)?\s*(?:-|to|bis|\.{2,3}|a)\s*(\d+(?:\.\d+)?)\s*mm");
pattern!(SLASHES = r"((?:\d+(?:\.\d+)?\s*(?:mm)?\s*/\s*)+\d+(?:\.\d+)?)\s*mm");
pattern!(APERTURE = r"\bf\s*[/ ]?\s*(\d(?:\.\d+)?)\b");
pattern!(PIXELS = r"(\d{3,5})\s*(?:\(h\))?\s*x\s*(\d{3,5})");
pattern!(MEGAPIXELS = r"(\d+(?:\.\d+)?)\s*(?:mp\b|megapixels?\b|mpx\b)");
pattern!(AREA = r"(\d+(?:\.\d+)?)\s*(?:mm)?\s*x\s*(\d+(?:\.\d+)?)\s*mm");
pattern!(TYPE = "1/(\\d+(?:\\.\\d+)?)\\s*(?:\"|''|-?\\s*inch|-?\\s*type|-?\\s*in\\b)");
pattern!(PITCH = r"(\d+(?:\.\d+)?)\s*(?:x\s*\d+(?:\.\d+)?\s*)?\x{3bc}m");

/// A lens that a sheet offers: its shortest and longest focal length, mm.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Offered {
    pub least: f64,
    pub most: f64,
}

/// The lenses that a sheet offers, in its order: one that zooms, or those to choose from.
pub fn lenses(page: &Page, said: &mut Vec<Said>) -> Vec<Offered> {
    let sensible = |focal: f64| (0.8..=600.0).contains(&focal);
    let mut offered: Vec<Offered> = Vec::new();
    let lines = page.with(&FOCAL).filter(|line| !line.has(&NO_FOCAL));
    for line in lines {
        let before = offered.len();
        // The sides of a chip are no focal lengths.
        let plain = AREA.replace_all(&line.plain, " ");
        if let Some(found) = ZOOM.captures(&plain) {
            let [least, most] = [1, 2].map(|group| found[group].parse().unwrap_or(0.0));
            if sensible(least) && sensible(most) && most > least && offered.is_empty() {
                offered.push(Offered { least, most });
            }
        } else {
            let fixed: Vec<f64> = match SLASHES.captures(&plain) {
                Some(found) => {
                    found[1].split('/').filter_map(|part| part.replace("mm", "").trim().parse().ok()).collect()
                }
                None => figures(&plain, &MILLIMETRES).iter().map(|figure| figure.value).collect(),
            };
            for focal in fixed.into_iter().filter(|focal| sensible(*focal)) {
                // A zoom is told first; what follows are its ends.
                let known = offered.iter().any(|lens| (lens.least..=lens.most).contains(&focal));
                if !known && offered.len() < super::MOST_LENSES {
                    offered.push(Offered { least: focal, most: focal });
                }
            }
        }
        for (place, lens) in offered.iter().enumerate().skip(before) {
            for (field, value) in [("lens.focal_min_mm", lens.least), ("lens.focal_max_mm", lens.most)] {
                said.push(Said { lens: Some(place), field, value: json!(value), line: line.text.clone() });
            }
        }
    }
    let aperture =
        page.lines.iter().find_map(|line| Some((APERTURE.captures(&line.plain)?[1].parse::<f64>().ok()?, line)));
    if let Some((aperture, line)) = aperture.filter(|(aperture, _)| (0.7..=32.0).contains(aperture)) {
        said.push(Said::of_all("lens.f_number", json!(aperture), &line.text));
    }
    offered
}

/// A field of view as a line says it: for which focal length, if it says, how wide.
struct Across {
    focal: Option<f64>,
    degrees: f64,
}

/// The published horizontal fields.
pub fn fields(page: &Page, lenses: &[Offered], said: &mut Vec<Said>, contradicts: &mut Vec<String>) {
    for line in page.with(&FIELD) {
        let found = across(line);
        let [first, ..] = found.as_slice() else { continue };
        let mut tell = |lens: Option<usize>, wide: bool, degrees: f64, contradicts: &mut Vec<String>| {
            let fields: &[&'static str] = match lens.and_then(|place| lenses.get(place)) {
                Some(held) if held.least == held.most => &["lens.hfov_at_min_deg", "lens.hfov_at_max_deg"],
                _ if wide => &["lens.hfov_at_min_deg"],
                _ => &["lens.hfov_at_max_deg"],
            };
            for field in fields {
                let held = said.iter().find(|one| one.field == *field && one.lens == lens);
                match held.map(|held| held.value.as_f64().unwrap_or(0.0)) {
                    Some(before) if (before - degrees).abs() > 0.5 => contradicts.push(format!(
                        "the field across is said twice: {before}° and {degrees}° (\u{201c}{}\u{201d})",
                        line.text
                    )),
                    Some(_) => {}
                    None => {
                        said.push(Said { lens, field, value: json!(degrees), line: line.text.clone() });
                    }
                }
            }
        };
        let zooms = lenses.len() == 1 && lenses[0].most > lenses[0].least;
        if found.iter().all(|one| one.focal.is_some()) {
            for one in &found {
                let focal = one.focal.unwrap_or_default();
                match lenses.iter().position(|lens| lens.least == focal || lens.most == focal) {
                    Some(place) => tell(Some(place), lenses[place].least == focal, one.degrees, contradicts),
                    None => contradicts.push(format!("a field is said for {focal} mm, which no lens of the sheet has")),
                }
            }
        } else if zooms {
            let degrees = || found.iter().map(|one| one.degrees);
            tell(Some(0), true, degrees().fold(f64::MIN, f64::max), contradicts);
            if found.len() > 1 {
                tell(Some(0), false, degrees().fold(f64::MAX, f64::min), contradicts);
            }
        } else if found.len() == lenses.len() {
            found.iter().enumerate().for_each(|(place, one)| tell(Some(place), true, one.degrees, contradicts));
        } else if lenses.is_empty() && found.len() == 1 {
            tell(None, true, first.degrees, contradicts);
        } else {
            contradicts.push(format!(
                "{} fields for {} lenses: which belongs to which is not clear (\u{201c}{}\u{201d})",
                found.len(),
                lenses.len(),
                line.text
            ));
        }
    }
}

/// The angles across of a line: those that follow a word for across, or a focal length in a line that is about it.
fn across(line: &Line) -> Vec<Across> {
    #[derive(Clone, Copy, PartialEq)]
    enum Axis {
        Across,
        Other,
        Unsaid,
    }
    let words = |words: &[&str], axis: Axis| -> Vec<(usize, Axis)> {
        let begins = |place: usize| !line.plain[..place].chars().next_back().is_some_and(char::is_alphanumeric);
        let places = words.iter().flat_map(|word| line.plain.match_indices(word).map(|(place, _)| place));
        places.filter(|place| begins(*place)).map(|place| (place, axis)).collect()
    };
    let mut axes = words(&ACROSS, Axis::Across);
    axes.extend(words(&UPRIGHT, Axis::Other));
    axes.extend(words(&DIAGONAL, Axis::Other));
    axes.sort_unstable_by_key(|(place, _)| *place);
    let focals = figures(&line.plain, &MILLIMETRES);
    let angles = figures(&line.plain, &DEGREES);
    // `103° (H), 55° (V)`: the word comes after its angle.
    let behind = axes.first().zip(angles.first()).is_some_and(|((word, _), angle)| angle.at < *word);
    let of = |angle: &super::numbers::Figure| {
        let word = if behind {
            axes.iter().find(|(place, _)| *place > angle.at)
        } else {
            axes.iter().rfind(|(place, _)| *place < angle.at)
        };
        let axis = word.map_or(Axis::Unsaid, |(_, axis)| *axis);
        let focal = focals.iter().rfind(|focal| focal.at < angle.at).map(|focal| focal.value);
        (axis == Axis::Across).then_some(Across { focal, degrees: angle.value })
    };
    angles.iter().filter(|angle| (1.0..=360.0).contains(&angle.value)).filter_map(of).collect()
}

/// How many pixels, on what area.
pub fn sensor(page: &Page, said: &mut Vec<Said>, contradicts: &mut Vec<String>) {
    let mut most: Option<(u32, u32, &Line)> = None;
    for line in &page.lines {
        for found in PIXELS.captures_iter(&line.plain) {
            let (Ok(across), Ok(down)) = (found[1].parse::<u32>(), found[2].parse::<u32>()) else { continue };
            let larger = most.is_none_or(|(w, h, _)| u64::from(across) * u64::from(down) > u64::from(w) * u64::from(h));
            if across >= 320 && down >= 240 && across <= 20_000 && down <= 20_000 && larger {
                most = Some((across, down, line));
            }
        }
    }
    if let Some((across, down, line)) = most {
        said.push(Said::of_all("sensor.width_px", json!(across), &line.text));
        said.push(Said::of_all("sensor.height_px", json!(down), &line.text));
        let millions =
            page.lines.iter().find_map(|line| Some((MEGAPIXELS.captures(&line.plain)?[1].parse::<f64>().ok()?, line)));
        let counted = f64::from(across) * f64::from(down) / 1e6;
        if let Some((stated, of)) =
            millions.filter(|(stated, _)| *stated > 0.0 && (counted / stated - 1.0).abs() > 0.25)
        {
            contradicts.push(format!(
                "{across} × {down} are {counted:.1} million pixels, the sheet says {stated} (\u{201c}{}\u{201d})",
                of.text
            ));
        }
    }
    let words = ["sensor", "imager", "image area", "active area", "chip"];
    let area = page.with(&words).find_map(|line| AREA.captures(&line.plain).map(|found| (found, line)));
    if let Some((found, line)) = area {
        for (group, field) in [(1, "sensor.width_mm"), (2, "sensor.height_mm")] {
            if let Ok(value) = found[group].parse::<f64>() {
                said.push(Said::of_all(field, json!(value), &line.text));
            }
        }
    } else if let Some((across, down, _)) = most
        && let Some((pitch, line)) =
            page.with(&["pixel"]).find_map(|line| Some((PITCH.captures(&line.plain)?[1].parse::<f64>().ok()?, line)))
    {
        let side = |pixels: u32| json!((f64::from(pixels) * pitch).round() / 1000.0);
        said.push(Said::of_all("sensor.width_mm", side(across), &line.text));
        said.push(Said::of_all("sensor.height_mm", side(down), &line.text));
    }
}

/// What is usual for a sensor of the type that the sheet names. The types are old tube sizes: the picture's diagonal is about 16 mm an inch
/// (from memory, of the trade's tables); small types come out a little larger, about 17.
pub fn suggestions(page: &Page, model: &Value) -> Vec<Suggestion> {
    const DIAGONAL_MM: f64 = 17.2;
    let pixels = |field: &str| at(model, field).and_then(Value::as_f64);
    let (Some(across), Some(down)) = (pixels("sensor.width_px"), pixels("sensor.height_px")) else { return vec![] };
    let Some((part, line)) =
        page.lines.iter().find_map(|line| Some((TYPE.captures(&line.plain)?[1].parse::<f64>().ok()?, line)))
    else {
        return vec![];
    };
    if at(model, "sensor.width_mm").is_some() || !(1.0..=6.0).contains(&part) {
        return vec![];
    }
    let diagonal = DIAGONAL_MM / part;
    let side = |pixels: f64| (diagonal * pixels / across.hypot(down) * 100.0).round() / 100.0;
    let why =
        format!("a sensor of this type is about so large; ask for the active area (\u{201c}{}\u{201d})", line.text);
    [("sensor.width_mm", side(across)), ("sensor.height_mm", side(down))]
        .map(|(field, value)| Suggestion { field: field.to_owned(), value, why: why.clone() })
        .to_vec()
}
