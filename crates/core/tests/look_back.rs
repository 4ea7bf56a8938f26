//! Looking back at the building: where the least-seen way hugs a wall, a camera that looks along that wall sees whoever comes (handbook,
//! section 6, "Overlap").

use crate::support::{CameraAt, block, evaluated, parse, site, target};
use bright_angle_core::change::ways::look_back::look_back;
use bright_angle_core::file::Which;
use bright_angle_core::judge::Session;
use bright_angle_core::words::units::Units;
use serde_json::{Value, json};

/// A house whose one camera looks away from its own wall.
fn house() -> Value {
    let camera = CameraAt { at: [9.0, 0.1], tilt: 10.0, ..CameraAt::default() }.json();
    let mut file = site(
        vec![camera],
        vec![target("person", "observe", [9.0, 12.0], 1.0)],
        vec![block([-10.0, 10.0], [-8.0, 0.0], 5.0)],
    );
    file["spots"] =
        json!([{"id": "s1", "name": "Gutter bracket", "position": [-9.8, 0.2], "height_m": 3.2, "kind": "wall"}]);
    file
}

#[test]
fn a_camera_that_looks_along_the_wall_is_offered_with_what_it_costs() {
    let file = house();
    let session = Session::on(parse(&file));
    // Along the wall, half a metre off it.
    let path = [[-7.0, 0.5], [7.0, 0.5]];
    let ways = look_back(&session, &path, 1.6, 25.0, Units::Metres).unwrap();
    assert!(!ways.is_empty());
    let new = ways.iter().find(|way| way.says.contains("Gutter bracket")).expect("the spot on the wall is used");
    assert!(new.says.starts_with("Look back along Block"), "{}", new.says);
    for way in &ways {
        let mut then = file.clone();
        let patch: json_patch::Patch = serde_json::from_value(json!(way.patch)).unwrap();
        json_patch::patch(&mut then, &patch).unwrap();
        let after = evaluated(&then);
        for effect in &way.effects {
            let held = after["targets"].as_array().unwrap().iter().find(|t| t["target"] == effect.target.as_str());
            assert_eq!(held.unwrap()["verdict"], effect.after.word(), "{}", way.says);
        }
        // What it says that it sees it sees, counted by rays of the site as it would be.
        let site = parse(&then);
        let head = site.heads().iter().find(|head| head.name() == way.head && head.which() == Which::Own).unwrap();
        let steps = (0..56).map(|i| glam::DVec3::new(-7.0 + f64::from(i) * 0.25, 0.5, 1.6));
        let sees = steps.filter(|point| {
            head.look(*point).is_some_and(|look| look.in_view && look.across >= 25.0)
                && site.scene().first_blocker(head.position(), *point).is_none()
        });
        let seen = sees.count() as f64 * 0.25;
        assert!(seen >= 3.0 && way.why.contains(&format!("sees {seen:.1}")), "{seen}: {}", way.why);
    }
    // A camera that is turned leaves its promise, and stands last.
    let last = ways.last().unwrap();
    assert!(last.harms && !ways[0].harms, "{ways:?}");
    // In the open there is no wall to look along.
    assert!(look_back(&session, &[[-9.0, 20.0], [5.0, 20.0]], 1.6, 25.0, Units::Metres).unwrap().is_empty());
    assert!(look_back(&session, &[[f64::NAN, 0.0]], 1.6, 25.0, Units::Metres).is_err());
}
