//! Backups: all sites, revisions and pictures as open files in a folder, and back into an empty database.
//!
//! ```text
//! manifest.json        what it is, of which version, when and how much
//! sites/ID.jsonl       the site on the first line, then a revision a line, the oldest first
//! pictures/DIGEST      each under the SHA-256 of its bytes
//! ```
//!
//! Fields that a later version adds have a default when they are missing, so that an older backup goes into a newer program;
//! site files are migrated whenever they are read.

use super::{Store, StoreError};
use crate::picture::digest;
use bright_angle_core::file::SiteFile;
use rocket::futures::TryStreamExt;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use sqlx::types::Json;
use sqlx::{FromRow, PgConnection};
use std::fs::File;
use std::io::{BufRead, BufReader, BufWriter, Write};
use std::path::{Path, PathBuf};
use time::OffsetDateTime;
use uuid::Uuid;

const FORMAT: &str = "bright-angle/backup";
const VERSION: u32 = 1;

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
    file: Json<Value>,
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
    let mut new = folder.as_os_str().to_owned();
    new.push(".new");
    let new = PathBuf::from(new);
    if new.exists() {
        std::fs::remove_dir_all(&new).map_err(|error| fault(&new, error))?;
    }
    for part in ["sites", "pictures"] {
        std::fs::create_dir_all(new.join(part)).map_err(|error| fault(&new, error))?;
    }
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
        counted.revisions += write_site(&mut work, site, &new.join("sites").join(format!("{}.jsonl", site.id))).await?;
    }
    let mut pictures = sqlx::query_as("select name, bytes from picture").fetch(&mut *work);
    while let Some((name, bytes)) = pictures.try_next().await? {
        let (name, bytes): (String, Vec<u8>) = (name, bytes);
        let path = new.join("pictures").join(name);
        std::fs::write(&path, bytes).map_err(|error| fault(&path, error))?;
        counted.pictures += 1;
    }
    let program = env!("CARGO_PKG_VERSION").to_owned();
    let made_at = OffsetDateTime::now_utc();
    let manifest = Manifest { format: FORMAT.into(), version: VERSION, made_at, program, counted };
    let path = new.join("manifest.json");
    let text = serde_json::to_string_pretty(&manifest).map_err(|error| fault(&path, error))?;
    std::fs::write(&path, text).map_err(|error| fault(&path, error))?;
    std::fs::rename(&new, folder).map_err(|error| fault(folder, error))?;
    Ok(counted)
}

async fn write_site(work: &mut PgConnection, site: &SiteLine, path: &Path) -> Result<usize, StoreError> {
    let mut out = BufWriter::new(File::create(path).map_err(|error| fault(path, error))?);
    write_line(&mut out, site, path)?;
    let revisions = sqlx::query_as(
        "select r.number, r.based_on, r.created_at as saved_at, r.says, named.name, coalesce(named.agreed, false) as agreed, r.file
         from revision r left join revision_name named using (site_id, number) where r.site_id = $1 order by r.number",
    );
    let mut revisions = revisions.bind(site.id).fetch(work);
    let mut count = 0;
    while let Some(revision) = revisions.try_next().await? {
        let revision: RevisionLine = revision;
        write_line(&mut out, &revision, path)?;
        count += 1;
    }
    out.flush().map_err(|error| fault(path, error))?;
    Ok(count)
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
    let text = std::fs::read_to_string(&manifest_path).map_err(|error| fault(&manifest_path, error))?;
    let manifest: Manifest = serde_json::from_str(&text).map_err(|error| fault(&manifest_path, error))?;
    if manifest.format != FORMAT || manifest.version > VERSION {
        let what = format!("{} {} is not {FORMAT} up to {VERSION}", manifest.format, manifest.version);
        return Err(fault(&manifest_path, what));
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
    if counted != manifest.counted {
        let what = format!("there should be {:?}, there is {counted:?}", manifest.counted);
        return Err(fault(folder, what));
    }
    work.commit().await?;
    Ok(counted)
}

fn files(folder: &Path) -> Result<Vec<PathBuf>, StoreError> {
    let entries = std::fs::read_dir(folder).map_err(|error| fault(folder, error))?;
    let mut paths: Vec<PathBuf> = entries.filter_map(|entry| Some(entry.ok()?.path())).collect();
    paths.sort();
    Ok(paths)
}

async fn read_picture(work: &mut PgConnection, path: &Path) -> Result<(), StoreError> {
    let bytes = std::fs::read(path).map_err(|error| fault(path, error))?;
    let name = digest(&bytes);
    if path.file_name().is_none_or(|named| named.to_string_lossy() != name) {
        return Err(fault(path, "is damaged: its name is not the digest of its bytes"));
    }
    let reader = image::ImageReader::new(std::io::Cursor::new(&bytes)).with_guessed_format();
    let reader = reader.map_err(|error| fault(path, error))?;
    let media_type = match reader.format() {
        Some(image::ImageFormat::Png) => "image/png",
        Some(image::ImageFormat::Jpeg) => "image/jpeg",
        _ => return Err(fault(path, "is no PNG or JPEG")),
    };
    let (width, height) = reader.into_dimensions().map_err(|error| fault(path, error))?;
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
        "insert into revision (site_id, number, based_on, created_at, says, file) values ($1, $2, $3, $4, $5, $6)",
    )
    .bind(site)
    .bind(revision.number)
    .bind(revision.based_on)
    .bind(revision.saved_at)
    .bind(&revision.says)
    .bind(&revision.file)
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
