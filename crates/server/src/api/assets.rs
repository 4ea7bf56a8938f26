//! The front end's built files, read once when the program starts: under their digest, and compressed for browsers that take it.

use super::guard::{self, Guard, LetIn};
use crate::picture::digest;
use rocket::http::{ContentType, Header, Status};
use rocket::request::{FromRequest, Outcome, Request};
use rocket::response::{self, Redirect, Responder, Response};
use rocket::{State, get};
use std::collections::HashMap;
use std::io::Cursor;
use std::path::{Path, PathBuf};

/// The built files by their path, without the leading slash.
pub struct Assets(HashMap<String, File>);

struct File {
    content: ContentType,
    /// The SHA-256 of its bytes, quoted as an entity tag.
    tag: String,
    bytes: &'static [u8],
    brotli: Option<&'static [u8]>,
    /// Whether its name changes with its content.
    hashed: bool,
}

impl Assets {
    /// Reads a folder.
    ///
    /// # Errors
    /// Names the file that cannot be read.
    pub fn read(folder: &Path) -> Result<Assets, String> {
        let mut paths = Vec::new();
        walk(folder, &mut paths).map_err(|error| format!("{}: {error}", folder.display()))?;
        let read = |path: &Path| -> Result<&'static [u8], String> {
            let bytes = std::fs::read(path).map_err(|error| format!("{}: {error}", path.display()))?;
            // They are served until the program ends.
            Ok(Vec::leak(bytes))
        };
        let mut files = HashMap::new();
        for path in paths.iter().filter(|path| path.extension().is_none_or(|ending| ending != "br")) {
            let bytes = read(path)?;
            let mut beside = path.as_os_str().to_owned();
            beside.push(".br");
            let beside = PathBuf::from(beside);
            let brotli = if beside.is_file() { Some(read(&beside)?) } else { None };
            let name = path.strip_prefix(folder).unwrap_or(path).to_string_lossy().replace('\\', "/");
            let ending = path.extension().and_then(|ending| ending.to_str()).unwrap_or_default();
            let content = match ending {
                "webmanifest" => ContentType::new("application", "manifest+json"),
                _ => ContentType::from_extension(ending).unwrap_or(ContentType::Binary),
            };
            let hashed = name.starts_with("assets/");
            files.insert(name, File { content, tag: format!("\"{}\"", digest(bytes)), bytes, brotli, hashed });
        }
        Ok(Assets(files))
    }
}

fn walk(folder: &Path, found: &mut Vec<PathBuf>) -> std::io::Result<()> {
    for entry in std::fs::read_dir(folder)? {
        let path = entry?.path();
        if path.is_dir() { walk(&path, found)? } else { found.push(path) }
    }
    Ok(())
}

/// What a browser has already, whether it takes Brotli, and where it should have asked for the page.
pub struct Browser {
    elsewhere: Option<String>,
    has: Vec<String>,
    brotli: bool,
}

#[rocket::async_trait]
impl<'r> FromRequest<'r> for Browser {
    type Error = ();

    async fn from_request(request: &'r Request<'_>) -> Outcome<Self, ()> {
        let listed = |name: &'static str| request.headers().get(name).flat_map(|list| list.split(',')).map(str::trim);
        let has = listed("If-None-Match").map(|tag| tag.trim_start_matches("W/").to_owned()).collect();
        let brotli = listed("Accept-Encoding")
            .any(|one| one.split(';').next().is_some_and(|name| name.trim() == "br") && !one.contains("q=0"));
        let host = request.headers().get_one("Host").unwrap_or_default();
        // The shared door has names of its own.
        let here = guard::peer(request).is_none();
        let elsewhere = request.rocket().state::<Guard>().filter(|_| here).and_then(|guard| guard.elsewhere(host));
        Outcome::Success(Browser { elsewhere, has, brotli })
    }
}

/// A built file as one browser wants it.
pub struct Served<'r> {
    file: &'r File,
    browser: Browser,
}

impl<'r> Responder<'r, 'r> for Served<'r> {
    fn respond_to(self, _: &'r Request<'_>) -> response::Result<'r> {
        let Served { file, browser } = self;
        let mut answer = Response::build();
        let keep = if file.hashed { "public, max-age=31536000, immutable" } else { "no-cache" };
        answer.header(Header::new("ETag", file.tag.clone())).header(Header::new("Cache-Control", keep));
        if file.brotli.is_some() {
            answer.header(Header::new("Vary", "Accept-Encoding"));
        }
        if browser.has.iter().any(|tag| tag == &file.tag || tag == "*") {
            return answer.status(Status::NotModified).ok();
        }
        answer.header(file.content.clone());
        let bytes = match file.brotli.filter(|_| browser.brotli) {
            Some(brotli) => {
                answer.header(Header::new("Content-Encoding", "br"));
                brotli
            }
            None => file.bytes,
        };
        answer.sized_body(bytes.len(), Cursor::new(bytes)).ok()
    }
}

/// A built file, or the way to where the page is.
pub enum Page<'r> {
    /// It is here.
    Here(Served<'r>),
    /// It is there: an address.
    Elsewhere(String),
}

impl<'r> Responder<'r, 'r> for Page<'r> {
    fn respond_to(self, request: &'r Request<'_>) -> response::Result<'r> {
        match self {
            Page::Here(served) => served.respond_to(request),
            Page::Elsewhere(there) => Redirect::temporary(there).respond_to(request),
        }
    }
}

/// A built file; the page itself at the root. The page has one name: under another of this machine's it would keep a second shelf.
#[get("/<path..>", rank = 20)]
pub fn file<'r>(_in: LetIn, path: PathBuf, browser: Browser, assets: &'r State<Assets>) -> Option<Page<'r>> {
    let name = path.to_str()?.replace('\\', "/");
    if let Some(there) = browser.elsewhere.clone().filter(|_| name.is_empty()) {
        return Some(Page::Elsewhere(there));
    }
    let file = assets.0.get(if name.is_empty() { "index.html" } else { &name })?;
    Some(Page::Here(Served { file, browser }))
}
