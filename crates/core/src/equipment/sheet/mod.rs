//! A data sheet read: figures found by their units and words, each with the line that it was read from.
//!
//! What the sheet does not say is absent, never guessed; what it says twice and differently is named. Whoever enters a model confirms
//! what was found and is asked for the rest.

mod agree;
mod build;
mod light;
mod numbers;
mod optics;
mod page;

use super::dotted::{at, put};
use page::Page;
use serde::Serialize;
use serde_json::{Map, Value};
use utoipa::ToSchema;

/// The longest text that is read, bytes: some hundred pages.
pub const LONGEST: usize = 1 << 20;
/// So many lenses a sheet may offer.
const MOST_LENSES: usize = 12;

/// What a data sheet says.
#[derive(Clone, Debug, Default, PartialEq, Serialize, ToSchema)]
pub struct Sheet {
    /// A model as in the site file for each lens that the sheet offers, as far as the sheet says.
    #[schema(value_type = Vec<Object>)]
    pub models: Vec<Value>,
    /// Where each figure was read.
    pub found: Vec<Found>,
    /// What a model needs and the sheet does not say, as in `sensor.width_mm`.
    pub missing: Vec<String>,
    /// What does not go together, in words.
    pub contradicts: Vec<String>,
    /// What is usual for something that the sheet does say, to be confirmed; it is in no model.
    pub suggests: Vec<Suggestion>,
}

/// A figure with its line.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Found {
    /// Which model, by its place.
    pub model: usize,
    /// The field, as in `lens.focal_min_mm`.
    pub field: String,
    /// What was read.
    #[schema(value_type = Object)]
    pub value: Value,
    /// The line it was read from.
    pub line: String,
}

/// A figure that the sheet does not say, but that goes with what it says.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Suggestion {
    /// The field.
    pub field: String,
    /// What is usual.
    pub value: f64,
    /// Why, in words.
    pub why: String,
}

/// What a model cannot do without.
const NEEDED: [&str; 8] = [
    "name",
    "form",
    "sensor.width_px",
    "sensor.height_px",
    "sensor.width_mm",
    "sensor.height_mm",
    "lens.focal_min_mm",
    "lens.focal_max_mm",
];
/// What is asked besides, because rules judge by it.
const ASKED: [&str; 7] =
    ["lens.hfov_at_min_deg", "lens.f_number", "infrared_m", "least_lux", "ip", "power_class", "weight_kg"];

/// A value that belongs to all models of a sheet, or to the one with its lens.
#[derive(Clone, Debug)]
pub(crate) struct Said {
    pub lens: Option<usize>,
    pub field: &'static str,
    pub value: Value,
    pub line: String,
}

impl Said {
    pub fn of_all(field: &'static str, value: Value, line: &str) -> Said {
        Said { lens: None, field, value, line: line.to_owned() }
    }
}

/// Reads a sheet's text.
///
/// ```
/// use bright_angle_core::equipment::sheet::read;
/// let sheet = read("Turret camera\nLens: 2.8 mm, F1.6\nHorizontal field of view: 103°\nProtection: IP67");
/// assert_eq!(sheet.models[0]["lens"]["hfov_at_min_deg"], 103.0);
/// assert!(sheet.missing.contains(&"sensor.width_px".to_owned()));
/// ```
pub fn read(text: &str) -> Sheet {
    let page = Page::of(text);
    let mut said = Vec::new();
    let mut contradicts = Vec::new();
    let lenses = optics::lenses(&page, &mut said);
    optics::fields(&page, &lenses, &mut said, &mut contradicts);
    optics::sensor(&page, &mut said, &mut contradicts);
    light::light(&page, &mut said, &mut contradicts);
    build::build(&page, &mut said, &mut contradicts);
    if said.is_empty() {
        return Sheet { missing: NEEDED.map(str::to_owned).to_vec(), ..Sheet::default() };
    }
    let count = lenses.len().clamp(1, MOST_LENSES);
    let mut sheet = Sheet { contradicts, ..Sheet::default() };
    for model in 0..count {
        let mut made = Map::new();
        for one in said.iter().filter(|one| one.lens.is_none_or(|lens| lens == model)) {
            put(&mut made, one.field, one.value.clone());
            let (field, value, line) = (one.field.to_owned(), one.value.clone(), one.line.clone());
            sheet.found.push(Found { model, field, value, line });
        }
        sheet.models.push(Value::Object(made));
    }
    sheet.suggests = optics::suggestions(&page, &sheet.models[0]);
    let lacks = |field: &&str| sheet.models.iter().any(|model| at(model, field).is_none());
    sheet.missing = NEEDED.iter().chain(&ASKED).filter(|field| lacks(field)).map(|field| (*field).to_owned()).collect();
    sheet.contradicts.extend(agree::disagreements(&sheet.models));
    sheet.contradicts.dedup();
    sheet
}
