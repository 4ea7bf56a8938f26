//! Routes and assignments against networkx and a search through everything (`outside/wire/generate.py`).

use crate::support::network::{camera, node_at, recorder};
use crate::support::{parse, site};
use bright_angle_core::wire::route::{RouteWish, route};
use bright_angle_core::wire::wired::wired;
use serde_json::{Value, json};

fn told() -> Value {
    serde_json::from_str(include_str!("../../../outside/wire/wire.json")).unwrap()
}

fn place(value: &Value) -> [f64; 2] {
    serde_json::from_value(value.clone()).unwrap()
}

#[test]
fn cables_take_the_shortest_way_that_networkx_finds() {
    for (number, case) in told()["routes"].as_array().unwrap().iter().enumerate() {
        let cameras: Vec<Value> = case["cameras"]
            .as_array()
            .unwrap()
            .iter()
            .map(|told| camera(told["id"].as_str().unwrap(), place(&told["at"]), 1, 1.0, 1.0))
            .collect();
        let mut file = site(cameras, vec![], vec![]);
        let ways: Vec<Value> = case["ways"]
            .as_array()
            .unwrap()
            .iter()
            .enumerate()
            .map(|(i, points)| json!({"id": format!("w{i}"), "name": "Pipe", "in": "conduit", "points": points}))
            .collect();
        file["network"] =
            json!({"nodes": [recorder(json!({"position": case["recorder"], "height_m": 3}))], "ways": ways});
        // Everything but a cable of its own along the ways is so dear that it is not taken; and no length is too long.
        file["rules"] = json!({"wiring": {"channel_m": 1000, "sure_m": 1000, "prices": {"wall": 1, "ceiling": 1, "conduit": 1,
            "trench": 500, "dig": 500, "air": 500, "switch_8": 50000, "switch_16": 50000, "small_box": 50000, "fibre_ends": 50000}}});
        let routed = route(parse(&file).file(), RouteWish::Cheapest).unwrap();
        assert!(routed.priced && routed.boxes == 0 && routed.unmet.is_empty(), "{number}: {routed:?}");
        let patch: json_patch::Patch = serde_json::from_value(json!(routed.patch)).unwrap();
        json_patch::patch(&mut file, &patch).unwrap();
        let built = wired(parse(&file).file());
        for told in case["cameras"].as_array().unwrap() {
            let run = built.runs.iter().find(|run| run.camera == told["id"].as_str().unwrap()).unwrap();
            // Both ends hang at 3 m: slack and what lies in the housing are all that is added.
            let wanted = told["plan_m"].as_f64().unwrap() * 1.1 + 0.12;
            // Corners are written to the centimetre, and what is within five is one place.
            assert!((run.length_m - wanted).abs() < 0.3, "{number}: {} is {}, not {wanted}", run.camera, run.length_m);
        }
    }
}

#[test]
fn no_assignment_is_cheaper_than_the_one_that_is_found() {
    let mut looked_at = 0;
    for (number, case) in told()["assignments"].as_array().unwrap().iter().enumerate() {
        let cameras = case["cameras"].as_array().unwrap().iter().map(|told| {
            let (class, watts) = (told["class"].as_u64().unwrap() as u32, told["watts"].as_f64().unwrap());
            camera(told["id"].as_str().unwrap(), place(&told["at"]), class, watts, 4.0)
        });
        let mut file = site(cameras.collect(), vec![], vec![]);
        let of = &case["recorder"];
        let mut nodes = vec![recorder(json!({"position": of["at"], "ports": of["ports"], "budget_w": of["budget_w"]}))];
        for (i, at) in case["outlets"].as_array().unwrap().iter().enumerate() {
            nodes.push(node_at(&format!("out{i}"), "outlet", place(at), json!({})));
        }
        file["network"] = json!({"nodes": nodes});
        let routed = route(parse(&file).file(), RouteWish::Cheapest).unwrap();
        match case["cost"].as_f64() {
            Some(cost) => {
                looked_at += 1;
                assert!(routed.unmet.is_empty() && routed.gap == 0.0, "{number}: {routed:?}");
                assert!(
                    (routed.costs - cost).abs() < 1e-4 * cost,
                    "{number}: {} against {cost}: {routed:?}",
                    routed.costs
                );
            }
            None => assert!(!routed.unmet.is_empty(), "{number}"),
        }
    }
    assert!(looked_at > 10, "{looked_at}");
}
