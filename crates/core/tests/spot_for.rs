//! Where a spot goes that nobody has drawn yet.

use crate::support::{block, parse, site, target};
use bright_angle_core::survey::spot_for::{SPOT_HEIGHT_M, spot_for};
use serde_json::{Value, json};

fn place(slope: f64, change: impl FnOnce(&mut Value)) -> [f64; 2] {
    let mut file = site(vec![], vec![target("face", "identify", [0.0, 0.0], 1.6)], vec![]);
    change(&mut file);
    let found = spot_for(&parse(&file), "t1", slope).unwrap();
    assert_eq!(found.height_m, SPOT_HEIGHT_M);
    found.position
}

#[test]
fn it_stands_as_far_off_as_was_measured_on_the_side_that_the_target_faces() {
    // By hand: 5 m in a straight line and 1.2 m up are 4.854 m along the ground.
    assert_eq!(place(5.0, |_| {}), [0.0, 4.85]);
    assert_eq!(place(5.0, |file| file["targets"][0]["facing_deg"] = json!(90)), [4.85, 0.0]);
    assert_eq!(place(5.0, |file| file["targets"][0]["facing_deg"] = json!(180))[1], -4.85);
    assert_eq!(place(1.0, |_| {}), [0.0, 0.1], "shorter than the heights are apart");
}

#[test]
fn a_door_in_a_wall_is_looked_at_from_outside() {
    // The target stands at the south face of a building, and nobody said which way it faces.
    let at_door = |file: &mut Value| file["obstacles"] = json!([block([-6.0, 6.0], [0.02, 9.0], 4.0)]);
    assert_eq!(place(5.0, at_door), [0.0, -4.85], "straight out of the wall");
    // One that faces along the wall is looked at from there, one that faces into it from as near to that as is free.
    let facing = |deg: f64| {
        place(5.0, |file| {
            at_door(file);
            file["targets"][0]["facing_deg"] = json!(deg);
        })
    };
    assert_eq!(facing(135.0), [3.43, -3.43]);
    assert_eq!(facing(60.0)[1].signum(), -1.0);
    // Shut in on all sides it stands where it would: somebody has drawn it wrong.
    let shut = |file: &mut Value| {
        file["obstacles"] = json!([block([-1.0, 1.0], [0.5, 1.0], 4.0), {"id": "o2", "name": "Ring", "kind": "wall", "top_m": 5,
            "closed": false, "outline": [[-2, -2], [2, -2], [2, 2], [-2, 2], [-2, -2.001]]}]);
    };
    assert_eq!(place(5.0, shut), [0.0, 4.85]);
}

#[test]
fn what_is_no_target_or_no_distance_is_refused() {
    let held = parse(&site(vec![], vec![target("face", "identify", [0.0, 0.0], 1.6)], vec![]));
    assert!(spot_for(&held, "t9", 5.0).is_err() && spot_for(&held, "t1", -1.0).is_err());
    assert!(spot_for(&held, "t1", f64::NAN).is_err());
}
