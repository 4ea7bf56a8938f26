//! How much of a subject is hidden against rays through Embree (`outside/subjects`).

use crate::support::*;
use serde::Deserialize;
use serde_json::{Value, json};

#[derive(Debug, Deserialize)]
struct Case {
    subject: String,
    target: [f64; 2],
    camera_height_m: f64,
    obstacles: Vec<Value>,
    hidden: f64,
}

#[test]
fn the_hidden_share_is_that_of_rays() {
    let cases: Vec<Case> = serde_json::from_str(include_str!("../../../outside/subjects/subjects.json")).unwrap();
    assert!(cases.len() >= 200);
    let (mut off, mut partly) = (0.0, 0);
    for case in &cases {
        let [x, y] = case.target;
        let tilt = ((case.camera_height_m - 1.2) / x.hypot(y)).atan().to_degrees();
        let height = case.camera_height_m;
        let camera = CameraAt { height, pan: x.atan2(y).to_degrees(), tilt, focal: 2.8, ..Default::default() };
        let solid = |(i, o): (usize, &Value)| {
            let mut o = o.clone();
            o.as_object_mut()
                .unwrap()
                .extend(json!({"id": format!("o{i}"), "name": "O", "kind": "other"}).as_object().unwrap().clone());
            o
        };
        let obstacles = case.obstacles.iter().enumerate().map(solid).collect();
        let stated = if case.subject == "vehicle" { 0.8 } else { 1.6 };
        let target = target(&case.subject, "detect", case.target, stated);
        let line = evaluated(&site(vec![camera.json()], vec![target], obstacles))["sight_lines"][0].clone();
        let ours = line["hidden_share"].as_f64().unwrap();
        let rule = line["rules"].as_array().unwrap().iter().find(|rule| rule["rule"] == "clear").unwrap().clone();
        // Ten columns and sixty rays: a shadow's edge may lie in either, on both its sides.
        assert!((ours - case.hidden).abs() < 0.13, "{ours}: {case:?}");
        off += ours - case.hidden;
        partly += usize::from(case.hidden > 0.0 && case.hidden < 1.0);
        // Of a face nothing may be hidden, and so little as a single ray is told.
        if case.subject == "face" && case.hidden > 0.0 {
            assert_eq!(rule["verdict"], "broken", "{case:?}");
        }
        if case.subject != "face" && (case.hidden - 1.0 / 3.0).abs() > 0.13 {
            assert_eq!(rule["verdict"] == "broken", case.hidden > 1.0 / 3.0, "{case:?}");
        }
    }
    assert!(partly >= 100, "the table has shrunk");
    // Not more on one side than on the other.
    assert!((off / cases.len() as f64).abs() < 0.01, "{off}");
}
