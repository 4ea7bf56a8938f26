//! What is different between two states of a site, in words, thing by thing.

use crate::file::{SiteFile, with_lists};
use crate::words::units::Units;
use serde::{Deserialize, Serialize};
use serde_json::{Map, Value};
use utoipa::ToSchema;

/// What a difference is about.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Thing {
    /// The site itself: its name.
    Site,
    /// An answer of the brief.
    Brief,
    /// A limit or an uncertainty of the site.
    Limit,
    /// The overhead picture.
    Drawing,
    /// A spot.
    Spot,
    /// A target.
    Target,
    /// A camera.
    Camera,
    /// An obstacle.
    Obstacle,
    /// A lamp.
    Lamp,
    /// A private place.
    Private,
    /// Where on the earth it is.
    Place,
    /// A reading.
    Reading,
    /// Season and years.
    Conditions,
    /// What the design in hand is called.
    Design,
    /// Another design.
    Variant,
    /// A box of the network.
    Node,
    /// A cable.
    Cable,
    /// A way that cables can take.
    CablePath,
    /// Prices.
    Price,
    /// What was agreed to.
    Agreement,
    /// What was tried out.
    Proof,
    /// A picture that is kept.
    Snapshot,
    /// A visit.
    Visit,
}

/// One thing that is different.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Difference {
    /// What it is.
    pub thing: Thing,
    /// Its id, or the name of the field.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// What is different about it.
    pub says: String,
}

macro_rules! lists {
    (
        { $($list:ident: $thing:ty, $kind:ident, $about:literal;)* }
        { $($wired:ident: $one:ty, $wired_kind:ident, $wired_about:literal;)* }
    ) => {
        /// The lists of a site file, each of things with ids; those of the network as [`as_map`] lays them beside the others.
        pub(super) const LISTS: &[(&str, Thing)] =
            &[$((stringify!($list), Thing::$kind),)* $((stringify!($wired), Thing::$wired_kind)),*];
        /// Those of the network.
        const WIRED: &[&str] = &[$(stringify!($wired)),*];
    };
}
with_lists!(lists);
/// The parts of a site file whose fields are things of their own.
pub(super) const PARTS: [(&str, Thing); 4] =
    [("brief", Thing::Brief), ("rules", Thing::Limit), ("conditions", Thing::Conditions), ("prices", Thing::Price)];
/// The parts that are one thing each.
pub(super) const WHOLES: [(&str, Thing); 4] =
    [("name", Thing::Site), ("place", Thing::Place), ("drawing", Thing::Drawing), ("design", Thing::Design)];

/// All that is different in `after`, in the order of the work.
///
/// ```
/// use bright_angle_core::{change::compare::compare, file::SiteFile, words::units::Units};
/// let before = SiteFile::empty("A yard");
/// let after = SiteFile::empty("The yard");
/// assert_eq!(compare(&before, &after, Units::Metres)[0].says, "“A yard” → “The yard”");
/// ```
pub fn compare(before: &SiteFile, after: &SiteFile, units: Units) -> Vec<Difference> {
    let [before, after] = [before, after].map(as_map);
    let mut found = Vec::new();
    for (key, thing) in WHOLES {
        difference(&mut found, thing, key, [before.get(key), after.get(key)], units);
    }
    for (key, thing) in PARTS {
        let [b, a] = [&before, &after].map(|site| site.get(key).and_then(Value::as_object));
        for field in keys(b, a) {
            difference(&mut found, thing, field, [b.and_then(|b| b.get(field)), a.and_then(|a| a.get(field))], units);
        }
    }
    for &(key, thing) in LISTS {
        let [b, a] = [&before, &after].map(|site| items(site, key));
        let gone = b.iter().filter(|(id, _)| !a.iter().any(|(other, _)| other == id));
        for (id, held) in a.iter().chain(gone) {
            let both = [&b, &a].map(|list| list.iter().find(|(other, _)| other == id).map(|(_, item)| *item));
            if both[0] != both[1] {
                let says = match both {
                    [None, _] => "added".to_owned(),
                    [_, None] => "removed".to_owned(),
                    [Some(b), Some(a)] => changes(b, a, units),
                };
                let name = held.get("name").and_then(Value::as_str).unwrap_or(id).to_owned();
                found.push(Difference { thing, id: (*id).to_owned(), name, says });
            }
        }
    }
    found
}

/// A site file as the map that is written, with the lists of its network beside the others.
pub(super) fn as_map(site: &SiteFile) -> Map<String, Value> {
    let Ok(Value::Object(mut map)) = serde_json::to_value(site) else { return Map::new() };
    if let Some(Value::Object(network)) = map.remove("network") {
        map.extend(network);
    }
    map
}

/// The same map as it is written again: what [`as_map`] took out of the network goes back.
pub(super) fn as_written(map: &Map<String, Value>) -> Map<String, Value> {
    let (wired, mut written): (Map<String, Value>, Map<String, Value>) =
        map.clone().into_iter().partition(|(key, _)| WIRED.contains(&key.as_str()));
    if wired.values().any(|list| list.as_array().is_some_and(|list| !list.is_empty())) {
        written.insert("network".to_owned(), Value::Object(wired));
    }
    written
}

/// The things of a list with their ids.
pub(super) fn items<'a>(site: &'a Map<String, Value>, list: &str) -> Vec<(&'a str, &'a Value)> {
    let items = site.get(list).and_then(Value::as_array).into_iter().flatten();
    items.filter_map(|item| Some((item.get("id")?.as_str()?, item))).collect()
}

/// The keys of either of two maps.
pub(super) fn keys<'a>(a: Option<&'a Map<String, Value>>, b: Option<&'a Map<String, Value>>) -> Vec<&'a str> {
    let mut keys: Vec<&str> = a.into_iter().chain(b).flat_map(Map::keys).map(String::as_str).collect();
    keys.sort_unstable();
    keys.dedup();
    keys
}

/// One field against another; what is left out is nothing.
fn difference(
    found: &mut Vec<Difference>,
    thing: Thing,
    field: &str,
    [before, after]: [Option<&Value>; 2],
    units: Units,
) {
    let [b, a] = [before, after].map(|value| value.unwrap_or(&Value::Null));
    if b != a {
        let says = match (b, a) {
            (Value::Object(_), Value::Object(_)) => changes(b, a, units),
            _ => step(field, b, a, units),
        };
        found.push(Difference { thing, id: field.to_owned(), name: words(field), says });
    }
}

/// What changed inside a thing, field by field.
fn changes(before: &Value, after: &Value, units: Units) -> String {
    let mut said = Vec::new();
    gather(&mut said, "", before, after, units);
    said.join("; ")
}

fn gather(said: &mut Vec<String>, of: &str, before: &Value, after: &Value, units: Units) {
    for key in keys(before.as_object(), after.as_object()) {
        let [b, a] = [before, after].map(|value| value.get(key).unwrap_or(&Value::Null));
        // Shots make the slope, which is told.
        if b == a || key == "shots_m" || key == "shots_deg" {
            continue;
        }
        match (key, b, a) {
            ("position", Value::Array(b), Value::Array(a)) => {
                said.push(format!("{of}moved by {}", units.length(apart(b, a))))
            }
            ("outline" | "open_outline" | "shape" | "points" | "scale_from", ..) => {
                said.push(format!("{of}{} changed", words(key)))
            }
            ("model", b, a) if b.get("name") != a.get("name") => {
                let name = |model: &Value| model.get("name").cloned().unwrap_or_default();
                said.push(format!("{of}{}: {}", words(key), step(key, &name(b), &name(a), units)));
            }
            ("heads", Value::Array(b), Value::Array(a)) => heads(said, b, a, units),
            (_, Value::Array(b), Value::Array(a)) => {
                said.push(format!("{of}{}: {} → {}", words(key), b.len(), a.len()))
            }
            (_, Value::Object(_), Value::Object(_)) => gather(said, of, b, a, units),
            _ => said.push(format!("{of}{} {}", words(key), step(key, b, a, units))),
        }
    }
}

fn heads(said: &mut Vec<String>, before: &[Value], after: &[Value], units: Units) {
    let id = |head: &Value| head.get("id").and_then(Value::as_str).unwrap_or_default().to_owned();
    let several = before.len().max(after.len()) > 1;
    for head in after {
        match before.iter().find(|held| id(held) == id(head)) {
            Some(held) => {
                let of = if several { format!("view {}: ", id(head)) } else { String::new() };
                gather(said, &of, held, head, units);
            }
            None => said.push(format!("camera view {} added", id(head))),
        }
    }
    let gone = before.iter().filter(|held| !after.iter().any(|head| id(head) == id(held)));
    said.extend(gone.map(|head| format!("camera view {} removed", id(head))));
}

fn apart(a: &[Value], b: &[Value]) -> f64 {
    let axis = |point: &[Value], place: usize| point.get(place).and_then(Value::as_f64).unwrap_or(0.0);
    (axis(a, 0) - axis(b, 0)).hypot(axis(a, 1) - axis(b, 1))
}

/// From one value to another.
fn step(key: &str, before: &Value, after: &Value, units: Units) -> String {
    let long = |value: &Value| {
        value.as_str().is_some_and(|text| text.chars().count() > 40) || value.is_object() || value.is_array()
    };
    match (before, after) {
        (Value::Null, after) if long(after) => "added".to_owned(),
        (_, Value::Null) if long(before) => "removed".to_owned(),
        _ if long(before) || long(after) => "changed".to_owned(),
        _ => format!("{} → {}", told(key, before, units), told(key, after, units)),
    }
}

/// A value as it is said.
fn told(key: &str, value: &Value, units: Units) -> String {
    match value {
        Value::Null => "none".to_owned(),
        Value::Bool(yes) => if *yes { "yes" } else { "no" }.to_owned(),
        Value::String(text) => format!("“{text}”"),
        Value::Number(number) => {
            let number = number.as_f64().unwrap_or(0.0);
            match key {
                _ if key.ends_with("px_per_m") => format!("{number:.0} px/m"),
                _ if key.ends_with("_m") => units.length(number),
                _ if key.ends_with("_deg") => format!("{number:.1}°"),
                _ if key.ends_with("_mm") => format!("{number:.1} mm"),
                _ if key.ends_with("_s") => format!("{number:.1} s"),
                _ if key.ends_with("_mps") => format!("{number:.1} m/s"),
                _ if key.ends_with("_share") || key == "see_through" || key == "fade" => {
                    format!("{:.0} %", number * 100.0)
                }
                _ => number.to_string(),
            }
        }
        _ => "changed".to_owned(),
    }
}

/// A field's name without its unit.
fn words(key: &str) -> String {
    match key {
        "focal_mm" => "focal length".to_owned(),
        "needs_px_per_m" => "need".to_owned(),
        "size_m" => "size".to_owned(),
        "mount_min_m" => "least mounting height".to_owned(),
        "mount_max_m" => "greatest mounting height".to_owned(),
        _ => {
            let units = ["_px_per_m", "_m", "_deg", "_mm", "_mps", "_px", "_s"];
            let plain = units.iter().find_map(|unit| key.strip_suffix(unit)).unwrap_or(key);
            plain.replace('_', " ")
        }
    }
}
