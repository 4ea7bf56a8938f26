//! Data sheets, read for whoever enters a camera model.

use super::body;
use super::desk::Place;
use super::error::ApiError;
use super::guard::LetIn;
use crate::drawing::{Kind, Reader};
use bright_angle_core::Fault;
use bright_angle_core::equipment::sheet::Sheet;
use rocket::data::Data;
use rocket::serde::json::Json;
use rocket::{State, post};
use serde_json::value::RawValue;

/// What a data sheet says of the cameras in it: text or a PDF. Nothing is kept.
#[utoipa::path(post, path = "/api/sheet", operation_id = "readSheet", params(),
    request_body(content((Vec<u8> = "application/pdf"), (String = "text/plain"))),
    responses((status = 200, body = Sheet), (status = 422, body = Vec<Fault>), (status = 413, body = Vec<Fault>)))]
#[post("/sheet", data = "<data>")]
pub async fn sheet(
    _in: LetIn,
    place: Place<'_>,
    reader: &State<Reader>,
    data: Data<'_>,
) -> Result<Json<Box<RawValue>>, ApiError> {
    let bytes = place.bytes(data, body::LARGEST_MIB).await?;
    let read = async { Ok(reader.read(Kind::Sheet, None, &bytes.content).await?) };
    place.outside(read).await.map(Json)
}
