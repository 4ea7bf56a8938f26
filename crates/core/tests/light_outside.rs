//! Light against what is not its own formula (`outside/light`): numeric integrals of a lamp's flux, worked examples of the inverse square
//! and cosine laws as lighting handbooks print them (from memory), and a path tracer with its own rays for what an automatic makes of a
//! plate by night.

use crate::support::{CameraAt, evaluated, site, target};
use bright_angle_core::light::LampLight;
use glam::DVec3;
use serde_json::{Value, json};

/// How far the metering on its coarse grid may be off the path tracer's.
const COARSE: f64 = 0.2;
/// How much light between surfaces, which is left out, may change it.
const BOUNCE: f64 = 0.10;

fn outside() -> Value {
    serde_json::from_str(include_str!("../../../outside/light/light.json")).unwrap()
}

fn lamp(candela: f64, up: f64) -> LampLight {
    LampLight { id: "l".into(), from: DVec3::Z * up, candela, inside: None }
}

#[test]
fn what_falls_on_a_box_around_a_lamp_is_its_lumens() {
    let flux = outside()["flux"].clone();
    let f = |name: &str| flux[name].as_f64().unwrap();
    assert!((f("box_lumens") / f("hemisphere_lumens") - 1.0).abs() < 1e-4);
    // The same box summed with the program's own light: a floor five metres below, walls four metres to each side.
    let lamp = lamp(f("candela"), 5.0);
    let (n, half, floor) = (200, 4.0, 5.0);
    let step = |i: i32| (f64::from(i) + 0.5) / f64::from(n);
    let mut lumens = 0.0;
    for i in 0..n {
        for k in 0..n {
            let (x, y) = (half * (2.0 * step(i) - 1.0), half * (2.0 * step(k) - 1.0));
            lumens += lamp.lux(DVec3::new(x, y, 0.0), DVec3::Z) * (2.0 * half / f64::from(n)).powi(2);
            let on_wall = DVec3::new(half, x, floor * (1.0 - step(k)));
            lumens += 4.0 * lamp.lux(on_wall, -DVec3::X) * (2.0 * half / f64::from(n)) * (floor / f64::from(n));
        }
    }
    assert!((lumens / f("box_lumens") - 1.0).abs() < 1e-3, "{lumens}");
}

#[test]
fn worked_examples_of_handbooks_come_out() {
    for example in outside()["examples"].as_array().unwrap() {
        let f = |name: &str| example[name].as_f64().unwrap();
        let lamp = lamp(f("candela"), f("over_m"));
        let point = DVec3::X * f("beside_m");
        let normal = if example["surface"] == "level" { DVec3::Z } else { -DVec3::X };
        assert!((lamp.lux(point, normal) - f("lux")).abs() < 1e-9, "{example}");
    }
}

#[test]
fn an_automatic_makes_of_a_plate_what_a_path_tracer_does() {
    let (mut bleached, mut not) = (0, 0);
    for (number, case) in outside()["cases"].as_array().unwrap().iter().enumerate() {
        let f = |name: &str| case[name].as_f64().unwrap();
        let camera =
            CameraAt { height: f("height"), tilt: f("tilt"), focal: f("focal_mm"), ..CameraAt::default() }.json();
        let far = case["plate"][0].as_f64().unwrap();
        let mut plate = target("plate", "read", [0.0, far], 0.75);
        plate["facing_deg"] = json!(180);
        let walls = case["walls"].as_array().unwrap().iter().enumerate().map(|(place, wall)| {
            let x = [0, 1].map(|end| wall["x"][end].as_f64().unwrap());
            let y = wall["y"].as_f64().unwrap();
            json!({"id": format!("o{place}"), "name": "Wall", "kind": "wall", "top_m": wall["top"],
                "outline": [[x[0], y], [x[1], y], [x[1], y + 0.02], [x[0], y + 0.02]]})
        });
        let mut file = site(vec![camera], vec![plate], walls.collect());
        file["cameras"][0]["model"]["infrared"] = json!({"range_m": f("range_m"), "beam_deg": f("beam_deg")});
        file["conditions"] = json!({"night": true});
        let found = evaluated(&file);
        let rules = found["sight_lines"][0]["rules"].as_array().unwrap();
        let rule = rules.iter().find(|rule| rule["rule"] == "overexposed").unwrap();
        let value = rule["value"].as_f64().unwrap();
        assert!((value / f("times") - 1.0).abs() < COARSE, "case {number}: {value}, not {}", f("times"));
        assert!((f("times_with_a_bounce") / f("times") - 1.0).abs() < BOUNCE, "case {number}");
        // Where the two are further apart than they may differ, the verdict is the same.
        if (f("times") / 4.0).ln().abs() > 2.0 * COARSE {
            assert_eq!(rule["verdict"] == "broken", f("times") > 4.0, "case {number}: {rule}");
        }
        bleached += usize::from(f("times") > 4.0);
        not += usize::from(f("times") <= 4.0);
    }
    assert!(bleached >= 8 && not >= 4, "{bleached} {not}");
}
