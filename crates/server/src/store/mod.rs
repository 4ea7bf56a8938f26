//! The keeping of sites: append-only revisions in PostgreSQL.

mod backup;
mod catalogue;
mod device;
mod error;
mod list;
mod pictures;
mod revision;
mod room;
mod seed;
mod sign_link;

pub use backup::{Counted, back_up, restore};
pub use catalogue::{KeptCatalogue, Saved};
pub use device::{Device, is_device_name};
pub use error::StoreError;
pub use list::{SiteHead, SitePage, Wanted};
pub use pictures::KeptPicture;
pub use revision::{Draft, KeptRevision, Revision, RevisionHead};
pub use room::Reserve;
pub use seed::load_demo;
pub use sign_link::{NewLink, OpenedLink, SignLink, Strokes};

use sqlx::migrate::Migrator;
use sqlx::postgres::{PgConnectOptions, PgPool, PgPoolOptions};
use std::cmp::Ordering;
use std::str::FromStr;
use std::sync::{Arc, Mutex, PoisonError};
use std::time::{Duration, Instant};

static MIGRATIONS: Migrator = sqlx::migrate!("./migrations");

/// How long a request waits for a connection before it says that the database is away.
const ACQUIRE: Duration = Duration::from_secs(3);
/// How long a full disk is told of after it was met.
const REMEMBERED: Duration = Duration::from_secs(60);
/// How long the program waits for the database when it starts.
const PATIENCE: Duration = Duration::from_secs(30);

/// The sites that are kept. Cloning shares the connections.
#[derive(Clone)]
pub struct Store {
    pool: PgPool,
    /// A connection of its own for the question how the database is: it is answered however busy the others are.
    aside: PgPool,
    /// When a disk was last found to be full, if nothing could be written since.
    full: Arc<Mutex<Option<Instant>>>,
    reserve: Option<Reserve>,
}

impl Store {
    /// Opens the database; waits a while for it to answer.
    ///
    /// # Errors
    /// When the address makes no sense, the database stays away, or its tables are not those of this program.
    pub async fn open(database_url: &str) -> Result<Store, StoreError> {
        let store = Store::reach(database_url, "10s").await?;
        let wanted = MIGRATIONS.iter().map(|one| one.version).max().unwrap_or(0);
        let found = sqlx::query_scalar("select coalesce(max(version), 0) from _sqlx_migrations where success");
        let found: i64 = match found.fetch_one(&store.pool).await {
            // 42P01: there is no such table yet.
            Err(sqlx::Error::Database(error)) if error.code().as_deref() == Some("42P01") => 0,
            other => other?,
        };
        let advice = match found.cmp(&wanted) {
            Ordering::Less => "run bright-angle migrate",
            Ordering::Greater => "take a newer program",
            Ordering::Equal => return Ok(store),
        };
        Err(StoreError::OtherTables { found, wanted, advice })
    }

    /// Brings the tables of a database up to date, as their owner.
    ///
    /// # Errors
    /// When the address makes no sense, the database stays away, or a migration fails.
    pub async fn migrate(owner_url: &str) -> Result<(), StoreError> {
        // A migration of many revisions takes its time.
        let store = Store::reach(owner_url, "0").await?;
        let done = MIGRATIONS.run(&store.pool).await;
        store.close().await;
        Ok(done?)
    }

    async fn reach(database_url: &str, longest: &str) -> Result<Store, StoreError> {
        let options = PgConnectOptions::from_str(database_url)
            .map_err(|error| StoreError::Address(error.to_string()))?
            .application_name("bright-angle")
            .options([("statement_timeout", longest), ("lock_timeout", "5s")]);
        // Connections are tested before use, so a database that was restarted is simply met anew.
        let pool = PgPoolOptions::new().max_connections(8).acquire_timeout(ACQUIRE).connect_lazy_with(options.clone());
        let aside = PgPoolOptions::new().max_connections(1).acquire_timeout(ACQUIRE).connect_lazy_with(options);
        let store = Store { pool, aside, full: Arc::default(), reserve: None };
        let began = Instant::now();
        while !store.answers().await {
            if began.elapsed() > PATIENCE {
                return Err(StoreError::Away);
            }
            rocket::tokio::time::sleep(Duration::from_millis(200)).await;
        }
        Ok(store)
    }

    /// What is wrong with the database now, if anything is.
    pub async fn check(&self) -> Option<StoreError> {
        if let Err(error) = sqlx::query_scalar::<_, i32>("select 1").fetch_one(&self.aside).await {
            return Some(error.into());
        }
        if let Err(full) = self.room() {
            return Some(full);
        }
        let full = *self.full.lock().unwrap_or_else(PoisonError::into_inner);
        full.filter(|seen| seen.elapsed() < REMEMBERED).map(|_| StoreError::Full)
    }

    /// Passes an outcome on, and remembers what it says of the disk.
    fn noted<T>(&self, outcome: Result<T, StoreError>) -> Result<T, StoreError> {
        let mut full = self.full.lock().unwrap_or_else(PoisonError::into_inner);
        match &outcome {
            Ok(_) => *full = None,
            Err(StoreError::Full) => *full = Some(Instant::now()),
            Err(_) => {}
        }
        outcome
    }

    /// Whether the database answers now.
    pub async fn answers(&self) -> bool {
        sqlx::query_scalar::<_, i32>("select 1").fetch_one(&self.pool).await.is_ok()
    }

    /// Closes all connections.
    pub async fn close(&self) {
        self.aside.close().await;
        self.pool.close().await;
    }
}
