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
        let through = point_through(&site, "t", "h", kept_back[0].pixel, 0).unwrap();
        let (pan, tilt) = (through.pan_deg, through.tilt_deg);
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

/// A second fixed view beside the first, with the pairs that it has of the same places.
fn with_a_second_view(case: &Case, first: usize) -> Value {
    let site = site(case, &case.pairs[..first]);
    let mut file = serde_json::to_value(site.file()).unwrap();
    // The same view once more: what is seen in it is known.
    let mut second = file["cameras"][0].clone();
    (second["id"], second["name"]) = (json!("g"), json!("G"));
    file["cameras"].as_array_mut().unwrap().push(second);
    let rest: Vec<Value> = case.pairs[first..6]
        .iter()
        .map(|pair| json!({"pixel": pair.pixel, "pan_deg": pair.pan_deg, "tilt_deg": pair.tilt_deg}))
        .collect();
    file["cameras"][1]["heads"][0]["also_pointed_by"] = json!([{"camera": "g", "head": "h", "pairs": rest}]);
    file
}

#[test]
fn several_fixed_views_point_one_head_together() {
    for case in cases() {
        let file = with_a_second_view(&case, 3);
        let site = Site::parse(&file.to_string()).unwrap();
        // Three pairs each: neither would be enough alone.
        let found = link_of(&site, "t", "h").unwrap();
        assert_eq!(found.views.iter().map(|view| view.pairs).collect::<Vec<_>>(), [3, 3]);
        assert!(found.rms_deg < 0.01 && found.views.iter().all(|view| view.rms_deg < 0.02), "{found:?}");
        let through = point_through(&site, "t", "h", case.pairs[6].pixel, 1).unwrap();
        assert!(apart(through.pan_deg, case.pairs[6].pan_deg) < 0.05);
    }
    let case = &cases()[0];
    let mut five = with_a_second_view(case, 3);
    let one = five["cameras"][1]["heads"][0]["also_pointed_by"][0].clone();
    five["cameras"][1]["heads"][0]["also_pointed_by"] = json!([one, one, one, one]);
    assert!(Site::parse(&five.to_string()).unwrap_err()[0].path.ends_with("also_pointed_by"));
}

#[test]
fn where_a_link_is_not_to_be_trusted_it_says_so() {
    let case = &cases()[0];
    let cautions = |file: &Value, pixel: [f64; 2]| {
        point_through(&Site::parse(&file.to_string()).unwrap(), "t", "h", pixel, 0).unwrap().cautions.join("; ")
    };
    let mut file = serde_json::to_value(site(case, &case.pairs[..6]).file()).unwrap();
    let middle = [0, 1].map(|axis| case.pairs[..6].iter().map(|pair| pair.pixel[axis]).sum::<f64>() / 6.0);
    assert_eq!(cautions(&file, middle), "");
    assert!(cautions(&file, [5.0, 1075.0]).contains("extrapolated"));
    // A wall across the fixed view, a metre from it: what it shows is the wall.
    let [x, y] = [case.eye[0], case.eye[1]];
    let (sin, cos) = case.pan_deg.to_radians().sin_cos();
    let at = |ahead: f64, aside: f64| [x + sin * ahead + cos * aside, y + cos * ahead - sin * aside];
    file["obstacles"] = json!([{"id": "o1", "name": "Hoarding", "kind": "wall", "closed": false, "top_m": 6,
        "outline": [at(1.0, -4.0), at(1.0, 4.0)]}]);
    assert!(cautions(&file, middle).contains("the fixed view sees Hoarding there"), "{}", cautions(&file, middle));
}

#[test]
fn a_view_that_was_moved_since_its_pairs_says_so_and_a_pointed_head_may_look_anywhere() {
    let case = &cases()[0];
    let mut file = serde_json::to_value(site(case, &case.pairs[..6]).file()).unwrap();
    let hung = |camera: &Value| {
        let head = &camera["heads"][0];
        json!({"position": camera["position"], "height_m": camera["height_m"], "model": "M",
            "aimed": {"pan_deg": head["pan_deg"], "tilt_deg": head["tilt_deg"], "roll_deg": 0, "focal_mm": 6}})
    };
    let both = json!({"fixed": hung(&file["cameras"][0]), "turned": hung(&file["cameras"][1])});
    file["cameras"][1]["heads"][0]["pointed_by"]["hung"] = both;
    let past =
        |file: &Value| link_of(&Site::parse(&file.to_string()).unwrap(), "t", "h").unwrap().views[0].past.clone();
    assert_eq!(past(&file), None);
    let mut turned = file.clone();
    turned["cameras"][1]["heads"][0]["pan_deg"] = json!(77);
    assert_eq!(past(&turned), None, "where it looks is what is pointed");
    let mut knocked = file.clone();
    knocked["cameras"][0]["heads"][0]["tilt_deg"] = json!(case.tilt_deg + 0.3);
    assert_eq!(past(&knocked).as_deref(), Some("F: it looks elsewhere now, take its pairs again"));
    let mut lifted = file;
    lifted["cameras"][1]["height_m"] = json!(case.drawn[2] + 0.5);
    assert_eq!(past(&lifted).as_deref(), Some("T hangs elsewhere now: take its pairs again"));
}

#[test]
fn two_cameras_in_one_housing_fail_together() {
    use crate::support::{CameraAt, parse, target};
    use bright_angle_core::ground::lost::lost;
    use bright_angle_core::judge::Session;
    let one = CameraAt { tilt: 0.0, ..CameraAt::default() }.json();
    let mut two = one.clone();
    (two["id"], two["name"], two["position"]) = (json!("c2"), json!("C2"), json!([0.3, 0]));
    let mut face = target("face", "detect", [0.0, 12.0], 3.0);
    face["heads_wanted"] = json!(2);
    let verdict = |cameras: Vec<Value>, wanted: u32| {
        let mut face = face.clone();
        face["heads_wanted"] = json!(wanted);
        let session = Session::on(parse(&crate::support::site(cameras, vec![face], vec![])));
        (session.results()[0].verdict.word(), lost(&session).len())
    };
    assert_eq!(verdict(vec![one.clone(), two.clone()], 2), ("kept", 2));
    two["housed_with"] = json!("c1");
    assert_eq!(verdict(vec![one.clone(), two.clone()], 2).0, "broken", "a back-up in the same housing is none");
    assert_eq!(verdict(vec![one.clone(), two.clone()], 1), ("kept", 2), "either takes both with it");
    two["housed_with"] = json!("c2");
    let alone = crate::support::site(vec![one, two], vec![face], vec![]);
    assert!(Site::parse(&alone.to_string()).unwrap_err()[0].path.ends_with("cameras[1].housed_with"));
}
