//! Pictures of cameras that hang: from their own addresses, and from the stand-in.

use super::body;
use super::desk::Place;
use super::error::ApiError;
use super::guard::LetIn;
use super::pictures::Served;
use crate::device::camera::{Answered, Asked, Login, NoPicture, ask, is_local};
use crate::picture::{Picture, unpacked_mib};
use bright_angle_camera::{PASSWORD, USER, Wrong};
use bright_angle_core::Fault;
use bright_angle_core::file::SiteFile;
use rocket::data::Data;
use rocket::http::Status;
use rocket::serde::json::Json;
use rocket::{State, post};
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use std::net::{IpAddr, SocketAddr};
use utoipa::ToSchema;

/// Where the stand-in for cameras answers.
pub struct CamerasAt(pub SocketAddr);

/// A request takes no more than this, MiB.
const LARGEST_ASKED_MIB: u64 = 1;
/// So many things are wrong with one camera at most.
const MOST_FAULTS: usize = 8;

/// Which camera is asked for its picture. Name and password are used for this once, and kept nowhere.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SnapshotRequest {
    /// Its address: private or loopback.
    #[schema(value_type = String)]
    pub address: IpAddr,
    /// Its port.
    pub port: u16,
    /// Where its picture is, as in `/picture.jpg`.
    pub path: String,
    /// Who asks.
    #[serde(default)]
    pub user: Option<String>,
    /// With which password.
    #[serde(default)]
    pub password: Option<String>,
    /// As evidence: not a byte of it is changed.
    #[serde(default)]
    #[schema(required = false)]
    pub as_it_is: bool,
}

/// Take a camera's picture. 424 when it does not answer, sends elsewhere or lets nobody in.
#[utoipa::path(post, path = "/api/snapshot", operation_id = "snapshot", request_body = SnapshotRequest, params(),
    responses((status = 200, body = Vec<u8>, content_type = "image/*"), (status = 422, body = Vec<Fault>), (status = 424, body = Vec<Fault>)))]
#[post("/snapshot", data = "<data>")]
pub async fn snapshot(_in: LetIn, desk: Place<'_>, data: Data<'_>) -> Result<Served, ApiError> {
    let text = desk.text(data, LARGEST_ASKED_MIB).await?;
    let asked: SnapshotRequest = body::envelope(&text.content)?;
    if !is_local(asked.address) {
        let message = format!("{} is no address of a local network: only those are asked", asked.address);
        return Err(Fault::new("address", message).into());
    }
    if asked.port == 0 {
        return Err(Fault::new("port", "0 is no port").into());
    }
    let plain = asked.path.starts_with('/') && asked.path.bytes().all(|b| b.is_ascii_graphic() && b != b'#');
    if !plain || asked.path.len() > 200 {
        return Err(Fault::new("path", "must begin with / and hold plain letters").into());
    }
    let login = asked.user.map(|user| Login { user, password: asked.password.unwrap_or_default() });
    let at = SocketAddr::new(asked.address, asked.port);
    let get = Asked { at, method: hyper::Method::GET, path: &asked.path, body: String::new() };
    served(&desk, ask(&get, login.as_ref()).await?, asked.as_it_is).await
}

/// Pictures are written anew: what else a file holds, a place among it, is not kept. Evidence is left as it is.
async fn served(desk: &Place<'_>, answered: Answered, as_it_is: bool) -> Result<Served, ApiError> {
    let Answered { bytes, clock_off_s } = answered;
    let refused =
        |message: String| ApiError::plain(Status::FailedDependency, &format!("the camera's picture {message}"));
    let mib = unpacked_mib(&bytes).map_err(refused)?;
    let take = move || if as_it_is { Picture::take_as_it_is(bytes) } else { Picture::take(&bytes) };
    let picture = desk.unpack(mib, move || take().map_err(refused)).await?;
    Ok(Served::of(picture, clock_off_s))
}

/// A site, and the head of it whose picture the stand-in gives.
#[derive(Serialize, ToSchema)]
pub struct StandInRequest {
    /// The site file.
    pub site: SiteFile,
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// Whether it is night.
    #[schema(required = false)]
    pub night: bool,
    /// What is wrong with it, to order, as in `turned=2`, `dirty=0.5`, `overgrown=0.1`, `clock=7`.
    #[schema(required = false)]
    pub faults: Vec<String>,
    /// As evidence: not a byte of it is changed.
    #[schema(required = false)]
    pub as_it_is: bool,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct StandInEnvelope<'a> {
    #[serde(borrow)]
    site: &'a RawValue,
    camera: String,
    head: String,
    #[serde(default)]
    night: bool,
    #[serde(default)]
    faults: Vec<String>,
    #[serde(default)]
    as_it_is: bool,
}

/// Take the picture of a head from the stand-in for cameras.
#[utoipa::path(post, path = "/api/stand-in/picture", operation_id = "standInPicture", request_body = StandInRequest, params(),
    responses((status = 200, body = Vec<u8>, content_type = "image/*"), (status = 422, body = Vec<Fault>), (status = 424, body = Vec<Fault>)))]
#[post("/stand-in/picture", data = "<data>")]
pub async fn stand_in_picture(
    _in: LetIn,
    desk: Place<'_>,
    at: &State<CamerasAt>,
    data: Data<'_>,
) -> Result<Served, ApiError> {
    let text = desk.text(data, body::LARGEST_MIB).await?;
    let asked: StandInEnvelope = body::envelope(&text.content)?;
    let site = body::site(asked.site)?;
    site.head(&asked.camera, &asked.head)?;
    let site = serde_json::to_string(site.file()).map_err(|error| Fault::new("site", error.to_string()))?;
    let put = Asked { at: at.0, method: hyper::Method::PUT, path: "/site", body: site };
    ask(&put, Some(&login())).await?;
    let mut path = format!("/{}/{}.jpg", plain_id(&asked.camera)?, plain_id(&asked.head)?);
    path.push_str(if asked.night { "?light=night" } else { "?light=day" });
    for fault in asked.faults.iter().take(MOST_FAULTS) {
        // What it is called and by how much, and nothing that means something in an address.
        let plain = fault.bytes().all(|b| b.is_ascii_alphanumeric() || b"_=.-".contains(&b));
        if !plain || fault.parse::<Wrong>().is_err() {
            return Err(Fault::new("faults", format!("\"{fault}\" is no fault such as turned=2")).into());
        }
        path.push_str(&format!("&fault={fault}"));
    }
    let get = Asked { at: at.0, method: hyper::Method::GET, path: &path, body: String::new() };
    served(&desk, ask(&get, Some(&login())).await?, asked.as_it_is).await
}

/// By how much a head of the stand-in is turned.
#[derive(Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TurnRequest {
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// To the right, degrees.
    #[serde(default)]
    pub pan_deg: f64,
    /// Down, degrees.
    #[serde(default)]
    pub tilt_deg: f64,
    /// Clockwise as seen from behind, degrees.
    #[serde(default)]
    pub roll_deg: f64,
    /// The focal length times so much; as it is where left out.
    #[serde(default)]
    pub zoom: Option<f64>,
}

/// Turn a head of the stand-in, as a hand on the ladder does.
#[utoipa::path(post, path = "/api/stand-in/turn", operation_id = "standInTurn", request_body = TurnRequest, params(),
    responses((status = 200, body = bool), (status = 422, body = Vec<Fault>), (status = 424, body = Vec<Fault>)))]
#[post("/stand-in/turn", data = "<data>")]
pub async fn stand_in_turn(
    _in: LetIn,
    desk: Place<'_>,
    at: &State<CamerasAt>,
    data: Data<'_>,
) -> Result<Json<bool>, ApiError> {
    let text = desk.text(data, LARGEST_ASKED_MIB).await?;
    let asked: TurnRequest = body::envelope(&text.content)?;
    let zoom = asked.zoom.unwrap_or(1.0);
    let sound = [asked.pan_deg, asked.tilt_deg, asked.roll_deg].iter().all(|deg| deg.abs() <= 360.0);
    if !sound || !(0.05..=20.0).contains(&zoom) {
        return Err(Fault::new("pan_deg", "turns go up to 360°, zoom from 0.05 to 20").into());
    }
    let path = format!(
        "/{}/{}/turn?pan={}&tilt={}&roll={}&zoom={zoom}",
        plain_id(&asked.camera)?,
        plain_id(&asked.head)?,
        asked.pan_deg,
        asked.tilt_deg,
        asked.roll_deg
    );
    let post = Asked { at: at.0, method: hyper::Method::POST, path: &path, body: String::new() };
    ask(&post, Some(&login())).await?;
    Ok(Json(true))
}

fn login() -> Login {
    Login { user: USER.to_owned(), password: PASSWORD.to_owned() }
}

/// An id as it can stand in a path.
fn plain_id(id: &str) -> Result<&str, Fault> {
    let plain =
        !id.is_empty() && id.len() <= 64 && id.bytes().all(|b| b.is_ascii_alphanumeric() || b"-_.".contains(&b));
    if plain { Ok(id) } else { Err(Fault::new("camera", format!("\"{id}\" is no id that the stand-in takes"))) }
}

impl From<NoPicture> for ApiError {
    fn from(none: NoPicture) -> Self {
        let says = match none {
            NoPicture::Away(why) => format!("the camera does not answer: {why}"),
            NoPicture::Nonsense(said) => format!("the camera gives no picture: {said}"),
        };
        ApiError::plain(Status::FailedDependency, &says)
    }
}
