//! The server as it runs: connections that say nothing, half of something, or too much; work that is too large; a client that leaves.

use crate::support::*;
use bright_angle::front::PATIENCE;
use serde_json::{Value, json};
use std::io::{Read, Write};
use std::net::TcpStream;
use std::time::{Duration, Instant};

/// Reads until the other side hangs up; what came, and whether it did.
fn to_the_end(stream: &mut TcpStream) -> (String, bool) {
    let mut answer = Vec::new();
    let ended = stream.read_to_end(&mut answer).is_ok();
    (String::from_utf8_lossy(&answer).into_owned(), ended)
}

#[test]
fn silent_connections_half_heads_and_bodies_that_never_come_are_dropped_and_stop_nobody() {
    let server = Running::start();
    let began = Instant::now();
    let half = format!("GET / HTTP/1.1\r\nHost: {}\r\n", server.at);
    let announced = server.head("POST", "/api/evaluate", "", 5_000_000);
    let mut held: Vec<TcpStream> = Vec::new();
    for place in 0..1_100 {
        let Some(mut stream) = server.open() else { continue };
        let says = match place % 3 {
            0 => "",
            1 => half.as_str(),
            _ => announced.as_str(),
        };
        let _ = stream.write_all(says.as_bytes());
        held.push(stream);
    }
    assert!(held.len() > 1_000, "{}", held.len());
    // With all of them open, others are served.
    assert!(began.elapsed() < PATIENCE, "this machine is too slow for the test to say anything");
    assert!(server.healthy());
    assert_eq!(server.status("POST", "/api/evaluate", "", &demo().to_string()), Some(200));
    // And then they are gone, each within its time, long before the test's own patience ends.
    for (place, stream) in held.iter_mut().enumerate().rev().take(30) {
        let (answer, ended) = to_the_end(stream);
        assert!(ended, "number {place} is open still");
        assert!(answer.is_empty() || answer.contains("408"), "{answer}");
    }
    assert!(server.healthy());
}

#[test]
fn two_of_the_largest_posts_hold_up_neither_health_nor_a_save() {
    let server = Running::start();
    // As large as is taken, and in order: it is read to the end.
    let mut large = demo();
    let obstacle = large["obstacles"][0].clone();
    let many: Vec<Value> = (0..4_900)
        .map(|place| {
            let mut one = obstacle.clone();
            one["id"] = json!(format!("big{place}"));
            one["name"] = json!("x".repeat(190));
            one
        })
        .collect();
    large["obstacles"] = json!(many);
    let large = large.to_string();
    std::thread::scope(|scope| {
        let posts: Vec<_> =
            (0..2).map(|_| scope.spawn(|| server.status("POST", "/api/evaluate", "", &large))).collect();
        let mut asked = 0;
        while posts.iter().any(|post| !post.is_finished()) {
            assert!(server.healthy());
            asked += 1;
        }
        assert_eq!(server.status("POST", "/api/sites", "", &creation().to_string()), Some(201));
        assert!(asked > 3, "they were done before anything was asked");
        for post in posts {
            assert!(matches!(post.join().unwrap(), Some(200 | 422)));
        }
    });
}

#[test]
fn what_is_compressed_is_worth_it() {
    let server = Running::start();
    let page = server.ask("GET", "/", "Accept-Encoding: gzip\r\n", "").unwrap();
    assert!(page.to_lowercase().contains("content-encoding: gzip") && page.len() < 2_000, "{page}");
    let plain = server.ask("GET", "/", "", "").unwrap();
    assert!(plain.len() > 4_000 && !plain.to_lowercase().contains("content-encoding"));
}

/// A computation that would take minutes: many heads look over a large area past many solids, just within what may be asked.
fn endless() -> Value {
    let mut site = demo();
    let camera = site["cameras"][0].clone();
    let heads: Vec<Value> = (0..16)
        .map(|place| {
            let mut head = camera["heads"][0].clone();
            head["id"] = json!(format!("h{place}"));
            head["pan_deg"] = json!(22.5 * f64::from(place));
            head
        })
        .collect();
    let mut one = camera.clone();
    one.as_object_mut().unwrap().remove("spot");
    one["heads"] = json!(heads);
    site["cameras"] = json!([one]);
    let corners = [[-60, -60], [160, -60], [160, 160], [-60, 160]];
    site["targets"] = json!([{"id": "a", "name": "All of it", "subject": "person", "task": "detect", "height_m": 1.0,
        "shape": {"kind": "area", "points": corners}, "size_m": [0.5, 1.7]}]);
    let solid = site["obstacles"][0].clone();
    let solids: Vec<Value> = (0..1_500)
        .map(|place| {
            let (x, y) = (f64::from(place % 40) * 5.0 - 50.0, f64::from(place / 40) * 5.0 - 50.0);
            let mut solid = solid.clone();
            solid["id"] = json!(format!("o{place}"));
            solid["outline"] = json!([[x, y], [x + 0.3, y], [x + 0.3, y + 0.3], [x, y + 0.3]]);
            solid["base_m"] = json!(0);
            solid["top_m"] = json!(1.2);
            solid
        })
        .collect();
    site["obstacles"] = json!(solids);
    site["spots"] = json!([]);
    site["readings"] = json!([]);
    site
}

#[rocket::async_test]
async fn work_that_takes_too_long_is_ended_and_said_to_be_too_large() {
    let cluster = Cluster::shared();
    let url = cluster.database().await;
    let served = Served::patient(url, ([127, 0, 0, 1], 9).into(), Duration::from_millis(200)).await;
    let line = |site: &Value| {
        let camera = &site["cameras"][0];
        json!({"site": site, "camera": camera["id"], "head": camera["heads"][0]["id"], "target": site["targets"][0]["id"]})
    };
    let site = endless();
    for (path, asked) in [("/api/evaluate", site.clone()), ("/api/ways", line(&site)), ("/api/section", line(&site))] {
        let (status, faults) = served.post(path, asked).await;
        let message = faults[0]["message"].as_str().unwrap_or_default();
        assert!(status == 422 && message.starts_with("too large, because"), "{path}: {status} {faults}");
    }
    assert_eq!(served.post("/api/evaluate", demo()).await.0, 200);
}

/// A decimal slip: everything ten times as far apart as it is.
#[rocket::async_test]
async fn a_site_with_more_to_look_at_than_makes_sense_is_refused_before_any_work() {
    let served = Served::new().await;
    let mut site = endless();
    site["obstacles"] = json!([]);
    site["targets"][0]["shape"]["points"] = json!([[-150, -150], [150, -150], [150, 150], [-150, 150]]);
    let (status, faults) = served.post("/api/evaluate", &site).await;
    let message = faults[0]["message"].as_str().unwrap_or_default();
    assert!(status == 422 && message.contains("decimal point"), "{faults}");
    // It can be kept all the same: nobody loses work over it.
    assert_eq!(served.post("/api/sites", json!({"says": "x", "site": site})).await.0, 201);
}

#[test]
fn work_ends_when_its_client_leaves() {
    let server = Running::start();
    let body = endless().to_string();
    let cores = std::thread::available_parallelism().unwrap().get();
    let clients: Vec<TcpStream> = (0..cores)
        .map(|_| {
            let mut stream = server.open().unwrap();
            stream.write_all(server.head("POST", "/api/evaluate", "", body.len()).as_bytes()).unwrap();
            stream.write_all(body.as_bytes()).unwrap();
            stream
        })
        .collect();
    let busy = |server: &Running| {
        // User and kernel time of the process so far, in ticks (proc(5)).
        let stat = std::fs::read_to_string(format!("/proc/{}/stat", server.child.id())).unwrap();
        let fields: Vec<i64> =
            stat.rsplit(')').next().unwrap().split(' ').filter_map(|word| word.parse().ok()).collect();
        fields[10] + fields[11]
    };
    let ticks_of = |server: &Running, of: Duration| {
        let before = busy(server);
        std::thread::sleep(of);
        busy(server) - before
    };
    let began = Instant::now();
    while ticks_of(&server, Duration::from_millis(200)) < 10 {
        assert!(began.elapsed() < Duration::from_secs(20), "no work was begun");
    }
    drop(clients);
    let left = Instant::now();
    while ticks_of(&server, Duration::from_millis(200)) > 2 {
        assert!(left.elapsed() < Duration::from_secs(4), "it works on, though nobody waits");
    }
    assert_eq!(server.status("POST", "/api/evaluate", "", &demo().to_string()), Some(200));
}
