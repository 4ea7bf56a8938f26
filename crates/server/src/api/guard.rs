//! Nobody but this application's own page, or a program on this machine that means it, gets a word in.
//!
//! A browser runs every page's scripts with its user's reach: a foreign page can send forms, beacons and simple requests here, and
//! with a name that it makes point to this machine (DNS rebinding) it even counts as the same origin. What gives it away stands in
//! the request: the name it was sent to (`Host`), the page it comes from (`Origin`, and `Sec-Fetch-Site` of the Fetch Metadata
//! specification), the kind of content. What is judged is OWASP's list for cross-site request forgery.
//!
//! What comes by the shared door (`share`) must besides come from a device that was paired; to all others there is nothing here but the
//! page to pair at, and of that only so much.

use super::pairing;
use crate::front::PEER;
use crate::share::Shared;
use crate::store::{Device, Store};
use bright_angle_core::Fault;
use rocket::data::Data;
use rocket::fairing::{Fairing, Info, Kind};
use rocket::http::uri::Origin;
use rocket::http::{Method, Status};
use rocket::serde::json::Json;
use rocket::{Request, async_trait, get};
use std::net::{IpAddr, SocketAddr};

/// Where refused requests are sent to. Nobody who asks for it himself is told anything.
const REFUSED: &str = "/api/refused";

/// Looks at each request before anything else does.
#[derive(Clone)]
pub struct Guard {
    sharing: Shared,
    hosts: Vec<String>,
    /// The name that the page is opened under: what a device keeps of it belongs to that name.
    page: String,
}

/// What every route takes: a request that the guard has let in. Where nobody has looked at it before, it is looked at here.
pub struct LetIn;

#[async_trait]
impl<'r> rocket::request::FromRequest<'r> for LetIn {
    type Error = ();

    async fn from_request(request: &'r Request<'_>) -> rocket::request::Outcome<Self, ()> {
        let Some(guard) = request.rocket().state::<Guard>() else {
            return rocket::request::Outcome::Error((Status::InternalServerError, ()));
        };
        match request.local_cache_async(async { Looked(guard.judge(request).await) }).await.0 {
            Ok(_) => rocket::request::Outcome::Success(LetIn),
            Err((status, _)) => rocket::request::Outcome::Error((status, ())),
        }
    }
}

/// The device that a request comes from; none from this machine itself.
pub struct By(Option<String>);

impl By {
    /// Its name.
    pub fn name(&self) -> Option<&str> {
        self.0.as_deref()
    }
}

#[async_trait]
impl<'r> rocket::request::FromRequest<'r> for By {
    type Error = ();

    async fn from_request(request: &'r Request<'_>) -> rocket::request::Outcome<Self, ()> {
        let seen = request.local_cache(|| Looked(Ok(None)));
        rocket::request::Outcome::Success(By(seen
            .0
            .as_ref()
            .ok()
            .and_then(|device| Some(device.as_ref()?.name.clone()))))
    }
}

/// A request from this machine itself: what lets others in, or out, is asked for nowhere else.
pub struct AtTheDesk;

#[async_trait]
impl<'r> rocket::request::FromRequest<'r> for AtTheDesk {
    type Error = ();

    async fn from_request(request: &'r Request<'_>) -> rocket::request::Outcome<Self, ()> {
        match peer(request) {
            None => rocket::request::Outcome::Success(AtTheDesk),
            Some(_) => rocket::request::Outcome::Error((Status::Forbidden, ())),
        }
    }
}

/// Who asks by the shared door.
pub fn peer(request: &Request<'_>) -> Option<IpAddr> {
    request.headers().get_one(PEER.as_str())?.parse().ok()
}

/// What came of the look at a request: the device that it comes from, none from this machine itself, or why it is refused.
struct Looked(Result<Option<Device>, (Status, &'static str)>);

impl Guard {
    /// A guard of what is served at an address.
    pub fn of(address: SocketAddr, sharing: Shared) -> Guard {
        let port = address.port();
        let mut hosts = vec![format!("localhost:{port}"), format!("127.0.0.1:{port}"), format!("[::1]:{port}")];
        let page = match address.ip() {
            IpAddr::V4(ip) => format!("{ip}:{port}"),
            IpAddr::V6(ip) => format!("[{ip}]:{port}"),
        };
        hosts.push(page.clone());
        if port == 80 {
            // The port that browsers leave out.
            hosts.extend(hosts.clone().iter().filter_map(|host| Some(host.strip_suffix(":80")?.to_owned())));
        }
        Guard { sharing, hosts, page }
    }

    /// Where the page is, for who opens it under another of its names; `None` under the right one.
    pub fn elsewhere(&self, host: &str) -> Option<String> {
        let bare = self.page.strip_suffix(":80").unwrap_or(&self.page);
        let right = host.eq_ignore_ascii_case(&self.page) || host.eq_ignore_ascii_case(bare);
        (!right).then(|| format!("http://{}/", self.page))
    }

    async fn judge(&self, request: &Request<'_>) -> Result<Option<Device>, (Status, &'static str)> {
        let peer = peer(request);
        let host = request.headers().get_one("Host").unwrap_or_default();
        let known = match peer {
            None => self.hosts.iter().any(|known| known.eq_ignore_ascii_case(host)),
            Some(_) => self.sharing.answers_to(host),
        };
        if request.headers().get("Host").count() != 1 || !known {
            return Err((Status::MisdirectedRequest, "this server is not what the request was addressed to"));
        }
        if let Some(refused) = addressed_right(request, host, if peer.is_some() { "https://" } else { "http://" }) {
            return Err(refused);
        }
        match peer {
            None => Ok(None),
            Some(from) => self.paired(request, from).await,
        }
    }

    /// The device that a request comes from by the shared door. Who is not paired is answered at the pages to pair at alone.
    async fn paired(&self, request: &Request<'_>, from: IpAddr) -> Result<Option<Device>, (Status, &'static str)> {
        let shown = request.cookies().get(pairing::COOKIE).map(|cookie| cookie.value().to_owned());
        if let (Some(secret), Some(store)) = (shown, request.rocket().state::<Store>()) {
            match store.device(&secret).await {
                Ok(Some(device)) => return Ok(Some(device)),
                Ok(None) => {}
                Err(_) => return Err((Status::ServiceUnavailable, "the database does not answer")),
            }
        }
        if !self.sharing.crowd.may_ask(from) {
            return Err((Status::TooManyRequests, "too much is asked by somebody who is not paired; wait a minute"));
        }
        let path: Vec<&str> = request.uri().path().segments().collect();
        match (request.method(), path.as_slice()) {
            (Method::Get | Method::Head, [] | ["pair" | "pair.js" | "sign" | "sign.js" | "mark.svg"])
            | (Method::Post, ["api", "pair" | "sign"] | ["api", "sign", "look"]) => Ok(None),
            _ => Err((Status::Unauthorized, "this device is not paired, or not any more: pair it at the desk")),
        }
    }
}

/// What is wrong with where a request comes from, or what it brings.
fn addressed_right(request: &Request<'_>, host: &str, scheme: &str) -> Option<(Status, &'static str)> {
    let one = |name: &'static str| request.headers().get_one(name);
    // As the router sees it: decoded, empty segments left out.
    let path: Vec<&str> = request.uri().path().segments().collect();
    let interface = path.first() == Some(&"api");
    let changing = !matches!(request.method(), Method::Get | Method::Head | Method::Options);
    // Said twice, somebody between has added what he wants to be believed.
    if ["Origin", "Sec-Fetch-Site"].iter().any(|name| request.headers().get(name).count() > 1) {
        return Some((Status::BadRequest, "Origin or Sec-Fetch-Site is said more than once"));
    }
    let foreign = match (one("Origin"), one("Sec-Fetch-Site")) {
        (Some(origin), _) if !origin.strip_prefix(scheme).is_some_and(|from| from.eq_ignore_ascii_case(host)) => true,
        (_, Some(site)) => !matches!(site, "same-origin" | "none"),
        _ => false,
    };
    if foreign && (interface || changing) {
        return Some((Status::Forbidden, "only this application's own pages may ask that"));
    }
    let kind = request.content_type();
    let (fits, message) = match path.get(1) {
        _ if !changing || !interface => return None,
        Some(&"pictures") => {
            let fits = kind.is_some_and(|kind| kind.is_png() || kind.is_jpeg());
            (fits, "a picture comes as image/png or image/jpeg")
        }
        Some(&("sites" | "pair" | "share" | "sign" | "catalogue")) => {
            (kind.is_some_and(|kind| kind.is_json()), "this comes as application/json")
        }
        _ => return None,
    };
    (!fits).then_some((Status::UnsupportedMediaType, message))
}

#[async_trait]
impl Fairing for Guard {
    fn info(&self) -> Info {
        Info { name: "guard", kind: Kind::Request }
    }

    async fn on_request(&self, request: &mut Request<'_>, _: &mut Data<'_>) {
        let found = self.judge(request).await;
        let unpaired = peer(request).is_some() && matches!(found, Ok(None));
        if request.local_cache(|| Looked(found)).0.is_err() {
            request.set_method(Method::Get);
            request.set_uri(Origin::path_only(REFUSED));
        } else if unpaired && request.uri().path() == "/" {
            request.set_uri(Origin::path_only(pairing::PAGE));
        }
    }
}

/// What a refused request is answered; to others there is nothing here.
#[get("/refused")]
pub fn refused(refusal: Refused) -> (Status, Json<Vec<Fault>>) {
    (refusal.0, Json(vec![Fault::new("", refusal.1)]))
}

/// The verdict on this request.
pub struct Refused(Status, &'static str);

#[async_trait]
impl<'r> rocket::request::FromRequest<'r> for Refused {
    type Error = ();

    async fn from_request(request: &'r Request<'_>) -> rocket::request::Outcome<Self, ()> {
        match request.local_cache(|| Looked(Ok(None))).0 {
            Err((status, message)) => rocket::request::Outcome::Success(Refused(status, message)),
            Ok(_) => rocket::request::Outcome::Forward(Status::NotFound),
        }
    }
}
