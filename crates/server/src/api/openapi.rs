//! The OpenAPI document, from which the front end's types are generated.

use super::{compute, error, pictures, sites, survey};
use rocket::get;
use rocket::serde::json::Json;
use utoipa::OpenApi;

#[derive(OpenApi)]
#[openapi(
    info(title = "Bright Angle", description = "Sites, their evaluation and the ways to keep a promise."),
    paths(
        compute::evaluate,
        compute::ways,
        compute::section,
        compute::relief,
        compute::catalogue,
        compute::schema,
        survey::survey,
        survey::adjust,
        survey::first_answer,
        survey::write_readings,
        survey::read_readings,
        survey::world_file,
        survey::measure,
        openapi,
        sites::health,
        sites::list,
        sites::create,
        sites::newest,
        sites::save,
        sites::delete,
        sites::revisions,
        sites::revision,
        sites::name_revision,
        pictures::keep,
        pictures::picture
    ),
    components(schemas(
        error::Conflict,
        // What a core in the browser is told and asked.
        bright_angle_core::file::SiteChange,
        bright_angle_core::answer::Ask,
        bright_angle_core::answer::Sights,
        bright_angle_core::change::compare::Difference,
        bright_angle_core::change::merge::Merged,
        bright_angle_core::change::edits::Aim,
        bright_angle_core::survey::TakenShot,
        bright_angle_core::words::guide::Guide
    ))
)]
struct Document;

/// The OpenAPI document of the server.
pub fn document() -> utoipa::openapi::OpenApi {
    Document::openapi()
}

/// This document.
#[utoipa::path(get, path = "/api/openapi.json", operation_id = "openapi", responses((status = 200, body = serde_json::Value)))]
#[get("/openapi.json")]
pub fn openapi() -> Json<utoipa::openapi::OpenApi> {
    Json(document())
}
