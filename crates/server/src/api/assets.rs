//! The front end's built files as they were compressed when they were built, for browsers that take them so.

use rocket::fs::NamedFile;
use rocket::http::{ContentType, Header, Status};
use rocket::request::{FromRequest, Outcome, Request};
use rocket::{Responder, get};
use std::path::{Path, PathBuf};

/// The folder with the built files.
pub struct Assets(pub PathBuf);

/// The compressed file beside the one that is asked for, if the browser takes it and it is there.
pub struct Beside {
    file: NamedFile,
    content: ContentType,
}

#[rocket::async_trait]
impl<'r> FromRequest<'r> for Beside {
    type Error = ();

    async fn from_request(request: &'r Request<'_>) -> Outcome<Self, ()> {
        // Without it the plain file is served by whoever comes next.
        beside(request).await.map_or(Outcome::Forward(Status::NotFound), Outcome::Success)
    }
}

async fn beside(request: &Request<'_>) -> Option<Beside> {
    let mut encodings = request.headers().get("Accept-Encoding").flat_map(|list| list.split(','));
    encodings.find(|one| one.split(';').next().is_some_and(|name| name.trim() == "br") && !one.contains("q=0"))?;
    let name: &str = request.param(0)?.ok()?;
    // One segment, decoded: what would lead out of the folder is no name.
    if name.contains(['/', '\\']) || name.starts_with('.') {
        return None;
    }
    let content = ContentType::from_extension(Path::new(name).extension()?.to_str()?)?;
    let folder = request.rocket().state::<Assets>()?;
    let file = NamedFile::open(folder.0.join(format!("{name}.br"))).await.ok()?;
    Some(Beside { file, content })
}

/// A compressed file under the type of what it holds.
#[derive(Responder)]
pub struct Compressed {
    file: NamedFile,
    content: ContentType,
    encoding: Header<'static>,
    vary: Header<'static>,
}

/// A built file, compressed.
#[get("/<_name>", rank = 1)]
pub fn compressed(_name: &str, beside: Beside) -> Compressed {
    Compressed {
        file: beside.file,
        content: beside.content,
        encoding: Header::new("Content-Encoding", "br"),
        vary: Header::new("Vary", "Accept-Encoding"),
    }
}
