//! Agreeing by a link, from outside: what whoever has it sees, what whoever has not, and that it is good once. Asked with curl.

use crate::shared_door::{Answer, Open};
use crate::support::*;
use serde_json::{Value, json};
use sqlx::Connection;

/// The smallest PNG there is: one pixel (made with Python's zlib).
const PIXEL: &str = "data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAAAAAA6fptVAAAACklEQVR4nGNgAAAAAgABSK+kcQAAAABJRU5ErkJggg==";

fn asked() -> Value {
    json!({"days": 14, "shown": "a".repeat(64), "sheet": {
        "site": "<b>Quay</b>", "heading": "for nobody", "conditions": "by day", "promises": ["Gate: be read"],
        "views": [{"name": "C1", "what_for": "reads plates", "picture": PIXEL}],
        "does_not": ["hear"], "privacy": [], "costs": "EUR 10"}})
}

struct Site {
    open: Open,
    id: String,
}

impl Site {
    fn new() -> Site {
        let open = Open::start();
        let made = open.desk("POST", "/api/sites", Some(&creation())).json();
        Site { id: made["site_id"].as_str().unwrap().to_owned(), open }
    }

    fn links(&self) -> String {
        format!("/api/sites/{}/links", self.id)
    }

    /// A new link: its id and its secret.
    fn link(&self) -> (String, String) {
        let made = self.open.desk("POST", &self.links(), Some(&asked()));
        assert_eq!(made.status, 201, "{}", made.body);
        let made = made.json();
        let (page, secret) = made["url"].as_str().unwrap().split_once('#').unwrap();
        assert!(page.ends_with("/sign"), "{page}");
        (made["link"]["id"].as_str().unwrap().to_owned(), secret.to_owned())
    }

    fn look(&self, secret: &str) -> Answer {
        self.open.ask("POST", "/api/sign/look", &[], Some(&json!({"secret": secret})))
    }

    fn sign(&self, secret: &str, name: &str, signature: &Value) -> Answer {
        let body = json!({"secret": secret, "name": name, "signature": signature});
        self.open.ask("POST", "/api/sign", &[], Some(&body))
    }
}

#[test]
fn whoever_has_it_sees_the_sheet_and_signs_once() {
    let site = Site::new();
    let (id, secret) = site.link();
    // 256 bits in base 32 (RFC 4648): 52 letters.
    assert_eq!(secret.len(), 52);
    for path in ["/sign", "/sign.js"] {
        assert_eq!(site.open.ask("GET", path, &[], None).status, 200, "{path}");
    }
    let shown = site.look(&secret).json();
    assert_eq!((&shown["sheet"], &shown["signed_name"]), (&asked()["sheet"], &Value::Null));
    let strokes = json!([[[0.1, 0.2], [0.3, 0.4]]]);
    for (name, strokes, place) in [
        ("", &strokes, "name"),
        ("A\nB", &strokes, "name"),
        (&*"n".repeat(301), &strokes, "name"),
        ("Mo", &json!([]), "signature"),
        ("Mo", &json!([[]]), "signature"),
        ("Mo", &json!([[[0.1, 1.2]]]), "signature"),
    ] {
        let refused = site.sign(&secret, name, strokes);
        assert_eq!((refused.status, refused.json()[0]["path"].as_str()), (422, Some(place)), "{}", refused.body);
    }
    assert_eq!(site.sign(&secret, "Mo", &strokes).status, 204);
    // Sent again, by whomever, it changes nothing and says so.
    let again = site.sign(&secret, "Somebody else", &strokes);
    assert_eq!((again.status, again.json()[0]["message"].as_str()), (409, Some("this was signed already, by Mo")));
    assert_eq!(site.look(&secret).json()["signed_name"], json!("Mo"));
    let links = site.open.desk("GET", &site.links(), None).json();
    assert_eq!((&links[0]["id"], &links[0]["signed_name"]), (&json!(id), &json!("Mo")));
    assert_eq!(links[0]["signature"], strokes);
    // The site itself is as it was.
    let newest = site.open.desk("GET", &format!("/api/sites/{}", site.id), None).json();
    assert_eq!((newest["number"].as_i64(), newest["site"].get("agreements")), (Some(1), None));
}

#[test]
fn guessed_ended_or_over_it_shows_nothing() {
    let site = Site::new();
    let (id, secret) = site.link();
    let guessed = site.look(&"A".repeat(52));
    assert_eq!((guessed.status, guessed.json()[0]["message"].as_str()), (404, Some("this is no link to agree by")));
    assert_eq!(site.look("' or 1=1 --\u{0}").status, 404);
    let path = format!("{}/{id}", site.links());
    assert_eq!(site.open.desk("DELETE", &path, Some(&json!(null))).status, 204);
    assert_eq!(site.open.desk("DELETE", &path, Some(&json!(null))).status, 404);
    assert_eq!(site.look(&secret).status, 410);
    assert_eq!(site.sign(&secret, "Mo", &json!([[[0.1, 0.2]]])).status, 410);
    let (_, late) = site.link();
    let runtime = tokio::runtime::Runtime::new().unwrap();
    runtime.block_on(async {
        let mut owner = sqlx::PgConnection::connect(&site.open.running.owner).await.unwrap();
        let over = "update sign_link set made_at = now() - interval '15 days', ends_at = now() - interval '1 second'
            where ended_at is null";
        assert_eq!(sqlx::query(over).execute(&mut owner).await.unwrap().rows_affected(), 1);
    });
    let over = site.look(&late);
    assert_eq!((over.status, over.body.contains("ask for a new one"), over.body.contains("Quay")), (410, true, false));
    assert_eq!(site.sign(&late, "Mo", &json!([[[0.1, 0.2]]])).status, 410);
    // Who guesses is stopped, whatever he guesses at then.
    let (_, good) = site.link();
    assert!((0..20).map(|guess| site.look(&format!("{guess:052}")).status).any(|status| status == 429));
    assert_eq!(site.look(&good).status, 429);
}

#[test]
fn it_is_reached_by_the_door_alone_and_from_its_own_page() {
    let site = Site::new();
    let (_, secret) = site.link();
    let body = json!({"secret": secret});
    // At the desk there is no such page; and by the door nobody makes, lists or ends one.
    for path in ["/sign", "/sign.js"] {
        assert_eq!(site.open.desk("GET", path, None).status, 404, "{path}");
    }
    assert_eq!(site.open.desk("POST", "/api/sign/look", Some(&body)).status, 404);
    for (method, body) in [("POST", Some(asked())), ("GET", None), ("DELETE", Some(json!(null)))] {
        let status = site.open.ask(method, &site.links(), &[], body.as_ref()).status;
        assert_eq!(status, 401, "{method}");
    }
    for foreign in ["Origin: https://elsewhere.example", "Sec-Fetch-Site: cross-site", "Origin: null"] {
        assert_eq!(site.open.ask("POST", "/api/sign/look", &[foreign], Some(&body)).status, 403, "{foreign}");
    }
    assert_eq!(site.open.ask("POST", "/api/sign/look", &["Host: rebound.example"], Some(&body)).status, 421);
    // What cannot be a sheet makes no link.
    for (place, value, path) in [
        ("/days", json!(0), "days"),
        ("/days", json!(91), "days"),
        ("/shown", json!("A"), "shown"),
        ("/sheet/views/0/picture", json!("https://elsewhere.example/a.png"), "sheet.views[0].picture"),
        ("/sheet/views/0/picture", json!("data:text/html;base64,PGI+"), "sheet.views[0].picture"),
        ("/sheet/views/0/picture", json!("data:image/png;base64,%%"), "sheet.views[0].picture"),
    ] {
        let mut wrong = asked();
        *wrong.pointer_mut(place).unwrap() = value;
        let refused = site.open.desk("POST", &site.links(), Some(&wrong));
        assert_eq!((refused.status, refused.json()[0]["path"].as_str()), (422, Some(path)), "{}", refused.body);
    }
    // With the door closed there is nowhere for one to lead; with its site deleted it shows nothing.
    let delete = json!({"name": demo()["name"]});
    assert_eq!(site.open.desk("DELETE", &format!("/api/sites/{}", site.id), Some(&delete)).status, 204);
    assert_eq!(site.look(&secret).status, 404);
    assert_eq!(site.open.desk("POST", &site.links(), Some(&asked())).status, 410);
    assert_eq!(site.open.desk("PUT", "/api/share", Some(&json!({"open": false}))).status, 204);
    assert_eq!(site.open.desk("POST", &site.links(), Some(&asked())).status, 409);
}

#[test]
fn a_revision_that_was_agreed_to_has_a_name_that_keeps_it() {
    let site = Site::new();
    let path = format!("/api/sites/{}", site.id);
    let mut file = demo();
    file["agreements"] = json!([{"id": "a1", "name": "Mo", "date": "2026-11-30", "by": "tablet",
        "signature": [[[0.1, 0.2]]], "promises": [], "targets": [], "cameras": []}]);
    let saved = site.open.desk("PUT", &path, Some(&json!({"based_on": 1, "says": "Agreed by Mo", "site": file})));
    assert_eq!(saved.status, 200, "{}", saved.body);
    file["name"] = json!("Later");
    let later = site.open.desk("PUT", &path, Some(&json!({"based_on": 2, "says": "Name", "site": file})));
    assert_eq!(later.status, 200, "{}", later.body);
    let revisions = site.open.desk("GET", &format!("{path}/revisions"), None).json();
    let names: Vec<&Value> = revisions.as_array().unwrap().iter().map(|revision| &revision["name"]).collect();
    assert_eq!(names, [&Value::Null, &json!("Agreed by Mo"), &Value::Null]);
    assert_eq!(revisions[1]["agreed"], json!(true));
}
