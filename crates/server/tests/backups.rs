//! Backups: everything is lost in between, and comes back.

use crate::support::*;
use bright_angle::store::{Counted, Draft, Store, back_up, restore};
use bright_angle_core::Site;
use rocket::http::ContentType;
use serde_json::{Value, json};
use std::path::{Path, PathBuf};
use uuid::Uuid;

fn png() -> Vec<u8> {
    let mut out = std::io::Cursor::new(Vec::new());
    image::DynamicImage::new_rgb8(9, 7).write_to(&mut out, image::ImageFormat::Png).unwrap();
    out.into_inner()
}

/// A server with a site of two revisions, one named, a photo, and a site that was deleted.
async fn full() -> (Served, String) {
    let served = Served::new().await;
    let (_, head) = served.picture(ContentType::PNG, png()).await;
    let mut site = demo();
    site["targets"][0]["photos"] = json!([{"picture": head["name"]}]);
    let (_, made) = served.post("/api/sites", json!({"says": "New site", "site": site})).await;
    let path = format!("/api/sites/{}", made["site_id"].as_str().unwrap());
    site["name"] = json!("Second");
    // By a device, whose name stays with it.
    let store = Store::open(&served.database_url).await.unwrap();
    let id = Uuid::parse_str(made["site_id"].as_str().unwrap()).unwrap();
    let draft = Draft { site: &Site::parse(&site.to_string()).unwrap(), says: "Rename", device: Some("Roof phone") };
    store.save(id, 1, &draft).await.unwrap();
    let own = json!({"format": "bright-angle/catalogue", "version": 1, "currency": "EUR", "models": []});
    let own = json!({"based_on": 0, "says": "Prices", "catalogue": own});
    assert_eq!(served.put("/api/catalogue/own", own).await.0, 200);
    let named = json!({"name": "First offer", "agreed": true});
    assert_eq!(served.put(&format!("{path}/revisions/1/name"), named).await.0, 204);
    let (_, gone) = served.post("/api/sites", creation()).await;
    let gone = format!("/api/sites/{}", gone["site_id"].as_str().unwrap());
    assert_eq!(served.delete(&gone, json!({"name": demo()["name"]})).await.0, 204);
    (served, path)
}

async fn told(served: &Served, path: &str, picture: &str) -> Vec<(u16, Value)> {
    let mut found = Vec::new();
    for asked in ["/api/sites", path, &format!("{path}/revisions"), &format!("{path}/revisions/1"), picture] {
        found.push(served.get(asked).await);
    }
    found
}

async fn empty() -> (Served, Store) {
    let served = Served::new().await;
    let store = Store::open(&served.database_url).await.unwrap();
    (served, store)
}

async fn backed_up(served: &Served, folder: &Path) -> PathBuf {
    let store = Store::open(&served.database_url).await.unwrap();
    let target = folder.join("backup");
    let counted = back_up(&store, &target).await.unwrap();
    assert_eq!(counted, Counted { sites: 2, revisions: 2, pictures: 1 });
    target
}

/// As a program wrote it that knew no digests.
fn without_digests(backup: &Path) {
    let path = backup.join("manifest.json");
    let mut manifest: Value = serde_json::from_str(&std::fs::read_to_string(&path).unwrap()).unwrap();
    manifest.as_object_mut().unwrap().remove("files").unwrap();
    std::fs::write(&path, manifest.to_string()).unwrap();
}

#[rocket::async_test]
async fn what_was_lost_comes_back_from_a_backup_as_it_was() {
    let (served, path) = full().await;
    let photo = served.get(&path).await.1["site"]["targets"][0]["photos"][0]["picture"].as_str().unwrap().to_owned();
    let picture = format!("/api/pictures/{photo}");
    let before = told(&served, &path, &picture).await;
    let folder = tempfile::tempdir().unwrap();
    let backup = backed_up(&served, folder.path()).await;
    // All is lost: another database knows nothing of it.
    let (again, store) = empty().await;
    assert_eq!(again.get(&path).await.0, 404);
    restore(&store, &backup).await.unwrap();
    assert_eq!(told(&again, &path, &picture).await, before);
    assert_eq!(again.get(&format!("{path}/revisions")).await.1[0]["device"], "Roof phone");
    assert_eq!(again.get("/api/catalogue/own").await.1["catalogue"]["currency"], "EUR");
    // Work goes on, and nothing is restored over it.
    assert_eq!(again.put(&path, json!({"based_on": 2, "says": "On", "site": demo()})).await.0, 200);
    let refused = restore(&store, &backup).await.unwrap_err().to_string();
    assert!(refused.contains("holds sites already"), "{refused}");
    let refused = back_up(&store, &backup).await.unwrap_err().to_string();
    assert!(refused.contains("is there already"), "{refused}");
}

#[rocket::async_test]
async fn a_backup_of_an_older_program_goes_into_a_newer_one() {
    let (served, path) = full().await;
    let folder = tempfile::tempdir().unwrap();
    let backup = backed_up(&served, folder.path()).await;
    // As a program would have written it before revisions had names and sites were deleted, and before drawings and spots.
    let site = path.rsplit('/').next().unwrap();
    let file = backup.join("sites").join(format!("{site}.jsonl"));
    let lines: Vec<String> = std::fs::read_to_string(&file)
        .unwrap()
        .lines()
        .map(|line| {
            let mut line: Value = serde_json::from_str(line).unwrap();
            for later in ["name", "agreed", "deleted_at"] {
                if later != "name" || line.get("file").is_some() {
                    line.as_object_mut().unwrap().remove(later);
                }
            }
            if let Some(file) = line.get_mut("file").and_then(Value::as_object_mut) {
                ["spots", "readings", "brief", "drawing", "rules"].iter().for_each(|later| drop(file.remove(*later)));
                for camera in file["cameras"].as_array_mut().unwrap() {
                    camera.as_object_mut().unwrap().remove("spot");
                }
                for target in file["targets"].as_array_mut().unwrap() {
                    target.as_object_mut().unwrap().remove("distance");
                }
            }
            line.to_string()
        })
        .collect();
    std::fs::write(&file, lines.join("\n")).unwrap();
    without_digests(&backup);
    let manifest = backup.join("manifest.json");
    let text = std::fs::read_to_string(&manifest).unwrap();
    std::fs::write(&manifest, text.replace(env!("CARGO_PKG_VERSION"), "0.0.1")).unwrap();

    let (again, store) = empty().await;
    restore(&store, &backup).await.unwrap();
    let (status, newest) = again.get(&path).await;
    assert_eq!((status, &newest["site"]["name"], &newest["site"]["spots"]), (200, &json!("Second"), &Value::Null));
    assert_eq!(again.get(&format!("{path}/revisions")).await.1[1]["name"], Value::Null);
}

#[rocket::async_test]
async fn a_damaged_backup_is_refused_whole() {
    let (served, path) = full().await;
    let folder = tempfile::tempdir().unwrap();
    let backup = backed_up(&served, folder.path()).await;
    let site = backup.join("sites").join(format!("{}.jsonl", path.rsplit('/').next().unwrap()));
    let picture = std::fs::read_dir(backup.join("pictures")).unwrap().next().unwrap().unwrap().path();
    let (again, store) = empty().await;
    let spoil = |file: &Path, spoilt: Vec<u8>| {
        let good = std::fs::read(file).unwrap();
        std::fs::write(file, spoilt).unwrap();
        let file = file.to_owned();
        move || std::fs::write(file, good).unwrap()
    };
    let text = std::fs::read_to_string(&site).unwrap();
    let lines: Vec<&str> = text.lines().collect();
    // Whatever is changed, by a single letter: the digest tells.
    for file in [&picture, &site] {
        let mut changed = std::fs::read(file).unwrap();
        let last = changed.len() / 2;
        changed[last] ^= 1;
        let mend = spoil(file, changed);
        let refused = restore(&store, &backup).await.unwrap_err().to_string();
        assert!(refused.contains("is damaged") && refused.contains(file.to_str().unwrap()), "{refused}");
        mend();
    }
    // And where there are none, what does not hold together.
    without_digests(&backup);
    let head = |field: &str, value: Value| {
        let mut line: Value = serde_json::from_str(lines[0]).unwrap();
        line[field] = value;
        format!("{line}\n{}\n{}\n", lines[1], lines[2]).into_bytes()
    };
    let last = |field: &str, value: Value| {
        let mut line: Value = serde_json::from_str(lines[2]).unwrap();
        line[field] = value;
        format!("{}\n{}\n{line}\n", lines[0], lines[1]).into_bytes()
    };
    let nothing = image_of(70_000);
    let cases: Vec<(&Path, Vec<u8>, &str)> = vec![
        (&picture, b"other bytes".to_vec(), "digest"),
        // What would make a site that nobody can save any more.
        (&site, last("number", json!(2_147_483_647)), "out of order"),
        (&site, last("number", json!(1)), "out of order"),
        (&site, last("saved_at", json!("9999-01-01T00:00:00Z")), "time to come"),
        (&site, last("says", json!("x".repeat(1 << 20))), "200 characters"),
        (&site, head("name", json!("x".repeat(1 << 20))), "200 characters"),
        (&site, head("revision", json!(2_147_483_647)), "none that others could follow"),
        (&site, head("revision", json!(1)), "is missing"),
        (&site, head("saved_at", json!("9999-01-01T00:00:00Z")), "time to come"),
        (&site, lines[..2].join("\n").into_bytes(), "is missing"),
        (&site, format!("{}\n{{", lines[0]).into_bytes(), "line 2"),
        (&site, text.replace("\"height_m\":3.6", "\"height_m\":\"high\"").into_bytes(), "height_m"),
    ];
    for (file, spoilt, says) in cases {
        let mend = spoil(file, spoilt);
        let refused = restore(&store, &backup).await.expect_err(says).to_string();
        assert!(refused.contains(says) && refused.contains(file.to_str().unwrap()), "{refused}");
        assert_eq!(again.get("/api/sites").await.1["total"], 0);
        mend();
    }
    // A picture that an upload would be refused for; a pipe, which never ends.
    let large = backup.join("pictures").join(bright_angle::picture::digest(&nothing));
    std::fs::write(&large, &nothing).unwrap();
    assert!(restore(&store, &backup).await.is_err());
    std::fs::remove_file(&large).unwrap();
    let pipe = backup.join("sites").join("pipe.jsonl");
    assert!(std::process::Command::new("mkfifo").arg(&pipe).status().unwrap().success());
    let refused = restore(&store, &backup).await.unwrap_err().to_string();
    assert!(refused.contains("is no file"), "{refused}");
    std::fs::remove_file(&pipe).unwrap();
    assert_eq!(again.get("/api/sites").await.1["total"], 0);
    restore(&store, &backup).await.unwrap();
}

/// A PNG that says it is so many pixels wide and tall, and holds none of them.
fn image_of(side: u32) -> Vec<u8> {
    let mut bytes = png();
    bytes[16..20].copy_from_slice(&side.to_be_bytes());
    bytes[20..24].copy_from_slice(&side.to_be_bytes());
    bytes
}

#[rocket::async_test]
async fn a_backup_is_its_owners_alone_and_deletes_nothing_of_others() {
    use std::os::unix::fs::PermissionsExt;
    let (served, _) = full().await;
    let folder = tempfile::tempdir().unwrap();
    // What somebody else calls as an older program called its own beginnings.
    let theirs = folder.path().join("backup.new");
    std::fs::create_dir(&theirs).unwrap();
    std::fs::write(theirs.join("letter"), "mine").unwrap();
    let backup = backed_up(&served, folder.path()).await;
    assert_eq!(std::fs::read_to_string(theirs.join("letter")).unwrap(), "mine");
    let mode = |path: &Path| std::fs::metadata(path).unwrap().permissions().mode() & 0o777;
    for part in [backup.clone(), backup.join("sites"), backup.join("pictures")] {
        assert_eq!(mode(&part), 0o700, "{}", part.display());
        for entry in std::fs::read_dir(&part).unwrap() {
            let path = entry.unwrap().path();
            assert_eq!(mode(&path), if path.is_dir() { 0o700 } else { 0o600 }, "{}", path.display());
        }
    }
    // A folder that is there already is refused, and nothing half-made is left beside it.
    let store = Store::open(&served.database_url).await.unwrap();
    assert!(back_up(&store, &backup).await.is_err());
    assert_eq!(std::fs::read_dir(folder.path()).unwrap().count(), 2);
    // A manifest that names what lies elsewhere.
    let (_, empty) = empty().await;
    let path = backup.join("manifest.json");
    let mut manifest: Value = serde_json::from_str(&std::fs::read_to_string(&path).unwrap()).unwrap();
    manifest["files"]["sites/../../secret"] = json!("0");
    std::fs::write(&path, manifest.to_string()).unwrap();
    assert!(restore(&empty, &backup).await.unwrap_err().to_string().contains("not in it"));
}
