//! The site file: what is refused, where, and why.

use crate::support;
use bright_angle_core::{Fault, Site};
use serde_json::{Value, json};
use support::*;

fn good() -> Value {
    let mut camera = CameraAt::default().json();
    camera["model"]["lens"] = json!({"focal_min_mm": 2.8, "focal_max_mm": 12.0});
    site(vec![camera], vec![target("face", "identify", [0.0, 20.0], 1.6)], vec![block([5.0, 9.0], [5.0, 9.0], 3.0)])
}

/// Puts a value at a JSON Pointer of the good file and answers the faults.
fn with(pointer: &str, value: Value) -> Vec<Fault> {
    let mut file = good();
    match file.pointer_mut(pointer) {
        Some(place) => *place = value,
        None => {
            let (parent, key) = pointer.rsplit_once('/').unwrap();
            file.pointer_mut(parent).unwrap()[key] = value;
        }
    }
    Site::parse(&file.to_string()).err().unwrap_or_default()
}

#[track_caller]
fn refused(pointer: &str, value: Value, path: &str, says: &str) {
    let faults = with(pointer, value);
    let told = faults.iter().any(|fault| fault.path == path && fault.message.contains(says));
    assert!(told, "expected {path}: …{says}…, got {faults:?}");
}

#[test]
fn the_good_file_is_good_and_comes_back_whole() {
    for text in [good().to_string().as_str(), DEMOS[0], DEMOS[1]] {
        let site = Site::parse(text).unwrap();
        let again = serde_json::to_string(site.file()).unwrap();
        assert_eq!(Site::parse(&again).unwrap().file(), site.file());
    }
}

#[test]
fn numbers_out_of_range_are_named() {
    refused(
        "/cameras/0/heads/0/focal_mm",
        json!(30),
        "cameras[0].heads[0].focal_mm",
        "30 is outside the lens's 2.8–12",
    );
    refused("/cameras/0/height_m", json!(1e308), "cameras[0].height_m", "outside");
    refused("/cameras/0/model/sensor/width_mm", json!(-5.4), "cameras[0].model.sensor.width_mm", "outside");
    refused("/cameras/0/model/sensor/height_mm", json!(5.376), "cameras[0].model.sensor.height_mm", "square");
    refused("/cameras/0/model/lens/focal_max_mm", json!(2), "cameras[0].model.lens.focal_max_mm", "under the shortest");
    refused("/cameras/0/heads/0/tilt_deg", json!(91), "cameras[0].heads[0].tilt_deg", "-90 to 90");
    refused("/targets/0/needs_px_per_m", json!(0), "targets[0].needs_px_per_m", "outside");
    refused("/targets/0/heads_wanted", json!(0), "targets[0].heads_wanted", "1 to 8");
    refused("/targets/0/shape/points/0/0", json!(1e308), "targets[0].shape.points[0][0]", "outside");
    refused("/obstacles/0/top_m", json!(0), "obstacles[0].top_m", "not above the base");
    refused("/obstacles/0/see_through", json!(1.5), "obstacles[0].see_through", "0 to 1");
    refused("/rules", json!({"face_tight_deg": 5}), "rules.face_tight_deg", "under face_kept_deg");
    refused("/rules", json!({"uncertainties": {"aim_deg": -1}}), "rules.uncertainties.aim_deg", "outside");
}

#[test]
fn outlines_enclose_something_and_do_not_cross() {
    refused("/obstacles/0/outline", json!([]), "obstacles[0].outline", "empty");
    refused("/obstacles/0/outline", json!([[0, 0], [1, 1]]), "obstacles[0].outline", "2 of the 3");
    refused("/obstacles/0/outline", json!([[0, 0], [4, 4], [4, 0], [0, 4]]), "obstacles[0].outline", "crosses");
    refused("/obstacles/0/outline", json!([[0, 0], [1, 1], [2, 2]]), "obstacles[0].outline", "encloses nothing");
    refused(
        "/obstacles/0/outline",
        json!([[0, 0], [4, 0], [4, 4], [0, 0]]),
        "obstacles[0].outline[3]",
        "repeats the first point",
    );
    refused(
        "/obstacles/0/outline",
        json!([[0, 0], [4, 0], [4, 0], [0, 4]]),
        "obstacles[0].outline[2]",
        "repeats the point before",
    );
    refused(
        "/targets/0/shape",
        json!({"kind": "area", "points": [[0, 0], [4, 4], [4, 0], [0, 4]]}),
        "targets[0].shape.points",
        "crosses",
    );
    refused("/targets/0/shape", json!({"kind": "line", "points": [[0, 0]]}), "targets[0].shape.points", "1 of the 2");
    refused(
        "/targets/0/shape",
        json!({"kind": "point", "points": [[0, 0], [1, 1]]}),
        "targets[0].shape.points",
        "one point",
    );
}

#[test]
fn ids_and_names_are_in_order() {
    let mut file = good();
    let twin = file["targets"][0].clone();
    file["targets"].as_array_mut().unwrap().push(twin);
    let faults = Site::parse(&file.to_string()).unwrap_err();
    assert_eq!(faults[0].to_string(), "targets[1].id: \"t1\" stands twice in targets");
    refused("/cameras/0/id", json!("no spaces please"), "cameras[0].id", "letters, digits");
    refused("/targets/0/name", json!("  "), "targets[0].name", "empty");
    refused("/cameras/0/heads", json!([]), "cameras[0].heads", "at least one head");
}

#[test]
fn dangling_ids_are_named_where_ids_are_given() {
    let site = parse(&good());
    assert_eq!(site.head("c9", "h1").unwrap_err().to_string(), "camera: the site has no camera \"c9\"");
    assert_eq!(site.head("c1", "h9").unwrap_err().to_string(), "head: camera \"c1\" has no head \"h9\"");
    assert_eq!(site.target_place("t9").unwrap_err().to_string(), "target: the site has no target \"t9\"");
}

#[test]
fn what_is_no_such_file_is_refused_as_such() {
    let first = |text: &str| Site::parse(text).unwrap_err()[0].to_string();
    refused("/version", json!(2), "version", "2 is newer than this program reads (1)");
    refused("/version", json!(0), "version", "no version 0");
    refused("/format", json!("something/else"), "format", "not a site file");
    refused("/colour", json!("red"), "colour", "unknown field");
    refused("/cameras/0/heads/0/zoom", json!(2), "cameras[0].heads[0].zoom", "unknown field");
    refused("/cameras/0/heads/0/pan_deg", json!("north"), "cameras[0].heads[0].pan_deg", "invalid type");
    refused("/targets/0/task", json!("stare"), "targets[0].task", "unknown variant");
    let text = good().to_string();
    assert!(first(&text[..text.len() / 2]).contains("EOF while parsing"));
    assert!(first("").contains("EOF"));
    assert!(first(&format!("{text} more")).contains("trailing characters"));
    let with_text = |from: &str, to: &str| first(&text.replacen(from, to, 1));
    assert!(with_text("\"pan_deg\":0.0", "\"pan_deg\":NaN").starts_with("cameras[0].heads[0].pan_deg: "));
    assert!(
        with_text("\"pan_deg\":0.0", "\"pan_deg\":1e999")
            .starts_with("cameras[0].heads[0].pan_deg: number out of range")
    );
    assert!(with_text("\"pan_deg\":0.0", "\"pan_deg\":0.0,\"pan_deg\":1.0").contains("duplicate field"));
}

#[test]
fn too_much_is_refused_before_it_is_computed() {
    let mut file = good();
    let many: Vec<Value> = (0..10_000)
        .map(|i| {
            let mut t = target("face", "identify", [0.0, 20.0], 1.6);
            t["id"] = json!(format!("t{i}"));
            t
        })
        .collect();
    file["targets"] = json!(many);
    assert_eq!(
        Site::parse(&file.to_string()).unwrap_err(),
        [Fault::new("targets", "10000 are more than the 2000 that a site may hold")]
    );
    refused(
        "/targets/0/shape",
        json!({"kind": "area", "points": [[0, 0], [9000, 0], [9000, 9000]]}),
        "targets[0].shape.points",
        "too large to be sampled",
    );
}

#[test]
fn no_target_yet_is_a_site_all_the_same() {
    let mut file = good();
    file["targets"] = json!([]);
    let found = evaluated(&file);
    assert_eq!((found["heads"].as_array().unwrap().len(), &found["targets"]), (1, &json!([])));
    file.as_object_mut().unwrap().remove("targets");
    assert!(Site::parse(&file.to_string()).unwrap_err()[0].message.contains("missing field `targets`"));
}

#[test]
fn what_a_file_may_leave_out_has_its_default() {
    let file = json!({"format": "bright-angle/site", "version": 1, "name": "Bare", "cameras": [], "targets": [
        {"id": "t1", "name": "T", "subject": "face", "task": "identify", "shape": {"kind": "point", "points": [[0, 0]]}, "height_m": 1.6}]});
    let site = parse(&file);
    let t = &site.file().targets[0];
    assert_eq!((t.heads_wanted, t.facing_deg, t.speed_mps), (1, None, 0.0));
}

#[test]
fn the_schema_names_every_field_and_is_current() {
    let schema = bright_angle_core::file::schema::site_schema();
    let kept: Value = serde_json::from_str(include_str!("../../../docs/site-schema.json")).unwrap();
    assert_eq!(schema, kept, "docs/site-schema.json is out of date: run tools/generate");
    assert_eq!(schema["$defs"]["Rules"]["additionalProperties"], json!(false));
    let text = schema.to_string();
    for name in ["heads_wanted", "hfov_at_min_deg", "see_through", "plate_school", "infrared_m"] {
        assert!(text.contains(&format!("\"{name}\"")), "{name}");
    }
    assert!(!text.contains("components/schemas"), "a reference leads nowhere");
}

#[test]
fn a_fault_says_its_kind_and_what_would_help() {
    use bright_angle_core::file::FaultCode;
    let fault = |change: &dyn Fn(&mut Value)| {
        let mut site = support::site(
            vec![support::CameraAt::default().json()],
            vec![support::target("face", "identify", [0.0, 8.0], 1.6)],
            vec![],
        );
        change(&mut site);
        Site::parse(&site.to_string()).unwrap_err().remove(0)
    };
    let high = fault(&|site| site["cameras"][0]["height_m"] = json!(3000.0));
    assert_eq!(
        (high.code, high.hint.as_deref()),
        (FaultCode::OutOfRange, Some("Is the decimal point where it should be?"))
    );
    let low = fault(&|site| site["cameras"][0]["height_m"] = json!(-1.0));
    assert_eq!((low.code, low.hint), (FaultCode::OutOfRange, None));
    let hung = fault(&|site| site["cameras"][0]["mounted_on"] = json!("o9"));
    assert_eq!(hung.code, FaultCode::UnknownId);
    let newer = fault(&|site| site["version"] = json!(9));
    assert_eq!(newer.code, FaultCode::Version);
    let torn = fault(&|site| site["cameras"] = json!("none"));
    assert_eq!(torn.code, FaultCode::Unreadable);
}
