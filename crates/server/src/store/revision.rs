//! Sites and their revisions: each a whole site file with the time and a word on what changed.

use super::{Store, StoreError};
use bright_angle_core::Site;
use bright_angle_core::file::SiteFile;
use serde::{Deserialize, Serialize};
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
}

/// A site in the list of sites.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema, FromRow)]
pub struct SiteHead {
    /// The site.
    pub id: Uuid,
    /// Its name in the newest revision.
    pub name: String,
    /// The newest revision's number.
    pub revision: i32,
    /// When that was saved.
    #[serde(with = "time::serde::rfc3339")]
    pub saved_at: OffsetDateTime,
    /// What changed in it.
    pub says: String,
    /// How many targets it has.
    pub targets: i32,
    /// How many cameras it has.
    pub cameras: i32,
}

/// A revision to be saved; its site has been validated.
pub struct Draft<'a> {
    /// The site.
    pub site: &'a Site,
    /// What changed, in a few words.
    pub says: &'a str,
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

const NEWEST: &str = "select number, based_on, created_at as saved_at, says, file from revision
     where site_id = $1 order by number desc limit 1";

impl Store {
    /// All sites, the one saved last first.
    pub async fn sites(&self) -> Result<Vec<SiteHead>, StoreError> {
        let heads = sqlx::query_as(
            "select distinct on (site_id) site_id as id, file->>'name' as name, number as revision,
                    created_at as saved_at, says,
                    jsonb_array_length(file->'targets') as targets, jsonb_array_length(file->'cameras') as cameras
             from revision order by site_id, number desc",
        );
        let mut heads: Vec<SiteHead> = heads.fetch_all(&self.pool).await?;
        heads.sort_by_key(|head| std::cmp::Reverse(head.saved_at));
        Ok(heads)
    }

    /// Keeps a new site as its revision 1.
    pub async fn create(&self, draft: &Draft<'_>) -> Result<Revision, StoreError> {
        let id = Uuid::new_v4();
        let mut work = self.pool.begin().await?;
        sqlx::query("insert into site (id) values ($1)").bind(id).execute(&mut *work).await?;
        let revision = append(&mut work, id, 1, None, draft).await?;
        work.commit().await?;
        Ok(revision)
    }

    /// Keeps a new revision of a site, made from revision `based_on`.
    ///
    /// # Errors
    /// [`StoreError::Stale`] with the newest revision when that is not `based_on`.
    pub async fn save(&self, id: Uuid, based_on: i32, draft: &Draft<'_>) -> Result<Revision, StoreError> {
        let mut work = self.pool.begin().await?;
        // The lock on the site's row makes two savers take turns.
        let site = sqlx::query("select id from site where id = $1 for update").bind(id);
        site.fetch_optional(&mut *work).await?.ok_or(StoreError::NoSite(id))?;
        let newest: Row = sqlx::query_as(NEWEST).bind(id).fetch_one(&mut *work).await?;
        if newest.number != based_on {
            return Err(StoreError::Stale(Box::new(newest.revision(id)?)));
        }
        let revision = append(&mut work, id, based_on + 1, Some(based_on), draft).await?;
        work.commit().await?;
        Ok(revision)
    }

    /// The newest revision of a site.
    pub async fn newest(&self, id: Uuid) -> Result<Revision, StoreError> {
        let row: Option<Row> = sqlx::query_as(NEWEST).bind(id).fetch_optional(&self.pool).await?;
        row.ok_or(StoreError::NoSite(id))?.revision(id)
    }

    /// One revision of a site.
    pub async fn revision(&self, id: Uuid, number: i32) -> Result<Revision, StoreError> {
        let row: Option<Row> = sqlx::query_as(
            "select number, based_on, created_at as saved_at, says, file from revision
             where site_id = $1 and number = $2",
        )
        .bind(id)
        .bind(number)
        .fetch_optional(&self.pool)
        .await?;
        row.ok_or(StoreError::NoRevision(id, number))?.revision(id)
    }

    /// All revisions of a site without their files, the newest first.
    pub async fn revisions(&self, id: Uuid) -> Result<Vec<RevisionHead>, StoreError> {
        let heads: Vec<RevisionHead> = sqlx::query_as(
            "select number, based_on, created_at as saved_at, says from revision
             where site_id = $1 order by number desc",
        )
        .bind(id)
        .fetch_all(&self.pool)
        .await?;
        if heads.is_empty() { Err(StoreError::NoSite(id)) } else { Ok(heads) }
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
        "insert into revision (site_id, number, based_on, says, file) values ($1, $2, $3, $4, $5) returning created_at",
    )
    .bind(site_id)
    .bind(number)
    .bind(based_on)
    .bind(draft.says)
    .bind(Json(&site))
    .fetch_one(work)
    .await?;
    Ok(Revision { site_id, number, based_on, saved_at, says: draft.says.to_owned(), site })
}
