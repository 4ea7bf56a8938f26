//! Tours against a seeded simulation that plays them through (outside/tours/generate.py), and what they do to promises.

use bright_angle_core::judge::Session;
use bright_angle_core::judge::tours::tours;
use bright_angle_core::verdict::RuleName;
use bright_angle_core::verdict::Verdict;
use bright_angle_core::words::units::Units;
use bright_angle_core::{Site, evaluate};
use bright_angle_core::{change::ways::ways, file::Question};
use serde::Deserialize;
use serde_json::{Value, json};

#[derive(Deserialize)]
struct Played {
    presets: Vec<Value>,
    slew_deg_s: f64,
    zoom_s: f64,
    event_s: f64,
    chances: Vec<f64>,
    gaps_s: Vec<f64>,
}

/// A yard with one camera that tours, and a gate ten metres north of it.
fn yard(presets: Value, more: Value) -> Value {
    let mut head = json!({"id": "h", "pan_deg": 0, "tilt_deg": 10, "focal_mm": 5, "presets": presets});
    if let (Some(head), Some(more)) = (head.as_object_mut(), more.as_object()) {
        head.extend(more.clone());
    }
    json!({
        "format": "bright-angle/site", "version": 1, "name": "Yard",
        "targets": [{"id": "t", "name": "Gate", "subject": "person", "task": "detect", "height_m": 1.6,
                     "shape": {"kind": "point", "points": [[0, 10]]}}],
        "cameras": [{"id": "c", "name": "C", "position": [0, 0], "height_m": 3.0,
            "model": {"name": "P", "form": "ptz",
                "sensor": {"width_px": 1920, "height_px": 1080, "width_mm": 5.376, "height_mm": 3.024},
                "lens": {"focal_min_mm": 5, "focal_max_mm": 50}},
            "heads": [head]}]
    })
}

fn parse(site: &Value) -> Site {
    Site::parse(&site.to_string()).unwrap()
}

#[test]
fn chances_and_gaps_are_those_of_a_tour_that_was_played_through() {
    let table: Vec<Played> = serde_json::from_str(include_str!("../../../outside/tours/tours.json")).unwrap();
    for played in table {
        let presets: Vec<Value> = played
            .presets
            .iter()
            .enumerate()
            .map(|(place, preset)| {
                let mut preset = preset.clone();
                (preset["id"], preset["name"]) = (json!(format!("p{place}")), json!("P"));
                preset
            })
            .collect();
        let site = yard(json!(presets), json!({"slew_deg_s": played.slew_deg_s, "zoom_s": played.zoom_s}));
        let told = tours(&parse(&site), played.event_s).tours.remove(0);
        for (stop, (chance, gap)) in told.presets.iter().zip(played.chances.iter().zip(&played.gaps_s)) {
            // 200 000 events: three standard deviations are under 0.0034.
            assert!((stop.chance - chance).abs() < 0.0034, "{} {chance}", stop.chance);
            assert!((stop.gap_s - gap).abs() < 1e-6, "{} {gap}", stop.gap_s);
        }
    }
}

fn two() -> Value {
    json!([{"id": "p1", "name": "Gate", "pan_deg": 0, "tilt_deg": 10, "focal_mm": 5, "dwell_s": 5},
           {"id": "p2", "name": "Back", "pan_deg": 160, "tilt_deg": 10, "focal_mm": 5, "dwell_s": 20}])
}

#[test]
fn a_tour_keeps_what_it_is_back_for_in_time() {
    // By hand: 160° there and back at 80° a second are 4 s; away from the gate for 20 + 4 = 24 s of 29.
    let verdict = |wish: Value| {
        let mut site = yard(two(), json!({}));
        site["targets"][0]["unseen_at_most_s"] = wish;
        let found = evaluate(&parse(&site));
        let lines: Vec<_> = found.sight_lines.iter().map(|line| line.preset.clone()).collect();
        let line = &found.sight_lines[0];
        let rule = line.rules.iter().find(|rule| rule.rule == RuleName::Unseen).unwrap();
        assert!((rule.value.unwrap() - 24.0).abs() < 1e-9);
        (found.targets[0].verdict, lines, rule.limit)
    };
    let gate = |verdict| (verdict, vec![Some("p1".to_owned())]);
    let of = |wish: Value| {
        let (verdict, lines, _) = verdict(wish);
        (verdict, lines)
    };
    assert_eq!(of(json!(null)), gate(Verdict::Tight), "nobody said for how long it may");
    assert_eq!(of(json!(24.0)), gate(Verdict::Kept));
    assert_eq!(of(json!(23.9)), gate(Verdict::Broken));
    assert_eq!(verdict(json!(30)).2, Some(30.0));
}

#[test]
fn a_fixed_camera_beside_it_keeps_it_always_and_the_head_by_itself_is_told_where_it_parks() {
    let mut site = yard(two(), json!({"pan_deg": 90.0, "focal_mm": 50.0}));
    site["targets"][0]["unseen_at_most_s"] = json!(1.0);
    let mut fixed = site["cameras"][0].clone();
    fixed["id"] = json!("d");
    fixed["heads"] = json!([{"id": "h", "pan_deg": 0, "tilt_deg": 10, "focal_mm": 5}]);
    site["cameras"].as_array_mut().unwrap().push(fixed);
    let found = evaluate(&parse(&site));
    assert_eq!(found.targets[0].verdict, Verdict::Kept);
    let best = found.targets[0].best.as_ref().unwrap();
    assert_eq!((best.camera.as_str(), best.view.as_deref()), ("d", None));
    assert_eq!(found.heads.len(), 2, "a row a head of the file");
    assert!(found.heads[0].hfov_deg < 10.0, "parked, zoomed in: {}", found.heads[0].hfov_deg);
}

#[test]
fn the_stay_is_shortened_so_that_the_tour_keeps_what_it_promises() {
    let mut site = yard(two(), json!({}));
    site["targets"][0]["unseen_at_most_s"] = json!(12.0);
    let parsed = parse(&site);
    let question = Question { camera: "c".into(), head: "h".into(), view: Some("p1".into()), target: "t".into() };
    let found = ways(&Session::on(parsed), &question, Units::Metres).unwrap();
    let way = found.ways.iter().find(|way| way.says.contains("at each preset")).unwrap();
    // By hand: 12 s less the moves of 4 s leave 8 s for the one other preset.
    assert!(way.says.contains("8 s"), "{}", way.says);
    let patch: json_patch::Patch = serde_json::from_value(serde_json::to_value(&way.patch).unwrap()).unwrap();
    json_patch::patch(&mut site, &patch).unwrap();
    assert_eq!(evaluate(&parse(&site)).targets[0].verdict, Verdict::Kept);
}

#[test]
fn what_a_preset_lacks_is_mended_in_the_preset() {
    let mut site = yard(two(), json!({}));
    site["targets"][0]["unseen_at_most_s"] = json!(60.0);
    site["cameras"][0]["heads"][0]["presets"][0]["pan_deg"] = json!(70);
    let question = Question { camera: "c".into(), head: "h".into(), view: Some("p1".into()), target: "t".into() };
    let found = ways(&Session::on(parse(&site)), &question, Units::Metres).unwrap();
    let turn = found.ways.iter().find(|way| way.says.starts_with("Turn it")).unwrap();
    assert!(turn.patch.iter().all(|op| op.path.starts_with("/cameras/0/heads/0/presets/0/")), "{:?}", turn.patch);
    let patch: json_patch::Patch = serde_json::from_value(serde_json::to_value(&turn.patch).unwrap()).unwrap();
    json_patch::patch(&mut site, &patch).unwrap();
    assert_eq!(evaluate(&parse(&site)).targets[0].verdict, Verdict::Kept);
}
