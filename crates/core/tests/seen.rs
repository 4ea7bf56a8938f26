//! Seen and hidden: what is seen of cameras against ray casting (outside/seen, trimesh on Embree), and by hand.

use bright_angle_core::Site;
use bright_angle_core::show::seen::seen_from::{CameraSeen, Direction, seen_from};
use bright_angle_core::show::seen::wish::{WishTold, wishes};
use bright_angle_core::verdict::Verdict;
use bright_angle_core::words::units::Units;
use serde::Deserialize;
use serde_json::{Value, json};

use crate::support::{CameraAt, block, parse, site, target};

#[derive(Deserialize)]
struct Table {
    along_m: f64,
    across_m: f64,
    sites: Vec<Made>,
}

#[derive(Deserialize)]
struct Made {
    solids: Vec<Solid>,
    cameras: Vec<Camera>,
    places: Vec<[f64; 2]>,
    cases: Vec<Case>,
}

#[derive(Deserialize)]
struct Solid {
    ring: Vec<[f64; 2]>,
    base: f64,
    top: f64,
}

#[derive(Deserialize)]
struct Camera {
    form: String,
    at: [f64; 3],
}

#[derive(Debug, Deserialize)]
struct Case {
    camera: usize,
    place: usize,
    free: f64,
    least: f64,
    most: f64,
    never: bool,
}

fn table() -> Table {
    serde_json::from_str(include_str!("../../../outside/seen/seen.json")).unwrap()
}

/// The site of the table with one of its cameras, and a wish at each place.
fn made(table: &Table, made: &Made, camera: usize, wish: &str) -> Site {
    let obstacles = made.solids.iter().enumerate().map(|(i, solid)| {
        json!({"id": format!("o{i}"), "name": "Solid", "kind": "other", "outline": solid.ring, "base_m": solid.base,
               "top_m": solid.top})
    });
    let Camera { form, at } = &made.cameras[camera];
    let mut hung = CameraAt { at: [at[0], at[1]], height: at[2], ..CameraAt::default() }.json();
    hung["model"]["form"] = json!(form);
    let targets = made.places.iter().enumerate().map(|(i, place)| {
        let mut wished = target("person", "detect", *place, 1.0);
        wished["id"] = json!(format!("t{i}"));
        wished["cameras_shall"] = json!(wish);
        wished
    });
    let mut file = site(vec![hung], targets.collect(), obstacles.collect());
    file["rules"] = json!({"uncertainties": {"laser_m": table.along_m, "laser_across_m": table.across_m,
        "height_m": 0.03, "camera_height_m": 0.03}});
    parse(&file)
}

#[test]
fn as_much_of_a_camera_is_free_as_ray_casting_finds() {
    let table = table();
    let (mut cases, mut partly) = (0, 0);
    for held in &table.sites {
        for case in &held.cases {
            let found = made(&table, held, case.camera, "deter");
            let told = seen_from(&found, held.places[case.place], 0.0, Units::Metres).unwrap();
            let free = told.cameras[0].free;
            // 24 points stand for the disc: an edge across its middle passes some of them by.
            assert!((free - case.free).abs() < 0.1, "{free} for {case:?}");
            assert!((free == 0.0) == (case.free == 0.0) || (0.0..0.08).contains(&case.free), "{free} for {case:?}");
            cases += 1;
            partly += usize::from((0.02..0.98).contains(&case.free));
        }
    }
    assert!(cases > 900 && partly >= 10, "{cases}, {partly}");
}

#[test]
fn wishes_stand_as_ray_casting_from_all_over_the_uncertain_places_says() {
    let table = table();
    let mut seen = std::collections::BTreeMap::new();
    for held in &table.sites {
        for camera in 0..held.cameras.len() {
            let [deter, unnoticed] =
                ["deter", "go_unnoticed"].map(|wish| wishes(&made(&table, held, camera, wish), Units::Metres));
            for case in held.cases.iter().filter(|case| case.camera == camera) {
                let (deter, unnoticed) = (deter[case.place].verdict, unnoticed[case.place].verdict);
                // What lies between a tenth and a half is too near to a third to be called by so few rays.
                let expected = match (case.free, case.least) {
                    (free, least) if free > 0.45 && least > 0.45 => Some(Verdict::Kept),
                    (free, least) if free > 0.45 && least < 0.2 => Some(Verdict::Tight),
                    (free, _) if free < 0.2 => Some(Verdict::Broken),
                    _ => None,
                };
                if let Some(expected) = expected {
                    assert_eq!(deter, expected, "deter, {case:?}");
                    *seen.entry(("deter", expected.word())).or_insert(0) += 1;
                }
                let expected = match (case.free, case.most) {
                    (free, _) if free > 0.45 => Some(Verdict::Broken),
                    (free, most) if free == 0.0 && most > 0.1 => Some(Verdict::Tight),
                    _ if case.never => Some(Verdict::Kept),
                    _ => None,
                };
                if let Some(expected) = expected {
                    assert_eq!(unnoticed, expected, "unnoticed, {case:?}");
                    *seen.entry(("unnoticed", expected.word())).or_insert(0) += 1;
                }
            }
        }
    }
    assert!(seen.len() == 6 && seen.values().all(|count| *count >= 25), "{seen:?}");
}

/// A wish at a point 10 m north of a camera 3 m up, with what stands between them.
fn wished(wish: &str, change: impl FnOnce(&mut Value)) -> WishTold {
    let mut thing = target("person", "detect", [0.0, 10.0], 1.0);
    thing["cameras_shall"] = json!(wish);
    let mut file = site(vec![CameraAt::default().json()], vec![thing], vec![]);
    change(&mut file);
    wishes(&parse(&file), Units::Metres).remove(0)
}

fn told(change: impl FnOnce(&mut Value), at: [f64; 2]) -> CameraSeen {
    let mut file = site(vec![CameraAt::default().json()], vec![], vec![]);
    change(&mut file);
    seen_from(&parse(&file), at, 0.0, Units::Metres).unwrap().cameras.remove(0)
}

#[test]
fn direction_is_read_by_form_and_by_how_far_off_one_stands() {
    // A bullet that looks north: 0.09 m spans five minutes of arc at 61.9 m.
    let here = told(|_| {}, [0.0, 10.0]);
    assert_eq!((here.seen, here.direction), (true, Some(Direction::Here)));
    assert!((here.direction_to_m.unwrap() - 61.88).abs() < 0.01, "{here:?}");
    assert_eq!(told(|_| {}, [10.0, 0.0]).direction, Some(Direction::Elsewhere));
    let far = told(|_| {}, [0.0, 80.0]);
    assert_eq!((far.seen, far.direction, far.free), (false, None, 1.0));
    assert!(far.says.contains("too far to be known for a camera: up to 62 m"), "{}", far.says);
    // A turret is known from farther than its eye is read; a dome's bubble never tells.
    let turret = told(|file| file["cameras"][0]["model"]["form"] = json!("turret"), [0.0, 50.0]);
    assert_eq!((turret.seen, turret.direction), (true, Some(Direction::TooFar)));
    let dome = told(|file| file["cameras"][0]["model"]["form"] = json!("dome"), [0.0, 10.0]);
    assert_eq!((dome.seen, dome.direction, dome.direction_to_m), (true, Some(Direction::Untold), None));
}

#[test]
fn a_poor_eye_is_asked_where_it_shall_deter_and_a_good_one_where_it_shall_not_be_noticed() {
    // A bullet is known to 61.9 m by a usual eye, to 30.9 m by a poor one, to 123.8 m by a very good one.
    let at = |wish: &str, far: f64| {
        wished(wish, |file| file["targets"][0]["shape"]["points"][0] = json!([0.0, far])).verdict
    };
    assert_eq!(
        [30.0, 32.0, 61.0, 63.0].map(|far| at("deter", far)),
        [Verdict::Kept, Verdict::Tight, Verdict::Tight, Verdict::Broken]
    );
    assert_eq!(
        [61.0, 63.0, 122.0, 126.0].map(|far| at("go_unnoticed", far)),
        [Verdict::Broken, Verdict::Tight, Verdict::Tight, Verdict::Kept]
    );
}

#[test]
fn every_place_of_an_area_is_asked_and_the_one_that_decides_is_named() {
    // A path along a wall that ends half way: behind it nobody sees the camera.
    let wall = block([-4.0, 0.5], [5.0, 5.2], 4.0);
    let along = |file: &mut Value| {
        file["targets"][0]["shape"] = json!({"kind": "line", "points": [[-6.0, 10.0], [8.0, 10.0]]});
        file["obstacles"] = json!([wall]);
    };
    let deter = wished("deter", along);
    assert_eq!(deter.verdict, Verdict::Broken);
    assert!(deter.seen_from > 0 && deter.seen_from < deter.places, "{deter:?}");
    assert!(deter.at.is_some_and(|at| at[0] < 1.0), "{deter:?}");
    assert!(
        deter.says.starts_with(&format!("A camera is seen from {} of {} places only", deter.seen_from, deter.places))
    );
    assert_eq!(wished("go_unnoticed", along).verdict, Verdict::Broken);
    // A second camera beyond the wall's other end makes it whole: any of them deters.
    let both = wished("deter", |file| {
        along(file);
        let mut second = CameraAt { at: [-14.0, 0.0], ..CameraAt::default() }.json();
        second["id"] = json!("c2");
        file["cameras"].as_array_mut().unwrap().push(second);
    });
    assert_eq!((both.verdict, both.cameras.len()), (Verdict::Kept, 2), "{both:?}");
}

#[test]
fn what_hangs_on_a_wall_is_seen_before_it_and_hidden_behind_it() {
    let on_wall = |file: &mut Value| {
        file["obstacles"] = json!([block([-5.0, 5.0], [-3.0, 0.0], 6.0)]);
    };
    assert!(told(on_wall, [0.0, 10.0]).seen);
    // Nearly along the wall some of its body sinks into what it hangs on, and enough is left.
    assert!(told(on_wall, [12.0, 0.6]).seen);
    let behind = told(on_wall, [0.0, -10.0]);
    assert_eq!((behind.seen, behind.free), (false, 0.0));
    assert_eq!(behind.says, "hidden behind Block");
}

#[test]
fn raised_ground_lifts_the_eyes_and_a_parapet_hides_only_from_below() {
    let parapet = |ground: f64| {
        wished("go_unnoticed", |file| {
            file["targets"][0]["ground_m"] = json!(ground);
            file["obstacles"] = json!([block([-3.0, 3.0], [8.0, 8.2], 3.2)]);
        })
    };
    assert_eq!(parapet(0.0).verdict, Verdict::Kept);
    assert_eq!(parapet(4.0).verdict, Verdict::Broken);
}

#[test]
fn no_camera_deters_nobody_and_inside_of_a_block_nobody_stands() {
    let none = wished("deter", |file| file["cameras"] = json!([]));
    assert_eq!((none.verdict, none.says.as_str()), (Verdict::Broken, "No camera is seen from here."));
    assert_eq!(wished("go_unnoticed", |file| file["cameras"] = json!([])).verdict, Verdict::Kept);
    // What is taken down counts for nothing.
    assert_eq!(wished("deter", |file| file["cameras"][0]["existing"] = json!("goes")).verdict, Verdict::Broken);
    let inside = wished("deter", |file| file["obstacles"] = json!([block([-1.0, 1.0], [9.0, 11.0], 4.0)]));
    assert_eq!((inside.verdict, inside.places), (Verdict::Unknown, 0));
}

#[test]
fn a_place_that_is_none_is_refused() {
    let empty = parse(&site(vec![], vec![], vec![]));
    assert!(seen_from(&empty, [1e7, 0.0], 0.0, Units::Metres).is_err());
    assert!(seen_from(&empty, [0.0, 0.0], 1e4, Units::Metres).is_err());
}
