//! What stands in the way against shapely (`outside/occlusion`).

use bright_angle_core::scene::{Eye, Scene, Solid, Volume};
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
        assert!(panes.first_blocker(from, to).is_none());
        assert_eq!(panes.passed(from, to).len(), glass.iter().filter(|s| s.first_hit(from, to).is_some()).count());
    }
}

/// The lines to a target a tenth of a millimetre wide.
fn thin(from: DVec3, to: DVec3) -> Volume {
    let side = (to - from).truncate().perp().normalize_or(glam::DVec2::X) * 1e-4;
    let flat = to.truncate();
    Volume::new(from, 0.0, &[flat - side, flat + side], flat, to.z, to.z)
}

#[test]
fn a_volume_as_thin_as_a_line_meets_what_shapely_says() {
    for case in &cases() {
        let scene = Scene::new(vec![solid(case, "o")]);
        let (from, to) = (DVec3::from_array(case.from), DVec3::from_array(case.to));
        let eye = Eye::new(&scene, from, None);
        if eye.from() == from {
            assert_eq!(eye.is_clear(&scene, &thin(from, to)), !case.blocked, "{case:?}");
        }
    }
}

#[test]
fn a_volume_misses_nothing_that_is_in_the_way_of_one_of_its_lines() {
    let cases = cases();
    let scene = Scene::new(cases.iter().enumerate().map(|(i, case)| solid(case, &format!("o{i}"))).collect());
    let mut clear = 0;
    for (i, case) in cases.iter().enumerate() {
        let (from, to) = (DVec3::from_array(case.from) + DVec3::Z * 7.0, DVec3::from_array(case.to) + DVec3::Z * 6.0);
        let eye = Eye::new(&scene, from, None);
        let half = 0.05 + 0.01 * (i % 40) as f64;
        let flat = to.truncate();
        let towards = (flat - from.truncate()).normalize();
        let side = towards.perp() * half;
        let ends = [flat - side, flat + side, flat - side - towards * half, flat + side - towards * half];
        let volume = Volume::new(from, 0.05, &ends, flat, to.z - half, to.z + half);
        if !eye.is_clear(&scene, &volume) {
            continue;
        }
        clear += 1;
        for k in 0..64 {
            let part = |salt: f64| (f64::from(k) * 0.618_034 + salt).fract() * 2.0 - 1.0;
            let end = flat + side * part(0.1) - towards * half * (0.5 + 0.5 * part(0.37 * f64::from(k)));
            let line = (from + DVec3::Z * 0.05 * part(0.7), end.extend(to.z + half * part(0.3 * f64::from(k))));
            // What lies inside a solid is no place for an end.
            if scene.solid_around(line.1).is_none() {
                assert!(scene.first_blocker(line.0, line.1).is_none(), "{case:?} {line:?}");
            }
        }
    }
    assert!(clear > 60, "{clear}");
}
