//! What decides a promise, in words: of the sight line of the camera that is best for it. The figures by hand.

use crate::support::{CameraAt, DEMOS, parse, site, target};
use bright_angle_core::judge::Session;
use bright_angle_core::words::because::{Because, reasons};
use bright_angle_core::words::units::Units;
use serde_json::{Value, json};

fn because(site: &Value) -> Vec<Because> {
    reasons(&Session::on(parse(site)), Units::Metres)
}

fn says(site: &Value) -> String {
    because(site)[0].says.clone().unwrap_or_default()
}

/// A camera that looks north, and a face so many metres before it.
fn face_at(north: f64) -> Value {
    let mut face = target("face", "identify", [0.0, north], 1.6);
    face["facing_deg"] = json!(180);
    let camera = CameraAt { height: 1.6, tilt: 0.0, ..CameraAt::default() };
    site(vec![camera.json()], vec![face], vec![])
}

#[test]
fn too_few_pixels_are_told_as_a_share_of_the_need() {
    let far = face_at(30.0);
    let found = &because(&far)[0];
    let summary = Session::on(parse(&far)).summary();
    let [got, need] = [summary.targets[0].px_per_m, summary.targets[0].needs_px_per_m];
    assert!(got < need);
    let by_hand = format!("{:.0} % too few pixels", (1.0 - got / need) * 100.0);
    assert_eq!(found.says.as_deref(), Some(by_hand.as_str()));
}

#[test]
fn what_hides_it_is_named_before_the_pixels_that_it_would_have_had() {
    let mut behind = face_at(30.0);
    behind["obstacles"] = json!([{
        "id": "u", "name": "Units B", "kind": "building", "top_m": 4.0,
        "outline": [[-5.0, 10.0], [5.0, 10.0], [5.0, 12.0], [-5.0, 12.0]],
    }]);
    assert_eq!(says(&behind), "behind Units B");
}

#[test]
fn out_of_the_picture_behind_the_camera_and_no_camera_are_three_things() {
    let mut beside = face_at(8.0);
    beside["targets"][0]["shape"]["points"] = json!([[20.0, 4.0]]);
    assert_eq!(says(&beside), "out of the picture");
    let mut back = face_at(8.0);
    back["targets"][0]["shape"]["points"] = json!([[0.0, -8.0]]);
    assert_eq!(says(&back), "behind every camera");
    let mut none = face_at(8.0);
    none["cameras"] = json!([]);
    assert_eq!(says(&none), "no camera yet");
}

#[test]
fn a_kept_promise_has_no_reason_and_every_other_has_one_on_all_demos_by_day_and_by_night() {
    let mut told = 0;
    for demo in DEMOS {
        for night in [false, true] {
            let mut demo: Value = serde_json::from_str(demo).unwrap();
            demo["conditions"]["night"] = json!(night);
            let session = Session::on(parse(&demo));
            for (result, because) in session.summary().targets.iter().zip(reasons(&session, Units::Metres)) {
                assert_eq!(result.target, because.target);
                let kept = result.verdict == bright_angle_core::verdict::Verdict::Kept;
                assert_eq!(because.says.is_none(), kept, "{night} {because:?} {:?}", result.verdict);
                if let Some(says) = because.says {
                    assert!(says.chars().count() < 60 && !says.contains("NaN"), "{says}");
                    told += 1;
                }
            }
        }
    }
    assert!(told > 20, "{told}");
}

#[test]
fn a_density_that_is_too_little_upwards_only_is_told_as_that_and_never_looks_like_enough() {
    let mut checked = 0;
    for demo in DEMOS {
        let session = Session::on(parse(&serde_json::from_str(demo).unwrap()));
        for (result, because) in session.summary().targets.iter().zip(reasons(&session, Units::Metres)) {
            let (Some(found), Some(says)) = (because.px_per_m, because.says) else { continue };
            if !says.contains("worst") {
                assert!(found < result.needs_px_per_m, "{found} {says}");
                let by_hand = ((1.0 - found / result.needs_px_per_m) * 100.0).max(1.0);
                assert_eq!(says, format!("{by_hand:.0} % too few pixels"));
                checked += 1;
            }
        }
    }
    assert!(checked > 3, "{checked}");
}
