//! Private places: masks against what is seen ray by ray, and what follows from a change to a site that has some.

use bright_angle_core::file::{ListChange, Obstacle, ObstacleKind, PrivatePlace, SiteChange, SiteFile, Whose};
use bright_angle_core::judge::Session;
use bright_angle_core::judge::evaluation::{evaluate, eyes};
use bright_angle_core::math::{ring_area, sides};
use bright_angle_core::site::ray::ray;
use bright_angle_core::verdict::RuleName;
use bright_angle_core::verdict::Verdict;
use bright_angle_core::{Fault, Site};
use glam::DVec2;
use serde_json::json;

const DEMO: &str = include_str!("../../../demo/tern-quay.json");

fn place(id: &str, outline: Vec<[f64; 2]>, closed: bool, heights: [f64; 2]) -> PrivatePlace {
    let [base_m, top_m] = heights;
    PrivatePlace {
        id: id.into(),
        name: "P".into(),
        outline,
        closed,
        base_m,
        top_m,
        ground_m: 0.0,
        whose: Whose::Private,
    }
}

/// The demo with a garden over the water, a window of the workshop, and a street behind the fence.
fn demo() -> SiteFile {
    let mut file: SiteFile = serde_json::from_str(DEMO).unwrap();
    file.private = vec![
        place("garden", vec![[70.0, 2.0], [100.0, 2.0], [100.0, 12.0], [70.0, 12.0]], true, [0.0, 2.0]),
        place("window", vec![[42.0, 52.0], [42.0, 55.0]], false, [4.0, 5.5]),
        place("street", vec![[80.0, 76.0], [110.0, 76.0], [110.0, 84.0], [80.0, 84.0]], true, [0.0, 3.0]),
    ];
    file
}

/// Where along a ray of unit length an upright prism begins; by slabs for boxes with sides along the axes, by the plane for a
/// window on a meridian. Another way than the code's.
fn begins(place: &PrivatePlace, from: glam::DVec3, direction: glam::DVec3) -> Option<f64> {
    let xs = place.outline.iter().map(|p| p[0]);
    let ys = place.outline.iter().map(|p| p[1]);
    let (x0, x1) = (xs.clone().fold(f64::MAX, f64::min), xs.fold(f64::MIN, f64::max));
    let (y0, y1) = (ys.clone().fold(f64::MAX, f64::min), ys.fold(f64::MIN, f64::max));
    let low = [x0, y0, place.base_m];
    let high = [x1, y1, place.top_m];
    let (mut near, mut far) = (0.0_f64, f64::INFINITY);
    for axis in 0..3 {
        let (a, b) = ((low[axis] - from[axis]) / direction[axis], (high[axis] - from[axis]) / direction[axis]);
        (near, far) = (near.max(a.min(b)), far.min(a.max(b)));
    }
    (near <= far + 1e-12).then_some(near)
}

#[test]
fn a_mask_covers_every_pixel_that_shows_the_place_and_little_more() {
    let site = Site::from_file(demo()).unwrap();
    let eyes = eyes(&site);
    let mut masks = 0;
    for head in site.heads() {
        let size = head.view().projection.size();
        for (number, place) in site.file().private.iter().enumerate() {
            let mask = site.masks(head).iter().find(|mask| mask.place == number);
            let (mut shown, step) = (0.0, 7.0);
            let (mut low, mut high) = (DVec2::MAX, DVec2::MIN);
            for row in 0..(size.y / step) as u32 {
                for column in 0..(size.x / step) as u32 {
                    let pixel = (DVec2::new(f64::from(column), f64::from(row)) + 0.5) * step;
                    let Some(ray) = ray(head, &eyes[head.camera()], site.scene(), pixel) else { continue };
                    let give = if place.closed { 0.0 } else { 0.25 };
                    let seen = begins(place, ray.from, ray.direction).is_some_and(|at| at < ray.distance + give);
                    if !seen {
                        continue;
                    }
                    shown += step * step;
                    (low, high) = (low.min(pixel), high.max(pixel));
                    let mask = mask.unwrap_or_else(|| panic!("{} sees {} without a mask", head.camera_id(), place.id));
                    let inside = sides(&mask.outline).all(|(a, b)| (b - a).perp_dot(pixel - a) >= -1e-6);
                    assert!(inside, "{}: {pixel} shows {} beside its mask", head.camera_id(), place.id);
                }
            }
            let Some(mask) = mask else { continue };
            masks += 1;
            assert!((3..=8).contains(&mask.outline.len()));
            assert!(mask.outline.iter().all(|at| at.cmpge(DVec2::ZERO).all() && at.cmple(size).all()));
            if shown > 0.0 {
                // No more than the box around what is seen, and the next ray on each side.
                let room = high - low + (high - low) * 0.15 + 60.0;
                let area = ring_area(&mask.outline);
                assert!(area <= room.x * room.y, "{} {}: {area} px² for {shown}", head.camera_id(), place.id);
            }
        }
    }
    assert!(masks >= 5, "{masks}");
}

/// A change of a site as it is then.
type Change<'a> = Box<dyn Fn(&SiteFile) -> SiteChange + 'a>;

#[test]
fn after_every_change_a_session_says_what_a_fresh_one_says() {
    let mut session = Session::open(demo()).unwrap();
    let wall = |x: f64| {
        Obstacle::new("w", "W", ObstacleKind::Wall, vec![[x, 14.0], [105.0, 14.0], [105.0, 14.5], [x, 14.5]], 9.0)
    };
    let obstacles = |put: Vec<Obstacle>, file: &SiteFile| {
        let mut order: Vec<String> = file.obstacles.iter().map(|o| o.id.clone()).collect();
        if !order.contains(&"w".to_owned()) {
            order.push("w".into());
        }
        SiteChange { obstacles: Some(ListChange { order: Some(order), put }), ..SiteChange::default() }
    };
    let window = |top: f64| place("window", vec![[42.0, 52.0], [42.0, 55.0]], false, [1.2, top]);
    let masked = |session: &Session| -> usize {
        let site = session.site();
        site.heads().iter().map(|head| site.masks(head).len()).sum()
    };
    let before = masked(&session);
    let changes: Vec<Change> = vec![
        // A wall before the garden hides it, and does so less when it is shorter.
        Box::new(|file| obstacles(vec![wall(60.0)], file)),
        Box::new(|file| obstacles(vec![wall(90.0)], file)),
        Box::new(|_| SiteChange {
            private: Some(ListChange { order: None, put: vec![window(2.4)] }),
            ..SiteChange::default()
        }),
        Box::new(|file| {
            let mut camera = file.cameras[4].clone();
            camera.heads[0].pan_deg += 12.0;
            SiteChange { cameras: Some(ListChange { order: None, put: vec![camera] }), ..SiteChange::default() }
        }),
        Box::new(|_| SiteChange {
            private: Some(ListChange { order: Some(vec![]), put: vec![] }),
            ..SiteChange::default()
        }),
    ];
    for (number, change) in changes.iter().enumerate() {
        let change = change(session.site().file());
        session.apply(change).unwrap();
        let fresh = evaluate(&Site::from_file(session.site().file().clone()).unwrap());
        assert_eq!(session.evaluation(), fresh, "after change {number}");
        if number == 0 {
            assert!(masked(&session) < before, "the wall hides the garden");
        }
    }
    assert_eq!(masked(&session), 0);
    // Without private places nobody hears of masks.
    let rules = session.evaluation().sight_lines.into_iter().flat_map(|line| line.rules);
    assert!(rules.into_iter().all(|rule| rule.rule != RuleName::Masked));
}

#[test]
fn a_promise_is_lost_behind_a_mask_and_tight_beside_it() {
    let verdict = |outline: Vec<[f64; 2]>| {
        let mut file: SiteFile = serde_json::from_str(DEMO).unwrap();
        file.private = vec![place("n", outline, false, [1.1, 2.1])];
        let lines = evaluate(&Site::from_file(file).unwrap()).sight_lines;
        let line = lines.into_iter().find(|line| line.camera == "c3" && line.target == "t4").unwrap();
        line.rules.into_iter().find(|rule| rule.rule == RuleName::Masked).map(|rule| rule.verdict)
    };
    // The door's face from C3 at 61.4, 51.7: eastwards along the wall; a window behind it, then one that begins a hand beside.
    assert_eq!(verdict(vec![[66.5, 50.3], [66.5, 51.4]]), Some(Verdict::Broken));
    assert_eq!(verdict(vec![[66.3, 50.66], [66.3, 50.2]]), Some(Verdict::Tight));
    assert_eq!(verdict(vec![[66.3, 48.0], [66.3, 47.5]]), Some(Verdict::Kept));
}

#[test]
fn what_is_no_place_is_refused_with_its_place_in_the_file() {
    let faults = |place: PrivatePlace| -> Vec<Fault> {
        let mut file = demo();
        file.private.push(place);
        Site::from_file(file).map(|_| ()).unwrap_err()
    };
    let paths = |faults: Vec<Fault>| faults.into_iter().map(|fault| fault.path).collect::<Vec<_>>();
    assert_eq!(paths(faults(place("x", vec![[0.0, 0.0]], false, [0.0, 1.0]))), ["private[3].outline"]);
    assert_eq!(paths(faults(place("x", vec![[0.0, 0.0], [1.0, 0.0]], true, [0.0, 1.0]))), ["private[3].outline"]);
    assert_eq!(paths(faults(place("x", vec![[0.0, 0.0], [1.0, 0.0]], false, [2.0, 1.0]))), ["private[3].top_m"]);
    assert_eq!(paths(faults(place("garden", vec![[0.0, 0.0], [1.0, 0.0]], false, [0.0, 1.0]))), ["private[3].id"]);
}

#[test]
fn public_ground_is_told_and_masks_nothing() {
    use bright_angle_core::show::coverage::masks::masks;
    let mut file: serde_json::Value = serde_json::from_str(include_str!("../../../demo/tern-quay.json")).unwrap();
    let read = |file: &serde_json::Value| SiteFile::parse(&file.to_string()).unwrap();
    let outline = json!([[70, 30], [95, 30], [95, 50], [70, 50]]);
    file["private"] = json!([{"id": "n1", "name": "Quay", "base_m": 0, "top_m": 0.1, "outline": outline}]);
    let masked = Session::open(read(&file)).unwrap();
    let told_masked = masks(&masked);
    assert!(!told_masked.is_empty() && told_masked.iter().all(|mask| mask.whose == Whose::Private));
    file["private"] = json!([]);
    let bare = Session::open(read(&file)).unwrap();
    for whose in ["public", "neighbour"] {
        file["private"] =
            json!([{"id": "n1", "name": "Quay", "whose": whose, "base_m": 0, "top_m": 0.1, "outline": outline}]);
        let mut session = Session::open(read(&file)).unwrap();
        // No verdict hangs on it, and the share is that of the mask that it would take.
        assert_eq!(session.results(), bare.results());
        let told = masks(&session);
        assert_eq!(told.len(), told_masked.len());
        for (one, other) in told.iter().zip(&told_masked) {
            assert_eq!((&one.camera, one.share, one.costs.len()), (&other.camera, other.share, 0));
        }
        // Made private under the hand, it is masked as if it had been from the beginning; and the other way about.
        let mut place = read(&file).private[0].clone();
        for (now, expected) in [(Whose::Private, &masked), (Whose::Public, &bare)] {
            place.whose = now;
            let change = SiteChange {
                private: Some(ListChange { order: None, put: vec![place.clone()] }),
                ..SiteChange::default()
            };
            session.apply(change).unwrap();
            assert_eq!(session.results(), expected.results(), "{now:?}");
        }
    }
}
