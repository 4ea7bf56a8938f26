//! Sites and their revisions: each a whole site file with the time and a word on what changed.

use super::{Store, StoreError};
use bright_angle_core::file::{SiteFile, VERSION};
use bright_angle_core::{Fault, Site};
use rocket::tokio;
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use sqlx::types::Json;
use sqlx::{FromRow, PgConnection};
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

/// One revision of a site.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Revision {
    /// The site.
    pub site_id: Uuid,
    /// Its number, from 1.
    pub number: i32,
    /// The revision that it was made from.
    #[schema(required)]
    pub based_on: Option<i32>,
    /// When it was saved.
    #[serde(with = "time::serde::rfc3339")]
    pub saved_at: OffsetDateTime,
    /// What changed, in a few words.
    pub says: String,
    /// The whole site file.
    pub site: SiteFile,
}

/// One revision of a site as it is kept: its file is passed on as the database has it, unread.
#[derive(Debug, Serialize)]
pub struct KeptRevision {
    /// The site.
    pub site_id: Uuid,
    /// Its number, from 1.
    pub number: i32,
    /// The revision that it was made from.
    pub based_on: Option<i32>,
    /// When it was saved.
    #[serde(with = "time::serde::rfc3339")]
    pub saved_at: OffsetDateTime,
    /// What changed, in a few words.
    pub says: String,
    /// The whole site file.
    pub site: Box<RawValue>,
}

/// A revision without its file.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema, FromRow)]
pub struct RevisionHead {
    /// Its number, from 1.
    pub number: i32,
    /// The revision that it was made from.
    #[schema(required)]
    pub based_on: Option<i32>,
    /// When it was saved.
    #[serde(with = "time::serde::rfc3339")]
    pub saved_at: OffsetDateTime,
    /// What changed, in a few words.
    pub says: String,
    /// The name that somebody gave this state; it is never thinned out.
    #[schema(required)]
    pub name: Option<String>,
    /// Whether it was agreed on.
    pub agreed: bool,
    /// The device that saved it; null where that was this machine itself.
    #[schema(required)]
    pub device: Option<String>,
}

/// A revision to be saved; its site has been validated.
pub struct Draft<'a> {
    /// The site.
    pub site: &'a Site,
    /// What changed, in a few words.
    pub says: &'a str,
    /// The device that saves it; none where that is this machine itself.
    pub device: Option<&'a str>,
}

#[derive(FromRow)]
struct Row {
    number: i32,
    based_on: Option<i32>,
    saved_at: OffsetDateTime,
    says: String,
    file: Json<serde_json::Value>,
}

impl Row {
    /// Whether it is what a draft would become.
    fn holds(&self, draft: &Draft<'_>) -> bool {
        // As the database gives it back: it has one spelling for a number that has many.
        let [kept, sent] = [SiteFile::parse(&self.file.0.to_string()).ok(), Some(draft.site.file().clone())];
        kept == sent && self.says == draft.says
    }

    /// Reads the kept file through the same door as any other, so that old versions are migrated.
    fn revision(self, site_id: Uuid) -> Result<Revision, StoreError> {
        let site = SiteFile::parse(&self.file.0.to_string()).map_err(|faults| StoreError::Unreadable {
            site: site_id,
            number: self.number,
            reason: faults.iter().map(ToString::to_string).collect::<Vec<_>>().join("; "),
        })?;
        let Row { number, based_on, saved_at, says, .. } = self;
        Ok(Revision { site_id, number, based_on, saved_at, says, site })
    }
}

#[derive(FromRow)]
struct RawRow {
    number: i32,
    based_on: Option<i32>,
    saved_at: OffsetDateTime,
    says: String,
    file: String,
}

impl RawRow {
    /// The revision with its file as it is, if it is of the version that this program writes; else read and migrated.
    async fn kept(self, site_id: Uuid) -> Result<KeptRevision, StoreError> {
        let RawRow { number, based_on, saved_at, says, file } = self;
        let unreadable = move |reason: String| StoreError::Unreadable { site: site_id, number, reason };
        // Large files are looked through beside the threads that serve requests.
        let read = move || -> Result<Box<RawValue>, String> {
            let told = |faults: Vec<Fault>| faults.iter().map(ToString::to_string).collect::<Vec<_>>().join("; ");
            let Header { version } = serde_json::from_str(&file).map_err(|error| error.to_string())?;
            if version == VERSION {
                return RawValue::from_string(file).map_err(|error| error.to_string());
            }
            serde_json::value::to_raw_value(&SiteFile::parse(&file).map_err(told)?).map_err(|error| error.to_string())
        };
        let site = tokio::task::spawn_blocking(read).await.map_err(|error| unreadable(error.to_string()))?;
        Ok(KeptRevision { site_id, number, based_on, saved_at, says, site: site.map_err(unreadable)? })
    }
}

#[derive(Deserialize)]
struct Header {
    version: u32,
}

const RAW_NEWEST: &str = "select number, based_on, created_at as saved_at, says, file::text as file from revision
     where site_id = $1 order by number desc limit 1";
const RAW_NUMBERED: &str = "select number, based_on, created_at as saved_at, says, file::text as file from revision
     where site_id = $1 and number = $2";
const NEWEST: &str = "select number, based_on, created_at as saved_at, says, file from revision
     where site_id = $1 order by number desc limit 1";
const NUMBERED: &str = "select number, based_on, created_at as saved_at, says, file from revision
     where site_id = $1 and number = $2";

impl Store {
    /// Keeps a new site as its revision 1, under the id that its maker gave it or a new one. Asked again with the same id and the
    /// same file it answers with the revision that is there: an answer may have been lost.
    ///
    /// # Errors
    /// [`StoreError::Taken`] when another site has the id, [`StoreError::Gone`] when it was deleted.
    pub async fn create(&self, id: Option<Uuid>, draft: &Draft<'_>) -> Result<Revision, StoreError> {
        self.room()?;
        self.noted(self.try_create(id, draft).await)
    }

    async fn try_create(&self, id: Option<Uuid>, draft: &Draft<'_>) -> Result<Revision, StoreError> {
        let id = id.unwrap_or_else(Uuid::new_v4);
        let mut work = self.pool.begin().await?;
        let made = sqlx::query(
            "insert into site (id, name, revision, saved_at, says) values ($1, $2, 1, now(), $3) on conflict (id) do nothing",
        );
        let made = made.bind(id).bind(&draft.site.file().name).bind(draft.says).execute(&mut *work).await?;
        if made.rows_affected() == 0 {
            lock(&mut work, id).await?;
            let first: Option<Row> = sqlx::query_as(NUMBERED).bind(id).bind(1).fetch_optional(&mut *work).await?;
            let first = first.ok_or(StoreError::Taken(id))?;
            return if first.holds(draft) { first.revision(id) } else { Err(StoreError::Taken(id)) };
        }
        let revision = append(&mut work, id, 1, None, draft).await?;
        work.commit().await?;
        Ok(revision)
    }

    /// Keeps a new revision of a site, made from revision `based_on`. Asked again with the same file it answers with the revision
    /// that is there: an answer may have been lost.
    ///
    /// # Errors
    /// [`StoreError::Stale`] with the newest revision when that is not `based_on`.
    pub async fn save(&self, id: Uuid, based_on: i32, draft: &Draft<'_>) -> Result<Revision, StoreError> {
        self.room()?;
        self.noted(self.try_save(id, based_on, draft).await)
    }

    async fn try_save(&self, id: Uuid, based_on: i32, draft: &Draft<'_>) -> Result<Revision, StoreError> {
        let mut work = self.pool.begin().await?;
        // The lock on the site's row makes two savers take turns.
        let newest = lock(&mut work, id).await?;
        if newest != based_on {
            // A chain has one revision that follows another: if that is the same file, this is the same save.
            let next = sqlx::query_as(NUMBERED).bind(id).bind(based_on.saturating_add(1));
            let next: Option<Row> = next.fetch_optional(&mut *work).await?;
            if let Some(same) = next.filter(|next| next.based_on == Some(based_on) && next.holds(draft)) {
                return same.revision(id);
            }
            let newest: Row = sqlx::query_as(NEWEST).bind(id).fetch_one(&mut *work).await?;
            return Err(StoreError::Stale(Box::new(newest.revision(id)?)));
        }
        let revision = append(&mut work, id, based_on + 1, Some(based_on), draft).await?;
        work.commit().await?;
        Ok(revision)
    }

    /// The newest revision of a site.
    pub async fn newest(&self, id: Uuid) -> Result<KeptRevision, StoreError> {
        let row: Option<RawRow> = sqlx::query_as(RAW_NEWEST).bind(id).fetch_optional(&self.pool).await?;
        match row {
            Some(row) => row.kept(id).await,
            None => Err(self.why_not(id).await?),
        }
    }

    /// The number of a site's newest revision, without its file; none of a site that is not there, or not any more.
    pub async fn newest_number(&self, id: Uuid) -> Result<Option<i32>, StoreError> {
        let number = sqlx::query_scalar("select revision from site where id = $1 and deleted_at is null").bind(id);
        Ok(number.fetch_optional(&self.pool).await?)
    }

    /// One revision of a site.
    pub async fn revision(&self, id: Uuid, number: i32) -> Result<KeptRevision, StoreError> {
        let row: Option<RawRow> = sqlx::query_as(RAW_NUMBERED).bind(id).bind(number).fetch_optional(&self.pool).await?;
        row.ok_or(StoreError::NoRevision(id, number))?.kept(id).await
    }

    /// Revisions of a site without their files, the newest first: at most so many, of those under a number if one is given.
    pub async fn revisions(&self, id: Uuid, under: Option<i32>, most: i64) -> Result<Vec<RevisionHead>, StoreError> {
        let heads: Vec<RevisionHead> = sqlx::query_as(
            "select r.number, r.based_on, r.created_at as saved_at, r.says, named.name, coalesce(named.agreed, false) as agreed, r.device
             from revision r left join revision_name named using (site_id, number)
             where r.site_id = $1 and r.number < $2 order by r.number desc limit $3",
        )
        .bind(id)
        .bind(under.unwrap_or(i32::MAX))
        .bind(most)
        .fetch_all(&self.pool)
        .await?;
        if heads.is_empty() && under.is_none() { Err(self.why_not(id).await?) } else { Ok(heads) }
    }

    /// Gives a revision a name, or takes it away; a named one is never thinned out.
    pub async fn name_revision(
        &self,
        id: Uuid,
        number: i32,
        name: Option<&str>,
        agreed: bool,
    ) -> Result<(), StoreError> {
        let done = match name {
            Some(name) => sqlx::query(
                "insert into revision_name (site_id, number, name, agreed) select site_id, number, $3, $4 from revision
                 where site_id = $1 and number = $2
                 on conflict (site_id, number) do update set name = excluded.name, agreed = excluded.agreed, named_at = now()",
            )
            .bind(id)
            .bind(number)
            .bind(name)
            .bind(agreed),
            None => sqlx::query("delete from revision_name where site_id = $1 and number = $2").bind(id).bind(number),
        };
        if done.execute(&self.pool).await?.rows_affected() > 0 {
            return Ok(());
        }
        // A name that was not there is taken away all the same, but not one of a revision that is not there.
        let there = sqlx::query_scalar("select exists (select from revision where site_id = $1 and number = $2)");
        let there: bool = there.bind(id).bind(number).fetch_one(&self.pool).await?;
        if there { Ok(()) } else { Err(StoreError::NoRevision(id, number)) }
    }

    /// Why a site has no revision: it was deleted, or never was.
    async fn why_not(&self, id: Uuid) -> Result<StoreError, StoreError> {
        let known = sqlx::query_as("select name, deleted_at from site where id = $1").bind(id);
        let known: Option<(String, Option<OffsetDateTime>)> = known.fetch_optional(&self.pool).await?;
        Ok(match known {
            Some((name, Some(_))) => StoreError::Gone(name),
            _ => StoreError::NoSite(id),
        })
    }
}

/// Locks a site's row until the work is done; answers the number of its newest revision.
pub(super) async fn lock(work: &mut PgConnection, id: Uuid) -> Result<i32, StoreError> {
    let site = sqlx::query_as("select revision, name, deleted_at from site where id = $1 for update").bind(id);
    let site: Option<(i32, String, Option<OffsetDateTime>)> = site.fetch_optional(work).await?;
    match site.ok_or(StoreError::NoSite(id))? {
        (_, name, Some(_)) => Err(StoreError::Gone(name)),
        (newest, _, None) => Ok(newest),
    }
}

async fn append(
    work: &mut PgConnection,
    site_id: Uuid,
    number: i32,
    based_on: Option<i32>,
    draft: &Draft<'_>,
) -> Result<Revision, StoreError> {
    let site = draft.site.file().clone();
    let saved_at: OffsetDateTime = sqlx::query_scalar(
        "insert into revision (site_id, number, based_on, says, file, device) values ($1, $2, $3, $4, $5, $6) returning created_at",
    )
    .bind(site_id)
    .bind(number)
    .bind(based_on)
    .bind(draft.says)
    .bind(Json(&site))
    .bind(draft.device)
    .fetch_one(&mut *work)
    .await?;
    let count = |items: usize| i32::try_from(items).unwrap_or(i32::MAX);
    sqlx::query(
        "update site set name = $2, revision = $3, saved_at = $4, says = $5, targets = $6, cameras = $7 where id = $1",
    )
    .bind(site_id)
    .bind(&site.name)
    .bind(number)
    .bind(saved_at)
    .bind(draft.says)
    .bind(count(site.targets.len()))
    .bind(count(site.cameras.len()))
    .execute(work)
    .await?;
    Ok(Revision { site_id, number, based_on, saved_at, says: draft.says.to_owned(), site })
}
