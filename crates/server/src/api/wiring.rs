//! The wiring: routing, and what the switch reports.

use super::answer::{Answer, Written};
use super::body;
use super::desk::Place;
use super::error::ApiError;
use super::guard::LetIn;
use crate::device::{Broken, read_switch};
use bright_angle_core::Fault;
use bright_angle_core::file::{NodeKind, SiteFile};
use bright_angle_core::wire::read_switch::{SwitchReport, planned};
use bright_angle_core::wire::route::{RouteWish, Routed, route as core_route};
use bright_angle_core::wire::store::store;
use rocket::data::Data;
use rocket::http::Status;
use rocket::serde::json::Json;
use rocket::{State, post};
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use std::net::SocketAddr;
use utoipa::ToSchema;

/// Where the managed switch answers.
pub struct SwitchAt(pub SocketAddr);

/// A site, and what counts most where it is wired.
#[derive(Serialize, ToSchema)]
pub struct RouteRequest {
    /// The site file.
    pub site: SiteFile,
    /// What counts most.
    #[schema(required = false)]
    pub wish: RouteWish,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct RouteEnvelope<'a> {
    #[serde(borrow)]
    site: &'a RawValue,
    #[serde(default)]
    wish: RouteWish,
}

/// Wire what is not wired yet.
#[utoipa::path(post, path = "/api/route", operation_id = "route", request_body = RouteRequest, params(),
    responses((status = 200, body = Routed), (status = 422, body = Vec<Fault>), (status = 413, body = Vec<Fault>)))]
#[post("/route", data = "<data>")]
pub async fn route(_in: LetIn, place: Place<'_>, data: Data<'_>) -> Result<Answer, ApiError> {
    let text = place.text(data, body::LARGEST_MIB).await?;
    place
        .answer(text, |text, _| {
            let asked: RouteEnvelope = body::envelope(text)?;
            Written::json(&core_route(body::site(asked.site)?.file(), asked.wish)?)
        })
        .await
}

/// A site, and the box of it that is read.
#[derive(Serialize, ToSchema)]
pub struct ReadSwitchRequest {
    /// The site file.
    pub site: SiteFile,
    /// The id of the switch or recorder.
    pub node: String,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct ReadSwitchEnvelope<'a> {
    #[serde(borrow)]
    site: &'a RawValue,
    node: String,
}

/// Read a switch: links, power and cable tests of its ports. 424 when it does not answer.
#[utoipa::path(post, path = "/api/switch", operation_id = "readSwitch", request_body = ReadSwitchRequest, params(),
    responses((status = 200, body = SwitchReport), (status = 422, body = Vec<Fault>), (status = 424, body = Vec<Fault>)))]
#[post("/switch", data = "<data>")]
pub async fn switch(
    _in: LetIn,
    place: Place<'_>,
    at: &State<SwitchAt>,
    data: Data<'_>,
) -> Result<Json<SwitchReport>, ApiError> {
    let text = place.text(data, body::LARGEST_MIB).await?;
    let asked: ReadSwitchEnvelope = body::envelope(&text.content)?;
    let site = body::site(asked.site)?;
    let file = site.file();
    let node = file.network.iter().flat_map(|network| &network.nodes).find(|node| node.id == asked.node);
    let node = node.ok_or_else(|| Fault::new("node", format!("the network has no \"{}\"", asked.node)))?;
    let stores = (node.kind == NodeKind::Recorder).then(|| store(file).gb_per_day);
    Ok(Json(read_switch(at.0, &planned(file, &node.id), stores).await?))
}

impl From<Broken> for ApiError {
    fn from(broken: Broken) -> Self {
        let says = match broken {
            Broken::Away(why) => format!("the switch does not answer: {why}"),
            Broken::Nonsense(said) => format!("the switch answered nonsense: {said}"),
        };
        ApiError::plain(Status::FailedDependency, &says)
    }
}
