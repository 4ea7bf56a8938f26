//! The OpenAPI document, from which the front end's types are generated.

use super::guard::LetIn;
use super::{
    catalogue, compute, error, exchange, pairing, papers, pictures, sheets, signing, sites, snapshots, standings,
    survey, upkeep, wiring,
};
use rocket::get;
use rocket::serde::json::Json;
use utoipa::OpenApi;
use utoipa::openapi::{ContentBuilder, Ref, ResponseBuilder};

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
        exchange::import_geojson,
        exchange::import_dxf,
        exchange::export,
        sheets::sheet,
        survey::survey,
        survey::adjust,
        survey::first_answer,
        survey::write_readings,
        survey::read_readings,
        survey::world_file,
        survey::measure,
        papers::papers,
        wiring::route,
        wiring::switch,
        snapshots::snapshot,
        snapshots::stand_in_picture,
        snapshots::stand_in_turn,
        upkeep::calendar,
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
        standings::standing,
        catalogue::own,
        catalogue::save_own,
        pictures::keep,
        pictures::picture,
        pairing::share,
        pairing::set_share,
        pairing::code,
        pairing::end,
        pairing::me,
        pairing::authority,
        pairing::pair,
        signing::make,
        signing::links,
        signing::end,
        signing::look,
        signing::sign
    ),
    modifiers(&Always),
    components(schemas(
        error::Conflict,
        // What a core in the browser is told and asked.
        bright_angle_core::file::SiteChange,
        bright_angle_core::picture::PictureWish,
        bright_angle_core::picture::PictureTold,
        bright_angle_core::answer::Ask,
        bright_angle_core::answer::Answer,
        bright_angle_core::offer::asked::OfferAsk,
        bright_angle_core::offer::asked::OfferAnswer,
        bright_angle_core::show::coverage::live_relief::ReliefWish
    ))
)]
struct Document;

/// What any request may be answered: by the guard, by the door, by a body that does not arrive, by a server that is busy.
struct Always;

/// Statuses that every operation may answer, and those that one with a body may answer beside them.
const EVERY: [(&str, &str); 5] = [
    ("401", "The request comes by the local network's door, from a device that is not paired"),
    ("403", "The request comes from a foreign page"),
    ("421", "The request is addressed to another server"),
    ("500", "Something went wrong inside; the server's log says what"),
    ("503", "Just now it does not go; `Retry-After` says when to ask again"),
];
const WITH_BODY: [(&str, &str); 4] = [
    ("400", "The body cannot be read"),
    ("408", "The body took too long to arrive"),
    ("413", "The body is too large"),
    ("422", "The body makes no sense: each fault with its place; or what it asks for is too large"),
];

impl utoipa::Modify for Always {
    fn modify(&self, document: &mut utoipa::openapi::OpenApi) {
        let faults = utoipa::openapi::schema::ArrayBuilder::new().items(Ref::from_schema_name("Fault"));
        let content = ContentBuilder::new().schema(Some(faults)).build();
        for item in document.paths.paths.values_mut() {
            let operations = [&mut item.get, &mut item.put, &mut item.post, &mut item.delete];
            for operation in operations.into_iter().flatten() {
                let body = operation.request_body.is_some();
                let answers = EVERY.iter().chain(WITH_BODY.iter().filter(|_| body));
                for (status, says) in answers {
                    let held = &mut operation.responses.responses;
                    if !held.contains_key(*status) {
                        let answer =
                            ResponseBuilder::new().description(*says).content("application/json", content.clone());
                        held.insert((*status).to_owned(), answer.build().into());
                    }
                }
            }
        }
    }
}

/// The OpenAPI document of the server.
pub fn document() -> utoipa::openapi::OpenApi {
    Document::openapi()
}

/// This document.
#[utoipa::path(get, path = "/api/openapi.json", operation_id = "openapi", responses((status = 200, body = serde_json::Value)))]
#[get("/openapi.json")]
pub fn openapi(_in: LetIn) -> Json<utoipa::openapi::OpenApi> {
    Json(document())
}
