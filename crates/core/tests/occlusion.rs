//! What stands in the way against shapely (`outside/occlusion`).

use bright_angle_core::scene::{Eye, Scene, Solid};
use glam::DVec3;
use serde::Deserialize;

#[derive(Debug, Deserialize)]
struct Case {
    outline: Vec<[f64; 2]>,
    closed: bool,
    base: f64,
    top: f64,
    from: [f64; 3],
    to: [f64; 3],
    blocked: bool,
}

fn cases() -> Vec<Case> {
    serde_json::from_str(include_str!("../../../outside/occlusion/occlusion.json")).unwrap()
}

fn solid(case: &Case, id: &str) -> Solid {
    Solid::new(id, &case.outline, case.closed, case.base, case.top, 0.0)
}

fn see_through(case: &Case, id: &str) -> Solid {
    Solid::new(id, &case.outline, case.closed, case.base, case.top, 0.6)
}

#[test]
fn lines_are_blocked_where_shapely_says() {
    let cases = cases();
    assert!(cases.len() >= 400);
    for case in &cases {
        let scene = Scene::new(vec![solid(case, "o")]);
        let hit = scene.first_blocker(DVec3::from_array(case.from), DVec3::from_array(case.to));
        assert_eq!(hit.is_some(), case.blocked, "{case:?}");
    }
}

#[test]
fn the_index_finds_what_asking_each_solid_finds() {
    // All solids of the table in one scene: the nearest of all hits, whichever way it is sought.
    let cases = cases();
    let solids: Vec<Solid> = cases.iter().enumerate().map(|(i, case)| solid(case, &format!("o{i}"))).collect();
    let scene = Scene::new(solids.clone());
    let glass: Vec<Solid> = cases.iter().enumerate().map(|(i, case)| see_through(case, &format!("g{i}"))).collect();
    let panes = Scene::new(glass.clone());
    for case in &cases {
        let (from, to) = (DVec3::from_array(case.from), DVec3::from_array(case.to));
        let each = solids.iter().filter_map(|s| s.first_hit(from, to)).reduce(f64::min);
        assert_eq!(scene.first_blocker(from, to).map(|(_, share)| share), each);
        let heights = [to.z, to.z + 0.3, to.z - 0.2];
        let ends = heights.map(|z| to.truncate().extend(z));
        let clear = ends.iter().all(|end| solids.iter().all(|s| s.first_hit(from, *end).is_none()));
        assert_eq!(Eye::new(&scene, from.truncate()).all_clear(&scene, from, to.truncate(), &heights), clear);
        assert!(panes.first_blocker(from, to).is_none());
        assert_eq!(panes.passed(from, to).len(), glass.iter().filter(|s| s.first_hit(from, to).is_some()).count());
    }
}
