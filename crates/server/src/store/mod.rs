//! The keeping of sites: append-only revisions in PostgreSQL.

mod error;
mod pictures;
mod revision;
mod seed;

pub use error::StoreError;
pub use pictures::KeptPicture;
pub use revision::{Draft, Revision, RevisionHead, SiteHead};
pub use seed::load_demo;

use sqlx::postgres::{PgConnectOptions, PgPool, PgPoolOptions};
use std::str::FromStr;
use std::time::Duration;

/// How long a request waits for a connection before it says that the database is away.
const ACQUIRE: Duration = Duration::from_secs(3);
/// How long the program waits for the database when it starts.
const PATIENCE: Duration = Duration::from_secs(30);

/// The sites that are kept. Cloning shares the connections.
#[derive(Clone)]
pub struct Store {
    pool: PgPool,
}

impl Store {
    /// Opens the database and brings its tables up to date; waits a while for it to answer.
    ///
    /// # Errors
    /// When the address makes no sense, the database stays away, or a migration fails.
    pub async fn open(database_url: &str) -> Result<Store, StoreError> {
        let options = PgConnectOptions::from_str(database_url)
            .map_err(|error| StoreError::Address(error.to_string()))?
            .application_name("bright-angle")
            .options([("statement_timeout", "10s"), ("lock_timeout", "5s")]);
        // Connections are tested before use, so a database that was restarted is simply met anew.
        let pool = PgPoolOptions::new().max_connections(8).acquire_timeout(ACQUIRE).connect_lazy_with(options);
        let store = Store { pool };
        let began = std::time::Instant::now();
        while !store.answers().await {
            if began.elapsed() > PATIENCE {
                return Err(StoreError::Away);
            }
            rocket::tokio::time::sleep(Duration::from_millis(200)).await;
        }
        sqlx::migrate!("./migrations").run(&store.pool).await?;
        Ok(store)
    }

    /// Whether the database answers now.
    pub async fn answers(&self) -> bool {
        sqlx::query_scalar::<_, i32>("select 1").fetch_one(&self.pool).await.is_ok()
    }

    /// Closes all connections.
    pub async fn close(&self) {
        self.pool.close().await;
    }
}
