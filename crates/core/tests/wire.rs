//! The wiring: power against the standard's worst channels and against a solver of another kind, lengths, ports, loads and the store by
//! hand, and what does not hang together.

use crate::support;

use bright_angle_core::equipment::power_class::PowerClass;
use bright_angle_core::verdict::Verdict;
use bright_angle_core::wire::power::{loop_ohm, reaches};
use bright_angle_core::wire::told::{CableTold, NodeTold, Wired};
use bright_angle_core::wire::wired::wired;
use serde_json::{Value, json};
use support::network::{cable, camera, node, recorder};
use support::{parse, site};

fn told(cameras: Vec<Value>, nodes: Vec<Value>, cables: Vec<Value>) -> Wired {
    let mut file = site(cameras, vec![], vec![]);
    file["network"] = json!({"nodes": nodes, "cables": cables});
    wired(parse(&file).file())
}

fn of<'a>(wired: &'a Wired, id: &str) -> &'a CableTold {
    wired.cables.iter().find(|cable| cable.id == id).unwrap()
}

fn box_of<'a>(wired: &'a Wired, id: &str) -> &'a NodeTold {
    wired.nodes.iter().find(|node| node.id == id).unwrap()
}

#[test]
fn the_worst_channel_of_each_class_leaves_the_voltage_that_a_device_must_run_on() {
    // IEEE 802.3: loops of 20 Ω for class 3, 12.5 Ω for class 4, half of it over four pairs; the least voltages at the device, as the handbook rounds them.
    for (class, ohm, least) in
        [(3, 20.0, 37.0), (4, 12.5, 42.5), (5, 6.25, 44.3), (6, 6.25, 42.5), (7, 6.25, 42.9), (8, 6.25, 41.1)]
    {
        let of = PowerClass::of(class).unwrap();
        let found = reaches(of.source_v, ohm, of.device_w).unwrap();
        assert!((found.volts - least).abs() < 0.1 && of.least_v == least, "class {class}: {found:?}");
        // What the port gives is what the device draws and what is lost: the standard's figure for the port.
        assert!((of.device_w + found.lost_w - of.source_w).abs() < 0.02 * of.source_w, "class {class}: {found:?}");
    }
    assert!(PowerClass::of(0).is_none() && PowerClass::of(9).is_none());
    assert_eq!([3.0, 12.95, 13.0, 71.3, 80.0].map(PowerClass::for_watts), [Some(1), Some(3), Some(4), Some(8), None]);
}

#[test]
fn a_solver_that_steps_from_current_to_voltage_finds_the_same() {
    for volts in [12.0, 24.0, 44.0, 52.0] {
        for ohm in [0.0, 0.3, 1.0, 4.69, 9.38, 20.0] {
            for watts in [0.0, 2.0, 6.0, 12.95, 25.5] {
                let mut at = volts;
                for _ in 0..20_000 {
                    at = volts - watts / at * ohm;
                }
                match reaches(volts, ohm, watts) {
                    // On the very edge the steps come near for ever.
                    Some(found) if volts * volts - 4.0 * ohm * watts > 1.0 => {
                        let current = watts / at;
                        assert!((found.volts - at).abs() < 1e-6, "{volts} V {ohm} Ω {watts} W: {found:?} {at}");
                        assert!((found.lost_w - current * current * ohm).abs() < 1e-6);
                    }
                    Some(_) => {}
                    None => assert!((volts - watts / at * ohm - at).abs() > 1e-3 || at <= 0.0, "{volts} {ohm} {watts}"),
                }
            }
        }
    }
    // 100 m: 9.38 Ω over two pairs, half over four (ANSI/TIA-568's conductor).
    assert!((loop_ohm(100.0, 2) - 9.38).abs() < 1e-12 && (loop_ohm(100.0, 4) - 4.69).abs() < 1e-12);
}

#[test]
fn a_cable_is_as_long_as_its_way_with_its_rise_slack_and_housing() {
    // By hand: 30 along, 40 across, from 3 m down to 1 m: (70 + 2) × 1.1 + 0.12; by way of a ceiling at 4 m: (70 + 1 + 3) × 1.1 + 0.12.
    let along = |more: Value| {
        let made = told(
            vec![camera("c1", [30.0, 40.0], 3, 8.0, 4.0)],
            vec![recorder(json!({}))],
            vec![cable("k1", "c1", "nvr", more)],
        );
        (of(&made, "k1").length_m * 1e6).round() / 1e6
    };
    assert_eq!(along(json!({"route": [[30, 0]]})), 79.32);
    assert_eq!(along(json!({"route": [[30, 0]], "route_height_m": 4.0})), 81.52);
    assert_eq!(along(json!({"length_m": 12.5})), 12.5);
    assert_eq!(along(json!({})), 57.32, "straight: 50 m and 2 m down");
    // The corners are told from where the cable begins, also where that is the recorder: 30 along, 40 across either way.
    let drawn = |from: &str, to: &str, route: Value| {
        let made = told(
            vec![camera("c1", [30.0, 40.0], 3, 8.0, 4.0)],
            vec![recorder(json!({}))],
            vec![cable("k1", from, to, json!({"route": route}))],
        );
        (of(&made, "k1").length_m * 1e6).round() / 1e6
    };
    assert_eq!(drawn("c1", "nvr", json!([[30, 10], [20, 0]])), drawn("nvr", "c1", json!([[20, 0], [30, 10]])));
}

#[test]
fn length_decides_by_kind_by_how_it_goes_and_by_extended_ports() {
    let run = |more: Value, switch: Value| {
        let sw = {
            let mut sw =
                node("sw", "switch", json!({"ports": 8, "budget_w": 120, "port_class": 4, "gives_power": true}));
            sw.as_object_mut().unwrap().extend(switch.as_object().unwrap().clone());
            sw
        };
        let nodes = vec![recorder(json!({})), sw];
        let cables = vec![cable("up", "sw", "nvr", json!({})), cable("k1", "c1", "sw", more)];
        let made = told(vec![camera("c1", [5.0, 0.0], 3, 5.0, 4.0)], nodes, cables);
        let found = of(&made, "k1").clone();
        (found.verdict, found.limit_m, found.says)
    };
    let plain = |length: f64| run(json!({"length_m": length}), json!({}));
    assert_eq!(plain(89.0).0, Verdict::Kept);
    assert_eq!(plain(95.0).0, Verdict::Kept, "good cable indoors");
    assert_eq!(run(json!({"length_m": 95, "in": "trench"}), json!({})).0, Verdict::Tight);
    assert_eq!(run(json!({"length_m": 95, "kind": "cat5e"}), json!({})).0, Verdict::Tight);
    let far = plain(112.0);
    assert_eq!((far.0, far.1, far.2[0].as_str()), (Verdict::Broken, Some(100.0), "112 m, 100 m at most"));
    // Extended reach takes a port that has it, and runs at 10 Mbit/s.
    let extended = run(json!({"length_m": 240, "extended": true}), json!({"extended_ports": 2}));
    // By hand: 22.5 Ω leave 35.9 V of 37 at 12.95 W, and 41.3 V at the 5 W that it is stated to draw.
    assert_eq!((extended.0, extended.1), (Verdict::Tight, Some(250.0)), "{:?}", extended.2);
    let none = run(json!({"length_m": 200, "extended": true}), json!({}));
    assert!(none.0 == Verdict::Broken && none.2[0].contains("no extended-reach port left"), "{:?}", none.2);
    assert_eq!(run(json!({"length_m": 260, "extended": true}), json!({"extended_ports": 1})).0, Verdict::Broken);
    let glass = run(json!({"length_m": 400, "kind": "fibre"}), json!({}));
    assert_eq!((glass.1, glass.0), (None, Verdict::Broken), "glass brings no power: {:?}", glass.2);
}

#[test]
fn power_is_what_is_drawn_and_what_is_lost_and_a_class_the_port_gives() {
    let one = |class: u32, watts: f64, length: f64| {
        told(
            vec![camera("c1", [5.0, 0.0], class, watts, 4.0)],
            vec![recorder(json!({}))],
            vec![cable("k1", "c1", "nvr", json!({"length_m": length}))],
        )
    };
    // By hand: 12.95 W over 50 m of class 3: R = 4.69 Ω, V = (44 + √(1936 − 4 · 4.69 · 12.95)) / 2 = 42.5734 V, lost 0.4339 W.
    let made = one(3, 12.95, 50.0);
    let k1 = of(&made, "k1");
    assert!(
        (k1.loop_ohm.unwrap() - 4.69).abs() < 1e-9 && (k1.volts_at_device.unwrap() - 42.5734).abs() < 1e-3,
        "{k1:?}"
    );
    assert!((k1.watts_lost.unwrap() - 0.43395).abs() < 1e-4, "{k1:?}");
    assert!((box_of(&made, "nvr").drawn_w - 13.38395).abs() < 1e-4);
    assert_eq!((k1.verdict, box_of(&made, "nvr").reserved_w), (Verdict::Kept, 15.4));
    let high = of(&one(6, 45.0, 50.0), "k1").clone();
    assert!(high.verdict == Verdict::Broken && high.says[0] == "class 6 wanted, nvr gives class 4", "{high:?}");
    let over = of(&one(2, 9.0, 20.0), "k1").clone();
    assert!(over.says[0].contains("9.0 W, more than class 2 may draw"), "{over:?}");
    // A budget: four of 25 W are 100 W and what is lost; a fifth of 120 W is not free, five are too many.
    let many = |count: usize| {
        let cameras = (0..count).map(|i| camera(&format!("c{i}"), [5.0, i as f64], 4, 25.0, 4.0)).collect();
        let cables =
            (0..count).map(|i| cable(&format!("k{i}"), &format!("c{i}"), "nvr", json!({"length_m": 20.0}))).collect();
        box_of(&told(cameras, vec![recorder(json!({}))], cables), "nvr").clone()
    };
    assert_eq!([3, 4, 5].map(|count| many(count).verdict), [Verdict::Kept, Verdict::Tight, Verdict::Broken]);
    assert!(many(5).says[0].starts_with("127."), "{:?}", many(5).says);
    // Ports: eight of eight leave no fifth free; nine do not fit.
    let ports = |count: usize| {
        let cameras = (0..count).map(|i| camera(&format!("c{i}"), [5.0, i as f64], 1, 1.0, 4.0)).collect();
        let cables = (0..count).map(|i| cable(&format!("k{i}"), &format!("c{i}"), "nvr", json!({}))).collect();
        box_of(&told(cameras, vec![recorder(json!({}))], cables), "nvr").verdict
    };
    assert_eq!([6, 8, 9].map(ports), [Verdict::Kept, Verdict::Tight, Verdict::Broken]);
}

#[test]
fn a_chain_adds_up_inwards_and_passes_power_on() {
    // c1 and c2 behind a repeater: 3 W of its own, what both draw, what both lose, all of it over the first cable.
    let nodes = vec![
        recorder(json!({"port_class": 6})),
        node("rep", "repeater", json!({"position": [80, 0], "power_class_in": 6})),
    ];
    let cables = vec![
        cable("k0", "rep", "nvr", json!({"length_m": 90})),
        cable("k1", "c1", "rep", json!({"length_m": 60})),
        cable("k2", "c2", "rep", json!({"length_m": 30})),
    ];
    let cameras = vec![camera("c1", [140.0, 0.0], 3, 9.0, 4.0), camera("c2", [110.0, 0.0], 3, 7.0, 3.0)];
    let made = told(cameras, nodes, cables);
    let [k0, k1, k2] = ["k0", "k1", "k2"].map(|id| of(&made, id));
    let passed = 3.0 + 9.0 + 7.0 + k1.watts_lost.unwrap() + k2.watts_lost.unwrap();
    assert!((k0.watts.unwrap() - passed).abs() < 1e-12 && k0.mbps == 7.0, "{k0:?}");
    // Four pairs for class 6.
    assert!((k0.loop_ohm.unwrap() - 0.0938 * 90.0 / 2.0).abs() < 1e-12);
    assert!((box_of(&made, "nvr").drawn_w - passed - k0.watts_lost.unwrap()).abs() < 1e-12);
    assert!((box_of(&made, "rep").drawn_w - (passed - 3.0)).abs() < 1e-12);
    assert_eq!([k0.verdict, k1.verdict, k2.verdict], [Verdict::Kept; 3]);
    let [link] = made.links.as_slice() else { panic!("one link: {:?}", made.links) };
    assert_eq!((link.mbps, link.capacity_mbps, link.cameras.len()), (7.0, 1000.0, 2));
    assert!(made.faults.is_empty(), "{:?}", made.faults);
}

#[test]
fn random_trees_add_up_as_a_plain_recursion_says() {
    let mut seed = 7_u64;
    let mut next = |below: u64| {
        seed = seed.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        (seed >> 33) % below
    };
    for _ in 0..60 {
        // Boxes in a tree below the recorder, cameras at any of them.
        let count = 1 + next(7) as usize;
        let parents: Vec<usize> = (1..=count).map(|i| next(i as u64) as usize).collect();
        let name = |place: usize| if place == 0 { "nvr".to_owned() } else { format!("sw{place}") };
        let mut nodes = vec![recorder(json!({}))];
        nodes.extend(
            (1..=count)
                .map(|i| node(&name(i), "switch", json!({"gives_power": true, "port_class": 4, "speed_mbps": 100}))),
        );
        let mut cables: Vec<Value> = parents
            .iter()
            .enumerate()
            .map(|(i, up)| cable(&format!("u{}", i + 1), &name(*up), &name(i + 1), json!({})))
            .collect();
        let at: Vec<usize> = (0..12).map(|_| next(count as u64 + 1) as usize).collect();
        let rate = |camera: usize| 1.0 + camera as f64;
        let cameras = (0..12).map(|i| camera(&format!("c{i}"), [4.0, i as f64], 3, 5.0, rate(i))).collect();
        // Drawn from either end.
        cables.extend(at.iter().enumerate().map(|(i, up)| match i % 2 {
            0 => cable(&format!("k{i}"), &format!("c{i}"), &name(*up), json!({})),
            _ => cable(&format!("k{i}"), &name(*up), &format!("c{i}"), json!({})),
        }));
        let made = told(cameras, nodes, cables);
        fn below(place: usize, parents: &[usize], at: &[usize]) -> f64 {
            let own: f64 = at.iter().enumerate().filter(|(_, up)| **up == place).map(|(i, _)| 1.0 + i as f64).sum();
            let deeper = parents.iter().enumerate().filter(|(_, up)| **up == place);
            own + deeper.map(|(i, _)| below(i + 1, parents, at)).sum::<f64>()
        }
        for i in 1..=count {
            let link = made.links.iter().find(|link| link.cable == format!("u{i}")).unwrap();
            let wanted = below(i, &parents, &at);
            assert!((link.mbps - wanted).abs() < 1e-9 && link.capacity_mbps == 100.0, "{link:?} {wanted}");
            assert_eq!(link.verdict == Verdict::Kept, wanted <= 100.0);
        }
        assert!(made.faults.is_empty(), "{:?}", made.faults);
    }
}

#[test]
fn what_does_not_hang_together_is_said() {
    let cams = || vec![camera("c1", [5.0, 0.0], 3, 5.0, 4.0), camera("c2", [6.0, 0.0], 3, 5.0, 4.0)];
    let sw = || node("sw", "switch", json!({"gives_power": true}));
    let faults = |nodes: Vec<Value>, cables: Vec<Value>| told(cams(), nodes, cables).faults.join("; ");
    let k = |id: &str, from: &str, to: &str| cable(id, from, to, json!({}));
    let twice =
        faults(vec![recorder(json!({}))], vec![k("k1", "c1", "nvr"), k("k2", "c1", "nvr"), k("k3", "c2", "nvr")]);
    assert!(twice.contains("C1 is wired more than once: k1, k2"), "{twice}");
    let ring = faults(
        vec![recorder(json!({})), sw()],
        vec![k("k1", "sw", "nvr"), k("k2", "nvr", "sw"), k("k3", "c1", "sw"), k("k4", "c2", "sw")],
    );
    assert!(ring.contains("k2 closes a ring at sw"), "{ring}");
    let apart = faults(vec![recorder(json!({})), sw()], vec![k("k1", "c1", "sw"), k("k2", "c2", "nvr")]);
    assert_eq!(apart, "C1 has no way to a recorder");
    let none = faults(vec![sw()], vec![k("k1", "c1", "sw"), k("k2", "c2", "sw")]);
    assert!(none.starts_with("there is no recorder"), "{none}");
    let gone =
        faults(vec![recorder(json!({}))], vec![k("k1", "c9", "nvr"), k("k2", "c1", "nvr"), k("k3", "c2", "nvr")]);
    assert_eq!(gone, "k1 leads to c9, which is not there");
    let cameras =
        faults(vec![recorder(json!({}))], vec![k("k1", "c1", "c2"), k("k2", "c1", "nvr"), k("k3", "c2", "nvr")]);
    assert_eq!(cameras, "k1 joins two cameras, C1 and C2");
    // A box that gives no power, and a site with no cables at all, of which nothing is asked.
    let dark = told(cams(), vec![node("nvr", "recorder", json!({}))], vec![k("k1", "c1", "nvr"), k("k2", "c2", "nvr")]);
    assert_eq!(of(&dark, "k1").says, ["nothing gives C1 power"]);
    assert!(told(cams(), vec![], vec![]).faults.is_empty());
}

#[test]
fn a_cord_feeds_by_its_own_voltage_and_loses_no_more_than_a_tenth() {
    let cord = |volts: f64, length: f64| {
        let nodes = vec![node("nvr", "recorder", json!({})), node("out", "outlet", json!({}))];
        let cables = vec![
            cable("k1", "c1", "nvr", json!({})),
            // 18 AWG, 0.0214 ohms a metre (from memory).
            cable("p1", "c1", "out", json!({"kind": "cord", "volts": volts, "ohm_per_m": 0.0214, "length_m": length})),
        ];
        of(&told(vec![camera("c1", [5.0, 0.0], 3, 6.0, 4.0)], nodes, cables), "p1").clone()
    };
    // By hand: 20 m, 0.856 Ω, 6 W from 12 V: V = (12 + √(144 − 20.544)) / 2 = 11.5556, 3.7 %.
    let near = cord(12.0, 20.0);
    assert!((near.volts_at_device.unwrap() - 11.5556).abs() < 1e-3 && near.verdict == Verdict::Kept, "{near:?}");
    let far = cord(12.0, 60.0);
    assert!(far.verdict == Verdict::Broken && far.says[0].contains("10 % at most"), "{far:?}");
    assert_eq!(cord(24.0, 60.0).verdict, Verdict::Kept);
    let dead = cord(12.0, 200.0);
    assert!(dead.volts_at_device.is_none() && dead.says[0].contains("will not run"), "{dead:?}");
}

#[test]
fn the_store_holds_its_days() {
    let mut file =
        site(vec![camera("c1", [5.0, 0.0], 3, 5.0, 4.0), camera("c2", [6.0, 0.0], 3, 5.0, 6.0)], vec![], vec![]);
    file["cameras"][1]["stream"]["share_recorded"] = json!(0.5);
    file["brief"] = json!({"retention_days": 14});
    file["network"] = json!({"nodes": [recorder(json!({"disk_gb": 1000}))], "cables": []});
    let held = wired(parse(&file).file()).store;
    // By hand: (4 + 6 · 0.5) · 10.8 = 75.6 GB a day, 1058.4 GB in a fortnight, 13.2 days on a terabyte.
    assert!((held.gb_per_day - 75.6).abs() < 1e-9 && (held.gb.unwrap() - 1058.4).abs() < 1e-9);
    assert!((held.holds_days.unwrap() - 13.2275).abs() < 1e-3 && held.verdict == Verdict::Broken);
    file["network"]["nodes"][0]["disk_gb"] = json!(2000);
    assert_eq!(wired(parse(&file).file()).store.verdict, Verdict::Kept, "measured: no spread");
    // A start value may be 60 % higher: two of 3.4 Mbit/s or so fill two terabytes in a fortnight only at their most.
    for camera in [0, 1] {
        file["cameras"][camera].as_object_mut().unwrap().remove("stream");
        file["cameras"][camera]["model"]["sensor"] = support::sensor(2688, 1520, 5.376);
        file["cameras"][camera]["model"]["lens"] = json!({"focal_min_mm": 6, "focal_max_mm": 6});
    }
    let start = wired(parse(&file).file()).store;
    assert!((start.gb_per_day - 2.0 * 3.5 * 10.8).abs() < 1.5, "{start:?}");
    file["network"]["nodes"][0]["disk_gb"] = json!(1200);
    assert_eq!(wired(parse(&file).file()).store.verdict, Verdict::Tight);
    file["brief"] = json!({});
    assert_eq!(wired(parse(&file).file()).store.verdict, Verdict::Unknown);
}

#[test]
fn bad_figures_are_named_by_their_place() {
    let faults = |network: Value| {
        let mut file = site(vec![], vec![], vec![]);
        file["network"] = network;
        match bright_angle_core::Site::parse(&file.to_string()) {
            Ok(_) => String::new(),
            Err(faults) => {
                faults.iter().map(|fault| format!("{}: {}", fault.path, fault.message)).collect::<Vec<_>>().join("; ")
            }
        }
    };
    let said = faults(json!({"nodes": [node("a", "switch", json!({"port_class": 9}))], "cables": []}));
    assert!(said.contains("network.nodes[0].port_class: 9 is outside 1 to 8"), "{said}");
    assert!(faults(json!({"nodes": [{"id": "a", "name": "A", "kind": "switch"}]})).contains("position"));
    let said = faults(json!({"nodes": [], "cables": [cable("k", "c1", "c1", json!({}))]}));
    assert!(said.contains("network.cables[0].to: begins and ends at \"c1\""), "{said}");
    let many: Vec<Value> = (0..10_000).map(|i| cable(&format!("k{i}"), "c1", "nvr", json!({}))).collect();
    assert!(faults(json!({"cables": many})).contains("10000 are more than the 2000"));
    let twice = faults(json!({"nodes": [node("a", "switch", json!({})), node("a", "switch", json!({}))]}));
    assert!(twice.contains("\"a\" stands twice"), "{twice}");
}
