//! The ground against the outside: quiet paths against networkx on the same grid, seen areas against shapely
//! (outside/ground/generate.py); and what is told about places, head by head, by hand.

use bright_angle_core::Site;
use bright_angle_core::ground::lost::lost;
use bright_angle_core::ground::quiet_path::{SEEN, quiet_path};
use bright_angle_core::ground::seasons::other_states;
use bright_angle_core::ground::steps::Steps;
use bright_angle_core::ground::told::{GroundWish, LiveGround, ground};
use bright_angle_core::ground::why::{Edge, Reason, why};
use bright_angle_core::judge::Session;
use bright_angle_core::math::Grid;
use bright_angle_core::scene::{Scene, Solid};
use bright_angle_core::verdict::Verdict;
use bright_angle_core::words::units::Units;
use serde::Deserialize;
use serde_json::{Value, json};

#[derive(Deserialize)]
struct Table {
    paths: Vec<PathCase>,
    areas: Vec<AreaCase>,
}

#[derive(Deserialize)]
struct PathCase {
    columns: usize,
    rows: usize,
    solids: Vec<Vec<[f64; 2]>>,
    walls: Vec<Vec<[f64; 2]>>,
    seen: Vec<Vec<bool>>,
    goal: [usize; 2],
    cost: Option<f64>,
}

#[derive(Deserialize)]
struct AreaCase {
    bounds: [f64; 4],
    eye: [f64; 2],
    solids: Vec<Vec<[f64; 2]>>,
    seen_m2: f64,
    open_m2: f64,
    edge_m: f64,
}

fn table() -> Table {
    serde_json::from_str(include_str!("../../../outside/ground/ground.json")).unwrap()
}

#[test]
fn quiet_paths_cost_what_networkx_finds() {
    let mut found_some = 0;
    for (number, case) in table().paths.into_iter().enumerate() {
        let grid = Grid::over([0.0, 0.0, case.columns as f64, case.rows as f64], 1.0);
        let solid = |outline: &Vec<[f64; 2]>, closed: bool| Solid::new("s", outline, closed, 0.0, 2.0, 0.0);
        let solids = case.solids.iter().map(|s| solid(s, true)).chain(case.walls.iter().map(|w| solid(w, false)));
        let steps = Steps::over(&grid, &Scene::new(solids.collect()));
        let seen: Vec<bool> = case.seen.into_iter().flatten().collect();
        let way = quiet_path(&grid, &steps, &seen, case.goal[1] * case.columns + case.goal[0]);
        let cost = way.as_ref().map(|way| way.length_m + SEEN * way.seen_m);
        match (cost, case.cost) {
            (Some(ours), Some(theirs)) => {
                assert!((ours - theirs).abs() < 1e-6 * (1.0 + theirs), "case {number}: {ours} {theirs}");
                found_some += usize::from(theirs > 1.0);
            }
            (ours, theirs) => assert_eq!(ours, theirs, "case {number}"),
        }
    }
    assert!(found_some > 15, "most of the paths lead somewhere");
}

/// A fisheye that looks straight down sees every way: what it sees of the ground is bounded by walls alone.
fn all_around(eye: [f64; 2], obstacles: Value) -> Site {
    let site = json!({
        "format": "bright-angle/site", "version": 1, "name": "All around", "obstacles": obstacles, "targets": [],
        "cameras": [{"id": "c1", "name": "C", "position": eye, "height_m": 3.0,
            "model": {"name": "F", "form": "fisheye",
                "sensor": {"width_px": 2592, "height_px": 1944, "width_mm": 5.184, "height_mm": 3.888, "image_circle_px": 1944},
                "lens": {"focal_min_mm": 1.2376, "focal_max_mm": 1.2376, "hfov_at_min_deg": 180.0}},
            "heads": [{"id": "h", "pan_deg": 0, "tilt_deg": 90, "focal_mm": 1.2376}]}]
    });
    Site::parse(&site.to_string()).unwrap()
}

#[test]
fn seen_areas_are_those_that_shapely_finds() {
    for (number, case) in table().areas.into_iter().enumerate() {
        let solid = |(i, outline): (usize, &Vec<[f64; 2]>)| json!({"id": format!("o{i}"), "name": "W", "kind": "building", "outline": outline, "top_m": 4.0});
        let obstacles: Vec<Value> = case.solids.iter().enumerate().map(solid).collect();
        let site = all_around(case.eye, json!(obstacles));
        let told = ground(&site, &GroundWish { need_px_per_m: 0.1, height_m: 1.6, goal: None }).unwrap();
        assert_eq!(told.bounds, case.bounds, "case {number}");
        // A cell is in or out as a whole: along every edge half a cell is unsure, one way and the other.
        let give = 0.12 * told.cell_m * case.edge_m;
        assert!(
            (told.seen_m2 - case.seen_m2).abs() < give,
            "case {number}: {} {} ± {give}",
            told.seen_m2,
            case.seen_m2
        );
        assert!((told.open_m2 - case.open_m2).abs() < give, "case {number}: {} {}", told.open_m2, case.open_m2);
        assert_eq!(told.twice_m2, 0.0);
    }
}

#[test]
fn a_relief_that_follows_a_hand_tells_what_a_fresh_one_does() {
    let demo = include_str!("../../../demo/tern-quay.json");
    let mut session = Session::on(Site::parse(demo).unwrap());
    let wish = GroundWish { need_px_per_m: 62.5, height_m: 1.6, goal: Some([66.0, 30.0]) };
    let mut live = LiveGround::new(session.site(), 1.6);
    live.tell(session.site(), &wish).unwrap();
    let mut turned = session.site().file().cameras[3].clone();
    turned.heads[0].pan_deg += 40.0;
    let mut wall = session.site().file().obstacles[0].clone();
    wall.outline.iter_mut().for_each(|corner| corner[0] -= 3.0);
    let changes = [json!({"cameras": {"put": [turned]}}), json!({"obstacles": {"put": [wall]}})];
    for change in changes {
        let delta = session.apply(serde_json::from_value(change).unwrap()).unwrap();
        live.changed(session.site(), &delta);
        assert_eq!(live.tell(session.site(), &wish).unwrap(), ground(session.site(), &wish).unwrap());
    }
}

/// One camera at the origin, three metres up, that looks north and 20° down, past a tree that loses its leaves.
fn yard() -> Value {
    json!({
        "format": "bright-angle/site", "version": 1, "name": "Yard", "targets": [
            {"id": "t1", "name": "Gate", "subject": "face", "task": "detect", "shape": {"kind": "point", "points": [[0, 12]]},
             "height_m": 1.6}],
        "obstacles": [
            {"id": "o1", "name": "Lime", "kind": "tree", "outline": [[-3, 7], [-1, 7], [-1, 9], [-3, 9]], "top_m": 6, "bare_see_through": 0.8},
            {"id": "o2", "name": "Shed", "kind": "building", "outline": [[1, 7], [3, 7], [3, 9], [1, 9]], "top_m": 4}],
        "cameras": [{"id": "c1", "name": "C1", "position": [0, 0], "height_m": 3.0,
            "model": {"name": "M", "form": "bullet",
                "sensor": {"width_px": 1920, "height_px": 1080, "width_mm": 5.376, "height_mm": 3.024},
                "lens": {"focal_min_mm": 4, "focal_max_mm": 4}},
            "heads": [{"id": "h1", "pan_deg": 0, "tilt_deg": 20, "focal_mm": 4}]}]
    })
}

fn told_at(site: &Value, at: [f64; 2], need: f64) -> bright_angle_core::ground::why::Told {
    why(&Site::parse(&site.to_string()).unwrap(), at, 1.6, need, Units::Metres).unwrap().heads.remove(0)
}

#[test]
fn each_reason_is_the_true_one() {
    let site = yard();
    let reason = |at: [f64; 2], need: f64| {
        let told = told_at(&site, at, need);
        (told.reason, told.side, told.behind)
    };
    assert_eq!(reason([0.0, 12.0], 25.0), (Reason::Seen, None, vec![]));
    assert_eq!(reason([0.0, 12.0], 250.0), (Reason::TooFar, None, vec![]));
    assert_eq!(reason([3.0, 12.0], 25.0), (Reason::Behind, None, vec!["o2".to_owned()]));
    assert_eq!(reason([0.0, 0.8], 25.0), (Reason::Under, Some(Edge::Below), vec![]));
    assert_eq!(reason([9.0, 6.0], 25.0), (Reason::OutOfPicture, Some(Edge::Right), vec![]));
    assert_eq!(reason([-9.0, 6.0], 25.0), (Reason::OutOfPicture, Some(Edge::Left), vec![]));
    assert_eq!(reason([0.0, -9.0], 25.0), (Reason::OutOfPicture, Some(Edge::Back), vec![]));
    // By hand: half of the picture is atan(2.688 / 4) = 33.9° wide; from the axis plane the place lies atan(9/6) = 56.3° aside.
    let off = told_at(&site, [9.0, 6.0], 25.0).by_deg.unwrap();
    assert!((18.0..24.0).contains(&off), "{off}");
}

#[test]
fn leaves_that_decide_are_named() {
    let mut site = yard();
    let behind_the_tree = told_at(&site, [-3.5, 12.5], 25.0);
    assert_eq!((behind_the_tree.reason, behind_the_tree.leaves_decide), (Reason::Behind, true));
    assert!(behind_the_tree.says.contains("free once the leaves are off"), "{}", behind_the_tree.says);
    site["conditions"] = json!({"leaves_off": true});
    let bare = told_at(&site, [-3.5, 12.5], 25.0);
    assert_eq!((bare.reason, bare.leaves_decide), (Reason::Seen, true));
    assert!(bare.says.contains("only until the leaves come"), "{}", bare.says);
    assert!(!told_at(&site, [3.0, 12.0], 25.0).leaves_decide, "behind the shed it is always");
}

#[test]
fn what_hangs_on_one_camera_and_on_the_season_is_told() {
    let mut site = yard();
    let session = Session::on(Site::parse(&site.to_string()).unwrap());
    let lost = lost(&session);
    assert_eq!(lost.iter().map(|l| (l.target.as_str(), l.after)).collect::<Vec<_>>(), [("t1", Verdict::Broken)]);
    assert!(other_states(&session).iter().all(|state| state.changes.is_empty()), "nothing stands between");
    site["targets"][0]["shape"]["points"] = json!([[-3.5, 12.5]]);
    let states = other_states(&Session::on(Site::parse(&site.to_string()).unwrap()));
    assert_eq!(states.len(), 1);
    assert_eq!((states[0].changes[0].before, states[0].changes[0].after), (Verdict::Broken, Verdict::Kept));
}
