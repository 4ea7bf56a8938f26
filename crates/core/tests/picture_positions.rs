//! Where things stand in a picture, against OpenCV: 500 points in ten pinhole, bent and fisheye heads
//! (`outside/positions/generate.py`).

use bright_angle_core::Site;
use bright_angle_core::file::HeadRef;
use bright_angle_core::judge::Session;
use bright_angle_core::judge::evaluation::eyes;
use bright_angle_core::picture::{Light, Picture, PictureWish, Window};
use bright_angle_core::site::ray::ray;
use glam::{DVec2, DVec3};
use serde_json::{Value, json};

/// The ground of the points lies so deep that none of them is under it, m.
const GROUND_M: f64 = -100.0;

fn session(head: &Value) -> Session {
    let points = head["points"].as_array().unwrap();
    let target = |(n, point): (usize, &Value)| {
        let z = point["at"][2].as_f64().unwrap();
        json!({ "id": format!("t{n}"), "name": "T", "subject": "face", "task": "identify", "ground_m": GROUND_M,
            "height_m": z - GROUND_M, "shape": { "kind": "point", "points": [[point["at"][0], point["at"][1]]] } })
    };
    let targets: Vec<Value> = points.iter().enumerate().map(target).collect();
    let sensor = json!({ "width_px": 2688, "height_px": 1520, "width_mm": 5.376, "height_mm": 3.04 });
    let file = json!({ "format": "bright-angle/site", "version": 1, "name": "S", "obstacles": [], "targets": targets,
        "cameras": [{ "id": "c", "name": "C", "position": [head["eye"][0], head["eye"][1]], "height_m": head["eye"][2],
            "model": { "name": "M", "form": "bullet", "sensor": sensor, "lens": head["lens"] },
            "heads": [{ "id": "h", "pan_deg": head["pan_deg"], "tilt_deg": head["tilt_deg"], "roll_deg": head["roll_deg"],
                "focal_mm": head["focal_mm"] }] }] });
    Session::on(Site::parse(&file.to_string()).unwrap_or_else(|faults| panic!("{faults:?}")))
}

fn pixel(point: &Value) -> DVec2 {
    DVec2::new(point["pixel"][0].as_f64().unwrap(), point["pixel"][1].as_f64().unwrap())
}

#[test]
fn points_stand_where_opencv_puts_them_and_the_rays_of_those_pixels_go_through_them() {
    let data: Value = serde_json::from_str(include_str!("../../../outside/positions/positions.json")).unwrap();
    let mut checked = 0;
    for head in data["heads"].as_array().unwrap() {
        let session = session(head);
        let site = session.site();
        let seen = &site.heads()[0];
        assert!((seen.view().projection.bend() - head["bend"].as_f64().unwrap()).abs() < 1e-6);
        let name = HeadRef { camera: "c".into(), head: "h".into(), view: None };
        let wish = PictureWish {
            window: Window::Whole { width: 16 },
            light: Light::Day,
            grid: false,
            samples: 1,
            shutter_s: 0.0,
        };
        let told = Picture::begin(&session, &name, &wish, None).unwrap().told();
        let eye = &eyes(site)[0];
        for (n, point) in head["points"].as_array().unwrap().iter().enumerate() {
            let expected = pixel(point);
            let mark = told.marks.iter().find(|mark| mark.target == format!("t{n}")).unwrap();
            let off = DVec2::from_array(mark.pixel).distance(expected);
            assert!(off < 0.1, "bend {}, point {n}: {off} px off", head["bend"]);
            // What is drawn there is seen along this ray.
            let drawn = ray(seen, eye, site.scene(), expected).unwrap();
            let at = DVec3::from_array(serde_json::from_value(point["at"].clone()).unwrap());
            let apart = drawn.direction.angle_between(at - seen.position()) * seen.view().projection.focal_px();
            assert!(apart < 0.1, "bend {}, point {n}: the ray goes by, {apart} px off", head["bend"]);
            checked += 1;
        }
    }
    assert_eq!(checked, 500);
}
