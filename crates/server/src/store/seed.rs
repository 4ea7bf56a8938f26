//! The demo: site files that an empty database begins with.

use super::{Draft, Store, StoreError};
use crate::picture::{Picture, digest};
use bright_angle_core::Site;
use std::path::Path;

/// Loads every `.json` file of a folder, and the pictures (`.png`) they name, when the database never held a site; answers how many.
///
/// # Errors
/// Names the demo file at fault.
pub async fn load_demo(store: &Store, folder: &Path) -> Result<usize, StoreError> {
    if store.has_sites().await? {
        return Ok(0);
    }
    let fault = |what: String| StoreError::Demo(what);
    let entries = std::fs::read_dir(folder).map_err(|error| fault(format!("{}: {error}", folder.display())))?;
    let entries: Vec<_> = entries.filter_map(|entry| Some(entry.ok()?.path())).collect();
    let ending = |wanted: &'static str| {
        entries.iter().filter(move |path| path.extension().is_some_and(|ending| ending == wanted)).cloned()
    };
    // A picture is written anew when it is taken: the demo's files name it by the digest of the file.
    let mut names: Vec<(String, String)> = Vec::new();
    for path in ending("png") {
        let bytes = std::fs::read(&path).map_err(|error| fault(format!("{}: {error}", path.display())))?;
        let picture = Picture::take(&bytes).map_err(|message| fault(format!("{}: {message}", path.display())))?;
        store.keep_picture(&picture).await?;
        names.push((digest(&bytes), picture.name));
    }
    let mut files: Vec<_> = ending("json").collect();
    // The last one loaded heads the list.
    files.sort();
    files.reverse();
    for path in &files {
        let mut text = std::fs::read_to_string(path).map_err(|error| fault(format!("{}: {error}", path.display())))?;
        for (file, kept) in &names {
            text = text.replace(file, kept);
        }
        let site = Site::parse(&text).map_err(|faults| fault(format!("{}: {}", path.display(), faults[0])))?;
        store.create(None, &Draft { site: &site, says: "Demo site", device: None }).await?;
    }
    Ok(files.len())
}
