//! Evidence kept to its last byte, cameras' own clocks, faults to order of the stand-in; a year as it goes: knocked, dirty and overgrown
//! are told apart; what is due as a calendar that another library reads.

use crate::fitting::{cameras, demo, http, image, run, says};
use crate::support;
use bright_angle::picture::pixels;
use bright_angle_camera::{PASSWORD, USER};
use bright_angle_core::file::{Differs, ProvingRules};
use bright_angle_core::prove::compare::compare;
use bright_angle_core::prove::shot::Shot;
use ical::IcalParser;
use rocket::http::ContentType;
use serde_json::{Value, json};
use sha2::{Digest, Sha256};
use support::{Cluster, Served, host};

fn sha(bytes: &[u8]) -> String {
    Sha256::digest(bytes).iter().map(|byte| format!("{byte:02x}")).collect()
}

/// A JPEG with a comment in it, which is gone in one that is written anew.
fn jpeg() -> Vec<u8> {
    let mut plain = vec![];
    image::codecs::jpeg::JpegEncoder::new_with_quality(&mut plain, 90)
        .encode_image(&image::RgbImage::from_pixel(32, 24, image::Rgb([90, 120, 40])))
        .unwrap();
    let comment = b"camera 4, gate";
    let length = u16::try_from(2 + comment.len()).unwrap().to_be_bytes();
    [&plain[..2], &[0xff, 0xfe], &length, comment, &plain[2..]].concat()
}

async fn keep(served: &Served, path: &str, bytes: &[u8]) -> (u16, Value) {
    let asked = served.client.post(path.to_owned()).header(host()).header(ContentType::JPEG).body(bytes);
    let response = asked.dispatch().await;
    let status = response.status().code;
    (status, serde_json::from_str(&response.into_string().await.unwrap()).unwrap())
}

#[rocket::async_test]
async fn evidence_is_kept_to_its_last_byte_and_named_by_its_revision() {
    let served = Served::new().await;
    let bytes = jpeg();
    let (status, head) = keep(&served, "/api/pictures?as_it_is=true", &bytes).await;
    assert_eq!((status, &head["name"]), (201, &json!(sha(&bytes))), "{head}");
    let got = served.client.get(format!("/api/pictures/{}", sha(&bytes))).header(host()).dispatch().await;
    assert_eq!(got.headers().get_one("X-Content-Type-Options"), Some("nosniff"));
    assert_eq!(got.into_bytes().await.unwrap(), bytes);
    // What is no evidence is written anew; what is no picture is neither.
    assert_ne!(keep(&served, "/api/pictures", &bytes).await.1["name"], json!(sha(&bytes)));
    let (status, refused) = keep(&served, "/api/pictures?as_it_is=true", &bytes[..bytes.len() / 2]).await;
    assert!(status == 422 && refused.to_string().contains("is damaged"), "{status} {refused}");
    // A revision that names it before it came holds it all the same: on the ladder there may be no network.
    let mut site = demo();
    let hung = json!({"position": [0, 0], "height_m": 3, "model": "M",
        "aimed": {"pan_deg": 0, "tilt_deg": 0, "roll_deg": 0, "focal_mm": 6}});
    let picture = |name: &str| json!({"picture": name, "width_px": 32, "height_px": 24});
    site["snapshots"] = json!([{"id": "s1", "camera": "c4", "head": "h1", "at": "2027-05-30T10:00:00Z",
        "picture": picture(&sha(&bytes)), "hung": hung}]);
    site["proofs"] = json!([{"id": "p1", "target": "t1", "camera": "c4", "head": "h1", "how": {"kind": "yes", "yes": true},
        "hung": hung, "needed_px_per_m": 250, "picture": picture(&"e".repeat(64))}]);
    assert_eq!(served.post("/api/sites", json!({"says": "Prove", "site": site})).await.0, 201);
    let mut owner = Cluster::shared().owner(&served.database_url).await;
    let used: Vec<(String,)> =
        sqlx::query_as("select distinct picture from picture_use").fetch_all(&mut owner).await.unwrap();
    for name in [sha(&bytes), "e".repeat(64)] {
        assert!(used.iter().any(|(held,)| *held == name), "{used:?}");
    }
}

#[rocket::async_test]
async fn a_cameras_own_clock_is_read_from_its_answer() {
    let at = cameras(&[]);
    let served = Served::told(Cluster::shared().database().await, |settings| settings.cameras = at).await;
    let clock = async |path: &str, body: Value| -> Option<i64> {
        let asked = served.client.post(path.to_owned()).header(host()).header(ContentType::JSON);
        let response = asked.body(body.to_string()).dispatch().await;
        assert_eq!(response.status().code, 200);
        response.headers().get_one("X-Clock-Off-S").and_then(|off| off.parse().ok())
    };
    let stand_in =
        |faults: &[&str]| json!({"site": demo(), "camera": "c4", "head": "h1", "faults": faults, "as_it_is": true});
    let near = |off: Option<i64>, wanted: i64| assert!(off.is_some_and(|off| (off - wanted).abs() <= 5), "{off:?}");
    near(clock("/api/stand-in/picture", stand_in(&[])).await, 0);
    near(clock("/api/stand-in/picture", stand_in(&["clock=7"])).await, 420);
    near(clock("/api/stand-in/picture", stand_in(&["clock=-60"])).await, -3600);
    let asked = json!({"address": "127.0.0.1", "port": at.port(), "path": "/c4/h1.jpg?width=320", "user": USER,
        "password": PASSWORD, "as_it_is": true});
    near(clock("/api/snapshot", asked).await, 0);
    // Unaltered, and without a date nothing is said of a clock.
    let silent = says(http("200 OK", &jpeg()), true);
    let body = json!({"address": "127.0.0.1", "port": silent.port(), "path": "/p.jpg", "as_it_is": true});
    assert_eq!(clock("/api/snapshot", body.clone()).await, None);
    assert_eq!(image(&served, "/api/snapshot", body).await.2, jpeg());
    for fault in ["clock=7&light=night", "turned", "film=1", "../../x"] {
        let (status, refused) = served.post("/api/stand-in/picture", stand_in(&[fault])).await;
        assert_eq!((status, &refused[0]["path"]), (422, &json!("faults")), "{fault}");
    }
}

#[rocket::async_test]
async fn half_a_year_later_knocked_dirty_and_overgrown_are_told_apart() {
    let at = cameras(&[]);
    let served = Served::told(Cluster::shared().database().await, |settings| settings.cameras = at).await;
    let shot = async |night: bool, faults: &[&str]| {
        let asked =
            json!({"site": demo(), "camera": "c4", "head": "h1", "night": night, "faults": faults, "as_it_is": true});
        let (status, _, bytes) = image(&served, "/api/stand-in/picture", asked).await;
        assert_eq!(status, 200, "{faults:?}");
        let image = pixels(&bytes).unwrap();
        Shot { width: image.width() as usize, height: image.height() as usize, rgb: image.into_raw() }
    };
    let field = bright_angle_core::Site::parse(&demo().to_string()).unwrap().heads()[3].view().projection.hfov();
    for night in [false, true] {
        let reference = shot(night, &[]).await;
        for (fault, says) in [
            (None, None),
            (Some("turned=1.5"), Some(Differs::Moved)),
            (Some("dirty=0.45"), Some(Differs::Hazed)),
            (Some("overgrown=0.14"), Some(Differs::Blocked)),
            (Some("blurred=3"), Some(Differs::OutOfFocus)),
        ] {
            // Leaves before a black sky hide nothing that was seen.
            if night && fault == Some("overgrown=0.14") {
                continue;
            }
            let later = shot(night, &fault.into_iter().collect::<Vec<_>>()).await;
            let found = compare(&reference, &later, field.to_degrees(), &ProvingRules::default()).unwrap();
            assert!(says.is_none_or(|says| found.says.contains(&says)), "{fault:?} by night {night}: {found:?}");
            // Dirt by night takes what is fine along with the contrast: that is told, too. Nothing else is.
            let also = |differs: &Differs| {
                Some(*differs) == says || says == Some(Differs::Hazed) && *differs == Differs::OutOfFocus
            };
            assert!(found.says.iter().all(also), "{fault:?} by night {night}: {found:?}");
            if fault == Some("turned=1.5") {
                assert!((found.moved.unwrap().right_deg - 1.5).abs() < 0.1, "{found:?}");
            }
            // By night a tile here and there is the noise's: less than counts as growth.
            let hidden = found.hidden.places.len();
            match fault {
                None => assert!(hidden < 9, "{hidden} of 880 tiles by night {night}"),
                Some("overgrown=0.14") => assert!(hidden > 60, "{hidden} of 880 tiles by night {night}"),
                _ => {}
            }
        }
    }
}

/// The demo half a year after its cameras' pictures were kept.
fn kept() -> Value {
    let mut site = demo();
    let cameras = site["cameras"].as_array().unwrap().clone();
    let snapshot = |camera: &Value| {
        let head = &camera["heads"][0];
        json!({"id": format!("s-{}", camera["id"].as_str().unwrap()), "camera": camera["id"], "head": head["id"],
            "at": "2027-01-15T10:00:00Z", "picture": {"picture": "a".repeat(64), "width_px": 1280, "height_px": 724},
            "hung": {"position": camera["position"], "height_m": camera["height_m"], "model": camera["model"]["name"],
                "aimed": {"pan_deg": head["pan_deg"], "tilt_deg": head["tilt_deg"], "roll_deg": head["roll_deg"].as_f64().unwrap_or(0.0),
                    "focal_mm": head["focal_mm"]}}})
    };
    site["snapshots"] = json!(cameras.iter().map(snapshot).collect::<Vec<_>>());
    site
}

/// The events of a calendar, as the reader of another library has them: name and value of each property.
fn events(calendar: &str) -> Vec<Vec<(String, String)>> {
    let read: Vec<_> = IcalParser::new(calendar.as_bytes()).collect::<Result<_, _>>().unwrap();
    assert_eq!(read.len(), 1);
    let properties = |event: &ical::parser::ical::component::IcalEvent| {
        event.properties.iter().map(|one| (one.name.clone(), one.value.clone().unwrap_or_default())).collect()
    };
    read[0].events.iter().map(properties).collect()
}

fn value<'a>(event: &'a [(String, String)], name: &str) -> &'a str {
    event.iter().find(|(held, _)| held == name).map(|(_, value)| value.as_str()).unwrap_or_else(|| panic!("no {name}"))
}

#[rocket::async_test]
async fn what_is_due_is_a_calendar_that_another_library_reads() {
    let served = Served::new().await;
    let mut site = kept();
    site["cameras"][3]["name"] = json!("C4, gate; \\ north");
    let ask = async |site: &Value, id: &str| {
        let asked = served.client.post("/api/calendar").header(host()).header(ContentType::JSON);
        let response = asked.body(json!({"site": site, "id": id, "on": "2027-08-01"}).to_string()).dispatch().await;
        assert_eq!((response.status().code, response.content_type()), (200, Some(ContentType::Calendar)));
        response.into_string().await.unwrap()
    };
    let text = ask(&site, "one").await;
    let (_, due, _) = run(&["due", "-", "--on", "2027-08-01"], &site.to_string());
    let due: Value = serde_json::from_str(&due).unwrap();
    let read = events(&text);
    assert_eq!(read.len(), due["items"].as_array().unwrap().len());
    assert!(text.lines().all(|line| line.len() <= 75), "RFC 5545, section 3.1: lines are folded");
    let cover = read.iter().find(|event| value(event, "UID").starts_with("cover.c4.")).unwrap();
    assert_eq!(
        value(cover, "DTSTART"),
        "20270801",
        "overdue since the 15th of April: it stands on the day asked about"
    );
    assert!(value(cover, "SUMMARY").contains(r"C4\, gate\; \\ north"), "{cover:?}");
    // The same thing keeps its UID; another site's is another.
    let uids = |text: &str| events(text).iter().map(|event| value(event, "UID").to_owned()).collect::<Vec<_>>();
    assert_eq!(uids(&ask(&site, "one").await), uids(&text));
    assert!(uids(&ask(&site, "two").await).iter().all(|uid| !uids(&text).contains(uid)));
    let (status, refused) = served.post("/api/calendar", json!({"site": site, "id": "one", "on": "soon"})).await;
    assert_eq!((status, &refused[0]["path"]), (422, &json!("on")));
}

#[rocket::async_test]
async fn the_list_of_sites_says_when_something_is_due() {
    let served = Served::new().await;
    let (_, made) = served.post("/api/sites", json!({"says": "Kept", "site": kept()})).await;
    let (status, standing) = served.get(&format!("/api/sites/{}/standing", made["site_id"].as_str().unwrap())).await;
    assert_eq!(status, 200);
    let days: Vec<&str> = standing["due"].as_array().unwrap().iter().map(|day| day.as_str().unwrap()).collect();
    assert!(days.is_sorted() && days.contains(&"2027-07-15"), "{days:?}");
}

#[test]
fn what_is_proved_due_and_done_on_the_command_line() {
    let site = kept();
    let (code, out, _) = run(&["prove", "-"], &site.to_string());
    let proved: Value = serde_json::from_str(&out).unwrap();
    assert_eq!((code, proved["done"].as_bool()), (Some(0), Some(false)));
    assert_eq!(proved["promises"].as_array().unwrap().len(), 9);
    let (_, calendar, _) = run(&["due", "-", "--on", "2027-08-01", "--calendar"], &site.to_string());
    assert!(!events(&calendar).is_empty());
    // The sun: Tern Quay says where it is.
    let (_, due, _) = run(&["due", "-", "--on", "2027-08-01"], &site.to_string());
    let due: Value = serde_json::from_str(&due).unwrap();
    let kinds: Vec<&str> = due["items"].as_array().unwrap().iter().map(|item| item["kind"].as_str().unwrap()).collect();
    for kind in ["pictures", "cover", "sun", "playback", "firmware", "password", "joints"] {
        assert!(kinds.contains(&kind), "{kind}: {kinds:?}");
    }
    let (code, _, wrong) = run(&["due", "-", "--on", "2027-13-01"], &site.to_string());
    assert_eq!((code, wrong.as_str()), (Some(2), "--on: \"2027-13-01\" is no day such as 2027-05-30\n"));
    let (_, log, _) = run(&["log", "-"], &site.to_string());
    assert_eq!(log.trim(), "date,by,what,how,found,recordings_days,promised_days");
}
