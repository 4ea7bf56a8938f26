//! Photos and drawings, each under its own digest.

use super::{Store, StoreError};
use crate::picture::Picture;

/// A picture as it is served.
#[derive(sqlx::FromRow)]
pub struct KeptPicture {
    /// `image/png` or `image/jpeg`.
    pub media_type: String,
    /// The file.
    pub bytes: Vec<u8>,
}

impl Store {
    /// Keeps a picture; keeping the same one again changes nothing.
    pub async fn keep_picture(&self, picture: &Picture) -> Result<(), StoreError> {
        let side = |px: u32| i32::try_from(px).unwrap_or(i32::MAX);
        sqlx::query(
            "insert into picture (name, media_type, width_px, height_px, bytes) values ($1, $2, $3, $4, $5)
             on conflict (name) do nothing",
        )
        .bind(&picture.name)
        .bind(picture.media_type)
        .bind(side(picture.width_px))
        .bind(side(picture.height_px))
        .bind(&picture.bytes)
        .execute(&self.pool)
        .await?;
        Ok(())
    }

    /// The picture of a name.
    pub async fn picture(&self, name: &str) -> Result<KeptPicture, StoreError> {
        let kept = sqlx::query_as("select media_type, bytes from picture where name = $1").bind(name);
        kept.fetch_optional(&self.pool).await?.ok_or_else(|| StoreError::NoPicture(name.to_owned()))
    }
}
