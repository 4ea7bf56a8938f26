//! Photos and drawings in and out.

use super::desk::Place;
use super::error::ApiError;
use super::guard::LetIn;
use crate::picture::{LARGEST_MIB, Picture, PictureHead, unpacked_mib};
use crate::store::Store;
use bright_angle_core::Fault;
use rocket::data::Data;
use rocket::http::{ContentType, Header};
use rocket::response::Responder;
use rocket::response::status::Created;
use rocket::serde::json::Json;
use rocket::{State, get, post};

/// Keep a picture: PNG or JPEG, at most 6 MiB and 40 million pixels. As evidence it is kept to the last byte, else written anew.
#[utoipa::path(post, path = "/api/pictures", operation_id = "keepPicture",
    params(("as_it_is" = Option<bool>, Query, description = "As evidence: not a byte of it is changed")),
    request_body(content((Vec<u8> = "image/png"), (Vec<u8> = "image/jpeg"))),
    responses((status = 201, body = PictureHead), (status = 408, body = Vec<Fault>), (status = 415, body = Vec<Fault>), (status = 507, body = Vec<Fault>), (status = 413, body = Vec<Fault>), (status = 422, body = Vec<Fault>), (status = 503, body = Vec<Fault>)))]
#[post("/pictures?<as_it_is>", data = "<data>")]
pub async fn keep(
    _in: LetIn,
    desk: Place<'_>,
    store: &State<Store>,
    as_it_is: Option<bool>,
    data: Data<'_>,
) -> Result<Created<Json<PictureHead>>, ApiError> {
    let bytes = desk.bytes(data, LARGEST_MIB).await?;
    let refused = |message: String| ApiError::from(Fault::new("picture", message));
    let mib = unpacked_mib(&bytes.content).map_err(refused)?;
    let take = move || match as_it_is {
        Some(true) => Picture::take_as_it_is(bytes.content),
        _ => Picture::take(&bytes.content),
    };
    let picture = desk.unpack(mib, move || take().map_err(refused)).await?;
    store.keep_picture(&picture).await?;
    Ok(Created::new(format!("/api/pictures/{}", picture.name)).body(Json(picture.head())))
}

/// A picture's bytes under their own type; they never change.
#[derive(Responder)]
pub struct Served {
    bytes: Vec<u8>,
    media_type: ContentType,
    keep: Header<'static>,
    clock: Header<'static>,
}

/// By how many seconds the clock of the camera that gave a picture was fast; empty where it did not say.
pub const CLOCK_OFF: &str = "X-Clock-Off-S";

impl Served {
    /// A picture that nobody keeps.
    pub fn of(picture: Picture, clock_off_s: Option<i64>) -> Served {
        let media_type = if picture.media_type == "image/png" { ContentType::PNG } else { ContentType::JPEG };
        let clock = Header::new(CLOCK_OFF, clock_off_s.map(|off| off.to_string()).unwrap_or_default());
        Served { bytes: picture.bytes, media_type, keep: Header::new("Cache-Control", "no-store"), clock }
    }
}

/// One picture.
#[utoipa::path(get, path = "/api/pictures/{name}", operation_id = "picture",
    params(("name" = String, Path, description = "The SHA-256 of its bytes, in hex")),
    responses((status = 200, body = Vec<u8>, content_type = "image/*"), (status = 404, body = Vec<Fault>), (status = 503, body = Vec<Fault>)))]
#[get("/pictures/<name>")]
pub async fn picture(_in: LetIn, store: &State<Store>, name: &str) -> Result<Served, ApiError> {
    let kept = store.picture(name).await?;
    let media_type = if kept.media_type == "image/png" { ContentType::PNG } else { ContentType::JPEG };
    let keep = Header::new("Cache-Control", "private, max-age=31536000, immutable");
    Ok(Served { bytes: kept.bytes, media_type, keep, clock: Header::new(CLOCK_OFF, "") })
}
