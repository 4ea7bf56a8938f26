//! The demo: site files that an empty database begins with.

use super::{Draft, Store, StoreError};
use bright_angle_core::Site;
use std::path::Path;

/// Loads every `.json` file of a folder when the database holds no site; answers how many.
///
/// # Errors
/// Names the demo file at fault.
pub async fn load_demo(store: &Store, folder: &Path) -> Result<usize, StoreError> {
    if !store.sites().await?.is_empty() {
        return Ok(0);
    }
    let fault = |what: String| StoreError::Demo(what);
    let entries = std::fs::read_dir(folder).map_err(|error| fault(format!("{}: {error}", folder.display())))?;
    let mut files: Vec<_> = entries.filter_map(|entry| Some(entry.ok()?.path())).collect();
    files.retain(|path| path.extension().is_some_and(|ending| ending == "json"));
    // The last one loaded heads the list.
    files.sort();
    files.reverse();
    for path in &files {
        let text = std::fs::read_to_string(path).map_err(|error| fault(format!("{}: {error}", path.display())))?;
        let site = Site::parse(&text).map_err(|faults| fault(format!("{}: {}", path.display(), faults[0])))?;
        store.create(&Draft { site: &site, says: "Demo site" }).await?;
    }
    Ok(files.len())
}
