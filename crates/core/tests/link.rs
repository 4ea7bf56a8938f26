//! A fixed view that points a turned head: pairs made with OpenCV of a head whose place and scales are known
//! (outside/link/generate.py).

use bright_angle_core::Site;
use bright_angle_core::site::link::{link_of, point_through};
use serde::Deserialize;
use serde_json::{Value, json};

#[derive(Deserialize)]
struct Case {
    eye: [f64; 3],
    pan_deg: f64,
    tilt_deg: f64,
    drawn: [f64; 3],
    position: [f64; 3],
    pan_zero_deg: f64,
    pairs: Vec<Pair>,
}

#[derive(Deserialize, Clone)]
struct Pair {
    pixel: [f64; 2],
    pan_deg: f64,
    tilt_deg: f64,
}

fn site(case: &Case, pairs: &[Pair]) -> Site {
    let model = |form: &str| {
        json!({"name": "M", "form": form,
            "sensor": {"width_px": 1920, "height_px": 1080, "width_mm": 5.376, "height_mm": 3.024},
            "lens": {"focal_min_mm": 6, "focal_max_mm": 6}})
    };
    let pairs: Vec<Value> = pairs
        .iter()
        .map(|pair| json!({"pixel": pair.pixel, "pan_deg": pair.pan_deg, "tilt_deg": pair.tilt_deg}))
        .collect();
    let at = |place: [f64; 3]| ([place[0], place[1]], place[2]);
    let ((fixed, high), (turned, aloft)) = (at(case.eye), at(case.drawn));
    let file = json!({
        "format": "bright-angle/site", "version": 1, "name": "Linked", "targets": [],
        "cameras": [
            {"id": "f", "name": "F", "position": fixed, "height_m": high, "model": model("bullet"),
             "heads": [{"id": "h", "pan_deg": case.pan_deg, "tilt_deg": case.tilt_deg, "focal_mm": 6}]},
            {"id": "t", "name": "T", "position": turned, "height_m": aloft, "model": model("ptz"),
             "heads": [{"id": "h", "pan_deg": 0, "tilt_deg": 10, "focal_mm": 6,
                        "pointed_by": {"camera": "f", "head": "h", "pairs": pairs}}]}]
    });
    Site::parse(&file.to_string()).unwrap()
}

fn cases() -> Vec<Case> {
    serde_json::from_str(include_str!("../../../outside/link/link.json")).unwrap()
}

fn apart(a: f64, b: f64) -> f64 {
    ((a - b + 540.0).rem_euclid(360.0) - 180.0).abs()
}

#[test]
fn the_hidden_place_and_scales_are_found_and_point_at_what_was_not_a_pair() {
    for (number, case) in cases().iter().enumerate() {
        let (used, kept_back) = case.pairs.split_at(6);
        let site = site(case, used);
        let found = link_of(&site, "t", "h").unwrap();
        let off = (0..3).map(|axis| (found.position[axis] - case.position[axis]).powi(2)).sum::<f64>().sqrt();
        assert!(off < 0.02, "case {number}: {off} m off");
        assert!(apart(found.pan_zero_deg, case.pan_zero_deg) < 0.1, "case {number}: {found:?}");
        assert!(found.rms_deg < 0.01, "case {number}: {}", found.rms_deg);
        let [pan, tilt] = point_through(&site, "t", "h", kept_back[0].pixel).unwrap();
        assert!(apart(pan, kept_back[0].pan_deg) < 0.05, "case {number}: {pan} {}", kept_back[0].pan_deg);
        assert!((tilt - kept_back[0].tilt_deg).abs() < 0.05, "case {number}: {tilt} {}", kept_back[0].tilt_deg);
    }
}

#[test]
fn a_pair_that_was_pointed_wrong_is_named() {
    for case in cases() {
        let mut pairs = case.pairs.clone();
        pairs[3].pan_deg += 4.0;
        let found = link_of(&site(&case, &pairs), "t", "h").unwrap();
        assert_eq!(found.worst, 3, "{:?}", found.off_deg);
        assert!(found.rms_deg > 0.3);
    }
}

#[test]
fn three_pairs_are_too_few_and_the_sky_is_no_place() {
    let case = &cases()[0];
    let few = link_of(&site(case, &case.pairs[..3]), "t", "h").unwrap_err();
    assert_eq!(few.to_string(), "pointed_by.pairs: 3 of the 4 pairs that it takes");
    let mut pairs = case.pairs.clone();
    pairs.iter_mut().enumerate().for_each(|(place, pair)| pair.pixel = [500.0 + 90.0 * place as f64, 1000.0]);
    pairs[1].pixel = [960.0, 0.0];
    let level = Case { tilt_deg: 2.0, ..cases().remove(0) };
    let sky = link_of(&site(&level, &pairs), "t", "h").unwrap_err();
    assert_eq!(sky.path, "pointed_by.pairs[1].pixel");
}
