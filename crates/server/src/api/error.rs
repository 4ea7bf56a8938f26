//! Errors as JSON: a list of faults with path and message, and both sides of a stale save.

use crate::store::{Revision, StoreError};
use bright_angle_core::Fault;
use rocket::http::{ContentType, Header, Status};
use rocket::response::{self, Responder, Response};
use rocket::serde::json::Json;
use rocket::{Catcher, Request, catch, catchers as list};
use serde::Serialize;
use utoipa::ToSchema;

/// Why a request was not answered.
#[derive(Debug)]
pub enum ApiError {
    /// Faults, with the status they go under.
    Faults(Status, Vec<Fault>),
    /// Just now it does not go; it may in a moment.
    Later(&'static str),
    /// Somebody saved in between.
    Stale(Box<Conflict>),
}

/// Both sides of a stale save.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Conflict {
    /// What happened, in words.
    pub message: String,
    /// The revision that the refused one was based on.
    pub based_on: i32,
    /// The refused site file.
    pub yours: bright_angle_core::file::SiteFile,
    /// The newest revision.
    pub theirs: Revision,
}

impl ApiError {
    /// One fault without a place.
    pub fn plain(status: Status, message: &str) -> Self {
        ApiError::Faults(status, vec![Fault::new("", message)])
    }

    /// Too much is asked at once.
    pub fn busy() -> Self {
        ApiError::Later("the server is busy; try again")
    }
}

impl From<Vec<Fault>> for ApiError {
    fn from(faults: Vec<Fault>) -> Self {
        ApiError::Faults(Status::UnprocessableEntity, faults)
    }
}

impl From<Fault> for ApiError {
    fn from(fault: Fault) -> Self {
        vec![fault].into()
    }
}

impl From<StoreError> for ApiError {
    fn from(error: StoreError) -> Self {
        let status = match &error {
            StoreError::NoSite(_) | StoreError::NoRevision(..) | StoreError::NoPicture(_) | StoreError::NoLink => {
                Status::NotFound
            }
            StoreError::Away => return ApiError::Later("the database does not answer"),
            StoreError::Busy => return ApiError::Later("the database is busy; try again"),
            StoreError::ReadOnly => {
                return ApiError::Later("the database takes no changes just now: it is read-only; nothing was saved");
            }
            StoreError::Full => Status::InsufficientStorage,
            StoreError::Gone(_) | StoreError::LinkOver => Status::Gone,
            StoreError::Stale(_)
            | StoreError::Taken(_)
            | StoreError::NameInUse(_)
            | StoreError::SignedAlready(_)
            | StoreError::ManyLinks(_) => Status::Conflict,
            StoreError::OtherName(_) => Status::UnprocessableEntity,
            _ => Status::InternalServerError,
        };
        if status == Status::InternalServerError {
            // The words may name the inside of the database: they are for the log.
            eprintln!("{error}");
            return ApiError::plain(status, "the database refused; the server's log says why");
        }
        ApiError::plain(status, &error.to_string())
    }
}

impl<'r> Responder<'r, 'static> for ApiError {
    fn respond_to(self, request: &'r Request<'_>) -> response::Result<'static> {
        let (status, text) = match self {
            ApiError::Faults(status, faults) => (status, serde_json::to_string(&faults)),
            ApiError::Later(message) => (Status::ServiceUnavailable, serde_json::to_string(&[Fault::new("", message)])),
            ApiError::Stale(conflict) => (Status::Conflict, serde_json::to_string(&conflict)),
        };
        let body = text.map_err(|_| Status::InternalServerError)?;
        let mut answer = Response::build_from(body.respond_to(request)?);
        answer.status(status).header(ContentType::JSON);
        if status == Status::ServiceUnavailable {
            answer.raw_header("Retry-After", "1");
        }
        answer.ok()
    }
}

/// Catchers for what never reaches a handler.
pub fn catchers() -> Vec<Catcher> {
    list![anything]
}

struct Caught {
    faults: (Status, Json<Vec<Fault>>),
    allow: Option<Header<'static>>,
}

impl<'r> Responder<'r, 'static> for Caught {
    fn respond_to(self, request: &'r Request<'_>) -> response::Result<'static> {
        let mut answer = Response::build_from(self.faults.respond_to(request)?);
        self.allow.map(|allow| answer.header(allow));
        answer.ok()
    }
}

#[catch(default)]
fn anything(status: Status, request: &Request) -> Caught {
    let others = if status == Status::NotFound { other_methods(request) } else { vec![] };
    let (status, message) = match status.code {
        404 if !others.is_empty() => (Status::MethodNotAllowed, format!("takes {} only", others.join(", "))),
        404 => (status, "there is nothing here".to_owned()),
        _ => (status, status.reason_lossy().to_lowercase()),
    };
    let faults = (status, Json(vec![Fault::new(request.uri().path().as_str(), message)]));
    Caught { faults, allow: (!others.is_empty()).then(|| Header::new("Allow", others.join(", "))) }
}

/// The methods that the same path takes.
fn other_methods(request: &Request) -> Vec<&'static str> {
    let path: Vec<&str> = request.uri().path().raw_segments().map(rocket::http::RawStr::as_str).collect();
    let fits = |route: &&rocket::Route| {
        let route: Vec<&str> = route.uri.path().split('/').filter(|part| !part.is_empty()).collect();
        // The built files are under no path of their own: what they don't hold is not there.
        !route.iter().any(|part| part.contains(".."))
            && route.len() == path.len()
            && route.iter().zip(&path).all(|(part, given)| part.starts_with('<') || part == given)
    };
    let mut methods: Vec<&str> = request
        .rocket()
        .routes()
        .filter(fits)
        .filter(|route| !route.uri.path().ends_with("/refused") && route.method != request.method())
        .map(|route| route.method.as_str())
        .collect();
    methods.sort_unstable();
    methods.dedup();
    methods
}
