//! Request bodies: limited in size and time, read as text, parsed with faults that name the place.

use super::error::ApiError;
use bright_angle_core::{Fault, Site};
use rocket::data::{Data, ToByteUnit};
use rocket::http::Status;
use serde::Deserialize;
use serde_json::value::RawValue;
use std::time::Duration;

/// The largest body that is read, MiB.
const LARGEST_MIB: u64 = 8;
/// How long a body may take to arrive.
const PATIENCE: Duration = Duration::from_secs(20);

/// The whole body as text.
pub async fn text(data: Data<'_>) -> Result<String, ApiError> {
    let reading = data.open(LARGEST_MIB.mebibytes()).into_string();
    let read = rocket::tokio::time::timeout(PATIENCE, reading).await;
    let body = read
        .map_err(|_| ApiError::plain(Status::RequestTimeout, "the body took too long to arrive"))?
        .map_err(|error| ApiError::plain(Status::BadRequest, &format!("the body cannot be read: {error}")))?;
    if !body.is_complete() {
        return Err(ApiError::plain(Status::PayloadTooLarge, &format!("the body is larger than {LARGEST_MIB} MiB")));
    }
    Ok(body.into_inner())
}

/// The fields around a site file; the file itself is parsed by its own door.
pub fn envelope<'a, T: Deserialize<'a>>(text: &'a str) -> Result<T, ApiError> {
    let mut reader = serde_json::Deserializer::from_str(text);
    let read = serde_path_to_error::deserialize(&mut reader);
    let value = read.map_err(|error| match error.path().to_string().as_str() {
        "." => Fault::new("", error.inner().to_string()),
        path => Fault::new(path, error.inner().to_string()),
    })?;
    reader.end().map_err(|error| Fault::new("", error.to_string()))?;
    Ok(value)
}

/// A site file inside an envelope; its faults are named by their place in the file.
pub fn site(raw: &RawValue) -> Result<Site, ApiError> {
    Ok(Site::parse(raw.get())?)
}

/// Runs a computation beside the threads that serve requests.
pub async fn compute<T: Send + 'static>(
    work: impl FnOnce() -> Result<T, ApiError> + Send + 'static,
) -> Result<T, ApiError> {
    let done = rocket::tokio::task::spawn_blocking(work).await;
    done.map_err(|error| ApiError::plain(Status::InternalServerError, &format!("the computation stopped: {error}")))?
}
