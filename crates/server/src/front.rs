//! The door to the port: what is slow or silent is dropped here, and whoever leaves is noticed.
//!
//! Rocket sets no time for a request's head and does not tell its handlers when a client goes away. So the port is hyper's own
//! server, which passes each request on to Rocket on a loopback port that the kernel chose. What may be asked is judged behind it
//! (`api::guard`): whoever finds the other port gets no further.
//!
//! There are two sides: this machine's own, and the shared one (`share`), which is encrypted. Behind the door a request of the shared side
//! says from whom it came.

use crate::api::headers::SAFE;
use http_body_util::{BodyExt, Full, combinators::BoxBody};
use hyper::body::{Bytes, Incoming};
use hyper::header::{ALLOW, CONNECTION, HeaderName, HeaderValue, RETRY_AFTER};
use hyper::{Method, Request, Response, StatusCode, Uri};
use hyper_util::client::legacy::Client;
use hyper_util::client::legacy::connect::HttpConnector;
use hyper_util::rt::{TokioExecutor, TokioIo, TokioTimer};
use hyper_util::server::graceful::{GracefulShutdown, Watcher};
use hyper_util::service::TowerToHyperService;
use rocket::tokio;
use std::collections::HashMap;
use std::convert::Infallible;
use std::net::{IpAddr, SocketAddr};
use std::sync::atomic::{AtomicU64, Ordering};
use std::sync::{Arc, Mutex, PoisonError};
use std::time::Duration;
use tokio::io::{AsyncRead, AsyncWrite};
use tokio::net::{TcpListener, TcpSocket};
use tokio::sync::Semaphore;
use tokio_io_timeout::TimeoutStream;
use tokio_rustls::TlsAcceptor;
use tokio_util::sync::CancellationToken;
use tower_http::compression::predicate::{NotForContentType, Predicate, SizeAbove};
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
/// How many connections the kernel holds that were not accepted yet.
const BACKLOG: u32 = 1024;
/// How long requests that are under way may take when the program is told to stop.
const LAST_REQUESTS: Duration = Duration::from_secs(2);

/// The methods that anything here may take; Rocket knows no others than those of old.
const KNOWN: [Method; 7] =
    [Method::GET, Method::HEAD, Method::POST, Method::PUT, Method::DELETE, Method::OPTIONS, Method::PATCH];

/// Names the client of a request between the door and Rocket.
pub const CLIENT: HeaderName = HeaderName::from_static("x-bright-angle-client");
/// The address of a client that came by the shared side; on this machine's own side there is none.
pub const PEER: HeaderName = HeaderName::from_static("x-bright-angle-peer");

/// So many connections the shared side takes, and of one address.
const SHARED_MOST: usize = 128;
const SHARED_EACH: usize = 32;

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

/// Listens on an address; one that a server before this one has just left can be taken at once.
pub fn listen(at: SocketAddr) -> std::io::Result<TcpListener> {
    let socket = if at.is_ipv4() { TcpSocket::new_v4() } else { TcpSocket::new_v6() }?;
    socket.set_reuseaddr(true)?;
    socket.bind(at)?;
    socket.listen(BACKLOG)
}

/// What passes requests on to Rocket, whatever side they come by. Cloning shares it.
#[derive(Clone)]
pub struct Front {
    door: Door,
    free: Arc<Semaphore>,
    shared_free: Arc<Semaphore>,
    peers: Arc<Mutex<HashMap<IpAddr, usize>>>,
    stalled: Duration,
}

/// Which side a port is on.
#[derive(Clone)]
pub enum Side {
    /// This machine's own.
    Own,
    /// The local network's, encrypted.
    Shared(TlsAcceptor),
}

impl Front {
    /// One that passes on to `behind` and holds so many connections; a client that takes nothing of its answer for `stalled` is dropped.
    pub fn new(behind: SocketAddr, clients: Clients, most: usize, stalled: Duration) -> Front {
        let mut connector = HttpConnector::new();
        connector.set_nodelay(true);
        let onward = Client::builder(TokioExecutor::new())
            .pool_timer(TokioTimer::new())
            // Rocket closes an idle connection after five seconds; it must not be taken just then.
            .pool_idle_timeout(Duration::from_secs(3))
            .retry_canceled_requests(true)
            .build(connector);
        Front {
            door: Door { onward, behind, clients, peer: None },
            free: Arc::new(Semaphore::new(most)),
            shared_free: Arc::new(Semaphore::new(SHARED_MOST.min(most / 2))),
            peers: Arc::default(),
            stalled,
        }
    }

    /// Serves a port until it is told to stop.
    pub async fn serve(self, listener: TcpListener, side: Side, stop: CancellationToken) {
        let under_way = GracefulShutdown::new();
        let free = if matches!(side, Side::Own) { &self.free } else { &self.shared_free }.clone();
        loop {
            let permit = tokio::select! {
                permit = free.clone().acquire_owned() => permit,
                () = stop.cancelled() => break,
            };
            let stream = tokio::select! {
                accepted = listener.accept() => accepted,
                () = stop.cancelled() => break,
            };
            let Ok((stream, from)) = stream else {
                // Out of files, most likely: others have to end first.
                tokio::time::sleep(Duration::from_millis(50)).await;
                continue;
            };
            let _ = stream.set_nodelay(true);
            let mut stream = TimeoutStream::new(stream);
            stream.set_write_timeout(Some(self.stalled));
            let stream = Box::pin(stream);
            match &side {
                Side::Own => {
                    let held = self.clone().hold(stream, None, under_way.watcher());
                    tokio::spawn(async move {
                        held.await;
                        drop(permit);
                    });
                }
                Side::Shared(tls) => {
                    let Some(peer) = Peer::arrive(&self.peers, from.ip()) else { continue };
                    let (tls, front, watcher) = (tls.clone(), self.clone(), under_way.watcher());
                    tokio::spawn(async move {
                        if let Ok(Ok(stream)) = tokio::time::timeout(PATIENCE, tls.accept(stream)).await {
                            front.hold(Box::pin(stream), Some(peer.ip), watcher).await;
                        }
                        drop((permit, peer));
                    });
                }
            }
        }
        let _ = tokio::time::timeout(LAST_REQUESTS, under_way.shutdown()).await;
    }

    /// Holds a connection until its client leaves or all are told to. One that breaks off concerns nobody but its client.
    async fn hold<S>(self, stream: S, peer: Option<IpAddr>, watcher: Watcher)
    where
        S: AsyncRead + AsyncWrite + Unpin + Send + 'static,
    {
        let door = Door { peer, ..self.door };
        let service = tower::service_fn(move |request| door.clone().pass(request));
        // Only what is neither an answer of the interface nor compressed already: over loopback an answer is faster as it is.
        let worth = SizeAbove::new(1024).and(NotForContentType::new("application/json"));
        let compress = CompressionLayer::new().quality(CompressionLevel::Fastest).compress_when(worth);
        let service = tower::Layer::layer(&compress, service);
        let connection = hyper::server::conn::http1::Builder::new()
            .timer(TokioTimer::new())
            .header_read_timeout(PATIENCE)
            .max_buf_size(LARGEST_HEAD)
            .serve_connection(TokioIo::new(stream), TowerToHyperService::new(service));
        let _ = watcher.watch(connection).await;
    }
}

/// An address with a connection; dropping it lets the connection go.
struct Peer {
    ip: IpAddr,
    peers: Arc<Mutex<HashMap<IpAddr, usize>>>,
}

impl Peer {
    /// `None` for an address that holds as many as it may.
    fn arrive(peers: &Arc<Mutex<HashMap<IpAddr, usize>>>, ip: IpAddr) -> Option<Peer> {
        let mut held = peers.lock().unwrap_or_else(PoisonError::into_inner);
        let count = held.entry(ip).or_default();
        if *count >= SHARED_EACH {
            return None;
        }
        *count += 1;
        Some(Peer { ip, peers: peers.clone() })
    }
}

impl Drop for Peer {
    fn drop(&mut self) {
        let mut held = self.peers.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some(count) = held.get_mut(&self.ip) {
            *count -= 1;
            if *count == 0 {
                held.remove(&self.ip);
            }
        }
    }
}

#[derive(Clone)]
struct Door {
    onward: Client<HttpConnector, Body>,
    behind: SocketAddr,
    clients: Clients,
    /// Who asks, by the shared side.
    peer: Option<IpAddr>,
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
        // Nobody says it of himself.
        parts.headers.remove(PEER);
        if let Some(peer) = self.peer.and_then(|ip| HeaderValue::try_from(ip.to_string()).ok()) {
            parts.headers.insert(PEER, peer);
        }
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
