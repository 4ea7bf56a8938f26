//! The computations: the same core as the command line's, the same JSON.

use super::body;
use super::error::ApiError;
use bright_angle_core::site::Fault;
use bright_angle_core::site::file::{Model, SiteFile};
use bright_angle_core::site::schema::site_schema;
use bright_angle_core::study::Study;
use bright_angle_core::units::Units;
use bright_angle_core::ways::{Question, Ways};
use bright_angle_core::{Evaluation, Site, catalogue as core_catalogue, study as core_study, ways as core_ways};
use rocket::data::Data;
use rocket::serde::json::Json;
use rocket::{get, post};
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use utoipa::ToSchema;

type Answer<T> = Result<Json<T>, ApiError>;

/// Evaluate a site file.
#[utoipa::path(post, path = "/api/evaluate", operation_id = "evaluate", request_body = SiteFile, params(),
    responses((status = 200, body = Evaluation), (status = 422, body = Vec<Fault>), (status = 413, body = Vec<Fault>)))]
#[post("/evaluate", data = "<data>")]
pub async fn evaluate(data: Data<'_>) -> Answer<Evaluation> {
    let text = body::text(data).await?;
    body::compute(move || Ok(Json(bright_angle_core::evaluate(&Site::parse(&text)?)))).await
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
    target: String,
    #[serde(default)]
    units: Units,
}

/// The ways to keep a sight line, best first.
#[utoipa::path(post, path = "/api/ways", operation_id = "ways", request_body = WaysRequest, params(),
    responses((status = 200, body = Ways), (status = 422, body = Vec<Fault>), (status = 413, body = Vec<Fault>)))]
#[post("/ways", data = "<data>")]
pub async fn ways(data: Data<'_>) -> Answer<Ways> {
    let text = body::text(data).await?;
    body::compute(move || {
        let asked: WaysEnvelope = body::envelope(&text)?;
        let site = body::site(asked.site)?;
        let line = Question { camera: asked.camera, head: asked.head, target: asked.target };
        Ok(Json(core_ways::ways(&site, &line, asked.units)?))
    })
    .await
}

/// A site and the sight line in hand.
#[derive(Serialize, ToSchema)]
pub struct StudyRequest {
    /// The site file.
    pub site: SiteFile,
    /// The sight line in hand; none where left out.
    #[schema(required = false)]
    pub line: Option<Question>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct StudyEnvelope<'a> {
    #[serde(borrow)]
    site: &'a RawValue,
    #[serde(default)]
    line: Option<Question>,
}

/// All that the Aim screen draws: evaluation, footprints, section.
#[utoipa::path(post, path = "/api/study", operation_id = "study", request_body = StudyRequest, params(),
    responses((status = 200, body = Study), (status = 422, body = Vec<Fault>), (status = 413, body = Vec<Fault>)))]
#[post("/study", data = "<data>")]
pub async fn study(data: Data<'_>) -> Answer<Study> {
    let text = body::text(data).await?;
    body::compute(move || {
        let asked: StudyEnvelope = body::envelope(&text)?;
        let site = body::site(asked.site)?;
        Ok(Json(core_study::study(&site, asked.line.as_ref())?))
    })
    .await
}

/// The camera models that ship with the program.
#[utoipa::path(get, path = "/api/catalogue", operation_id = "catalogue", responses((status = 200, body = Vec<Model>)))]
#[get("/catalogue")]
pub fn catalogue() -> Answer<Vec<Model>> {
    Ok(Json(core_catalogue::models()?))
}

/// The JSON Schema of the site file.
#[utoipa::path(get, path = "/api/schema", operation_id = "schema", responses((status = 200, body = serde_json::Value)))]
#[get("/schema")]
pub fn schema() -> Json<serde_json::Value> {
    Json(site_schema())
}
