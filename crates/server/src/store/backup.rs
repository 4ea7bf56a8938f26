//! Backups: all sites, revisions and pictures as open files in a folder, and back into an empty database.
//!
//! ```text
//! manifest.json        what it is, of which version, when and how much, and the SHA-256 of every file
//! catalogue.json       the firm's own catalogue, if there is one
//! sites/ID.jsonl       the site on the first line, then a revision a line, the oldest first
//! pictures/DIGEST      each under the SHA-256 of its bytes
//! ```
//!
//! Fields that a later version adds have a default when they are missing, so that an older backup goes into a newer program;
//! site files are migrated whenever they are read.

use super::device::is_device_name;
use super::{Store, StoreError};
use crate::picture::{LARGEST_MIB, Picture, digest, unpacked_mib};
use bright_angle_core::equipment::stock::Stock;
use bright_angle_core::file::SiteFile;
use rocket::futures::TryStreamExt;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use sha2::{Digest, Sha256};
use sqlx::types::Json;
use sqlx::{FromRow, PgConnection};
use std::collections::BTreeMap;
use std::fs::File;
use std::io::{BufRead, BufReader, BufWriter, Write};
use std::os::unix::fs::{DirBuilderExt, OpenOptionsExt};
use std::path::{Path, PathBuf};
use time::OffsetDateTime;
use uuid::Uuid;

const FORMAT: &str = "bright-angle/backup";
const VERSION: u32 = 1;
const CATALOGUE: &str = "catalogue.json";

/// How much a backup holds.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
pub struct Counted {
    /// Sites, deleted ones too.
    pub sites: usize,
    /// Revisions of all of them.
    pub revisions: usize,
    /// Pictures.
    pub pictures: usize,
}

#[derive(Serialize, Deserialize)]
struct Manifest {
    format: String,
    version: u32,
    #[serde(with = "time::serde::rfc3339")]
    made_at: OffsetDateTime,
    program: String,
    #[serde(flatten)]
    counted: Counted,
    /// The SHA-256 of each file, by its path in the folder; backups of before have none.
    #[serde(default)]
    files: BTreeMap<String, String>,
}

#[derive(Serialize, Deserialize, FromRow)]
struct SiteLine {
    id: Uuid,
    #[serde(with = "time::serde::rfc3339")]
    created_at: OffsetDateTime,
    name: String,
    revision: i32,
    #[serde(with = "time::serde::rfc3339")]
    saved_at: OffsetDateTime,
    says: String,
    #[serde(default)]
    targets: i32,
    #[serde(default)]
    cameras: i32,
    #[serde(default, with = "time::serde::rfc3339::option")]
    deleted_at: Option<OffsetDateTime>,
}

#[derive(Serialize, Deserialize, FromRow)]
struct RevisionLine {
    number: i32,
    based_on: Option<i32>,
    #[serde(with = "time::serde::rfc3339")]
    saved_at: OffsetDateTime,
    says: String,
    #[serde(default)]
    name: Option<String>,
    #[serde(default)]
    agreed: bool,
    #[serde(default)]
    device: Option<String>,
    file: Json<Value>,
}

/// The largest number of a revision that is taken: room stays for those that come after it.
const LARGEST_NUMBER: i32 = 1_000_000_000;

/// A short text in one line, as the interface takes it.
fn is_word(text: &str) -> bool {
    (1..=200).contains(&text.chars().count()) && !text.chars().any(char::is_control)
}

/// Whether somebody could have saved it by now; clocks differ a little.
fn is_past(at: OffsetDateTime) -> bool {
    at < OffsetDateTime::now_utc() + time::Duration::days(1)
}

impl SiteLine {
    /// Whether a site as it says could go on to be saved.
    fn sensible(&self) -> Result<(), String> {
        if !is_word(&self.name) || !(is_word(&self.says) || self.says.is_empty()) {
            return Err("its name and its last change take 1 to 200 characters in one line".to_owned());
        }
        if !(0..=LARGEST_NUMBER).contains(&self.revision) {
            return Err(format!("revision {} is none that others could follow", self.revision));
        }
        let times = [Some(self.created_at), Some(self.saved_at), self.deleted_at];
        if times.into_iter().flatten().all(is_past) { Ok(()) } else { Err("it is of a time to come".to_owned()) }
    }
}

impl RevisionLine {
    /// Whether it can follow the one before it.
    fn sensible(&self, before: Option<i32>) -> Result<(), String> {
        let follows = (1..=LARGEST_NUMBER).contains(&self.number) && before.is_none_or(|before| before < self.number);
        if !follows || self.based_on.is_some_and(|based| based >= self.number) {
            return Err(format!("revision {} is out of order", self.number));
        }
        if !is_word(&self.says) || self.name.as_deref().is_some_and(|name| !is_word(name)) {
            return Err("a name and a change take 1 to 200 characters in one line".to_owned());
        }
        if self.device.as_deref().is_some_and(|device| !is_device_name(device)) {
            return Err("a device's name takes 1 to 60 characters in one line".to_owned());
        }
        if is_past(self.saved_at) { Ok(()) } else { Err("it is of a time to come".to_owned()) }
    }
}

fn fault(path: &Path, what: impl std::fmt::Display) -> StoreError {
    StoreError::Backup(format!("{}: {what}", path.display()))
}

/// Writes everything that is kept into a folder that is not there yet, as it is at one moment.
///
/// # Errors
/// Names the file that could not be written. Nothing is left half-written under the folder's name.
pub async fn back_up(store: &Store, folder: &Path) -> Result<Counted, StoreError> {
    if folder.exists() {
        return Err(fault(folder, "is there already; name a folder that is not"));
    }
    // Made beside it, under a name that nobody else has: what is there already is not ours to delete.
    let mut new = folder.as_os_str().to_owned();
    new.push(format!(".{}.new", Uuid::new_v4()));
    let new = PathBuf::from(new);
    let outcome = write_all(store, &new).await;
    let moved = outcome.and_then(|counted| {
        std::fs::rename(&new, folder).map_err(|error| fault(folder, error))?;
        let around = folder.parent().filter(|around| !around.as_os_str().is_empty()).unwrap_or(Path::new("."));
        sync_folder(around)?;
        Ok(counted)
    });
    if moved.is_err() {
        // Only what was made here a moment ago.
        let _ = std::fs::remove_dir_all(&new);
    }
    moved
}

/// Makes a folder that only its owner sees; one that is there already is an error.
fn make_folder(path: &Path) -> Result<(), StoreError> {
    std::fs::DirBuilder::new().mode(0o700).create(path).map_err(|error| fault(path, error))
}

/// Makes a file that only its owner reads; one that is there already is an error.
fn make_file(path: &Path) -> Result<File, StoreError> {
    File::options().write(true).create_new(true).mode(0o600).open(path).map_err(|error| fault(path, error))
}

/// Sees that a folder's entries outlast a power cut.
fn sync_folder(path: &Path) -> Result<(), StoreError> {
    File::open(path).and_then(|folder| folder.sync_all()).map_err(|error| fault(path, error))
}

fn write_file(path: &Path, bytes: &[u8]) -> Result<(), StoreError> {
    let mut file = make_file(path)?;
    file.write_all(bytes).and_then(|()| file.sync_all()).map_err(|error| fault(path, error))
}

async fn write_all(store: &Store, new: &Path) -> Result<Counted, StoreError> {
    make_folder(new)?;
    for part in ["sites", "pictures"] {
        make_folder(&new.join(part))?;
    }
    let mut files = BTreeMap::new();
    let mut work = store.pool.begin().await?;
    sqlx::query("set transaction isolation level repeatable read, read only").execute(&mut *work).await?;
    sqlx::query("set local statement_timeout = 0").execute(&mut *work).await?;
    let mut counted = Counted::default();
    let sites: Vec<SiteLine> = sqlx::query_as(
        "select id, created_at, name, revision, saved_at, says, targets, cameras, deleted_at from site order by id",
    )
    .fetch_all(&mut *work)
    .await?;
    for site in &sites {
        counted.sites += 1;
        let name = format!("sites/{}.jsonl", site.id);
        let (revisions, digest) = write_site(&mut work, site, &new.join(&name)).await?;
        counted.revisions += revisions;
        files.insert(name, digest);
    }
    let mut pictures = sqlx::query_as("select name, bytes from picture").fetch(&mut *work);
    while let Some((name, bytes)) = pictures.try_next().await? {
        let (name, bytes): (String, Vec<u8>) = (name, bytes);
        let name = format!("pictures/{name}");
        write_file(&new.join(&name), &bytes)?;
        files.insert(name, digest(&bytes));
        counted.pictures += 1;
    }
    drop(pictures);
    let own: Option<Json<Value>> = sqlx::query_scalar("select file from catalogue order by number desc limit 1")
        .fetch_optional(&mut *work)
        .await?;
    if let Some(own) = own {
        let path = new.join(CATALOGUE);
        let text = serde_json::to_vec_pretty(&own.0).map_err(|error| fault(&path, error))?;
        write_file(&path, &text)?;
        files.insert(CATALOGUE.to_owned(), digest(&text));
    }
    let program = env!("CARGO_PKG_VERSION").to_owned();
    let made_at = OffsetDateTime::now_utc();
    let manifest = Manifest { format: FORMAT.into(), version: VERSION, made_at, program, counted, files };
    let path = new.join("manifest.json");
    let text = serde_json::to_string_pretty(&manifest).map_err(|error| fault(&path, error))?;
    write_file(&path, text.as_bytes())?;
    for folder in [&new.join("sites"), &new.join("pictures"), new] {
        sync_folder(folder)?;
    }
    Ok(counted)
}

/// Answers how many revisions it wrote, and the digest of the file.
async fn write_site(work: &mut PgConnection, site: &SiteLine, path: &Path) -> Result<(usize, String), StoreError> {
    let mut out = Digested { out: BufWriter::new(make_file(path)?), sum: Sha256::new() };
    write_line(&mut out, site, path)?;
    let revisions = sqlx::query_as(
        "select r.number, r.based_on, r.created_at as saved_at, r.says, named.name, coalesce(named.agreed, false) as agreed, r.device, r.file
         from revision r left join revision_name named using (site_id, number) where r.site_id = $1 order by r.number",
    );
    let mut revisions = revisions.bind(site.id).fetch(work);
    let mut count = 0;
    while let Some(revision) = revisions.try_next().await? {
        let revision: RevisionLine = revision;
        write_line(&mut out, &revision, path)?;
        count += 1;
    }
    out.flush().and_then(|()| out.out.get_ref().sync_all()).map_err(|error| fault(path, error))?;
    Ok((count, hex(&out.sum.finalize())))
}

/// Writes on, and sums up what is written.
struct Digested {
    out: BufWriter<File>,
    sum: Sha256,
}

impl Write for Digested {
    fn write(&mut self, bytes: &[u8]) -> std::io::Result<usize> {
        let written = self.out.write(bytes)?;
        self.sum.update(&bytes[..written]);
        Ok(written)
    }

    fn flush(&mut self) -> std::io::Result<()> {
        self.out.flush()
    }
}

fn hex(bytes: &[u8]) -> String {
    bytes.iter().map(|byte| format!("{byte:02x}")).collect()
}

fn write_line(out: &mut impl Write, line: &impl Serialize, path: &Path) -> Result<(), StoreError> {
    serde_json::to_writer(&mut *out, line).map_err(|error| fault(path, error))?;
    out.write_all(b"\n").map_err(|error| fault(path, error))
}

/// Brings a backup into a database that never held a site: all of it or nothing.
///
/// # Errors
/// Names the file, and the line, that is at fault.
pub async fn restore(store: &Store, folder: &Path) -> Result<Counted, StoreError> {
    let manifest_path = folder.join("manifest.json");
    is_file(&manifest_path)?;
    let text = std::fs::read_to_string(&manifest_path).map_err(|error| fault(&manifest_path, error))?;
    let manifest: Manifest = serde_json::from_str(&text).map_err(|error| fault(&manifest_path, error))?;
    if manifest.format != FORMAT || manifest.version > VERSION {
        let what = format!("{} {} is not {FORMAT} up to {VERSION}", manifest.format, manifest.version);
        return Err(fault(&manifest_path, what));
    }
    for (name, digest) in &manifest.files {
        // A manifest that names what lies elsewhere is none of ours.
        let inside = name == CATALOGUE
            || matches!(name.split_once('/'), Some(("sites" | "pictures", rest)) if !rest.contains(['/', '\\']) && rest != "..");
        let path = folder.join(name);
        if !inside {
            return Err(fault(&manifest_path, format!("names a file that is not in it: {name}")));
        }
        if digest_of(&path)? != *digest {
            return Err(fault(&path, "is damaged: it is not what the manifest says it is"));
        }
    }
    if store.has_sites().await? {
        return Err(StoreError::Backup("the database holds sites already; restore into an empty one".into()));
    }
    let mut work = store.pool.begin().await?;
    sqlx::query("set local statement_timeout = 0").execute(&mut *work).await?;
    let mut counted = Counted::default();
    for path in files(&folder.join("pictures"))? {
        read_picture(&mut work, &path).await?;
        counted.pictures += 1;
    }
    for path in files(&folder.join("sites"))? {
        counted.revisions += read_site(&mut work, &path).await?;
        counted.sites += 1;
    }
    read_catalogue(&mut work, &folder.join(CATALOGUE)).await?;
    if counted != manifest.counted {
        let what = format!("there should be {:?}, there is {counted:?}", manifest.counted);
        return Err(fault(folder, what));
    }
    work.commit().await?;
    Ok(counted)
}

/// Whether something is a file: a pipe, which may never end, is none.
fn is_file(path: &Path) -> Result<(), StoreError> {
    let found = std::fs::symlink_metadata(path).map_err(|error| fault(path, error))?;
    if found.is_file() { Ok(()) } else { Err(fault(path, "is no file")) }
}

fn digest_of(path: &Path) -> Result<String, StoreError> {
    is_file(path)?;
    let mut sum = Sha256::new();
    let mut file = File::open(path).map_err(|error| fault(path, error))?;
    std::io::copy(&mut file, &mut sum).map_err(|error| fault(path, error))?;
    Ok(hex(&sum.finalize()))
}

fn files(folder: &Path) -> Result<Vec<PathBuf>, StoreError> {
    let entries = std::fs::read_dir(folder).map_err(|error| fault(folder, error))?;
    let mut paths: Vec<PathBuf> = entries.filter_map(|entry| Some(entry.ok()?.path())).collect();
    paths.sort();
    paths.iter().try_for_each(|path| is_file(path))?;
    Ok(paths)
}

/// The firm's own catalogue, where there is one.
async fn read_catalogue(work: &mut PgConnection, path: &Path) -> Result<(), StoreError> {
    if !path.exists() {
        return Ok(());
    }
    is_file(path)?;
    let text = std::fs::read_to_string(path).map_err(|error| fault(path, error))?;
    let stock = Stock::parse(&text).map_err(|faults| fault(path, &faults[0]))?;
    sqlx::query("insert into catalogue (number, says, file) values (1, 'From a backup', $1)")
        .bind(Json(&stock))
        .execute(work)
        .await?;
    Ok(())
}

async fn read_picture(work: &mut PgConnection, path: &Path) -> Result<(), StoreError> {
    let bytes = std::fs::read(path).map_err(|error| fault(path, error))?;
    let name = digest(&bytes);
    if path.file_name().is_none_or(|named| named.to_string_lossy() != name) {
        return Err(fault(path, "is damaged: its name is not the digest of its bytes"));
    }
    // Held to what an upload is held to.
    let refused = |message: String| fault(path, message);
    if bytes.len() as u64 > LARGEST_MIB << 20 {
        return Err(fault(path, format!("is larger than {LARGEST_MIB} MiB")));
    }
    unpacked_mib(&bytes).map_err(refused)?;
    let Picture { media_type, width_px: width, height_px: height, .. } = Picture::take(&bytes).map_err(refused)?;
    let side = |px: u32| i32::try_from(px).unwrap_or(i32::MAX);
    sqlx::query("insert into picture (name, media_type, width_px, height_px, bytes) values ($1, $2, $3, $4, $5)")
        .bind(&name)
        .bind(media_type)
        .bind(side(width))
        .bind(side(height))
        .bind(&bytes)
        .execute(work)
        .await?;
    Ok(())
}

async fn read_site(work: &mut PgConnection, path: &Path) -> Result<usize, StoreError> {
    let mut lines = BufReader::new(File::open(path).map_err(|error| fault(path, error))?).lines();
    let first = lines.next().ok_or_else(|| fault(path, "is empty"))?.map_err(|error| fault(path, error))?;
    let site: SiteLine = serde_json::from_str(&first).map_err(|error| fault(path, format!("line 1: {error}")))?;
    site.sensible().map_err(|what| fault(path, format!("line 1: {what}")))?;
    sqlx::query(
        "insert into site (id, created_at, name, revision, saved_at, says, targets, cameras, deleted_at)
         values ($1, $2, $3, $4, $5, $6, $7, $8, $9)",
    )
    .bind(site.id)
    .bind(site.created_at)
    .bind(&site.name)
    .bind(site.revision)
    .bind(site.saved_at)
    .bind(&site.says)
    .bind(site.targets)
    .bind(site.cameras)
    .bind(site.deleted_at)
    .execute(&mut *work)
    .await?;
    let (mut count, mut newest) = (0, None);
    for (place, line) in lines.enumerate() {
        let at = |what: String| fault(path, format!("line {}: {what}", place + 2));
        let line = line.map_err(|error| at(error.to_string()))?;
        let revision: RevisionLine = serde_json::from_str(&line).map_err(|error| at(error.to_string()))?;
        revision.sensible(newest).map_err(at)?;
        newest = Some(revision.number);
        if let Err(faults) = SiteFile::parse(&revision.file.0.to_string()) {
            return Err(at(faults.iter().map(ToString::to_string).collect::<Vec<_>>().join("; ")));
        }
        write_revision(work, site.id, &revision).await?;
        count += 1;
    }
    if site.deleted_at.is_none() && newest != Some(site.revision) {
        return Err(fault(path, format!("the newest revision, {}, is missing", site.revision)));
    }
    Ok(count)
}

async fn write_revision(work: &mut PgConnection, site: Uuid, revision: &RevisionLine) -> Result<(), StoreError> {
    sqlx::query(
        "insert into revision (site_id, number, based_on, created_at, says, file, device) values ($1, $2, $3, $4, $5, $6, $7)",
    )
    .bind(site)
    .bind(revision.number)
    .bind(revision.based_on)
    .bind(revision.saved_at)
    .bind(&revision.says)
    .bind(&revision.file)
    .bind(&revision.device)
    .execute(&mut *work)
    .await?;
    // A name that it has from a rule was taken away, or is said here.
    sqlx::query("delete from revision_name where site_id = $1 and number = $2")
        .bind(site)
        .bind(revision.number)
        .execute(&mut *work)
        .await?;
    if let Some(name) = &revision.name {
        sqlx::query("insert into revision_name (site_id, number, name, agreed) values ($1, $2, $3, $4)")
            .bind(site)
            .bind(revision.number)
            .bind(name)
            .bind(revision.agreed)
            .execute(work)
            .await?;
    }
    Ok(())
}
