//! The reference values of the job, to the last digit shown. The sight lines were computed with OpenCV 5.0
//! (`projectPoints`, `fisheye.projectPoints`); the two are made again, 360 times over, in `projections.rs`.

use crate::support::*;
use serde_json::{Value, json};

/// The one sight line of a site, figures as text with so many decimals.
fn line(camera: CameraAt, target_at: [f64; 2], height: f64) -> Value {
    let mut found = evaluated(&site(vec![camera.json()], vec![target("face", "identify", target_at, height)], vec![]));
    found["sight_lines"][0].take()
}

fn figure(value: &Value, decimals: usize) -> String {
    format!("{:.decimals$}", value.as_f64().unwrap())
}

#[track_caller]
fn figures(line: &Value, pixel: [&str; 2], across: &str, up: &str) {
    let decimals = |text: &str| text.split_once('.').map_or(0, |(_, tail)| tail.len());
    for (found, expected) in [
        (&line["pixel"][0], pixel[0]),
        (&line["pixel"][1], pixel[1]),
        (&line["px_per_m"], across),
        (&line["px_per_m_up"], up),
    ] {
        assert_eq!(figure(found, decimals(expected)), expected);
    }
}

fn yard_camera(roll: f64) -> CameraAt {
    CameraAt {
        at: [4.0, -2.0],
        height: 3.6,
        pan: 35.0,
        tilt: 12.0,
        roll,
        focal: 8.0,
        sensor: sensor(2688, 1520, 5.376),
        ..Default::default()
    }
}

#[test]
fn level_on_the_axis() {
    let found = line(CameraAt { tilt: 0.0, ..Default::default() }, [0.0, 20.0], 3.0);
    figures(&found, ["960", "540"], "107.1429", "107.1429");
    assert_eq!(figure(&found["slant_m"], 4), "20.0000");
    assert_eq!(found["depression_deg"], 0.0);
}

#[test]
fn tilted_four_degrees() {
    let found = line(CameraAt::default(), [0.0, 20.0], 1.6);
    figures(&found, ["960", "540.156"], "106.8813", "106.6204");
    assert_eq!(
        (figure(&found["slant_m"], 4), figure(&found["depression_deg"], 4)),
        ("20.0489".into(), "4.0042".into())
    );
}

#[test]
fn off_the_axis_and_rolled() {
    let found = line(yard_camera(0.0), [14.0, 11.0], 1.6);
    figures(&found, ["1522.811", "407.187"], "243.5076", "242.4274");
    assert_eq!(
        (figure(&found["slant_m"], 4), figure(&found["depression_deg"], 4)),
        ("16.5227".into(), "6.9524".into())
    );
    figures(&line(yard_camera(90.0), [14.0, 11.0], 1.6), ["991.187", "581.189"], "243.5076", "242.4274");
}

#[test]
fn equidistant() {
    // A published field of 110.008° at 2.8 mm is what b = 0 gives; taken exactly so that b comes out zero.
    let hfov = (5.376_f64 / 2.0 / 2.8).to_degrees() * 2.0;
    let camera = CameraAt {
        height: 3.2,
        pan: 200.0,
        tilt: 20.0,
        focal: 2.8,
        hfov: Some(hfov),
        sensor: sensor(2688, 1520, 5.376),
        ..Default::default()
    };
    let found = line(camera, [-6.0, -9.0], 1.6);
    figures(&found, ["1676.980", "488.033"], "128.9743", "127.7522");
    assert_eq!(
        (figure(&found["slant_m"], 4), figure(&found["depression_deg"], 4)),
        ("10.9343".into(), "8.4142".into())
    );
}

#[test]
fn bends_and_fields_out_of_the_evaluation() {
    for (focal, hfov, bend, effective) in [
        (2.8, Some(103.0), "0.48327", "2.80000"),
        (2.8, Some(112.0), "-0.33514", "2.80000"),
        (4.0, Some(78.0), "-0.40711", "4.00000"),
        (12.0, Some(26.0), "-0.50000", "11.87245"),
        (2.8, None, "1.00000", "2.80000"),
    ] {
        let camera = CameraAt { focal, hfov, sensor: sensor(2688, 1520, 5.376), ..Default::default() };
        let head = evaluated(&site(vec![camera.json()], vec![], vec![]))["heads"][0].take();
        assert_eq!((figure(&head["bend"], 5), figure(&head["effective_focal_mm"], 5)), (bend.into(), effective.into()));
        assert_eq!(head["published_field"], hfov.is_some());
        if let Some(hfov) = hfov {
            assert!((head["hfov_deg"].as_f64().unwrap() - hfov).abs() < 1e-9);
        } else {
            assert_eq!(figure(&head["hfov_deg"], 3), "87.662");
        }
    }
}

#[test]
fn near_and_far_edge_by_hand() {
    // Tangents by hand: 6 mm on 3.024 mm of height is ±14.1415°; at 3 m up and 20° down the edges meet the ground
    // at 3/tan 34.1415° and 3/tan 5.8585°.
    let head =
        evaluated(&site(vec![CameraAt { tilt: 20.0, ..Default::default() }.json()], vec![], vec![]))["heads"][0].take();
    let half = (1.512_f64 / 6.0).atan().to_degrees();
    let expected = [20.0 + half, 20.0 - half].map(|angle: f64| 3.0 / angle.to_radians().tan());
    assert!((head["near_edge_m"].as_f64().unwrap() - expected[0]).abs() < 1e-9);
    assert!((head["far_edge_m"].as_f64().unwrap() - expected[1]).abs() < 1e-9);
    assert_eq!(head["horizon_in_view"], false);
    let level =
        evaluated(&site(vec![CameraAt { tilt: 5.0, ..Default::default() }.json()], vec![], vec![]))["heads"][0].take();
    assert_eq!((&level["far_edge_m"], &level["horizon_in_view"]), (&Value::Null, &json!(true)));
    // A corridor picture is taller than wide: the edges of the width bound it straight ahead.
    let rolled = evaluated(&site(
        vec![CameraAt { tilt: 20.0, roll: 90.0, ..Default::default() }.json()],
        vec![],
        vec![],
    ))["heads"][0]
        .take();
    let tall = 20.0 + (2.688_f64 / 6.0).atan().to_degrees();
    assert!((rolled["near_edge_m"].as_f64().unwrap() - 3.0 / tall.to_radians().tan()).abs() < 1e-9);
}

#[test]
fn aim_slack_by_hand() {
    // On the axis of a rectilinear picture the slack is the smaller half field: ±14.1415° up and down.
    let found = line(CameraAt { tilt: 0.0, ..Default::default() }, [0.0, 20.0], 3.0);
    assert!((found["aim_slack_deg"].as_f64().unwrap() - (1.512_f64 / 6.0).atan().to_degrees()).abs() < 1e-6);
    // 20° to the right of the axis, level, 24.1331° is the right edge: 4.13…° of pan are left.
    let off = line(CameraAt { tilt: 0.0, pan: -20.0, ..Default::default() }, [0.0, 20.0], 3.0);
    assert!((off["aim_slack_deg"].as_f64().unwrap() - ((2.688_f64 / 6.0).atan().to_degrees() - 20.0)).abs() < 1e-6);
}
