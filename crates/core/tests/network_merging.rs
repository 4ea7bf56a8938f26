//! Two hands at one network: boxes and cables are put together one by one.

use crate::support::network::{cable, camera, node, recorder};
use crate::support::{parse, site};
use bright_angle_core::change::compare::{Thing, compare};
use bright_angle_core::change::merge::merge;
use bright_angle_core::file::{SiteChange, SiteFile};
use bright_angle_core::words::units::Units;
use serde_json::{Value, json};

fn file(change: impl Fn(&mut Value)) -> SiteFile {
    let mut file =
        site(vec![camera("c1", [9.0, 0.0], 3, 8.0, 4.0), camera("c2", [9.0, 5.0], 3, 8.0, 4.0)], vec![], vec![]);
    file["network"] = json!({"nodes": [recorder(json!({}))], "cables": [cable("k1", "c1", "nvr", json!({}))]});
    change(&mut file);
    parse(&file).file().clone()
}

#[test]
fn what_each_side_changed_of_the_network_stands_side_by_side() {
    let base = file(|_| {});
    let mine = file(|file| file["network"]["nodes"][0]["position"] = json!([3, 4]));
    let theirs =
        file(|file| file["network"]["cables"].as_array_mut().unwrap().push(cable("k2", "c2", "nvr", json!({}))));
    let merged = merge(&base, &mine, &theirs, &[], Units::Metres);
    assert!(merged.clashes.is_empty() && merged.faults.is_empty(), "{merged:?}");
    let network = merged.site.unwrap().network.unwrap();
    assert_eq!((network.nodes[0].position, network.cables.len()), ([3.0, 4.0], 2));
    let told = compare(&base, &mine, Units::Metres);
    assert_eq!((told[0].thing, told[0].id.as_str(), told[0].says.as_str()), (Thing::Node, "nvr", "moved by 5.00 m"));
}

#[test]
fn boxes_that_both_added_under_one_id_are_two_and_cables_follow_theirs() {
    let base = file(|_| {});
    let with_switch = |at: f64, cabled: &str| {
        file(|file| {
            file["network"]["nodes"].as_array_mut().unwrap().push(node("sw1", "switch", json!({"position": [at, 0]})));
            file["network"]["cables"].as_array_mut().unwrap().push(cable("k2", cabled, "sw1", json!({})));
        })
    };
    let merged = merge(&base, &with_switch(1.0, "c2"), &with_switch(2.0, "nvr"), &[], Units::Metres);
    let network = merged.site.unwrap().network.unwrap();
    assert_eq!((network.nodes.len(), network.cables.len()), (3, 3), "{network:?}");
    let mine = network.nodes.iter().find(|node| node.position == [1.0, 0.0]).unwrap();
    let cable = network.cables.iter().find(|cable| cable.from == "c2").unwrap();
    assert!(mine.id != "sw1" && cable.to == mine.id, "{network:?}");
}

#[test]
fn a_change_says_boxes_and_cables_by_their_ids_and_leaves_no_empty_network() {
    let mut held = file(|_| {});
    let change = |text: Value| serde_json::from_value::<SiteChange>(text).unwrap();
    let touched = change(json!({"nodes": {"put": [recorder(json!({"position": [7, 7]}))]}})).apply(&mut held).unwrap();
    assert!(touched.nodes.contains("nvr") && !touched.heading && touched.cameras.is_empty());
    assert_eq!(held.network.as_ref().unwrap().nodes[0].position, [7.0, 7.0]);
    let faults =
        change(json!({"cables": {"put": [cable("k9", "c1", "nvr", json!({}))]}})).apply(&mut held.clone()).unwrap_err();
    assert_eq!(faults[0].path, "network.cables");
    change(json!({"nodes": {"order": []}, "cables": {"order": []}})).apply(&mut held).unwrap();
    assert_eq!(held.network, None);
}
