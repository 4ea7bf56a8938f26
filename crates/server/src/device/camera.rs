//! A camera's picture over HTTP, from a private or loopback address: once, within limits of time and size, following nothing.

use data_encoding::BASE64;
use digest_auth::{AuthContext, HttpMethod};
use http_body_util::{BodyExt, Full, Limited};
use hyper::body::Bytes;
use hyper::header::{AUTHORIZATION, CONTENT_TYPE, DATE, HOST, WWW_AUTHENTICATE};
use hyper::{Method, Request, Response, StatusCode};
use hyper_util::rt::TokioIo;
use rocket::tokio::net::TcpStream;
use rocket::tokio::task::JoinHandle;
use rocket::tokio::time::timeout;
use std::net::{IpAddr, SocketAddr};
use std::time::{Duration, SystemTime};

/// How long a camera may take to be reached, and to answer whole.
const REACHED: Duration = Duration::from_secs(3);
const WHOLE: Duration = Duration::from_secs(12);
/// The largest answer that is taken, bytes.
const LARGEST: usize = 16 * 1024 * 1024;

/// Why there is no picture.
#[derive(Clone, Debug, PartialEq)]
pub enum NoPicture {
    /// The camera does not answer.
    Away(String),
    /// It answers, but with no picture.
    Nonsense(String),
}

/// Who asks; it is used for this once, and kept nowhere.
pub struct Login {
    /// The name.
    pub user: String,
    /// The password.
    pub password: String,
}

/// Whether an address is one of a local network or of this machine: nobody else is asked for pictures.
pub fn is_local(address: IpAddr) -> bool {
    match address {
        IpAddr::V4(address) => address.is_private() || address.is_loopback() || address.is_link_local(),
        IpAddr::V6(address) => address.is_loopback() || address.is_unique_local() || address.is_unicast_link_local(),
    }
}

/// What a camera is asked.
pub struct Asked<'a> {
    /// Where it answers.
    pub at: SocketAddr,
    /// What is done there.
    pub method: Method,
    /// Where at it, with what is asked.
    pub path: &'a str,
    /// What is sent along.
    pub body: String,
}

/// What a camera answered.
pub struct Answered {
    /// The answer's body.
    pub bytes: Vec<u8>,
    /// By how many seconds the camera's own clock is fast, where its answer says a time (RFC 9110, Date).
    pub clock_off_s: Option<i64>,
}

/// Asks a camera; with a login it is told who asks when it wants to know.
///
/// # Errors
/// It does not answer in time, sends elsewhere, lets nobody in or sends too much.
pub async fn ask(asked: &Asked<'_>, login: Option<&Login>) -> Result<Answered, NoPicture> {
    timeout(WHOLE, asking(asked, login)).await.map_err(|_| NoPicture::Away("it does not come to an end".to_owned()))?
}

/// A connection, which ends with whoever waits for what comes over it.
struct Ends(JoinHandle<Result<(), hyper::Error>>);

impl Drop for Ends {
    fn drop(&mut self) {
        self.0.abort();
    }
}

async fn asking(asked: &Asked<'_>, login: Option<&Login>) -> Result<Answered, NoPicture> {
    let (first, _connection) = sent(asked, None).await?;
    if first.status() != StatusCode::UNAUTHORIZED {
        return taken(first).await;
    }
    let Some(login) = login else {
        return Err(NoPicture::Nonsense("it asks who is there: a name and a password".to_owned()));
    };
    let challenge = first.headers().get(WWW_AUTHENTICATE).and_then(|value| value.to_str().ok()).unwrap_or_default();
    let answer = answer_to(challenge, asked, login)?;
    let (second, _connection) = sent(asked, Some(answer)).await?;
    if second.status() == StatusCode::UNAUTHORIZED {
        return Err(NoPicture::Nonsense("it does not let in whoever has this name and password".to_owned()));
    }
    taken(second).await
}

/// What whoever asks answers to a challenge: Digest (RFC 7616), else Basic (RFC 7617).
fn answer_to(challenge: &str, asked: &Asked<'_>, login: &Login) -> Result<String, NoPicture> {
    if challenge.trim_start().to_ascii_lowercase().starts_with("basic") {
        return Ok(format!("Basic {}", BASE64.encode(format!("{}:{}", login.user, login.password).as_bytes())));
    }
    let nonsense = || NoPicture::Nonsense("it asks who is there in a way that nobody knows here".to_owned());
    let mut prompt = digest_auth::parse(challenge).map_err(|_| nonsense())?;
    let method = HttpMethod::from(asked.method.as_str().to_owned());
    let context = AuthContext::new_with_method(&login.user, &login.password, asked.path, None::<&[u8]>, method);
    prompt.respond(&context).map(|answer| answer.to_header_string()).map_err(|_| nonsense())
}

async fn sent(asked: &Asked<'_>, who: Option<String>) -> Result<(Response<hyper::body::Incoming>, Ends), NoPicture> {
    let away = |error: &dyn std::fmt::Display| NoPicture::Away(error.to_string());
    let stream = timeout(REACHED, TcpStream::connect(asked.at))
        .await
        .map_err(|_| NoPicture::Away("nobody is there".to_owned()))?
        .map_err(|error| away(&error))?;
    let (mut sender, connection) =
        hyper::client::conn::http1::handshake(TokioIo::new(stream)).await.map_err(|error| away(&error))?;
    let ends = Ends(rocket::tokio::spawn(connection));
    let mut request =
        Request::builder().method(asked.method.clone()).uri(asked.path).header(HOST, asked.at.to_string());
    if !asked.body.is_empty() {
        request = request.header(CONTENT_TYPE, "application/json");
    }
    if let Some(who) = who {
        request = request.header(AUTHORIZATION, who);
    }
    let request = request.body(Full::new(Bytes::from(asked.body.clone()))).map_err(|error| away(&error))?;
    let response = sender.send_request(request).await.map_err(|error| away(&error))?;
    Ok((response, ends))
}

async fn taken(response: Response<hyper::body::Incoming>) -> Result<Answered, NoPicture> {
    let status = response.status();
    if status.is_redirection() {
        return Err(NoPicture::Nonsense("it sends elsewhere, and nobody else is asked".to_owned()));
    }
    if !status.is_success() {
        return Err(NoPicture::Nonsense(format!("it says {status}")));
    }
    let said = response.headers().get(DATE).and_then(|date| date.to_str().ok());
    let clock_off_s = said.and_then(|date| clock_off_s(date, SystemTime::now()));
    let body = Limited::new(response.into_body(), LARGEST).collect().await;
    let body = body.map_err(|_| NoPicture::Nonsense("it breaks off, or sends more than 16 MiB".to_owned()))?;
    Ok(Answered { bytes: body.to_bytes().to_vec(), clock_off_s })
}

/// By how many seconds a clock is fast that says such a date (RFC 9110, section 5.6.7) at a moment.
fn clock_off_s(date: &str, at: SystemTime) -> Option<i64> {
    let said = httpdate::parse_http_date(date).ok()?;
    let seconds = |time: SystemTime| {
        time.duration_since(SystemTime::UNIX_EPOCH).ok().and_then(|s| i64::try_from(s.as_secs()).ok())
    };
    Some(seconds(said)? - seconds(at)?)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_clock_is_read_from_the_date_that_it_says() {
        // The example of RFC 9110, section 5.6.7, in its three forms.
        let at = SystemTime::UNIX_EPOCH + Duration::from_secs(784_111_777);
        for date in ["Sun, 06 Nov 1994 08:49:37 GMT", "Sunday, 06-Nov-94 08:49:37 GMT", "Sun Nov  6 08:49:37 1994"] {
            assert_eq!(clock_off_s(date, at), Some(0), "{date}");
            assert_eq!(clock_off_s(date, at - Duration::from_secs(90)), Some(90), "{date}");
        }
        assert_eq!(clock_off_s("yesterday", at), None);
    }

    #[test]
    fn only_local_addresses_are_asked() {
        for (address, local) in [
            ("127.0.0.1", true),
            ("192.168.1.20", true),
            ("10.0.0.4", true),
            ("172.20.1.1", true),
            ("169.254.3.4", true),
            ("8.8.8.8", false),
            ("172.32.0.1", false),
            ("0.0.0.0", false),
            ("224.0.0.1", false),
            ("::1", true),
            ("fd00::1", true),
            ("2001:db8::1", false),
        ] {
            assert_eq!(is_local(address.parse().unwrap()), local, "{address}");
        }
    }
}
