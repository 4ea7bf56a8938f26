//! Where each site stands, for the list of sites: worked out when somebody looks at it, and kept as long as its revision is the newest.

use super::body;
use super::desk::Place;
use super::error::ApiError;
use super::guard::LetIn;
use super::sites::uuid;
use crate::store::Store;
use bright_angle_core::Fault;
use bright_angle_core::answer::standing::{Standing, standing as stands};
use rocket::serde::json::Json;
use rocket::{State, get};
use std::collections::HashMap;
use std::sync::Mutex;
use uuid::Uuid;

/// How many are kept; past that all are forgotten and worked out again when they are asked for.
const MOST_KEPT: usize = 2000;

/// What was worked out, by site, with the revision that it is of.
#[derive(Default)]
pub struct Standings(Mutex<HashMap<Uuid, (i32, Standing)>>);

impl Standings {
    fn of(&self, site: Uuid, revision: i32) -> Option<Standing> {
        let kept = self.0.lock().ok()?;
        kept.get(&site).filter(|(number, _)| *number == revision).map(|(_, standing)| standing.clone())
    }

    fn keep(&self, site: Uuid, revision: i32, standing: &Standing) {
        let Ok(mut kept) = self.0.lock() else { return };
        if kept.len() >= MOST_KEPT {
            kept.clear();
        }
        kept.insert(site, (revision, standing.clone()));
    }
}

/// Where a site stands: how its promises stand, what is left to ask, and its plan drawn small.
#[utoipa::path(get, path = "/api/sites/{id}/standing", operation_id = "standing",
    params(("id" = Uuid, Path, description = "The site")),
    responses((status = 200, body = Standing), (status = 404, body = Vec<Fault>), (status = 410, body = Vec<Fault>),
        (status = 422, body = Vec<Fault>), (status = 503, body = Vec<Fault>)))]
#[get("/sites/<id>/standing")]
pub async fn standing(
    _in: LetIn,
    desk: Place<'_>,
    store: &State<Store>,
    known: &State<Standings>,
    id: &str,
) -> Result<Json<Standing>, ApiError> {
    let id = uuid(id)?;
    if let Some(known) = store.newest_number(id).await?.and_then(|number| known.of(id, number)) {
        return Ok(Json(known));
    }
    let newest = store.newest(id).await?;
    let site = newest.site;
    let found = desk.compute(move |patience| Ok(stands(body::site(&site)?, patience)?)).await?;
    known.keep(id, newest.number, &found);
    Ok(Json(found))
}
