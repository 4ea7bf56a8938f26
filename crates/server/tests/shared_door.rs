//! The door to the local network: who is let in, and what the certificate is worth. Looked at with curl and openssl, which share no line
//! with what serves it (ours is rustls).

use crate::support::*;
use serde_json::{Value, json};
use std::path::Path;
use std::process::Command;
use tempfile::TempDir;

/// A program that is open on a second loopback address too.
pub struct Open {
    pub running: Running,
    data: TempDir,
    port: u16,
}

/// An answer: its status, its head, its body.
pub struct Answer {
    pub status: u16,
    head: String,
    pub body: String,
}

impl Answer {
    pub fn json(&self) -> Value {
        serde_json::from_str(&self.body).unwrap_or_else(|_| panic!("{}", self.body))
    }

    fn cookie(&self) -> String {
        let line = self.head.lines().find(|line| line.to_lowercase().starts_with("set-cookie:")).unwrap();
        line.split_once(':').unwrap().1.split(';').next().unwrap().trim().to_owned()
    }
}

const ADDRESS: &str = "127.0.0.2";
const NAME: &str = "desk.test";

impl Open {
    pub fn start() -> Open {
        let data = tempfile::tempdir().unwrap();
        let port = std::net::TcpListener::bind("127.0.0.2:0").unwrap().local_addr().unwrap().port();
        let folder = data.path().to_str().unwrap().to_owned();
        let running = Running::with(&[
            "--data",
            &folder,
            "--share",
            "--share-address",
            ADDRESS,
            "--share-name",
            NAME,
            "--share-port",
            &port.to_string(),
        ]);
        let open = Open { running, data, port };
        let began = std::time::Instant::now();
        while open.desk("GET", "/api/share", None).json()["door"]["addresses"] == json!([]) {
            assert!(began.elapsed().as_secs() < 30, "{}", open.desk("GET", "/api/share", None).body);
            std::thread::sleep(std::time::Duration::from_millis(50));
        }
        open
    }

    fn authority(&self) -> std::path::PathBuf {
        self.data.path().join("share/authority.pem")
    }

    /// Asks by the shared door, trusting the authority.
    pub fn ask(&self, method: &str, path: &str, headers: &[&str], body: Option<&Value>) -> Answer {
        let url = format!("https://{ADDRESS}:{}{path}", self.port);
        let authority = self.authority();
        let once = || self.curl(&url, method, headers, body, &["--cacert", authority.to_str().unwrap()]).unwrap();
        // 503: just now it does not go, ask again. On a busy machine the database may be late.
        let mut answers = (0..10).map(|_| once());
        let first_word = answers.find(|answer| answer.status != 503);
        first_word.expect("the server says again and again that it does not go just now")
    }

    /// Asks at the desk.
    pub fn desk(&self, method: &str, path: &str, body: Option<&Value>) -> Answer {
        self.curl(&format!("http://{}{path}", self.running.at), method, &[], body, &[]).unwrap()
    }

    fn curl(&self, url: &str, method: &str, headers: &[&str], body: Option<&Value>, more: &[&str]) -> Option<Answer> {
        let mut asked = Command::new("curl");
        asked.args(["--silent", "--include", "--max-time", "30", "--request", method, url]).args(more);
        for header in headers {
            asked.args(["--header", header]);
        }
        if let Some(body) = body {
            asked.args(["--header", "Content-Type: application/json", "--data-binary", &body.to_string()]);
        }
        let done = asked.output().unwrap();
        let text = String::from_utf8_lossy(&done.stdout).into_owned();
        let (head, body) = text.split_once("\r\n\r\n")?;
        Some(Answer { status: status_of(head)?, head: head.to_owned(), body: body.to_owned() })
    }

    fn code(&self) -> String {
        let code = self.desk("POST", "/api/share/code", Some(&json!(null)));
        assert_eq!(code.status, 201, "{}", code.body);
        code.json()["url"].as_str().unwrap().split_once('#').unwrap().1.to_owned()
    }

    fn pair(&self, code: &str, name: &str) -> Answer {
        self.ask("POST", "/api/pair", &[], Some(&json!({"code": code, "name": name})))
    }

    /// A paired device's cookie, as a header.
    fn paired(&self, name: &str) -> String {
        let answer = self.pair(&self.code(), name);
        assert_eq!(answer.status, 204, "{}", answer.body);
        format!("Cookie: {}", answer.cookie())
    }
}

#[test]
fn who_is_not_paired_gets_the_page_to_pair_at_and_nothing_else() {
    let open = Open::start();
    for path in ["/", "/pair"] {
        let page = open.ask("GET", path, &[], None);
        assert_eq!(page.status, 200);
        assert!(page.body.contains("Pair this device") && !page.body.contains("front end"), "{path}");
        assert!(page.head.contains("content-security-policy: default-src 'none'"), "{}", page.head);
        assert!(page.head.contains("x-content-type-options: nosniff") && page.head.contains("cache-control: no-store"));
    }
    for path in [
        "/api/sites",
        "/api/health",
        "/index.html",
        "/api/catalogue",
        "/api/share",
        "/api/share/me",
        "/api/refused",
        "//api/sites",
    ] {
        assert_eq!(open.ask("GET", path, &[], None).status, 401, "{path}");
    }
    assert_eq!(open.ask("POST", "/api/sites", &[], Some(&creation())).status, 401);
    for forged in
        ["x-bright-angle-peer: 127.0.0.1", "x-bright-angle-peer: nonsense", "Cookie: __Host-bright-angle-device=A"]
    {
        assert_eq!(open.ask("GET", "/api/sites", &[forged], None).status, 401, "{forged}");
    }
    // At the desk nothing has changed.
    assert_eq!(open.desk("GET", "/api/sites", None).status, 200);
    assert_eq!(open.desk("POST", "/api/pair", Some(&json!({"code": "A", "name": "B"}))).status, 404);
}

#[test]
fn a_device_is_paired_once_named_in_the_history_and_ended() {
    let open = Open::start();
    let code = open.code();
    assert_eq!(open.pair("WRONG", "Phone").status, 422);
    assert_eq!(open.pair(&code, "  ").status, 422);
    let paired = open.pair(&code, "Mo\u{2019}s phone");
    assert_eq!(paired.status, 204, "{}", paired.body);
    let set = paired.head.lines().find(|line| line.starts_with("set-cookie")).unwrap();
    for wanted in ["__Host-bright-angle-device=", "HttpOnly", "Secure", "SameSite=Strict", "Path=/"] {
        assert!(set.contains(wanted), "{wanted}: {set}");
    }
    assert_eq!(open.pair(&code, "Another").status, 422, "a code is good once");
    let cookie = format!("Cookie: {}", paired.cookie());
    assert_eq!(open.ask("GET", "/api/share/me", &[&cookie], None).json()["device"], "Mo\u{2019}s phone");
    assert!(open.ask("GET", "/", &[&cookie], None).body.starts_with("<!doctype html> "), "the application");
    // Another does not take the name, and has its code still.
    let second = open.code();
    assert_eq!(open.pair(&second, "MO\u{2019}S PHONE").status, 409);
    assert_eq!(open.pair(&second, "Tablet").status, 204);
    // What it saves goes by its name; what the desk saves by none.
    let kept = open.ask("POST", "/api/sites", &[&cookie], Some(&creation()));
    assert_eq!(kept.status, 201, "{}", kept.body);
    let id = kept.json()["site_id"].as_str().unwrap().to_owned();
    let mut site = demo();
    site["name"] = json!("Renamed");
    let save = json!({"based_on": 1, "says": "Renamed", "site": site});
    assert_eq!(open.desk("PUT", &format!("/api/sites/{id}"), Some(&save)).status, 200);
    let history = open.desk("GET", &format!("/api/sites/{id}/revisions"), None).json();
    assert_eq!((&history[0]["device"], &history[1]["device"]), (&json!(null), &json!("Mo\u{2019}s phone")));
    // A device lets nobody in, and ends nobody.
    for (method, path) in [("GET", "/api/share"), ("PUT", "/api/share"), ("POST", "/api/share/code")] {
        let body = json!({"open": false});
        let body = (method != "GET").then_some(&body);
        assert_eq!(open.ask(method, path, &[&cookie], body).status, 403, "{method} {path}");
    }
    // Ended, the cookie that somebody may have stolen is worth nothing at once.
    let devices = open.desk("GET", "/api/share", None).json()["devices"].clone();
    assert_eq!(devices.as_array().unwrap().len(), 2);
    let phone = devices.as_array().unwrap().iter().find(|device| device["name"] == "Mo\u{2019}s phone").unwrap();
    let path = format!("/api/share/devices/{}", phone["id"].as_str().unwrap());
    assert_eq!(open.ask("DELETE", &path, &[&cookie], Some(&json!(null))).status, 403);
    assert_eq!(open.desk("DELETE", &path, Some(&json!(null))).status, 204);
    assert_eq!(open.desk("DELETE", &path, Some(&json!(null))).status, 404);
    assert_eq!(open.ask("GET", "/api/sites", &[&cookie], None).status, 401);
    assert!(open.ask("GET", "/", &[&cookie], None).body.contains("Pair this device"));
    // What is kept of a secret opens nothing.
    let hash = open.paired("Third");
    assert_eq!(open.ask("GET", "/api/sites", &[&hash], None).status, 200);
}

#[test]
fn a_foreign_page_and_a_wrong_name_get_no_further_than_on_loopback() {
    let open = Open::start();
    let cookie = open.paired("Phone");
    let own = format!("Origin: https://{ADDRESS}:{}", open.port);
    assert_eq!(open.ask("POST", "/api/sites", &[&cookie, &own], Some(&creation())).status, 201);
    for foreign in [
        "Origin: https://elsewhere.example".to_owned(),
        format!("Origin: http://{ADDRESS}:{}", open.port),
        format!("Origin: https://{}", open.running.at),
        "Origin: null".to_owned(),
        "Sec-Fetch-Site: cross-site".to_owned(),
    ] {
        assert_eq!(open.ask("POST", "/api/sites", &[&cookie, &foreign], Some(&creation())).status, 403, "{foreign}");
        assert_eq!(open.ask("POST", "/api/pair", &[&foreign], Some(&json!({"code": "A", "name": "B"}))).status, 403);
    }
    for host in ["Host: rebound.example", "Host: 127.0.0.1:8017", "Host: 127.0.0.2"] {
        assert_eq!(open.ask("GET", "/api/sites", &[&cookie, host], None).status, 421, "{host}");
        assert_eq!(open.ask("GET", "/pair", &[host], None).status, 421, "{host}");
    }
    // Its own name is no name of the loopback door, nor the other way about.
    let name = format!("Host: {NAME}:{}", open.port);
    assert_eq!(open.ask("GET", "/api/sites", &[&cookie, &name], None).status, 200);
    let at = format!("http://{}/api/sites", open.running.at);
    assert_eq!(open.curl(&at, "GET", &[&name], None, &[]).unwrap().status, 421);
    // Nothing comes unencrypted.
    let bare = open.curl(&format!("http://{ADDRESS}:{}/pair", open.port), "GET", &[], None, &[]);
    assert!(bare.is_none_or(|answer| answer.status >= 400));
}

#[test]
fn two_hundred_guesses_are_stopped_after_ten() {
    let open = Open::start();
    let device = open.paired("Phone");
    let code = open.code();
    let found: Vec<u16> = (0..200).map(|i| open.pair(&format!("{i:026}"), "Guesser").status).collect();
    assert_eq!(found.iter().filter(|status| **status == 422).count(), 10);
    assert!(found[10..].iter().all(|status| *status == 429), "{found:?}");
    // The minute is over for who guesses, whatever he says by then; who is paired works on, and so does the desk.
    assert_eq!(open.pair(&code, "Guesser").status, 429);
    assert_eq!(open.ask("GET", "/pair", &[], None).status, 429);
    assert_eq!(open.ask("GET", "/api/sites", &[&device], None).status, 200);
    assert_eq!(open.desk("GET", "/api/sites", None).status, 200);
}

#[test]
fn the_certificate_is_good_for_these_names_and_its_authority_for_no_others() {
    let open = Open::start();
    let authority = open.authority();
    let trusted = ["--cacert", authority.to_str().unwrap()];
    let by_address = format!("https://{ADDRESS}:{}/pair", open.port);
    assert!(open.curl(&by_address, "GET", &[], None, &[]).is_none(), "nobody trusts it unasked");
    assert_eq!(open.curl(&by_address, "GET", &[], None, &trusted).unwrap().status, 200);
    let resolve = format!("{NAME}:{}:{ADDRESS}", open.port);
    let by_name = format!("https://{NAME}:{}/pair", open.port);
    let at_name = [&trusted[..], &["--resolve", &resolve]].concat();
    assert_eq!(open.curl(&by_name, "GET", &[], None, &at_name).unwrap().status, 200);
    let other = format!("other.test:{}:{ADDRESS}", open.port);
    let other_name = format!("https://other.test:{}/pair", open.port);
    assert!(open.curl(&other_name, "GET", &[], None, &[&trusted[..], &["--resolve", &other]].concat()).is_none());
    for version in ["--tlsv1.2", "--tlsv1.3"] {
        let only = [&trusted[..], &[version]].concat();
        assert!(open.curl(&by_address, "GET", &[], None, &only).is_some(), "{version}");
    }
    let old = [&trusted[..], &["--tls-max", "1.1"]].concat();
    assert!(open.curl(&by_address, "GET", &[], None, &old).is_none(), "TLS 1.1 is over (RFC 8996)");
    // Who gets at the authority's key signs with it for nobody else.
    let folder = open.data.path().join("share");
    let pem = std::fs::read_to_string(&authority).unwrap();
    let key = std::fs::read_to_string(folder.join("authority.key")).unwrap();
    let sign = |name: &str| {
        let issuer = rcgen::Issuer::from_ca_cert_pem(&pem, rcgen::KeyPair::from_pem(&key).unwrap()).unwrap();
        let key = rcgen::KeyPair::generate().unwrap();
        let mut params = rcgen::CertificateParams::new(vec![name.to_owned()]).unwrap();
        params.distinguished_name = rcgen::DistinguishedName::new();
        params.distinguished_name.push(rcgen::DnType::CommonName, "Anybody");
        params.use_authority_key_identifier_extension = true;
        let made = params.signed_by(&key, &issuer).unwrap();
        let path = open.data.path().join("signed.pem");
        std::fs::write(&path, made.pem()).unwrap();
        verified(&authority, &path)
    };
    assert!(verified(&authority, &folder.join("server.pem")));
    assert!(sign(NAME) && sign(ADDRESS));
    for foreign in ["bank.example", "127.0.0.3", "192.168.1.1", "example", "fd00::1"] {
        assert!(!sign(foreign), "{foreign}");
    }
}

fn verified(authority: &Path, certificate: &Path) -> bool {
    let done =
        Command::new("openssl").args(["verify", "-x509_strict", "-CAfile"]).arg(authority).arg(certificate).output();
    done.unwrap().status.success()
}

#[test]
fn it_closes_and_opens_under_the_hand_and_keeps_who_was_paired() {
    let open = Open::start();
    let cookie = open.paired("Phone");
    let sees = |wanted: bool| {
        let began = std::time::Instant::now();
        let url = format!("https://{ADDRESS}:{}/pair", open.port);
        while open.curl(&url, "GET", &[], None, &["--insecure"]).is_some() != wanted {
            assert!(began.elapsed().as_secs() < 30);
            std::thread::sleep(std::time::Duration::from_millis(50));
        }
    };
    assert_eq!(open.desk("PUT", "/api/share", Some(&json!({"open": false}))).status, 204);
    sees(false);
    assert_eq!(open.desk("POST", "/api/share/code", Some(&json!(null))).status, 409);
    assert_eq!(open.desk("GET", "/api/sites", None).status, 200);
    assert_eq!(open.desk("PUT", "/api/share", Some(&json!({"open": true}))).status, 204);
    sees(true);
    assert_eq!(open.ask("GET", "/api/sites", &[&cookie], None).status, 200, "who was paired is paired");
    assert_eq!(open.desk("PUT", "/api/share", Some(&json!({"opens": true}))).status, 422);
    // What it keeps is its owner's alone.
    use std::os::unix::fs::PermissionsExt;
    let mode = |path: &Path| std::fs::metadata(path).unwrap().permissions().mode() & 0o777;
    let folder = open.data.path().join("share");
    assert_eq!((mode(&folder), mode(&folder.join("authority.key"))), (0o700, 0o600));
}
