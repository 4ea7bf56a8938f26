//! The desk at which work is done: reading bodies, computing and keeping, each with a bound.

use super::error::ApiError;
use crate::front::{CLIENT, Clients};
use bright_angle_core::Fault;
use bright_angle_core::work::Patience;
use rocket::data::{Data, ToByteUnit};
use rocket::http::Status;
use rocket::request::{FromRequest, Outcome, Request};
use rocket::tokio::io::AsyncReadExt;
use rocket::tokio::sync::{OwnedSemaphorePermit, Semaphore};
use rocket::tokio::{self, time::timeout};
use std::num::NonZero;
use std::sync::Arc;
use std::time::{Duration, Instant};
use tokio_util::sync::CancellationToken;

/// How long a body may take to arrive, from its first byte to its last: the connection may be a phone's at the edge of a yard.
const ARRIVAL: Duration = Duration::from_secs(60);
/// So much of a body that is too large is passed over before that is answered, MiB.
const PASSED_OVER_MIB: u64 = 16;
/// The pieces that bodies are read and accounted for in, bytes.
const PIECE: usize = 64 * 1024;
/// What all bodies that are being read or worked on may take together, in pieces: 64 MiB.
const PIECES: usize = 1024;
/// How many computations, and how many things to be kept, may wait before more is refused: a save takes a few milliseconds.
const COMPUTATIONS: usize = 64;
const SAVES: usize = 512;
/// How long one computation may take.
pub const LONGEST: Duration = Duration::from_secs(10);
/// What pictures that are being unpacked may take together, MiB, and how many there may be at a time.
const PICTURES_MIB: usize = 256;
const PICTURES: usize = 2;

/// What is shared by all requests.
pub struct Desk {
    pieces: Arc<Semaphore>,
    computing: Lane,
    keeping: Lane,
    pictures: Lane,
    picture_mib: Arc<Semaphore>,
    longest: Duration,
}

/// Work of one kind, so much at a time.
#[derive(Clone)]
struct Lane {
    at_work: Arc<Semaphore>,
    queue: Arc<Semaphore>,
}

impl Lane {
    fn new(hands: usize, waiting: usize) -> Lane {
        Lane { at_work: Arc::new(Semaphore::new(hands)), queue: Arc::new(Semaphore::new(hands + waiting)) }
    }

    /// Waits for a hand; refuses when too many wait already.
    async fn enter(&self) -> Result<(OwnedSemaphorePermit, OwnedSemaphorePermit), ApiError> {
        let place = self.queue.clone().try_acquire_owned().map_err(|_| ApiError::busy())?;
        let hand = self.at_work.clone().acquire_owned().await.map_err(|_| ApiError::busy())?;
        Ok((place, hand))
    }
}

impl Default for Desk {
    fn default() -> Self {
        let cores = std::thread::available_parallelism().map_or(1, NonZero::get);
        Desk {
            pieces: Arc::new(Semaphore::new(PIECES)),
            computing: Lane::new(cores, COMPUTATIONS),
            keeping: Lane::new(cores, SAVES),
            pictures: Lane::new(PICTURES, COMPUTATIONS),
            picture_mib: Arc::new(Semaphore::new(PICTURES_MIB)),
            longest: LONGEST,
        }
    }
}

impl Desk {
    /// A desk at which a computation may take only so long.
    pub fn with_longest(longest: Duration) -> Desk {
        Desk { longest, ..Desk::default() }
    }
}

/// One request's place at the desk.
pub struct Place<'r> {
    desk: &'r Desk,
    left: CancellationToken,
}

#[rocket::async_trait]
impl<'r> FromRequest<'r> for Place<'r> {
    type Error = ();

    async fn from_request(request: &'r Request<'_>) -> Outcome<Self, ()> {
        let rocket = request.rocket();
        let (Some(desk), Some(clients)) = (rocket.state::<Desk>(), rocket.state::<Clients>()) else {
            return Outcome::Error((Status::InternalServerError, ()));
        };
        let left = clients.leaving(request.headers().get_one(CLIENT.as_str()));
        Outcome::Success(Place { desk, left })
    }
}

/// A body that was read whole. What it takes is given back with it.
pub struct Body<T> {
    /// What came.
    pub content: T,
    _taken: Vec<OwnedSemaphorePermit>,
}

impl Place<'_> {
    /// The whole body as text of at most so many MiB.
    pub async fn text(&self, data: Data<'_>, most_mib: u64) -> Result<Body<String>, ApiError> {
        let Body { content, _taken } = self.bytes(data, most_mib).await?;
        let content = String::from_utf8(content)
            .map_err(|error| ApiError::plain(Status::BadRequest, &format!("the body is no UTF-8 text: {error}")))?;
        Ok(Body { content, _taken })
    }

    /// The whole body, of at most so many MiB.
    pub async fn bytes(&self, data: Data<'_>, most_mib: u64) -> Result<Body<Vec<u8>>, ApiError> {
        // One byte more than is taken tells that there is more.
        let mut stream = data.open((most_mib + PASSED_OVER_MIB).mebibytes() + 1.bytes());
        let most = usize::try_from(most_mib << 20).unwrap_or(usize::MAX);
        let mut body = Body { content: Vec::new(), _taken: Vec::new() };
        let reading = async {
            loop {
                if body.content.capacity() - body.content.len() < PIECE / 2 {
                    // Taken as it arrives: what was only announced takes nothing from others.
                    let piece = self.desk.pieces.clone().try_acquire_owned().map_err(|_| ApiError::busy())?;
                    body._taken.push(piece);
                    body.content.reserve_exact(PIECE);
                }
                let read = stream.read_buf(&mut body.content).await;
                let read = read.map_err(|error| {
                    ApiError::plain(Status::BadRequest, &format!("the body cannot be read: {error}"))
                })?;
                if body.content.len() > most {
                    // Somebody who still sends does not listen: the rest is passed over, so that the answer is heard.
                    (body.content, body._taken) = (Vec::new(), Vec::new());
                    let mut waste = vec![0; 64 * 1024];
                    while stream.read(&mut waste).await.is_ok_and(|read| read > 0) {}
                    let message = format!("the body is larger than {most_mib} MiB");
                    return Err(ApiError::plain(Status::PayloadTooLarge, &message));
                }
                if read == 0 {
                    return Ok(());
                }
            }
        };
        let late = |_| ApiError::plain(Status::RequestTimeout, "the body took too long to arrive");
        timeout(ARRIVAL, reading).await.map_err(late)??;
        Ok(body)
    }

    /// Runs a computation beside the threads that serve requests, so many at a time as there are cores. It ends when it takes too
    /// long, or when nobody waits for it any more.
    pub async fn compute<T: Send + 'static>(
        &self,
        work: impl FnOnce(&Patience) -> Result<T, ApiError> + Send + 'static,
    ) -> Result<T, ApiError> {
        let (left, longest) = (self.left.clone(), self.desk.longest);
        let work = move || {
            let began = Instant::now();
            let goes_on = || !left.is_cancelled() && began.elapsed() < longest;
            work(&Patience::while_it(&goes_on))
        };
        self.run(&self.desk.computing, work).await
    }

    /// Reads and checks what is to be kept: beside the computations, so that these don't hold it up.
    pub async fn check<T: Send + 'static>(
        &self,
        work: impl FnOnce() -> Result<T, ApiError> + Send + 'static,
    ) -> Result<T, ApiError> {
        self.run(&self.desk.keeping, work).await
    }

    /// Unpacks a picture that takes so many MiB; two at a time.
    pub async fn unpack<T: Send + 'static>(
        &self,
        mib: u32,
        work: impl FnOnce() -> Result<T, ApiError> + Send + 'static,
    ) -> Result<T, ApiError> {
        let most = u32::try_from(PICTURES_MIB).unwrap_or(u32::MAX);
        let memory = self.desk.picture_mib.clone().acquire_many_owned(mib.min(most));
        let memory = tokio::select! {
            memory = memory => memory.map_err(|_| ApiError::busy())?,
            () = self.left.cancelled() => return Err(ApiError::busy()),
        };
        let done = self.run(&self.desk.pictures, work).await;
        drop(memory);
        done
    }

    async fn run<T: Send + 'static>(
        &self,
        lane: &Lane,
        work: impl FnOnce() -> Result<T, ApiError> + Send + 'static,
    ) -> Result<T, ApiError> {
        let held = tokio::select! {
            held = lane.enter() => held?,
            () = self.left.cancelled() => return Err(ApiError::busy()),
        };
        let work = move || {
            // Held by the work itself: it may outlive the request that asked for it.
            let _held = held;
            work()
        };
        let done = tokio::task::spawn_blocking(work).await;
        done.map_err(|error| {
            eprintln!("a computation stopped: {error}");
            ApiError::plain(Status::InternalServerError, "the computation stopped; the server's log says why")
        })?
    }
}

impl From<bright_angle_core::work::Over> for ApiError {
    fn from(over: bright_angle_core::work::Over) -> Self {
        Fault::new("", over.to_string()).into()
    }
}
