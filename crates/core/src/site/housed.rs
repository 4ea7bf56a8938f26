//! Cameras in one housing: a PTZ under several fixed ones, two in one box. They fail together.

use crate::file::SiteFile;

/// For each camera the place of the first one that it fails with, where some do already: those in one housing are put together.
///
/// ```
/// use bright_angle_core::{file::SiteFile, site::housed::in_one_housing};
/// assert!(in_one_housing(&SiteFile::empty("Yard"), vec![]).is_empty());
/// ```
pub fn in_one_housing(site: &SiteFile, mut with: Vec<usize>) -> Vec<usize> {
    for (place, camera) in site.cameras.iter().enumerate() {
        let Some(other) = camera.housed_with.as_ref() else { continue };
        let Some(other) = site.cameras.iter().position(|held| held.id == *other) else { continue };
        let (one, two) = (with[place].min(with[other]), with[place].max(with[other]));
        with.iter_mut().filter(|held| **held == two).for_each(|held| *held = one);
    }
    with
}
