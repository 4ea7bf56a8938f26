//! Links by which a client agrees: what is shown there, until when, and what was signed. A link's secret is kept as its SHA-256:
//! whoever reads the table opens none.

use super::device::hash;
use super::revision::lock;
use super::{Store, StoreError};
use serde::{Deserialize, Serialize};
use sqlx::FromRow;
use sqlx::types::Json;
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

/// So many links of a site are open at once.
const MOST_OPEN: i64 = 20;
/// Strokes of points, both axes 0 to 1, as an agreement of the site file has them.
pub type Strokes = Vec<Vec<[f64; 2]>>;

/// A link as the desk sees it.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema, FromRow)]
pub struct SignLink {
    /// The link.
    pub id: Uuid,
    /// The mark of what is shown there.
    pub shown: String,
    /// When it was made.
    #[serde(with = "time::serde::rfc3339")]
    pub made_at: OffsetDateTime,
    /// Until when it opens.
    #[serde(with = "time::serde::rfc3339")]
    pub ends_at: OffsetDateTime,
    /// When it was ended by hand, or taken over.
    #[serde(with = "time::serde::rfc3339::option")]
    #[schema(required)]
    pub ended_at: Option<OffsetDateTime>,
    /// When it was signed.
    #[serde(with = "time::serde::rfc3339::option")]
    #[schema(required)]
    pub signed_at: Option<OffsetDateTime>,
    /// Who signed.
    #[schema(required)]
    pub signed_name: Option<String>,
    /// How.
    #[schema(required, value_type = Option<Vec<Vec<[f64; 2]>>>)]
    pub signature: Option<Json<Strokes>>,
}

/// A link as it is made.
pub struct NewLink<'a> {
    /// Its site.
    pub site: Uuid,
    /// What opens it.
    pub secret: &'a str,
    /// The mark of what is shown.
    pub shown: &'a str,
    /// What is shown, JSON.
    pub sheet: serde_json::Value,
    /// Until when it opens.
    pub ends_at: OffsetDateTime,
}

/// What a link opens.
#[derive(FromRow)]
pub struct OpenedLink {
    /// What is shown.
    pub sheet: Option<Json<serde_json::Value>>,
    /// Until when.
    pub ends_at: OffsetDateTime,
    ended_at: Option<OffsetDateTime>,
    /// Who signed there.
    pub signed_name: Option<String>,
}

const COLUMNS: &str = "id, shown, made_at, ends_at, ended_at, signed_at, signed_name, signature";

impl Store {
    /// Keeps a link.
    ///
    /// # Errors
    /// No such site; too many of its links are open; no room.
    pub async fn make_link(&self, link: NewLink<'_>) -> Result<SignLink, StoreError> {
        self.room()?;
        // One after the other: two windows at once make no more than one would.
        let mut work = self.pool.begin().await?;
        lock(&mut work, link.site).await?;
        let open = "select count(*) from sign_link where site_id = $1 and ended_at is null and signed_at is null and ends_at > now()";
        let open: i64 = sqlx::query_scalar(open).bind(link.site).fetch_one(&mut *work).await?;
        if open >= MOST_OPEN {
            return Err(StoreError::ManyLinks(MOST_OPEN));
        }
        let made = format!(
            "insert into sign_link (id, site_id, secret_hash, shown, sheet, ends_at) values ($1, $2, $3, $4, $5, $6) returning {COLUMNS}"
        );
        let made = sqlx::query_as(&made)
            .bind(Uuid::new_v4())
            .bind(link.site)
            .bind(hash(link.secret))
            .bind(link.shown)
            .bind(Json(link.sheet))
            .bind(link.ends_at)
            .fetch_one(&mut *work)
            .await;
        let made = self.noted(made.map_err(StoreError::from))?;
        work.commit().await?;
        Ok(made)
    }

    /// Whether a site is there.
    async fn there(&self, site: Uuid) -> Result<(), StoreError> {
        lock(&mut *self.pool.begin().await?, site).await.map(drop)
    }

    /// The links of a site, the newest first: those that were not ended.
    pub async fn links(&self, site: Uuid) -> Result<Vec<SignLink>, StoreError> {
        self.there(site).await?;
        let found = format!(
            "select {COLUMNS} from sign_link where site_id = $1 and ended_at is null order by made_at desc, id limit 100"
        );
        Ok(sqlx::query_as(&found).bind(site).fetch_all(&self.pool).await?)
    }

    /// Ends a link: it shows nothing from now on. Answers whether there was one.
    pub async fn end_link(&self, site: Uuid, id: Uuid) -> Result<bool, StoreError> {
        let done =
            "update sign_link set ended_at = now(), sheet = null where site_id = $1 and id = $2 and ended_at is null";
        Ok(sqlx::query(done).bind(site).bind(id).execute(&self.pool).await?.rows_affected() > 0)
    }

    /// What a link shows.
    ///
    /// # Errors
    /// No such link, also where its site was deleted; one that is over.
    pub async fn open_link(&self, secret: &str) -> Result<OpenedLink, StoreError> {
        let found =
            "select l.sheet, l.ends_at, l.ended_at, l.signed_name from sign_link l join site s on s.id = l.site_id
             where l.secret_hash = $1 and s.deleted_at is null";
        let found: Option<OpenedLink> = sqlx::query_as(found).bind(hash(secret)).fetch_optional(&self.pool).await?;
        let found = found.ok_or(StoreError::NoLink)?;
        if found.ended_at.is_some() || found.sheet.is_none() || found.ends_at <= OffsetDateTime::now_utc() {
            return Err(StoreError::LinkOver);
        }
        Ok(found)
    }

    /// Signs by a link, once.
    ///
    /// # Errors
    /// As [`Store::open_link`]; one that is signed.
    pub async fn sign_link(&self, secret: &str, name: &str, signature: Strokes) -> Result<(), StoreError> {
        self.room()?;
        let done = "update sign_link set signed_at = now(), signed_name = $2, signature = $3
             where secret_hash = $1 and signed_at is null and ended_at is null and ends_at > now()";
        if let Some(name) = self.open_link(secret).await?.signed_name {
            return Err(StoreError::SignedAlready(name));
        }
        let done = sqlx::query(done).bind(hash(secret)).bind(name).bind(Json(signature)).execute(&self.pool).await;
        match self.noted(done.map_err(StoreError::from))?.rows_affected() {
            // Somebody was quicker.
            0 => Err(match self.open_link(secret).await?.signed_name {
                Some(name) => StoreError::SignedAlready(name),
                None => StoreError::LinkOver,
            }),
            _ => Ok(()),
        }
    }

    /// Forgets what links showed that are over.
    pub(super) async fn empty_links(&self, at: OffsetDateTime) -> Result<u64, StoreError> {
        let done = "update sign_link set sheet = null where sheet is not null and ends_at <= $1";
        Ok(sqlx::query(done).bind(at).execute(&self.pool).await?.rows_affected())
    }
}
