//! The wiring over the API and on the command line: routing, and a switch that is read.

use crate::support::{Cluster, Served};
use bright_angle_switch::Fault;
use serde_json::{Value, json};
use std::net::TcpListener;
use std::process::Command;

fn demo() -> Value {
    serde_json::from_str(include_str!("../../../demo/tern-quay.json")).unwrap()
}

#[rocket::async_test]
async fn a_switch_is_read_with_its_faults_and_one_that_is_away_is_said() {
    let listener = TcpListener::bind("127.0.0.1:0").unwrap();
    let address = listener.local_addr().unwrap();
    let faults: Vec<Fault> = ["joint:2@80", "limit:4"].map(|fault| fault.parse().unwrap()).to_vec();
    std::thread::spawn(move || bright_angle_switch::serve(&listener, faults));
    let cluster = Cluster::shared();
    let served = Served::told(cluster.database().await, |settings| settings.switch = address).await;
    let asked = json!({"site": demo(), "node": "nvr1"});
    let (status, report) = served.post("/api/switch", &asked).await;
    assert_eq!((status, report["ports"].as_array().map(Vec::len)), (200, Some(7)), "{report}");
    let port = |number: usize| report["ports"].as_array().unwrap().iter().find(|p| p["port"] == number).unwrap();
    assert_eq!((&port(2)["joint_m"], &port(2)["link_mbps"]), (&json!(80.0), &json!(10.0)));
    assert_eq!((&port(4)["overload"], &port(4)["watts"]), (&json!(true), &json!(0.0)));
    assert_eq!(port(1)["joint_m"], Value::Null);
    assert!((report["stored_gb_per_day"].as_f64().unwrap() - 254.8).abs() < 1.0, "{report}");

    let (status, nobody) = served.post("/api/switch", json!({"site": demo(), "node": "fish"})).await;
    assert_eq!((status, &nobody[0]["path"]), (422, &json!("node")));
    let alone = Served::told(cluster.database().await, |_| {}).await;
    let (status, away) = alone.post("/api/switch", &asked).await;
    assert!(status == 424 && away[0]["message"].as_str().unwrap().starts_with("the switch does not answer"), "{away}");
}

#[rocket::async_test]
async fn routing_answers_the_same_over_the_api_and_on_the_command_line() {
    let served = Served::new().await;
    let mut site = demo();
    site["network"]["cables"] = json!([]);
    let (status, routed) = served.post("/api/route", json!({"site": site, "wish": "cheapest"})).await;
    assert_eq!(status, 200, "{routed}");
    assert!(routed["gap"] == 0.0 && routed["unmet"] == json!([]), "{routed}");
    site["network"] = json!({"nodes": []});
    let (status, refused) = served.post("/api/route", json!({"site": site})).await;
    assert_eq!((status, &refused[0]["path"]), (422, &json!("network.nodes")));

    let folder = tempfile::tempdir().unwrap();
    let file = folder.path().join("site.json");
    let run = |site: &Value, arguments: &[&str]| {
        std::fs::write(&file, site.to_string()).unwrap();
        let program = Command::new(env!("CARGO_BIN_EXE_bright-angle")).args(arguments).arg(&file).output().unwrap();
        (program.status.code(), String::from_utf8(program.stdout).unwrap(), String::from_utf8(program.stderr).unwrap())
    };
    let (code, _, error) = run(&site, &["route"]);
    assert!(code == Some(2) && error.contains("there is no recorder"), "{error}");
    let mut anew = demo();
    anew["network"]["cables"] = json!([]);
    let (code, patch, _) = run(&anew, &["route"]);
    assert_eq!((code, &serde_json::from_str::<Value>(&patch).unwrap()), (Some(0), &routed["patch"]));
    // One that nothing reaches is named beside the patch.
    anew["cameras"][0]["position"] = json!([900, 900]);
    let (code, _, error) = run(&anew, &["route"]);
    assert!(code == Some(0) && error.starts_with("c1: no legal cable leads to it"), "{error}");
    let (_, labels, _) = run(&demo(), &["network", "--of", "labels"]);
    assert_eq!(labels.lines().count(), 1 + 16);
    let (_, store, _) = run(&demo(), &["store", "--days", "21"]);
    assert_eq!(serde_json::from_str::<Value>(&store).unwrap()["store"]["days"], 21);
}
