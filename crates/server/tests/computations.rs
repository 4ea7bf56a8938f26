//! The computations over HTTP: the command line's answers, its faults, and limits on what is taken.

use crate::support::*;
use bright_angle_core::Site;
use bright_angle_core::math::Grid;
use bright_angle_core::show::coverage::relief::Relief;
use serde_json::{Value, json};

#[rocket::async_test]
async fn the_server_answers_what_the_core_computes() {
    let served = Served::new().await;
    let site = Site::parse(&demo().to_string()).unwrap();
    let (status, found) = served.post("/api/evaluate", demo()).await;
    assert_eq!((status, found), (200, serde_json::to_value(bright_angle_core::evaluate(&site)).unwrap()));

    let asked = json!({"site": demo(), "camera": "c4", "head": "h1", "target": "t1"});
    let (status, found) = served.post("/api/ways", &asked).await;
    assert_eq!(status, 200);
    assert!(!found["ways"].as_array().unwrap().is_empty());
    let mut feet = asked.clone();
    feet["units"] = json!("feet");
    let (_, in_feet) = served.post("/api/ways", feet).await;
    assert!(in_feet.to_string().contains("' "), "told in feet");

    let (status, found) = served.post("/api/section", &asked).await;
    assert_eq!((status, &found["target"]), (200, &json!("t1")));
    let cells = json!({"site": demo(), "at_height_m": 1.6, "cell_m": 2.0, "bounds": [60, 30, 80, 50]});
    let (status, text) = served.post("/api/relief", &cells).await;
    let relief = Relief::of(&site, Grid::over([60.0, 30.0, 80.0, 50.0], 2.0), 1.6);
    assert_eq!((status, text.as_str()), (200, Some(relief.to_ascii_grid().as_str())));
    for (field, value) in
        [("cell_m", json!(0)), ("cell_m", json!(1e-9)), ("at_height_m", json!(-3)), ("bounds", json!([1, 1, 0, 0]))]
    {
        let mut bad = cells.clone();
        bad[field] = value;
        let (status, faults) = served.post("/api/relief", bad).await;
        assert_eq!((status, &faults[0]["path"]), (422, &json!(field)));
    }
    assert_eq!(
        served.get("/api/catalogue").await.1.as_array().unwrap().len(),
        bright_angle_core::equipment::catalogue::models().unwrap().len()
    );
    assert_eq!(served.get("/api/schema").await.1, bright_angle_core::file::schema::site_schema());
}

#[rocket::async_test]
async fn bad_bodies_are_named_and_nothing_is_stored() {
    let served = Served::new().await;
    let text = demo().to_string();
    let cases = [
        (text[..text.len() / 2].to_owned(), ""),
        (text.replacen("\"tilt_deg\":1.5", "\"tilt_deg\":NaN", 1), "cameras[0].heads[0].tilt_deg"),
        (text.replacen("\"tilt_deg\":1.5", "\"tilt_deg\":1e308", 1), "cameras[0].heads[0].tilt_deg"),
        (text.replacen("\"width_mm\":5.376", "\"width_mm\":-5.376", 1), "cameras[0].model.sensor.width_mm"),
        (text.replacen("\"version\":1", "\"version\":9", 1), "version"),
        ("".to_owned(), ""),
        ("null".to_owned(), ""),
        ("\u{0}".to_owned(), ""),
    ];
    for (body, path) in cases {
        let (status, faults) = served.post("/api/evaluate", &body).await;
        assert_eq!(status, 422, "{faults}");
        let first = faults[0]["path"].as_str().unwrap();
        assert!(path.is_empty() || first == path, "expected {path}, got {faults}");
    }
    for (field, id) in [("camera", "c99"), ("head", "h9"), ("target", "t99")] {
        let mut asked = json!({"site": demo(), "camera": "c4", "head": "h1", "target": "t1"});
        asked[field] = json!(id);
        let (status, faults) = served.post("/api/ways", asked).await;
        assert_eq!((status, &faults[0]["path"]), (422, &json!(field)));
    }
    assert_eq!(served.post("/api/ways", json!({"site": demo(), "camera": "c4"})).await.0, 422);
    assert_eq!(served.get("/api/sites").await.1["total"], 0);
}

#[rocket::async_test]
async fn a_body_of_a_hundred_megabytes_is_not_taken() {
    let served = Served::new().await;
    let (status, faults) = served.post("/api/evaluate", " ".repeat(100 * 1024 * 1024)).await;
    assert_eq!(status, 413);
    assert!(faults[0]["message"].as_str().unwrap().contains("larger than 8 MiB"));
}

#[rocket::async_test]
async fn every_answer_carries_the_security_headers() {
    let served = Served::new().await;
    for path in ["/", "/api/health", "/api/nothing"] {
        let answer = served.client.get(path).header(host()).dispatch().await;
        let headers = answer.headers();
        let policy = headers.get_one("Content-Security-Policy").unwrap();
        assert!(
            policy.contains("default-src 'none'") && policy.contains("script-src 'self' 'wasm-unsafe-eval';"),
            "{path}"
        );
        assert_eq!(headers.get_one("X-Content-Type-Options"), Some("nosniff"), "{path}");
        assert_eq!(headers.get_one("X-Frame-Options"), Some("SAMEORIGIN"), "{path}");
        assert_eq!(headers.get_one("Referrer-Policy"), Some("no-referrer"), "{path}");
        assert_eq!(headers.get_one("Server"), None, "{path}");
    }
}

#[test]
fn every_route_is_in_the_document_and_the_document_is_current() {
    let document = serde_json::to_value(bright_angle::api::document()).unwrap();
    let kept: Value = serde_json::from_str(include_str!("../../../docs/openapi.json")).unwrap();
    assert_eq!(document, kept, "docs/openapi.json is out of date: run tools/generate");
    let mut routes: Vec<String> = bright_angle::api::compute_routes()
        .into_iter()
        .chain(bright_angle::api::site_routes())
        .chain(bright_angle::api::share_routes())
        .chain(bright_angle::api::sign_routes())
        .map(|route| {
            format!(
                "{} /api{}",
                route.method.to_string().to_lowercase(),
                route.uri.path().replace('<', "{").replace('>', "}")
            )
        })
        .collect();
    let mut documented: Vec<String> = document["paths"]
        .as_object()
        .unwrap()
        .iter()
        .flat_map(|(path, methods)| methods.as_object().unwrap().keys().map(move |method| format!("{method} {path}")))
        .collect();
    routes.sort();
    documented.sort();
    assert_eq!(routes, documented);
}
