//! The change that leaves cameras out of a design, with the cables that led to them.

use crate::file::{PatchOp, SiteFile};

/// The patch that takes cameras, by id, and their cables out of a file. It removes from the end on, so that places stay right.
///
/// ```
/// use bright_angle_core::{file::SiteFile, offer::leave_out::leave_out};
/// assert!(leave_out(&SiteFile::empty("Yard"), &[]).is_empty());
/// ```
pub fn leave_out(site: &SiteFile, out: &[String]) -> Vec<PatchOp> {
    let goes = |id: &String| out.contains(id);
    let remove = |path: String| PatchOp { op: "remove", path, value: None };
    let cables = site.network.iter().flat_map(|network| network.cables.iter().enumerate());
    let mut cables: Vec<usize> =
        cables.filter(|(_, cable)| goes(&cable.from) || goes(&cable.to)).map(|(place, _)| place).collect();
    cables.reverse();
    let cameras = site.cameras.iter().enumerate().rev().filter(|(_, camera)| goes(&camera.id));
    let of_cables = cables.into_iter().map(|place| remove(format!("/network/cables/{place}")));
    of_cables.chain(cameras.map(|(place, _)| remove(format!("/cameras/{place}")))).collect()
}

/// A file without these cameras and their cables: what the patch makes of it.
pub(super) fn without(site: &SiteFile, out: &[String]) -> SiteFile {
    let mut file = site.clone();
    file.cameras.retain(|camera| !out.contains(&camera.id));
    if let Some(network) = &mut file.network {
        network.cables.retain(|cable| !out.contains(&cable.from) && !out.contains(&cable.to));
    }
    file
}
