//! A catalogue as a table: one row a model, one column a figure, units in their names.

use super::dotted::{at, put};
use super::stock::Stock;
use crate::file::{Fault, Model};
use serde_json::{Map, Value, json};

/// The columns, each with the model's field that it holds.
const COLUMNS: [(&str, &str); 33] = [
    ("name", "name"),
    ("form", "form"),
    ("width_px", "sensor.width_px"),
    ("height_px", "sensor.height_px"),
    ("width_mm", "sensor.width_mm"),
    ("height_mm", "sensor.height_mm"),
    ("image_circle_px", "sensor.image_circle_px"),
    ("focal_min_mm", "lens.focal_min_mm"),
    ("focal_max_mm", "lens.focal_max_mm"),
    ("hfov_at_min_deg", "lens.hfov_at_min_deg"),
    ("hfov_at_max_deg", "lens.hfov_at_max_deg"),
    ("f_number", "lens.f_number"),
    ("head_count", "head_count"),
    ("apart_deg", "apart_deg"),
    ("infrared_m", "infrared_m"),
    ("infrared_beam_deg", "infrared.beam_deg"),
    ("least_lux", "least_lux"),
    ("ip", "ip"),
    ("ik", "ik"),
    ("power_class", "power_class"),
    ("watts", "watts"),
    ("weight_kg", "weight_kg"),
    ("tilts_deg", "tilts_deg"),
    ("sound", "sound"),
    ("colours", "colours"),
    ("back_box", "back_box"),
    ("price", "price"),
    ("fps_max", "fps_max"),
    ("shutters_s", "shutters_s"),
    ("alarm_inputs", "alarm_inputs"),
    ("alarm_outputs", "alarm_outputs"),
    ("card_gb", "card_gb"),
    ("note", "note"),
];
/// Columns that hold words, whatever they look like.
const WORDS: [&str; 6] = ["name", "form", "ip", "ik", "back_box", "note"];
/// What stands between several values of one field.
const APART: &str = " / ";

/// A catalogue's models as CSV (RFC 4180).
///
/// # Errors
/// What the library that writes it says.
pub fn write_csv(models: &[Model]) -> Result<String, Fault> {
    let told = |error: &dyn std::fmt::Display| Fault::new("csv", error.to_string());
    let mut table = csv::Writer::from_writer(vec![]);
    table.write_record(COLUMNS.map(|(column, _)| column)).map_err(|error| told(&error))?;
    for model in models {
        let value = serde_json::to_value(model).map_err(|error| told(&error))?;
        let cells = COLUMNS.map(|(_, field)| {
            let found = at(&value, field);
            // The range stands under its one column, whichever way the model holds it.
            match (field, found) {
                ("infrared_m", None) => cell(value.get("infrared").and_then(|light| light.get("range_m"))),
                (_, found) => cell(found),
            }
        });
        table.write_record(cells).map_err(|error| told(&error))?;
    }
    let bytes = table.into_inner().map_err(|error| told(&error))?;
    String::from_utf8(bytes).map_err(|error| told(&error))
}

fn cell(value: Option<&Value>) -> String {
    match value {
        None | Some(Value::Null) => String::new(),
        Some(Value::String(text)) => text.clone(),
        Some(Value::Array(items)) => items.iter().map(|item| cell(Some(item))).collect::<Vec<_>>().join(APART),
        Some(other) => other.to_string(),
    }
}

/// The models of a table: its columns by their names, in any order; what is empty is not stated.
///
/// # Errors
/// Each row and column that makes no sense.
pub fn read_csv(text: &str) -> Result<Vec<Model>, Vec<Fault>> {
    let text = text.trim_start_matches('\u{feff}');
    let semicolons = text.lines().next().is_some_and(|head| head.matches(';').count() > head.matches(',').count());
    let mut table =
        csv::ReaderBuilder::new().delimiter(if semicolons { b';' } else { b',' }).from_reader(text.as_bytes());
    let head = table.headers().map_err(|error| vec![Fault::new("row 1", error.to_string())])?.clone();
    let fields: Vec<Option<&str>> = head
        .iter()
        .map(|name| {
            COLUMNS.iter().find(|(column, _)| column.eq_ignore_ascii_case(name.trim())).map(|(_, field)| *field)
        })
        .collect();
    if let Some(stray) = head.iter().zip(&fields).find_map(|(name, field)| field.is_none().then_some(name)) {
        let known: Vec<&str> = COLUMNS.iter().map(|(column, _)| *column).collect();
        return Err(vec![Fault::new(
            "row 1",
            format!("there is no column \"{stray}\"; there are {}", known.join(", ")),
        )]);
    }
    let (mut models, mut faults) = (Vec::new(), Vec::new());
    for (place, row) in table.records().enumerate() {
        let at = format!("row {}", place + 2);
        let made = row.map_err(|error| error.to_string()).and_then(|row| {
            let mut model = Map::new();
            for (field, text) in fields.iter().flatten().zip(row.iter()).filter(|(_, text)| !text.trim().is_empty()) {
                put_cell(&mut model, field, text.trim(), semicolons);
            }
            if let Some(range) = model.get("infrared").is_some().then(|| model.remove("infrared_m")).flatten() {
                model["infrared"]["range_m"] = range;
            }
            serde_json::from_value(Value::Object(model)).map_err(|error| error.to_string())
        });
        match made {
            Ok(model) => models.push(model),
            Err(why) => faults.push(Fault::new(at, why)),
        }
    }
    if !faults.is_empty() {
        return Err(faults);
    }
    // As any other catalogue.
    Ok(Stock { models, ..Stock::default() }.checked()?.models)
}

/// Reads a cell into a field.
fn put_cell(model: &mut Map<String, Value>, field: &str, text: &str, semicolons: bool) {
    let number = |text: &str| {
        // Where semicolons part the columns, a comma is a decimal point.
        let text = if semicolons { text.replace(',', ".") } else { text.to_owned() };
        match (text.parse::<u32>(), text.parse::<f64>()) {
            (Ok(whole), _) => json!(whole),
            (_, Ok(value)) if value.is_finite() => json!(value),
            _ => json!(text),
        }
    };
    let several = || text.split('/').map(str::trim).filter(|part| !part.is_empty());
    let value = match field {
        "colours" => several().map(|part| json!(part)).collect(),
        "tilts_deg" | "shutters_s" => several().map(number).collect(),
        "sound" => match text.to_ascii_lowercase().as_str() {
            "true" | "yes" | "1" => json!(true),
            "false" | "no" | "0" => json!(false),
            _ => json!(text),
        },
        _ if WORDS.contains(&field) => json!(text),
        _ => number(text),
    };
    put(model, field, value);
}
