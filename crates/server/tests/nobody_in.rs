//! What a foreign page, or a name that points here, can make a browser send (OWASP, "Cross-Site Request Forgery Prevention"; W3C,
//! "Fetch Metadata Request Headers"), and what comes of it: nothing.

use crate::support::*;
use rocket::http::{ContentType, Header, Method};

async fn status(
    served: &Served,
    method: Method,
    path: &str,
    kind: Option<&str>,
    headers: &[(&'static str, &str)],
) -> u16 {
    let mut asked = served.client.req(method, path.to_owned()).body(creation().to_string());
    for (name, value) in headers {
        asked = asked.header(Header::new(*name, (*value).to_owned()));
    }
    if let Some(kind) = kind {
        asked = asked.header(ContentType::parse_flexible(kind).unwrap());
    }
    asked.dispatch().await.status().code
}

const HERE: (&str, &str) = ("Host", "127.0.0.1:8017");
const JSON: Option<&str> = Some("application/json");

#[rocket::async_test]
async fn a_foreign_page_makes_and_changes_nothing() {
    let served = Served::new().await;
    let foreign = ("Origin", "http://elsewhere.example");
    let cross = ("Sec-Fetch-Site", "cross-site");
    for (kind, headers) in [
        // A form, a beacon, fetch without cors: what needs no leave.
        (Some("application/x-www-form-urlencoded"), &[HERE, foreign, cross][..]),
        (Some("text/plain"), &[HERE, foreign, cross]),
        (Some("multipart/form-data; boundary=x"), &[HERE, foreign, cross]),
        (None, &[HERE, foreign, cross]),
        (JSON, &[HERE, foreign]),
        (JSON, &[HERE, cross]),
        (JSON, &[HERE, ("Sec-Fetch-Site", "same-site")]),
        (JSON, &[HERE, ("Origin", "null")]),
        (JSON, &[HERE, ("Origin", "http://127.0.0.1:9999")]),
        (JSON, &[HERE, ("Origin", "https://127.0.0.1:8017")]),
        // The page's own origin does not help a form.
        (Some("text/plain"), &[HERE, ("Origin", "http://127.0.0.1:8017")]),
        (None, &[HERE]),
    ] {
        let found = status(&served, Method::Post, "/api/sites", kind, headers).await;
        assert!(found == 403 || found == 415, "{kind:?} {headers:?}: {found}");
    }
    assert_eq!(served.get("/api/sites").await.1["total"], 0);
    // Nor does it make the server work.
    assert_eq!(status(&served, Method::Post, "/api/evaluate", JSON, &[HERE, foreign]).await, 403);
    assert_eq!(status(&served, Method::Get, "/api/sites", None, &[HERE, cross]).await, 403);
}

#[rocket::async_test]
async fn a_name_that_was_made_to_point_here_is_not_served() {
    let served = Served::new().await;
    let rebound = ("Origin", "http://rebound.example:8017");
    for host in ["rebound.example:8017", "rebound.example", "127.0.0.1", "127.0.0.1:80", "localhost:8017.example", ""] {
        let headers = [("Host", host), rebound, ("Sec-Fetch-Site", "same-origin")];
        assert_eq!(status(&served, Method::Post, "/api/sites", JSON, &headers).await, 421, "{host}");
        assert_eq!(status(&served, Method::Get, "/", None, &headers).await, 421, "{host}");
    }
    assert_eq!(status(&served, Method::Post, "/api/sites", JSON, &[]).await, 421, "no name at all");
    let twice = [HERE, ("Host", "rebound.example:8017")];
    assert_eq!(status(&served, Method::Post, "/api/sites", JSON, &twice).await, 421);
    assert_eq!(served.get("/api/sites").await.1["total"], 0);
}

#[rocket::async_test]
async fn the_applications_own_page_and_programs_on_this_machine_are_served() {
    let served = Served::new().await;
    for host in ["127.0.0.1:8017", "localhost:8017", "LOCALHOST:8017", "[::1]:8017"] {
        let origin = format!("http://{host}");
        let headers = [("Host", host), ("Origin", origin.as_str()), ("Sec-Fetch-Site", "same-origin")];
        assert_eq!(status(&served, Method::Post, "/api/sites", JSON, &headers).await, 201, "{host}");
    }
    assert_eq!(
        status(&served, Method::Post, "/api/sites", Some("application/json; charset=utf-8"), &[HERE]).await,
        201
    );
    // A link from another page may lead here, and what a program sends to be computed may be of any kind.
    let link = [HERE, ("Sec-Fetch-Site", "cross-site"), ("Sec-Fetch-Mode", "navigate")];
    assert_eq!(status(&served, Method::Get, "/", None, &link).await, 200);
    let form = Some("application/x-www-form-urlencoded");
    assert_eq!(
        status(&served, Method::Post, "/api/first-answer", form, &[HERE]).await,
        422,
        "it is read, and not understood"
    );
}

#[rocket::async_test]
async fn where_refused_requests_go_there_is_nothing_to_be_had() {
    let served = Served::new().await;
    assert_eq!(served.get("/api/refused").await.0, 404);
}

#[rocket::async_test]
async fn a_picture_comes_as_a_picture() {
    let served = Served::new().await;
    for kind in [ContentType::Binary, ContentType::Plain, ContentType::SVG, ContentType::JSON] {
        assert_eq!(served.picture(kind.clone(), vec![1, 2, 3]).await.0, 415, "{kind}");
    }
    assert_eq!(served.picture(ContentType::JPEG, vec![1, 2, 3]).await.0, 422);
}

#[rocket::async_test]
async fn a_method_that_a_path_does_not_take_is_named_and_nothing_that_is_missing_is_remembered() {
    let served = Served::new().await;
    let answer = served.client.put("/api/sites").header(host()).header(ContentType::JSON).body("{}").dispatch().await;
    assert_eq!((answer.status().code, answer.headers().get_one("Allow")), (405, Some("GET, POST")));
    let (status, faults) = served.post("/api/health", "").await;
    assert_eq!((status, faults[0]["message"].as_str()), (405, Some("takes GET only")));
    for missing in ["/assets/gone-12345678.js", "/api/nothing", "/nothing.html", "/api/pictures/x"] {
        let answer = served.client.get(missing).header(host()).dispatch().await;
        let keep = answer.headers().get_one("Cache-Control").map(str::to_owned);
        assert_eq!((answer.status().code, keep.as_deref()), (404, Some("no-store")), "{missing}");
    }
    // HTTP Semantics (RFC 9110, 13.1.2): what the browser has already is not sent again.
    let page = served.client.get("/").header(host()).dispatch().await;
    let tag = page.headers().get_one("ETag").unwrap().to_owned();
    assert_eq!(page.headers().get_one("Cache-Control"), Some("no-cache"));
    let again = served.client.get("/").header(host()).header(Header::new("If-None-Match", tag)).dispatch().await;
    assert_eq!((again.status().code, again.into_bytes().await.unwrap_or_default()), (304, vec![]));
}

#[test]
fn it_is_served_to_this_machine_alone() {
    let served = std::process::Command::new(env!("CARGO_BIN_EXE_bright-angle"))
        .args(["serve", "--address", "0.0.0.0", "--database-url", "postgres://127.0.0.1:1/x"])
        .output()
        .unwrap();
    assert!(!served.status.success());
    assert!(String::from_utf8_lossy(&served.stderr).contains("there are no accounts yet"));
}

#[test]
fn the_databases_cluster_asks_for_a_password_even_of_a_user_of_this_machine() {
    let cluster = Cluster::shared();
    let url = cluster.bare_database();
    let runtime = rocket::tokio::runtime::Builder::new_current_thread().enable_all().build().unwrap();
    let reach =
        |url: String| runtime.block_on(async move { <sqlx::PgConnection as sqlx::Connection>::connect(&url).await });
    assert!(reach(url.clone()).is_ok());
    let name = url.rsplit('/').next().unwrap();
    for user in ["bright_angle", "bright_angle_server", "postgres"] {
        for password in ["", ":wrong", ":bright_angle"] {
            let refused = reach(format!("postgres://{user}{password}@127.0.0.1:{}/{name}", cluster.port)).unwrap_err();
            assert!(refused.to_string().contains("password"), "{user}{password}: {refused}");
        }
    }
}

#[rocket::async_test]
async fn the_same_path_spelt_otherwise_is_judged_as_the_router_takes_it() {
    let served = Served::new().await;
    let foreign = [HERE, ("Origin", "http://elsewhere.example"), ("Sec-Fetch-Site", "cross-site")];
    for path in ["//api/sites", "/%61pi/sites", "/api//sites", "/api/%73ites", "/./api/sites"] {
        let found = status(&served, Method::Post, path, JSON, &foreign).await;
        assert!(matches!(found, 400 | 403 | 404), "{path}: {found}");
        // A form with nothing to give it away is no JSON, however the path is spelt.
        let found = status(&served, Method::Post, path, Some("text/plain"), &[HERE]).await;
        assert!(matches!(found, 400 | 404 | 415), "{path}: {found}");
        assert_eq!(status(&served, Method::Get, path, None, &foreign).await / 100, 4, "{path}");
    }
    assert_eq!(served.get("/api/sites").await.1["total"], 0);
    for name in ["Origin", "Sec-Fetch-Site"] {
        let own = if name == "Origin" { "http://127.0.0.1:8017" } else { "same-origin" };
        let twice = [HERE, (name, own), (name, own)];
        assert_eq!(status(&served, Method::Post, "/api/sites", JSON, &twice).await, 400, "{name} twice");
    }
}

#[rocket::async_test]
async fn every_route_asks_the_guard_itself() {
    let served = Served::new().await;
    // The same routes on a server without the look at each request: each refuses what is addressed to another name.
    let bare = served.bare().await;
    let mut asked = 0;
    for route in served.client.rocket().routes() {
        if route.uri.path().ends_with("/refused") {
            continue;
        }
        let path: Vec<&str> =
            route.uri.path().split('/').map(|part| if part.starts_with('<') { "1" } else { part }).collect();
        let host = Header::new("Host", "rebound.example:8017");
        let answer = bare.req(route.method, path.join("/")).header(host).header(ContentType::JSON).dispatch().await;
        assert_eq!(answer.status().code, 421, "{} {}", route.method, route.uri);
        asked += 1;
    }
    assert!(asked > 28, "{asked}");
}

#[rocket::async_test]
async fn the_page_has_one_name_so_that_a_device_keeps_one_shelf() {
    let served = Served::new().await;
    for host in ["localhost:8017", "[::1]:8017"] {
        let answer = served.client.get("/").header(Header::new("Host", host)).dispatch().await;
        let there = answer.headers().get_one("Location").map(str::to_owned);
        assert_eq!((answer.status().code, there.as_deref()), (307, Some("http://127.0.0.1:8017/")), "{host}");
    }
    assert_eq!(status(&served, Method::Get, "/", None, &[HERE]).await, 200);
}
