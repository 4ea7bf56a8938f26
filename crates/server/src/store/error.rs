//! What can go wrong in keeping sites.

use super::Revision;
use uuid::Uuid;

/// Why the store did not do what it was asked.
#[derive(Debug, thiserror::Error)]
pub enum StoreError {
    /// The database's address makes no sense.
    #[error("database address: {0}")]
    Address(String),
    /// The database does not answer.
    #[error("the database does not answer")]
    Away,
    /// There is no such site.
    #[error("there is no site {0}")]
    NoSite(Uuid),
    /// The site has no such revision.
    #[error("site {0} has no revision {1}")]
    NoRevision(Uuid, i32),
    /// There is no such picture.
    #[error("there is no picture {0}")]
    NoPicture(String),
    /// Somebody saved in between; theirs is the newest revision.
    #[error("revision {} was saved in between", .0.number)]
    Stale(Box<Revision>),
    /// What is kept cannot be read as a site file any more.
    #[error("revision {number} of site {site} cannot be read: {reason}")]
    Unreadable {
        /// The site.
        site: Uuid,
        /// Its revision.
        number: i32,
        /// Why.
        reason: String,
    },
    /// A demo file is at fault.
    #[error("demo: {0}")]
    Demo(String),
    /// The tables could not be brought up to date.
    #[error("migration: {0}")]
    Migration(#[from] sqlx::migrate::MigrateError),
    /// The database refused.
    #[error("database: {0}")]
    Database(sqlx::Error),
}

impl From<sqlx::Error> for StoreError {
    /// Anything that speaks of the connection means that the database is away.
    fn from(error: sqlx::Error) -> Self {
        // Class 57P: the server is shutting down, crashed or starting up.
        let going = |code: &str| code.starts_with("57P");
        match &error {
            sqlx::Error::PoolTimedOut | sqlx::Error::PoolClosed | sqlx::Error::Io(_) => StoreError::Away,
            sqlx::Error::Database(inner) if inner.code().is_some_and(|code| going(&code)) => StoreError::Away,
            _ => StoreError::Database(error),
        }
    }
}
