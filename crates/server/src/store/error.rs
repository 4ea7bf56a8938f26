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
    /// There was such a site, under this name; it was deleted.
    #[error("the site \u{201c}{0}\u{201d} was deleted")]
    Gone(String),
    /// Another site has this id already.
    #[error("there is another site under the id {0}")]
    Taken(Uuid),
    /// The name that was typed to delete a site is not the site's.
    #[error("the site is called \u{201c}{0}\u{201d}: that has to be typed to delete it")]
    OtherName(String),
    /// Another device that is paired goes by this name.
    #[error("another device is called \u{201c}{0}\u{201d}: take another name")]
    NameInUse(String),
    /// There is no such picture.
    #[error("there is no picture {0}")]
    NoPicture(String),
    /// No link is opened by that.
    #[error("this is no link to agree by")]
    NoLink,
    /// A link is over.
    #[error("this link is over; ask for a new one")]
    LinkOver,
    /// A link was signed.
    #[error("this was signed already, by {0}")]
    SignedAlready(String),
    /// A site has more open links than anybody waits for.
    #[error("{0} links of this site are open; end one first")]
    ManyLinks(i64),
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
    /// The tables are not those of this program.
    #[error("the tables are of version {found}, this program is made for {wanted}: {advice}")]
    OtherTables {
        /// The tables' version.
        found: i64,
        /// The program's.
        wanted: i64,
        /// What to do.
        advice: &'static str,
    },
    /// A disk is full.
    #[error("the disk is full: nothing was saved; make room, then save again")]
    Full,
    /// The database takes no changes.
    #[error("the database takes no changes just now: it is read-only; nothing was saved")]
    ReadOnly,
    /// The database is busy with something else just now.
    #[error("the database is busy; try again")]
    Busy,
    /// A backup is at fault.
    #[error("backup: {0}")]
    Backup(String),
    /// The tables could not be brought up to date.
    #[error("migration: {0}")]
    Migration(#[from] sqlx::migrate::MigrateError),
    /// The database refused.
    #[error("database: {0}")]
    Database(sqlx::Error),
}

impl From<sqlx::Error> for StoreError {
    /// Anything that speaks of the connection means that the database is away. Codes: PostgreSQL's documentation, appendix A.
    fn from(error: sqlx::Error) -> Self {
        match &error {
            sqlx::Error::PoolTimedOut | sqlx::Error::PoolClosed | sqlx::Error::Io(_) => StoreError::Away,
            sqlx::Error::Database(inner) => match inner.code().as_deref() {
                // Disk full. A write to a full disk may also come as an I/O error of the file system.
                Some("53100") => StoreError::Full,
                Some("58030") if inner.message().contains("No space left") => StoreError::Full,
                Some("25006") => StoreError::ReadOnly,
                // Cancelled, a lock that is not to be had, a deadlock, a failed serialisation, too many connections.
                Some("57014" | "55P03" | "40P01" | "40001" | "53300") => StoreError::Busy,
                // Class 57P: shutting down, crashed or starting up; class 08: the connection.
                Some(code) if code.starts_with("57P") || code.starts_with("08") => StoreError::Away,
                // A NUL in a text, which PostgreSQL has no way to hold, is nothing that is there.
                _ => StoreError::Database(error),
            },
            _ => StoreError::Database(error),
        }
    }
}
