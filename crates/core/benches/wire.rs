//! The wiring: all figures of 256 cameras, and routing.

use bright_angle_core::Site;
use bright_angle_core::file::SiteFile;
use bright_angle_core::wire::route::{RouteWish, route};
use bright_angle_core::wire::wired::wired;
use criterion::{Criterion, criterion_group, criterion_main};
use serde_json::{Value, json};
use std::hint::black_box;

fn demo() -> Value {
    serde_json::from_str(include_str!("../../../demo/tern-quay.json")).unwrap()
}

/// So many cameras in rows along four buildings, with outlets at their corners.
fn many(count: usize) -> Value {
    let mut site = demo();
    let model = site["cameras"][3].clone();
    let cameras: Vec<Value> = (0..count)
        .map(|i| {
            let mut camera = model.clone();
            (camera["id"], camera["name"]) = (json!(format!("c{i}")), json!(format!("C{i}")));
            let (row, along) = (i % 4, i / 4);
            let at = [(along * 960) as f64 / count as f64, [0.0, 20.0, 50.0, 70.0][row]];
            camera["position"] = json!(at);
            camera.as_object_mut().unwrap().remove("spot");
            camera
        })
        .collect();
    site["cameras"] = json!(cameras);
    site["obstacles"] = json!(
        [(0.0, 20.0), (50.0, 70.0)]
            .iter()
            .enumerate()
            .map(|(i, (south, north))| json!({"id": format!("o{i}"), "name": "Hall", "kind": "building", "closed": true, "top_m": 6,
                "outline": [[0.0, south], [240.0, south], [240.0, north], [0.0, north]]}))
            .collect::<Vec<_>>()
    );
    let mut nodes = vec![
        json!({"id": "nvr", "name": "Recorder", "kind": "recorder", "position": [5, 10], "height_m": 1, "ports": 24, "budget_w": 240, "port_class": 4, "gives_power": true}),
    ];
    for (i, at) in [[80, 10], [160, 10], [5, 60], [80, 60], [160, 60], [235, 60]].iter().enumerate() {
        nodes.push(
            json!({"id": format!("out{i}"), "name": "Outlet", "kind": "outlet", "position": at, "height_m": 0.3}),
        );
    }
    site["network"] = json!({"nodes": nodes, "cables": []});
    site
}

fn file(site: &Value) -> SiteFile {
    Site::parse(&site.to_string()).unwrap().file().clone()
}

/// 256 cameras on 32 switches of ten ports.
fn wired_site() -> SiteFile {
    let mut site = many(256);
    let nodes = site["network"]["nodes"].as_array_mut().unwrap();
    for i in 0..32 {
        nodes.push(json!({"id": format!("sw{i}"), "name": format!("Switch {i}"), "kind": "switch", "position": [i * 7, 40], "height_m": 2,
            "ports": 10, "budget_w": 120, "port_class": 4, "gives_power": true}));
    }
    let up = (0..32).map(|i| json!({"id": format!("u{i}"), "from": format!("sw{i}"), "to": "nvr", "kind": "fibre"}));
    let down = (0..256).map(|i| json!({"id": format!("k{i}"), "from": format!("c{i}"), "to": format!("sw{}", i / 8), "kind": "cat6", "route": [[i, 40]]}));
    site["network"]["cables"] = up.chain(down).collect::<Vec<_>>().into();
    file(&site)
}

fn benches(c: &mut Criterion) {
    let all = wired_site();
    c.bench_function("all figures of 256 cameras", |b| b.iter(|| wired(black_box(&all))));
    let mut anew = demo();
    anew["network"]["cables"] = json!([]);
    let anew = file(&anew);
    c.bench_function("the demo routed anew", |b| b.iter(|| route(black_box(&anew), RouteWish::Cheapest).unwrap()));
    let mut slow = c.benchmark_group("routing");
    slow.sample_size(10);
    let sixty_four = file(&many(64));
    for wish in [RouteWish::Cheapest, RouteWish::LeastLost] {
        slow.bench_function(format!("64 cameras, {wish:?}"), |b| {
            b.iter(|| route(black_box(&sixty_four), wish).unwrap())
        });
    }
}

criterion_group!(wire, benches);
criterion_main!(wire);
