//! Devices that were paired. What a device shows to be let in is kept as its SHA-256: whoever reads the table gets in nowhere.

use super::{Store, StoreError};
use serde::{Deserialize, Serialize};
use sha2::{Digest, Sha256};
use sqlx::FromRow;
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

/// A device that was paired, and not ended.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema, FromRow)]
pub struct Device {
    /// The device.
    pub id: Uuid,
    /// What it is called.
    pub name: String,
    /// When it was paired.
    #[serde(with = "time::serde::rfc3339")]
    pub paired_at: OffsetDateTime,
    /// When it last asked for something, to the minute.
    #[serde(with = "time::serde::rfc3339")]
    pub seen_at: OffsetDateTime,
}

/// Whether a device can be called that: a short text in one line.
pub fn is_device_name(name: &str) -> bool {
    (1..=60).contains(&name.chars().count()) && name.trim() == name && !name.chars().any(char::is_control)
}

/// How a secret is kept.
pub(super) fn hash(secret: &str) -> Vec<u8> {
    Sha256::digest(secret.as_bytes()).to_vec()
}

impl Store {
    /// Keeps a device with its secret.
    ///
    /// # Errors
    /// [`StoreError::NameInUse`] when another that is not ended goes by that name.
    pub async fn pair(&self, name: &str, secret: &str) -> Result<Device, StoreError> {
        let made = sqlx::query_as(
            "insert into device (id, name, secret_hash) values ($1, $2, $3) on conflict do nothing
             returning id, name, paired_at, seen_at",
        );
        let made = made.bind(Uuid::new_v4()).bind(name).bind(hash(secret)).fetch_optional(&self.pool).await?;
        made.ok_or_else(|| StoreError::NameInUse(name.to_owned()))
    }

    /// The device whose secret this is, if it is paired; notes that it was seen.
    pub async fn device(&self, secret: &str) -> Result<Option<Device>, StoreError> {
        let found = sqlx::query_as(
            "select id, name, paired_at, seen_at from device where secret_hash = $1 and ended_at is null",
        );
        let found: Option<Device> = found.bind(hash(secret)).fetch_optional(&self.pool).await?;
        if let Some(device) =
            found.as_ref().filter(|device| OffsetDateTime::now_utc() - device.seen_at > time::Duration::MINUTE)
        {
            // Whoever reads only is let in when nothing can be written, too.
            let noted = sqlx::query("update device set seen_at = now() where id = $1").bind(device.id);
            let _ = noted.execute(&self.pool).await;
        }
        Ok(found)
    }

    /// The devices that are paired, the one seen last first.
    pub async fn devices(&self) -> Result<Vec<Device>, StoreError> {
        let found = sqlx::query_as(
            "select id, name, paired_at, seen_at from device where ended_at is null order by seen_at desc, id limit 500",
        );
        Ok(found.fetch_all(&self.pool).await?)
    }

    /// Ends a device: from now on it is let in nowhere. Answers whether there was one.
    pub async fn end_device(&self, id: Uuid) -> Result<bool, StoreError> {
        let done = sqlx::query("update device set ended_at = now() where id = $1 and ended_at is null").bind(id);
        Ok(done.execute(&self.pool).await?.rows_affected() > 0)
    }
}
