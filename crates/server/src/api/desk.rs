//! The desk at which work is done: reading bodies, computing and keeping, each with a bound.

use super::answer::{Answer, Written};
use super::error::ApiError;
use crate::front::{CLIENT, Clients};
use bright_angle_core::Fault;
use bright_angle_core::work::Patience;
use rocket::data::{Data, DataStream, ToByteUnit};
use rocket::http::Status;
use rocket::request::{FromRequest, Outcome, Request};
use rocket::tokio::io::AsyncReadExt;
use rocket::tokio::sync::{OwnedSemaphorePermit, Semaphore};
use rocket::tokio::{self, time::timeout};
use serde::Serialize;
use std::num::NonZero;
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::time::{Duration, Instant};
use tokio_util::sync::CancellationToken;

/// How long a body may take to arrive, from its first byte to its last: the connection may be a phone's at the edge of a yard.
const ARRIVAL: Duration = Duration::from_secs(60);
/// So much of a body that is too large is passed over before that is answered, MiB.
const PASSED_OVER_MIB: u64 = 16;
/// What a body that begins is given to be read into, and what it is given at a time after that, bytes: as much again as it has, up to
/// the larger.
const FIRST_PIECE: usize = 4 * 1024;
const PIECE: usize = 64 * 1024;
/// What all bodies that are being read or worked on, and all answers that are being sent, may take together, KiB: 64 MiB of bodies,
/// twice as much of answers.
const BODIES_KIB: usize = 64 * 1024;
const ANSWERS_KIB: usize = 128 * 1024;
/// How many computations, and how many things to be kept, may wait before more is refused: a save takes a few milliseconds.
const COMPUTATIONS: usize = 64;
const SAVES: usize = 512;
/// How long anybody waits for a hand before it is said that all are busy.
const WAIT: Duration = Duration::from_secs(20);
/// A question that comes in so many bytes is small: it is tried first on hands of its own, for so long. What takes longer goes behind
/// the others.
const SMALL: usize = 256 * 1024;
const SMALL_LONGEST: Duration = Duration::from_millis(1500);
/// How long one computation may take.
pub const LONGEST: Duration = Duration::from_secs(10);
/// What is long by its nature may take so many times that.
const LONG: u32 = 3;
/// What pictures that are being unpacked may take together, MiB, and how many there may be at a time.
const PICTURES_MIB: usize = 256;
const PICTURES: usize = 2;

/// What is shared by all requests.
pub struct Desk {
    bodies: Room,
    answers: Room,
    computing: Lane,
    /// For small questions.
    small: Lane,
    keeping: Lane,
    pictures: Lane,
    picture_mib: Arc<Semaphore>,
    longest: Duration,
}

/// Memory of one kind, counted in KiB.
#[derive(Clone)]
struct Room(Arc<Semaphore>);

/// What was taken of it; it is given back when this is dropped.
pub struct Taken(Vec<OwnedSemaphorePermit>);

impl Room {
    fn of(kib: usize) -> Room {
        Room(Arc::new(Semaphore::new(kib)))
    }

    fn take(&self, bytes: usize) -> Option<OwnedSemaphorePermit> {
        let kib = u32::try_from(bytes.div_ceil(1024)).unwrap_or(u32::MAX);
        self.0.clone().try_acquire_many_owned(kib).ok()
    }
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
        let hand = timeout(WAIT, self.at_work.clone().acquire_owned()).await;
        let hand = hand.map_err(|_| ApiError::busy())?.map_err(|_| ApiError::busy())?;
        Ok((place, hand))
    }
}

impl Default for Desk {
    fn default() -> Self {
        let cores = std::thread::available_parallelism().map_or(1, NonZero::get);
        Desk {
            bodies: Room::of(BODIES_KIB),
            answers: Room::of(ANSWERS_KIB),
            small: Lane::new(cores, COMPUTATIONS),
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
    _taken: Taken,
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
        let mut body = Body { content: Vec::new(), _taken: Taken(Vec::new()) };
        let reading = async {
            loop {
                let (length, room) = (body.content.len(), body.content.capacity());
                if length == room {
                    // Taken as it arrives: what was only announced takes nothing from others.
                    let piece = room.clamp(FIRST_PIECE, PIECE);
                    let Some(taken) = self.desk.bodies.take(piece) else {
                        drop(body);
                        pass_over(&mut stream).await;
                        return Err(ApiError::busy());
                    };
                    body._taken.0.push(taken);
                    body.content.reserve_exact(piece);
                }
                let read = stream.read_buf(&mut body.content).await;
                let read = read.map_err(|error| {
                    ApiError::plain(Status::BadRequest, &format!("the body cannot be read: {error}"))
                })?;
                if body.content.len() > most {
                    drop(body);
                    pass_over(&mut stream).await;
                    let message = format!("the body is larger than {most_mib} MiB");
                    return Err(ApiError::plain(Status::PayloadTooLarge, &message));
                }
                if read == 0 {
                    return Ok(body);
                }
            }
        };
        let late = |_| ApiError::plain(Status::RequestTimeout, "the body took too long to arrive");
        timeout(ARRIVAL, reading).await.map_err(late)?
    }

    /// Works out an answer as [`Place::compute`] does, and gives it a place among those on their way. A small question is tried first
    /// on hands that large ones do not take.
    pub async fn answer<T: AsRef<[u8]> + Send + Sync + 'static>(
        &self,
        body: Body<T>,
        work: impl Fn(&T, &Patience) -> Result<Written, ApiError> + Send + Sync + 'static,
    ) -> Result<Answer, ApiError> {
        let small = body.content.as_ref().len() <= SMALL;
        let work = Arc::new(move |patience: &Patience| work(&body.content, patience));
        let tried = if small { self.try_small(work.clone()).await? } else { None };
        let written = match tried {
            Some(written) => written,
            None => self.compute(move |patience| work(patience)).await?,
        };
        self.on_its_way(written)
    }

    /// The same for what is long by its nature, and asked for now and then: papers of many pages. It may take three times as long.
    pub async fn long_answer<T: Send + Sync + 'static>(
        &self,
        body: Body<T>,
        work: impl FnOnce(&T, &Patience) -> Result<Written, ApiError> + Send + 'static,
    ) -> Result<Answer, ApiError> {
        let longest = self.desk.longest * LONG;
        let written = self.compute_within(longest, move |patience| work(&body.content, patience)).await?;
        self.on_its_way(written)
    }

    /// Tries a computation for a short while; nothing comes of it if it takes longer.
    async fn try_small(
        &self,
        work: Arc<impl Fn(&Patience) -> Result<Written, ApiError> + Send + Sync + 'static>,
    ) -> Result<Option<Written>, ApiError> {
        let longest = SMALL_LONGEST.min(self.desk.longest);
        let late = Arc::new(AtomicBool::new(false));
        let (noted, left) = (late.clone(), self.left.clone());
        let done = self.run(&self.desk.small, move || {
            let began = Instant::now();
            let goes_on = || {
                let late = began.elapsed() >= longest;
                noted.fetch_or(late, Ordering::Relaxed);
                !left.is_cancelled() && !late
            };
            work(&Patience::while_it(&goes_on))
        });
        let done = done.await;
        if late.load(Ordering::Relaxed) { Ok(None) } else { done.map(Some) }
    }

    /// Gives an answer its place among those on their way.
    fn on_its_way(&self, written: Written) -> Result<Answer, ApiError> {
        let taken = self.desk.answers.take(written.bytes.len()).ok_or_else(ApiError::busy)?;
        Ok(Answer::new(written, Taken(vec![taken])))
    }

    /// Runs a computation beside the threads that serve requests, so many at a time as there are cores. It ends when it takes too
    /// long, or when nobody waits for it any more.
    pub async fn compute<T: Send + 'static>(
        &self,
        work: impl FnOnce(&Patience) -> Result<T, ApiError> + Send + 'static,
    ) -> Result<T, ApiError> {
        self.compute_within(self.desk.longest, work).await
    }

    async fn compute_within<T: Send + 'static>(
        &self,
        longest: Duration,
        work: impl FnOnce(&Patience) -> Result<T, ApiError> + Send + 'static,
    ) -> Result<T, ApiError> {
        let left = self.left.clone();
        let work = move || {
            let began = Instant::now();
            let goes_on = || !left.is_cancelled() && began.elapsed() < longest;
            work(&Patience::while_it(&goes_on))
        };
        self.run(&self.desk.computing, work).await
    }

    /// Passes on what is kept, with a place among the answers on their way.
    pub async fn pass_on(&self, kept: impl Serialize + Send + 'static) -> Result<Answer, ApiError> {
        let written = self.run(&self.desk.keeping, move || Written::json(&kept)).await?;
        self.on_its_way(written)
    }

    /// Waits for work that another process does, in the place of a computation; it is dropped when it takes too long, or when nobody
    /// waits for it any more.
    pub async fn outside<T>(&self, work: impl Future<Output = Result<T, ApiError>>) -> Result<T, ApiError> {
        let busy = || Err(ApiError::busy());
        let _held = tokio::select! {
            held = self.desk.computing.enter() => held?,
            () = self.left.cancelled() => return busy(),
        };
        tokio::select! {
            done = timeout(self.desk.longest, work) => {
                done.map_err(|_| Fault::new("", "too large, because it took too long to read"))?
            }
            () = self.left.cancelled() => busy(),
        }
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

/// Somebody who still sends does not listen: the rest is passed over, so that the answer is heard.
async fn pass_over(stream: &mut DataStream<'_>) {
    let mut waste = vec![0; 64 * 1024];
    while stream.read(&mut waste).await.is_ok_and(|read| read > 0) {}
}

impl From<bright_angle_core::work::Over> for ApiError {
    fn from(over: bright_angle_core::work::Over) -> Self {
        Fault::new("", over.to_string()).into()
    }
}
