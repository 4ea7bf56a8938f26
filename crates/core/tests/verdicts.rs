//! Verdicts over the stated uncertainties, rule by rule.

use crate::support::*;
use serde_json::{Value, json};

fn only_line(site: &Value) -> Value {
    evaluated(site)["sight_lines"][0].take()
}

fn rule<'a>(line: &'a Value, name: &str) -> &'a Value {
    line["rules"].as_array().unwrap().iter().find(|rule| rule["rule"] == name).unwrap_or_else(|| panic!("no {name}"))
}

#[test]
fn density_is_kept_tight_or_broken_by_its_worst_case() {
    // 107.14 px/m on the axis at 20 m; ±3 % of focal length and ±0.05 m of distance leave 103.7.
    for (need, verdict) in [(103.0, "kept"), (105.0, "tight"), (108.0, "broken")] {
        let mut t = target("scene", "observe", [0.0, 20.0], 3.0);
        t["needs_px_per_m"] = json!(need);
        let line = only_line(&site(vec![CameraAt { tilt: 0.0, ..Default::default() }.json()], vec![t], vec![]));
        let found = rule(&line, "pixel_density");
        assert_eq!(found["verdict"], verdict, "{found}");
        assert_eq!(found["basis"], "own value for this target");
        let worst = found["worst"].as_f64().unwrap();
        assert!((worst - 107.142857 * 0.97 * 20.0 / 20.05).abs() < 0.05, "{worst}");
    }
}

#[test]
fn how_the_distance_was_got_matters() {
    let worst = |how: &str| {
        let mut t = target("scene", "observe", [0.0, 20.0], 3.0);
        t["distance"] = json!({"how": how});
        let line = only_line(&site(vec![CameraAt { tilt: 0.0, ..Default::default() }.json()], vec![t], vec![]));
        rule(&line, "pixel_density")["worst"].as_f64().unwrap()
    };
    let expected = |distance: f64| 107.142857 * 0.97 * 20.0 / distance;
    for (how, distance) in [("laser", 20.05), ("plan", 20.65), ("guess", 22.0)] {
        assert!((worst(how) - expected(distance)).abs() < 0.05, "{how}");
    }
}

#[test]
fn a_zoom_set_on_site_is_surer_than_a_fixed_lens() {
    let mut camera = CameraAt { tilt: 0.0, ..Default::default() }.json();
    camera["model"]["lens"]["focal_max_mm"] = json!(12.0);
    let line = only_line(&site(vec![camera], vec![target("scene", "observe", [0.0, 20.0], 3.0)], vec![]));
    let worst = rule(&line, "pixel_density")["worst"].as_f64().unwrap();
    assert!((worst - 107.142857 * 0.99 * 20.0 / 20.05).abs() < 0.05);
}

#[test]
fn near_the_edge_of_the_picture_is_tight() {
    // The right edge is 24.13° off the axis.
    for (pan, verdict) in [(-20.0, "kept"), (-23.5, "tight"), (-25.0, "broken")] {
        let camera = CameraAt { tilt: 0.0, pan, ..Default::default() };
        let line = only_line(&site(vec![camera.json()], vec![target("scene", "detect", [0.0, 20.0], 3.0)], vec![]));
        assert_eq!(rule(&line, "in_view")["verdict"], verdict, "pan {pan}");
        assert_eq!(line["in_view"], verdict != "broken");
    }
}

#[test]
fn a_face_from_above() {
    // atan((h − 1.6)/10): 2.5 m gives 5.1°, 4.25 m 14.8° (15.0° over at worst), 6 m 23.7°, 8 m 32.6°.
    for (height, verdict) in [(2.5, "kept"), (4.25, "tight"), (6.0, "tight"), (8.0, "broken")] {
        let tilt = ((height - 1.6) / 10.0_f64).atan().to_degrees();
        let camera = CameraAt { height, tilt, ..Default::default() };
        let line = only_line(&site(vec![camera.json()], vec![target("face", "recognise", [0.0, 10.0], 1.6)], vec![]));
        let found = rule(&line, "face_from_above");
        assert_eq!(found["verdict"], verdict, "{height}: {found}");
        assert!((found["value"].as_f64().unwrap() - tilt).abs() < 1e-9);
        assert!(found["basis"].as_str().unwrap().contains("from memory"));
    }
    // Whether somebody is there does not need a face.
    let line =
        only_line(&site(vec![CameraAt::default().json()], vec![target("face", "detect", [0.0, 10.0], 1.6)], vec![]));
    assert!(!line["rules"].as_array().unwrap().iter().any(|rule| rule["rule"] == "face_from_above"));
}

#[test]
fn a_plates_angles_depend_on_the_school() {
    let verdicts = |school: &str, facing: Value| {
        let mut t = target("plate", "read", [0.0, 10.0], 0.7);
        t["facing_deg"] = facing;
        let mut s = site(vec![CameraAt { height: 4.0, tilt: 18.0, ..Default::default() }.json()], vec![t], vec![]);
        s["rules"] = json!({"plate_school": school});
        let line = only_line(&s);
        ["plate_side", "plate_vertical"].map(|name| rule(&line, name)["verdict"].as_str().unwrap().to_owned())
    };
    // 18.3° from above; the camera is due south of the plate.
    assert_eq!(verdicts("level", json!(180)), ["kept", "broken"]);
    assert_eq!(verdicts("raised", json!(180)), ["kept", "kept"]);
    assert_eq!(verdicts("level", json!(200)), ["broken", "broken"]);
    assert_eq!(verdicts("raised", json!(200)), ["kept", "kept"]);
    assert_eq!(verdicts("raised", json!(-140)), ["broken", "kept"]);
    assert_eq!(verdicts("raised", Value::Null), ["unknown", "kept"], "nobody said which way it points");
}

#[test]
fn what_stands_in_the_way_is_named_and_nearly_so_is_tight() {
    let lines = |top: f64| {
        let camera = CameraAt { tilt: 4.0, ..Default::default() };
        only_line(&site(
            vec![camera.json()],
            vec![target("face", "identify", [0.0, 20.0], 1.6)],
            vec![block([-1.0, 1.0], [9.0, 11.0], top)],
        ))
    };
    // Over the far side of the block the line to the chin, 0.14 m under the face's middle, is at 3 − 1.54·11/20 = 2.153 m; with
    // the camera and the face 0.05 m lower at 2.103 m.
    for (top, verdict) in [(2.09, "kept"), (2.12, "tight"), (2.15, "tight"), (2.16, "broken"), (2.22, "broken")] {
        assert_eq!(rule(&lines(top), "clear")["verdict"], verdict, "{top}");
        // The middle of the face is still clear.
        assert_eq!(lines(top)["clear"], true);
    }
    assert!(lines(2.2)["hidden_share"].as_f64().unwrap() > 0.1);
    assert_eq!(lines(2.2)["blocked_by"], "o1");
    let blocked = lines(2.4);
    assert_eq!(
        (&blocked["clear"], &blocked["blocked_by"], &blocked["verdict"]),
        (&json!(false), &json!("o1"), &json!("broken"))
    );
    let mut see_through = site(
        vec![CameraAt::default().json()],
        vec![target("face", "identify", [0.0, 20.0], 1.6)],
        vec![block([-1.0, 1.0], [9.0, 11.0], 3.0)],
    );
    see_through["obstacles"][0]["see_through"] = json!(0.6);
    let line = only_line(&see_through);
    assert_eq!((&line["clear"], &line["seen_through"]), (&json!(true), &json!(["o1"])));
}

#[test]
fn every_sample_needs_a_head_and_back_up_needs_two() {
    let area = json!({"id": "t1", "name": "Yard", "subject": "scene", "task": "monitor", "height_m": 0,
        "shape": {"kind": "area", "points": [[-12, 14], [12, 14], [12, 18], [-12, 18]]}, "distance": {"how": "laser"}});
    let heads = |pans: &[f64], wanted: u32| {
        let cameras = pans.iter().enumerate().map(|(i, pan)| {
            let mut c = CameraAt { pan: *pan, tilt: 12.0, ..Default::default() }.json();
            c["id"] = json!(format!("c{i}"));
            c
        });
        let mut t = area.clone();
        t["heads_wanted"] = json!(wanted);
        evaluated(&site(cameras.collect(), vec![t], vec![]))["targets"][0]["verdict"].as_str().unwrap().to_owned()
    };
    assert_eq!(heads(&[0.0], 1), "broken", "too wide for one");
    assert_eq!(heads(&[-20.0, 20.0], 1), "kept", "two share it");
    assert_eq!(heads(&[-20.0, 20.0], 2), "broken", "nowhere two at once");
    assert_eq!(heads(&[-20.0, 20.0, -20.0, 20.0], 2), "kept");
    assert_eq!(heads(&[], 1), "broken");
}

#[test]
fn what_is_behind_a_head_has_no_sight_line_and_gets_nothing() {
    let found =
        evaluated(&site(vec![CameraAt::default().json()], vec![target("face", "identify", [0.0, -20.0], 1.6)], vec![]));
    assert_eq!(found["sight_lines"], json!([]));
    let t = &found["targets"][0];
    assert_eq!((&t["verdict"], &t["best"], &t["px_per_m"]), (&json!("broken"), &Value::Null, &json!(0.0)));
}

#[test]
fn a_face_that_looks_away_is_not_kept() {
    let mut t = target("face", "recognise", [0.0, 10.0], 1.6);
    t["facing_deg"] = json!(10);
    let line = only_line(&site(vec![CameraAt::default().json()], vec![t], vec![]));
    assert_eq!(rule(&line, "turned_away")["verdict"], "broken");
    assert!(line["incidence_deg"].as_f64().unwrap() > 160.0);
}
