//! The papers of a site as a PDF.

use super::answer::{Answer, LARGEST, Written};
use super::body;
use super::desk::Place;
use super::error::ApiError;
use super::guard::LetIn;
use crate::papers::{PaperPart, PaperSize, PaperWish, pdf};
use crate::store::Store;
use bright_angle_core::file::SiteFile;
use bright_angle_core::judge::Session;
use bright_angle_core::words::units::Units;
use bright_angle_core::{Fault, Site};
use rocket::data::Data;
use rocket::http::ContentType;
use rocket::{State, post};
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use std::collections::HashMap;
use utoipa::ToSchema;

/// Photos that are laid in may have so many bytes together; what is more is left out.
const MOST_PHOTOS: usize = 24 << 20;
/// So many parts there may be.
const MOST_PARTS: usize = 24;

/// A site, and which papers of it.
#[derive(Serialize, ToSchema)]
pub struct PapersRequest {
    /// The site file.
    pub site: SiteFile,
    /// The parts, in their order.
    pub parts: Vec<PaperPart>,
    /// The size of a page.
    #[schema(required = false)]
    pub paper: PaperSize,
    /// Units of lengths.
    #[schema(required = false)]
    pub units: Units,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct PapersEnvelope<'a> {
    #[serde(borrow)]
    site: &'a RawValue,
    parts: Vec<PaperPart>,
    #[serde(default)]
    paper: PaperSize,
    #[serde(default)]
    units: Units,
}

/// The papers of a site, typeset.
#[utoipa::path(post, path = "/api/papers", operation_id = "papers", request_body = PapersRequest, params(),
    responses((status = 200, content_type = "application/pdf", body = Vec<u8>), (status = 422, body = Vec<Fault>),
        (status = 413, body = Vec<Fault>)))]
#[post("/papers", data = "<data>")]
pub async fn papers(_in: LetIn, place: Place<'_>, store: &State<Store>, data: Data<'_>) -> Result<Answer, ApiError> {
    let text = place.text(data, body::LARGEST_MIB).await?;
    let names = photo_names(&text.content)?;
    let mut photos: HashMap<String, Vec<u8>> = HashMap::new();
    let mut bytes = 0;
    for name in names {
        // A photo that is not there, or not yet, is left out.
        let Ok(kept) = store.picture(&name).await else { continue };
        if bytes + kept.bytes.len() <= MOST_PHOTOS {
            bytes += kept.bytes.len();
            photos.insert(name, kept.bytes);
        }
    }
    place
        .long_answer(text, move |text, patience| {
            let asked: PapersEnvelope = body::envelope(text)?;
            let wish = PaperWish { parts: asked.parts, size: asked.paper, units: asked.units };
            let session =
                Session::within(body::site(asked.site)?, patience).map_err(|over| Fault::new("", over.to_string()))?;
            let bytes = pdf(&session, &photos, &wish, patience)?;
            if bytes.len() > LARGEST {
                let says = format!("the papers would be larger than {} MiB; ask for fewer parts", LARGEST >> 20);
                return Err(Fault::new("parts", says).into());
            }
            Ok(Written { bytes, kind: ContentType::PDF })
        })
        .await
}

/// The photos that the papers may hold: of each camera the first of its fitting or from its spot, and those that its view
/// may be laid into.
fn photo_names(text: &str) -> Result<Vec<String>, ApiError> {
    let asked: PapersEnvelope = body::envelope(text)?;
    if asked.parts.is_empty() || asked.parts.len() > MOST_PARTS {
        return Err(Fault::new("parts", format!("1 to {MOST_PARTS} parts are possible")).into());
    }
    if !asked.parts.contains(&PaperPart::Views) {
        return Ok(vec![]);
    }
    let site: Site = body::site(asked.site)?;
    let file = site.file();
    let spot = |id: &Option<String>| file.spots.iter().find(|spot| Some(&spot.id) == id.as_ref());
    let of = file.cameras.iter().flat_map(|camera| {
        let fitted = camera.fitting.as_ref().and_then(|fitting| fitting.photos.first());
        let spots = spot(&camera.spot).map_or(&[][..], |spot| spot.photos.as_slice());
        let clicked = spots.iter().filter(|photo| !photo.marks.is_empty());
        clicked.chain(fitted.or(spots.first()))
    });
    let names: std::collections::BTreeSet<String> = of.map(|photo| photo.picture.clone()).collect();
    Ok(names.into_iter().collect())
}
