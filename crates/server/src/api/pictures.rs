//! Photos and drawings in and out.

use super::error::ApiError;
use crate::picture::{LARGEST_MIB, Picture, PictureHead};
use crate::store::Store;
use bright_angle_core::Fault;
use rocket::data::{Data, ToByteUnit};
use rocket::http::{ContentType, Header, Status};
use rocket::response::Responder;
use rocket::response::status::Created;
use rocket::serde::json::Json;
use rocket::{State, get, post};
use std::time::Duration;

/// How long a picture may take to arrive: the connection may be a phone's at the edge of a yard.
const PATIENCE: Duration = Duration::from_secs(60);

/// Keep a picture: PNG or JPEG, at most 6 MiB and 40 million pixels.
#[utoipa::path(post, path = "/api/pictures", operation_id = "keepPicture", params(),
    request_body(content = Vec<u8>, content_type = "application/octet-stream"),
    responses((status = 201, body = PictureHead), (status = 413, body = Vec<Fault>), (status = 422, body = Vec<Fault>), (status = 503, body = Vec<Fault>)))]
#[post("/pictures", data = "<data>")]
pub async fn keep(store: &State<Store>, data: Data<'_>) -> Result<Created<Json<PictureHead>>, ApiError> {
    let reading = rocket::tokio::time::timeout(PATIENCE, data.open(LARGEST_MIB.mebibytes()).into_bytes()).await;
    let bytes = reading
        .map_err(|_| ApiError::plain(Status::RequestTimeout, "the picture took too long to arrive"))?
        .map_err(|error| ApiError::plain(Status::BadRequest, &format!("the picture cannot be read: {error}")))?;
    if !bytes.is_complete() {
        return Err(ApiError::plain(Status::PayloadTooLarge, &format!("the picture is larger than {LARGEST_MIB} MiB")));
    }
    let picture = super::body::compute(move || {
        Picture::take(bytes.into_inner()).map_err(|message| Fault::new("picture", message).into())
    })
    .await?;
    store.keep_picture(&picture).await?;
    Ok(Created::new(format!("/api/pictures/{}", picture.name)).body(Json(picture.head())))
}

/// A picture's bytes under their own type; they never change.
#[derive(Responder)]
pub struct Served {
    bytes: Vec<u8>,
    media_type: ContentType,
    keep: Header<'static>,
}

/// One picture.
#[utoipa::path(get, path = "/api/pictures/{name}", operation_id = "picture",
    params(("name" = String, Path, description = "The SHA-256 of its bytes, in hex")),
    responses((status = 200, body = Vec<u8>, content_type = "image/*"), (status = 404, body = Vec<Fault>), (status = 503, body = Vec<Fault>)))]
#[get("/pictures/<name>")]
pub async fn picture(store: &State<Store>, name: &str) -> Result<Served, ApiError> {
    let kept = store.picture(name).await?;
    let media_type = if kept.media_type == "image/png" { ContentType::PNG } else { ContentType::JPEG };
    let keep = Header::new("Cache-Control", "private, max-age=31536000, immutable");
    Ok(Served { bytes: kept.bytes, media_type, keep })
}
