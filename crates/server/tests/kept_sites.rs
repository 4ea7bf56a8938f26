//! Sites in a real PostgreSQL: revisions, stale saves, and a database that goes away and comes back.

use crate::support::*;
use serde_json::{Value, json};
use sqlx::Connection;

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
    let (_, page) = served.get("/api/sites").await;
    let site = &page["sites"][0];
    assert_eq!((&site["name"], &site["revision"], &site["targets"]), (&json!("Second"), &json!(2), &json!(9)));
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
    let statements = [
        "update revision set says = 'other'",
        "delete from revision",
        "truncate revision cascade",
        "truncate site cascade",
    ];
    let mut owner = Cluster::shared().owner(&served.database_url).await;
    for statement in statements {
        let refused = sqlx::query(statement).execute(&mut owner).await.unwrap_err();
        assert!(refused.to_string().contains("append-only"), "{statement}: {refused}");
    }
    let mut server = sqlx::PgConnection::connect(&served.database_url).await.unwrap();
    let also =
        ["drop table revision", "alter table revision disable trigger all", "update site set deleted_at = now()"];
    for statement in statements.iter().chain(&also) {
        // Not even with the word that the owner's own functions say.
        let both = format!("set bright_angle.removal = 'by rule'; {statement}");
        let refused = sqlx::raw_sql(&both).execute(&mut server).await.unwrap_err();
        assert!(
            refused.to_string().contains("must be owner") || refused.to_string().contains("permission denied"),
            "{refused}"
        );
    }
    let superuser: bool = sqlx::query_scalar(
        "select rolsuper or rolcreaterole or rolcreatedb from pg_roles where rolname = current_user",
    )
    .fetch_one(&mut server)
    .await
    .unwrap();
    assert!(!superuser);
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
    assert_eq!(served.get("/api/sites").await.1["total"], 1);
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
    assert_eq!(
        served.get("/api/health").await,
        (200, json!({"database": true, "wrong": null, "version": env!("CARGO_PKG_VERSION")}))
    );
    cluster.down();
    let (status, health) = served.get("/api/health").await;
    assert_eq!((status, &health["wrong"]), (503, &json!("the database does not answer")));
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
    let url = cluster.bare_database();
    let early = bright_angle::store::Store::open(&url).await.err().unwrap().to_string();
    assert!(early.contains("run bright-angle migrate"), "{early}");
    for _ in 0..2 {
        bright_angle::store::Store::migrate(&cluster.owner_of(&url)).await.unwrap();
    }
    let demo_folder = root().join("demo");
    let store = bright_angle::store::Store::open(&url).await.unwrap();
    assert_eq!(bright_angle::store::load_demo(&store, &demo_folder).await.unwrap(), 4);
    store.close().await;
    let again = bright_angle::store::Store::open(&url).await.unwrap();
    assert_eq!(bright_angle::store::load_demo(&again, &demo_folder).await.unwrap(), 0);
    let wanted = bright_angle::store::Wanted { after: None, named: None, most: 10 };
    let page = again.sites(wanted).await.unwrap();
    assert_eq!(
        page.sites.iter().map(|site| site.name.as_str()).collect::<Vec<_>>(),
        ["Saltpan Lane Depot", "Tern Quay Boatyard", "Umber Yard Self-storage", "Harebell Veterinary Clinic"]
    );
}

#[rocket::async_test]
async fn a_save_that_is_repeated_after_its_answer_was_lost_is_answered_with_what_is_there() {
    let served = Served::new().await;
    let path = format!("/api/sites/{}", created(&served).await);
    let (_, first) = served.put(&path, saving(1, "Once")).await;
    assert_eq!(served.put(&path, saving(1, "Once")).await, (200, first.clone()));
    // Somebody may have saved since: still it is the revision that it became.
    assert_eq!(served.put(&path, saving(2, "Later")).await.0, 200);
    assert_eq!(served.put(&path, saving(1, "Once")).await, (200, first));
    assert_eq!(served.put(&path, saving(1, "Another")).await.0, 409);
    assert_eq!(served.get(&format!("{path}/revisions")).await.1.as_array().unwrap().len(), 3);
}

#[rocket::async_test]
async fn a_site_that_is_made_twice_under_one_id_is_one_site() {
    let served = Served::new().await;
    let id = uuid::Uuid::new_v4().to_string();
    let asked = json!({"id": id, "says": "New site", "site": demo()});
    let (status, made) = served.post("/api/sites", &asked).await;
    assert_eq!((status, &made["site_id"]), (201, &json!(id)));
    assert_eq!(served.post("/api/sites", &asked).await, (201, made));
    let mut other = asked.clone();
    other["site"]["name"] = json!("Somebody else's");
    assert_eq!(served.post("/api/sites", &other).await.0, 409);
    assert_eq!(served.get("/api/sites").await.1["total"], 1);
}

/// PostgreSQL's codes (its documentation, appendix A) for a full disk, a cancelled query, a lock that is not to be had.
#[rocket::async_test]
async fn what_is_wrong_with_the_database_is_said_right() {
    let served = Served::new().await;
    let path = format!("/api/sites/{}", created(&served).await);
    let mut owner = Cluster::shared().owner(&served.database_url).await;
    let fail_with = |code: &str| {
        format!(
            "create or replace function fail() returns trigger language plpgsql as $$ begin raise exception 'x' using errcode = '{code}'; end $$;
             create or replace trigger fail before insert on revision for each row execute function fail()"
        )
    };
    for (code, status, words) in [("53100", 507, "the disk is full"), ("57014", 503, "busy"), ("55P03", 503, "busy")] {
        sqlx::raw_sql(&fail_with(code)).execute(&mut owner).await.unwrap();
        let asked = served.client.put(path.clone()).header(host()).header(rocket::http::ContentType::JSON);
        let answer = asked.body(saving(1, "Next").to_string()).dispatch().await;
        let (found, later) = (answer.status().code, answer.headers().get_one("Retry-After").is_some());
        assert_eq!((found, later), (status, status == 503), "{code}");
        assert!(answer.into_string().await.unwrap().contains(words));
        let (health, told) = served.get("/api/health").await;
        assert_eq!(health, 503, "{code}");
        assert!(
            told["wrong"].as_str().unwrap().contains("full"),
            "it is remembered until something can be written: {told}"
        );
    }
    sqlx::raw_sql("drop trigger fail on revision").execute(&mut owner).await.unwrap();
    assert_eq!(served.put(&path, saving(1, "Next")).await.0, 200);
    assert_eq!(served.get("/api/health").await.1["wrong"], Value::Null);
}
