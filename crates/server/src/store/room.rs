//! Room on the disk that the database lies on: below a reserve nothing more is kept, so that the database itself never meets a full
//! disk, which would take reading down with it.

use super::{Store, StoreError};
use std::path::PathBuf;

/// A folder on that disk, and what must stay free there, bytes.
#[derive(Clone, Debug)]
pub struct Reserve {
    /// The folder.
    pub folder: PathBuf,
    /// What must stay free.
    pub bytes: u64,
}

impl Store {
    /// Keeps a reserve free.
    pub fn with_reserve(self, reserve: Option<Reserve>) -> Store {
        Store { reserve, ..self }
    }

    /// Whether there is room to keep something.
    ///
    /// # Errors
    /// [`StoreError::Full`] where the reserve is all that is left. Where nobody can say, there is room.
    pub(super) fn room(&self) -> Result<(), StoreError> {
        let Some(Reserve { folder, bytes }) = &self.reserve else { return Ok(()) };
        match fs4::available_space(folder) {
            Ok(free) if free < *bytes => Err(StoreError::Full),
            _ => Ok(()),
        }
    }
}
