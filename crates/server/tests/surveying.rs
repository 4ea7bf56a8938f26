//! The survey over HTTP and on the command line: what is left to do, the adjustment, readings, pictures, and shots.

use crate::support::*;
use bright_angle_rangefinder::{Faults, Kind};
use rocket::http::ContentType;
use serde_json::{Value, json};
use std::net::TcpListener;

/// A yard with two spots and a till that the tape puts elsewhere; its third reading went past.
fn walked() -> Value {
    let mut site = demo();
    site["cameras"] = json!([]);
    for field in ["brief", "drawing"] {
        site.as_object_mut().unwrap().remove(field);
    }
    site["spots"] = json!([
        {"id": "s1", "name": "Chandlery corner", "position": [74, 51.6], "height_m": 3.6, "fixed": true},
        {"id": "s2", "name": "Workshop corner", "position": [42, 46], "height_m": 3.6, "fixed": true},
        {"id": "s3", "name": "Fence post", "position": [106, 40], "height_m": 3, "fixed": true},
    ]);
    site["targets"] = json!([{"id": "t1", "name": "Fuel berth till", "subject": "face", "task": "identify", "height_m": 1.6,
        "shape": {"kind": "point", "points": [[84.5, 36.2]]}}]);
    let level = |id: &str, to: &str, metres: f64| json!({"id": id, "from": "t1", "to": to, "slope_m": metres, "inclination_deg": 0});
    site["readings"] = json!([level("r1", "s1", 18.9), level("r2", "s2", 43.76), level("r3", "s3", 27.9)]);
    site
}

#[rocket::async_test]
async fn the_doubtful_reading_is_named_and_the_rest_is_accepted() {
    let served = Served::new().await;
    let mut site = walked();
    let (status, found) = served.post("/api/survey", &site).await;
    assert_eq!(status, 200, "{found}");
    let says = |found: &Value| -> Vec<String> {
        let left = found["before_you_leave"].as_array().unwrap();
        left.iter().map(|todo| todo["says"].as_str().unwrap().to_owned()).collect()
    };
    assert!(says(&found).iter().any(|s| s == "Who is the client?"));
    assert!(says(&found).iter().any(|s| s == "Chandlery corner: what is the surface?"));
    let doubtful = says(&found).into_iter().find(|s| s.contains("too long for the others")).unwrap();
    assert!(doubtful.starts_with("Fuel berth till to Fence post"), "{doubtful}");
    assert_eq!(found["adjustment"], served.post("/api/adjust", &site).await.1);

    site["readings"][2]["used"] = json!(false);
    let (_, found) = served.post("/api/survey", &site).await;
    let patch: json_patch::Patch = serde_json::from_value(found["adjustment"]["patch"].clone()).unwrap();
    if let Some(settle) = says(&found).into_iter().find(|s| s.contains("accept the adjusted positions")) {
        assert!(settle.contains(" m apart"));
        json_patch::patch(&mut site, &patch).unwrap();
    }
    let (_, found) = served.post("/api/survey", &site).await;
    assert!(!says(&found).iter().any(|s| s.contains("accept") || s.contains("too long")), "{:?}", says(&found));
}

#[rocket::async_test]
async fn nothing_left_to_ask_only_when_that_is_true() {
    let served = Served::new().await;
    let mut site = walked();
    site["readings"] = json!([site["readings"][0]]);
    site["targets"][0]["shape"]["points"] = json!([[84.6014, 35.9537]]);
    site["targets"][0]["night_light"] = json!("lamp on the crane");
    for spot in site["spots"].as_array_mut().unwrap() {
        let more = json!({"kind": "wall", "surface": "brick", "back_box": true, "outdoor": true, "in_reach": false, "cable_m": 30});
        spot.as_object_mut().unwrap().extend(more.as_object().unwrap().clone());
    }
    site["brief"] = json!({"client": "Tern Quay", "kind": "yard", "must_see": "Faces at the till", "retention_days": 30,
        "recorder_place": "Workshop office", "colour": "black", "sound": false, "viewers": "the yard master", "night_light": "two lamps",
        "access": "ladder", "private_places": "the houseboats", "decides": "the yard master"});
    let (status, found) = served.post("/api/survey", &site).await;
    assert_eq!((status, &found["before_you_leave"]), (200, &json!([])), "{}", found["before_you_leave"]);
    site["brief"]["colour"] = json!("  ");
    let (_, found) = served.post("/api/survey", &site).await;
    assert_eq!(found["before_you_leave"][0]["field"], "colour");
}

#[rocket::async_test]
async fn shots_come_from_the_device_or_from_a_hand() {
    let listener = TcpListener::bind("127.0.0.1:0").unwrap();
    let address = listener.local_addr().unwrap();
    let script = vec![Kind::Good, Kind::None, Kind::Stray];
    std::thread::spawn(move || bright_angle_rangefinder::serve(&listener, 5, Faults { script, ..Faults::default() }));
    let cluster = Cluster::shared();
    let served = Served::with_rangefinder(&cluster, address).await;
    let asked = json!({"from": [84.5, 36.2, 1.5], "to": [74, 51.6, 3.6]});
    let (status, good) = served.post("/api/measure", &asked).await;
    assert_eq!(status, 200, "{good}");
    let slope = good["shot"]["slope_m"].as_f64().unwrap();
    assert!((18.2..19.5).contains(&slope) && good["shot"]["inclination_deg"].as_f64().unwrap() > 5.0, "{good}");
    let (status, none) = served.post("/api/measure", &asked).await;
    assert_eq!(status, 424);
    assert!(none[0]["message"].as_str().unwrap().starts_with("no return"));
    let mut again = asked.clone();
    again["earlier_m"] = json!([slope, slope + 0.01]);
    let (_, stray) = served.post("/api/measure", &again).await;
    assert!(stray["shot"]["slope_m"].as_f64().unwrap() > slope + 2.0);
    assert_eq!(stray["together"]["left_out"], json!([2]), "the third shot went past");

    let mut typed = asked.clone();
    typed["typed_slope_m"] = json!(18.93);
    let (_, shot) = served.post("/api/measure", &typed).await;
    assert_eq!((&shot["together"]["slope_m"], &shot["shot"]["device"]), (&json!(18.93), &json!("typed by hand")));
    typed["typed_slope_m"] = json!(-1);
    assert_eq!(served.post("/api/measure", &typed).await.1[0]["path"], "typed_slope_m");

    let alone = Served::new().await;
    let (status, away) = alone.post("/api/measure", &asked).await;
    assert_eq!(status, 424);
    assert!(away[0]["message"].as_str().unwrap().contains("does not answer"));
}

fn png(width: u32, height: u32) -> Vec<u8> {
    let mut out = std::io::Cursor::new(Vec::new());
    image::DynamicImage::new_rgb8(width, height).write_to(&mut out, image::ImageFormat::Png).unwrap();
    out.into_inner()
}

#[rocket::async_test]
async fn pictures_are_kept_once_and_come_back_as_they_are() {
    let served = Served::new().await;
    let send = |bytes: Vec<u8>| served.picture(ContentType::PNG, bytes);
    let (status, head) = send(png(30, 20)).await;
    assert_eq!((status, &head["width_px"], &head["height_px"]), (201, &json!(30), &json!(20)));
    assert_eq!(send(png(30, 20)).await.1["name"], head["name"]);
    let back =
        served.client.get(format!("/api/pictures/{}", head["name"].as_str().unwrap())).header(host()).dispatch().await;
    assert_eq!(back.content_type(), Some(ContentType::PNG));
    assert!(back.headers().get_one("Cache-Control").unwrap().contains("immutable"));
    let back = image::load_from_memory(&back.into_bytes().await.unwrap()).unwrap();
    assert_eq!(back, image::load_from_memory(&png(30, 20)).unwrap());

    assert_eq!(send(b"MZ not a picture".to_vec()).await.1[0]["path"], "picture");
    assert_eq!(send(png(7_000, 6_000)).await.0, 422);
    let (status, faults) = send(vec![0; 7 * 1024 * 1024]).await;
    assert_eq!((status, &faults[0]["message"]), (413, &json!("the body is larger than 6 MiB")));
    let (status, _) = served.get(&format!("/api/pictures/{}", "0".repeat(64))).await;
    assert_eq!(status, 404);
    for nothing in ["..%2f..%2fetc%2fpasswd", "%00", "a%00b", "%ff"] {
        assert_eq!(served.get(&format!("/api/pictures/{nothing}")).await.0, 404, "{nothing}");
    }
}

#[rocket::async_test]
async fn readings_go_out_and_come_in_as_csv() {
    let served = Served::new().await;
    let site = walked();
    let written = served.client.post("/api/readings/write").header(host()).body(site.to_string()).dispatch().await;
    assert_eq!(written.content_type(), Some(ContentType::CSV));
    let csv = written.into_string().await.unwrap();
    let mut bare = site.clone();
    bare["readings"] = json!([]);
    let (status, read) = served.post("/api/readings/read", json!({"site": bare, "csv": csv})).await;
    assert_eq!((status, read["readings"].as_array().unwrap().len(), &read["faults"]), (200, 3, &json!([])), "{read}");

    let sheet = "from;to;slope_m\nt1;s1;18,93\nt1;s9;4,2\nt1;s2;zwei\nt1;s2;0,5\n";
    let (_, read) = served.post("/api/readings/read", json!({"site": site, "csv": sheet})).await;
    assert_eq!(read["readings"].as_array().unwrap().len(), 1, "{read}");
    assert_eq!((&read["readings"][0]["id"], &read["readings"][0]["slope_m"]), (&json!("r4"), &json!(18.93)));
    let faults = read["faults"].to_string();
    assert!(
        faults.contains("line 4") && faults.contains("\\\"s9\\\"") && faults.contains("not longer than"),
        "{faults}"
    );
}

#[rocket::async_test]
async fn the_first_answer_and_a_world_file() {
    let served = Served::new().await;
    let asked = json!({"slant_m": 18.9, "spot_height_m": 3.6, "target_height_m": 1.6, "task": "identify"});
    let (status, found) = served.post("/api/first-answer", &asked).await;
    assert_eq!((status, &found["thumb_rule"]["agrees"]), (200, &json!(true)), "{found}");
    assert!((found["pocket"]["focal_mm"].as_f64().unwrap() - 9.45).abs() < 1e-9);
    let mut nonsense = asked.clone();
    nonsense["slant_m"] = json!(-3);
    assert_eq!(served.post("/api/first-answer", &nonsense).await.1[0]["path"], "slant_m");
    assert_eq!(served.post("/api/world-file", "0.1\n0\n0\n-0.1\n5\n6\n").await.1["metres_per_px"], 0.1);
    assert_eq!(served.post("/api/world-file", "hello").await.0, 422);
}
