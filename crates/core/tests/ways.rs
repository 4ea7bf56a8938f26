//! Ways: each, applied as the JSON Patch it is, keeps the sight line with the effects it announced.

mod support;
use bright_angle_core::change::ways::{Way, WayKind, Ways, ways as ways_of};
use bright_angle_core::file::Question;
use bright_angle_core::judge::Evaluation;
use bright_angle_core::judge::Session;
use bright_angle_core::words::units::Units;
use bright_angle_core::{Site, Verdict, evaluate};
use proptest::prelude::*;
use serde_json::{Value, json};
use support::*;

fn ways(site: &Site, line: &Question, units: Units) -> Result<Ways, bright_angle_core::Fault> {
    ways_of(&Session::on(site.clone()), line, units)
}

fn line_verdict(evaluation: &Evaluation, line: &Question) -> Option<Verdict> {
    let is = |s: &&bright_angle_core::judge::SightLine| {
        s.camera == line.camera && s.head == line.head && s.target == line.target
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
    assert_eq!(line_verdict(&then, line), Some(Verdict::Kept), "{line:?}: {}", way.says);
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

fn worsens(way: &Way) -> usize {
    way.effects.iter().filter(|effect| effect.after > effect.before).count()
}

#[test]
fn every_way_on_the_demos_does_what_it_says() {
    let mut seen = 0;
    for demo in DEMOS {
        let file: Value = serde_json::from_str(demo).unwrap();
        let site = Site::parse(demo).unwrap();
        for head in site.heads() {
            for target in site.targets() {
                let line = Question {
                    camera: head.camera_id().to_owned(),
                    head: head.id().to_owned(),
                    target: target.id.clone(),
                };
                let kept = line_verdict(&evaluate(&site), &line) == Some(Verdict::Kept);
                let found = ways(&site, &line, Units::Metres).unwrap();
                assert_eq!(found.ways.is_empty(), found.why_none.is_some(), "{line:?}");
                assert!(!kept || found.ways.is_empty(), "{line:?} is kept already");
                let costs: Vec<usize> = found.ways.iter().map(worsens).collect();
                assert!(costs.is_sorted(), "{line:?}: a way that breaks a promise stands before one that does not");
                for way in &found.ways {
                    holds(&file, &line, way);
                    seen += 1;
                }
            }
        }
    }
    assert!(seen > 60, "only {seen} ways were tried");
}

fn question() -> Question {
    Question { camera: "c1".into(), head: "h1".into(), target: "t1".into() }
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
        vec![block([-2.0, 2.0], [10.0, 29.0], 8.0)],
    );
    let site = parse(&file);
    for way in ways(&site, &question(), Units::Metres).unwrap().ways {
        holds(&file, &question(), &way);
        for op in way.patch.iter().filter(|op| op.path.ends_with("position")) {
            let y = op.value.as_ref().unwrap()[1].as_f64().unwrap();
            assert!(!(10.0..29.0).contains(&y), "moved into the block: {y}");
        }
    }
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
        for way in ways(&site, &question(), Units::Metres).unwrap().ways {
            holds(&file, &question(), &way);
        }
    }
}
