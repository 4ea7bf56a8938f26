//! Errors as JSON: a list of faults with path and message, and both sides of a stale save.

use crate::store::{Revision, StoreError};
use bright_angle_core::Fault;
use rocket::http::{ContentType, Status};
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
            StoreError::NoSite(_) | StoreError::NoRevision(..) | StoreError::NoPicture(_) => Status::NotFound,
            StoreError::Away => Status::ServiceUnavailable,
            StoreError::Stale(_) => Status::Conflict,
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
            ApiError::Stale(conflict) => (Status::Conflict, serde_json::to_string(&conflict)),
        };
        let body = text.map_err(|_| Status::InternalServerError)?;
        Response::build_from(body.respond_to(request)?).status(status).header(ContentType::JSON).ok()
    }
}

/// Catchers for what never reaches a handler.
pub fn catchers() -> Vec<Catcher> {
    list![anything]
}

#[catch(default)]
fn anything(status: Status, request: &Request) -> (Status, Json<Vec<Fault>>) {
    let message = match status.code {
        404 => "there is nothing here".to_owned(),
        _ => status.reason_lossy().to_lowercase(),
    };
    (status, Json(vec![Fault::new(request.uri().path().as_str(), message)]))
}
