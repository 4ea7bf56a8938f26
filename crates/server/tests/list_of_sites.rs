//! The list of sites, and what goes: old autosaves, pictures that nothing names, a site.

use crate::support::*;
use rocket::http::ContentType;
use serde_json::{Value, json};
use sqlx::{Connection, PgConnection};
use time::{Duration, OffsetDateTime};
use uuid::Uuid;

async fn created(served: &Served, name: &str) -> String {
    let mut site = demo();
    site["name"] = json!(name);
    let (status, made) = served.post("/api/sites", json!({"says": "New site", "site": site})).await;
    assert_eq!(status, 201, "{made}");
    made["site_id"].as_str().unwrap().to_owned()
}

fn names(page: &Value) -> Vec<&str> {
    page["sites"].as_array().unwrap().iter().map(|site| site["name"].as_str().unwrap()).collect()
}

#[rocket::async_test]
async fn the_list_comes_in_pages_and_finds_by_name() {
    let served = Served::new().await;
    for name in ["Alder", "Birch", "Cedar 100%", "Dogwood", "Elder"] {
        created(&served, name).await;
    }
    let (_, first) = served.get("/api/sites?most=2").await;
    assert_eq!((names(&first), &first["total"]), (vec!["Elder", "Dogwood"], &json!(5)));
    let (_, second) = served.get(&format!("/api/sites?most=2&after={}", first["next"].as_str().unwrap())).await;
    assert_eq!(names(&second), ["Cedar 100%", "Birch"]);
    let (_, last) = served.get(&format!("/api/sites?most=2&after={}", second["next"].as_str().unwrap())).await;
    assert_eq!((names(&last), &last["next"]), (vec!["Alder"], &Value::Null));
    let (_, found) = served.get("/api/sites?named=LDER").await;
    assert_eq!((names(&found), &found["total"]), (vec!["Elder", "Alder"], &json!(2)));
    for bad in ["most=0", "most=501", "most=x", "most=2&most=3", "after=1", "named=%00"] {
        assert_eq!(served.get(&format!("/api/sites?{bad}")).await.0, 422, "{bad}");
    }
}

#[rocket::async_test]
async fn a_site_is_found_by_its_client_its_address_and_its_last_change_and_says_where_it_stands() {
    let served = Served::new().await;
    created(&served, "Alder").await;
    let mut site = demo();
    site["name"] = json!("Birch");
    site["brief"]["client"] = json!("Harbour Board");
    site["brief"]["address"] = json!("3 Cooper's Row");
    let (_, made) = served.post("/api/sites", json!({"says": "Begun on the quay", "site": site})).await;
    let id = made["site_id"].as_str().unwrap();
    for asked in ["harbour", "COOPER", "begun%20on", "birch", "board%203%20cooper"] {
        let (_, found) = served.get(&format!("/api/sites?named={asked}")).await;
        assert_eq!((names(&found), &found["total"]), (vec!["Birch"], &json!(1)), "{asked}");
    }
    let (_, found) = served.get("/api/sites?named=birch").await;
    assert_eq!((&found["sites"][0]["client"], &found["sites"][0]["demo"]), (&json!("Harbour Board"), &json!(false)));

    // What the list tells is what an evaluation tells, of the newest revision each time.
    let (_, evaluation) = served.post("/api/evaluate", site.clone()).await;
    let verdicts = |evaluation: &Value, wanted: &str| {
        evaluation["targets"].as_array().unwrap().iter().filter(|target| target["verdict"] == wanted).count()
    };
    let (status, standing) = served.get(&format!("/api/sites/{id}/standing")).await;
    assert_eq!(status, 200, "{standing}");
    for word in ["kept", "tight", "broken", "unknown"] {
        assert_eq!(standing[word], json!(verdicts(&evaluation, word)), "{word}");
    }
    assert!(standing["plan"]["outlines"].as_array().unwrap().len() > 3);
    site["cameras"] = json!([]);
    site["brief"]["client"] = Value::Null;
    let save = json!({"based_on": 1, "says": "Without cameras", "site": site});
    assert_eq!(served.put(&format!("/api/sites/{id}"), save).await.0, 200);
    let (_, standing) = served.get(&format!("/api/sites/{id}/standing")).await;
    assert_eq!((&standing["kept"], &standing["plan"]["cameras"]), (&json!(0), &json!([])));
    assert_eq!(served.get("/api/sites?named=harbour").await.1["total"], json!(0));
    assert_eq!(served.get("/api/sites/00000000-0000-4000-8000-000000000000/standing").await.0, 404);
    assert_eq!(served.get("/api/sites/nonsense/standing").await.0, 404);
}

/// Makes a site of revisions that were saved so long before `now`, the oldest first.
async fn aged(database: &str, now: OffsetDateTime, ages: &[Duration]) -> Uuid {
    let mut direct = PgConnection::connect(database).await.unwrap();
    let id = Uuid::new_v4();
    let last = i32::try_from(ages.len()).unwrap();
    sqlx::query("insert into site (id, name, revision, saved_at, says) values ($1, 'Aged', $2, $3, 'x')")
        .bind(id)
        .bind(last)
        .bind(now)
        .execute(&mut direct)
        .await
        .unwrap();
    for (number, age) in (1..).zip(ages) {
        sqlx::query(
            "insert into revision (site_id, number, based_on, created_at, says, file) values ($1, $2, $3, $4, 'x', $5)",
        )
        .bind(id)
        .bind(number)
        .bind((number > 1).then_some(number - 1))
        .bind(now - *age)
        .bind(demo())
        .execute(&mut direct)
        .await
        .unwrap();
    }
    id
}

async fn numbers(served: &Served, id: Uuid) -> Vec<i64> {
    let (_, heads) = served.get(&format!("/api/sites/{id}/revisions")).await;
    heads.as_array().unwrap().iter().rev().map(|head| head["number"].as_i64().unwrap()).collect()
}

#[rocket::async_test]
async fn old_autosaves_are_thinned_by_rule_and_what_counts_stays() {
    let served = Served::new().await;
    // Noon of the day before, so that hours and days end where one expects it, and never a time to come.
    let now = OffsetDateTime::now_utc().replace_time(time::Time::from_hms(12, 0, 0).unwrap()) - Duration::DAY;
    let (day, minute) = (Duration::DAY, Duration::MINUTE);
    let id = aged(
        &served.database_url,
        now,
        &[
            day * 30 + minute * 20, // 1: of one day the last stays …
            day * 30 + minute * 10, // 2
            day * 30 + minute * 9,  // 3: … this one
            day * 20 + minute * 30, // 4: has a name
            day * 20 + minute * 20, // 5: stays as the last of its day
            day * 3 + minute * 59,  // 6
            day * 3 + minute * 1,   // 7: the last of its hour
            day * 3 - minute * 1,   // 8: another hour
            day * 2,                // 9: alone in its hour
            minute * 60 * 23,       // 10: of the last day all stay
            minute * 60 * 22,       // 11
            minute * 60 * 22,       // 12
        ],
    )
    .await;
    let lonely = aged(&served.database_url, now, &[day * 400]).await;
    let named = json!({"name": "As agreed", "agreed": true});
    let (status, _) = served.put(&format!("/api/sites/{id}/revisions/4/name"), &named).await;
    assert_eq!(status, 204);

    let store = bright_angle::store::Store::open(&served.database_url).await.unwrap();
    let (gone, _) = store.tidy(now).await.unwrap();
    assert_eq!((gone, numbers(&served, id).await), (3, vec![3, 4, 5, 7, 8, 9, 10, 11, 12]));
    assert_eq!(numbers(&served, lonely).await, [1], "the newest state never goes");
    // A time to come removes no more than is old by now.
    store.tidy(OffsetDateTime::now_utc() + Duration::days(365)).await.unwrap();
    assert!(numbers(&served, id).await.contains(&8) && numbers(&served, id).await.contains(&12));
    assert_eq!(numbers(&served, lonely).await, [1]);
    let (_, heads) = served.get(&format!("/api/sites/{id}/revisions")).await;
    let heads: Vec<_> = heads.as_array().unwrap().iter().filter(|head| head["number"] == 4).collect();
    assert_eq!((&heads[0]["name"], &heads[0]["agreed"]), (&json!("As agreed"), &json!(true)));
    // Saving goes on from there.
    let saved = served.put(&format!("/api/sites/{id}"), json!({"based_on": 12, "says": "On", "site": demo()})).await;
    assert_eq!(saved.1["number"], 13);
    assert_eq!(served.put(&format!("/api/sites/{id}/revisions/99/name"), &named).await.0, 404);
    // What says nothing of a name takes none away, and there is none to take from a revision that is not there.
    let (status, faults) = served.put(&format!("/api/sites/{id}/revisions/4/name"), json!({"agreed": true})).await;
    assert!(status == 422 && faults[0]["message"].as_str().unwrap().contains("name"), "{faults}");
    let heads = served.get(&format!("/api/sites/{id}/revisions")).await.1;
    assert!(heads.as_array().unwrap().iter().any(|head| head["name"] == "As agreed"));
    assert_eq!(served.put(&format!("/api/sites/{id}/revisions/99/name"), json!({"name": null})).await.0, 404);
    assert_eq!(served.put(&format!("/api/sites/{id}/revisions/4/name"), json!({"name": null})).await.0, 204);
}

fn png(side: u32) -> Vec<u8> {
    let mut out = std::io::Cursor::new(Vec::new());
    image::DynamicImage::new_rgb8(side, 1).write_to(&mut out, image::ImageFormat::Png).unwrap();
    out.into_inner()
}

async fn kept_picture(served: &Served, side: u32) -> String {
    served.picture(ContentType::PNG, png(side)).await.1["name"].as_str().unwrap().to_owned()
}

async fn has(served: &Served, picture: &str) -> bool {
    served.get(&format!("/api/pictures/{picture}")).await.0 == 200
}

fn with_photos(name: &str, pictures: &[&str]) -> Value {
    let mut site = demo();
    site["name"] = json!(name);
    site["targets"][0]["photos"] = pictures.iter().map(|picture| json!({"picture": picture})).collect();
    site
}

#[rocket::async_test]
async fn pictures_that_no_revision_names_are_collected_but_not_on_the_day_they_came() {
    let served = Served::new().await;
    let [used, unused] = [kept_picture(&served, 3).await, kept_picture(&served, 4).await];
    let site = with_photos("Photos", &[&used]);
    assert_eq!(served.post("/api/sites", json!({"says": "x", "site": site})).await.0, 201);
    let store = bright_angle::store::Store::open(&served.database_url).await.unwrap();
    let now = OffsetDateTime::now_utc();
    assert_eq!(store.tidy(now).await.unwrap(), (0, 0), "its site may be on the way");
    assert_eq!(store.tidy(now + Duration::days(2)).await.unwrap(), (0, 0), "a time to come is none");
    let cluster = Cluster::shared();
    let mut owner = cluster.owner(&served.database_url).await;
    sqlx::query("update picture set created_at = created_at - interval '2 days'").execute(&mut owner).await.unwrap();
    assert_eq!(store.tidy(now).await.unwrap(), (0, 1));
    // The tables' owner is nobody special.
    let special = sqlx::query_scalar(
        "select rolsuper or rolcreaterole or rolcreatedb from pg_roles where rolname = current_user",
    );
    let special: bool = special.fetch_one(&mut owner).await.unwrap();
    assert!(!special);
    assert!(has(&served, &used).await && !has(&served, &unused).await);
}

#[rocket::async_test]
async fn a_site_is_deleted_by_its_name_and_a_tombstone_stays() {
    let served = Served::new().await;
    let [own, shared] = [kept_picture(&served, 5).await, kept_picture(&served, 6).await];
    let site = with_photos("To go", &[&own, &shared]);
    let (_, made) = served.post("/api/sites", json!({"says": "x", "site": site})).await;
    let path = format!("/api/sites/{}", made["site_id"].as_str().unwrap());
    let stays = with_photos("To stay", &[&shared]);
    assert_eq!(served.post("/api/sites", json!({"says": "x", "site": stays})).await.0, 201);

    let (status, faults) = served.delete(&path, json!({"name": "to go"})).await;
    assert_eq!(status, 422, "{faults}");
    assert_eq!(served.get(&path).await.0, 200);
    assert_eq!(served.delete(&path, json!({"name": "To go"})).await.0, 204);
    for (status, faults) in [
        served.get(&path).await,
        served.get(&format!("{path}/revisions")).await,
        served.put(&path, json!({"based_on": 1, "says": "x", "site": demo()})).await,
        served.delete(&path, json!({"name": "To go"})).await,
        served.post("/api/sites", json!({"id": made["site_id"], "says": "x", "site": demo()})).await,
    ] {
        assert_eq!(status, 410, "{faults}");
        assert!(faults[0]["message"].as_str().unwrap().contains("“To go” was deleted"), "{faults}");
    }
    assert_eq!(names(&served.get("/api/sites").await.1), ["To stay"]);
    assert!(!has(&served, &own).await && has(&served, &shared).await);
    let mut direct = PgConnection::connect(&served.database_url).await.unwrap();
    let (left, uses): (i64, i64) =
        sqlx::query_as("select (select count(*) from revision), (select count(*) from picture_use)")
            .fetch_one(&mut direct)
            .await
            .unwrap();
    // The drawing and the photo of the one that stays.
    assert_eq!((left, uses), (1, 2));
}

#[rocket::async_test]
async fn a_database_from_before_the_list_had_columns_is_brought_up_to_date() {
    let cluster = Cluster::shared();
    let url = cluster.bare_database();
    let mut owner = cluster.owner(&url).await;
    for migration in [
        include_str!("../migrations/0001_sites.sql"),
        include_str!("../migrations/0002_pictures.sql"),
        "create table _sqlx_migrations (version bigint primary key)",
    ] {
        sqlx::raw_sql(migration).execute(&mut owner).await.unwrap();
    }
    let id = Uuid::new_v4();
    sqlx::query("insert into site (id) values ($1)").bind(id).execute(&mut owner).await.unwrap();
    let picture = "a".repeat(64);
    for (number, name) in [(1, "Old"), (2, "New")] {
        let mut site = with_photos(name, &[&picture]);
        site["drawing"] = Value::Null;
        sqlx::query("insert into revision (site_id, number, says, file) values ($1, $2, $3, $4)")
            .bind(id)
            .bind(number)
            .bind(name)
            .bind(site)
            .execute(&mut owner)
            .await
            .unwrap();
    }
    sqlx::raw_sql(include_str!("../migrations/0003_list_and_thinning.sql")).execute(&mut owner).await.unwrap();
    let row: (String, i32, String, i32, i32) =
        sqlx::query_as("select name, revision, says, targets, cameras from site").fetch_one(&mut owner).await.unwrap();
    let cameras = i32::try_from(demo()["cameras"].as_array().unwrap().len()).unwrap();
    assert_eq!(row, ("New".into(), 2, "New".into(), 9, cameras));
    let uses: Vec<(i32, String)> =
        sqlx::query_as("select number, picture from picture_use order by number").fetch_all(&mut owner).await.unwrap();
    assert_eq!(uses, [(1, picture.clone()), (2, picture)]);
}

#[rocket::async_test]
async fn the_firms_own_catalogue_overwrites_nobody() {
    let served = Served::new().await;
    let model = |name: &str, price: f64| {
        json!({"name": name, "form": "turret", "price": price, "sensor": {"width_px": 2688, "height_px": 1520, "width_mm": 5.376,
            "height_mm": 3.04}, "lens": {"focal_min_mm": 2.8, "focal_max_mm": 2.8}})
    };
    let save = |based_on: i32, models: Value| {
        json!({"based_on": based_on, "says": "Prices", "catalogue":
            {"format": "bright-angle/catalogue", "version": 1, "currency": "EUR", "models": models}})
    };
    let (status, empty) = served.get("/api/catalogue/own").await;
    assert_eq!((status, &empty["number"], &empty["catalogue"]["models"]), (200, &json!(0), &json!([])));
    let first = save(0, json!([model("Ours", 99.0)]));
    assert_eq!(served.put("/api/catalogue/own", &first).await.0, 200);
    // The answer was lost, and it is asked once more: the same.
    let (status, again) = served.put("/api/catalogue/own", &first).await;
    assert_eq!((status, &again["number"]), (200, &json!(1)));
    // Somebody who did not see that is told what stands there.
    let (status, theirs) = served.put("/api/catalogue/own", save(0, json!([model("Other", 1.0)]))).await;
    assert_eq!(
        (status, &theirs["number"], &theirs["catalogue"]["models"][0]["name"]),
        (409, &json!(1), &json!("Ours"))
    );
    let (status, faults) = served.put("/api/catalogue/own", save(1, json!([model("A", 1.0), model("A", 2.0)]))).await;
    assert_eq!((status, &faults[0]["path"]), (422, &json!("catalogue.models[1].name")));
    assert_eq!(served.put("/api/catalogue/own", save(1, json!([]))).await.0, 200);
    // Two at once: one of them.
    let (one, other) = (save(2, json!([model("B", 1.0)])), save(2, json!([model("C", 1.0)])));
    let (one, other) =
        rocket::tokio::join!(served.put("/api/catalogue/own", one), served.put("/api/catalogue/own", other));
    let mut found = [one.0, other.0];
    found.sort_unstable();
    assert_eq!(found, [200, 409]);
}
