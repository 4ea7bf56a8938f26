//! The adjustment against SciPy's least squares (`outside/adjustment`), a textbook's trilateration, and arithmetic by hand.

use crate::support::*;
use bright_angle_core::survey::adjustment::{AdjustedPoint, Adjustment, adjust};
use bright_angle_core::verdict::Unit;
use bright_angle_core::{Site, evaluate};
use serde_json::{Value, json};

fn adjusted(file: &Value) -> Adjustment {
    adjust(&parse(file)).unwrap()
}

fn point<'a>(found: &'a Adjustment, id: &str) -> &'a AdjustedPoint {
    found.points.iter().find(|point| point.id == id).unwrap()
}

fn near(ours: f64, theirs: f64, within: f64) {
    assert!((ours - theirs).abs() <= within, "{ours} is not {theirs}");
}

#[test]
fn twenty_networks_are_those_of_scipy() {
    let cases: Vec<Value> = serde_json::from_str(include_str!("../../../outside/adjustment/adjustment.json")).unwrap();
    assert_eq!(cases.len(), 20);
    for case in &cases {
        let found = adjusted(&case["site"]);
        let theirs = &case["found"];
        for expected in theirs["points"].as_array().unwrap() {
            let figure = |name: &str| expected[name].as_f64().unwrap();
            let ours = point(&found, expected["id"].as_str().unwrap());
            for axis in 0..2 {
                near(ours.position[axis], expected["position"][axis].as_f64().unwrap(), 2e-6);
            }
            near(ours.ellipse.major_m, figure("major_m"), 1e-6);
            near(ours.ellipse.minor_m, figure("minor_m"), 1e-6);
            if ours.ellipse.major_m - ours.ellipse.minor_m > 1e-4 {
                let apart = (ours.ellipse.bearing_deg - figure("bearing_deg")).abs();
                assert!(apart < 1e-2 || (apart - 180.0).abs() < 1e-2, "{ours:?} {expected}");
            }
        }
        for expected in theirs["readings"].as_array().unwrap() {
            let ours = found.readings.iter().find(|reading| reading.id == expected["id"]).unwrap();
            near(ours.residual_m, expected["residual_m"].as_f64().unwrap(), 2e-6);
            near(ours.standardised.unwrap(), expected["standardised"].as_f64().unwrap(), 1e-3);
        }
        let doubtful = found.readings.iter().find(|reading| reading.doubtful).map(|reading| reading.id.as_str());
        assert_eq!(doubtful, theirs["doubtful"].as_str());
        if let Some(reading) = found.readings.iter().find(|reading| reading.doubtful) {
            // The generator put 2.5 or 5.7 m on top: the network takes a part up, the estimate of the whole does not.
            let gross = reading.gross_error_m.unwrap();
            assert!((2.0..8.0).contains(&gross.abs()), "{gross}");
            assert!(gross.abs() >= reading.residual_m.abs() - 1e-12);
        }
        assert_eq!(doubtful.is_some(), case["outlier"].as_bool().unwrap(), "an outlier is named and nothing else");
    }
}

#[test]
fn a_net_with_a_gross_error_settles_where_scipy_has_it() {
    let cases: Vec<Value> = serde_json::from_str(include_str!("../../../outside/adjustment/stubborn.json")).unwrap();
    assert_eq!(cases.len(), 6);
    for case in &cases {
        let found = adjusted(&case["site"]);
        for (ours, theirs) in found.points[1..].iter().zip(case["positions"].as_array().unwrap()) {
            (0..2).for_each(|axis| near(ours.position[axis], theirs[axis].as_f64().unwrap(), 2e-6));
        }
        // What contradicts the rest is named, and nothing is taken over while it stands.
        assert!(found.readings.iter().any(|reading| reading.doubtful));
        assert!(found.patch.is_empty() && found.held_back.is_some());
    }
}

fn yard(spots: Value, targets: Value, readings: Value) -> Value {
    json!({"format": "bright-angle/site", "version": 1, "name": "Yard", "obstacles": [], "cameras": [],
        "spots": spots, "targets": targets, "readings": readings})
}

fn spot(id: &str, position: [f64; 2], fixed: bool) -> Value {
    json!({"id": id, "name": id, "position": position, "height_m": 3.0, "fixed": fixed})
}

fn level(id: &str, from: &str, to: &str, metres: f64, sigma_m: f64) -> Value {
    json!({"id": id, "from": from, "to": to, "slope_m": metres, "inclination_deg": 0, "sigma_m": sigma_m})
}

#[test]
fn a_textbooks_trilateration() {
    // C. D. Ghilani, "Adjustment Computations: Spatial Data Analysis", the chapter on horizontal survey adjustment of trilateration,
    // first example: station U observed from three control stations. Control and distances from memory of the book, in feet there;
    // the adjusted values were made again with SciPy from the same figures, unweighted. Wrong figures would not close to a tenth.
    let spots = json!([
        spot("a", [865.40, 4527.15], true),
        spot("b", [2432.55, 2047.25], true),
        spot("c", [2865.22, 27.15], true),
        {"id": "u", "name": "U", "position": [6851.0, 3719.0], "height_m": 3.0, "position_sigma_m": 1000.0},
    ]);
    let readings = json!([
        level("au", "a", "u", 6049.00, 0.1),
        level("bu", "b", "u", 4736.83, 0.1),
        level("cu", "c", "u", 5446.49, 0.1),
    ]);
    let found = adjusted(&yard(spots, json!([]), readings));
    near(point(&found, "u").position[0], 6861.31679, 2e-5);
    near(point(&found, "u").position[1], 3727.81857, 2e-5);
    for (reading, residual) in found.readings.iter().zip([0.0374, -0.0768, 0.0474]) {
        near(reading.residual_m, residual, 1e-3);
    }
    assert_eq!(point(&found, "a").moved_m, 0.0);
}

#[test]
fn one_reading_shares_its_misfit_by_the_weights() {
    // By hand: drawn 19.6 m apart along x, the tape says 18.87. Both ends may move with σ 0.5, the reading has σ 0.02: each end takes
    // 0.73 · 0.25 / (0.25 + 0.25 + 0.0004) of it.
    let target = json!([{"id": "t1", "name": "Till", "subject": "face", "task": "identify", "height_m": 1.5,
        "shape": {"kind": "point", "points": [[19.6, 0.0]]}}]);
    let found =
        adjusted(&yard(json!([spot("s1", [0.0, 0.0], false)]), target, json!([level("r1", "s1", "t1", 18.87, 0.02)])));
    let share = 0.73 * 0.25 / 0.5004;
    near(point(&found, "s1").position[0], share, 1e-9);
    near(point(&found, "t1").position[0], 19.6 - share, 1e-9);
    near(found.readings[0].residual_m, -0.73 * 0.0004 / 0.5004, 1e-9);
    assert!(!found.readings[0].doubtful, "one reading alone contradicts nothing but the drawing");
    // Square to the line nothing is learnt; along it half of what both ends do not know together is left.
    near(point(&found, "t1").ellipse.major_m, 0.5, 1e-12);
    near(point(&found, "t1").ellipse.bearing_deg, 0.0, 1e-9);
}

#[test]
fn slope_and_level_are_never_mixed_up() {
    // 18.93 m of slope: 4.6° up is 18.869 m level; 2.1 m of rise between the heights is 18.813 m; spot and target heights stand in
    // where a reading gives none: 3.0 − 1.5 = 1.5 m.
    let target = json!([{"id": "t1", "name": "Till", "subject": "face", "task": "identify", "height_m": 1.5,
        "shape": {"kind": "point", "points": [[19.0, 0.0]]}}]);
    let reading = |more: Value| {
        let mut r = json!({"id": "r1", "from": "t1", "to": "s1", "slope_m": 18.93});
        r.as_object_mut().unwrap().extend(more.as_object().unwrap().clone());
        adjusted(&yard(json!([spot("s1", [0.0, 0.0], true)]), target.clone(), json!([r]))).readings[0].horizontal_m
    };
    near(reading(json!({"inclination_deg": 4.6})), 18.93 * 4.6_f64.to_radians().cos(), 1e-12);
    near(reading(json!({"from_height_m": 1.5, "to_height_m": 3.6})), (18.93_f64.powi(2) - 2.1 * 2.1).sqrt(), 1e-12);
    near(reading(json!({})), (18.93_f64.powi(2) - 1.5 * 1.5).sqrt(), 1e-12);
}

#[test]
fn readings_that_make_no_sense_are_refused() {
    let refused = |readings: Value, path: &str, part: &str| {
        let targets = json!([
            {"id": "t1", "name": "T", "subject": "face", "task": "identify", "height_m": 1.5, "shape": {"kind": "point", "points": [[9, 0]]}},
            {"id": "t2", "name": "L", "subject": "scene", "task": "detect", "height_m": 0, "shape": {"kind": "line", "points": [[0, 0], [1, 0]]}},
        ]);
        let faults =
            Site::parse(&yard(json!([spot("s1", [0.0, 0.0], false)]), targets, readings).to_string()).unwrap_err();
        assert_eq!(faults[0].path, path);
        assert!(faults[0].message.contains(part), "{}", faults[0]);
    };
    refused(json!([level("r1", "s1", "s9", 5.0, 0.02)]), "readings[0].to", "no spot or target \"s9\"");
    refused(json!([level("r1", "s1", "t2", 5.0, 0.02)]), "readings[0].to", "a line or an area");
    refused(json!([level("r1", "s1", "s1", 5.0, 0.02)]), "readings[0].to", "where it was taken from");
    refused(json!([level("r1", "s1", "t1", -5.0, 0.02)]), "readings[0].slope_m", "outside");
    refused(json!([level("r1", "s1", "t1", 5.0, 0.0)]), "readings[0].sigma_m", "outside");
    refused(json!([{"id": "r1", "from": "s1", "to": "t1", "slope_m": 1.4}]), "readings[0].slope_m", "not longer than");
    refused(json!([level("r1", "s1", "t1", 5.0, 0.02), level("r1", "s1", "t1", 5.0, 0.02)]), "readings[1].id", "twice");
}

#[test]
fn points_that_coincide_and_weights_far_apart_do_not_stop_the_program() {
    let spots = json!([spot("s1", [1.0, 1.0], false), spot("s2", [1.0, 1.0], false)]);
    let found = adjusted(&yard(spots, json!([]), json!([level("r1", "s1", "s2", 5.0, 0.02)])));
    assert!(found.points.iter().all(|point| point.moved_m == 0.0), "a distance without a direction pulls nowhere");
    let mut loose =
        json!([spot("s1", [0.0, 0.0], false), spot("s2", [3.0, 4.0], false), spot("s3", [9.0, 1.0], false)]);
    for spot in loose.as_array_mut().unwrap() {
        spot["position_sigma_m"] = json!(1000.0);
    }
    let readings = json!([
        level("r1", "s1", "s2", 5.1, 0.0001),
        level("r2", "s2", "s3", 6.8, 0.0001),
        level("r3", "s1", "s3", 9.1, 0.0001),
    ]);
    // Three distances make a triangle: it closes, wherever it then lies.
    let found = adjusted(&yard(loose, json!([]), readings));
    assert!(found.readings.iter().all(|reading| reading.residual_m.abs() < 1e-3), "{:?}", found.readings);
}

#[test]
fn a_camera_stays_on_the_wall_that_it_hangs_on() {
    // The tape says that the target is 0.3 m farther off than drawn: the spot on the wall's face would end up inside the wall.
    let mut file = yard(
        json!([spot("s1", [0.0, 0.0], false)]),
        json!([{"id": "t1", "name": "Till", "subject": "face", "task": "identify", "height_m": 1.6, "fixed": true,
            "shape": {"kind": "point", "points": [[0.0, 12.0]]}}]),
        json!([level("r1", "t1", "s1", 12.3, 0.02)]),
    );
    file["obstacles"] = json!([block([-5.0, 5.0], [-4.0, 0.0], 5.0)]);
    let mut camera = CameraAt { height: 3.0, tilt: 6.0, focal: 12.0, ..Default::default() }.json();
    camera["spot"] = json!("s1");
    file["cameras"] = json!([camera]);
    let found = adjusted(&file);
    assert!(point(&found, "s1").position[1] < -0.25, "{:?}", found.points);
    let patch: json_patch::Patch = serde_json::from_value(serde_json::to_value(&found.patch).unwrap()).unwrap();
    let before = evaluate(&parse(&file)).sight_lines[0].clear;
    json_patch::patch(&mut file, &patch).unwrap();
    let site = parse(&file);
    near(site.file().spots[0].position[1], 0.0, 1e-3);
    assert_eq!(site.file().cameras.first().unwrap().position, site.file().spots[0].position);
    assert!(before && evaluate(&site).sight_lines[0].clear);
}

#[test]
fn a_distance_from_a_spot_counts_only_for_what_hangs_there() {
    let worst = |at: [f64; 2]| {
        let mut t = target("scene", "observe", [0.0, 20.0], 3.0);
        t["distance"] = json!({"how": "plan", "from": [{"spot": "s1", "plus_minus_m": 0.01}]});
        let mut camera = CameraAt { at, tilt: 0.0, ..Default::default() }.json();
        camera["spot"] = json!("s1");
        let mut file = site(vec![camera], vec![t], vec![]);
        file["spots"] = json!([spot("s1", [0.0, 0.0], false)]);
        let line = evaluate(&parse(&file)).sight_lines[0].clone();
        line.rules.iter().find_map(|rule| rule.worst.filter(|_| rule.unit == Unit::PxPerM)).unwrap()
            / line.px_per_m.unwrap()
    };
    assert!(worst([0.0, 0.0]) > 0.968 && worst([0.04, 0.0]) > 0.968, "measured from there");
    assert!(worst([0.3, 0.0]) < 0.95, "moved off its spot it is off the plan again");
}

#[test]
fn accepting_puts_everything_where_the_tape_has_it_and_is_done_once() {
    let mut file = yard(
        json!([spot("s1", [0.0, 0.0], false), spot("s2", [12.0, 0.0], true)]),
        json!([{"id": "t1", "name": "Till", "subject": "face", "task": "identify", "height_m": 1.6,
            "shape": {"kind": "point", "points": [[0.0, 19.6]]}}]),
        json!([
            level("r1", "t1", "s1", 18.87, 0.02),
            level("r2", "t1", "s2", 22.4, 0.02),
            level("r3", "s1", "s2", 12.2, 0.02)
        ]),
    );
    let mut camera = CameraAt { height: 3.0, tilt: 4.0, ..Default::default() }.json();
    camera["spot"] = json!("s1");
    file["cameras"] = json!([camera]);
    let before = adjusted(&file);
    assert!(point(&before, "t1").moved_m > 0.1);
    let patch: json_patch::Patch = serde_json::from_value(serde_json::to_value(&before.patch).unwrap()).unwrap();
    json_patch::patch(&mut file, &patch).unwrap();

    let site = parse(&file);
    let (spot, target, camera) = (&site.file().spots[0], &site.file().targets[0], &site.file().cameras[0]);
    near(target.shape.points[0][1], point(&before, "t1").position[1], 5e-4);
    assert_eq!(camera.position, spot.position, "a camera goes with its spot");
    // Every sight line uses the adjusted positions with their own uncertainty: along the line that was measured it is that of the
    // reading, twice 0.02 m, though neither end is known that well.
    assert!(point(&before, "t1").ellipse.major_m > 0.03);
    let own = target.distance.from.iter().find(|from| from.spot == "s1").unwrap().plus_minus_m;
    near(own, 0.04, 0.003);
    let line = &evaluate(&site).sight_lines[0];
    near(line.ground_m, 18.87, 0.05);
    let worst = line.rules.iter().find_map(|rule| rule.worst.filter(|_| rule.unit == Unit::PxPerM)).unwrap();
    // A little less: the target may lie to the side, lower or higher, too.
    near(worst, line.px_per_m.unwrap() * 0.97 * line.ground_m / (line.ground_m + own), 0.3);

    // The same readings say the same again.
    let after = adjusted(&file);
    assert!(after.points.iter().all(|point| point.moved_m < 2e-2), "{:?}", after.points);
}
