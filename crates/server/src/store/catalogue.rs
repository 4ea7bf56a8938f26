//! The firm's own catalogue: whole files one after another, so that who saves on an old one is told.

use super::{Store, StoreError};
use bright_angle_core::equipment::stock::Stock;
use serde::{Deserialize, Serialize};
use sqlx::FromRow;
use sqlx::types::Json;
use time::OffsetDateTime;
use utoipa::ToSchema;

/// The catalogue as it is kept.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct KeptCatalogue {
    /// Its number; 0 while nothing was saved yet.
    pub number: i32,
    /// When it was saved; null while nothing was.
    #[serde(with = "time::serde::rfc3339::option")]
    #[schema(required)]
    pub saved_at: Option<OffsetDateTime>,
    /// The catalogue.
    pub catalogue: Stock,
}

#[derive(FromRow)]
struct Row {
    number: i32,
    created_at: OffsetDateTime,
    file: Json<Stock>,
}

impl From<Row> for KeptCatalogue {
    fn from(Row { number, created_at, file }: Row) -> Self {
        KeptCatalogue { number, saved_at: Some(created_at), catalogue: file.0 }
    }
}

/// What comes of saving one.
pub enum Saved {
    /// It stands there now, or did already.
    Kept(KeptCatalogue),
    /// Somebody saved in between: theirs.
    Stale(KeptCatalogue),
}

const NEWEST: &str = "select number, created_at, file from catalogue order by number desc limit 1";

impl Store {
    /// The newest catalogue.
    pub async fn catalogue(&self) -> Result<KeptCatalogue, StoreError> {
        let row: Option<Row> = sqlx::query_as(NEWEST).fetch_optional(&self.pool).await?;
        Ok(row.map_or_else(|| KeptCatalogue { number: 0, saved_at: None, catalogue: Stock::default() }, Into::into))
    }

    /// Keeps a catalogue that was made from number `based_on`. Asked again with the same it answers with the one that is there.
    pub async fn save_catalogue(
        &self,
        based_on: i32,
        stock: &Stock,
        says: &str,
        device: Option<&str>,
    ) -> Result<Saved, StoreError> {
        self.room()?;
        let made = sqlx::query_as(
            "insert into catalogue (number, says, device, file)
             select $1 + 1, $2, $3, $4 where $1 = (select coalesce(max(number), 0) from catalogue)
             on conflict do nothing returning number, created_at, file",
        );
        let made = made.bind(based_on).bind(says).bind(device).bind(Json(stock));
        let made: Option<Row> = self.noted(made.fetch_optional(&self.pool).await.map_err(StoreError::from))?;
        if let Some(made) = made {
            return Ok(Saved::Kept(made.into()));
        }
        let newest = self.catalogue().await?;
        // The answer to the same save may have been lost.
        let same = newest.number == based_on.saturating_add(1) && newest.catalogue == *stock;
        Ok(if same { Saved::Kept(newest) } else { Saved::Stale(newest) })
    }
}
