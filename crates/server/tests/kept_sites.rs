//! Sites in a real PostgreSQL: revisions, stale saves, and a database that goes away and comes back.

mod support;
use serde_json::{Value, json};
use sqlx::Connection;
use support::*;

async fn created(served: &Served) -> String {
    let (status, made) = served.post("/api/sites", creation()).await;
    assert_eq!(status, 201, "{made}");
    made["site_id"].as_str().unwrap().to_owned()
}

fn saving(based_on: i32, name: &str) -> Value {
    let mut site = demo();
    site["name"] = json!(name);
    json!({"based_on": based_on, "says": format!("Rename to {name}"), "site": site})
}

#[rocket::async_test]
async fn a_site_is_a_chain_of_whole_revisions() {
    let served = Served::new().await;
    let id = created(&served).await;
    let (status, second) = served.put(&format!("/api/sites/{id}"), saving(1, "Second")).await;
    assert_eq!((status, &second["number"], &second["based_on"]), (200, &json!(2), &json!(1)));

    let (_, newest) = served.get(&format!("/api/sites/{id}")).await;
    assert_eq!((&newest["site"]["name"], &newest["number"]), (&json!("Second"), &json!(2)));
    let (_, first) = served.get(&format!("/api/sites/{id}/revisions/1")).await;
    assert_eq!(first["site"], demo_as_kept());
    let (_, heads) = served.get(&format!("/api/sites/{id}/revisions")).await;
    let says: Vec<&str> = heads.as_array().unwrap().iter().map(|head| head["says"].as_str().unwrap()).collect();
    assert_eq!(says, ["Rename to Second", "New site"]);
    let (_, sites) = served.get("/api/sites").await;
    assert_eq!(
        (&sites[0]["name"], &sites[0]["revision"], &sites[0]["targets"]),
        (&json!("Second"), &json!(2), &json!(9))
    );
}

/// The demo as the types write it: defaults filled in.
fn demo_as_kept() -> Value {
    let site = bright_angle_core::Site::parse(&demo().to_string()).unwrap();
    serde_json::to_value(site.file()).unwrap()
}

#[rocket::async_test]
async fn a_stale_save_overwrites_nobody_and_shows_both() {
    let served = Served::new().await;
    let id = created(&served).await;
    let path = format!("/api/sites/{id}");
    assert_eq!(served.put(&path, saving(1, "Theirs")).await.0, 200);
    let (status, conflict) = served.put(&path, saving(1, "Mine")).await;
    assert_eq!(status, 409);
    assert_eq!((&conflict["yours"]["name"], &conflict["theirs"]["site"]["name"]), (&json!("Mine"), &json!("Theirs")));
    assert_eq!((&conflict["based_on"], &conflict["theirs"]["number"]), (&json!(1), &json!(2)));
    assert_eq!(served.get(&path).await.1["site"]["name"], "Theirs");
    // A revision from the future is as stale as one from the past.
    assert_eq!(served.put(&path, saving(7, "Mine")).await.0, 409);
}

#[rocket::async_test]
async fn of_many_saves_at_once_one_wins() {
    let served = Served::new().await;
    let path = format!("/api/sites/{}", created(&served).await);
    let names: Vec<String> = (0..6).map(|i| format!("Number {i}")).collect();
    let saves = names.iter().map(|name| served.put(&path, saving(1, name)));
    let outcomes: Vec<u16> =
        rocket::futures::future::join_all(saves).await.into_iter().map(|(status, _)| status).collect();
    assert_eq!(outcomes.iter().filter(|status| **status == 200).count(), 1, "{outcomes:?}");
    assert_eq!(outcomes.iter().filter(|status| **status == 409).count(), 5, "{outcomes:?}");
    assert_eq!(served.get(&format!("{path}/revisions")).await.1.as_array().unwrap().len(), 2);
}

#[rocket::async_test]
async fn revisions_cannot_be_changed_behind_the_programs_back() {
    let served = Served::new().await;
    created(&served).await;
    let mut direct = sqlx::PgConnection::connect(&served.database_url).await.unwrap();
    for statement in ["update revision set says = 'other'", "delete from revision"] {
        let refused = sqlx::query(statement).execute(&mut direct).await.unwrap_err();
        assert!(refused.to_string().contains("append-only"), "{refused}");
    }
}

#[rocket::async_test]
async fn what_is_refused_is_not_stored() {
    let served = Served::new().await;
    let id = created(&served).await;
    let mut bad = saving(1, "Bad");
    bad["site"]["cameras"][3]["heads"][0]["focal_mm"] = json!(30);
    bad["site"]["targets"][0]["height_m"] = json!(-1);
    let (status, faults) = served.put(&format!("/api/sites/{id}"), &bad).await;
    assert_eq!(status, 422);
    let paths: Vec<&str> = faults.as_array().unwrap().iter().map(|fault| fault["path"].as_str().unwrap()).collect();
    assert_eq!(paths, ["targets[0].height_m", "cameras[3].heads[0].focal_mm"]);
    let (status, faults) = served.post("/api/sites", json!({"says": "x", "site": bad["site"]})).await;
    assert_eq!((status, faults.as_array().unwrap().len()), (422, 2));
    assert_eq!(served.post("/api/sites", json!({"says": " ", "site": demo()})).await.1[0]["path"], "says");
    assert_eq!(served.post("/api/sites", json!({"site": demo()})).await.0, 422);
    assert_eq!(served.get("/api/sites").await.1.as_array().unwrap().len(), 1);
    assert_eq!(served.get(&format!("/api/sites/{id}")).await.1["number"], 1);
}

#[rocket::async_test]
async fn what_is_not_there_is_said_so() {
    let served = Served::new().await;
    let nobody = "00000000-0000-4000-8000-000000000000";
    for path in [
        format!("/api/sites/{nobody}"),
        format!("/api/sites/{nobody}/revisions"),
        format!("/api/sites/{nobody}/revisions/1"),
        "/api/sites/tern".into(),
        "/api/nothing".into(),
    ] {
        let (status, faults) = served.get(&path).await;
        assert_eq!(status, 404, "{path}");
        assert!(faults[0]["message"].is_string(), "{path}: {faults}");
    }
    assert_eq!(served.put(&format!("/api/sites/{nobody}"), saving(1, "x")).await.0, 404);
}

#[rocket::async_test]
async fn a_database_that_comes_back_is_met_again_without_a_restart() {
    let cluster = Cluster::start();
    let served = Served::on(&cluster).await;
    let id = created(&served).await;
    assert_eq!(served.get("/api/health").await, (200, json!({"database": true, "version": env!("CARGO_PKG_VERSION")})));
    cluster.down();
    assert_eq!(served.get("/api/health").await.0, 503);
    let (status, faults) = served.put(&format!("/api/sites/{id}"), saving(1, "Lost")).await;
    assert_eq!((status, &faults[0]["message"]), (503, &json!("the database does not answer")));
    assert_eq!(served.post("/api/evaluate", demo()).await.0, 200, "computing needs no database");
    cluster.up();
    assert_eq!(served.get("/api/health").await.0, 200);
    assert_eq!(served.put(&format!("/api/sites/{id}"), saving(1, "Kept")).await.0, 200);
    assert_eq!(served.get(&format!("/api/sites/{id}")).await.1["site"]["name"], "Kept");
}

#[rocket::async_test]
async fn a_server_that_is_restarted_has_everything_and_takes_up_what_was_based_on_it() {
    let cluster = Cluster::shared();
    let served = Served::on(&cluster).await;
    let id = created(&served).await;
    let path = format!("/api/sites/{id}");
    assert_eq!(served.put(&path, saving(1, "Before")).await.0, 200);
    let (url, before) = (served.database_url.clone(), served.get(&path).await.1);
    drop(served);
    let again = Served::over(url, ([127, 0, 0, 1], 9).into()).await;
    assert_eq!(again.get(&path).await.1, before);
    // A browser that held a draft meanwhile sends it as it would have.
    assert_eq!(again.put(&path, saving(2, "After")).await.0, 200);
    assert_eq!(again.get(&format!("{path}/revisions")).await.1.as_array().unwrap().len(), 3);
}

#[rocket::async_test]
async fn migrations_run_once_and_the_demo_only_into_an_empty_database() {
    let cluster = Cluster::shared();
    let url = cluster.database().await;
    let demo_folder = root().join("demo");
    let store = bright_angle::store::Store::open(&url).await.unwrap();
    assert_eq!(bright_angle::store::load_demo(&store, &demo_folder).await.unwrap(), 2);
    store.close().await;
    let again = bright_angle::store::Store::open(&url).await.unwrap();
    assert_eq!(bright_angle::store::load_demo(&again, &demo_folder).await.unwrap(), 0);
    let sites = again.sites().await.unwrap();
    assert_eq!(
        sites.iter().map(|site| site.name.as_str()).collect::<Vec<_>>(),
        ["Tern Quay Boatyard", "Harebell Veterinary Clinic"]
    );
}
