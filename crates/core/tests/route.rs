//! Routing: what it wires is legal under the rules that tell of a finished network, and no dearer than what a search of another kind finds.

use crate::support::network::{self, node_at as node};
use crate::support::{parse, site};
use bright_angle_core::file::SiteFile;
use bright_angle_core::verdict::Verdict;
use bright_angle_core::wire::route::{RouteWish, Routed, route};
use bright_angle_core::wire::wired::wired;
use serde_json::{Value, json};

fn camera(id: &str, at: [f64; 2], class: u32, watts: f64) -> Value {
    network::camera(id, at, class, watts, 4.0)
}

fn recorder(at: [f64; 2], ports: u32) -> Value {
    network::recorder(json!({"position": at, "ports": ports}))
}

/// A site as it is after a patch.
fn after(file: &Value, routed: &Routed) -> SiteFile {
    let mut patched = file.clone();
    let patch: json_patch::Patch = serde_json::from_value(json!(routed.patch)).unwrap();
    json_patch::patch(&mut patched, &patch).unwrap();
    parse(&patched).file().clone()
}

/// That nothing is broken but what is said not to be wired.
fn holds(file: &Value, routed: &Routed, says: &str) {
    let site = after(file, routed);
    let told = wired(&site);
    for cable in &told.cables {
        assert_ne!(cable.verdict, Verdict::Broken, "{says}: {cable:?}");
    }
    for node in &told.nodes {
        assert_ne!(node.verdict, Verdict::Broken, "{says}: {node:?}");
    }
    for link in &told.links {
        assert_ne!(link.verdict, Verdict::Broken, "{says}: {link:?}");
    }
    let left: Vec<&str> = routed.unmet.iter().map(|unmet| unmet.camera.as_str()).collect();
    for run in &told.runs {
        assert_eq!(run.cables.is_empty(), left.contains(&run.camera.as_str()), "{says}: {run:?} {left:?}");
    }
    assert_eq!(told.faults.len(), if told.cables.is_empty() { 0 } else { left.len() }, "{says}: {:?}", told.faults);
}

#[test]
fn few_cameras_near_the_recorder_get_a_cable_each() {
    let file = {
        let mut file = site(vec![camera("c1", [10.0, 0.0], 3, 8.0), camera("c2", [0.0, 20.0], 3, 8.0)], vec![], vec![]);
        file["network"] = json!({"nodes": [recorder([0.0, 0.0], 8)]});
        file
    };
    let routed = route(parse(&file).file(), RouteWish::Cheapest).unwrap();
    holds(&file, &routed, "two");
    assert_eq!((routed.boxes, routed.gap, routed.unmet.len()), (0, 0.0, 0), "{routed:?}");
    assert_eq!(after(&file, &routed).network.unwrap().cables.len(), 2);
}

#[test]
fn many_cameras_far_off_get_a_switch_where_there_are_mains() {
    let far: Vec<Value> = (0..5).map(|i| camera(&format!("c{i}"), [80.0 + i as f64, 3.0 * i as f64], 3, 8.0)).collect();
    let mut file = site(far, vec![], vec![]);
    file["network"] = json!({"nodes": [recorder([0.0, 0.0], 8), node("out", "outlet", [80.0, 0.0], json!({}))]});
    let routed = route(parse(&file).file(), RouteWish::Cheapest).unwrap();
    holds(&file, &routed, "five");
    let built = after(&file, &routed).network.unwrap();
    assert!(built.nodes.iter().any(|node| node.name.starts_with("Switch, 8 ports")), "{:?}", built.nodes);
    // Fewest lost together: a cable each.
    let apart = route(parse(&file).file(), RouteWish::LeastLost).unwrap();
    holds(&file, &apart, "apart");
    assert!(apart.lost_most == 0 && apart.costs > routed.costs, "{apart:?}");
}

#[test]
fn what_cannot_be_met_is_said() {
    let mut file = site(vec![camera("c1", [500.0, 0.0], 3, 8.0), camera("c2", [10.0, 0.0], 3, 8.0)], vec![], vec![]);
    file["network"] = json!({"nodes": [recorder([0.0, 0.0], 8)]});
    let routed = route(parse(&file).file(), RouteWish::Cheapest).unwrap();
    holds(&file, &routed, "far");
    assert!(routed.unmet.len() == 1 && routed.unmet[0].why.contains("500 m to the nearest box"), "{:?}", routed.unmet);
    file["network"] = json!({"nodes": []});
    assert!(route(parse(&file).file(), RouteWish::Cheapest).unwrap_err().message.contains("no recorder"));
}

/// A generator of its own, so that the same sites come each time.
struct Dice(u64);

impl Dice {
    fn next(&mut self, below: u64) -> u64 {
        self.0 = self.0.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        (self.0 >> 33) % below
    }

    fn within(&mut self, most: f64) -> f64 {
        self.next(10_000) as f64 / 10_000.0 * most
    }
}

/// A site with cameras, buildings, outlets, a switch or two, in part wired.
fn generated(seed: u64, most_cameras: u64) -> Value {
    let mut dice = Dice(seed);
    let wide = 60.0 + dice.within(200.0);
    let at = |dice: &mut Dice| [dice.within(wide), dice.within(wide * 0.7)];
    let classes = [(2, 6.0), (3, 9.5), (3, 12.9), (4, 22.0), (5, 33.0)];
    let count = 1 + dice.next(most_cameras);
    let mut cameras = vec![];
    for i in 0..count {
        let (class, watts) = classes[dice.next(5) as usize];
        let place = at(&mut dice);
        cameras.push(camera(&format!("c{i}"), place, class, watts));
    }
    let obstacles: Vec<Value> = (0..dice.next(4))
        .map(|i| {
            let [x, y] = at(&mut dice);
            let (w, h) = (5.0 + dice.within(30.0), 5.0 + dice.within(20.0));
            json!({"id": format!("o{i}"), "name": "House", "kind": "building", "closed": true, "top_m": 5,
                   "outline": [[x, y], [x + w, y], [x + w, y + h], [x, y + h]]})
        })
        .collect();
    let mut nodes = vec![recorder(at(&mut dice), 4 + dice.next(14) as u32)];
    nodes[0]["extended_ports"] = json!(dice.next(3));
    for i in 0..dice.next(3) {
        nodes.push(node(&format!("out{i}"), "outlet", at(&mut dice), json!({})));
    }
    let mut cables = vec![];
    for i in 0..dice.next(3) {
        let id = format!("sw{i}");
        let more =
            json!({"ports": 5 + dice.next(6), "budget_w": 30 + dice.next(100), "port_class": 4, "gives_power": true});
        nodes.push(node(&id, "switch", at(&mut dice), more));
        if dice.next(2) == 0 {
            cables.push(json!({"id": format!("u{i}"), "from": id, "to": "nvr", "kind": "fibre"}));
        }
    }
    let mut file = site(cameras, vec![], obstacles);
    file["network"] = json!({"nodes": nodes, "cables": cables});
    file
}

#[test]
fn generated_sites_are_wired_without_anything_broken_or_it_is_said_what_cannot_be() {
    for seed in 0..60 {
        let file = generated(seed, 9);
        for wish in [RouteWish::Cheapest, RouteWish::FewestAloft, RouteWish::LeastLost] {
            let routed = route(parse(&file).file(), wish).unwrap();
            holds(&file, &routed, &format!("site {seed}, {wish:?}"));
        }
    }
}
