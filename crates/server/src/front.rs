//! The door to the port: what is slow or silent is dropped here, and whoever leaves is noticed.
//!
//! Rocket sets no time for a request's head and does not tell its handlers when a client goes away. So the port is hyper's own
//! server, which passes each request on to Rocket on a loopback port that the kernel chose. What may be asked is judged behind it
//! (`api::guard`): whoever finds the other port gets no further.

use crate::api::headers::SAFE;
use http_body_util::{BodyExt, Full, combinators::BoxBody};
use hyper::body::{Bytes, Incoming};
use hyper::header::{ALLOW, CONNECTION, HeaderName, HeaderValue, RETRY_AFTER};
use hyper::{Method, Request, Response, StatusCode, Uri};
use hyper_util::client::legacy::Client;
use hyper_util::client::legacy::connect::HttpConnector;
use hyper_util::rt::{TokioExecutor, TokioIo, TokioTimer};
use hyper_util::server::graceful::GracefulShutdown;
use hyper_util::service::TowerToHyperService;
use rocket::tokio;
use std::collections::HashMap;
use std::convert::Infallible;
use std::net::SocketAddr;
use std::sync::atomic::{AtomicU64, Ordering};
use std::sync::{Arc, Mutex, PoisonError};
use std::time::Duration;
use tokio::net::TcpListener;
use tokio::sync::Semaphore;
use tokio_io_timeout::TimeoutStream;
use tokio_util::sync::CancellationToken;
use tower_http::compression::predicate::{And, NotForContentType, Predicate, SizeAbove};
use tower_http::compression::{CompressionLayer, CompressionLevel};
use tower_http::timeout::TimeoutBody;

/// How long a request's head may take, and how long a body may pause.
pub const PATIENCE: Duration = Duration::from_secs(10);
/// How long a client may take nothing of its answer, if nobody says otherwise.
pub const STALLED: Duration = Duration::from_secs(30);
/// The largest head that is read, bytes.
const LARGEST_HEAD: usize = 32 * 1024;
/// Files that stay free for everything else than connections: each connection takes two.
const SPARE_FILES: u64 = 200;
/// How long requests that are under way may take when the program is told to stop.
const LAST_REQUESTS: Duration = Duration::from_secs(2);

/// The methods that anything here may take; Rocket knows no others than those of old.
const KNOWN: [Method; 7] =
    [Method::GET, Method::HEAD, Method::POST, Method::PUT, Method::DELETE, Method::OPTIONS, Method::PATCH];

/// Names the client of a request between the door and Rocket.
pub const CLIENT: HeaderName = HeaderName::from_static("x-bright-angle-client");

type Body = BoxBody<Bytes, Box<dyn std::error::Error + Send + Sync>>;

/// The clients that wait for an answer. Cloning shares them.
#[derive(Clone, Default)]
pub struct Clients {
    waiting: Arc<Mutex<HashMap<u64, CancellationToken>>>,
    last: Arc<AtomicU64>,
}

impl Clients {
    /// What is cancelled when a client leaves; one that nobody knows never does.
    pub fn leaving(&self, name: Option<&str>) -> CancellationToken {
        let waiting = self.waiting.lock().unwrap_or_else(PoisonError::into_inner);
        name.and_then(|name| waiting.get(&name.parse().ok()?).cloned()).unwrap_or_default()
    }

    fn arrive(&self) -> Waiting {
        let number = self.last.fetch_add(1, Ordering::Relaxed);
        let token = CancellationToken::new();
        self.waiting.lock().unwrap_or_else(PoisonError::into_inner).insert(number, token.clone());
        Waiting { clients: self.clone(), number, token }
    }
}

/// A client that waits; dropping it says that it has left or was answered.
struct Waiting {
    clients: Clients,
    number: u64,
    token: CancellationToken,
}

impl Drop for Waiting {
    fn drop(&mut self) {
        self.token.cancel();
        self.clients.waiting.lock().unwrap_or_else(PoisonError::into_inner).remove(&self.number);
    }
}

/// Raises the number of files that the program may open as far as it may, and answers how many connections that allows.
pub fn connections() -> usize {
    let files = rlimit::increase_nofile_limit(16_384).unwrap_or(1024);
    usize::try_from(files.saturating_sub(SPARE_FILES) / 2).unwrap_or(400).max(64)
}

/// Serves a port until it is told to stop, by passing on what comes to Rocket at `behind`.
/// A client that takes nothing of its answer for `stalled` is dropped.
pub async fn serve(
    listener: TcpListener,
    behind: SocketAddr,
    clients: Clients,
    (most, stalled): (usize, Duration),
    stop: CancellationToken,
) {
    let mut connector = HttpConnector::new();
    connector.set_nodelay(true);
    let onward = Client::builder(TokioExecutor::new())
        .pool_timer(TokioTimer::new())
        // Rocket closes an idle connection after five seconds; it must not be taken just then.
        .pool_idle_timeout(Duration::from_secs(3))
        .retry_canceled_requests(true)
        .build(connector);
    let door = Door { onward, behind, clients };
    let free = Arc::new(Semaphore::new(most));
    let under_way = GracefulShutdown::new();
    // Only what is neither an answer of the interface nor compressed already: over loopback an answer is faster as it is.
    let worth: And<SizeAbove, NotForContentType> = SizeAbove::new(1024).and(NotForContentType::new("application/json"));
    loop {
        let permit = tokio::select! {
            permit = free.clone().acquire_owned() => permit,
            () = stop.cancelled() => break,
        };
        let stream = tokio::select! {
            accepted = listener.accept() => accepted,
            () = stop.cancelled() => break,
        };
        let Ok((stream, _)) = stream else {
            // Out of files, most likely: others have to end first.
            tokio::time::sleep(Duration::from_millis(50)).await;
            continue;
        };
        let _ = stream.set_nodelay(true);
        let mut stream = TimeoutStream::new(stream);
        stream.set_write_timeout(Some(stalled));
        let door = door.clone();
        let service = tower::service_fn(move |request| door.clone().pass(request));
        let compress = CompressionLayer::new().quality(CompressionLevel::Fastest).compress_when(worth.clone());
        let service = tower::Layer::layer(&compress, service);
        let connection = hyper::server::conn::http1::Builder::new()
            .timer(TokioTimer::new())
            .header_read_timeout(PATIENCE)
            .max_buf_size(LARGEST_HEAD)
            .serve_connection(TokioIo::new(Box::pin(stream)), TowerToHyperService::new(service));
        let connection = under_way.watch(connection);
        tokio::spawn(async move {
            // A connection that breaks off concerns nobody but its client.
            let _ = connection.await;
            drop(permit);
        });
    }
    let _ = tokio::time::timeout(LAST_REQUESTS, under_way.shutdown()).await;
}

#[derive(Clone)]
struct Door {
    onward: Client<HttpConnector, Body>,
    behind: SocketAddr,
    clients: Clients,
}

impl Door {
    async fn pass(self, request: Request<Incoming>) -> Result<Response<Body>, Infallible> {
        // Dropped with this future when the connection ends before the answer.
        let waiting = self.clients.arrive();
        if !KNOWN.contains(request.method()) {
            let mut answer = said(StatusCode::METHOD_NOT_ALLOWED, "this method is not known here");
            answer.headers_mut().insert(ALLOW, HeaderValue::from_static("GET, HEAD, POST, PUT, DELETE"));
            return Ok(answer);
        }
        let (mut parts, body) = request.into_parts();
        let path = parts.uri.path_and_query().map_or("/", |path| path.as_str());
        let Ok(uri) = Uri::builder().scheme("http").authority(self.behind.to_string()).path_and_query(path).build()
        else {
            return Ok(said(StatusCode::BAD_REQUEST, "this is no address"));
        };
        parts.uri = uri;
        parts.headers.remove(CONNECTION);
        parts.headers.insert(CLIENT, HeaderValue::from(waiting.number));
        let stalled = Arc::new(std::sync::atomic::AtomicBool::new(false));
        let noted = stalled.clone();
        let body = TimeoutBody::new(PATIENCE, body).map_err(move |error| {
            noted.store(true, Ordering::Relaxed);
            error
        });
        match self.onward.request(Request::from_parts(parts, body.boxed())).await {
            Ok(answer) => {
                let (parts, body) = answer.into_parts();
                // The client waits until the last byte of its answer.
                let body = body.map_err(move |error| {
                    let _ = &waiting;
                    error.into()
                });
                Ok(Response::from_parts(parts, body.boxed()))
            }
            Err(_) if stalled.load(Ordering::Relaxed) => {
                let mut answer = said(StatusCode::REQUEST_TIMEOUT, "the body took too long to arrive");
                answer.headers_mut().insert(CONNECTION, HeaderValue::from_static("close"));
                Ok(answer)
            }
            Err(_) => Ok(said(StatusCode::SERVICE_UNAVAILABLE, "the server is busy; try again")),
        }
    }
}

/// An answer of the door's own, in the form that all others have.
fn said(status: StatusCode, message: &str) -> Response<Body> {
    let text = serde_json::json!([{"path": "", "message": message}]).to_string();
    let body = Full::new(Bytes::from(text)).map_err(|never| match never {});
    let mut answer = Response::new(body.boxed());
    *answer.status_mut() = status;
    answer.headers_mut().insert("content-type", HeaderValue::from_static("application/json"));
    answer.headers_mut().insert("cache-control", HeaderValue::from_static("no-store"));
    for (name, value) in SAFE {
        if let Ok(name) = HeaderName::try_from(name) {
            answer.headers_mut().insert(name, HeaderValue::from_static(value));
        }
    }
    if status == StatusCode::SERVICE_UNAVAILABLE {
        answer.headers_mut().insert(RETRY_AFTER, HeaderValue::from_static("1"));
    }
    answer
}
