//! What a sheet says of the build: form, ratings, power, weight, tilt, sound, colours, price.

use super::Said;
use super::numbers::{DEGREES, FPS, WATTS, figures, pattern};
use super::page::{Line, Page};
use crate::equipment::power_class::PowerClass;
use serde_json::{Value, json};

/// Words for a form, the telling ones first: a sheet of a vandal dome says dome, too.
const FORMS: [(&str, &[&str]); 10] = [
    ("plate", &["plate camera", "license plate", "licence plate", "number plate", "anpr", "lpr", "kennzeichen"]),
    ("fisheye", &["fisheye", "fish-eye", "360°"]),
    ("multi_head", &["multi-head", "multi-sensor", "multisensor", "multi sensor"]),
    ("ptz", &["ptz", "pan-tilt-zoom", "pan tilt zoom", "speed dome"]),
    ("vandal_dome", &["vandal dome", "vandal-resistant dome", "vandal-proof dome", "vandal resistant dome"]),
    ("turret", &["turret", "eyeball"]),
    ("bullet", &["bullet", "tubus"]),
    ("dome", &["dome"]),
    ("box", &["box camera", "box-type", "c-mount", "cs-mount"]),
    ("bullet", &["cylindrical"]),
];
const COLOURS: [&str; 6] = ["white", "black", "grey", "gray", "silver", "brown"];

pattern!(INGRESS = r"\bip\s*-?(\d[\dx](?:k)?)\b");
pattern!(IMPACT = r"\bik\s*-?(\d\d)\b");
pattern!(CLASS = r"class\s*(\d)\b|klasse\s*(\d)\b|classe\s*(\d)\b");
pattern!(WEIGHT = r"(\d+(?:\.\d+)?)\s*(kg|g|lbs?|pounds?|oz)\b");
pattern!(CARD = r"(\d+)\s*(gb|tb)\b");
pattern!(INPUTS = r"(\d+)\s*(?:alarm\s*)?(?:in\b|inputs?\b)|inputs?\s*:?\s*(\d+)");
pattern!(OUTPUTS = r"(\d+)\s*(?:alarm\s*)?(?:out\b|outputs?\b)|outputs?\s*:?\s*(\d+)");
pattern!(SHUTTER = r"(?:(\d+)\s*/\s*(\d+(?:[ ,.]\d{3})*)|(\d+(?:\.\d+)?)\s*s\b)");
pattern!(MONEY = r"(\d+(?:\.\d+)?)");
pattern!(CALLED = r"(?i)^\s*(?:model(?: name| no\.?| number)?|product name|type)\s*[:\t]\s*(\S.*)$");

pub fn build(page: &Page, said: &mut Vec<Said>, contradicts: &mut Vec<String>) {
    let mut say = |field: &'static str, found: Option<(Value, &Line)>| {
        if let Some((value, line)) = found {
            said.push(Said::of_all(field, value, &line.text));
        }
    };
    let first = |of: &dyn Fn(&Line) -> Option<Value>| page.lines.iter().find_map(|line| Some((of(line)?, line)));
    say(
        "name",
        first(&|line| {
            let name = CALLED.captures(&line.text)?[1].trim().to_owned();
            (name.chars().count() <= 200).then(|| json!(name))
        }),
    );
    say("form", FORMS.iter().find_map(|(form, words)| Some((json!(form), page.with(words).next()?))));
    say("ip", first(&|line| Some(json!(format!("IP{}", INGRESS.captures(&line.plain)?[1].to_uppercase())))));
    say("ik", first(&|line| Some(json!(format!("IK{}", &IMPACT.captures(&line.plain)?[1])))));
    let class = first(&|line| {
        let network = line.has(&["poe", "802.3", "power over"]);
        let found = CLASS.captures(&line.plain).filter(|_| network)?;
        let class: u32 = found.iter().skip(1).flatten().next()?.as_str().parse().ok()?;
        (1..=8).contains(&class).then(|| json!(class))
    });
    say("power_class", class.clone());
    let power = ["power", "poe", "consumption", "leistung", "consommation", "consumo"];
    let most = page
        .with(&power)
        .flat_map(|line| figures(&line.plain, &WATTS).into_iter().map(move |watts| (watts.value, line)));
    let most = most.filter(|(watts, _)| *watts <= 200.0).max_by(|a, b| a.0.total_cmp(&b.0));
    say("watts", most.map(|(watts, line)| (json!(watts), line)));
    let weight =
        page.with(&["weight", "gewicht", "poids", "peso"]).find_map(|line| Some((kilograms(&line.plain)?, line)));
    say("weight_kg", weight.map(|(kilograms, line)| (json!(kilograms), line)));
    let tilt = page.with(&["tilt"]).find_map(|line| {
        let angles = figures(&line.plain[line.plain.find("tilt")?..], &DEGREES);
        let [least, most, ..] = angles.as_slice() else { return None };
        let minus = line.plain[..line.plain.find("tilt")? + least.at].ends_with('-');
        let least = if minus { -least.value } else { least.value };
        (most.value > least && most.value <= 90.0).then(|| (json!([least, most.value]), line))
    });
    say("tilts_deg", tilt);
    let sound = page.with(&["microphone", "audio", "mikrofon", "micro "]).map(|line| {
        let none = line.has(&["no ", "none", "not ", "without", "n/a", "-"]) && !line.has(&["built-in", "noise"]);
        (json!(!none), line)
    });
    say("sound", sound.into_iter().next());
    let colours = page.with(&["colour", "color", "housing", "finish"]).find_map(|line| {
        let found: Vec<&str> = COLOURS.into_iter().filter(|colour| line.has(&[colour])).collect();
        (!found.is_empty()).then(|| (json!(found), line))
    });
    say("colours", colours);
    // The first is that of the whole picture: faster ones are of a part of it.
    let frames = first(&|line| {
        let rate = figures(&line.plain, &FPS).first()?.value;
        (1.0..=240.0).contains(&rate).then(|| json!(rate))
    });
    say("fps_max", frames);
    let shutters = page.with(&["shutter", "exposure time", "verschluss"]).find_map(|line| {
        let range = shutters(&line.text)?;
        Some((json!(range), line))
    });
    say("shutters_s", shutters);
    let alarms = |pattern: &regex::Regex| {
        page.with(&["alarm"]).find_map(|line| {
            let found = pattern.captures(&line.plain)?;
            let count: u32 = found.iter().skip(1).flatten().next()?.as_str().parse().ok()?;
            (count <= 64).then(|| (json!(count), line))
        })
    };
    say("alarm_inputs", alarms(&INPUTS));
    say("alarm_outputs", alarms(&OUTPUTS));
    let card = page.with(&["sd card", "microsd", "micro sd", "memory card", "sd-karte", "sd slot"]).find_map(|line| {
        let found = CARD.captures(&line.plain)?;
        let size: u32 = found[1].parse().ok()?;
        let gb = if &found[2] == "tb" { size.checked_mul(1024)? } else { size };
        (gb <= 16_384).then(|| (json!(gb), line))
    });
    say("card_gb", card);
    let price = page
        .with(&["price", "msrp", "preis", "prix"])
        .find_map(|line| Some((json!(MONEY.captures(&line.plain)?[1].parse::<f64>().ok()?), line)));
    say("price", price);
    if let (Some((class, _)), Some((watts, line))) = (class, most) {
        let most =
            class.as_u64().and_then(|class| PowerClass::of(class as u32)).map_or(f64::INFINITY, |of| of.device_w);
        if watts > most {
            contradicts.push(format!(
                "{watts} W is more than a device of class {class} may draw, {most} W (\u{201c}{}\u{201d})",
                line.text
            ));
        }
    }
}

/// The shortest and the longest shutter of a line, s: two times, in seconds or as a part of one, whose thousands may be set apart.
fn shutters(text: &str) -> Option<[f64; 2]> {
    let times = SHUTTER.captures_iter(text).filter_map(|found| match (found.get(1), found.get(2), found.get(3)) {
        (Some(over), Some(under), _) => {
            let under: f64 = under.as_str().replace([' ', ',', '.'], "").parse().ok()?;
            Some(over.as_str().parse::<f64>().ok()? / under)
        }
        (.., Some(whole)) => whole.as_str().parse().ok(),
        _ => None,
    });
    let times: Vec<f64> = times.filter(|time| (0.000_001..=10.0).contains(time)).collect();
    let [one, other, ..] = times.as_slice() else { return None };
    Some([one.min(*other), one.max(*other)])
}

/// A weight in kilograms.
fn kilograms(plain: &str) -> Option<f64> {
    let found = WEIGHT.captures(plain)?;
    let value: f64 = found[1].parse().ok()?;
    let unit = match &found[2] {
        "kg" => 1.0,
        "g" => 0.001,
        "oz" => 0.028_349_523_125,
        // The international pound of 1959.
        _ => 0.453_592_37,
    };
    Some((value * unit * 1000.0).round() / 1000.0)
}
