//! Pictures of cameras over the API: the stand-in, and addresses that never answer, never end, send elsewhere or send no picture; and the
//! subcommands of fitting.

use crate::support;

use bright_angle_camera::{Fault, PASSWORD, StandIn, USER, serve};
use bright_angle_core::Site;
use rocket::http::ContentType;
use serde_json::{Value, json};
use std::io::{Read, Write};
use std::net::{SocketAddr, TcpListener};
use std::process::{Command, Stdio};
use support::{Cluster, Served, host};

const DEMO: &str = include_str!("../../../demo/tern-quay.json");

pub(super) fn demo() -> Value {
    serde_json::from_str(DEMO).unwrap()
}

/// The stand-in on a port of its own.
pub(super) fn cameras(faults: &[&str]) -> SocketAddr {
    let server = tiny_http::Server::http("127.0.0.1:0").unwrap();
    let address = server.server_addr().to_ip().unwrap();
    let faults: Vec<Fault> = faults.iter().map(|fault| fault.parse().unwrap()).collect();
    let site = Site::parse(DEMO).unwrap().file().clone();
    std::thread::spawn(move || serve(server, StandIn::of(site, faults)));
    address
}

/// Something that answers every connection with the same bytes; `ends` or not.
pub(super) fn says(answer: Vec<u8>, ends: bool) -> SocketAddr {
    let listener = TcpListener::bind("127.0.0.1:0").unwrap();
    let address = listener.local_addr().unwrap();
    std::thread::spawn(move || {
        let mut held = vec![];
        for mut stream in listener.incoming().flatten() {
            let mut asked = [0; 4096];
            let _ = stream.read(&mut asked);
            let _ = stream.write_all(&answer);
            if !ends {
                held.push(stream);
            }
        }
    });
    address
}

pub(super) fn http(head: &str, body: &[u8]) -> Vec<u8> {
    [format!("HTTP/1.1 {head}\r\nContent-Length: {}\r\nConnection: close\r\n\r\n", body.len()).as_bytes(), body]
        .concat()
}

pub(super) async fn image(served: &Served, path: &str, body: Value) -> (u16, Option<ContentType>, Vec<u8>) {
    let asked = served.client.post(path.to_owned()).header(host()).header(ContentType::JSON);
    let response = asked.body(body.to_string()).dispatch().await;
    let (status, kind) = (response.status().code, response.content_type());
    (status, kind, response.into_bytes().await.unwrap_or_default())
}

#[rocket::async_test]
async fn the_stand_in_gives_its_view_and_is_turned() {
    let at = cameras(&["c3/h1:turned=3", "c4/h1:film"]);
    let served = Served::told(Cluster::shared().database().await, |settings| settings.cameras = at).await;
    let asked = |camera: &str| json!({"site": demo(), "camera": camera, "head": "h1"});
    let (status, kind, first) = image(&served, "/api/stand-in/picture", asked("c3")).await;
    assert_eq!((status, kind), (200, Some(ContentType::JPEG)));
    let (width, height) = image::load_from_memory(&first).unwrap().into_rgb8().dimensions();
    assert!((f64::from(width) / f64::from(height) - 2688.0 / 1520.0).abs() < 0.01);
    // Turned back it shows something else; turned a whole round the same.
    let (status, _) =
        served.post("/api/stand-in/turn", json!({"camera": "c3", "head": "h1", "pan_deg": -3.0, "zoom": 1.0})).await;
    assert_eq!(status, 200);
    let (_, _, second) = image(&served, "/api/stand-in/picture", asked("c3")).await;
    assert_ne!(first, second);
    served.post("/api/stand-in/turn", json!({"camera": "c3", "head": "h1", "pan_deg": 360.0})).await;
    let (_, _, third) = image(&served, "/api/stand-in/picture", asked("c3")).await;
    assert_eq!(second, third);
    let mut night = asked("c4");
    night["night"] = json!(true);
    assert_eq!(image(&served, "/api/stand-in/picture", night).await.0, 200);

    let (status, nobody) =
        served.post("/api/stand-in/picture", json!({"site": demo(), "camera": "c9", "head": "h1"})).await;
    assert_eq!((status, &nobody[0]["path"]), (422, &json!("camera")));
    let (status, wild) = served.post("/api/stand-in/turn", json!({"camera": "c3", "head": "h1", "pan_deg": 1e9})).await;
    assert_eq!(status, 422, "{wild}");
    let away = Served::new().await;
    let (status, said) = away.post("/api/stand-in/picture", asked("c3")).await;
    assert!(status == 424 && said[0]["message"].as_str().unwrap().starts_with("the camera does not answer"), "{said}");
}

#[rocket::async_test]
async fn a_snapshot_is_asked_for_with_digest_and_written_anew() {
    let at = cameras(&[]);
    let served = Served::new().await;
    let ask = |user: &str, password: &str| json!({"address": "127.0.0.1", "port": at.port(), "path": "/c4/h1.jpg?width=320", "user": user, "password": password});
    let (status, kind, bytes) = image(&served, "/api/snapshot", ask(USER, PASSWORD)).await;
    assert_eq!((status, kind), (200, Some(ContentType::JPEG)));
    assert_eq!(image::load_from_memory(&bytes).unwrap().width(), 320);
    for (asked, words) in [
        (ask(USER, "wrong"), "does not let in"),
        (json!({"address": "127.0.0.1", "port": at.port(), "path": "/c4/h1.jpg"}), "asks who is there"),
        (
            json!({"address": "127.0.0.1", "port": at.port(), "path": "/c9/h1.jpg", "user": USER, "password": PASSWORD}),
            "404",
        ),
    ] {
        let (status, said) = served.post("/api/snapshot", &asked).await;
        assert!(status == 424 && said.to_string().contains(words), "{words}: {said}");
        assert!(!said.to_string().contains("wrong"), "{said}");
    }
}

#[rocket::async_test]
async fn addresses_that_give_no_picture_are_each_answered() {
    let served = Served::new().await;
    let ask = |at: SocketAddr| json!({"address": at.ip().to_string(), "port": at.port(), "path": "/p.jpg"});
    let elsewhere = says(http("302 Found\r\nLocation: http://127.0.0.1:1/", b""), true);
    let text = says(http("200 OK", b"no picture at all"), true);
    // A picture of a hundred million pixels, as its head says.
    let mut large = vec![0x89, b'P', b'N', b'G', 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 13];
    large.extend(b"IHDR");
    large.extend(10_000u32.to_be_bytes());
    large.extend(10_000u32.to_be_bytes());
    large.extend([8, 2, 0, 0, 0]);
    large.extend(0u32.to_be_bytes());
    let large = says(http("200 OK", &large), true);
    let cut = says(b"HTTP/1.1 200 OK\r\nContent-Length: 100000\r\n\r\nonly this".to_vec(), true);
    let nobody = TcpListener::bind("127.0.0.1:0").unwrap().local_addr().unwrap();
    for (at, words) in [
        (elsewhere, "sends elsewhere"),
        (text, "is no picture"),
        (large, "the camera's picture"),
        (cut, "breaks off"),
        (nobody, "does not answer"),
    ] {
        let (status, said) = served.post("/api/snapshot", ask(at)).await;
        assert!(status == 424 && said.to_string().contains(words), "{words}: {status} {said}");
    }
    for (address, path, place) in [
        ("8.8.8.8", "/p.jpg", "address"),
        ("0.0.0.0", "/p.jpg", "address"),
        ("127.0.0.1", "p.jpg", "path"),
        ("127.0.0.1", "/a b", "path"),
    ] {
        let (status, said) = served.post("/api/snapshot", json!({"address": address, "port": 80, "path": path})).await;
        assert_eq!((status, &said[0]["path"]), (422, &json!(place)), "{said}");
    }
    assert_eq!(served.post("/api/snapshot", json!({"address": "127.0.0.1", "port": 0, "path": "/p"})).await.0, 422);
}

#[rocket::async_test]
async fn an_address_that_never_comes_to_an_end_is_given_up() {
    let served = Served::new().await;
    let endless = says(b"HTTP/1.1 200 OK\r\nContent-Length: 100000\r\n\r\nonly this".to_vec(), false);
    let body = json!({"address": "127.0.0.1", "port": endless.port(), "path": "/p.jpg"});
    let (status, said) = served.post("/api/snapshot", &body).await;
    assert!(status == 424 && said.to_string().contains("does not come to an end"), "{status} {said}");
}

#[rocket::async_test]
async fn photos_of_fitting_are_named_by_their_revision() {
    let served = Served::new().await;
    let mut png = vec![];
    let picture = image::RgbImage::from_pixel(8, 8, image::Rgb([9, 9, 9]));
    picture.write_to(&mut std::io::Cursor::new(&mut png), image::ImageFormat::Png).unwrap();
    let (_, kept) = served.picture(ContentType::PNG, png).await;
    let mut site = demo();
    site["cameras"][0]["fitting"] = json!({"photos": [{"picture": kept["name"]}]});
    let (status, _) = served.post("/api/sites", json!({"says": "Fit", "site": site})).await;
    assert_eq!(status, 201);
    let mut owner = Cluster::shared().owner(&served.database_url).await;
    let (count,): (i64,) = sqlx::query_as("select count(*) from picture_use where picture = $1")
        .bind(kept["name"].as_str().unwrap())
        .fetch_one(&mut owner)
        .await
        .unwrap();
    assert_eq!(count, 1);
}

/// Runs the program with something on its standard input.
pub(super) fn run(arguments: &[&str], input: &str) -> (Option<i32>, String, String) {
    let mut child = Command::new(env!("CARGO_BIN_EXE_bright-angle"))
        .args(arguments)
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .unwrap();
    let _ = child.stdin.take().unwrap().write_all(input.as_bytes());
    let done = child.wait_with_output().unwrap();
    let text = |bytes| String::from_utf8(bytes).unwrap();
    (done.status.code(), text(done.stdout), text(done.stderr))
}

#[test]
fn poses_materials_steps_and_days_on_the_command_line() {
    let file = support::root().join("demo/tern-quay.json");
    let file = file.to_str().unwrap();
    // Five things before camera c4, and where it sees them: the pose is the design's.
    let mut site = demo();
    let c4 = site["cameras"].as_array().unwrap().iter().find(|camera| camera["id"] == "c4").unwrap().clone();
    let (pan, [x, y]) =
        (c4["heads"][0]["pan_deg"].as_f64().unwrap(), [0, 1].map(|axis| c4["position"][axis].as_f64().unwrap()));
    let things = [(-18.0, 9.0, 0.5), (15.0, 12.0, 2.0), (0.0, 20.0, 1.0), (-10.0, 16.0, 3.0), (20.0, 25.0, 0.2)];
    let places = things.map(|(aside, far, up): (f64, f64, f64)| {
        let (sin, cos) = (pan + aside).to_radians().sin_cos();
        [x + far * sin, y + far * cos, up]
    });
    let targets = places.iter().enumerate().map(|(number, [x, y, z])| {
        json!({"id": format!("m{number}"), "name": "M", "subject": "scene", "task": "detect",
            "shape": {"kind": "point", "points": [[x, y]]}, "height_m": z, "distance": {"how": "laser"}})
    });
    site["targets"] = targets.collect();
    site["readings"] = json!([]);
    let (code, said, error) = run(&["evaluate", "-"], &site.to_string());
    assert_eq!(code, Some(0), "{error}");
    let told: Value = serde_json::from_str(&said).unwrap();
    let mut csv = "id,x,y,z,u,v\n".to_owned();
    for line in told["sight_lines"].as_array().unwrap().iter().filter(|line| line["camera"] == "c4") {
        let number: usize = line["target"].as_str().unwrap()[1..].parse().unwrap();
        let [x, y, z] = places[number];
        csv += &format!("m{number},{x},{y},{z},{},{}\n", line["pixel"][0], line["pixel"][1]);
    }
    assert_eq!(csv.lines().count(), 6);
    let (code, said, error) = run(&["pose", file, "--camera", "c4", "--head", "h1"], &csv);
    assert_eq!(code, Some(0), "{error}");
    let pose: Value = serde_json::from_str(&said).unwrap();
    assert!(pose["differs"]["pan_deg"].as_f64().unwrap().abs() < 1e-6 && pose["settled"] == true, "{pose}");
    assert!(pose.get("east_m").is_none() && pose["sigma"]["focal_mm"].as_f64().unwrap() > 0.0);
    let (_, said, _) = run(
        &["pose", file, "--camera", "c4", "--head", "h1", "--position-sigma-m", "0.5", "--height-sigma-m", "0.05"],
        &csv,
    );
    let pose: Value = serde_json::from_str(&said).unwrap();
    assert!(
        pose["sigma"]["east_m"].as_f64().unwrap() < 0.51 && pose["differs"]["height_m"].as_f64().unwrap().abs() < 1e-6
    );
    let (code, _, error) = run(&["pose", file, "--camera", "c4", "--head", "h1"], "id,x,y,z,u,v\na,1,2,3,4,5\n");
    assert!(code == Some(2) && error.contains("it takes 3"), "{error}");
    let (code, _, error) = run(&["pose", file, "--camera", "c4", "--head", "h1"], "id,x,y\na,1,2\n");
    assert!(code == Some(2) && error.contains("line 1: has no column \"z\""), "{error}");
    let (code, _, error) = run(&["pose", file, "--camera", "c4", "--head", "h1"], "id,x,y,z,u,v\na,1,2,here,4,5\n");
    assert!(code == Some(2) && error.contains("line 2, z: \"here\" is no number"), "{error}");

    let (code, said, _) = run(&["steps", file, "--camera", "c3"], "");
    assert!(code == Some(0) && said.contains("\"unpack\""));
    let (code, _, error) = run(&["steps", file, "--camera", "c99"], "");
    assert!(code == Some(2) && error.contains("c99"), "{error}");
    let (code, said, _) = run(&["materials", file, "--csv"], "");
    assert!(code == Some(0) && said.starts_with("what,kind,needed"));
    let (code, said, _) = run(&["day", file], "");
    assert!(code == Some(0) && said.contains("\"visits\""));
    let (code, said, _) = run(&["mount", file, "--camera", "c4"], "");
    assert!(code == Some(0) && said.contains("anchor_load"));
}
