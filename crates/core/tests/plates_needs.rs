//! What plates need, whatever their width; plates that move through a point, past a tour, and at several heights (handbook, sections 5
//! and 10). Facts of the trade are common practice, no source.

use crate::support;

use serde_json::{Value, json};
use support::{evaluated, site};

const FOOT: f64 = 0.3048;

/// The generic 2 MP plate camera of the catalogue, zoomed to a focal length, level before a plate so many feet away.
fn plate_camera(focal: f64) -> Value {
    json!({"id": "c1", "name": "C1", "position": [0, 0], "height_m": 0.75,
        "model": {"name": "Test", "form": "plate", "infrared_m": 50, "ip": "IP67", "ik": "IK10",
            "sensor": {"width_px": 1920, "height_px": 1080, "width_mm": 5.376, "height_mm": 3.024},
            "lens": {"focal_min_mm": 8.0, "focal_max_mm": 32.0, "f_number": 1.6}},
        "heads": [{"id": "h1", "pan_deg": 0, "tilt_deg": 0, "focal_mm": focal, "exposure": {"shutter_s": 0.001, "fps": 25}}]})
}

fn plate(feet: f64, task: &str) -> Value {
    json!({"id": "t1", "name": "Plate", "subject": "plate", "task": task, "facing_deg": 180, "height_m": 0.75,
        "shape": {"kind": "point", "points": [[0, feet * FOOT]]}, "distance": {"how": "laser"}})
}

fn rule(site: &Value, name: &str) -> Value {
    let found = evaluated(site);
    let rules = found["sight_lines"][0]["rules"].as_array().cloned().unwrap_or_default();
    rules.into_iter().find(|rule| rule["rule"] == name).unwrap_or(Value::Null)
}

#[test]
fn plate_cameras_read_where_the_trade_says_they_do() {
    // Common practice, no source: 22 mm at 70 ft, 32 mm at 100 ft, 8 mm at 50 ft by eye.
    for (focal, feet, task, range) in [
        (22.0, 70.0, "read", 366.0..369.0),
        (32.0, 100.0, "read", 373.0..376.0),
        (8.0, 50.0, "read_by_eye", 185.0..188.0),
    ] {
        let site = site(vec![plate_camera(focal)], vec![plate(feet, task)], vec![]);
        let found = rule(&site, "pixel_density");
        assert_eq!(found["verdict"], "kept", "{focal} mm at {feet} ft: {found}");
        assert!(range.contains(&found["value"].as_f64().unwrap()), "{found}");
        assert_eq!(evaluated(&site)["targets"][0]["verdict"], "kept", "{focal} mm at {feet} ft");
    }
    let by_machine = site(vec![plate_camera(8.0)], vec![plate(50.0, "read")], vec![]);
    assert_eq!(rule(&by_machine, "pixel_density")["verdict"], "broken");
}

#[test]
fn a_need_is_not_scaled_with_the_plates_width() {
    let mut american = site(vec![plate_camera(22.0)], vec![plate(70.0, "read")], vec![]);
    american["targets"][0]["size_m"] = json!([0.305, 0.152]);
    assert_eq!(evaluated(&american)["targets"][0]["needs_px_per_m"], 250.0);
    assert_eq!(evaluated(&american)["targets"][0]["verdict"], "kept");
    // A kind may override it.
    american["targets"][0]["plate"] =
        json!({"name": "Small", "character_m": 0.04, "stroke_m": 0.006, "reflecting": true, "needs_px_per_m": 480});
    let found = evaluated(&american)["targets"][0].clone();
    assert_eq!((found["needs_px_per_m"].as_f64(), found["verdict"].as_str()), (Some(480.0), Some("broken")), "{found}");
    // The pocket calculator and the first answer say the same.
    use bright_angle_core::file::{NeedSet, Task};
    for (task, need) in [(Task::Read, 250.0), (Task::ReadByEye, 175.0)] {
        assert_eq!(NeedSet::Edition2014.need(task).px_per_m, need);
        assert_eq!(NeedSet::Edition2025.need(task).px_per_m, need);
    }
}

#[test]
fn every_plate_has_its_card() {
    use bright_angle_core::{judge::Session, show::plates::start_settings::start_settings, words::units::Units};
    let head = bright_angle_core::file::HeadRef { camera: "c1".into(), head: "h1".into(), view: None };
    for (focal, feet, task) in [(22.0, 70.0, "read"), (32.0, 100.0, "read"), (8.0, 50.0, "read_by_eye")] {
        for facing in [json!(180), json!(null)] {
            let mut file = site(vec![plate_camera(focal)], vec![plate(feet, task)], vec![]);
            file["targets"][0]["facing_deg"] = facing;
            let cards = start_settings(&Session::on(support::parse(&file)), &head, None, Units::Metres).unwrap();
            assert!(cards.len() == 1 && cards[0].settings.len() > 5, "{focal} mm at {feet} ft");
        }
    }
}

#[test]
fn a_plate_that_goes_through_a_point_has_a_blur_and_pictures() {
    let mut file = site(vec![plate_camera(22.0)], vec![plate(70.0, "read")], vec![]);
    assert_eq!(rule(&file, "looks"), Value::Null, "it stands");
    let says = |file: &Value| evaluated(file)["targets"][0]["leaves_out"].as_str().unwrap().to_owned();
    assert!(says(&file).contains("standing still"));
    file["targets"][0]["speed_mps"] = json!(10);
    assert!(!says(&file).contains("standing still"), "{}", says(&file));
    // Ten metres around the point, at 10 m/s and 25 pictures a second.
    assert_eq!(rule(&file, "looks")["value"], 25.0);
    assert_eq!(rule(&file, "blur")["verdict"], "kept", "it drives along the axis");
    file["cameras"][0]["heads"][0]["exposure"]["fps"] = json!(1);
    assert_eq!(rule(&file, "looks")["value"], 1.0);
    assert_ne!(evaluated(&file)["targets"][0]["verdict"], "kept");
    // Thirty degrees off it is drawn out: 10 m/s · sin 30° · 1/100 s · 367 px/m and more.
    file["cameras"][0]["heads"][0]["exposure"] = json!({"shutter_s": 0.01, "fps": 25});
    file["targets"][0]["facing_deg"] = json!(150);
    file["rules"] = json!({"plate_school": "raised", "raised_side_deg": 40});
    let blur = rule(&file, "blur");
    assert!(blur["value"].as_f64().unwrap() > 18.0 && blur["verdict"] == "broken", "{blur}");
    // It must read at its point, not only somewhere near.
    file["obstacles"] = json!([{"id": "o1", "name": "Post", "kind": "other", "top_m": 3, "outline":
        [[-0.2, 20], [0.2, 20], [0.2, 20.2], [-0.2, 20.2]]}]);
    assert_eq!(evaluated(&file)["targets"][0]["verdict"], "broken");
}

/// A tour of two presets over a lane: it looks away for longer than a vehicle takes.
fn toured(dwell: f64, away: f64) -> Value {
    let mut camera = plate_camera(22.0);
    camera["model"]["form"] = json!("ptz");
    // Sharp all along.
    camera["model"]["lens"]["f_number"] = json!(16);
    camera["heads"][0]["presets"] = json!([
        {"id": "p1", "name": "Lane", "pan_deg": 0, "tilt_deg": 0, "focal_mm": 22, "dwell_s": dwell},
        {"id": "p2", "name": "Yard", "pan_deg": 90, "tilt_deg": 0, "focal_mm": 22, "dwell_s": away}]);
    let mut lane = plate(70.0, "read");
    lane["shape"] = json!({"kind": "line", "points": [[0, 25], [0, 12]]});
    lane["speed_mps"] = json!(4);
    lane["facing_deg"] = json!(null);
    lane["unseen_at_most_s"] = json!(600);
    let mut file = site(vec![camera], vec![lane], vec![]);
    file["rules"] = json!({"overview_pair": false});
    file
}

#[test]
fn a_tour_over_a_lane_is_judged_by_the_vehicles_that_it_misses() {
    let looks = |dwell: f64, away: f64| {
        let found = evaluated(&toured(dwell, away));
        let line = found["sight_lines"].as_array().unwrap().iter().find(|line| line["preset"] == "p1").unwrap().clone();
        let rules = line["rules"].as_array().unwrap().clone();
        let looks = rules.into_iter().find(|rule| rule["rule"] == "looks").unwrap();
        (line["zone"].clone(), looks)
    };
    // By hand: 90° at 80°/s take 1.125 s each way; gap = away + 2.25 s, cycle = gap + dwell.
    let (zone, often) = looks(20.0, 20.0);
    let time = zone["time_s"].as_f64().unwrap();
    let chance = (20.0 + time) / 42.25;
    assert!((zone["chance"].as_f64().unwrap() - chance).abs() < 1e-9, "{zone}");
    assert!(chance < 0.9 && often["verdict"] == "broken", "{chance} {often}");
    // It is told what it takes when it looks, and none at worst.
    assert!(often["value"].as_f64().unwrap() > 50.0 && often["worst"] == 0.0, "{often}");
    // A chance just under one is tight.
    let (zone, tight) = looks(60.0, 2.0);
    assert!((0.9..1.0).contains(&zone["chance"].as_f64().unwrap()) && tight["verdict"] == "tight", "{zone} {tight}");
    // Back before anybody is through: fps · (time − gap).
    let (zone, kept) = looks(60.0, 0.1);
    assert_eq!((zone["chance"].as_f64(), kept["verdict"].as_str()), (Some(1.0), Some("kept")), "{kept}");
    let serves = zone["serves"].as_array().unwrap();
    let long = serves[1].as_f64().unwrap() - serves[0].as_f64().unwrap();
    assert_eq!(kept["worst"].as_f64(), Some((25.0 * (long / 4.0 - 2.35)).floor()));
}

#[test]
fn a_lane_that_takes_lorries_is_judged_at_both_ends_of_its_plates_heights() {
    // Level, fifteen degrees are the limit: at 4 m a plate 1.9 m up is too steep for a camera 0.75 m up.
    let with = |to: Option<f64>, line: bool| {
        let mut file = site(vec![plate_camera(8.0)], vec![plate(13.2, "read")], vec![]);
        if line {
            file["targets"][0]["shape"] = json!({"kind": "line", "points": [[0, 4.1], [0, 3.9]]});
            file["targets"][0]["speed_mps"] = json!(1);
            file["targets"][0]["facing_deg"] = json!(null);
            file["rules"] = json!({"overview_pair": false});
        }
        if let Some(to) = to {
            file["targets"][0]["height_to_m"] = json!(to);
        }
        evaluated(&file)["sight_lines"][0]["verdict"].as_str().unwrap().to_owned()
    };
    for line in [false, true] {
        assert_ne!(with(None, line), "broken", "{line}");
        assert_eq!(with(Some(1.9), line), "broken", "{line}");
    }
}
