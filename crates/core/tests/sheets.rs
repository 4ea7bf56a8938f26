//! Data sheets, invented, in twelve layouts: every figure held against what stands in the sheet, by hand.

use bright_angle_core::equipment::sheet::{LONGEST, Sheet, read};
use bright_angle_core::file::Model;
use serde_json::{Value, json};

macro_rules! sheet {
    ($name:literal) => {
        read(include_str!(concat!("sheets/", $name, ".txt")))
    };
}

fn at(sheet: &Sheet, model: usize, field: &str) -> Value {
    field.split('.').fold(sheet.models[model].clone(), |held, name| held[name].clone())
}

/// All that a sheet says of its models, and nothing else.
fn says(sheet: &Sheet, model: usize, expected: Value) {
    for (field, value) in expected.as_object().unwrap() {
        assert_eq!(&at(sheet, model, field), value, "{field}: {:#}", sheet.models[model]);
    }
    let found = sheet.found.iter().filter(|found| found.model == model).count();
    assert_eq!(found, expected.as_object().unwrap().len(), "{:#?}", sheet.found);
}

#[test]
fn a_list() {
    let sheet = sheet!("01-list");
    let expected = json!({"name": "TC-4F", "form": "turret", "sensor.width_px": 2688, "sensor.height_px": 1520,
        "lens.focal_min_mm": 2.8, "lens.focal_max_mm": 2.8, "lens.f_number": 1.6, "lens.hfov_at_min_deg": 103.0,
        "lens.hfov_at_max_deg": 103.0, "least_lux": 0.01, "infrared_m": 30.0, "ip": "IP67", "power_class": 2, "watts": 5.5,
        "weight_kg": 0.36, "colours": ["white"], "fps_max": 25.0});
    says(&sheet, 0, expected);
    assert_eq!((sheet.models.len(), sheet.contradicts.len()), (1, 0), "{:?}", sheet.contradicts);
    // The sensor's width is not said: it is asked, and what is usual for its type offered, not taken.
    assert_eq!(sheet.missing, ["sensor.width_mm", "sensor.height_mm"]);
    let width = &sheet.suggests[0];
    assert!(width.field == "sensor.width_mm" && (width.value - 5.55).abs() < 0.2, "{width:?}");
    let line = sheet.found.iter().find(|found| found.field == "infrared_m").unwrap();
    assert_eq!(line.line, "IR range: up to 30 m (98 ft)");
}

#[test]
fn a_table() {
    let sheet = sheet!("02-table");
    let expected = json!({"form": "bullet", "sensor.width_px": 3840, "sensor.height_px": 2160, "sensor.width_mm": 6.2,
        "sensor.height_mm": 3.5, "lens.focal_min_mm": 2.8, "lens.focal_max_mm": 12.0, "lens.hfov_at_min_deg": 112.0,
        "lens.hfov_at_max_deg": 37.0, "lens.f_number": 1.8, "infrared_m": 60.0, "ip": "IP67", "ik": "IK10", "power_class": 4,
        "watts": 11.5, "weight_kg": 1.1, "sound": true});
    says(&sheet, 0, expected);
    assert_eq!(sheet.missing, ["name", "least_lux"]);
    // With a name it is a model as any other.
    let mut model = sheet.models[0].clone();
    model["name"] = json!("Our bullet");
    let model: Model = serde_json::from_value(model).unwrap();
    assert_eq!(model.lens.hfov_at_max_deg, Some(37.0));
}

#[test]
fn frames_shutter_alarms_and_card() {
    let sheet = sheet!("13-connections");
    for (field, value) in [
        ("fps_max", json!(20.0)),
        ("shutters_s", json!([1.0 / 20_000.0, 0.2])),
        ("alarm_inputs", json!(2)),
        ("alarm_outputs", json!(1)),
        ("card_gb", json!(512)),
    ] {
        assert_eq!(at(&sheet, 0, field), value, "{field}");
    }
    // A sound's connectors are no alarm's, and what only sounds like it is nothing.
    let none =
        read("Turret\nLens 2.8 mm\nAudio: 1 in / 1 out\nStorage: 2 TB on the recorder\nShutter: automatic, 2 modes\n");
    for field in ["alarm_inputs", "alarm_outputs", "card_gb", "shutters_s", "fps_max"] {
        assert!(!none.found.iter().any(|found| found.field == field), "{field}: {:#?}", none.found);
    }
}

#[test]
fn several_lenses_on_one_sheet() {
    for (sheet, [first, second, third]) in [
        (sheet!("03-several-lenses"), [99.0, 80.0, 51.0]),
        (sheet!("05-focal-by-focal"), [104.0, 78.0, 52.0]),
        (sheet!("12-spaced-columns"), [103.0, 78.0, 52.0]),
    ] {
        assert_eq!(sheet.models.len(), 3, "{sheet:#?}");
        for (model, (focal, across)) in [(2.8, first), (4.0, second), (6.0, third)].into_iter().enumerate() {
            for field in ["lens.focal_min_mm", "lens.focal_max_mm"] {
                assert_eq!(at(&sheet, model, field), json!(focal));
            }
            for field in ["lens.hfov_at_min_deg", "lens.hfov_at_max_deg"] {
                assert_eq!(at(&sheet, model, field), json!(across), "{focal} mm");
            }
        }
        assert_eq!(sheet.contradicts, Vec::<String>::new());
    }
    let pitch = sheet!("03-several-lenses");
    // By hand: 2592 and 1944 times 2 µm; 98 ft.
    assert_eq!((at(&pitch, 0, "sensor.width_mm"), at(&pitch, 1, "sensor.height_mm")), (json!(5.184), json!(3.888)));
    assert_eq!((at(&pitch, 2, "infrared_m"), at(&pitch, 0, "form")), (json!(29.87), json!("vandal_dome")));
    let columns = sheet!("12-spaced-columns");
    // Each figure stands beside its own row.
    let line = |field: &str| columns.found.iter().find(|found| found.field == field).unwrap().line.clone();
    assert_eq!((line("least_lux").as_str(), line("form").as_str()), ("Least light | 0.01 lux", "Form | Turret"));
    assert_eq!((at(&columns, 1, "price"), at(&columns, 1, "tilts_deg")), (json!(129.0), json!([0.0, 75.0])));
    assert_eq!((at(&columns, 0, "sensor.width_mm"), at(&columns, 0, "least_lux")), (json!(5.376), json!(0.01)));
}

#[test]
fn the_axis_stands_before_or_behind_its_angle() {
    for line in [
        "103° (H), 55° (V), 122° (D)",
        "H: 103°, V: 55°",
        "103° horizontal, 55° vertical",
        "vertical 55°, horizontal 103°",
    ] {
        let sheet = read(&format!("Lens 2.8 mm\nField of view: {line}"));
        assert_eq!(at(&sheet, 0, "lens.hfov_at_min_deg"), json!(103.0), "{line}");
    }
    // Which way it is measured nobody said: it is none that is taken.
    let unsaid = read("Lens 2.8 mm\nAngle of view: 122°");
    assert!(unsaid.missing.contains(&"lens.hfov_at_min_deg".to_owned()));
}

#[test]
fn prose() {
    let sheet = sheet!("04-prose");
    let expected = json!({"form": "turret", "sensor.width_px": 1920, "sensor.height_px": 1080, "lens.focal_min_mm": 4.0,
        "lens.focal_max_mm": 4.0, "lens.f_number": 1.6, "lens.hfov_at_min_deg": 87.0, "lens.hfov_at_max_deg": 87.0,
        "infrared_m": 30.0, "ip": "IP67", "watts": 4.5, "weight_kg": 0.4});
    says(&sheet, 0, expected);
}

#[test]
fn inches_feet_and_pounds() {
    let sheet = sheet!("06-imperial");
    // By hand: 164 ft = 49.99 m; 1.06 lb = 0.481 kg.
    let expected = json!({"form": "bullet", "lens.focal_min_mm": 8.0, "lens.focal_max_mm": 8.0, "lens.hfov_at_min_deg": 39.0,
        "lens.hfov_at_max_deg": 39.0, "sensor.width_px": 2688, "sensor.height_px": 1520, "infrared_m": 49.99, "weight_kg": 0.481,
        "watts": 6.2, "ip": "IP67"});
    says(&sheet, 0, expected);
}

#[test]
fn cells_that_came_out_under_each_other() {
    let sheet = sheet!("07-cells-under-each-other");
    let expected = json!({"form": "dome", "lens.focal_min_mm": 2.8, "lens.focal_max_mm": 2.8, "lens.hfov_at_min_deg": 103.0,
        "lens.hfov_at_max_deg": 103.0, "sensor.width_px": 2688, "sensor.height_px": 1520, "least_lux": 0.008, "ip": "IP66",
        "weight_kg": 0.4});
    says(&sheet, 0, expected);
}

#[test]
fn another_language() {
    let sheet = sheet!("08-deutsch");
    let expected = json!({"form": "turret", "lens.focal_min_mm": 2.8, "lens.focal_max_mm": 2.8, "lens.f_number": 1.6,
        "lens.hfov_at_min_deg": 103.0, "lens.hfov_at_max_deg": 103.0, "sensor.width_px": 2688, "sensor.height_px": 1520,
        "least_lux": 0.005, "infrared_m": 30.0, "ip": "IP67", "watts": 5.5, "weight_kg": 0.36});
    says(&sheet, 0, expected);
    // One that is not known at all says little, and nothing wrong.
    let greek = read(
        "\u{3a6}\u{3b1}\u{3ba}\u{3cc}\u{3c2}: 2,8 mm\n\u{391}\u{3bd}\u{3ac}\u{3bb}\u{3c5}\u{3c3}\u{3b7}: 2688 x 1520\nIP67",
    );
    assert_eq!((at(&greek, 0, "sensor.width_px"), at(&greek, 0, "ip")), (json!(2688), json!("IP67")));
    assert!(greek.missing.contains(&"lens.focal_min_mm".to_owned()));
}

#[test]
fn what_does_not_go_together_is_named() {
    let sheet = sheet!("09-contradicting");
    let told = sheet.contradicts.join("\n");
    for wanted in ["million pixels", "infrared range", "class 2", "12 mm on a sensor 5.4 mm wide shows 25 to 26°"] {
        assert!(told.contains(wanted), "{wanted}: {told}");
    }
    assert_eq!(sheet.contradicts.len(), 4, "{told}");
    assert!(sheet.missing.contains(&"infrared_m".to_owned()), "of two ranges none is taken");
}

#[test]
fn one_that_is_turned_and_zooms() {
    let sheet = sheet!("10-ptz");
    let expected = json!({"form": "ptz", "lens.focal_min_mm": 4.8, "lens.focal_max_mm": 120.0, "lens.hfov_at_min_deg": 59.8,
        "lens.hfov_at_max_deg": 2.9, "lens.f_number": 1.6, "tilts_deg": [-15.0, 90.0], "sensor.width_px": 1920,
        "sensor.height_px": 1080, "infrared_m": 150.0, "power_class": 6, "watts": 45.0, "ip": "IP66", "ik": "IK10", "weight_kg": 4.6});
    says(&sheet, 0, expected);
}

#[test]
fn a_sheet_with_nothing_in_it_says_so() {
    for text in ["", "\n \n", include_str!("sheets/11-nothing.txt")] {
        let sheet = read(text);
        assert!(sheet.models.is_empty() && sheet.found.is_empty() && sheet.missing.len() == 8, "{sheet:?}");
    }
}

#[test]
fn whatever_comes_is_read_to_its_end() {
    // A megabyte without a line's end, figures without end, signs of every script.
    let long = "lens 2.8 mm ".repeat(LONGEST / 12);
    assert_eq!(read(&long).models.len(), 1);
    let many: String =
        (1..5000).map(|n| format!("Lens {}.{} mm horizontal {}°\n", n % 90 + 1, n % 10, n % 170 + 1)).collect();
    assert!(read(&many).models.len() <= 12);
    let odd: String = (0..40_000_u32).filter_map(|n| char::from_u32(n * 7)).collect();
    let _ = read(&format!("Lens {odd} 2.8 mm {odd}°"));
}
