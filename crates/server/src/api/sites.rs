//! Sites as they are kept: a list, revisions, and saving that overwrites nobody.

use super::answer::Answer;
use super::body;
use super::desk::Place;
use super::error::{ApiError, Conflict};
use super::guard::{By, LetIn};
use crate::store::{Draft, Revision, RevisionHead, SitePage, Store, StoreError, Wanted};
use bright_angle_core::Fault;
use bright_angle_core::file::SiteFile;
use rocket::data::Data;
use rocket::http::Status;
use rocket::response::status::Created;
use rocket::serde::json::Json;
use rocket::{State, delete, get, post, put};
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use utoipa::ToSchema;
use uuid::Uuid;

/// How many sites, or revisions, a page of a list holds if nobody says otherwise, and at most.
const A_PAGE: u16 = 100;
const LARGEST_PAGE: u16 = 500;

/// How the server is.
#[derive(Serialize, ToSchema)]
pub struct Health {
    /// Whether the database answers.
    pub database: bool,
    /// What is wrong, in words; null if all is well.
    #[schema(required)]
    pub wrong: Option<String>,
    /// The program's version.
    pub version: &'static str,
}

/// Whether the server and its database answer, and what is wrong.
#[utoipa::path(get, path = "/api/health", operation_id = "health", params(),
    responses((status = 200, body = Health), (status = 503, body = Health)))]
#[get("/health")]
pub async fn health(_in: LetIn, store: &State<Store>) -> (Status, Json<Health>) {
    let wrong = store.check().await;
    let database = !matches!(wrong, Some(StoreError::Away));
    let status = if wrong.is_none() { Status::Ok } else { Status::ServiceUnavailable };
    let wrong = wrong.map(|error| error.to_string());
    (status, Json(Health { database, wrong, version: env!("CARGO_PKG_VERSION") }))
}

/// The sites, the one saved last first; a page at a time.
#[utoipa::path(get, path = "/api/sites", operation_id = "sites",
    params(("after" = Option<Uuid>, Query, description = "The site to go on after"),
        ("named" = Option<String>, Query, description = "What their names hold"),
        ("most" = Option<u16>, Query, minimum = 1, maximum = 500, description = "How many at most")),
    responses((status = 200, body = SitePage), (status = 422, body = Vec<Fault>), (status = 503, body = Vec<Fault>)))]
#[get("/sites?<after>&<named>&<most>")]
pub async fn list(
    _in: LetIn,
    store: &State<Store>,
    after: Vec<&str>,
    named: Vec<&str>,
    most: Vec<&str>,
) -> Result<Json<SitePage>, ApiError> {
    let (after, named, most) = (once("after", &after)?, once("named", &named)?, once("most", &most)?);
    let after =
        after.map(|id| Uuid::parse_str(id).map_err(|_| Fault::new("after", "is not a site's id"))).transpose()?;
    if named.is_some_and(|name| name.chars().count() > 200 || name.chars().any(char::is_control)) {
        return Err(Fault::new("named", "takes up to 200 characters in one line").into());
    }
    Ok(Json(store.sites(Wanted { after, named, most: page(most)? }).await?))
}

/// A field of a query, said once at most.
fn once<'a>(name: &str, said: &[&'a str]) -> Result<Option<&'a str>, Fault> {
    if said.len() > 1 { Err(Fault::new(name, "is said more than once")) } else { Ok(said.first().copied()) }
}

/// How many a page holds.
fn page(most: Option<&str>) -> Result<i64, Fault> {
    let wrong = || Fault::new("most", format!("is no number from 1 to {LARGEST_PAGE}"));
    let most: u16 = most.map_or(Ok(A_PAGE), str::parse).map_err(|_| wrong())?;
    if (1..=LARGEST_PAGE).contains(&most) { Ok(most.into()) } else { Err(wrong()) }
}

/// A new site.
#[derive(Serialize, ToSchema)]
pub struct CreateRequest {
    /// The site file.
    pub site: SiteFile,
    /// What it is, in a few words.
    #[schema(min_length = 1, max_length = 200)]
    pub says: String,
    /// The id that its maker gave it; a new one where left out. Asked again with the same, nothing is made twice.
    #[schema(required = false)]
    pub id: Option<Uuid>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct CreateEnvelope<'a> {
    #[serde(borrow)]
    site: &'a RawValue,
    says: String,
    #[serde(default)]
    id: Option<Uuid>,
}

/// Keep a new site.
#[utoipa::path(post, path = "/api/sites", operation_id = "createSite", request_body = CreateRequest, params(),
    responses((status = 201, body = Revision), (status = 409, body = Vec<Fault>), (status = 410, body = Vec<Fault>),
        (status = 413, body = Vec<Fault>), (status = 415, body = Vec<Fault>), (status = 422, body = Vec<Fault>),
        (status = 503, body = Vec<Fault>), (status = 507, body = Vec<Fault>)))]
#[post("/sites", data = "<data>")]
pub async fn create(
    _in: LetIn,
    by: By,
    desk: Place<'_>,
    store: &State<Store>,
    data: Data<'_>,
) -> Result<Created<Json<Revision>>, ApiError> {
    let text = desk.text(data, body::LARGEST_MIB).await?;
    let (id, says, site) = desk
        .check(move || {
            let asked: CreateEnvelope = body::envelope(&text.content)?;
            Ok((asked.id, word(&asked.says)?.to_owned(), body::site(asked.site)?))
        })
        .await?;
    let revision = store.create(id, &Draft { site: &site, says: &says, device: by.name() }).await?;
    Ok(Created::new(format!("/api/sites/{}", revision.site_id)).body(Json(revision)))
}

/// A new revision of a site.
#[derive(Serialize, ToSchema)]
pub struct SaveRequest {
    /// The revision that it was made from.
    #[schema(minimum = 0)]
    pub based_on: i32,
    /// What changed, in a few words.
    #[schema(min_length = 1, max_length = 200)]
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
        (status = 410, body = Vec<Fault>), (status = 413, body = Vec<Fault>), (status = 415, body = Vec<Fault>),
        (status = 422, body = Vec<Fault>), (status = 503, body = Vec<Fault>), (status = 507, body = Vec<Fault>)))]
#[put("/sites/<id>", data = "<data>")]
pub async fn save(
    _in: LetIn,
    by: By,
    desk: Place<'_>,
    store: &State<Store>,
    id: &str,
    data: Data<'_>,
) -> Result<Json<Revision>, ApiError> {
    let id = uuid(id)?;
    let text = desk.text(data, body::LARGEST_MIB).await?;
    let (based_on, says, site) = desk
        .check(move || {
            let asked: SaveEnvelope = body::envelope(&text.content)?;
            Ok((asked.based_on, word(&asked.says)?.to_owned(), body::site(asked.site)?))
        })
        .await?;
    match store.save(id, based_on, &Draft { site: &site, says: &says, device: by.name() }).await {
        Ok(revision) => Ok(Json(revision)),
        Err(StoreError::Stale(theirs)) => Err(ApiError::Stale(Box::new(Conflict {
            message: format!(
                "revision {} was saved after revision {}, which this one is based on",
                theirs.number, based_on
            ),
            based_on,
            yours: site.file().clone(),
            theirs: *theirs,
        }))),
        Err(error) => Err(error.into()),
    }
}

/// What has to be typed to delete a site.
#[derive(Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DeleteRequest {
    /// The site's name.
    pub name: String,
}

/// Delete a site for good: its revisions, and the pictures that only it names.
#[utoipa::path(delete, path = "/api/sites/{id}", operation_id = "deleteSite", request_body = DeleteRequest,
    params(("id" = Uuid, Path, description = "The site")),
    responses((status = 204), (status = 404, body = Vec<Fault>), (status = 410, body = Vec<Fault>),
        (status = 413, body = Vec<Fault>), (status = 415, body = Vec<Fault>), (status = 422, body = Vec<Fault>),
        (status = 503, body = Vec<Fault>)))]
#[delete("/sites/<id>", data = "<data>")]
pub async fn delete(
    _in: LetIn,
    desk: Place<'_>,
    store: &State<Store>,
    id: &str,
    data: Data<'_>,
) -> Result<Status, ApiError> {
    let id = uuid(id)?;
    let text = desk.text(data, 1).await?;
    let asked: DeleteRequest = body::envelope(&text.content)?;
    store.delete(id, &asked.name).await?;
    Ok(Status::NoContent)
}

/// The newest revision of a site.
#[utoipa::path(get, path = "/api/sites/{id}", operation_id = "site", params(("id" = Uuid, Path, description = "The site")),
    responses((status = 200, body = Revision), (status = 404, body = Vec<Fault>), (status = 410, body = Vec<Fault>),
        (status = 503, body = Vec<Fault>)))]
#[get("/sites/<id>")]
pub async fn newest(_in: LetIn, desk: Place<'_>, store: &State<Store>, id: &str) -> Result<Answer, ApiError> {
    desk.pass_on(store.newest(uuid(id)?).await?).await
}

/// Revisions of a site without their files, the newest first; a page at a time.
#[utoipa::path(get, path = "/api/sites/{id}/revisions", operation_id = "revisions",
    params(("id" = Uuid, Path, description = "The site"),
        ("under" = Option<i32>, Query, minimum = 1, description = "Only those under this number"),
        ("most" = Option<u16>, Query, minimum = 1, maximum = 500, description = "How many at most")),
    responses((status = 200, body = Vec<RevisionHead>), (status = 404, body = Vec<Fault>), (status = 410, body = Vec<Fault>),
        (status = 422, body = Vec<Fault>), (status = 503, body = Vec<Fault>)))]
#[get("/sites/<id>/revisions?<under>&<most>")]
pub async fn revisions(
    _in: LetIn,
    store: &State<Store>,
    id: &str,
    under: Vec<&str>,
    most: Vec<&str>,
) -> Result<Json<Vec<RevisionHead>>, ApiError> {
    let id = uuid(id)?;
    let (under, most) = (once("under", &under)?, once("most", &most)?);
    let number = |text: &str| text.parse::<i32>().ok().filter(|number| *number > 0);
    let wrong = || Fault::new("under", "is no revision's number");
    let under = under.map(|text| number(text).ok_or_else(wrong)).transpose()?;
    Ok(Json(store.revisions(id, under, page(most)?).await?))
}

/// One revision of a site.
#[utoipa::path(get, path = "/api/sites/{id}/revisions/{number}", operation_id = "revision",
    params(("id" = Uuid, Path, description = "The site"), ("number" = i32, Path, description = "The revision")),
    responses((status = 200, body = Revision), (status = 404, body = Vec<Fault>), (status = 503, body = Vec<Fault>)))]
#[get("/sites/<id>/revisions/<number>")]
pub async fn revision(
    _in: LetIn,
    desk: Place<'_>,
    store: &State<Store>,
    id: &str,
    number: i32,
) -> Result<Answer, ApiError> {
    desk.pass_on(store.revision(uuid(id)?, number).await?).await
}

/// A name for a revision.
#[derive(Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NameRequest {
    /// The name; null takes it away.
    #[serde(deserialize_with = "said")]
    #[schema(required, min_length = 1, max_length = 200)]
    pub name: Option<String>,
    /// Whether it was agreed on with the client.
    #[serde(default)]
    #[schema(required = false)]
    pub agreed: bool,
}

/// A field that must stand there, though it may be null.
fn said<'de, D: serde::Deserializer<'de>>(from: D) -> Result<Option<String>, D::Error> {
    Option::deserialize(from)
}

/// Name a revision, so that it is never thinned out.
#[utoipa::path(put, path = "/api/sites/{id}/revisions/{number}/name", operation_id = "nameRevision", request_body = NameRequest,
    params(("id" = Uuid, Path, description = "The site"), ("number" = i32, Path, description = "The revision")),
    responses((status = 204), (status = 404, body = Vec<Fault>), (status = 413, body = Vec<Fault>), (status = 415, body = Vec<Fault>),
        (status = 422, body = Vec<Fault>), (status = 503, body = Vec<Fault>)))]
#[put("/sites/<id>/revisions/<number>/name", data = "<data>")]
pub async fn name_revision(
    _in: LetIn,
    desk: Place<'_>,
    store: &State<Store>,
    id: &str,
    number: i32,
    data: Data<'_>,
) -> Result<Status, ApiError> {
    let id = uuid(id)?;
    let text = desk.text(data, 1).await?;
    let asked: NameRequest = body::envelope(&text.content)?;
    let name = asked.name.as_deref().map(|name| word(name).map_err(|fault| Fault::new("name", fault.message)));
    store.name_revision(id, number, name.transpose()?, asked.agreed).await?;
    Ok(Status::NoContent)
}

/// An id out of a path.
pub(super) fn uuid(text: &str) -> Result<Uuid, ApiError> {
    Uuid::parse_str(text).map_err(|_| ApiError::Faults(Status::NotFound, vec![Fault::new("id", "is not a site's id")]))
}

/// The short word on what changed.
pub(super) fn word(says: &str) -> Result<&str, Fault> {
    let says = says.trim();
    let fits = (1..=200).contains(&says.chars().count()) && !says.chars().any(char::is_control);
    if fits { Ok(says) } else { Err(Fault::new("says", "takes 1 to 200 characters in one line")) }
}
