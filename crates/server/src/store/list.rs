//! The list of sites, a page at a time, and the end of a site.

use super::revision::lock;
use super::{Store, StoreError};
use serde::{Deserialize, Serialize};
use sqlx::FromRow;
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

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
    /// Who the client is.
    #[schema(required)]
    pub client: Option<String>,
    /// Where the site is.
    #[schema(required)]
    pub address: Option<String>,
    /// Whether the program brought it along, to be looked at.
    pub demo: bool,
}

/// A page of the list of sites.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SitePage {
    /// The sites, the one saved last first; those that the program brought along after all others.
    pub sites: Vec<SiteHead>,
    /// How many there are on all pages.
    pub total: i64,
    /// The site to ask for the next page after; null on the last.
    #[schema(required)]
    pub next: Option<Uuid>,
}

/// Which part of the list is wanted.
#[derive(Clone, Copy, Debug)]
pub struct Wanted<'a> {
    /// Those after this site; from the beginning where it is left out.
    pub after: Option<Uuid>,
    /// Those whose name, client, address or last change holds this, whatever the case of its letters.
    pub named: Option<&'a str>,
    /// How many at most.
    pub most: i64,
}

impl Store {
    /// A page of the sites, the one saved last first; those that the program brought along after all others.
    pub async fn sites(&self, wanted: Wanted<'_>) -> Result<SitePage, StoreError> {
        let like = wanted.named.map(|name| format!("%{}%", name.replace(['\\', '%', '_'], "_")));
        let heads = sqlx::query_as(
            "select id, name, revision, saved_at, says, targets, cameras, client, address, demo from site
             where deleted_at is null and ($1::text is null or concat_ws(' ', name, client, address, says) ilike $1)
               and ($2::uuid is null or (not demo, saved_at, id) < (select not demo, saved_at, id from site where id = $2))
             order by demo, saved_at desc, id desc limit $3",
        );
        let mut sites: Vec<SiteHead> =
            heads.bind(&like).bind(wanted.after).bind(wanted.most + 1).fetch_all(&self.pool).await?;
        let more = sites.len() as i64 > wanted.most;
        sites.truncate(usize::try_from(wanted.most).unwrap_or(0));
        let total = sqlx::query_scalar(
            "select count(*) from site where deleted_at is null
             and ($1::text is null or concat_ws(' ', name, client, address, says) ilike $1)",
        );
        let total = total.bind(&like).fetch_one(&self.pool).await?;
        let next = sites.last().filter(|_| more).map(|site| site.id);
        Ok(SitePage { sites, total, next })
    }

    /// Whether there is, or ever was, a site.
    pub async fn has_sites(&self) -> Result<bool, StoreError> {
        Ok(sqlx::query_scalar("select exists (select from site)").fetch_one(&self.pool).await?)
    }

    /// Deletes a site for good: its revisions, and the pictures that only it names. Its name and the time stay.
    ///
    /// # Errors
    /// [`StoreError::OtherName`] when `name` is not the site's.
    pub async fn delete(&self, id: Uuid, name: &str) -> Result<(), StoreError> {
        let mut work = self.pool.begin().await?;
        lock(&mut work, id).await?;
        let held: String =
            sqlx::query_scalar("select name from site where id = $1").bind(id).fetch_one(&mut *work).await?;
        if held != name {
            return Err(StoreError::OtherName(held));
        }
        sqlx::query("select bury_site($1)").bind(id).execute(&mut *work).await?;
        work.commit().await?;
        Ok(())
    }

    /// Thins old autosaves out and collects pictures that nothing names; answers how many of each went.
    pub async fn tidy(&self, at: OffsetDateTime) -> Result<(i64, i64), StoreError> {
        // Whatever limits a request, this may take its time; and two servers take turns.
        let mut work = self.pool.begin().await?;
        sqlx::query("set local statement_timeout = '10min'").execute(&mut *work).await?;
        let revisions = sqlx::query_scalar("select thin_revisions($1)").bind(at).fetch_one(&mut *work).await?;
        let pictures = sqlx::query_scalar("select collect_pictures($1)").bind(at).fetch_one(&mut *work).await?;
        work.commit().await?;
        self.empty_links(at).await?;
        Ok((revisions, pictures))
    }
}
