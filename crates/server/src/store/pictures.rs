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
    /// Keeps a picture; keeping the same one again says only that somebody is about to name it.
    pub async fn keep_picture(&self, picture: &Picture) -> Result<(), StoreError> {
        self.room()?;
        let side = |px: u32| i32::try_from(px).unwrap_or(i32::MAX);
        let kept = sqlx::query(
            "insert into picture (name, media_type, width_px, height_px, bytes) values ($1, $2, $3, $4, $5)
             on conflict (name) do update set created_at = now()",
        )
        .bind(&picture.name)
        .bind(picture.media_type)
        .bind(side(picture.width_px))
        .bind(side(picture.height_px))
        .bind(&picture.bytes)
        .execute(&self.pool)
        .await;
        self.noted(kept.map(drop).map_err(StoreError::from))
    }

    /// The picture of a name.
    pub async fn picture(&self, name: &str) -> Result<KeptPicture, StoreError> {
        // What is no digest names nothing; a NUL in it the database could not even be asked for.
        if name.len() != 64 || !name.bytes().all(|byte| byte.is_ascii_hexdigit()) {
            return Err(StoreError::NoPicture("of that name".to_owned()));
        }
        let kept = sqlx::query_as("select media_type, bytes from picture where name = $1").bind(name);
        kept.fetch_optional(&self.pool).await?.ok_or_else(|| StoreError::NoPicture(name.to_owned()))
    }
}
