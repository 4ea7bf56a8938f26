//! The firm's own catalogue, as it is kept.

use super::body;
use super::desk::Place;
use super::error::ApiError;
use super::guard::{By, LetIn};
use super::sites::word;
use crate::store::{KeptCatalogue, Saved, Store};
use bright_angle_core::Fault;
use bright_angle_core::equipment::stock::Stock;
use rocket::data::Data;
use rocket::http::Status;
use rocket::serde::json::Json;
use rocket::{State, get, put};
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use utoipa::ToSchema;

/// The firm's own catalogue.
#[utoipa::path(get, path = "/api/catalogue/own", operation_id = "ownCatalogue", params(),
    responses((status = 200, body = KeptCatalogue), (status = 503, body = Vec<Fault>)))]
#[get("/catalogue/own")]
pub async fn own(_in: LetIn, store: &State<Store>) -> Result<Json<KeptCatalogue>, ApiError> {
    Ok(Json(store.catalogue().await?))
}

/// A catalogue to be kept.
#[derive(Serialize, ToSchema)]
pub struct CatalogueRequest {
    /// The number that it was made from; 0 for the first.
    #[schema(minimum = 0)]
    pub based_on: i32,
    /// What changed, in a few words.
    #[schema(min_length = 1, max_length = 200)]
    pub says: String,
    /// The whole catalogue.
    pub catalogue: Stock,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Envelope<'a> {
    based_on: i32,
    says: String,
    #[serde(borrow)]
    catalogue: &'a RawValue,
}

/// Keep the catalogue; refused with the newest where somebody saved in between.
#[utoipa::path(put, path = "/api/catalogue/own", operation_id = "saveOwnCatalogue", request_body = CatalogueRequest, params(),
    responses((status = 200, body = KeptCatalogue), (status = 409, body = KeptCatalogue), (status = 413, body = Vec<Fault>),
        (status = 422, body = Vec<Fault>), (status = 503, body = Vec<Fault>), (status = 507, body = Vec<Fault>)))]
#[put("/catalogue/own", data = "<data>")]
pub async fn save_own(
    _in: LetIn,
    by: By,
    desk: Place<'_>,
    store: &State<Store>,
    data: Data<'_>,
) -> Result<(Status, Json<KeptCatalogue>), ApiError> {
    let text = desk.text(data, body::LARGEST_MIB).await?;
    let (based_on, says, stock) = desk
        .check(move || {
            let asked: Envelope = body::envelope(&text.content)?;
            let stock = Stock::parse(asked.catalogue.get()).map_err(|faults| {
                faults
                    .into_iter()
                    .map(|fault| Fault { path: format!("catalogue.{}", fault.path), ..fault })
                    .collect::<Vec<_>>()
            })?;
            Ok((asked.based_on, word(&asked.says)?.to_owned(), stock))
        })
        .await?;
    Ok(match store.save_catalogue(based_on, &stock, &says, by.name()).await? {
        Saved::Kept(kept) => (Status::Ok, Json(kept)),
        Saved::Stale(newest) => (Status::Conflict, Json(newest)),
    })
}
