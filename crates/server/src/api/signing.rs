//! Agreeing by a link: the desk makes one, a client who is not paired opens it by the local network's door, sees the promises and the
//! expected views, and signs once. Nothing else is shown there, and nothing of the site is changed: what was signed is taken over at the
//! desk.
//!
//! A link's secret is 256 bits behind the number sign, which no browser sends by itself and no log holds. What is shown is data: the page
//! and its script are the server's own.

use super::desk::Place;
use super::error::ApiError;
use super::guard::{AtTheDesk, LetIn};
use super::pairing::{From, qr};
use super::sites::uuid;
use crate::api::body;
use crate::share::{Shared, secret};
use crate::store::{NewLink, SignLink, Store, StoreError, Strokes};
use bright_angle_core::Fault;
use data_encoding::BASE64;
use rocket::data::Data;
use rocket::http::{ContentType, Status};
use rocket::serde::json::Json;
use rocket::{State, delete, get, post, routes};
use serde::{Deserialize, Serialize};
use time::{Duration, OffsetDateTime};
use utoipa::ToSchema;

/// The page to agree at.
const PAGE: &str = "/sign";
/// A link lasts so many days at most.
const LONGEST_DAYS: u16 = 90;
/// A signature has so many points at most.
const MOST_POINTS: usize = 20_000;
/// A sheet shows so many views at most.
const MOST_VIEWS: usize = 128;

/// The routes under `/api`.
pub fn routes() -> Vec<rocket::Route> {
    routes![make, links, end, look, sign]
}

/// What a client opens.
pub fn pages() -> Vec<rocket::Route> {
    routes![page, script]
}

/// What a client is shown to agree on. All of it is plain text but the pictures.
#[derive(Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SignSheet {
    /// What the site is called.
    pub site: String,
    /// Who offers it, for whom, until when: a line.
    pub heading: String,
    /// In which conditions the promises are judged.
    pub conditions: String,
    /// The promises, each with its verdict.
    pub promises: Vec<String>,
    /// What each camera will see.
    pub views: Vec<SignView>,
    /// What the design does not do.
    pub does_not: Vec<String>,
    /// Privacy and sound.
    pub privacy: Vec<String>,
    /// What it costs.
    pub costs: String,
}

/// What a camera will see.
#[derive(Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SignView {
    /// The camera.
    pub name: String,
    /// What it is for.
    pub what_for: String,
    /// The picture, as a `data:` address of a PNG or JPEG.
    pub picture: String,
}

/// A link that is asked for.
#[derive(Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SignLinkRequest {
    /// How long it opens, days.
    #[schema(minimum = 1, maximum = 90)]
    pub days: u16,
    /// The mark of what is shown: SHA-256, hexadecimal.
    pub shown: String,
    /// What is shown.
    pub sheet: SignSheet,
}

/// A link to agree by. Its address is told this once.
#[derive(Serialize, ToSchema)]
pub struct MadeSignLink {
    /// The link.
    pub link: SignLink,
    /// The address that the client opens.
    pub url: String,
    /// The same as a picture (QR code, SVG).
    pub qr_svg: String,
}

/// Make a link by which a client agrees; the local network's door must be open.
#[utoipa::path(post, path = "/api/sites/{id}/links", operation_id = "makeSignLink", request_body = SignLinkRequest,
    params(("id" = uuid::Uuid, Path, description = "The site")),
    responses((status = 201, body = MadeSignLink), (status = 404, body = Vec<Fault>), (status = 409, body = Vec<Fault>),
        (status = 410, body = Vec<Fault>), (status = 415, body = Vec<Fault>), (status = 422, body = Vec<Fault>),
        (status = 507, body = Vec<Fault>)))]
#[post("/sites/<id>/links", data = "<data>")]
pub async fn make(
    _in: LetIn,
    _desk: AtTheDesk,
    desk: Place<'_>,
    sharing: &State<Shared>,
    store: &State<Store>,
    id: &str,
    data: Data<'_>,
) -> Result<(Status, Json<MadeSignLink>), ApiError> {
    let site = uuid(id)?;
    let closed = "the door to the local network is closed: a link would lead nowhere";
    let first = sharing.at().addresses.into_iter().next().ok_or_else(|| ApiError::plain(Status::Conflict, closed))?;
    let text = desk.text(data, body::LARGEST_MIB).await?;
    let asked: SignLinkRequest = desk
        .check(move || {
            let asked: SignLinkRequest = body::envelope(&text.content)?;
            valid(&asked)?;
            Ok(asked)
        })
        .await?;
    let wrong = |wrong: String| ApiError::plain(Status::InternalServerError, &wrong);
    let secret = secret::<32>().map_err(wrong)?;
    let link = NewLink {
        site,
        secret: &secret,
        shown: &asked.shown,
        sheet: serde_json::to_value(&asked.sheet).map_err(|error| wrong(error.to_string()))?,
        ends_at: OffsetDateTime::now_utc() + Duration::days(asked.days.into()),
    };
    let link = store.make_link(link).await?;
    let url = format!("{first}{PAGE}#{secret}");
    let qr_svg = qr(&url).map_err(wrong)?;
    Ok((Status::Created, Json(MadeSignLink { link, url, qr_svg })))
}

/// Whether a link can be made of that.
fn valid(asked: &SignLinkRequest) -> Result<(), Fault> {
    if !(1..=LONGEST_DAYS).contains(&asked.days) {
        return Err(Fault::new("days", format!("{} is not 1 to {LONGEST_DAYS}", asked.days)));
    }
    if asked.shown.len() != 64 || !asked.shown.bytes().all(|byte| matches!(byte, b'0'..=b'9' | b'a'..=b'f')) {
        return Err(Fault::new("shown", "is no SHA-256 in hexadecimal"));
    }
    if asked.sheet.views.len() > MOST_VIEWS {
        return Err(Fault::new("sheet.views", format!("holds {}: {MOST_VIEWS} at most", asked.sheet.views.len())));
    }
    for (place, view) in asked.sheet.views.iter().enumerate() {
        let coded = ["data:image/png;base64,", "data:image/jpeg;base64,"]
            .iter()
            .find_map(|kind| view.picture.strip_prefix(kind));
        if coded.is_none_or(|coded| BASE64.decode_len(coded.len()).is_err() || BASE64.decode(coded.as_bytes()).is_err())
        {
            return Err(Fault::new(format!("sheet.views[{place}].picture"), "is no PNG or JPEG as a data: address"));
        }
    }
    Ok(())
}

/// The links of a site that were not ended, with what was signed.
#[utoipa::path(get, path = "/api/sites/{id}/links", operation_id = "signLinks",
    params(("id" = uuid::Uuid, Path, description = "The site")),
    responses((status = 200, body = Vec<SignLink>), (status = 404, body = Vec<Fault>), (status = 410, body = Vec<Fault>)))]
#[get("/sites/<id>/links")]
pub async fn links(
    _in: LetIn,
    _desk: AtTheDesk,
    store: &State<Store>,
    id: &str,
) -> Result<Json<Vec<SignLink>>, ApiError> {
    Ok(Json(store.links(uuid(id)?).await?))
}

/// End a link: it shows nothing from now on.
#[utoipa::path(delete, path = "/api/sites/{id}/links/{link}", operation_id = "endSignLink",
    params(("id" = uuid::Uuid, Path, description = "The site"), ("link" = uuid::Uuid, Path, description = "The link")),
    responses((status = 204), (status = 404, body = Vec<Fault>), (status = 415, body = Vec<Fault>)))]
#[delete("/sites/<id>/links/<link>")]
pub async fn end(_in: LetIn, _desk: AtTheDesk, store: &State<Store>, id: &str, link: &str) -> Result<Status, ApiError> {
    if store.end_link(uuid(id)?, uuid(link)?).await? {
        Ok(Status::NoContent)
    } else {
        Err(ApiError::plain(Status::NotFound, "there is no such link, or it was ended"))
    }
}

/// What opens a link.
#[derive(Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SignLook {
    /// The link's secret.
    pub secret: String,
}

/// What a link shows.
#[derive(Serialize, ToSchema)]
pub struct SignShown {
    /// The sheet.
    #[schema(value_type = SignSheet)]
    pub sheet: serde_json::Value,
    /// Until when the link opens.
    #[serde(with = "time::serde::rfc3339")]
    pub ends_at: OffsetDateTime,
    /// Who signed already; null before.
    #[schema(required)]
    pub signed_name: Option<String>,
}

/// Open a link to agree by.
#[utoipa::path(post, path = "/api/sign/look", operation_id = "lookAtLink", request_body = SignLook, params(),
    responses((status = 200, body = SignShown), (status = 404, body = Vec<Fault>), (status = 410, body = Vec<Fault>),
        (status = 415, body = Vec<Fault>), (status = 429, body = Vec<Fault>)))]
#[post("/sign/look", data = "<data>")]
pub async fn look(
    _in: LetIn,
    from: From,
    desk: Place<'_>,
    sharing: &State<Shared>,
    store: &State<Store>,
    data: Data<'_>,
) -> Result<Json<SignShown>, ApiError> {
    may_try(sharing, &from)?;
    let text = desk.text(data, 1).await?;
    let asked: SignLook = body::envelope(&text.content)?;
    let opened = store.open_link(&asked.secret).await.map_err(|error| counted(error, sharing, &from))?;
    let sheet = opened.sheet.ok_or(StoreError::LinkOver)?.0;
    Ok(Json(SignShown { sheet, ends_at: opened.ends_at, signed_name: opened.signed_name }))
}

/// A signature by a link.
#[derive(Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SignRequest {
    /// The link's secret.
    pub secret: String,
    /// Who agrees.
    #[schema(min_length = 1, max_length = 300)]
    pub name: String,
    /// Strokes of points, both axes 0 to 1 over a field three times as wide as high.
    #[schema(value_type = Vec<Vec<[f64; 2]>>)]
    pub signature: Strokes,
}

/// Agree by a link, once.
#[utoipa::path(post, path = "/api/sign", operation_id = "signByLink", request_body = SignRequest, params(),
    responses((status = 204), (status = 404, body = Vec<Fault>), (status = 409, body = Vec<Fault>), (status = 410, body = Vec<Fault>),
        (status = 415, body = Vec<Fault>), (status = 422, body = Vec<Fault>), (status = 429, body = Vec<Fault>),
        (status = 507, body = Vec<Fault>)))]
#[post("/sign", data = "<data>")]
pub async fn sign(
    _in: LetIn,
    from: From,
    desk: Place<'_>,
    sharing: &State<Shared>,
    store: &State<Store>,
    data: Data<'_>,
) -> Result<Status, ApiError> {
    may_try(sharing, &from)?;
    let text = desk.text(data, 1).await?;
    let asked: SignRequest = body::envelope(&text.content)?;
    let name = asked.name.trim();
    if !(1..=300).contains(&name.chars().count()) || name.chars().any(char::is_control) {
        return Err(Fault::new("name", "takes 1 to 300 characters in one line").into());
    }
    let points: usize = asked.signature.iter().map(Vec::len).sum();
    let inside = |point: &[f64; 2]| point.iter().all(|axis| (0.0..=1.0).contains(axis));
    if !(1..=MOST_POINTS).contains(&points)
        || asked.signature.iter().any(Vec::is_empty)
        || !asked.signature.iter().flatten().all(inside)
    {
        return Err(Fault::new("signature", "takes strokes inside its field").into());
    }
    let done = store.sign_link(&asked.secret, name, asked.signature).await;
    done.map_err(|error| counted(error, sharing, &from))?;
    Ok(Status::NoContent)
}

fn may_try(sharing: &Shared, from: &From) -> Result<(), ApiError> {
    if sharing.crowd.may_try(from.0) {
        Ok(())
    } else {
        Err(ApiError::plain(Status::TooManyRequests, "too many wrong links; wait a minute"))
    }
}

/// Counts a link that was guessed.
fn counted(error: StoreError, sharing: &Shared, from: &From) -> ApiError {
    if matches!(error, StoreError::NoLink) {
        sharing.crowd.was_wrong(from.0);
    }
    error.into()
}

/// The page to agree at. It stands alone, and comes by the local network's door only.
#[get("/sign")]
pub fn page(_in: LetIn, _from: From) -> (ContentType, &'static str) {
    (ContentType::HTML, include_str!("signing/page.html"))
}

/// Its script.
#[get("/sign.js")]
pub fn script(_in: LetIn, _from: From) -> (ContentType, &'static str) {
    (ContentType::JavaScript, include_str!("signing/page.js"))
}
