//! A stand-in for the cameras of a site, for demonstrations and tests: HTTP/1.1 on loopback.
//!
//! All but the clock asks for Digest authentication (RFC 7616), user `fitter`, password `bright`:
//!
//! - `GET /c3/h1.jpg[?light=night][&width=1280][&fault=dirty=0.5]`: the picture of a head as it hangs, JPEG; `Date` is by its own clock
//! - `POST /c3/h1/turn?pan=2&tilt=-1&roll=0.5&zoom=1.1`: turns it from where it is, as a hand or a motor does
//! - `PUT /site`: takes a site file; what was turned stays turned
//! - `GET /c3/clock`: by how many minutes its clock is fast

mod fault;
mod stand_in;

pub use fault::{Fault, Wrong};
pub use stand_in::{StandIn, Turned};

use bright_angle_core::Site;
use digest_auth::{AuthContext, AuthorizationHeader, HttpMethod, WwwAuthenticateHeader};
use std::io::Read;
use std::str::FromStr;
use std::sync::{Arc, Mutex, PoisonError};
use std::time::{Duration, SystemTime};
use tiny_http::{Header, Method, Request, Response, Server};

/// Whom it lets in.
pub const USER: &str = "fitter";
/// With which password.
pub const PASSWORD: &str = "bright";
const REALM: &str = "Bright Angle stand-in camera";
/// The largest site that it takes, bytes.
const LARGEST: u64 = 16 * 1024 * 1024;
/// So many are answered at once.
const HANDS: usize = 2;

type Answer = Response<std::io::Cursor<Vec<u8>>>;

/// Answers on a server for ever.
pub fn serve(server: Server, stand_in: StandIn) {
    let (server, held) = (Arc::new(server), Arc::new(Mutex::new(stand_in)));
    let hands: Vec<_> = (0..HANDS)
        .map(|_| {
            let (server, held) = (server.clone(), held.clone());
            std::thread::spawn(move || {
                for request in server.incoming_requests() {
                    answer(request, &held);
                }
            })
        })
        .collect();
    for hand in hands {
        let _ = hand.join();
    }
}

fn answer(mut request: Request, held: &Mutex<StandIn>) {
    let said = match let_in(&request) {
        Ok(()) => answered(&mut request, held),
        Err(challenge) => challenge,
    };
    // Whoever went away needs no answer.
    let _ = request.respond(said);
}

fn text(status: u16, said: &str) -> Answer {
    Response::from_string(said).with_status_code(status)
}

/// Lets in whoever knows the password; the others get a challenge.
fn let_in(request: &Request) -> Result<(), Answer> {
    let path = request.url();
    if path.split('?').next().is_some_and(|path| path.ends_with("/clock")) {
        return Ok(());
    }
    // The same for all: it is a stand-in, and guards nothing.
    let challenge =
        format!("Digest realm=\"{REALM}\", nonce=\"6272696768742d616e676c65\", algorithm=SHA-256, qop=\"auth\"");
    let refused = || {
        let header = Header::from_str(&format!("WWW-Authenticate: {challenge}"));
        let said = text(401, "who is there?");
        header.map(|header| said.with_header(header)).unwrap_or_else(|()| text(401, "who is there?"))
    };
    let given = request.headers().iter().find(|header| header.field.equiv("Authorization"));
    let given = given.and_then(|header| AuthorizationHeader::parse(header.value.as_str()).ok()).ok_or_else(refused)?;
    let mut prompt = WwwAuthenticateHeader::parse(&challenge).map_err(|_| refused())?;
    prompt.nc = given.nc.saturating_sub(1);
    let method = match request.method() {
        Method::Post => HttpMethod::POST,
        Method::Put => HttpMethod::PUT,
        _ => HttpMethod::GET,
    };
    let mut context = AuthContext::new_with_method(USER, PASSWORD, path, None::<&[u8]>, method);
    context.set_custom_cnonce(given.cnonce.clone().unwrap_or_default());
    let expected = prompt.respond(&context).map_err(|_| refused())?;
    if expected.response == given.response { Ok(()) } else { Err(refused()) }
}

/// The time by a clock that is fast by so many minutes, as HTTP says it.
fn by_its_clock(fast_min: f64) -> String {
    let off = Duration::from_secs_f64(60.0 * fast_min.abs().min(1e8));
    let now = SystemTime::now();
    let at = if fast_min < 0.0 { now.checked_sub(off) } else { now.checked_add(off) };
    httpdate::fmt_http_date(at.unwrap_or(now).max(SystemTime::UNIX_EPOCH))
}

fn answered(request: &mut Request, held: &Mutex<StandIn>) -> Answer {
    let url = request.url().to_owned();
    let (path, query) = url.split_once('?').unwrap_or((&url, ""));
    let parts: Vec<&str> = path.trim_matches('/').split('/').collect();
    let figure = |name: &str| {
        let value = query.split('&').filter_map(|pair| pair.split_once('=')).find(|(held, _)| *held == name);
        value.and_then(|(_, value)| value.parse::<f64>().ok()).filter(|value| value.is_finite()).unwrap_or(0.0)
    };
    let mut cameras = held.lock().unwrap_or_else(PoisonError::into_inner);
    match (request.method(), &parts[..]) {
        (Method::Get, [camera, "clock"]) => text(200, &cameras.clock_off_min(camera, &[]).to_string()),
        (Method::Get, [camera, file]) if file.ends_with(".jpg") => {
            let (head, night) = (file.trim_end_matches(".jpg"), query.contains("light=night"));
            let width = if figure("width") > 0.0 { figure("width") as u32 } else { 1280 };
            let faults: Vec<Wrong> =
                query.split('&').filter_map(|pair| pair.strip_prefix("fault=")?.parse().ok()).collect();
            match cameras.picture(camera, head, night, width, &faults) {
                Ok(bytes) => {
                    let date = by_its_clock(cameras.clock_off_min(camera, &faults));
                    let headers =
                        [Header::from_str("Content-Type: image/jpeg"), Header::from_str(&format!("Date: {date}"))];
                    headers.into_iter().flatten().fold(Response::from_data(bytes), Response::with_header)
                }
                Err(why) => text(404, &why),
            }
        }
        (Method::Post, [camera, head, "turn"]) => {
            let by = Turned {
                pan_deg: figure("pan"),
                tilt_deg: figure("tilt"),
                roll_deg: figure("roll"),
                zoom: figure("zoom"),
            };
            cameras.turn(camera, head, by).map_or_else(|why| text(404, &why), |()| text(200, "turned"))
        }
        (Method::Put, ["site"]) => {
            let mut body = String::new();
            match request.as_reader().take(LARGEST).read_to_string(&mut body) {
                Ok(_) => match Site::parse(&body) {
                    Ok(site) => {
                        cameras.take(site.file().clone());
                        text(200, "taken")
                    }
                    Err(faults) => text(422, &faults[0].to_string()),
                },
                Err(error) => text(400, &error.to_string()),
            }
        }
        _ => text(404, "nothing there"),
    }
}
