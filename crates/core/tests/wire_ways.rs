//! Ways to mend the wiring, the network sheet, what a switch reports, what gives when the disks are full, and the wiring as files.

use crate::support::network::{cable, camera, node, recorder};
use crate::support::{parse, site};
use bright_angle_core::change::store_cuts::{CutKind, store_cuts};
use bright_angle_core::exchange::network_file::NetworkFile;
use bright_angle_core::file::SiteFile;
use bright_angle_core::judge::Session;
use bright_angle_core::verdict::Verdict;
use bright_angle_core::wire::conduit::most_fill;
use bright_angle_core::wire::estimate::cable_estimate;
use bright_angle_core::wire::mend::{WireWay, wire_ways};
use bright_angle_core::wire::read_switch::{PortReport, SwitchReport, differs, planned};
use bright_angle_core::wire::sheet::network_sheet;
use bright_angle_core::wire::wired::wired;
use serde_json::{Value, json};

fn with(cameras: Vec<Value>, nodes: Vec<Value>, cables: Vec<Value>) -> Value {
    let mut file = site(cameras, vec![], vec![]);
    file["network"] = json!({"nodes": nodes, "cables": cables});
    file
}

fn after(file: &Value, way: &WireWay) -> SiteFile {
    // The places of a patch are those of the file as it is written.
    let mut patched = serde_json::to_value(parse(file).file()).unwrap();
    let patch: json_patch::Patch = serde_json::from_value(json!(way.patch)).unwrap();
    json_patch::patch(&mut patched, &patch).unwrap();
    parse(&patched).file().clone()
}

/// The ways for a thing: each applied makes it better, and nothing else broken.
fn mended(file: &Value, id: &str) -> Vec<WireWay> {
    let ways = wire_ways(parse(file).file(), id).unwrap();
    for way in &ways {
        let told = wired(&after(file, way));
        let verdicts =
            told.cables.iter().map(|c| (&c.id, c.verdict)).chain(told.nodes.iter().map(|n| (&n.id, n.verdict)));
        let of = verdicts.into_iter().filter(|(other, _)| *other == id).map(|(_, verdict)| verdict).next();
        assert!(of.is_none_or(|verdict| verdict != Verdict::Broken), "{}: {:?}", way.says, told.cables);
        for effect in &way.effects {
            let run = told.runs.iter().find(|run| run.camera == effect.id).map(|run| run.verdict);
            assert!(run.is_none_or(|verdict| verdict == effect.after), "{effect:?}");
        }
    }
    ways
}

fn says(ways: &[WireWay]) -> String {
    ways.iter().map(|way| way.says.as_str()).collect::<Vec<_>>().join(" | ")
}

#[test]
fn a_run_too_long_gets_extended_reach_or_a_repeater() {
    let cables = vec![cable("k1", "c1", "nvr", json!({"length_m": 140}))];
    let far = with(vec![camera("c1", [100.0, 0.0], 2, 5.0, 4.0)], vec![recorder(json!({"extended_ports": 1}))], cables);
    let found = says(&mended(&far, "k1"));
    assert!(found.contains("extended-reach port of nvr") && found.contains("repeater half-way"), "{found}");
    // At 320 m neither reaches.
    let mut farther = far.clone();
    farther["network"]["cables"][0]["length_m"] = json!(320);
    assert_eq!(says(&mended(&farther, "k1")), "");
    assert!(wire_ways(parse(&far).file(), "k9").is_err());
}

#[test]
fn a_class_too_high_gets_an_injector_and_a_cord_more_volts() {
    let cameras = vec![camera("c1", [20.0, 0.0], 6, 45.0, 4.0)];
    let file = with(cameras, vec![recorder(json!({}))], vec![cable("k1", "c1", "nvr", json!({}))]);
    let found = mended(&file, "k1");
    assert!(says(&found).contains("injector beside nvr: it gives class 6"), "{}", says(&found));
    let nodes = vec![node("nvr", "recorder", json!({})), node("out", "outlet", json!({}))];
    let cables = vec![
        cable("k1", "c1", "nvr", json!({})),
        cable("p1", "c1", "out", json!({"kind": "cord", "volts": 12, "ohm_per_m": 0.0214, "length_m": 60})),
    ];
    let corded = with(vec![camera("c1", [5.0, 0.0], 3, 6.0, 4.0)], nodes, cables);
    assert!(says(&mended(&corded, "p1")).contains("24 V"));
}

#[test]
fn a_budget_that_is_over_is_split() {
    let cameras: Vec<Value> = (0..4).map(|i| camera(&format!("c{i}"), [10.0, f64::from(i)], 3, 12.0, 4.0)).collect();
    let cables = (0..4).map(|i| cable(&format!("k{i}"), &format!("c{i}"), "nvr", json!({}))).collect();
    let file = with(cameras, vec![recorder(json!({"budget_w": 40}))], cables);
    let found = mended(&file, "nvr");
    assert!(says(&found).starts_with("Split it: a second switch beside nvr takes"), "{}", says(&found));
    assert!(says(&found).contains("gives 120 W"), "{}", says(&found));
    let split = wired(&after(&file, &found[0]));
    assert!(split.nodes.iter().all(|node| node.verdict == Verdict::Kept), "{:?}", split.nodes);
    assert_eq!(split.runs.iter().filter(|run| run.verdict == Verdict::Kept).count(), 4);
}

#[test]
fn a_run_is_the_way_from_the_recorder_with_the_worst_on_it() {
    let nodes = vec![recorder(json!({})), node("sw", "switch", json!({"gives_power": true, "ports": 1}))];
    let cables = vec![cable("u", "sw", "nvr", json!({})), cable("k1", "c1", "sw", json!({"length_m": 30}))];
    let cameras = vec![camera("c1", [30.0, 0.0], 3, 8.0, 4.0), camera("c2", [9.0, 0.0], 3, 8.0, 4.0)];
    let told = wired(parse(&with(cameras, nodes, cables)).file());
    let run = &told.runs[0];
    assert_eq!(
        (&run.nodes, &run.cables),
        (&vec!["nvr".to_owned(), "sw".to_owned()], &vec!["u".to_owned(), "k1".to_owned()])
    );
    assert!(run.verdict == Verdict::Broken && run.says[0] == "sw: 2 cables for 1 ports", "{run:?}");
    assert_eq!((told.runs[1].verdict, told.runs[1].cables.len()), (Verdict::Unknown, 0));
    // A wireless link holds by its measured signal, a battery by itself.
    let wireless = |more: Value, months: Option<f64>| {
        let mut cameras = vec![camera("c1", [30.0, 0.0], 3, 8.0, 4.0)];
        cameras[0]["power"]["battery_months"] = json!(months);
        let cables = vec![cable("k1", "c1", "nvr", json!({"kind": "wireless"}))];
        let mut file = with(cameras, vec![recorder(json!({}))], cables);
        file["network"]["cables"][0].as_object_mut().unwrap().extend(more.as_object().unwrap().clone());
        wired(parse(&file).file()).cables[0].clone()
    };
    assert_eq!(wireless(json!({"signal_dbm": -60}), Some(4.0)).verdict, Verdict::Kept);
    assert_eq!(wireless(json!({"signal_dbm": -72}), Some(4.0)).verdict, Verdict::Broken);
    assert_eq!(wireless(json!({}), Some(4.0)).verdict, Verdict::Unknown);
    assert!(wireless(json!({"signal_dbm": -60}), None).says.join(" ").contains("nothing gives C1 power"));
}

#[test]
fn a_conduit_holds_what_the_table_says() {
    // US National Electrical Code, chapter 9, table 1: one cable 53 %, two 31 %, more 40 %.
    assert_eq!([1, 2, 3, 9].map(most_fill), [0.53, 0.31, 0.40, 0.40]);
    let fill = |count: usize, inside: f64| {
        let cameras = (0..count).map(|i| camera(&format!("c{i}"), [50.0, i as f64], 3, 8.0, 4.0)).collect();
        let route = json!({"route": [[40, 0], [10, 0]]});
        let cables = (0..count).map(|i| cable(&format!("k{i}"), &format!("c{i}"), "nvr", route.clone())).collect();
        let mut file = with(cameras, vec![recorder(json!({}))], cables);
        file["network"]["ways"] =
            json!([{"id": "w1", "name": "Pipe", "in": "conduit", "points": [[40, 0], [10, 0]], "inside_mm": inside}]);
        let told = wired(parse(&file).file()).ways.remove(0);
        (told.cables.len(), told.fill.unwrap(), told.verdict)
    };
    // By hand: a cable of 6.2 mm in 16 mm: 38.44 / 256 = 15.0 %, two 30.0 %, three 45.0 %.
    let (one, two, three) = (fill(1, 16.0), fill(2, 16.0), fill(3, 16.0));
    assert!(one.0 == 1 && (one.1 - 0.1502).abs() < 1e-3 && one.2 == Verdict::Kept, "{one:?}");
    assert!((two.1 - 0.3003).abs() < 1e-3 && two.2 == Verdict::Kept, "{two:?}");
    assert!(three.0 == 3 && three.2 == Verdict::Broken, "{three:?}");
}

#[test]
fn addresses_are_planned_once_each_and_ports_in_the_order_of_the_cables() {
    let mut file = with(
        vec![camera("c1", [9.0, 0.0], 5, 30.0, 4.0), camera("c2", [9.0, 5.0], 3, 8.0, 4.0)],
        vec![recorder(json!({})), node("out", "outlet", json!({}))],
        vec![cable("k1", "c2", "nvr", json!({"extended": true})), cable("k2", "c1", "nvr", json!({}))],
    );
    file["cameras"][0]["device"] =
        json!({"address": "192.168.50.102", "hardware": "02-00-5e-10-00-0a", "password_changed": true});
    let sheet = network_sheet(parse(&file).file());
    let rows: Vec<_> =
        sheet.rows.iter().map(|r| (r.id.as_str(), r.address.as_deref().unwrap(), r.planned, r.port)).collect();
    let wanted = [
        ("nvr", "192.168.50.2", true, None),
        ("c1", "192.168.50.102", false, Some(2)),
        ("c2", "192.168.50.101", true, Some(1)),
    ];
    assert_eq!(rows, wanted);
    assert_eq!(sheet.rows[1].hardware.as_deref(), Some("02:00:5E:10:00:0A"));
    assert_eq!(sheet.rows[1].settings, ["power priority high"]);
    assert_eq!(sheet.rows[2].settings, ["extended reach on, 10 Mbit/s"]);
    assert_eq!(
        (sheet.labels.len(), sheet.labels[0].here.as_str(), sheet.labels[1].here.as_str()),
        (4, "nvr port 1", "C2")
    );
    // The same address twice is told; a segment that is full has no more.
    file["cameras"][1]["device"] = json!({"address": "192.168.50.102"});
    file["rules"] = json!({"wiring": {"segment": "10.0.0.0", "segment_bits": 30}});
    let sheet = network_sheet(parse(&file).file());
    assert!(sheet.rows[1].twice && sheet.rows[2].twice && !sheet.rows[0].twice);
    file["cameras"][1]["device"] = json!({"hardware": "fish"});
    let refused = bright_angle_core::Site::parse(&file.to_string()).unwrap_err();
    assert!(refused[0].path == "cameras[1].device.hardware", "{refused:?}");
}

fn port(port: usize, link_mbps: f64, watts: f64, length_m: f64) -> PortReport {
    PortReport { port, link_mbps, watts, length_m: Some(length_m), joint_m: None, overload: false }
}

#[test]
fn what_a_switch_reports_is_held_against_the_plan() {
    let cameras = (1..=4).map(|i| camera(&format!("c{i}"), [20.0, f64::from(i)], 3, 8.0, 4.0)).collect();
    let cables = (1..=4).map(|i| cable(&format!("k{i}"), &format!("c{i}"), "nvr", json!({"length_m": 50}))).collect();
    let site = with(cameras, vec![recorder(json!({}))], cables);
    let site = parse(&site).file().clone();
    let plan = planned(&site, "nvr");
    assert_eq!(plan.len(), 4);
    let good: Vec<PortReport> = plan.iter().map(|at| port(at.port, 1000.0, at.watts, at.length_m)).collect();
    let told = |ports: Vec<PortReport>, stored: Option<f64>| {
        let report = SwitchReport { name: "test".to_owned(), ports, stored_gb_per_day: stored };
        differs(&site, "nvr", &report).unwrap()
    };
    // 4 cameras of 4 Mbit/s: 172.8 GB a day.
    assert_eq!(told(good.clone(), Some(170.0)), vec![]);
    let mut bad = good.clone();
    (bad[0].joint_m, bad[0].link_mbps) = (Some(40.0), 10.0);
    (bad[1].overload, bad[1].link_mbps, bad[1].watts) = (true, 0.0, 0.0);
    bad[2].watts = 14.0;
    bad[3].length_m = Some(120.0);
    let found = told(bad, Some(400.0));
    let words: Vec<(Option<usize>, Verdict, &str)> =
        found.iter().map(|one| (one.port, one.verdict, one.says.as_str())).collect();
    let has = |port: Option<usize>, verdict: Verdict, part: &str| {
        assert!(
            words.iter().any(|(p, v, says)| *p == port && *v == verdict && says.contains(part)),
            "{part}: {words:?}"
        );
    };
    has(Some(1), Verdict::Broken, "bad joint 40 m");
    has(Some(1), Verdict::Tight, "linked at 10 Mbit/s");
    has(Some(2), Verdict::Broken, "turned power off");
    has(Some(3), Verdict::Tight, "14.0 W are drawn");
    has(Some(4), Verdict::Broken, "measures 120 m");
    has(None, Verdict::Tight, "400 GB are stored in a day, 173 planned");
    assert_eq!(words[0].1, Verdict::Broken, "the worst first");
    // A port that is not told of, and one that nobody planned.
    let found = told([good[..3].to_vec(), vec![port(7, 100.0, 5.0, 10.0)]].concat(), None);
    assert!(found.iter().any(|one| one.port == Some(4) && one.says.contains("nothing is reported")), "{found:?}");
    assert!(found.iter().any(|one| one.port == Some(7) && one.says.contains("not planned")), "{found:?}");
    assert!(differs(&site, "fish", &SwitchReport::default()).is_err());
}

#[test]
fn days_that_do_not_fit_say_what_gives_and_what_that_costs() {
    let mut file: Value = serde_json::from_str(include_str!("../../../demo/tern-quay.json")).unwrap();
    file["network"]["nodes"][0]["disk_gb"] = json!(4000);
    // Faster than the demo: then fewer pictures are fewer looks at a plate.
    for target in [1, 2] {
        file["targets"][target]["speed_mps"] = json!(25);
    }
    for camera in [0, 1] {
        file["cameras"][camera]["heads"][0]["exposure"]["shutter_s"] = json!(0.0002);
    }
    let session = Session::open(SiteFile::parse(&file.to_string()).unwrap()).unwrap();
    let fits = store_cuts(&session, 5).unwrap();
    assert!(fits.cuts.is_empty() && fits.store.verdict == Verdict::Kept, "{fits:?}");
    let found = store_cuts(&session, 21).unwrap();
    assert_eq!(found.store.verdict, Verdict::Broken);
    let cut = |kind: CutKind| found.cuts.iter().find(|cut| cut.kind == kind).unwrap();
    for (kind, verdict) in [(CutKind::Disk, Verdict::Kept), (CutKind::Days, Verdict::Kept)] {
        assert_eq!(cut(kind).verdict, verdict, "{:?}", cut(kind));
    }
    // Fewer pixels are fewer on a face and a plate; fewer pictures are fewer looks at one.
    assert!(!cut(CutKind::Resolution).falls.is_empty() && cut(CutKind::Resolution).patch.is_empty());
    assert!(!cut(CutKind::Frames).falls.is_empty(), "{:?}", cut(CutKind::Frames));
    for cut in found.cuts.iter().filter(|cut| !cut.patch.is_empty()) {
        let mut patched = serde_json::to_value(session.site().file()).unwrap();
        patched["brief"]["retention_days"] = json!(21);
        let patch: json_patch::Patch = serde_json::from_value(json!(cut.patch)).unwrap();
        json_patch::patch(&mut patched, &patch).unwrap();
        let then = bright_angle_core::wire::store::store(parse(&patched).file());
        assert!((then.gb_per_day - cut.gb_per_day).abs() < 1e-9 && then.verdict == cut.verdict, "{cut:?} {then:?}");
    }
    assert!(store_cuts(&session, 0).is_err());
}

#[test]
fn the_wiring_goes_out_as_tables_and_graphs() {
    let mut file = with(
        vec![camera("c1", [9.0, 0.0], 3, 8.0, 4.0)],
        vec![recorder(json!({"name": "Rack \"A\" & <B>"}))],
        vec![cable("k1", "c1", "nvr", json!({"in": "trench"}))],
    );
    file["cameras"][0]["name"] = json!("=1+1");
    let site = parse(&file).file().clone();
    let written = |of: NetworkFile| of.written(&site).unwrap();
    let rows = |text: &str| -> Vec<Vec<String>> {
        let mut read = csv::Reader::from_reader(text.as_bytes());
        read.records().map(|row| row.unwrap().iter().map(str::to_owned).collect()).collect()
    };
    let cables = rows(&written(NetworkFile::Cables));
    assert_eq!((cables.len(), cables[0][1].as_str(), cables[0][2].as_str()), (1, "'=1+1", "Rack \"A\" & <B>"));
    assert_eq!(rows(&written(NetworkFile::Ports)).len(), 2);
    assert_eq!(rows(&written(NetworkFile::Labels)).len(), 2);
    let materials = rows(&written(NetworkFile::Materials));
    assert!(materials.iter().any(|row| row[0] == "Cat 6, outdoor" && row[2] == "m"), "{materials:?}");
    assert!(materials.iter().any(|row| row[0] == "Surge protector" && row[1] == "2"), "{materials:?}");
    let dot = written(NetworkFile::Dot);
    assert!(dot.contains("\"c1\" -- \"nvr\"") && dot.contains("Rack \\\"A\\\" & <B>"), "{dot}");
    let xml = written(NetworkFile::Graphml);
    assert!(
        xml.contains("Rack &quot;A&quot; &amp; &lt;B&gt;") && xml.contains("source=\"c1\" target=\"nvr\""),
        "{xml}"
    );
}

#[test]
fn cable_for_the_quote_is_what_is_known_of_it() {
    let mut file =
        site(vec![camera("c1", [30.0, 40.0], 3, 8.0, 4.0), camera("c2", [10.0, 0.0], 3, 8.0, 4.0)], vec![], vec![]);
    let told = |file: &Value| cable_estimate(parse(file).file());
    assert_eq!((told(&file).unknown, told(&file).metres), (2, 0.0));
    file["obstacles"] = json!([{"id": "o1", "name": "Hall", "kind": "building", "closed": true, "top_m": 5,
        "outline": [[0, 0], [30, 0], [30, 20], [0, 20]]}]);
    // By hand: the farthest corner along and across is the origin for the first, the north-east one for the second.
    let bounded = told(&file);
    let wanted = (30.0 + 40.0 + 3.0) * 1.1 + 0.12 + (20.0 + 20.0 + 3.0) * 1.1 + 0.12;
    assert!(bounded.bounded == 2 && (bounded.metres - wanted).abs() < 1e-9, "{bounded:?} {wanted}");
    file["network"] =
        json!({"nodes": [recorder(json!({}))], "cables": [cable("k1", "c1", "nvr", json!({"length_m": 50}))]});
    let mixed = told(&file);
    assert_eq!((mixed.drawn, mixed.across, mixed.bounded), (1, 1, 0));
    assert!((mixed.metres - 50.0 - (10.0 + 2.0) * 1.1 - 0.12).abs() < 1e-9, "{mixed:?}");
    file["spots"] = json!([{"id": "s1", "name": "S", "position": [10, 0], "height_m": 3, "cable_m": 44}]);
    file["cameras"][1]["spot"] = json!("s1");
    assert!((told(&file).metres - 94.0).abs() < 1e-9 && told(&file).estimated == 1);
}
