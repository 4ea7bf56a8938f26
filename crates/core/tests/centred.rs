//! What a turned head's own picture shows off its middle, brought into the middle: where it must look is known from how the pairs of OpenCV
//! were made (outside/link/generate.py).

use bright_angle_core::Site;
use bright_angle_core::site::centred::{TurnedAt, centred};
use serde::Deserialize;

#[derive(Deserialize)]
struct Case {
    pairs: Vec<Pair>,
}

#[derive(Deserialize)]
struct Pair {
    /// Where the head looks with the thing in the middle.
    pan_deg: f64,
    tilt_deg: f64,
    /// Where it looks instead, and where in its picture the thing is then.
    stood: [f64; 2],
    seen_at: [f64; 2],
}

fn site() -> Site {
    Site::parse(
        r#"{"format": "bright-angle/site", "version": 1, "name": "Turned", "targets": [], "cameras": [
            {"id": "t", "name": "T", "position": [0, 0], "height_m": 5, "model": {"name": "M", "form": "ptz",
             "sensor": {"width_px": 1920, "height_px": 1080, "width_mm": 5.376, "height_mm": 3.024},
             "lens": {"focal_min_mm": 4, "focal_max_mm": 120}},
             "heads": [{"id": "h", "pan_deg": 0, "tilt_deg": 10, "focal_mm": 20}]}]}"#,
    )
    .unwrap()
}

fn stood([pan_deg, tilt_deg]: [f64; 2]) -> TurnedAt {
    TurnedAt { pan_deg, tilt_deg, focal_mm: 6.0 }
}

#[test]
fn what_lies_off_the_middle_is_where_opencv_put_it_from() {
    let cases: Vec<Case> = serde_json::from_str(include_str!("../../../outside/link/link.json")).unwrap();
    let site = site();
    let mut looked_at = 0;
    for pair in cases.iter().flat_map(|case| &case.pairs) {
        let found = centred(&site, "t", "h", &stood(pair.stood), pair.seen_at).unwrap();
        let pan = (found.pan_deg - pair.pan_deg + 540.0).rem_euclid(360.0) - 180.0;
        assert!(pan.abs() < 1e-6, "{found:?} for {}", pair.pan_deg);
        assert!((found.tilt_deg - pair.tilt_deg).abs() < 1e-6, "{found:?} for {}", pair.tilt_deg);
        looked_at += 1;
    }
    assert_eq!(looked_at, 42);
}

#[test]
fn the_middle_is_where_it_looks_and_straight_down_has_a_tilt() {
    let site = site();
    let found = centred(&site, "t", "h", &stood([-90.0, 12.5]), [960.0, 540.0]).unwrap();
    assert!((found.pan_deg - 270.0).abs() < 1e-9 && (found.tilt_deg - 12.5).abs() < 1e-9, "{found:?}");
    let down = centred(&site, "t", "h", &stood([40.0, 90.0]), [960.0, 540.0]).unwrap();
    assert!((down.tilt_deg - 90.0).abs() < 1e-6, "{down:?}");
}

#[test]
fn what_no_picture_and_no_head_can_have_is_refused_with_its_place() {
    let site = site();
    let refused = |camera: &str, stood: TurnedAt, pixel| centred(&site, camera, "h", &stood, pixel).unwrap_err().path;
    assert_eq!(refused("t", stood([0.0, 0.0]), [1920.5, 540.0]), "pixel");
    assert_eq!(refused("t", stood([0.0, 0.0]), [f64::NAN, 540.0]), "pixel");
    assert_eq!(refused("t", stood([0.0, 91.0]), [960.0, 540.0]), "stood.tilt_deg");
    assert_eq!(refused("t", stood([f64::NAN, 0.0]), [960.0, 540.0]), "stood.pan_deg");
    let zoomed = TurnedAt { focal_mm: 121.0, ..stood([0.0, 0.0]) };
    assert_eq!(refused("t", zoomed, [960.0, 540.0]), "stood.focal_mm");
    assert_ne!(refused("x", stood([0.0, 0.0]), [960.0, 540.0]), "pixel");
}
