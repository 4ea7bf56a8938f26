//! How cameras hang and what they withstand there (handbook, section 6, "Reach, weather, build"; common practice, no source), and what
//! raised ground does to a face seen from above.

use crate::support::{CameraAt, evaluated, parse, site, target};
use bright_angle_core::file::{ListChange, PrivatePlace, SiteChange};
use bright_angle_core::judge::Session;
use bright_angle_core::verdict::Verdict;
use bright_angle_core::{Site, evaluate};
use serde_json::{Value, json};

fn rule(site: &Value, name: &str) -> Value {
    let found = evaluated(site);
    let rules = found["sight_lines"][0]["rules"].as_array().cloned().unwrap_or_default();
    rules.into_iter().find(|rule| rule["rule"] == name).unwrap_or(Value::Null)
}

fn verdict(site: &Value, name: &str) -> String {
    rule(site, name)["verdict"].as_str().unwrap_or("none").to_owned()
}

/// A camera of a form three metres up, tilted, before a person.
fn hung(form: &str, tilt: f64) -> Value {
    let mut camera = CameraAt { tilt, ..CameraAt::default() }.json();
    camera["model"]["form"] = json!(form);
    // Wide enough to have the person in front of it whatever the tilt.
    camera["model"]["lens"] = json!({"focal_min_mm": 1.4, "focal_max_mm": 1.4, "hfov_at_min_deg": 170});
    camera["heads"][0]["focal_mm"] = json!(1.4);
    site(vec![camera], vec![target("person", "detect", [0.0, 2.0], 1.6)], vec![])
}

#[test]
fn a_face_is_seen_from_above_by_the_ground_under_both() {
    let steep = |camera_ground: f64, target_ground: f64| {
        let mut camera = CameraAt { height: 3.2, ..CameraAt::default() }.json();
        camera["ground_m"] = json!(camera_ground);
        let mut person = target("person", "recognise", [0.0, 8.0], 1.0);
        person["ground_m"] = json!(target_ground);
        let found = rule(&site(vec![camera], vec![person], vec![]), "face_from_above");
        (found["value"].as_f64().unwrap(), found["verdict"].as_str().unwrap().to_owned())
    };
    // By hand: eyes 1.6 m over the person's ground, atan(Δ/8).
    for (camera, person, drop, expected) in
        [(0.0, 0.0, 1.6, "kept"), (0.0, -2.0, 3.6, "tight"), (5.0, 5.0, 1.6, "kept"), (4.0, 0.0, 5.6, "broken")]
    {
        let (value, verdict) = steep(camera, person);
        let by_hand = f64::atan2(drop, 8.0).to_degrees();
        assert!((value - by_hand).abs() < 1e-9 && verdict == expected, "{camera} {person}: {value} {verdict}");
    }
}

#[test]
fn a_build_takes_the_aims_that_it_takes_as_it_hangs() {
    let stands = |form: &str, tilt: f64, hangs: Option<&str>| {
        let mut site = hung(form, tilt);
        if let Some(hangs) = hangs {
            site["cameras"][0]["mounted_as"] = json!(hangs);
        }
        verdict(&site, "build")
    };
    for (form, hangs, kept, broken) in [
        ("turret", None, vec![-5.0, 80.0], vec![-6.0, 85.0]),
        ("bullet", None, vec![-5.0, 80.0], vec![-6.0, 85.0]),
        ("box", None, vec![-45.0, 90.0], vec![-50.0]),
        ("ptz", None, vec![-10.0, 90.0], vec![-15.0]),
        ("multi_head", None, vec![15.0, 75.0], vec![10.0, 90.0]),
        ("dome", Some("ceiling"), vec![23.0, 90.0], vec![3.0, 22.0]),
        ("dome", Some("pendant"), vec![23.0, 90.0], vec![3.0]),
        ("dome", Some("wall"), vec![3.0, 67.0], vec![70.0, 90.0]),
        // Nobody said how: one usual way is enough.
        ("dome", None, vec![3.0, 90.0], vec![]),
        ("fisheye", Some("ceiling"), vec![90.0], vec![60.0]),
        ("fisheye", None, vec![90.0, 0.0], vec![45.0]),
    ] {
        for tilt in kept {
            assert_eq!(stands(form, tilt, hangs), "kept", "{form} {hangs:?} {tilt}");
        }
        for tilt in broken {
            assert_eq!(stands(form, tilt, hangs), "broken", "{form} {hangs:?} {tilt}");
        }
    }
    // What the model states goes before what is usual.
    let mut stated = hung("turret", 85.0);
    stated["cameras"][0]["model"]["tilts_deg"] = json!([0, 90]);
    assert_eq!(verdict(&stated, "build"), "kept");
    // Of long range a bubble shows more.
    let mut long = hung("dome", 6.0);
    long["cameras"][0]["mounted_as"] = json!("ceiling");
    long["cameras"][0]["model"]["lens"]["focal_max_mm"] = json!(30);
    assert_eq!(verdict(&long, "build"), "kept");
    assert!(rule(&hung("dome", 3.0), "build")["basis"].as_str().unwrap().contains("if it is mounted so: not stated"));
}

#[test]
fn a_dome_on_a_wall_looks_off_its_walls_axis_only_so_far() {
    let on_wall = |pan: f64| {
        let mut site = hung("dome", 5.0);
        site["cameras"][0]["mounted_as"] = json!("wall");
        site["cameras"][0]["position"] = json!([0, 0.05]);
        site["cameras"][0]["heads"][0]["pan_deg"] = json!(pan);
        // Its face looks north.
        site["obstacles"] = json!([{"id": "o1", "name": "House", "kind": "building", "top_m": 6, "outline": [[-9, -5], [9, -5], [9, 0], [-9, 0]]}]);
        rule(&site, "build")
    };
    assert_eq!(on_wall(0.0)["verdict"], "kept");
    assert_eq!(on_wall(60.0)["verdict"], "kept");
    let along = on_wall(80.0);
    assert_eq!(along["verdict"], "broken", "{along}");
    // cos = cos 80° · cos 5°.
    let by_hand = (80_f64.to_radians().cos() * 5_f64.to_radians().cos()).acos().to_degrees();
    assert!((along["value"].as_f64().unwrap() - by_hand).abs() < 1e-9);
}

/// A camera on a spot of which the surveyor said something.
fn spotted(form: &str, said: Value, model: Value) -> Value {
    let mut site = hung(form, 20.0);
    let mut spot = json!({"id": "s1", "name": "Post", "position": [0, 0], "height_m": 3});
    for (name, value) in said.as_object().unwrap() {
        spot[name] = value.clone();
    }
    site["spots"] = json!([spot]);
    site["cameras"][0]["spot"] = json!("s1");
    for (name, value) in model.as_object().unwrap() {
        site["cameras"][0]["model"][name] = value.clone();
    }
    site
}

#[test]
fn what_a_hand_reaches_withstands_it() {
    let stands =
        |form: &str, ik: Value| verdict(&spotted(form, json!({"in_reach": true}), json!({"ik": ik})), "within_reach");
    assert_eq!(["IK10", "IK08", "IK07"].map(|ik| stands("vandal_dome", json!(ik))), ["kept", "kept", "broken"]);
    assert_eq!(stands("bullet", json!(null)), "tight");
    // A turret's collar stays turnable.
    assert_eq!(stands("turret", json!("IK10")), "broken");
    let mut housed = spotted("turret", json!({"in_reach": true}), json!({}));
    housed["cameras"][0]["housing"] = json!({"ik": "IK10"});
    assert_eq!(verdict(&housed, "within_reach"), "kept");
    // Higher than it was surveyed nobody said that it is.
    let mut higher = spotted("bullet", json!({"in_reach": true}), json!({}));
    higher["cameras"][0]["height_m"] = json!(4);
    assert_eq!(verdict(&higher, "within_reach"), "none");
    // With nothing said a low one is told.
    let mut low = hung("bullet", 20.0);
    low["cameras"][0]["height_m"] = json!(2.1);
    assert_eq!(verdict(&low, "within_reach"), "kept");
    assert!(evaluated(&low)["heads"][0]["told"].as_str().unwrap().contains("lower"));
    assert_eq!(verdict(&hung("bullet", 20.0), "within_reach"), "none");
    low["cameras"][0]["height_m"] = json!(4);
    assert!(evaluated(&low)["heads"][0]["told"].as_str().unwrap().contains("higher"));
}

#[test]
fn what_stands_outdoors_withstands_the_weather() {
    let stands =
        |form: &str, ip: Value| verdict(&spotted(form, json!({"outdoor": true}), json!({"ip": ip})), "weather");
    assert_eq!(["IP67", "IP66", "IP54"].map(|ip| stands("bullet", json!(ip))), ["kept", "kept", "broken"]);
    assert_eq!(stands("dome", json!(null)), "tight");
    assert_eq!([json!(null), json!("IP67")].map(|ip| stands("box", ip)), ["broken", "broken"]);
    let mut housed = spotted("box", json!({"outdoor": true}), json!({}));
    housed["cameras"][0]["housing"] = json!({});
    assert_eq!(verdict(&housed, "weather"), "kept");
    housed["cameras"][0]["housing"] = json!({"ip": "IP54"});
    assert_eq!(verdict(&housed, "weather"), "broken");
    for said in [json!({"outdoor": false}), json!({})] {
        assert_eq!(verdict(&spotted("box", said, json!({})), "weather"), "none");
    }
}

#[test]
fn the_first_private_place_is_felt_at_once() {
    let camera = CameraAt { tilt: 6.0, ..CameraAt::default() }.json();
    let file = site(vec![camera], vec![target("face", "recognise", [0.0, 12.0], 1.6)], vec![]);
    let mut session = Session::on(parse(&file));
    assert_eq!(session.results()[0].verdict.word(), "kept");
    let garden: PrivatePlace = serde_json::from_value(json!({"id": "p1", "name": "Garden", "base_m": 0, "top_m": 3,
        "outline": [[-2, 11], [2, 11], [2, 13], [-2, 13]]}))
    .unwrap();
    let put = |put: Vec<PrivatePlace>, order: Vec<&str>| SiteChange {
        private: Some(ListChange { order: Some(order.into_iter().map(str::to_owned).collect()), put }),
        ..SiteChange::default()
    };
    session.apply(put(vec![garden], vec!["p1"])).unwrap();
    assert_eq!(session.results()[0].verdict.word(), "broken");
    assert_eq!(session.evaluation(), bright_angle_core::evaluate(session.site()));
    session.apply(put(vec![], vec![])).unwrap();
    assert_eq!(session.results()[0].verdict.word(), "kept");
}

#[test]
fn a_picture_on_its_side_reaches_as_far_up_as_it_is_wide() {
    use bright_angle_core::show::sun::sun_told::{calendar, sun_year};
    let hood = |roll: f64| {
        let mut camera = CameraAt { tilt: 6.0, roll, ..CameraAt::default() }.json();
        camera["heads"][0]["roll_deg"] = json!(roll);
        let mut file = site(vec![camera], vec![target("face", "recognise", [0.0, 12.0], 1.6)], vec![]);
        file["place"] = json!({"latitude_deg": 51.5, "longitude_deg": 0, "time_zone": "UTC"});
        let session = Session::on(parse(&file));
        let head = bright_angle_core::file::HeadRef { camera: "c1".into(), head: "h1".into(), view: None };
        calendar(&session, &head, None, &sun_year(session.site(), 2027).unwrap()).unwrap().hood_mm
    };
    // 6 mm on 5.376 × 3.024 mm: f over half of what is upright.
    assert!((hood(0.0) - 6.0 / 1.512).abs() < 1e-9, "{}", hood(0.0));
    assert!((hood(90.0) - 6.0 / 2.688).abs() < 1e-9, "{}", hood(90.0));
}

#[test]
fn a_camera_that_goes_is_judged_no_more_and_one_that_stays_as_any_other() {
    let mut file: Value = serde_json::from_str(include_str!("../../../demo/tern-quay.json")).unwrap();
    let judged = |file: &Value| evaluate(&Site::parse(&file.to_string()).unwrap());
    let before = judged(&file);
    let kept = before.targets.iter().find(|target| target.verdict == Verdict::Kept).unwrap();
    let best = kept.best.clone().unwrap();
    let place =
        file["cameras"].as_array().unwrap().iter().position(|camera| camera["id"] == best.camera.as_str()).unwrap();
    for word in ["stays", "reused"] {
        file["cameras"][place]["existing"] = json!(word);
        assert_eq!(judged(&file), before, "{word}");
    }
    file["cameras"][place]["existing"] = json!("goes");
    let without = judged(&file);
    assert!(without.sight_lines.iter().all(|line| line.camera != best.camera));
    assert_eq!(without.heads.iter().filter(|head| head.camera == best.camera).count(), 0);
    // As if it had been taken out of the file.
    file["cameras"].as_array_mut().unwrap().remove(place);
    assert_eq!(judged(&file), without);
}
