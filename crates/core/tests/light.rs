//! Light by night: what the contract says of it, the rule that judges it, and what washes out.

use crate::support::{CameraAt, evaluated, parse, site, target};
use bright_angle_core::change::ways::mend::washed_ways;
use bright_angle_core::file::HeadRef;
use bright_angle_core::judge::Session;
use bright_angle_core::show::night::light_told::light_told;
use bright_angle_core::words::units::Units;
use serde_json::{Value, json};

fn lamp(position: [f64; 2], height: f64, lumens: f64) -> Value {
    json!({"id": "l1", "name": "Lamp", "position": position, "height_m": height, "lumens": lumens})
}

fn told(site: &Value) -> Value {
    serde_json::to_value(light_told(&Session::on(parse(site)))).unwrap()
}

fn night(mut site: Value) -> Value {
    site["conditions"] = json!({"night": true});
    site
}

fn rule(site: &Value) -> Value {
    let found = evaluated(site);
    let rules = found["sight_lines"][0]["rules"].as_array().unwrap().clone();
    rules.into_iter().find(|rule| rule["rule"] == "light_enough").unwrap_or(Value::Null)
}

/// A camera at the origin, 3 m up, looking north at a face 12 m away.
fn lit(model: Value) -> Value {
    let mut camera = CameraAt { tilt: 6.0, ..CameraAt::default() }.json();
    for (name, value) in model.as_object().unwrap() {
        camera["model"][name] = value.clone();
    }
    site(vec![camera], vec![target("face", "recognise", [0.0, 12.0], 1.6)], vec![])
}

#[test]
fn light_is_what_the_handbook_says() {
    // Inverse square and cosine by hand: 5000 lm are 795.77 cd; the lamp 2 m before the face and 3.4 m over it.
    let mut site = lit(json!({"infrared": {"range_m": 30, "beam_deg": 60}}));
    site["lamps"] = json!([lamp([0.0, 10.0], 5.0, 5000.0)]);
    let found = told(&site);
    let square: f64 = 2.0 * 2.0 + 3.4 * 3.4;
    let by_hand = 5000.0 / std::f64::consts::TAU / square * (2.0 / square.sqrt());
    assert!((found["targets"][0]["lux_upright"].as_f64().unwrap() / by_hand - 1.0).abs() < 1e-12, "{found}");
    assert_eq!(found["targets"][0]["lamps"], json!(["l1"]));
    assert_eq!(found["targets"][0]["at"], json!([0.0, 12.0]));
    // (R/s)²·cosᵐθ with half of it at half the beam.
    let slant_square: f64 = 144.0 + 1.4 * 1.4;
    let axis = 6_f64.to_radians();
    let off = (1.4_f64 / 12.0).atan() - axis;
    let power = 0.5_f64.ln() / 30_f64.to_radians().cos().ln();
    let relative = 900.0 / slant_square * off.cos().powf(power);
    assert!((found["infrared"][0]["relative"].as_f64().unwrap() / relative - 1.0).abs() < 1e-12);
    assert!((found["infrared"][0]["stops"].as_f64().unwrap() - relative.log2()).abs() < 1e-12);
    // Behind the lamp the face is dark, and a wall shades it.
    site["lamps"] = json!([lamp([0.0, 14.0], 5.0, 5000.0)]);
    assert_eq!(told(&site)["targets"][0]["lux_upright"], 0.0);
    site["lamps"] = json!([lamp([0.0, 10.0], 5.0, 5000.0)]);
    site["obstacles"] = json!([{"id": "o1", "name": "Awning", "kind": "eave", "base_m": 3, "top_m": 3.2,
        "outline": [[-2, 10.5], [2, 10.5], [2, 11.9], [-2, 11.9]]}]);
    assert_eq!(told(&site)["targets"][0]["lamps"], json!([]));
}

#[test]
fn light_is_judged_by_night_only() {
    let by_day = lit(json!({"infrared_m": 30}));
    assert!(rule(&by_day).is_null());
    let found = rule(&night(by_day));
    assert_eq!((found["verdict"].as_str(), found["unit"].as_str()), (Some("kept"), Some("times")));
    // Rated for 10 m it does not reach 12.
    assert_eq!(rule(&night(lit(json!({"infrared_m": 10}))))["verdict"], "broken");
    // Where the model says nothing nobody can tell.
    assert_eq!(rule(&night(lit(json!({}))))["verdict"], "unknown");
    // A range that just does it is not sure: the axis may be off, the face farther.
    let just = rule(&night(lit(json!({"infrared": {"range_m": 12.09, "beam_deg": 60}}))));
    assert_eq!(just["verdict"], "tight", "{just}");
}

#[test]
fn lamps_count_against_the_least_light_at_the_shutter() {
    let with = |least: Option<f64>, shutter: Option<f64>, lumens: f64| {
        let mut site = lit(least.map_or(json!({}), |least| json!({"least_lux": least})));
        if let Some(shutter) = shutter {
            site["cameras"][0]["heads"][0]["exposure"] = json!({"shutter_s": shutter, "fps": 25});
        }
        site["lamps"] = json!([lamp([0.0, 10.0], 5.0, lumens)]);
        rule(&night(site))
    };
    let bright = with(Some(0.01), None, 5000.0);
    assert_eq!(bright["verdict"], "kept");
    // A thirtieth of a second is what it is rated for; a thousandth wants 33 times the light.
    let fast = with(Some(0.01), Some(0.001), 5000.0);
    assert!((bright["value"].as_f64().unwrap() / fast["value"].as_f64().unwrap() - 1000.0 / 30.0).abs() < 1e-9);
    assert_eq!(with(Some(0.01), None, 1.0)["verdict"], "broken");
    assert_eq!(with(None, None, 5000.0)["verdict"], "unknown", "it does not say how little it needs");
}

#[test]
fn a_plate_that_throws_light_back_needs_less_of_it() {
    let mut site = lit(json!({"infrared_m": 10}));
    site["targets"] = json!([{"id": "t1", "name": "P", "subject": "plate", "task": "read", "facing_deg": 180, "height_m": 0.7,
        "shape": {"kind": "point", "points": [[0, 12]]}, "distance": {"how": "laser"}}]);
    let retro = rule(&night(site.clone()))["value"].as_f64().unwrap();
    site["targets"][0]["plate"] =
        json!({"name": "Plain", "character_m": 0.079, "stroke_m": 0.014, "reflecting": false});
    let plain = rule(&night(site))["value"].as_f64().unwrap();
    assert!((retro / plain - 50.0).abs() < 1e-9);
}

#[test]
fn bad_lamps_are_named() {
    let fault = |lamps: Value| {
        let mut site = lit(json!({}));
        site["lamps"] = lamps;
        bright_angle_core::Site::parse(&site.to_string()).unwrap_err()[0].to_string()
    };
    assert!(fault(json!([lamp([0.0, 0.0], 3.0, 1e12)])).contains("lamps[0].lumens"));
    assert!(fault(json!([lamp([0.0, 0.0], -3.0, 10.0)])).contains("lamps[0].height_m"));
    assert!(fault(json!([lamp([0.0, 0.0], 3.0, 10.0), lamp([0.0, 0.0], 3.0, 10.0)])).contains("stands twice"));
    // One that is drawn inside of a solid gives nothing, and is named.
    let mut site = lit(json!({}));
    site["obstacles"] = json!([{"id": "o1", "name": "Store", "kind": "building", "top_m": 6, "outline": [[-3, 8], [3, 8], [3, 11], [-3, 11]]}]);
    site["lamps"] = json!([lamp([0.0, 9.5], 3.0, 5000.0)]);
    assert_eq!(told(&site)["buried"], json!([{"lamp": "l1", "inside": "o1"}]));
}

/// A camera under a bubble that faces its own wall: the wall washes the picture out, and a turn, a build or a lamp of its own mends it.
fn own_wall() -> Value {
    let mut camera = CameraAt { pan: 10.0, tilt: 12.0, focal: 2.8, hfov: Some(103.0), ..CameraAt::default() }.json();
    camera["model"]["infrared_m"] = json!(30);
    let wall = json!({"id": "o1", "name": "Own wall", "kind": "wall", "top_m": 5, "outline": [[0.35, -1], [0.65, -1], [0.65, 9], [0.35, 9]]});
    let mut person = target("person", "observe", [-3.0, 14.0], 1.0);
    person["name"] = json!("Gate");
    site(vec![camera], vec![person], vec![wall])
}

#[test]
fn the_own_wall_washes_out_and_ways_mend_it() {
    let site = own_wall();
    let found = told(&site);
    let washed = &found["washed"][0];
    assert!(washed["share"].as_f64().unwrap() > 0.05, "{washed}");
    assert_eq!(washed["by"][0]["obstacle"], "o1");
    assert!(washed["by"][0]["stops"].as_f64().unwrap() > 4.0);
    // By brute force: the wall begins 0.35 m beside the lens; the light there is (14.4/0.36)² and more of what the person gets.
    let head = HeadRef { camera: "c1".into(), head: "h1".into(), view: None };
    let mends = washed_ways(&Session::on(parse(&site)), &head, Units::Metres).unwrap();
    assert!((mends.now - washed["share"].as_f64().unwrap()).abs() < 1e-12);
    assert!(!mends.ways.is_empty());
    for way in &mends.ways {
        let mut then = site.clone();
        let patch: json_patch::Patch = serde_json::from_value(json!(way.patch)).unwrap();
        json_patch::patch(&mut then, &patch).unwrap();
        let left = told(&then)["washed"][0]["share"].as_f64().unwrap_or(0.0);
        assert!(
            (left - way.measures.left.unwrap()).abs() < 1e-9 && left < mends.now,
            "{}: {left}, not {}",
            way.says,
            way.measures.left.unwrap()
        );
    }
}

#[test]
fn a_bubble_near_its_wall_is_named_and_another_build_mends_it() {
    let mut site = own_wall();
    site["cameras"][0]["model"]["form"] = json!("dome");
    site["cameras"][0]["model"]["sensor"] =
        json!({"width_px": 2688, "height_px": 1520, "width_mm": 5.376, "height_mm": 3.04});
    assert_eq!(told(&site)["washed"][0]["bubble"], "o1");
    // What mends a veiled bubble is offered: the build that has none, judged as it would be.
    let head = HeadRef { camera: "c1".into(), head: "h1".into(), view: None };
    let mends = washed_ways(&Session::on(parse(&site)), &head, Units::Metres).unwrap();
    let cures = |what: &str| mends.ways.iter().any(|way| way.says.contains(what) && way.measures.left.unwrap() < 1.0);
    assert!(
        cures("Turret") && cures("lamp of its own"),
        "{:?}",
        mends.ways.iter().map(|way| &way.says).collect::<Vec<_>>()
    );
    site["cameras"][0]["model"]["form"] = json!("turret");
    assert!(told(&site)["washed"][0]["bubble"].is_null());
}

#[test]
fn lamps_in_or_near_the_picture_are_named() {
    let spoiled = |position: [f64; 2], height: f64| {
        let mut site = lit(json!({}));
        site["lamps"] = json!([lamp(position, height, 3000.0)]);
        told(&site)["spoiled"].clone()
    };
    // 6 mm on 5.376 mm are 48.3° across, 24.1° to each side.
    assert_eq!(spoiled([0.0, 20.0], 4.0)[0]["off_deg"], 0.0);
    let beside = spoiled([20.0 * 30_f64.to_radians().tan(), 20.0], 3.0);
    assert!((beside[0]["off_deg"].as_f64().unwrap() - 5.9).abs() < 0.5, "{beside}");
    assert_eq!(spoiled([20.0 * 40_f64.to_radians().tan(), 20.0], 3.0), json!([]));
    assert_eq!(spoiled([0.0, -20.0], 4.0), json!([]));
}

#[test]
fn the_relief_by_night_is_what_is_seen_and_lit() {
    use bright_angle_core::math::Grid;
    use bright_angle_core::show::coverage::relief::Relief;
    let mut file = lit(json!({"infrared": {"range_m": 10, "beam_deg": 60}, "least_lux": 0.1}));
    file["lamps"] = json!([lamp([6.0, 30.0], 5.0, 5000.0)]);
    file["obstacles"] = json!([{"id": "o1", "name": "Hut", "kind": "building", "top_m": 3, "outline": [[2, 24], [4, 24], [4, 26], [2, 26]]}]);
    let relief = |file: &Value| {
        let site = parse(file);
        let mut relief = Relief::empty(Grid::over([-15.0, 0.0, 15.0, 40.0], 1.0), 1.6, 1);
        relief.put(&site, 0);
        (site, relief.best().to_vec())
    };
    let (_, by_day) = relief(&file);
    let (site, by_night) = relief(&night(file));
    let head = &site.heads()[0];
    let (mut lit, mut dark) = (0, 0);
    for (place, (day, night)) in by_day.iter().zip(&by_night).enumerate() {
        let (column, row) = (place % 30, place / 30);
        let point = glam::DVec3::new(-14.5 + column as f64, 0.5 + row as f64, 1.6);
        // By hand: rated for 10 m within its beam, or the lamp, which the hut shades.
        let axis = head.view().pose.forward;
        let step = point - head.position();
        let power = 0.5_f64.ln() / 30_f64.to_radians().cos().ln();
        let own = 100.0 / step.length_squared() * (axis.dot(step) / step.length()).max(0.0).powf(power);
        let lux = bright_angle_core::light::lux_upright(site.lamps(), site.scene(), point, head.position()).0;
        let enough = own >= 1.0 || lux >= 0.1;
        assert_eq!(*night, if enough { *day } else { 0.0 }, "{point}");
        lit += usize::from(*day > 0.0 && enough);
        dark += usize::from(*day > 0.0 && !enough);
    }
    assert!(lit > 40 && dark > 40, "{lit} {dark}");
}

/// By night a wall that moves between a lamp and a promise, far from the sight line, is felt; a session says what a fresh one says.
#[test]
fn a_session_by_night_follows_lamps_and_what_shades_them() {
    use bright_angle_core::file::{ListChange, SiteChange};
    let mut file = night(lit(json!({"least_lux": 0.5})));
    file["lamps"] = json!([lamp([8.0, 11.0], 5.0, 9000.0)]);
    file["obstacles"] = json!([{"id": "o1", "name": "Wall", "kind": "wall", "top_m": 6, "outline": [[30, 5], [31, 5], [31, 20], [30, 20]]}]);
    let mut session = Session::on(parse(&file));
    let verdict = |session: &Session| session.results()[0].verdict.word();
    assert_eq!(verdict(&session), "kept");
    let mut wall = session.site().file().obstacles[0].clone();
    wall.outline = vec![[4.0, 5.0], [5.0, 5.0], [5.0, 20.0], [4.0, 20.0]];
    let obstacles = Some(ListChange { order: None, put: vec![wall] });
    session.apply(SiteChange { obstacles, ..SiteChange::default() }).unwrap();
    assert_eq!(verdict(&session), "broken", "in the shadow");
    let mut other = session.site().file().lamps[0].clone();
    other.position = [-6.0, 11.0];
    let lamps = Some(ListChange { order: None, put: vec![other] });
    session.apply(SiteChange { lamps, ..SiteChange::default() }).unwrap();
    assert_eq!(verdict(&session), "kept", "a lamp on this side");
    let fresh = bright_angle_core::evaluate(session.site());
    assert_eq!(session.evaluation(), fresh);
}

#[test]
fn a_lamp_of_its_own_that_stands_behind_a_wall_lights_nothing() {
    let mut site = night(lit(json!({"infrared": {"range_m": 30, "beam_deg": 90}})));
    assert_eq!(rule(&site)["verdict"], "kept");
    site["cameras"][0]["emitter"] =
        json!({"position": [3, 0], "height_m": 3, "light": {"range_m": 30, "beam_deg": 120}});
    assert_eq!(rule(&site)["verdict"], "kept", "from three metres beside");
    site["obstacles"] = json!([{"id": "o1", "name": "Wall", "kind": "wall", "top_m": 6, "outline": [[1.0, 3], [4, 3], [4, 3.3], [1.0, 3.3]]}]);
    assert_eq!(rule(&site)["verdict"], "broken");
}

#[test]
fn a_pane_before_the_lens_throws_its_light_back() {
    let mut site = own_wall();
    site["obstacles"] = json!([{"id": "g1", "name": "Window", "kind": "glass", "top_m": 5, "see_through": 0.9, "closed": false,
        "outline": [[-2.0, 0.4], [2.0, 0.4]]}]);
    let washed = told(&site)["washed"][0].clone();
    // Every ray of the picture goes through it, and it hangs forty centimetres away.
    assert!(washed["share"].as_f64().unwrap() > 0.5 && washed["by"][0]["obstacle"] == "g1", "{washed}");
    // What stands behind it is still seen: it does not block.
    assert_eq!(evaluated(&site)["sight_lines"][0]["clear"], true);
}

#[test]
fn what_the_night_does_to_the_promises_is_told_by_day() {
    use bright_angle_core::ground::seasons::other_states;
    let states = other_states(&Session::on(parse(&lit(json!({"infrared_m": 10})))));
    let night = states.iter().find(|state| state.says == "By night").unwrap();
    assert_eq!(night.changes[0].after.word(), "broken", "{night:?}");
    assert!(other_states(&Session::on(parse(&lit(json!({}))))).is_empty(), "nobody knows anything of its light");
}
