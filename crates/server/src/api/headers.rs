//! Headers that keep a browser from doing what the application never asks for.

use rocket::fairing::{Fairing, Info, Kind};
use rocket::http::Header;
use rocket::{Request, Response, async_trait};

/// Scripts, fonts and requests come from this server alone. Styles may stand inline: the controls'
/// styles are computed in the page.
const POLICY: &str = "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self' 'unsafe-inline'; \
    font-src 'self'; img-src 'self' data: blob:; worker-src 'self'; connect-src 'self'; manifest-src 'self'; \
    base-uri 'none'; form-action 'none'; frame-ancestors 'none'";

/// The headers of every answer, the door's own too.
pub const SAFE: [(&str, &str); 6] = [
    ("Content-Security-Policy", POLICY),
    ("Referrer-Policy", "no-referrer"),
    ("Cross-Origin-Opener-Policy", "same-origin"),
    ("Cross-Origin-Resource-Policy", "same-origin"),
    ("Permissions-Policy", "camera=(), microphone=(), geolocation=()"),
    ("X-Content-Type-Options", "nosniff"),
];

/// Adds the security headers to every answer.
pub struct Security;

#[async_trait]
impl Fairing for Security {
    fn info(&self) -> Info {
        Info { name: "security headers", kind: Kind::Response }
    }

    async fn on_response<'r>(&self, _: &'r Request<'_>, response: &mut Response<'r>) {
        for (name, value) in SAFE {
            response.set_header(Header::new(name, value));
        }
        // What is not there may come, what went wrong may go right, and what does not say otherwise may change at any time.
        let keeps = matches!(response.status().code, 200 | 304) && response.headers().contains("Cache-Control");
        if !keeps {
            response.set_header(Header::new("Cache-Control", "no-store"));
        }
    }
}
