//! Ways: each, applied as the JSON Patch it is, keeps the sight line with the effects it announced.

use crate::support::*;
use bright_angle_core::change::ways::{Way, WayKind, Ways, ways as ways_of};
use bright_angle_core::file::Question;
use bright_angle_core::judge::Evaluation;
use bright_angle_core::judge::Session;
use bright_angle_core::words::units::Units;
use bright_angle_core::{Site, Verdict, evaluate};
use proptest::prelude::*;
use serde_json::{Value, json};
use std::sync::atomic::{AtomicUsize, Ordering};

fn ways(site: &Site, line: &Question, units: Units) -> Result<Ways, bright_angle_core::Fault> {
    ways_of(&Session::on(site.clone()), line, units)
}

fn line_verdict(evaluation: &Evaluation, line: &Question) -> Option<Verdict> {
    let is = |s: &&bright_angle_core::judge::SightLine| {
        let view = s.preset.as_ref().or(s.flattened.as_ref());
        s.camera == line.camera && s.head == line.head && view == line.view.as_ref() && s.target == line.target
    };
    evaluation.sight_lines.iter().find(is).map(|s| s.verdict)
}

/// Applies a way with an RFC 6902 library and holds everything it said against a fresh evaluation.
#[track_caller]
fn holds(file: &Value, line: &Question, way: &Way) {
    let mut changed = file.clone();
    let patch: json_patch::Patch = serde_json::from_value(serde_json::to_value(&way.patch).unwrap()).unwrap();
    json_patch::patch(&mut changed, &patch).unwrap();
    let now = evaluate(&parse(file));
    let then = evaluate(&parse(&changed));
    match way.kind {
        // Another line keeps the promise, or the light that it wanted does.
        WayKind::OtherHead | WayKind::Camera | WayKind::Lamp => {
            let promise = then.targets.iter().find(|target| target.target == line.target).unwrap();
            assert_eq!(promise.verdict, Verdict::Kept, "{line:?}: {}", way.says);
        }
        // One more plate camera: the promise is better off, its overview may be missing still.
        WayKind::Choke if way.patch[0].op == "add" && way.patch[0].path == "/cameras/-" => {
            let promise = |of: &Evaluation| of.targets.iter().find(|t| t.target == line.target).unwrap().verdict;
            assert!(promise(&then) < promise(&now), "{line:?}: {}", way.says);
        }
        _ => assert_eq!(line_verdict(&then, line), Some(Verdict::Kept), "{line:?}: {}", way.says),
    }
    let announced: Vec<(String, Verdict, Verdict)> =
        way.effects.iter().map(|e| (e.target.clone(), e.before, e.after)).collect();
    let found: Vec<(String, Verdict, Verdict)> = now
        .targets
        .iter()
        .zip(&then.targets)
        .filter(|(a, b)| a.verdict != b.verdict || a.best != b.best)
        .map(|(a, b)| (a.target.clone(), a.verdict, b.verdict))
        .collect();
    assert_eq!(announced, found, "{line:?}: {}", way.says);
}

/// How many promises it breaks, and how many others it makes worse.
fn worsens(way: &Way) -> (usize, usize) {
    let worse = || way.effects.iter().filter(|effect| effect.after > effect.before);
    let broken = worse().filter(|effect| effect.after == Verdict::Broken).count();
    (broken, worse().count() - broken)
}

/// Every camera asked about every target of a demo; answers how many ways were tried.
fn try_every_way(demo: &str, night: bool) -> usize {
    let mut seen = 0;
    let mut file: Value = serde_json::from_str(demo).unwrap();
    if night {
        file["conditions"] = json!({"night": true});
    }
    let site = parse(&file);
    let before = evaluate(&site);
    for (head, target) in site.heads().iter().flat_map(|head| site.targets().iter().map(move |target| (head, target))) {
        let line = Question {
            camera: head.camera_id().to_owned(),
            head: head.id().to_owned(),
            view: head.view_id().map(str::to_owned),
            target: target.id.clone(),
        };
        let kept = line_verdict(&before, &line) == Some(Verdict::Kept);
        let found = ways(&site, &line, Units::Metres).unwrap();
        assert_eq!(found.ways.is_empty(), found.why_none.is_some(), "{line:?}");
        // Of one that is kept only the overview beside it may be missing.
        let only_overview = found.ways.iter().all(|way| way.kind == WayKind::Overview);
        assert!(!kept || only_overview, "{line:?} is kept already");
        let costs: Vec<(usize, usize)> = found.ways.iter().map(worsens).collect();
        assert!(costs.is_sorted(), "{line:?}: a way that breaks a promise stands before one that does not");
        for way in &found.ways {
            holds(&file, &line, way);
            seen += 1;
        }
    }
    seen
}

// One test a demo and a time of day: they run beside each other.
macro_rules! every_way_on {
    ($($name:ident: $demo:literal, $night:literal, $least:literal;)*) => {$(
        #[test]
        fn $name() {
            let seen = try_every_way(DEMOS[$demo], $night);
            assert!(seen >= $least, "only {seen} ways were tried");
        }
    )*};
}
every_way_on! {
    every_way_on_tern_quay_by_day_does_what_it_says: 0, false, 10;
    every_way_on_tern_quay_by_night_does_what_it_says: 0, true, 10;
    every_way_on_umber_yard_by_day_does_what_it_says: 1, false, 10;
    every_way_on_umber_yard_by_night_does_what_it_says: 1, true, 10;
    every_way_on_the_clinic_by_day_does_what_it_says: 2, false, 5;
    every_way_on_the_clinic_by_night_does_what_it_says: 2, true, 5;
    every_way_on_saltpan_lane_by_day_does_what_it_says: 3, false, 10;
    every_way_on_saltpan_lane_by_night_does_what_it_says: 3, true, 10;
}

fn question() -> Question {
    Question { camera: "c1".into(), head: "h1".into(), view: None, target: "t1".into() }
}

fn kinds(file: &Value) -> Vec<WayKind> {
    ways(&parse(file), &question(), Units::Metres).unwrap().ways.iter().map(|way| way.kind).collect()
}

fn zoom_camera(focal: f64) -> Value {
    let mut camera = CameraAt { focal, sensor: sensor(2688, 1520, 5.376), ..Default::default() }.json();
    camera["model"]["lens"] = json!({"focal_min_mm": 2.8, "focal_max_mm": 12.0});
    camera
}

#[test]
fn a_zoom_is_zoomed_and_no_further_than_it_takes() {
    let file = site(vec![zoom_camera(6.0)], vec![target("face", "identify", [0.0, 18.9], 1.6)], vec![]);
    let found = ways(&parse(&file), &question(), Units::Metres).unwrap();
    assert_eq!(found.ways[0].kind, WayKind::Focal);
    // 250 px/m at 18.9 m want 9.45 mm; ±1 % of focal length and ±0.05 m of slack make it 9.6 or 9.7.
    let focal = found.ways[0].patch[0].value.as_ref().unwrap().as_f64().unwrap();
    assert!((9.6..=9.7).contains(&focal), "{focal}");
    assert_eq!(found.ways[0].patch[0].path, "/cameras/0/heads/0/focal_mm");
}

#[test]
fn a_head_that_looks_elsewhere_is_turned() {
    let mut camera = zoom_camera(12.0);
    camera["heads"][0]["pan_deg"] = json!(40);
    let file = site(vec![camera], vec![target("face", "identify", [0.0, 18.9], 1.6)], vec![]);
    assert_eq!(kinds(&file)[0], WayKind::Aim);
}

#[test]
fn too_high_is_lowered() {
    let mut camera =
        CameraAt { height: 5.5, tilt: 26.0, focal: 8.0, sensor: sensor(2688, 1520, 5.376), ..Default::default() }
            .json();
    camera["model"]["lens"] = json!({"focal_min_mm": 8.0, "focal_max_mm": 8.0});
    let file = site(vec![camera], vec![target("face", "identify", [0.0, 8.0], 1.6)], vec![]);
    let found = ways(&parse(&file), &question(), Units::Feet).unwrap();
    let lower =
        found.ways.iter().find(|way| way.patch.iter().any(|op| op.path.ends_with("height_m"))).expect("a lower place");
    assert!(lower.says.contains('\''), "told in feet: {}", lower.says);
    assert!(lower.patch[0].value.as_ref().unwrap().as_f64().unwrap() >= 2.4, "never within reach");
}

#[test]
fn where_nothing_helps_it_says_why() {
    // A plate seen from the side stays so wherever on the line the camera goes.
    let mut plate = target("plate", "read", [0.0, 12.0], 0.7);
    plate["facing_deg"] = json!(90);
    let found =
        ways(&parse(&site(vec![zoom_camera(8.0)], vec![plate.clone()], vec![])), &question(), Units::Metres).unwrap();
    assert!(found.ways.is_empty());
    assert!(found.why_none.unwrap().contains("90° from the side"));
    plate["facing_deg"] = Value::Null;
    let unknown = ways(&parse(&site(vec![zoom_camera(8.0)], vec![plate], vec![])), &question(), Units::Metres).unwrap();
    assert!(unknown.why_none.unwrap().contains("facing"));
}

#[test]
fn a_camera_is_not_moved_into_a_wall() {
    let file = site(
        vec![CameraAt { focal: 6.0, ..Default::default() }.json()],
        vec![target("face", "identify", [0.0, 30.0], 1.6)],
        vec![block([-2.0, 2.0], [10.0, 24.0], 8.0)],
    );
    let mut file = file;
    // Past the block there is a mast to hang it on, and one beyond its reach.
    let mast = |id: &str, y: f64| json!({"id": id, "name": "Mast", "kind": "other", "top_m": 6, "outline": [[0.3, y], [0.5, y], [0.5, y + 0.2], [0.3, y + 0.2]]});
    file["cameras"][0]["position"] = json!([0, 20.5]);
    file["obstacles"] = json!([block([-2.0, 2.0], [22.0, 24.0], 8.0), mast("o2", 24.5), mast("o3", 27.0)]);
    file["targets"][0]["shape"]["points"] = json!([[0, 34]]);
    let site = parse(&file);
    let found = ways(&site, &question(), Units::Metres).unwrap().ways;
    let moves = |way: &&Way| way.patch.iter().any(|op| op.path.ends_with("position"));
    assert!(found.iter().any(|way| moves(&way)), "some way moves it, past the block: {found:?}");
    for way in found {
        holds(&file, &question(), &way);
        for op in way.patch.iter().filter(|op| op.path.ends_with("position")) {
            let [x, y] = [0, 1].map(|axis| op.value.as_ref().unwrap()[axis].as_f64().unwrap());
            assert!(!(22.0..24.0).contains(&y) || x.abs() >= 2.0, "moved into the block: {x} {y}");
            assert!(y < 20.5 + 8.01, "no further than eight metres: {y}");
        }
    }
}

fn spot_at(id: &str, at: [f64; 2], height: f64) -> Value {
    json!({"id": id, "name": format!("Post {id}"), "position": at, "height_m": height})
}

fn of_kind(file: &Value, kind: WayKind) -> Option<Way> {
    let found = ways(&parse(file), &question(), Units::Metres).unwrap().ways;
    found.into_iter().find(|way| way.kind == kind).inspect(|way| holds(file, &question(), way))
}

#[test]
fn a_surveyed_spot_is_a_way_and_mid_air_is_none() {
    // 30 m is too far for 6 mm; a spot 7 m from the target would do, as would any place in mid-air on the line, where nothing holds it.
    let mut file = site(
        vec![CameraAt { focal: 6.0, ..Default::default() }.json()],
        vec![target("face", "identify", [0.0, 30.0], 1.6)],
        vec![],
    );
    file["spots"] = json!([spot_at("s1", [3.0, 24.0], 2.8), spot_at("s2", [40.0, 0.0], 3.0)]);
    let found = ways(&parse(&file), &question(), Units::Metres).unwrap().ways;
    // In mid-air nothing hangs.
    let in_mid_air = [WayKind::Nearer, WayKind::Back, WayKind::Sideways];
    assert!(found.iter().all(|way| !in_mid_air.contains(&way.kind) && !way.says.contains("nearer")), "{found:?}");
    let spot = of_kind(&file, WayKind::Spot).unwrap();
    assert!(spot.says.contains("Post s1"), "{}", spot.says);
    assert!(spot.patch.iter().any(|op| op.path == "/cameras/0/spot" && op.value == Some(json!("s1"))));
    // One more camera could hang there, too.
    assert!(of_kind(&file, WayKind::Camera).unwrap().patch[0].path == "/cameras/-");
    // A spot that a camera sits on is not free.
    let mut taken = CameraAt { at: [3.0, 24.0], pan: 180.0, ..Default::default() }.json();
    (taken["id"], taken["spot"]) = (json!("c2"), json!("s1"));
    file["cameras"].as_array_mut().unwrap().push(taken);
    assert!(of_kind(&file, WayKind::Spot).is_none());
    // But the camera that sits there can be turned.
    assert!(of_kind(&file, WayKind::OtherHead).unwrap().says.starts_with("Let C1 see it: turn it"));
}

#[test]
fn what_is_seen_too_steeply_is_stepped_back_from() {
    // 22° from above at 5.5 m; from 4 m further back it is 13°, with a zoom that still has the pixels.
    let mut camera = zoom_camera(12.0);
    (camera["height_m"], camera["heads"][0]["tilt_deg"]) = (json!(3.8), json!(22.0));
    let mut file = site(vec![camera], vec![target("face", "identify", [0.0, 5.5], 1.6)], vec![]);
    file["rules"] = json!({"mount_min_m": 3.8});
    assert!(of_kind(&file, WayKind::Back).is_none(), "there is nothing to hang it on");
    file["obstacles"] = json!([block([-3.0, -0.4], [-9.0, 3.0], 6.0)]);
    let back = of_kind(&file, WayKind::Back).expect("a step back");
    let y = back.patch.iter().find(|op| op.path.ends_with("position")).unwrap().value.as_ref().unwrap()[1]
        .as_f64()
        .unwrap();
    assert!((-5.0..=-3.0).contains(&y), "{y}");
}

#[test]
fn along_the_wall_past_a_post() {
    // The camera hangs on a wall's face; a post 3 m ahead hides the face 12 m ahead. Along the wall is another view.
    let mut camera = zoom_camera(12.0);
    camera["position"] = json!([0.0, 0.0]);
    let mut wall = block([-6.0, 6.0], [-3.0, 0.0], 5.0);
    (wall["id"], wall["name"]) = (json!("o2"), json!("Shed"));
    let file = site(
        vec![camera],
        vec![target("face", "identify", [0.0, 12.0], 1.6)],
        vec![block([-0.2, 0.2], [3.0, 3.4], 5.0), wall],
    );
    let along = of_kind(&file, WayKind::Sideways).expect("along the wall");
    assert!(along.says.contains("along Shed"), "{}", along.says);
    let at = along.patch.iter().find(|op| op.path.ends_with("position")).unwrap().value.clone().unwrap();
    assert_eq!(at[1], 0.0, "still on the wall's face");
}

#[test]
fn a_high_and_narrow_target_gets_the_corridor_picture() {
    // A lane straight ahead from 4 m to 30 m: 35° of tilt to be seen in 27° of picture height, if not on its side.
    let mut t = target("scene", "detect", [0.0, 0.0], 0.0);
    t["shape"] = json!({"kind": "line", "points": [[0, 5], [0, 30]]});
    let camera = CameraAt { height: 3.0, tilt: 14.0, focal: 6.0, ..Default::default() };
    let file = site(vec![camera.json()], vec![t], vec![]);
    let roll = of_kind(&file, WayKind::Roll).expect("the picture on its side");
    assert!(roll.patch.iter().any(|op| op.path.ends_with("roll_deg") && op.value == Some(json!(90.0))), "{roll:?}");
}

#[test]
fn where_only_the_distance_is_not_sure_it_is_measured() {
    let mut t = target("face", "identify", [0.0, 8.0], 1.6);
    t["distance"] = json!({"how": "guess"});
    let file = site(vec![CameraAt { tilt: 10.0, ..Default::default() }.json()], vec![t], vec![]);
    let measure = of_kind(&file, WayKind::Measure).expect("a tape");
    assert_eq!(measure.patch[0].path, "/targets/0/distance");
}

#[test]
fn a_turn_that_costs_nobody_anything_is_found() {
    // The straight turn towards the second promise loses the first one before the second is kept; a turn that also tilts does not.
    let mut camera = CameraAt {
        focal: 4.0,
        height: 3.0,
        pan: -14.0,
        tilt: 4.0,
        sensor: sensor(3840, 2160, 7.68),
        ..Default::default()
    };
    camera.pan = -60.0;
    let mut one = target("scene", "monitor", [-20.0, 12.0], 0.5);
    one["id"] = json!("t2");
    let two = target("scene", "monitor", [3.0, 12.0], 0.5);
    let file = site(vec![camera.json()], vec![two, one], vec![]);
    let aim = of_kind(&file, WayKind::Aim).expect("a turn");
    assert_eq!(worsens(&aim), (0, 0), "{aim:?}");
}

#[test]
fn a_turret_is_not_fitted_another_lens() {
    let mut camera = CameraAt { focal: 2.8, sensor: sensor(2688, 1520, 5.376), ..Default::default() }.json();
    camera["model"]["form"] = json!("turret");
    let file = site(vec![camera], vec![target("face", "identify", [0.0, 12.0], 1.6)], vec![]);
    let found = ways(&parse(&file), &question(), Units::Metres).unwrap().ways;
    assert!(found.iter().any(|way| way.kind == WayKind::Model));
    assert!(found.iter().all(|way| way.kind != WayKind::Lens && !way.says.contains("lens")), "{found:?}");
}

#[test]
fn a_search_that_would_go_on_for_ever_is_cut_short_and_says_so() {
    // A field of 15 000 samples: to look at each of them once is more than one search may do.
    let mut t = target("scene", "monitor", [0.0, 0.0], 0.0);
    t["shape"] = json!({"kind": "area", "points": [[-30, 20], [30, 20], [30, 80], [-30, 80]]});
    let mut camera = zoom_camera(6.0);
    (camera["height_m"], camera["heads"][0]["tilt_deg"]) = (json!(20.0), json!(25.0));
    let file = site(vec![camera], vec![t], vec![]);
    let found = ways(&parse(&file), &question(), Units::Metres).unwrap();
    assert!(found.cut_short.is_some_and(|says| says.contains("best found so far")));
    let small = site(vec![zoom_camera(6.0)], vec![target("face", "identify", [0.0, 18.9], 1.6)], vec![]);
    assert_eq!(ways(&parse(&small), &question(), Units::Metres).unwrap().cut_short, None);
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 48, ..ProptestConfig::default() })]

    #[test]
    fn a_way_that_is_offered_is_kept_once_applied(
        x in -15.0..15.0_f64, y in 4.0..35.0_f64, height in 2.4..5.0_f64, pan in -30.0..30.0_f64, tilt in 0.0..25.0_f64,
        focal in 2.8..12.0_f64, face in any::<bool>(), task in prop::sample::select(vec!["observe", "recognise", "identify"]),
        how in prop::sample::select(vec!["plan", "laser", "guess"]), wall in 0.5..4.0_f64,
    ) {
        let mut camera = zoom_camera(focal);
        camera["height_m"] = json!(height);
        camera["heads"][0]["pan_deg"] = json!(pan);
        camera["heads"][0]["tilt_deg"] = json!(tilt);
        let mut t = target(if face { "face" } else { "person" }, task, [x, y], 1.6);
        t["distance"] = json!({"how": how});
        let file = site(vec![camera], vec![t], vec![block([-3.0, 3.0], [2.0, 3.0], wall)]);
        let site = parse(&file);
        let found = ways(&site, &question(), Units::Metres).unwrap();
        // Either some way or a reason: never neither, never both.
        prop_assert_eq!(found.ways.is_empty(), found.why_none.is_some());
        OFFERED.fetch_add(found.ways.len(), Ordering::Relaxed);
        TRIED.fetch_add(1, Ordering::Relaxed);
        for way in found.ways {
            holds(&file, &question(), &way);
        }
        // A property of ways with no ways would hold of anything.
        prop_assert!(TRIED.load(Ordering::Relaxed) < 40 || OFFERED.load(Ordering::Relaxed) > 40);
    }
}

static OFFERED: AtomicUsize = AtomicUsize::new(0);
static TRIED: AtomicUsize = AtomicUsize::new(0);
