//! What is due at a site, as a calendar.

use super::answer::{Answer, Written};
use super::body;
use super::desk::Place;
use super::error::ApiError;
use super::guard::LetIn;
use crate::calendar::calendar as written;
use crate::picture::digest;
use bright_angle_core::Fault;
use bright_angle_core::file::SiteFile;
use bright_angle_core::judge::Session;
use bright_angle_core::prove::due::due;
use bright_angle_core::show::sun::sun_told::sun_year;
use rocket::data::Data;
use rocket::http::ContentType;
use rocket::post;
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use utoipa::ToSchema;

/// A site, and the day that is asked about.
#[derive(Serialize, ToSchema)]
pub struct CalendarRequest {
    /// The site file.
    pub site: SiteFile,
    /// What the site is known by: the same thing keeps its place in a calendar.
    pub id: String,
    /// The day, as in `2027-05-30`.
    pub on: String,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct CalendarEnvelope<'a> {
    #[serde(borrow)]
    site: &'a RawValue,
    id: String,
    on: String,
}

/// What is due at a site as iCalendar (RFC 5545).
#[utoipa::path(post, path = "/api/calendar", operation_id = "calendar", request_body = CalendarRequest, params(),
    responses((status = 200, content_type = "text/calendar", body = String), (status = 422, body = Vec<Fault>),
        (status = 413, body = Vec<Fault>)))]
#[post("/calendar", data = "<data>")]
pub async fn calendar(_in: LetIn, place: Place<'_>, data: Data<'_>) -> Result<Answer, ApiError> {
    let text = place.text(data, body::LARGEST_MIB).await?;
    place
        .answer(text, |text, patience| {
            let asked: CalendarEnvelope = body::envelope(text)?;
            let session =
                Session::within(body::site(asked.site)?, patience).map_err(|over| Fault::new("", over.to_string()))?;
            let year = asked.on.get(..4).and_then(|year| year.parse().ok());
            let sun = year.and_then(|year| sun_year(session.site(), year).ok());
            let found = due(&session, &asked.on, sun.as_ref())?;
            // An id may hold anything; its digest is a plain name.
            let key = digest(asked.id.as_bytes());
            let bytes = written(&session.site().file().name, &key[..16], &found).into_bytes();
            Ok(Written { bytes, kind: ContentType::Calendar })
        })
        .await
}
