//! Solids from other programs' drawings, looked at before they are taken, and the site's for them.

use super::answer::{Answer, Written};
use super::body;
use super::desk::Place;
use super::error::ApiError;
use super::guard::LetIn;
use crate::drawing::{Kind, Reader};
use crate::dxf::Unit;
use crate::plan_out::written;
use bright_angle_core::exchange::Import;
use bright_angle_core::file::SiteFile;
use bright_angle_core::{Fault, Site};
use rocket::data::Data;
use rocket::http::ContentType;
use rocket::serde::json::Json;
use rocket::{State, post};
use serde_json::value::RawValue;

/// What a GeoJSON file brings: polygons and lines by layer, and what is left out. Nothing is kept.
#[utoipa::path(post, path = "/api/import/geojson", operation_id = "importGeojson", params(),
    request_body(content = String, content_type = "application/geo+json"),
    responses((status = 200, body = Import), (status = 422, body = Vec<Fault>), (status = 413, body = Vec<Fault>)))]
#[post("/import/geojson", data = "<data>")]
pub async fn import_geojson(
    _in: LetIn,
    place: Place<'_>,
    reader: &State<Reader>,
    data: Data<'_>,
) -> Result<Json<Box<RawValue>>, ApiError> {
    let text = place.text(data, body::LARGEST_MIB).await?;
    let read = async { Ok(reader.read(Kind::Geojson, None, text.content.as_bytes()).await?) };
    place.outside(read).await.map(Json)
}

/// What a DXF file brings, text or binary: lines, outlines, curves and blocks by layer, measured points, and what is left out. Nothing is kept.
#[utoipa::path(post, path = "/api/import/dxf", operation_id = "importDxf",
    params(("unit" = Option<String>, Query, description = "mm, cm, m, in or ft, in place of the header's")),
    request_body(content = String, content_type = "image/vnd.dxf"),
    responses((status = 200, body = Import), (status = 422, body = Vec<Fault>), (status = 413, body = Vec<Fault>)))]
#[post("/import/dxf?<unit>", data = "<data>")]
pub async fn import_dxf(
    _in: LetIn,
    place: Place<'_>,
    reader: &State<Reader>,
    unit: Option<&str>,
    data: Data<'_>,
) -> Result<Json<Box<RawValue>>, ApiError> {
    unit.map(Unit::parse).transpose()?;
    let bytes = place.bytes(data, body::LARGEST_MIB).await?;
    let read = async { Ok(reader.read(Kind::Dxf, unit, &bytes.content).await?) };
    place.outside(read).await.map(Json)
}

/// A site's solids, or its whole plan, for other programs.
#[utoipa::path(post, path = "/api/export/{format}", operation_id = "exportPlan", request_body = SiteFile,
    params(("format" = String, Path, description = "geojson (degrees of WGS 84 where the site has a place), geojson-metres, dxf or svg")),
    responses((status = 200, body = String), (status = 404, body = Vec<Fault>), (status = 422, body = Vec<Fault>), (status = 413, body = Vec<Fault>)))]
#[post("/export/<format>", data = "<data>")]
pub async fn export(_in: LetIn, place: Place<'_>, format: &str, data: Data<'_>) -> Result<Answer, ApiError> {
    let kind = match format {
        "geojson" | "geojson-metres" => ContentType::new("application", "geo+json"),
        "dxf" => ContentType::new("image", "vnd.dxf"),
        "svg" => ContentType::SVG,
        other => {
            return Err(Fault::new("format", format!("\"{other}\" is not geojson, geojson-metres, dxf or svg")).into());
        }
    };
    let format = format.to_owned();
    let text = place.text(data, body::LARGEST_MIB).await?;
    place
        .answer(text, move |text, patience| {
            Written::text(written(Site::parse(text)?, &format, patience)?, kind.clone())
        })
        .await
}
