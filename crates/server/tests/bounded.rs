//! What is asked small and answered large, what is never read, and what many ask at once: bounded, and nobody else waits for it.

use crate::support::*;
use serde_json::{Value, json};
use std::io::{Read, Write};
use std::net::TcpStream;
use std::time::{Duration, Instant};

/// A site of so many cameras and targets, each in sight of all.
fn crowd(cameras: usize, targets: usize) -> Value {
    let mut site = demo();
    let [mut camera, mut target] = [site["cameras"][0].clone(), site["targets"][0].clone()];
    camera.as_object_mut().unwrap().remove("spot");
    site["cameras"] = (0..cameras)
        .map(|place| {
            camera["id"] = json!(format!("c{place}"));
            camera["position"] = json!([place as f64 * 0.01, 0.0]);
            camera.clone()
        })
        .collect();
    target["shape"] = json!({"kind": "point", "points": [[0.0, 20.0]]});
    site["targets"] = (0..targets)
        .map(|place| {
            target["id"] = json!(format!("t{place}"));
            target["shape"]["points"][0][0] = json!(place as f64 * 0.01);
            target.clone()
        })
        .collect();
    site["obstacles"] = json!([]);
    site["spots"] = json!([]);
    site["readings"] = json!([]);
    site["private"] = json!([]);
    site
}

#[rocket::async_test]
async fn a_small_site_with_an_endless_answer_is_refused_before_it_is_worked_out() {
    let served = Served::new().await;
    let (status, faults) = served.post("/api/evaluate", crowd(300, 300)).await;
    let message = faults[0]["message"].as_str().unwrap_or_default().to_owned();
    assert!(status == 422 && message.contains("more than 20000 sight lines"), "{status} {message}");
    let (status, evaluation) = served.post("/api/evaluate", crowd(8, 20)).await;
    assert_eq!((status, evaluation["sight_lines"].as_array().unwrap().len()), (200, 160));
}

/// Memory of a process that is in use, kB (proc(5)).
fn resident(child: &std::process::Child) -> u64 {
    let status = std::fs::read_to_string(format!("/proc/{}/status", child.id())).unwrap();
    let line = status.lines().find(|line| line.starts_with("VmRSS")).unwrap();
    line.split_whitespace().nth(1).unwrap().parse().unwrap()
}

#[test]
fn clients_that_take_nothing_of_their_answers_are_dropped_and_hold_nothing() {
    let server = Running::with(&["--stalled-s", "2"]);
    let body = crowd(60, 100).to_string();
    let ask = || -> TcpStream {
        let mut stream = server.open().unwrap();
        stream.write_all(server.head("POST", "/api/evaluate", "", body.len()).as_bytes()).unwrap();
        stream.write_all(body.as_bytes()).unwrap();
        stream
    };
    let mut silent: Vec<TcpStream> = (0..10).map(|_| ask()).collect();
    // Each is dropped before its answer is whole, however late it begins to read.
    let began = Instant::now();
    while server.status("POST", "/api/evaluate", "", &demo().to_string()) != Some(200) {
        assert!(began.elapsed() < Duration::from_secs(120), "they hold what others need");
    }
    let whole = {
        let mut answer = Vec::new();
        let mut reader = server.open().unwrap();
        reader.set_read_timeout(Some(Duration::from_secs(120))).unwrap();
        reader.write_all(server.head("POST", "/api/evaluate", "Connection: close\r\n", body.len()).as_bytes()).unwrap();
        reader.write_all(body.as_bytes()).unwrap();
        reader.read_to_end(&mut answer).unwrap();
        answer.len()
    };
    assert!(whole > 7_000_000, "{whole}");
    let began = Instant::now();
    // Those that had an answer on its way have been cut off by now or will be; none is ever sent whole.
    for stream in &mut silent {
        let mut taken = Vec::new();
        stream.set_read_timeout(Some(Duration::from_secs(120))).unwrap();
        let _ = stream.read_to_end(&mut taken);
        assert!(taken.len() < whole, "{} of {whole}", taken.len());
    }
    assert!(began.elapsed() < Duration::from_secs(120));
    assert!(server.healthy());
    assert!(resident(&server.child) < 600_000, "{} kB", resident(&server.child));
}

#[test]
fn many_tiny_bodies_that_do_not_end_take_only_what_they_are() {
    let server = Running::start();
    let mut held = Vec::new();
    for _ in 0..1_100 {
        let Some(mut stream) = server.open() else { continue };
        let _ = stream.write_all(server.head("POST", "/api/evaluate", "", 5_000).as_bytes());
        let _ = stream.write_all(&[b' '; 30]);
        held.push(stream);
    }
    assert!(held.len() > 1_024, "{}", held.len());
    assert_eq!(server.status("POST", "/api/evaluate", "", &demo().to_string()), Some(200));
    assert_eq!(server.status("POST", "/api/sites", "", &creation().to_string()), Some(201));
}

#[test]
fn a_small_question_does_not_wait_behind_large_ones() {
    let server = Running::start();
    let mut large = crowd(120, 160);
    // More than what counts as small.
    large["brief"] = json!({"must_see": "x".repeat(1900)});
    let obstacle = demo()["obstacles"][0].clone();
    large["obstacles"] = (0..1_300)
        .map(|place| {
            let mut one = obstacle.clone();
            one["id"] = json!(format!("o{place}"));
            one["outline"] = json!([[0.0, 5.0], [0.3, 5.0], [0.3, 5.3]]);
            one
        })
        .collect();
    let large = large.to_string();
    assert!(large.len() > 300_000, "{}", large.len());
    std::thread::scope(|scope| {
        let posts: Vec<_> =
            (0..8).map(|_| scope.spawn(|| server.status("POST", "/api/evaluate", "", &large))).collect();
        let mut answered = 0;
        while posts.iter().any(|post| !post.is_finished()) {
            assert_eq!(server.status("POST", "/api/evaluate", "", &demo().to_string()), Some(200));
            answered += 1;
        }
        assert!(answered > 2, "they were done before anything was asked");
        for post in posts {
            assert!(matches!(post.join().unwrap(), Some(200 | 422 | 503)));
        }
    });
}

#[rocket::async_test]
async fn readings_with_endless_columns_are_refused_and_never_in_the_way_of_a_save() {
    let served = Served::new().await;
    let csv = format!("{}from,to,slope_m\n{}", "x,".repeat(500_000), "1,2,3\n".repeat(100_000));
    let (status, read) = served.post("/api/readings/read", json!({"site": demo(), "csv": csv})).await;
    let message = read["faults"][0]["message"].as_str().unwrap_or_default();
    assert!(status == 200 && message.contains("more than 200 columns"), "{read}");
}

#[rocket::async_test]
async fn below_the_reserve_nothing_is_kept_and_everything_is_read() {
    let cluster = Cluster::shared();
    let url = cluster.database().await;
    let kept = Served::told(url.clone(), |_| {}).await;
    let (_, made) = kept.post("/api/sites", creation()).await;
    let path = format!("/api/sites/{}", made["site_id"].as_str().unwrap());
    let folder = tempfile::tempdir().unwrap();
    let reserve = bright_angle::store::Reserve { folder: folder.path().to_owned(), bytes: u64::MAX };
    let full = Served::told(url, |settings| settings.reserve = Some(reserve)).await;
    let (status, faults) = full.post("/api/sites", creation()).await;
    assert!(status == 507 && faults[0]["message"].as_str().unwrap().contains("disk is full"), "{faults}");
    assert_eq!(full.put(&path, json!({"based_on": 1, "says": "x", "site": demo()})).await.0, 507);
    let (status, health) = full.get("/api/health").await;
    assert!(status == 503 && health["database"] == true && health["wrong"].as_str().unwrap().contains("disk is full"));
    assert_eq!((full.get(&path).await.0, full.get("/api/sites").await.0), (200, 200));
}

#[rocket::async_test]
async fn a_database_that_takes_no_changes_says_so() {
    let cluster = Cluster::shared();
    let url = cluster.database().await;
    let mut owner = cluster.owner(&url).await;
    let name = url.rsplit('/').next().unwrap();
    sqlx::raw_sql(&format!("alter database \"{name}\" set default_transaction_read_only = on"))
        .execute(&mut owner)
        .await
        .unwrap();
    let served = Served::told(url, |_| {}).await;
    let (status, faults) = served.post("/api/sites", creation()).await;
    assert!(status == 503 && faults[0]["message"].as_str().unwrap().contains("read-only"), "{faults}");
    assert_eq!(served.get("/api/sites").await.0, 200);
}
