//! What keeping costs: the list of sites at 200 000 revisions, and saves of 200 sites at once through the served program.
//!
//! `cargo bench -p bright-angle --bench keeping`

#[path = "../tests/support/mod.rs"]
mod support;

use bright_angle::store::{Store, Wanted};
use rocket::tokio;
use serde_json::json;
use std::time::{Duration, Instant};
use support::*;

const SITES: usize = 2_000;
const REVISIONS: usize = 100;
const LISTED: usize = 200;
const AT_ONCE: usize = 200;
const SAVES: usize = 10;

fn main() {
    let runtime = tokio::runtime::Builder::new_multi_thread().enable_all().build().unwrap();
    runtime.block_on(list());
    runtime.block_on(saves());
}

/// Says the middle and the slow end of some times.
fn percentiles(mut times: Vec<Duration>) -> String {
    times.sort();
    let at = |share: f64| times[((times.len() - 1) as f64 * share) as usize].as_secs_f64() * 1e3;
    format!("median {:.1} ms, 95 % {:.1} ms, 99 % {:.1} ms, greatest {:.1} ms", at(0.5), at(0.95), at(0.99), at(1.0))
}

async fn list() {
    let cluster = Cluster::shared();
    let url = cluster.database().await;
    let mut owner = cluster.owner(&url).await;
    let fill = format!(
        "insert into site (id, name, revision, saved_at, says)
         select gen_random_uuid(), 'Site ' || n, {REVISIONS}, now() - n * interval '1 minute', 'x' from generate_series(1, {SITES}) n;
         insert into revision (site_id, number, based_on, says, file)
         select id, n, nullif(n - 1, 0), 'x', $json${}$json$::jsonb from site, generate_series(1, {REVISIONS}) n;
         analyze;",
        demo()
    );
    sqlx::raw_sql(&fill).execute(&mut owner).await.unwrap();
    let count: i64 = sqlx::query_scalar("select count(*) from revision").fetch_one(&mut owner).await.unwrap();
    let store = Store::open(&url).await.unwrap();
    let mut times = Vec::new();
    let mut after = None;
    for _ in 0..LISTED {
        let began = Instant::now();
        let page = store.sites(Wanted { after, named: None, most: 100 }).await.unwrap();
        times.push(began.elapsed());
        after = page.next;
    }
    println!("list of sites, a page of 100, {count} revisions: {}", percentiles(times));
}

async fn saves() {
    let running = Running::start();
    let site = demo();
    let mut tasks = Vec::new();
    let began = Instant::now();
    for place in 0..AT_ONCE {
        let (running, mut site) = (running.asker(), site.clone());
        tasks.push(tokio::task::spawn_blocking(move || {
            let id = uuid::Uuid::new_v4();
            let path = format!("/api/sites/{id}");
            let new = json!({"id": id, "says": "New", "site": site}).to_string();
            // Made again with the same id it is the same site.
            while running.status("POST", "/api/sites", "", &new) != Some(201) {
                std::thread::sleep(Duration::from_millis(20));
            }
            let mut times = Vec::new();
            for number in 1..=SAVES {
                site["name"] = json!(format!("Site {place}, {number}"));
                let body = json!({"based_on": number, "says": "Rename", "site": site}).to_string();
                // What is refused for a moment is asked again, as the browser does.
                let began = Instant::now();
                while running.status("PUT", &path, "", &body) != Some(200) {
                    std::thread::sleep(Duration::from_millis(20));
                }
                times.push(began.elapsed());
            }
            times
        }));
    }
    let mut times = Vec::new();
    for task in tasks {
        times.extend(task.await.unwrap());
    }
    let all = began.elapsed().as_secs_f64();
    let count = times.len();
    println!("saves of {AT_ONCE} sites at once: {:.0} a second; {}", count as f64 / all, percentiles(times));
}
