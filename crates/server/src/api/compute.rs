//! The computations: the same core as the command line's, the same JSON.

use super::answer::{Answer, Written};
use super::body;
use super::desk::Place;
use super::error::ApiError;
use super::guard::LetIn;
use crate::relief::{asked_grid, whole_relief};
use bright_angle_core::change::ways::{Ways, ways_within};
use bright_angle_core::equipment::catalogue as core_catalogue;
use bright_angle_core::file::schema::site_schema;
use bright_angle_core::file::{Model, Question, SiteFile};
use bright_angle_core::judge::{Evaluation, Session};
use bright_angle_core::show::coverage::section::{Section, section as core_section};
use bright_angle_core::words::units::Units;
use bright_angle_core::{Fault, Site, evaluate_within};
use rocket::data::Data;
use rocket::http::ContentType;
use rocket::serde::json::Json;
use rocket::{get, post};
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use utoipa::ToSchema;

/// Evaluate a site file.
#[utoipa::path(post, path = "/api/evaluate", operation_id = "evaluate", request_body = SiteFile, params(),
    responses((status = 200, body = Evaluation), (status = 422, body = Vec<Fault>), (status = 413, body = Vec<Fault>)))]
#[post("/evaluate", data = "<data>")]
pub async fn evaluate(_in: LetIn, place: Place<'_>, data: Data<'_>) -> Result<Answer, ApiError> {
    let text = place.text(data, body::LARGEST_MIB).await?;
    place.answer(text, |text, patience| Written::json(&evaluate_within(&Site::parse(text)?, patience)?)).await
}

/// A site and one of its sight lines.
#[derive(Serialize, ToSchema)]
pub struct WaysRequest {
    /// The site file.
    pub site: SiteFile,
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// The id of one of its presets or flattened views; null for its own aim.
    #[schema(required = false)]
    pub view: Option<String>,
    /// The target's id.
    pub target: String,
    /// Units of the words; metres where left out.
    #[schema(required = false)]
    pub units: Units,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct WaysEnvelope<'a> {
    #[serde(borrow)]
    site: &'a RawValue,
    camera: String,
    head: String,
    #[serde(default)]
    view: Option<String>,
    target: String,
    #[serde(default)]
    units: Units,
}

/// The ways to keep a sight line, best first.
#[utoipa::path(post, path = "/api/ways", operation_id = "ways", request_body = WaysRequest, params(),
    responses((status = 200, body = Ways), (status = 422, body = Vec<Fault>), (status = 413, body = Vec<Fault>)))]
#[post("/ways", data = "<data>")]
pub async fn ways(_in: LetIn, place: Place<'_>, data: Data<'_>) -> Result<Answer, ApiError> {
    let text = place.text(data, body::LARGEST_MIB).await?;
    place
        .answer(text, |text, patience| {
            let asked: WaysEnvelope = body::envelope(text)?;
            let site = body::site(asked.site)?;
            let line = Question { camera: asked.camera, head: asked.head, view: asked.view, target: asked.target };
            let session = Session::within(site, patience)?;
            Written::json(&ways_within(&session, &line, asked.units, patience)?)
        })
        .await
}

/// The upright cut along a sight line.
#[utoipa::path(post, path = "/api/section", operation_id = "section", request_body = WaysRequest, params(),
    responses((status = 200, body = Section), (status = 422, body = Vec<Fault>), (status = 413, body = Vec<Fault>)))]
#[post("/section", data = "<data>")]
pub async fn section(_in: LetIn, place: Place<'_>, data: Data<'_>) -> Result<Answer, ApiError> {
    let text = place.text(data, body::LARGEST_MIB).await?;
    place
        .answer(text, |text, patience| {
            let asked: WaysEnvelope = body::envelope(text)?;
            let line = Question { camera: asked.camera, head: asked.head, view: asked.view, target: asked.target };
            let session = Session::within(body::site(asked.site)?, patience)?;
            Written::json(&core_section(&session, &line)?)
        })
        .await
}

/// A site and the cells that its relief is wanted for.
#[derive(Serialize, ToSchema)]
pub struct ReliefRequest {
    /// The site file.
    pub site: SiteFile,
    /// Height that is looked at, m.
    pub at_height_m: f64,
    /// Side of a cell, m.
    pub cell_m: f64,
    /// West, south, east, north, m.
    pub bounds: [f64; 4],
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct ReliefEnvelope<'a> {
    #[serde(borrow)]
    site: &'a RawValue,
    at_height_m: f64,
    cell_m: f64,
    bounds: [f64; 4],
}

/// The best pixel density of any head, cell by cell, as an ESRI ASCII grid.
#[utoipa::path(post, path = "/api/relief", operation_id = "relief", request_body = ReliefRequest, params(),
    responses((status = 200, body = String, content_type = "text/plain"), (status = 422, body = Vec<Fault>), (status = 413, body = Vec<Fault>)))]
#[post("/relief", data = "<data>")]
pub async fn relief(_in: LetIn, place: Place<'_>, data: Data<'_>) -> Result<Answer, ApiError> {
    let text = place.text(data, body::LARGEST_MIB).await?;
    place
        .answer(text, |text, patience| {
            let asked: ReliefEnvelope = body::envelope(text)?;
            let cells = asked_grid(asked.bounds, asked.cell_m, asked.at_height_m)?;
            let relief = whole_relief(&body::site(asked.site)?, cells, asked.at_height_m, patience)?;
            Written::text(relief.to_ascii_grid(), ContentType::Plain)
        })
        .await
}

/// The camera models that ship with the program.
#[utoipa::path(get, path = "/api/catalogue", operation_id = "catalogue", responses((status = 200, body = Vec<Model>)))]
#[get("/catalogue")]
pub fn catalogue(_in: LetIn) -> Result<Json<Vec<Model>>, ApiError> {
    Ok(Json(core_catalogue::models()?))
}

/// The JSON Schema of the site file.
#[utoipa::path(get, path = "/api/schema", operation_id = "schema", responses((status = 200, body = serde_json::Value)))]
#[get("/schema")]
pub fn schema(_in: LetIn) -> Json<serde_json::Value> {
    Json(site_schema())
}
