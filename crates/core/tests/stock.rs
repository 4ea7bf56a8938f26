//! The firm's own catalogue: read, written as a table and back, refused where it makes no sense; and what its lenses do.

use bright_angle_core::equipment::catalogue;
use bright_angle_core::equipment::lens_facts::lens_facts;
use bright_angle_core::equipment::stock::{MOST_MODELS, MOST_MOUNTS, Stock};
use bright_angle_core::equipment::stock_csv::{read_csv, write_csv};
use serde_json::{Value, json};

#[test]
fn a_table_holds_all_that_a_model_says() {
    let mut models = catalogue::models().unwrap();
    let mut full: Value = serde_json::to_value(&models[0]).unwrap();
    full["name"] = json!("Ours, \"the best\"");
    full["infrared"] = json!({"range_m": 30.0, "beam_deg": 80.0});
    full.as_object_mut().unwrap().remove("infrared_m");
    full["watts"] = json!(5.5);
    full["sound"] = json!(true);
    full["colours"] = json!(["white", "black"]);
    full["back_box"] = json!("Box 100");
    full["tilts_deg"] = json!([-5.0, 80.0]);
    full["price"] = json!(129.0);
    models.push(serde_json::from_value(full).unwrap());
    let table = write_csv(&models).unwrap();
    assert_eq!(read_csv(&table).unwrap(), models);
    // As a spreadsheet of a country with decimal commas writes it, columns in another order.
    let comma = "\u{feff}name;form;focal_min_mm;focal_max_mm;width_px;height_px;width_mm;height_mm;price\r\nOurs;turret;2,8;2,8;2688;1520;5,376;3,04;99,5\r\n";
    let found = read_csv(comma).unwrap();
    assert_eq!((found[0].lens.focal_min_mm, found[0].price), (2.8, Some(99.5)));
}

#[test]
fn what_makes_no_sense_is_named_with_its_row() {
    let head = "name,form,width_px,height_px,width_mm,height_mm,focal_min_mm,focal_max_mm";
    let fault = |rows: &str| read_csv(&format!("{head}\n{rows}")).unwrap_err()[0].to_string();
    assert!(fault("A,turret,2688,1520,5.4,3.0,wide,2.8").starts_with("row 2"));
    assert!(fault("A,balloon,2688,1520,5.4,3.0,2.8,2.8").contains("balloon"));
    assert!(fault("A,turret,2688,1520,5.4,3.0,28,2.8").contains("models[0].lens"));
    assert!(fault("A,turret,2688,1520,5.4,3.0,2.8,2.8\nA,turret,2688,1520,5.4,3.0,4,4").contains("twice"));
    assert!(read_csv("name,zoom\nA,3").unwrap_err()[0].message.contains("no column \"zoom\""));
    let stock = |value: Value| Stock::parse(&value.to_string()).unwrap_err()[0].path.clone();
    let good = serde_json::to_value(&catalogue::models().unwrap()[0]).unwrap();
    let whole = |models: Value| json!({"format": "bright-angle/catalogue", "version": 1, "models": models});
    assert!(Stock::parse(&whole(json!([good])).to_string()).is_ok());
    assert_eq!(stock(json!({"format": "other", "version": 1, "models": []})), "format");
    assert_eq!(stock(json!({"format": "bright-angle/catalogue", "version": 2, "models": []})), "version");
    let mut low = good.clone();
    low["sensor"]["width_mm"] = json!(-1);
    assert!(stock(whole(json!([low]))).starts_with("models[0].sensor.width_mm"));
    let many: Vec<Value> = (0..=MOST_MODELS)
        .map(|n| {
            let mut model = good.clone();
            model["name"] = json!(format!("M{n}"));
            model
        })
        .collect();
    assert_eq!(stock(whole(json!(many))), "models");
}

#[test]
fn parts_of_mounts_stand_beside_the_models_and_make_sense_or_are_named() {
    let arm = json!({"id": "own-1", "name": "Our arm, 300 mm", "kind": "arm", "weight_kg": 1.1, "carries_kg": 15.0,
        "reach_m": 0.3, "forms": ["dome"], "price": 42.0});
    let whole =
        |mounts: Value| json!({"format": "bright-angle/catalogue", "version": 1, "models": [], "mounts": mounts});
    let stock = Stock::parse(&whole(json!([arm])).to_string()).unwrap();
    assert_eq!(stock.mounts[0].reach_m, 0.3);
    assert_eq!(serde_json::to_value(&stock).unwrap(), whole(json!([arm])));
    // A catalogue without any is as it was before there were parts.
    assert!(!serde_json::to_string(&Stock::default()).unwrap().contains("mounts"));
    let refused = |field: &str, value: Value| {
        let mut other = arm.clone();
        other["id"] = json!("own-2");
        other["name"] = json!("Another");
        other[field] = value;
        Stock::parse(&whole(json!([arm, other])).to_string()).unwrap_err()[0].path.clone()
    };
    assert_eq!(refused("name", json!("Our arm, 300 mm")), "mounts[1].name");
    assert_eq!(refused("id", json!("own-1")), "mounts[1].id");
    assert_eq!(refused("id", json!("")), "mounts[1].id");
    assert_eq!(refused("weight_kg", json!(-1)), "mounts[1].weight_kg");
    assert_eq!(refused("reach_m", json!(21)), "mounts[1].reach_m");
    assert_eq!(refused("price", json!(-0.5)), "mounts[1].price");
    let many: Vec<Value> = (0..=MOST_MOUNTS)
        .map(|n| {
            let mut part = arm.clone();
            part["id"] = json!(format!("own-{n}"));
            part["name"] = json!(format!("Arm {n}"));
            part
        })
        .collect();
    assert_eq!(Stock::parse(&whole(json!(many)).to_string()).unwrap_err()[0].path, "mounts");
}

#[test]
fn a_lens_s_field_is_the_published_one_and_its_density_that_of_the_formula() {
    for model in catalogue::models().unwrap() {
        let facts = lens_facts(&model).unwrap();
        let published = model.lens.hfov_at_min_deg.unwrap();
        assert!((facts.ends[0].hfov_deg - published).abs() < 1e-6, "{}", model.name);
        assert_eq!(facts.ends.len(), if model.lens.is_zoom() { 2 } else { 1 });
        for end in &facts.ends {
            let at_ten = end.px_per_m.iter().find(|(far, _)| *far == 10.0).unwrap().1;
            assert!(end.px_per_m.iter().all(|(far, density)| (density * far / at_ten - 10.0).abs() < 1e-9));
        }
    }
    // By hand for a lens without a published field (handbook, section 4): W·f/(w·s) = 2688 · 6 / (5.376 · 10) = 300 px/m.
    let plain = json!({"name": "Plain", "form": "box", "sensor": {"width_px": 2688, "height_px": 1520, "width_mm": 5.376,
        "height_mm": 3.04}, "lens": {"focal_min_mm": 6, "focal_max_mm": 6}});
    let facts = lens_facts(&serde_json::from_value(plain).unwrap()).unwrap();
    assert!((facts.ends[0].px_per_m[3].1 - 300.0).abs() < 1e-9 && !facts.published_field && facts.bend == 1.0);
}

#[test]
fn the_schema_is_current_and_says_no_more_than_is_read() {
    let schema = bright_angle_core::equipment::stock::catalogue_schema();
    let kept: Value = serde_json::from_str(include_str!("../../../docs/catalogue-schema.json")).unwrap();
    assert_eq!(schema, kept, "docs/catalogue-schema.json is out of date: run tools/generate");
    let properties = schema["$defs"]["Model"]["properties"].as_object().unwrap();
    for model in catalogue::models().unwrap() {
        let written = serde_json::to_value(model).unwrap();
        for name in written.as_object().unwrap().keys() {
            assert!(properties.contains_key(name), "{name} is in no schema");
        }
    }
}
