//! Finished lines of the survey: what is told of each is what comes of taking it.

use bright_angle_core::change::ways::ways;
use bright_angle_core::equipment::catalogue::models;
use bright_angle_core::file::{Lens, Model, Question, SiteFile};
use bright_angle_core::judge::Session;
use bright_angle_core::survey::finished_lines::{FinishedLines, LineWish, finished_lines};
use bright_angle_core::verdict::Verdict;
use bright_angle_core::words::units::Units;
use bright_angle_core::{Site, evaluate};
use serde_json::{Value, json};

/// A door at the origin, seen from a spot to the north, with a reading between them.
fn site(slope_m: f64, task: &str, change: impl FnOnce(&mut Value)) -> Site {
    let mut file = json!({"format": "bright-angle/site", "version": 1, "name": "Home", "obstacles": [], "cameras": [],
        "targets": [{"id": "t1", "name": "Main entrance", "subject": "face", "task": task, "height_m": 1.6,
            "shape": {"kind": "point", "points": [[0, 0]]}}],
        "spots": [{"id": "s1", "name": "Soffit", "position": [0, slope_m], "height_m": 2.8, "outdoor": true}],
        "readings": [{"id": "r1", "from": "t1", "to": "s1", "slope_m": slope_m}]});
    change(&mut file);
    Site::parse(&file.to_string()).unwrap()
}

fn wish() -> LineWish {
    LineWish { target: "t1".into(), spot: "s1".into(), near: false, usual: vec![], like: None }
}

fn lines(site: &Site, wish: &LineWish) -> FinishedLines {
    finished_lines(&Session::on(site.clone()), wish, Units::Metres).unwrap()
}

/// The site once a line is taken, by a JSON Patch library that has nothing to do with ours.
fn taken(site: &Site, found: &FinishedLines, place: usize) -> SiteFile {
    let mut file = serde_json::to_value(site.file()).unwrap();
    let patch: json_patch::Patch =
        serde_json::from_value(serde_json::to_value(&found.lines[place].patch).unwrap()).unwrap();
    json_patch::patch(&mut file, &patch).unwrap();
    SiteFile::parse(&file.to_string()).unwrap()
}

#[test]
fn what_is_told_of_a_line_is_what_comes_of_taking_it() {
    let mut kept = 0;
    for (slope, task) in
        [(4.0, "identify"), (9.0, "identify"), (18.9, "identify"), (30.0, "recognise"), (60.0, "detect")]
    {
        for night in [false, true] {
            let site = site(slope, task, |file| file["conditions"] = json!({"night": night}));
            let found = lines(&site, &wish());
            assert!(!found.lines.is_empty(), "{slope} {task}");
            for (place, line) in found.lines.iter().enumerate() {
                let then = Site::from_file(taken(&site, &found, place)).unwrap();
                let judged = evaluate(&then);
                let sight = judged.sight_lines.iter().find(|sight| sight.camera == line.camera.id).unwrap();
                let name = &line.camera.model.name;
                assert_eq!((sight.verdict, sight.px_per_m), (line.verdict, line.px_per_m), "{name} at {slope}, {task}");
                assert_eq!(line.because.is_none(), sight.verdict == Verdict::Kept, "{name}: {:?}", line.because);
                assert_eq!(judged.targets[0].verdict, line.verdict);
                kept += usize::from(line.verdict == Verdict::Kept);
            }
        }
    }
    assert!(kept > 20, "{kept}");
}

#[test]
fn on_a_real_site_too_with_what_stands_in_the_way() {
    let site = Site::parse(include_str!("../../../demo/tern-quay.json")).unwrap();
    let (target, spots) = (&site.file().targets[0], &site.file().spots);
    for spot in spots {
        let found = lines(&site, &LineWish { target: target.id.clone(), spot: spot.id.clone(), ..wish() });
        for (place, line) in found.lines.iter().enumerate() {
            let session = Session::open(taken(&site, &found, place)).unwrap();
            let head = session.site().heads().iter().find(|head| head.camera_id() == line.camera.id).unwrap();
            let sight = session.line(&head.name().to(&target.id)).unwrap();
            let verdict = sight.map_or(Verdict::Broken, |sight| sight.verdict);
            assert_eq!(verdict, line.verdict, "{} on {}", line.camera.model.name, spot.name);
        }
    }
}

#[test]
fn the_best_comes_first_and_what_is_usual_before_others_as_good() {
    let site = site(9.0, "identify", |_| {});
    let found = lines(&site, &wish());
    assert!(found.lines.is_sorted_by_key(|line| line.verdict));
    assert_eq!(found.lines[0].verdict, Verdict::Kept);
    let liked = found.lines.iter().rfind(|line| line.verdict == Verdict::Kept).unwrap().camera.model.name.clone();
    assert_ne!(found.lines[0].camera.model.name, liked);
    let usual = lines(&site, &LineWish { usual: vec![liked.clone()], ..wish() });
    assert!(usual.lines[0].camera.model.name == liked && usual.lines[0].is_usual);
    // At 19 m a fixed 16 mm would do, and shows a picture two thirds as wide as a zoom set to what is needed: that comes first.
    let nineteen = lines(&self::site(18.9, "identify", |_| {}), &wish());
    let first = &nineteen.lines[0];
    assert!(first.verdict == Verdict::Kept && first.holds_to_m < 1.35 * 18.9, "{}", first.camera.model.name);
    // A liking makes nothing kept: past its reach it comes after what is.
    let far = lines(
        &self::site(40.0, "identify", |_| {}),
        &LineWish { usual: vec!["Turret 4 MP 2.8 mm".to_owned()], ..wish() },
    );
    assert!(far.lines[0].camera.model.name != "Turret 4 MP 2.8 mm");
}

#[test]
fn answers_rule_models_out() {
    let names = |found: FinishedLines| found.lines.into_iter().map(|line| line.camera.model).collect::<Vec<_>>();
    let outdoors = names(lines(&site(9.0, "identify", |_| {}), &wish()));
    assert!(outdoors.iter().all(|model| !model.name.starts_with("Box")), "a bare box stands in no rain");
    let reached = names(lines(&site(9.0, "identify", |file| file["spots"][0]["in_reach"] = json!(true)), &wish()));
    assert!(
        !reached.is_empty() && reached.iter().all(|model| !model.name.starts_with("Turret")),
        "a hand turns a turret"
    );
    let near = names(lines(&site(4.0, "identify", |_| {}), &LineWish { near: true, ..wish() }));
    assert!(!near.is_empty() && near.iter().all(|model| model.lens.focal_min_mm <= 2.8));
    let sound = lines(&site(9.0, "identify", |file| file["brief"] = json!({"sound": true})), &wish());
    assert!(sound.lines.iter().all(|line| line.lacks == ["sound not stated"]));
}

/// A model of the firm's own: a turret with a lens that nobody else has.
fn own(name: &str, focal_mm: f64) -> Model {
    let mut model = models().unwrap().into_iter().find(|m| m.name == "Turret 4 MP 6 mm").unwrap();
    model.name = name.to_owned();
    model.lens = Lens {
        focal_min_mm: focal_mm,
        focal_max_mm: focal_mm,
        hfov_at_min_deg: None,
        hfov_at_max_deg: None,
        ..model.lens
    };
    model
}

#[test]
fn the_firms_own_models_are_among_lines_and_ways_and_stand_for_those_of_their_names() {
    let mut session = Session::on(site(12.0, "identify", |_| {}));
    let names = |session: &Session| {
        let found = finished_lines(session, &wish(), Units::Metres).unwrap();
        found.lines.into_iter().map(|line| (line.camera.model.name, line.verdict)).collect::<Vec<_>>()
    };
    let nonsense = Model { name: "Nonsense".to_owned(), ..own("", -3.0) };
    session.keep_own(vec![own("House turret", 9.0), nonsense, own("Turret 4 MP 6 mm", 9.5)]);
    let found = names(&session);
    assert!(found.contains(&("House turret".to_owned(), Verdict::Kept)), "{found:?}");
    assert!(found.contains(&("Turret 4 MP 6 mm".to_owned(), Verdict::Kept)), "the firm's own, not the one that ships");
    assert!(!found.iter().any(|(name, _)| name == "Nonsense"));
    session.keep_own(vec![]);
    assert!(!names(&session).iter().any(|(name, _)| name == "House turret"));
    // A camera with too wide a lens is changed for one of them: with no other that ships it takes the way's patch whole.
    let wide = json!({"id": "c1", "name": "C1", "position": [0, 12], "height_m": 2.8, "model": own("Wide", 2.8),
        "heads": [{"id": "h1", "pan_deg": 180, "tilt_deg": 5.7, "focal_mm": 2.8}]});
    let mut session = Session::on(site(12.0, "identify", |file| file["cameras"] = json!([wide])));
    session.keep_own(vec![own("House turret", 9.0)]);
    let line = Question { camera: "c1".into(), head: "h1".into(), view: None, target: "t1".into() };
    let found = ways(&session, &line, Units::Metres).unwrap();
    assert!(
        found.ways.iter().any(|way| way.says.contains("House turret")),
        "{:?}",
        found.ways.iter().map(|w| &w.says).collect::<Vec<_>>()
    );
}

#[test]
fn the_same_as_the_last_is_the_same_model_set_for_this_distance() {
    let mut held = site(9.0, "identify", |_| {});
    let first = lines(&held, &LineWish { usual: vec!["Turret 4 MP 2.8–12 mm".to_owned()], ..wish() });
    let mut file = serde_json::to_value(taken(&held, &first, 0)).unwrap();
    let mut add = |list: &str, thing: Value| file[list].as_array_mut().unwrap().push(thing);
    add(
        "targets",
        json!({"id": "t2", "name": "Side door", "subject": "face", "task": "identify", "height_m": 1.6,
        "shape": {"kind": "point", "points": [[30, 0]]}}),
    );
    add("spots", json!({"id": "s2", "name": "Corner", "position": [30, 16], "height_m": 2.8}));
    add("readings", json!({"id": "r2", "from": "t2", "to": "s2", "slope_m": 16.0}));
    held = Site::parse(&file.to_string()).unwrap();
    let like = LineWish { target: "t2".into(), spot: "s2".into(), like: Some("c1".into()), ..wish() };
    let again = lines(&held, &like);
    assert_eq!(again.lines.len(), 1);
    let [one, other] = [&first.lines[0].camera, &again.lines[0].camera];
    assert_eq!(one.model, other.model);
    assert!(other.id == "c2" && other.spot.as_deref() == Some("s2"));
    assert!(other.heads[0].focal_mm > 1.5 * one.heads[0].focal_mm, "16 m is not 9 m");
    // What nobody has is named.
    let stray =
        |wish: LineWish| finished_lines(&Session::on(held.clone()), &wish, Units::Metres).unwrap_err()[0].path.clone();
    assert_eq!(stray(LineWish { spot: "s9".into(), ..wish() }), "spot");
    assert_eq!(stray(LineWish { target: "t9".into(), ..wish() }), "target");
    assert_eq!(stray(LineWish { like: Some("c9".into()), ..wish() }), "like");
}

#[test]
fn how_far_a_lens_is_good_for_goes_with_what_it_gives_here() {
    // The density goes with one over the distance (handbook, section 4): what it gives here, over the need, times how far it is.
    for slope in [6.0, 14.0, 35.0] {
        let found = lines(&site(slope, "identify", |_| {}), &wish());
        for line in &found.lines {
            let by_density = line.px_per_m.unwrap() / found.needs_px_per_m * found.slant_m;
            assert!((line.holds_to_m / by_density - 1.0).abs() < 0.02, "{}: {by_density}", line.camera.model.name);
        }
    }
}
