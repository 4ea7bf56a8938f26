//! A round fisheye against OpenCV's fisheye model: pixels, densities, the edge of the image circle, on a ceiling, a wall and a table
//! (outside/fisheye/generate.py); and its flattened views, which show no more than it does.

use bright_angle_core::Site;
use bright_angle_core::file::HeadRef;
use glam::DVec3;
use serde::Deserialize;
use serde_json::{Value, json};

#[derive(Deserialize)]
struct Table {
    focal_mm: f64,
    cases: Vec<Case>,
}

#[derive(Deserialize)]
struct Case {
    name: String,
    eye: [f64; 3],
    pan_deg: f64,
    tilt_deg: f64,
    roll_deg: f64,
    looks: Vec<Look>,
}

#[derive(Deserialize)]
struct Look {
    point: [f64; 3],
    pixel: [f64; 2],
    across: f64,
    up: f64,
    in_view: bool,
}

fn table() -> Table {
    serde_json::from_str(include_str!("../../../outside/fisheye/fisheye.json")).unwrap()
}

fn site(case: &Case, focal_mm: f64, flattened: Value) -> Site {
    let site = json!({
        "format": "bright-angle/site", "version": 1, "name": "Round", "targets": [],
        "cameras": [{"id": "c", "name": "C", "position": [case.eye[0], case.eye[1]], "height_m": case.eye[2],
            "model": {"name": "F", "form": "fisheye",
                "sensor": {"width_px": 2592, "height_px": 1944, "width_mm": 5.184, "height_mm": 3.888, "image_circle_px": 1944},
                "lens": {"focal_min_mm": focal_mm, "focal_max_mm": focal_mm, "hfov_at_min_deg": 180.0}},
            "heads": [{"id": "h", "pan_deg": case.pan_deg, "tilt_deg": case.tilt_deg, "roll_deg": case.roll_deg,
                       "focal_mm": focal_mm, "flattened": flattened}]}]
    });
    Site::parse(&site.to_string()).unwrap()
}

#[test]
fn pixels_and_densities_are_those_of_opencv() {
    let Table { focal_mm, cases } = table();
    for case in &cases {
        let site = site(case, focal_mm, json!([]));
        let head = site.head("c", "h").unwrap();
        for look in &case.looks {
            let found = head.look(DVec3::from_array(look.point)).unwrap();
            // The published field makes the bend nought but for the rounding of the focal length to a ten-thousandth.
            let give = |value: f64| 2e-4 * value.abs() + 0.02;
            for axis in 0..2 {
                let (ours, theirs) = (found.pixel.to_array()[axis], look.pixel[axis]);
                assert!((ours - theirs).abs() < 0.15, "{}: {ours} {theirs}", case.name);
            }
            assert!(
                (found.across - look.across).abs() < give(look.across),
                "{}: {} {}",
                case.name,
                found.across,
                look.across
            );
            assert!((found.up - look.up).abs() < give(look.up), "{}: {} {}", case.name, found.up, look.up);
            assert_eq!(found.in_view, look.in_view, "{}", case.name);
        }
    }
}

#[test]
fn a_flat_view_shows_what_the_round_picture_holds_and_no_more() {
    let Table { focal_mm, cases } = table();
    let window = |width_px: u32, hfov_deg: f64| {
        json!([{"id": "f", "name": "Window", "pan_deg": 30, "tilt_deg": 35, "hfov_deg": hfov_deg, "width_px": width_px,
                "height_px": width_px * 9 / 16}])
    };
    let of = |width_px: u32, hfov_deg: f64, point: DVec3| {
        let site = site(&cases[0], focal_mm, window(width_px, hfov_deg));
        let name = |view: Option<&str>| HeadRef { camera: "c".into(), head: "h".into(), view: view.map(str::to_owned) };
        let [round, flat] = [None, Some("f")].map(|view| site.view(&name(view)).unwrap().look(point).unwrap());
        (round, flat)
    };
    let eye = DVec3::from_array(cases[0].eye);
    let ahead = eye + DVec3::new(30_f64.to_radians().sin() * 3.0, 30_f64.to_radians().cos() * 3.0, -2.0);
    let (round, flat) = of(8000, 60.0, ahead);
    assert!(
        flat.in_view && (flat.across - round.across).abs() < 1e-9,
        "stretched to many pixels it shows as much as the round one"
    );
    let (round, flat) = of(320, 60.0, ahead);
    assert!(
        flat.across < round.across * 0.6,
        "squeezed into few pixels it shows less: {} {}",
        flat.across,
        round.across
    );
    let (_, flat) = of(1920, 60.0, eye + DVec3::new(3.0, -1.0, -2.0));
    assert!(!flat.in_view, "what lies outside of the window");
}
