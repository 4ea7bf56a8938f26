//! Plates on their way: against OpenCV (`outside/plates`), closed forms by hand, and what a hand does to them.

use crate::support;

use bright_angle_core::answer::{Ask, Door};
use bright_angle_core::judge::Session;
use bright_angle_core::words::units::Units;
use serde_json::{Value, json};
use support::{parse, site};

fn plate_camera(eye: [f64; 3], aim: [f64; 2], focal: f64, exposure: Option<Value>) -> Value {
    let mut camera = json!({"id": "c1", "name": "C1", "position": [eye[0], eye[1]], "height_m": eye[2],
        "model": {"name": "Test", "form": "plate", "infrared_m": 50,
            "sensor": {"width_px": 1920, "height_px": 1080, "width_mm": 5.376, "height_mm": 3.024},
            "lens": {"focal_min_mm": 8.0, "focal_max_mm": 32.0, "f_number": 1.6}},
        "heads": [{"id": "h1", "pan_deg": aim[0], "tilt_deg": aim[1], "focal_mm": focal}]});
    if let Some(exposure) = exposure {
        camera["heads"][0]["exposure"] = exposure;
    }
    camera
}

fn way(points: Value, speed: f64) -> Value {
    json!({"id": "t1", "name": "Lane", "subject": "plate", "task": "read", "speed_mps": speed,
        "shape": {"kind": "line", "points": points}, "height_m": 0.7, "distance": {"how": "laser"}})
}

fn told(site: &Value, ask: &Ask) -> Value {
    serde_json::to_value(Door::on(Session::on(parse(site))).ask(ask.clone()).unwrap()).unwrap()
}

fn plates(site: &Value) -> Value {
    told(site, &Ask::Plates)
}

#[test]
fn where_plates_read_is_where_opencv_has_it() {
    let cases: Value = serde_json::from_str(include_str!("../../../outside/plates/plates.json")).unwrap();
    let mut read = 0;
    for (number, case) in cases.as_array().unwrap().iter().enumerate() {
        let f = |name: &str| case[name].as_f64().unwrap();
        let eye: Vec<f64> = case["eye"].as_array().unwrap().iter().map(|axis| axis.as_f64().unwrap()).collect();
        let exposure = json!({"shutter_s": f("shutter_s"), "fps": 25});
        let camera =
            plate_camera([eye[0], eye[1], eye[2]], [f("pan_deg"), f("tilt_deg")], f("focal_mm"), Some(exposure));
        let site = site(vec![camera], vec![way(case["way"].clone(), f("speed_mps"))], vec![]);
        let found = plates(&site);
        let expected = &case["found"];
        if expected.is_null() {
            assert!(found[0]["zone"].is_null(), "case {number}: {found}");
            continue;
        }
        read += 1;
        let close = |name: &str, found: &Value, expected: &Value, share: f64| {
            let (a, b) = (found.as_f64().unwrap(), expected.as_f64().unwrap());
            assert!((a - b).abs() <= share * b.abs().max(1.0), "case {number}, {name}: {a}, not {b}");
        };
        for name in ["from", "to", "near_m", "far_m"] {
            close(name, &found[0]["zone"][name], &expected[name], 1e-9);
        }
        for name in ["time_s", "blur_px", "char_height_px", "stroke_px", "scene_width_m"] {
            close(name, &found[0][name], &expected[name], 1e-5);
        }
        for end in 0..2 {
            close("size_window_px", &found[0]["size_window_px"][end], &expected["size_window_px"][end], 1e-5);
        }
    }
    assert!(read >= 20, "{read}");
}

/// A level camera straight behind a plate that drives away on its axis: everything by hand.
#[test]
fn a_plate_on_the_axis_by_hand() {
    let exposure = json!({"shutter_s": 0.002, "fps": 30});
    let camera = plate_camera([0.0, 0.0, 0.7], [0.0, 0.0], 16.0, Some(exposure));
    let site = site(vec![camera], vec![way(json!([[0, 5], [0, 45]]), 10.0)], vec![]);
    let found = &plates(&site)[0];
    let near = |value: &Value, expected: f64| {
        assert!((value.as_f64().unwrap() - expected).abs() < 1e-6 * expected.abs().max(1.0), "{value}, not {expected}");
    };
    // 16 mm are 5714.29 px: 250 px/m reach to 22.857 m, the last tenth of a metre before it is at 22.8. At 5 m the plate (0.52 m,
    // 594 px) is in the picture, so it reads from the first sample on.
    near(&found["zone"]["from"], 0.0);
    near(&found["zone"]["to"], 17.8);
    near(&found["zone"]["far_m"], 22.8);
    near(&found["time_s"], 1.78);
    near(&found["looks"], 53.0);
    // It drives along the axis: its middle stands still in the picture.
    near(&found["blur_px"], 0.0);
    near(&found["focus_m"], 2.0 * 5.0 * 22.8 / 27.8);
    near(&found["infrared_stops"], 2.0 * (22.8_f64 / 5.0).log2());
    near(&found["char_height_px"], (40_000.0 / 7.0) / 22.8 * 0.079);
    near(&found["stroke_px"], (40_000.0 / 7.0) / 22.8 * 0.014);
    near(&found["scene_width_m"], 1920.0 / ((40_000.0 / 7.0) / 22.8));
    // H = f²/(N c) + f with c = 2.8 µm, N = 1.6: 57 158.9 mm; near = s(H − f)/(H + s − 2f), far = s(H − f)/(H − s).
    let (s, f, hyper) = (2.0 * 5.0 * 22.8 / 27.8, 0.016, 0.016 * 0.016 / (1.6 * 2.8e-6) + 0.016);
    near(&found["sharp"]["near_m"], s * (hyper - f) / (hyper + s - 2.0 * f));
    near(&found["sharp"]["far_m"], s * (hyper - f) / (hyper - s));
}

/// Across the axis at 20 m the blur is speed × shutter × density: 10 m/s, 1/500 s, 285.7 px/m.
#[test]
fn blur_across_the_axis_is_speed_times_shutter_times_density() {
    let mut target = way(json!([[-0.1, 20], [0.1, 20]]), 10.0);
    target["facing_deg"] = json!(180);
    let camera = plate_camera([0.0, 0.0, 0.7], [0.0, 0.0], 16.0, Some(json!({"shutter_s": 0.002, "fps": 30})));
    let found = &plates(&site(vec![camera], vec![target], vec![]))[0];
    assert!((found["blur_px"].as_f64().unwrap() - 10.0 * 0.002 * 285.714_285_7).abs() < 1e-3, "{found}");
    let wanted = found["shutter_wanted_s"].as_f64().unwrap();
    assert!((wanted * 10.0 * 285.714_285_7 - 1.0).abs() < 1e-4);
}

/// Common practice, no source: an 8–32 mm plate camera reads from about 50 ft zoomed out to about 100 ft zoomed in, no further; one
/// setting that reads from 15 to 100 ft is 5.5 stops apart.
#[test]
fn trade_facts_of_plates() {
    const FOOT: f64 = 0.3048;
    let reads_at = |focal: f64, feet: f64| {
        let camera = plate_camera([0.0, 0.0, 1.2], [0.0, 0.0], focal, None);
        let mut target = way(json!([[0.0, feet * FOOT - 0.05], [0.0, feet * FOOT + 0.05]]), 5.0);
        target["needs_px_per_m"] = json!(187);
        !plates(&site(vec![camera], vec![target], vec![]))[0]["zone"].is_null()
    };
    assert!(reads_at(8.0, 50.0) && !reads_at(8.0, 55.0));
    assert!(reads_at(32.0, 100.0) && reads_at(32.0, 150.0));
    let stops = |near: f64, far: f64| bright_angle_core::light::infrared::stops_across(near * FOOT, far * FOOT);
    assert!((stops(15.0, 100.0) - 5.47).abs() < 0.01 && (stops(25.0, 75.0) - 3.17).abs() < 0.01);
}

fn lane_site(speed: f64, shutter: f64) -> Value {
    // Beside the way, so that plates move across the picture.
    let camera = plate_camera([2.5, 0.0, 1.2], [353.5, 1.5], 25.0, Some(json!({"shutter_s": shutter, "fps": 25})));
    site(vec![camera], vec![way(json!([[0, 40], [0, 4]]), speed)], vec![])
}

fn rule(site: &Value, name: &str) -> Value {
    let found = support::evaluated(site);
    let rules = found["sight_lines"][0]["rules"].as_array().unwrap().clone();
    rules.into_iter().find(|rule| rule["rule"] == name).unwrap_or(Value::Null)
}

#[test]
fn faster_plates_are_seen_less_often_and_drawn_out_more() {
    let slow = lane_site(3.0, 0.001);
    assert_eq!(rule(&slow, "looks")["verdict"], "kept");
    assert_eq!(rule(&slow, "blur")["verdict"], "kept");
    let looks = |speed: f64| rule(&lane_site(speed, 0.0001), "looks");
    let verdicts: Vec<Value> = [3.0, 40.0, 150.0].into_iter().map(|speed| looks(speed)["value"].clone()).collect();
    let figures: Vec<f64> = verdicts.iter().map(|looks| looks.as_f64().unwrap()).collect();
    assert!(figures[0] > figures[1] && figures[1] > figures[2], "{figures:?}");
    assert_eq!(looks(150.0)["verdict"], "tight");
    let mut few = lane_site(150.0, 0.0001);
    few["cameras"][0]["heads"][0]["exposure"]["fps"] = json!(5);
    assert_eq!(rule(&few, "looks")["verdict"], "broken");
    let blur = |shutter: f64| rule(&lane_site(10.0, shutter), "blur");
    assert_eq!(blur(0.0001)["verdict"], "kept");
    assert_eq!(blur(0.02)["verdict"], "broken");
    // Twice the shutter, twice the blur.
    let [one, two] = [0.001, 0.002].map(|shutter| blur(shutter)["value"].as_f64().unwrap());
    assert!((two / one - 2.0).abs() < 1e-9);
}

#[test]
fn what_nobody_said_is_unknown_and_who_stands_is_not_judged_in_time() {
    let mut site = lane_site(3.0, 0.001);
    site["cameras"][0]["heads"][0].as_object_mut().unwrap().remove("exposure");
    assert_eq!(rule(&site, "looks")["verdict"], "unknown");
    assert_eq!(rule(&site, "blur")["verdict"], "unknown");
    // What does not hold all over the zone may hold where there are looks: of these nobody knows.
    assert_eq!(rule(&site, "lane_width")["verdict"], "unknown");
    assert_eq!(support::evaluated(&site)["sight_lines"][0]["verdict"], "unknown");
    site["cameras"][0]["model"]["lens"].as_object_mut().unwrap().remove("f_number");
    assert_eq!(rule(&site, "sharp")["verdict"], "unknown");
    let standing = lane_site(0.0, 0.001);
    assert!(rule(&standing, "looks").is_null());
    let found = plates(&standing);
    assert!(found[0]["time_s"].is_null() && found[0]["looks"].is_null() && !found[0]["zone"].is_null());
}

#[test]
fn bad_input_is_named() {
    let fault = |change: &dyn Fn(&mut Value)| {
        let mut site = lane_site(3.0, 0.001);
        change(&mut site);
        let faults = bright_angle_core::Site::parse(&site.to_string()).unwrap_err();
        faults.iter().map(ToString::to_string).collect::<Vec<_>>().join("; ")
    };
    assert!(fault(&|site| site["targets"][0]["speed_mps"] = json!(200)).contains("targets[0].speed_mps"));
    assert!(fault(&|site| site["cameras"][0]["heads"][0]["exposure"]["shutter_s"] = json!(0)).contains("shutter_s"));
    assert!(fault(&|site| site["cameras"][0]["heads"][0]["exposure"]["fps"] = json!(0)).contains("fps"));
    assert!(fault(&|site| site["rules"] = json!({"looks_tight": 9})).contains("looks_tight"));
    let odd = json!({"name": "Odd", "character_m": 0.08, "stroke_m": 0, "reflecting": true});
    assert!(fault(&|site| site["targets"][0]["plate"] = odd.clone()).contains("targets[0].plate.stroke_m"));
    // A way that crosses itself is one: it reads where it reads.
    let mut crossing = lane_site(3.0, 0.001);
    crossing["targets"][0]["shape"]["points"] = json!([[0, 40], [0, 10], [3, 20], [-3, 20]]);
    assert!(!plates(&crossing)[0]["zone"].is_null());
}

#[test]
fn a_wall_ends_the_zone_and_a_session_follows() {
    let mut walled = lane_site(3.0, 0.001);
    let whole = plates(&walled)[0]["zone"].clone();
    walled["obstacles"] = json!([{"id": "o1", "name": "Wall", "kind": "wall", "top_m": 2, "outline": [[0.9, 14], [3, 14], [3, 14.2], [0.9, 14.2]]}]);
    let short = plates(&walled)[0]["zone"].clone();
    assert!(short["to"].as_f64().unwrap() <= whole["to"].as_f64().unwrap());
    assert_ne!(short, whole);
}

#[test]
fn an_overview_beside_the_reader_is_part_of_the_promise() {
    let mut site = lane_site(3.0, 0.001);
    site["rules"] = json!({});
    let promise = |site: &Value| support::evaluated(site)["targets"][0].clone();
    let alone = promise(&site);
    assert_eq!((alone["overview"]["verdict"].as_str(), alone["overview"]["head"].is_null()), (Some("broken"), true));
    assert_eq!(alone["verdict"], "tight", "{alone}");
    // The site may wish for none.
    site["rules"]["overview_pair"] = json!(false);
    assert!(promise(&site)["overview"].is_null());
    site["rules"]["overview_pair"] = json!(true);
    // The way that is offered keeps it once it is applied.
    let session = Session::on(parse(&site));
    let line =
        bright_angle_core::file::Question { camera: "c1".into(), head: "h1".into(), view: None, target: "t1".into() };
    let ways = bright_angle_core::change::ways::ways(&session, &line, Units::Metres).unwrap();
    let way = ways.ways.iter().find(|way| way.says.contains("overview")).expect("an overview is offered");
    let patch: json_patch::Patch = serde_json::from_value(json!(way.patch)).unwrap();
    json_patch::patch(&mut site, &patch).unwrap();
    assert_eq!(promise(&site)["overview"]["verdict"], "kept");
}

#[test]
fn choke_points_hold_once_they_are_applied() {
    // Far to the side nothing reads; the spot at the gate does.
    let camera = plate_camera([14.0, 20.0, 3.0], [280.0, 5.0], 8.0, None);
    let mut site = site(vec![camera], vec![way(json!([[0, 60], [0, 4]]), 6.0)], vec![]);
    site["spots"] = json!([{"id": "s1", "name": "Gate post", "position": [1.8, 2.0], "height_m": 1.2},
        {"id": "s2", "name": "Far mast", "position": [60, 60], "height_m": 4}]);
    let session = Session::on(parse(&site));
    let line =
        bright_angle_core::file::Question { camera: "c1".into(), head: "h1".into(), view: None, target: "t1".into() };
    let ways = bright_angle_core::change::ways::ways(&session, &line, Units::Metres).unwrap();
    let choke = ways.ways.iter().filter(|way| way.says.starts_with("Read them from")).collect::<Vec<_>>();
    assert!(choke.iter().any(|way| way.says.contains("Gate post")), "{ways:?}");
    for way in choke {
        let patch: json_patch::Patch = serde_json::from_value(json!(way.patch)).unwrap();
        let mut then = site.clone();
        json_patch::patch(&mut then, &patch).unwrap();
        assert_eq!(support::evaluated(&then)["sight_lines"][0]["verdict"], "kept", "{}", way.says);
    }
}

#[test]
fn a_card_says_what_is_set_and_why() {
    let mut site = lane_site(8.0, 0.001);
    site["place"] = json!({"latitude_deg": 51.5, "longitude_deg": -0.1, "time_zone": "Europe/London"});
    site["obstacles"] = json!([{"id": "o1", "name": "Painted lorry", "kind": "vehicle", "top_m": 3, "lettering": true,
        "outline": [[-3, 44], [0, 44], [0, 46], [-3, 46]]}]);
    let head = bright_angle_core::file::HeadRef { camera: "c1".into(), head: "h1".into(), view: None };
    let ask = Ask::StartSettings { head: head.clone(), date: Some("2027-06-21".into()), units: Units::Metres };
    let card = told(&site, &ask)[0].clone();
    let value = |name: &str| {
        let settings = card["settings"].as_array().unwrap();
        settings.iter().find(|setting| setting["name"] == name).unwrap()["value"].as_str().unwrap().to_owned()
    };
    // The shutter leaves no more than a pixel of blur, and the next longer one would.
    let found = &plates(&site)[0];
    let wanted = found["shutter_wanted_s"].as_f64().unwrap();
    let set = card["exposure"]["shutter_s"].as_f64().unwrap();
    assert!(set <= wanted.min(1.0 / 500.0) * (1.0 + 1e-9), "{set} {wanted}");
    // Sunrise in London on that day: 04:43 BST, sunset 21:21 BST (almanacs, from memory); half an hour after and before, a few minutes
    // off for the centre of the sun.
    let clock = value("Day and night");
    assert!(clock.starts_with("day from 05:1") && clock.contains("night from 20:"), "{clock}");
    assert_eq!(card["false_reads"], json!(["Painted lorry: carries writing"]));
    let csv = told(&site, &Ask::StartSettingsCsv { head, date: None, units: Units::Metres });
    assert!(csv.as_str().unwrap().lines().count() > 7 && csv.as_str().unwrap().contains("Painted lorry"));
}

#[test]
fn both_schools_are_priced() {
    // Four metres up and near it: too steep for the level school, not for the raised one.
    let camera = plate_camera([1.0, 0.0, 4.0], [357.0, 15.0], 14.0, None);
    let site = site(vec![camera], vec![way(json!([[0, 30], [0, 6]]), 5.0)], vec![]);
    let line =
        bright_angle_core::file::Question { camera: "c1".into(), head: "h1".into(), view: None, target: "t1".into() };
    let found = told(&site, &Ask::Schools { line });
    let reads = |place: usize| found[place]["reads_m"].as_f64().unwrap();
    assert_eq!((&found[0]["school"], &found[1]["school"]), (&json!("level"), &json!("raised")));
    assert!(reads(1) > reads(0) + 1.0, "{found}");
    assert!(found[0]["worst_deg"][1].as_f64().unwrap() <= 15.0 && found[1]["worst_deg"][1].as_f64().unwrap() > 15.0);
}
