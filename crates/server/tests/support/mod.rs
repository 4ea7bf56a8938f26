//! A PostgreSQL cluster of the tests' own, and a server on one of its databases.
#![allow(dead_code)]

use bright_angle::api::{LONGEST, Settings, bare, build};
use bright_angle::front::{Clients, STALLED};
use bright_angle::share::Sharing;
use bright_angle::store::Store;
use rocket::http::{ContentType, Header};
use rocket::local::asynchronous::Client;
use serde_json::{Value, json};
use sqlx::Connection;
use std::io::{Read, Write};
use std::net::{SocketAddr, TcpListener, TcpStream};
use std::os::unix::fs::PermissionsExt;
use std::path::{Path, PathBuf};
use std::process::{Child, Command, Stdio};
use std::sync::{Arc, Mutex, Weak};
use std::time::{Duration, Instant};
use tempfile::TempDir;

/// A running cluster; it is stopped when the last test lets go of it.
pub struct Cluster {
    folder: TempDir,
    pub port: u16,
}

static SHARED: Mutex<Weak<Cluster>> = Mutex::new(Weak::new());

impl Cluster {
    /// The cluster that tests share.
    pub fn shared() -> Arc<Cluster> {
        let mut shared = SHARED.lock().unwrap_or_else(std::sync::PoisonError::into_inner);
        shared.upgrade().unwrap_or_else(|| {
            let cluster = Arc::new(Cluster::start());
            *shared = Arc::downgrade(&cluster);
            cluster
        })
    }

    /// A cluster for one test alone.
    pub fn start() -> Cluster {
        let folder = tempfile::tempdir().unwrap();
        // The server may run as another user than the tests.
        std::fs::set_permissions(folder.path(), std::fs::Permissions::from_mode(0o755)).unwrap();
        let port = TcpListener::bind("127.0.0.1:0").unwrap().local_addr().unwrap().port();
        let cluster = Cluster { folder, port };
        cluster.up();
        cluster
    }

    pub fn up(&self) {
        self.tool(&["start", &self.folder(), &self.port.to_string()]);
    }

    pub fn down(&self) {
        self.tool(&["stop", &self.folder()]);
    }

    fn tool(&self, args: &[&str]) -> String {
        let done = Command::new(root().join("tools/cluster")).args(args).output().unwrap();
        assert!(done.status.success(), "{}", String::from_utf8_lossy(&done.stderr));
        String::from_utf8(done.stdout).unwrap().trim().to_owned()
    }

    fn folder(&self) -> String {
        self.folder.path().join("pg").to_str().unwrap().to_owned()
    }

    /// The address of a new, empty database for the server's role, its tables up to date.
    pub async fn database(&self) -> String {
        let url = self.bare_database();
        Store::migrate(&self.owner_of(&url)).await.unwrap();
        url
    }

    /// The same without tables.
    pub fn bare_database(&self) -> String {
        self.tool(&["database", &self.folder(), &format!("t{}", uuid::Uuid::new_v4().simple())])
    }

    /// The address of a database for the owner of its tables.
    pub fn owner_of(&self, url: &str) -> String {
        self.tool(&["owner", &self.folder(), url.rsplit('/').next().unwrap()])
    }

    /// A connection as the owner of a database's tables.
    pub async fn owner(&self, url: &str) -> sqlx::PgConnection {
        sqlx::PgConnection::connect(&self.owner_of(url)).await.unwrap()
    }
}

impl Drop for Cluster {
    fn drop(&mut self) {
        self.down();
    }
}

/// The project's folder.
pub fn root() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../..")
}

/// A server on a new database of the shared cluster.
pub struct Served {
    pub client: Client,
    pub database_url: String,
    web: TempDir,
    cluster: Option<Arc<Cluster>>,
}

impl Served {
    pub async fn new() -> Served {
        let cluster = Cluster::shared();
        let mut served = Served::on(&cluster).await;
        served.cluster = Some(cluster);
        served
    }

    pub async fn on(cluster: &Cluster) -> Served {
        // Nobody listens on the discard port of loopback.
        Served::with_rangefinder(cluster, ([127, 0, 0, 1], 9).into()).await
    }

    pub async fn with_rangefinder(cluster: &Cluster, rangefinder: std::net::SocketAddr) -> Served {
        Served::over(cluster.database().await, rangefinder).await
    }

    /// A server on a database that is there already.
    pub async fn over(database_url: String, rangefinder: std::net::SocketAddr) -> Served {
        Served::patient(database_url, rangefinder, LONGEST).await
    }

    /// One whose computations may take only so long.
    pub async fn patient(database_url: String, rangefinder: std::net::SocketAddr, longest: Duration) -> Served {
        Served::told(database_url, |settings| (settings.rangefinder, settings.longest) = (rangefinder, longest)).await
    }

    /// One with other settings.
    pub async fn told(database_url: String, change: impl FnOnce(&mut Settings)) -> Served {
        let store = Store::open(&database_url).await.unwrap();
        let web = tempfile::tempdir().unwrap();
        std::fs::write(web.path().join("index.html"), "<!doctype html><title>front end</title>").unwrap();
        let mut settings = settings(&database_url, web.path());
        change(&mut settings);
        let store = store.with_reserve(settings.reserve.clone());
        let client =
            Client::tracked(build(&settings, HERE.into(), store, Clients::default(), Sharing::new(None)).unwrap())
                .await
                .unwrap();
        Served { client, database_url, web, cluster: None }
    }

    /// The same routes without the look at each request before them.
    pub async fn bare(&self) -> Client {
        let store = Store::open(&self.database_url).await.unwrap();
        let settings = settings(&self.database_url, self.web.path());
        Client::tracked(bare(&settings, HERE.into(), store, Clients::default(), Sharing::new(None)).unwrap())
            .await
            .unwrap()
    }

    pub async fn get(&self, path: &str) -> (u16, Value) {
        read(self.client.get(path.to_owned()).header(host()).dispatch().await).await
    }

    pub async fn post(&self, path: &str, body: impl ToString) -> (u16, Value) {
        let asked = self.client.post(path.to_owned()).header(host()).header(ContentType::JSON);
        read(asked.body(body.to_string()).dispatch().await).await
    }

    pub async fn put(&self, path: &str, body: impl ToString) -> (u16, Value) {
        let asked = self.client.put(path.to_owned()).header(host()).header(ContentType::JSON);
        read(asked.body(body.to_string()).dispatch().await).await
    }

    pub async fn delete(&self, path: &str, body: impl ToString) -> (u16, Value) {
        let asked = self.client.delete(path.to_owned()).header(host()).header(ContentType::JSON);
        read(asked.body(body.to_string()).dispatch().await).await
    }

    /// Sends a picture.
    pub async fn picture(&self, kind: ContentType, bytes: Vec<u8>) -> (u16, Value) {
        read(self.client.post("/api/pictures").header(host()).header(kind).body(bytes).dispatch().await).await
    }
}

/// Where the served are.
const HERE: ([u8; 4], u16) = ([127, 0, 0, 1], 8017);

fn settings(database_url: &str, web: &Path) -> Settings {
    Settings {
        port: HERE.1,
        address: HERE.0.into(),
        database_url: database_url.to_owned(),
        web: web.to_owned(),
        demo: None,
        rangefinder: ([127, 0, 0, 1], 9).into(),
        switch: ([127, 0, 0, 1], 9).into(),
        cameras: ([127, 0, 0, 1], 9).into(),
        longest: LONGEST,
        stalled: STALLED,
        reserve: None,
        share: None,
        program: env!("CARGO_BIN_EXE_bright-angle").into(),
    }
}

async fn read(response: rocket::local::asynchronous::LocalResponse<'_>) -> (u16, Value) {
    let status = response.status().code;
    let text = response.into_string().await.unwrap_or_default();
    (status, serde_json::from_str(&text).unwrap_or(Value::String(text)))
}

/// The name that the server goes by.
pub fn host() -> Header<'static> {
    Header::new("Host", "127.0.0.1:8017")
}

/// The demo's site file.
pub fn demo() -> Value {
    serde_json::from_str(include_str!("../../../../demo/tern-quay.json")).unwrap()
}

/// A new site's request.
pub fn creation() -> Value {
    json!({"says": "New site", "site": demo()})
}

/// The program, serving.
pub struct Running {
    pub child: Child,
    /// The address of its database, for the owner of the tables.
    pub owner: String,
    asker: Asker,
    _web: tempfile::TempDir,
    _cluster: Arc<Cluster>,
}

impl Running {
    pub fn start() -> Running {
        Running::with(&[])
    }

    /// One that is told more.
    pub fn with(more: &[&str]) -> Running {
        let cluster = Cluster::shared();
        let url = cluster.bare_database();
        let owner = cluster.owner_of(&url);
        let migrated = Command::new(env!("CARGO_BIN_EXE_bright-angle"))
            .args(["migrate", "--database-url", &owner])
            .output()
            .unwrap();
        assert!(migrated.status.success(), "{}", String::from_utf8_lossy(&migrated.stderr));
        let web = tempfile::tempdir().unwrap();
        std::fs::write(web.path().join("index.html"), format!("<!doctype html>{}", " ".repeat(4000))).unwrap();
        let at = TcpListener::bind("127.0.0.1:0").unwrap().local_addr().unwrap();
        let child = Command::new(env!("CARGO_BIN_EXE_bright-angle"))
            .args(["serve", "--port", &at.port().to_string(), "--database-url", &url])
            .arg("--web")
            .arg(web.path())
            .args(more)
            .stderr(Stdio::inherit())
            .spawn()
            .unwrap();
        let running = Running { child, owner, asker: Asker { at }, _web: web, _cluster: cluster };
        let began = Instant::now();
        while running.status("GET", "/api/health", "", "").is_none() {
            assert!(began.elapsed() < Duration::from_secs(30), "the server did not start");
            std::thread::sleep(Duration::from_millis(50));
        }
        running
    }

    /// Somebody who asks from another thread.
    pub fn asker(&self) -> Asker {
        self.asker
    }

    pub fn healthy(&self) -> bool {
        self.status("GET", "/api/health", "", "") == Some(200)
    }
}

pub fn status_of(answer: &str) -> Option<u16> {
    answer.split(' ').nth(1)?.parse().ok()
}

impl std::ops::Deref for Running {
    type Target = Asker;

    fn deref(&self) -> &Asker {
        &self.asker
    }
}

/// Asks a server over a connection of its own each time.
#[derive(Clone, Copy)]
pub struct Asker {
    pub at: SocketAddr,
}

impl Asker {
    pub fn open(&self) -> Option<TcpStream> {
        let stream = TcpStream::connect(self.at).ok()?;
        stream.set_read_timeout(Some(Duration::from_secs(40))).ok()?;
        Some(stream)
    }

    pub fn head(&self, method: &str, path: &str, headers: &str, length: usize) -> String {
        let at = self.at;
        format!(
            "{method} {path} HTTP/1.1\r\nHost: {at}\r\nContent-Type: application/json\r\nContent-Length: {length}\r\n{headers}\r\n"
        )
    }

    /// The whole answer to a request, head and body.
    pub fn ask(&self, method: &str, path: &str, headers: &str, body: &str) -> Option<String> {
        let mut stream = self.open()?;
        let head = self.head(method, path, &format!("Connection: close\r\n{headers}"), body.len());
        stream.write_all(head.as_bytes()).ok()?;
        stream.write_all(body.as_bytes()).ok()?;
        let mut answer = Vec::new();
        stream.read_to_end(&mut answer).ok()?;
        Some(String::from_utf8_lossy(&answer).into_owned())
    }

    pub fn status(&self, method: &str, path: &str, headers: &str, body: &str) -> Option<u16> {
        status_of(&self.ask(method, path, headers, body)?)
    }
}

impl Drop for Running {
    fn drop(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}
