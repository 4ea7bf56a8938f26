//! Sites as they are kept: a list, revisions, and saving that overwrites nobody.

use super::body;
use super::error::{ApiError, Conflict};
use crate::store::{Draft, Revision, RevisionHead, SiteHead, Store, StoreError};
use bright_angle_core::Fault;
use bright_angle_core::file::SiteFile;
use rocket::data::Data;
use rocket::http::Status;
use rocket::response::status::Created;
use rocket::serde::json::Json;
use rocket::{State, get, post, put};
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use utoipa::ToSchema;
use uuid::Uuid;

/// How the server is.
#[derive(Serialize, ToSchema)]
pub struct Health {
    /// Whether the database answers.
    pub database: bool,
    /// The program's version.
    pub version: &'static str,
}

/// Whether the server and its database answer.
#[utoipa::path(get, path = "/api/health", operation_id = "health", params(),
    responses((status = 200, body = Health), (status = 503, body = Health)))]
#[get("/health")]
pub async fn health(store: &State<Store>) -> (Status, Json<Health>) {
    let database = store.answers().await;
    let status = if database { Status::Ok } else { Status::ServiceUnavailable };
    (status, Json(Health { database, version: env!("CARGO_PKG_VERSION") }))
}

/// All sites, the one saved last first.
#[utoipa::path(get, path = "/api/sites", operation_id = "sites", params(),
    responses((status = 200, body = Vec<SiteHead>), (status = 503, body = Vec<Fault>)))]
#[get("/sites")]
pub async fn list(store: &State<Store>) -> Result<Json<Vec<SiteHead>>, ApiError> {
    Ok(Json(store.sites().await?))
}

/// A new site.
#[derive(Serialize, ToSchema)]
pub struct CreateRequest {
    /// The site file.
    pub site: SiteFile,
    /// What it is, in a few words.
    pub says: String,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct CreateEnvelope<'a> {
    #[serde(borrow)]
    site: &'a RawValue,
    says: String,
}

/// Keep a new site.
#[utoipa::path(post, path = "/api/sites", operation_id = "createSite", request_body = CreateRequest, params(),
    responses((status = 201, body = Revision), (status = 422, body = Vec<Fault>), (status = 503, body = Vec<Fault>)))]
#[post("/sites", data = "<data>")]
pub async fn create(store: &State<Store>, data: Data<'_>) -> Result<Created<Json<Revision>>, ApiError> {
    let text = body::text(data).await?;
    let asked: CreateEnvelope = body::envelope(&text)?;
    let says = word(&asked.says)?;
    let site = body::site(asked.site)?;
    let revision = store.create(&Draft { site: &site, says }).await?;
    Ok(Created::new(format!("/api/sites/{}", revision.site_id)).body(Json(revision)))
}

/// A new revision of a site.
#[derive(Serialize, ToSchema)]
pub struct SaveRequest {
    /// The revision that it was made from.
    pub based_on: i32,
    /// What changed, in a few words.
    pub says: String,
    /// The whole site file.
    pub site: SiteFile,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct SaveEnvelope<'a> {
    based_on: i32,
    says: String,
    #[serde(borrow)]
    site: &'a RawValue,
}

/// Keep a new revision of a site; refused with both sides when somebody saved in between.
#[utoipa::path(put, path = "/api/sites/{id}", operation_id = "saveSite", request_body = SaveRequest,
    params(("id" = Uuid, Path, description = "The site")),
    responses((status = 200, body = Revision), (status = 404, body = Vec<Fault>), (status = 409, body = Conflict),
        (status = 422, body = Vec<Fault>), (status = 503, body = Vec<Fault>)))]
#[put("/sites/<id>", data = "<data>")]
pub async fn save(store: &State<Store>, id: &str, data: Data<'_>) -> Result<Json<Revision>, ApiError> {
    let id = uuid(id)?;
    let text = body::text(data).await?;
    let asked: SaveEnvelope = body::envelope(&text)?;
    let says = word(&asked.says)?;
    let site = body::site(asked.site)?;
    match store.save(id, asked.based_on, &Draft { site: &site, says }).await {
        Ok(revision) => Ok(Json(revision)),
        Err(StoreError::Stale(theirs)) => Err(ApiError::Stale(Box::new(Conflict {
            message: format!(
                "revision {} was saved after revision {}, which this one is based on",
                theirs.number, asked.based_on
            ),
            based_on: asked.based_on,
            yours: site.file().clone(),
            theirs: *theirs,
        }))),
        Err(error) => Err(error.into()),
    }
}

/// The newest revision of a site.
#[utoipa::path(get, path = "/api/sites/{id}", operation_id = "site", params(("id" = Uuid, Path, description = "The site")),
    responses((status = 200, body = Revision), (status = 404, body = Vec<Fault>), (status = 503, body = Vec<Fault>)))]
#[get("/sites/<id>")]
pub async fn newest(store: &State<Store>, id: &str) -> Result<Json<Revision>, ApiError> {
    Ok(Json(store.newest(uuid(id)?).await?))
}

/// All revisions of a site without their files, the newest first.
#[utoipa::path(get, path = "/api/sites/{id}/revisions", operation_id = "revisions",
    params(("id" = Uuid, Path, description = "The site")),
    responses((status = 200, body = Vec<RevisionHead>), (status = 404, body = Vec<Fault>), (status = 503, body = Vec<Fault>)))]
#[get("/sites/<id>/revisions")]
pub async fn revisions(store: &State<Store>, id: &str) -> Result<Json<Vec<RevisionHead>>, ApiError> {
    Ok(Json(store.revisions(uuid(id)?).await?))
}

/// One revision of a site.
#[utoipa::path(get, path = "/api/sites/{id}/revisions/{number}", operation_id = "revision",
    params(("id" = Uuid, Path, description = "The site"), ("number" = i32, Path, description = "The revision")),
    responses((status = 200, body = Revision), (status = 404, body = Vec<Fault>), (status = 503, body = Vec<Fault>)))]
#[get("/sites/<id>/revisions/<number>")]
pub async fn revision(store: &State<Store>, id: &str, number: i32) -> Result<Json<Revision>, ApiError> {
    Ok(Json(store.revision(uuid(id)?, number).await?))
}

/// An id out of a path.
fn uuid(text: &str) -> Result<Uuid, ApiError> {
    Uuid::parse_str(text).map_err(|_| ApiError::Faults(Status::NotFound, vec![Fault::new("id", "is not a site's id")]))
}

/// The short word on what changed.
fn word(says: &str) -> Result<&str, Fault> {
    let says = says.trim();
    let fits = (1..=200).contains(&says.chars().count()) && !says.chars().any(char::is_control);
    if fits { Ok(says) } else { Err(Fault::new("says", "takes 1 to 200 characters in one line")) }
}
