//! The survey's part of the site file: what is refused, what is left to ask, and a walk that ends.

use crate::support::*;
use bright_angle_core::Site;
use bright_angle_core::survey::{Step, read_csv_into, survey};
use bright_angle_core::work::Patience;
use serde_json::{Value, json};

const PICTURE: &str = "0123456789abcdef0123456789abcdef0123456789abcdef0123456789abcdef";

/// A small site that was walked to the end.
fn walked() -> Value {
    let mut file = site(vec![], vec![target("face", "identify", [0.0, 18.9], 1.6)], vec![]);
    file["brief"] = json!({"client": "Somebody", "kind": "shop", "must_see": "the till", "retention_days": 30, "recorder_place": "office",
        "colour": "white", "sound": false, "viewers": "the owner", "night_light": "street lamp", "access": "ladder",
        "private_places": "the flat above", "decides": "the owner"});
    file["drawing"] = json!({"picture": PICTURE, "width_px": 1200, "height_px": 800, "metres_per_px": 0.05, "centre": [0, 10],
        "turn_deg": 0, "fade": 0.2, "scale_from": [{"a": [0, 0], "b": [100, 0], "distance_m": 5}]});
    file["spots"] = json!([{"id": "s1", "name": "Corner", "position": [0, 0], "height_m": 3, "kind": "inside_corner", "surface": "brick",
        "back_box": true, "cable_m": 20, "outdoor": true, "in_reach": false, "photos": [{"picture": PICTURE, "taken_at": [53.5, 9.9]}]}]);
    file["readings"] = json!([{"id": "r1", "from": "t1", "to": "s1", "slope_m": 18.9, "inclination_deg": 0, "shots_m": [18.9, 18.91, 24.6]}]);
    file["targets"][0]["night_light"] = json!("none");
    file["targets"][0]["used_for"] = json!("returns");
    file
}

fn left(file: &Value) -> Vec<(Step, Option<&'static str>)> {
    survey(&parse(file)).before_you_leave.into_iter().map(|todo| (todo.step, todo.field)).collect()
}

#[test]
fn a_walk_that_is_done_leaves_nothing() {
    assert_eq!(left(&walked()), []);
    let found = survey(&parse(&walked()));
    assert_eq!(found.shots[0].as_ref().unwrap().left_out, [2]);
    assert_eq!(found.scale.unwrap().metres_per_px, 0.05);
}

#[test]
fn each_thing_that_is_missing_is_asked_for_in_the_order_of_the_walk() {
    for (pointer, step, field) in [
        ("/brief/client", Step::Brief, Some("client")),
        ("/brief/retention_days", Step::Brief, Some("retention_days")),
        ("/brief/sound", Step::Brief, Some("sound")),
        ("/drawing/metres_per_px", Step::Drawing, Some("metres_per_px")),
        ("/spots/0/surface", Step::Spots, Some("surface")),
        ("/spots/0/back_box", Step::Spots, Some("back_box")),
        ("/spots/0/cable_m", Step::Spots, Some("cable_m")),
        ("/targets/0/night_light", Step::Targets, Some("night_light")),
    ] {
        let mut file = walked();
        *file.pointer_mut(pointer).unwrap() = Value::Null;
        assert_eq!(left(&file), [(step, field)], "{pointer}");
    }
    let mut unmeasured = walked();
    unmeasured["readings"] = json!([]);
    assert_eq!(left(&unmeasured), [(Step::Readings, None)]);
    unmeasured["targets"][0]["fixed"] = json!(true);
    assert_eq!(left(&unmeasured), [], "a point that is known need not be measured");

    let mut plate = walked();
    plate["targets"][0]["subject"] = json!("plate");
    plate["targets"][0]["task"] = json!("read");
    assert_eq!(left(&plate), [(Step::Targets, Some("facing_deg"))]);

    let mut apart = walked();
    apart["readings"][0]["slope_m"] = json!(18.2);
    let asked = survey(&parse(&apart)).before_you_leave;
    assert!(asked[0].says.contains("accept the adjusted positions"), "{asked:?}");

    let empty = left(&site(vec![], vec![], vec![]));
    let steps: Vec<Step> = empty.iter().map(|(step, _)| *step).collect();
    assert_eq!(steps[..12], [Step::Brief; 12]);
    assert_eq!(steps[12..], [Step::Spots, Step::Targets]);
}

#[test]
fn the_odd_distance_of_a_drawing_is_asked_about() {
    let mut file = walked();
    let mark = |px: f64, metres: f64| json!({"a": [0, 0], "b": [px, 0], "distance_m": metres});
    file["drawing"]["scale_from"] = json!([mark(100.0, 5.0), mark(300.0, 15.01), mark(200.0, 12.0)]);
    assert_eq!(left(&file), [(Step::Drawing, Some("scale_from"))]);
}

#[test]
fn what_makes_no_sense_is_refused_with_its_place() {
    let refused = |pointer: &str, value: Value, path: &str, says: &str| {
        let mut file = walked();
        let (parent, key) = pointer.rsplit_once('/').unwrap();
        file.pointer_mut(parent).unwrap()[key] = value;
        let faults = Site::parse(&file.to_string()).err().unwrap_or_default();
        let told = faults.iter().any(|fault| fault.path == path && fault.message.contains(says));
        assert!(told, "expected {path}: …{says}…, got {faults:?}");
    };
    refused("/brief/retention_days", json!(0), "brief.retention_days", "1 to 3660");
    refused("/brief/worry", json!("x".repeat(2_001)), "brief.worry", "longer than 2000");
    refused("/brief/worry", json!("bell \u{7}"), "brief.worry", "control characters");
    refused("/brief/shoe_size", json!(43), "brief.shoe_size", "unknown field");
    refused("/drawing/picture", json!("../../etc/passwd"), "drawing.picture", "64 hexadecimal digits");
    refused("/drawing/metres_per_px", json!(0), "drawing.metres_per_px", "outside");
    refused("/drawing/width_px", json!(0), "drawing.width_px", "outside");
    refused("/drawing/fade", json!(2), "drawing.fade", "0 to 1");
    refused(
        "/drawing/scale_from",
        json!([{"a": [1, 1], "b": [1, 1], "distance_m": 3}]),
        "drawing.scale_from[0].b",
        "same point",
    );
    refused("/spots/0/height_m", json!(-1), "spots[0].height_m", "outside");
    refused("/spots/0/kind", json!("cloud"), "spots[0].kind", "unknown variant");
    refused("/spots/0/id", json!("t1"), "targets[0].id", "a spot's id too");
    refused("/spots/0/position_sigma_m", json!(0), "spots[0].position_sigma_m", "outside");
    refused(
        "/spots/0/photos",
        json!([{"picture": PICTURE, "taken_at": [91, 0]}]),
        "spots[0].photos[0].taken_at[0]",
        "90",
    );
    refused("/readings/0/inclination_deg", json!(90), "readings[0].inclination_deg", "-89 to 89");
    refused("/readings/0/shots_m", json!([18.9, -1]), "readings[0].shots_m[1]", "outside");
    refused(
        "/targets/0/distance",
        json!({"how": "laser", "plus_minus_m": -0.1}),
        "targets[0].distance.plus_minus_m",
        "outside",
    );
    refused(
        "/targets/0/distance",
        json!({"how": "laser", "from": [{"spot": "s9", "plus_minus_m": 0.1}]}),
        "targets[0].distance.from[0].spot",
        "no spot \"s9\"",
    );
    let mut file = walked();
    let mut camera = CameraAt::default().json();
    camera["spot"] = json!("s7");
    file["cameras"] = json!([camera]);
    assert_eq!(Site::parse(&file.to_string()).unwrap_err()[0].path, "cameras[0].spot");
}

#[test]
fn too_many_measured_points_are_refused_before_they_are_computed() {
    let mut file = walked();
    let spots: Vec<Value> =
        (0..402).map(|i| json!({"id": format!("s{i}"), "name": "S", "position": [i, 0], "height_m": 3})).collect();
    let readings: Vec<Value> = (1..402)
        .map(|i| json!({"id": format!("r{i}"), "from": format!("s{}", i - 1), "to": format!("s{i}"), "slope_m": 1}))
        .collect();
    file["spots"] = json!(spots);
    file["readings"] = json!(readings);
    let faults = Site::parse(&file.to_string()).unwrap_err();
    assert_eq!(faults[0].path, "readings");
    assert!(faults[0].message.contains("402 points"), "{}", faults[0]);
}

#[test]
fn readings_of_a_file_have_to_make_sense_on_the_site() {
    let site = parse(&walked());
    let read = read_csv_into(&site, "from,to,slope_m\nt1,s1,18.92\nt1,s8,4\ns1,t1,0.3\nt1,s1,7\n", &Patience::ENDLESS)
        .unwrap();
    let slopes: Vec<f64> = read.readings.iter().map(|reading| reading.slope_m).collect();
    assert_eq!(slopes, [18.92, 7.0]);
    let told: Vec<String> = read.faults.iter().map(ToString::to_string).collect();
    assert!(told[0].contains("no spot or target \"s8\"") && told[1].contains("not longer than"), "{told:?}");
}

#[test]
fn a_version_1_file_without_a_survey_reads_as_before() {
    let plain = site(vec![CameraAt::default().json()], vec![target("face", "identify", [0.0, 20.0], 1.6)], vec![]);
    let written = serde_json::to_value(parse(&plain).file()).unwrap();
    for field in ["brief", "drawing", "spots", "readings"] {
        assert!(written.get(field).is_none(), "{field} is not made up");
    }
    assert!(written["cameras"][0].get("spot").is_none());
    assert_eq!(written["version"], 1);
}
