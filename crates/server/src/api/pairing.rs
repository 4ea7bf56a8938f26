//! The local network's door, as the desk sees it, and pairing: a code of the desk's makes a browser a device.
//!
//! A device shows a secret of 256 bits in a cookie that no script reads and that goes to this origin alone; its SHA-256 is kept. The
//! prefix `__Host-` binds the cookie to this host (RFC 6265bis, section 4.1.3.2).

use super::desk::Place;
use super::error::ApiError;
use super::guard::{AtTheDesk, By, LetIn, peer};
use super::sites::uuid;
use crate::api::body;
use crate::share::{CODE_LASTS, Shared, Where, secret};
use crate::store::{Device, Store, StoreError, is_device_name};
use bright_angle_core::Fault;
use qrcode::QrCode;
use qrcode::render::svg;
use rocket::data::Data;
use rocket::http::{ContentType, Cookie, CookieJar, SameSite, Status};
use rocket::serde::json::Json;
use rocket::{Request, State, async_trait, delete, get, post, put, routes};
use serde::{Deserialize, Serialize};
use std::net::IpAddr;
use time::{Duration, OffsetDateTime};
use utoipa::ToSchema;

/// What a device shows.
pub const COOKIE: &str = "__Host-bright-angle-device";
/// The page to pair at.
pub const PAGE: &str = "/pair";
/// The page of the application that tells how the certificate is trusted.
const TRUST: &str = "/#/phones";
/// Browsers keep no cookie longer (RFC 6265bis, section 5.5).
const KEPT: Duration = Duration::days(400);

/// The routes under `/api`.
pub fn routes() -> Vec<rocket::Route> {
    routes![share, set_share, code, end, me, authority, pair]
}

/// What somebody who is not paired may look at.
pub fn pages() -> Vec<rocket::Route> {
    routes![page, script]
}

/// The shared door and the devices that may come by it.
#[derive(Serialize, ToSchema)]
pub struct Share {
    /// The door.
    pub door: Where,
    /// Who was paired.
    pub devices: Vec<Device>,
    /// The page of three steps by which a paired phone is made to trust the certificate, as a picture (QR code, SVG); null while the door
    /// is closed, or shows a certificate of the firm's own.
    #[schema(required)]
    pub trust_qr_svg: Option<String>,
}

/// How the door to the local network stands, and who is paired.
#[utoipa::path(get, path = "/api/share", operation_id = "share", params(),
    responses((status = 200, body = Share), (status = 403, body = Vec<Fault>), (status = 503, body = Vec<Fault>)))]
#[get("/share")]
pub async fn share(
    _in: LetIn,
    _desk: AtTheDesk,
    sharing: &State<Shared>,
    store: &State<Store>,
) -> Result<Json<Share>, ApiError> {
    let door = sharing.at();
    let page = door.addresses.first().filter(|_| door.fingerprint.is_some()).map(|first| format!("{first}{TRUST}"));
    Ok(Json(Share { trust_qr_svg: page.and_then(|page| qr(&page).ok()), devices: store.devices().await?, door }))
}

/// Whether the door to the local network is to be open.
#[derive(Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ShareRequest {
    /// Whether it is.
    pub open: bool,
}

/// Open the door to the local network, or close it.
#[utoipa::path(put, path = "/api/share", operation_id = "setShare", request_body = ShareRequest, params(),
    responses((status = 204), (status = 403, body = Vec<Fault>), (status = 409, body = Vec<Fault>),
        (status = 413, body = Vec<Fault>), (status = 415, body = Vec<Fault>), (status = 422, body = Vec<Fault>)))]
#[put("/share", data = "<data>")]
pub async fn set_share(
    _in: LetIn,
    _desk: AtTheDesk,
    desk: Place<'_>,
    sharing: &State<Shared>,
    data: Data<'_>,
) -> Result<Status, ApiError> {
    let text = desk.text(data, 1).await?;
    let asked: ShareRequest = body::envelope(&text.content)?;
    sharing.open(asked.open).map_err(|wrong| ApiError::plain(Status::Conflict, &wrong))?;
    Ok(Status::NoContent)
}

/// A code to pair a device with, once.
#[derive(Serialize, ToSchema)]
pub struct PairingCode {
    /// The address that the device opens.
    pub url: String,
    /// The same as a picture (QR code, SVG).
    pub qr_svg: String,
    /// How long it can be used, s.
    pub lasts_s: u64,
}

/// A new code; the door must be open.
#[utoipa::path(post, path = "/api/share/code", operation_id = "pairingCode", params(),
    responses((status = 201, body = PairingCode), (status = 403, body = Vec<Fault>), (status = 409, body = Vec<Fault>),
        (status = 415, body = Vec<Fault>)))]
#[post("/share/code")]
pub fn code(_in: LetIn, _desk: AtTheDesk, sharing: &State<Shared>) -> Result<(Status, Json<PairingCode>), ApiError> {
    let at = sharing.at().addresses;
    let first =
        at.first().ok_or_else(|| ApiError::plain(Status::Conflict, "the door to the local network is closed"))?;
    let code = sharing.codes.new_code().map_err(|wrong| ApiError::plain(Status::InternalServerError, &wrong))?;
    // Behind the number sign, which no browser sends and no log holds.
    let url = format!("{first}{PAGE}#{code}");
    let qr_svg = qr(&url).map_err(|wrong| ApiError::plain(Status::InternalServerError, &wrong))?;
    Ok((Status::Created, Json(PairingCode { url, qr_svg, lasts_s: CODE_LASTS.as_secs() })))
}

/// A QR code (ISO/IEC 18004) as SVG, dark on light with its quiet zone.
pub(super) fn qr(text: &str) -> Result<String, String> {
    let code = QrCode::new(text).map_err(|error| error.to_string())?;
    Ok(code.render::<svg::Color<'_>>().min_dimensions(240, 240).build())
}

/// End a device: from now on it is let in nowhere.
#[utoipa::path(delete, path = "/api/share/devices/{id}", operation_id = "endDevice",
    params(("id" = uuid::Uuid, Path, description = "The device")),
    responses((status = 204), (status = 403, body = Vec<Fault>), (status = 404, body = Vec<Fault>),
        (status = 415, body = Vec<Fault>), (status = 503, body = Vec<Fault>)))]
#[delete("/share/devices/<id>")]
pub async fn end(_in: LetIn, _desk: AtTheDesk, store: &State<Store>, id: &str) -> Result<Status, ApiError> {
    if store.end_device(uuid(id)?).await? {
        Ok(Status::NoContent)
    } else {
        Err(ApiError::plain(Status::NotFound, "there is no such device, or it was ended"))
    }
}

/// Who asks.
#[derive(Serialize, ToSchema)]
pub struct Me {
    /// The device's name; null at the desk.
    #[schema(required)]
    pub device: Option<String>,
    /// The SHA-256 of the certificate that a device is told to trust; null where it need trust none of ours.
    #[schema(required)]
    pub fingerprint: Option<String>,
}

/// Which device this is.
#[utoipa::path(get, path = "/api/share/me", operation_id = "me", params(), responses((status = 200, body = Me)))]
#[get("/share/me")]
pub fn me(_in: LetIn, by: By, sharing: &State<Shared>) -> Json<Me> {
    Json(Me { device: by.name().map(str::to_owned), fingerprint: sharing.at().fingerprint })
}

/// The certificate that a device is told to trust.
#[utoipa::path(get, path = "/api/share/authority.crt", operation_id = "authority", params(),
    responses((status = 200, content_type = "application/x-x509-ca-cert"), (status = 404, body = Vec<Fault>)))]
#[get("/share/authority.crt")]
pub fn authority(_in: LetIn, sharing: &State<Shared>) -> Result<(ContentType, String), ApiError> {
    let authority =
        sharing.authority().ok_or_else(|| ApiError::plain(Status::NotFound, "there is none to be trusted"))?;
    Ok((ContentType::new("application", "x-x509-ca-cert"), authority))
}

/// What a device says to be paired.
#[derive(Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PairRequest {
    /// The code that the desk shows.
    pub code: String,
    /// What the device is to be called.
    #[schema(min_length = 1, max_length = 60)]
    pub name: String,
}

/// Who asks by the shared door.
pub struct From(pub IpAddr);

#[async_trait]
impl<'r> rocket::request::FromRequest<'r> for From {
    type Error = ();

    async fn from_request(request: &'r Request<'_>) -> rocket::request::Outcome<Self, ()> {
        match peer(request) {
            Some(ip) => rocket::request::Outcome::Success(From(ip)),
            None => rocket::request::Outcome::Error((Status::NotFound, ())),
        }
    }
}

/// Pair a device: the code goes, and a cookie comes.
#[utoipa::path(post, path = "/api/pair", operation_id = "pair", request_body = PairRequest, params(),
    responses((status = 204), (status = 404, body = Vec<Fault>), (status = 409, body = Vec<Fault>), (status = 413, body = Vec<Fault>),
        (status = 415, body = Vec<Fault>), (status = 422, body = Vec<Fault>), (status = 429, body = Vec<Fault>),
        (status = 503, body = Vec<Fault>)))]
#[post("/pair", data = "<data>")]
pub async fn pair(
    _in: LetIn,
    from: From,
    desk: Place<'_>,
    sharing: &State<Shared>,
    store: &State<Store>,
    cookies: &CookieJar<'_>,
    data: Data<'_>,
) -> Result<Status, ApiError> {
    if !sharing.crowd.may_try(from.0) {
        return Err(ApiError::plain(Status::TooManyRequests, "too many wrong codes; wait a minute"));
    }
    let text = desk.text(data, 1).await?;
    let asked: PairRequest = body::envelope(&text.content)?;
    let name = asked.name.trim();
    if !is_device_name(name) {
        return Err(Fault::new("name", "takes 1 to 60 characters in one line").into());
    }
    let Some(made) = sharing.codes.take(&asked.code) else {
        sharing.crowd.was_wrong(from.0);
        return Err(Fault::new("code", "is not one of the desk's, was used, or is older than two minutes").into());
    };
    let secret = secret::<32>().map_err(|wrong| ApiError::plain(Status::InternalServerError, &wrong))?;
    match store.pair(name, &secret).await {
        Ok(_) => {
            let kept =
                Cookie::build((COOKIE, secret)).path("/").http_only(true).secure(true).same_site(SameSite::Strict);
            cookies.add(kept.max_age(KEPT).expires(OffsetDateTime::now_utc() + KEPT));
            Ok(Status::NoContent)
        }
        Err(error) => {
            // The code was good: another name, or another try, is to be had with it.
            sharing.codes.give_back(&asked.code, made);
            Err(match error {
                StoreError::NameInUse(_) => {
                    ApiError::Faults(Status::Conflict, vec![Fault::new("name", error.to_string())])
                }
                other => other.into(),
            })
        }
    }
}

/// The page to pair at. It stands alone: who is not paired gets nothing else.
#[get("/pair")]
pub fn page(_in: LetIn) -> (ContentType, &'static str) {
    (ContentType::HTML, include_str!("pairing/page.html"))
}

/// Its script.
#[get("/pair.js")]
pub fn script(_in: LetIn) -> (ContentType, &'static str) {
    (ContentType::JavaScript, include_str!("pairing/page.js"))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_independent_reader_reads_the_code() {
        // Read by `rqrr`, which shares nothing with what draws it, out of the SVG's own squares.
        let url = "https://192.168.107.205:8443/pair#ABCDEFGHIJKLMNOPQRSTUVWXYZ";
        let drawn = qr(url).unwrap();
        let figures = |name: &str| -> usize {
            let begin = drawn.find(&format!("{name}=\"")).unwrap() + name.len() + 2;
            drawn[begin..].split('"').next().unwrap().parse().unwrap()
        };
        let (width, height) = (figures("width"), figures("height"));
        let path = drawn.split(" d=\"").nth(1).unwrap().split('"').next().unwrap();
        let mut dark = vec![false; width * height];
        for square in path.split('M').skip(1) {
            // As in "8 8h8v8H8V8": a corner, its width and its height.
            let (corner, rest) = square.split_once('h').unwrap();
            let (across, rest) = rest.split_once('v').unwrap();
            let down: usize = rest.split('H').next().unwrap().parse().unwrap();
            let [x, y]: [usize; 2] =
                corner.split(' ').map(|n| n.parse().unwrap()).collect::<Vec<_>>().try_into().unwrap();
            for row in y..y + down {
                dark[row * width + x..][..across.parse::<usize>().unwrap()].fill(true);
            }
        }
        let mut picture =
            rqrr::PreparedImage::prepare_from_greyscale(
                width,
                height,
                |x, y| if dark[y * width + x] { 0 } else { 255 },
            );
        let found = picture.detect_grids();
        assert_eq!(found.len(), 1);
        assert_eq!(found[0].decode().unwrap().1, url);
    }
}
