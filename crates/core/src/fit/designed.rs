//! The design behind what hangs there: each head as it was planned before somebody took over how it hangs.

use crate::file::{HeadFile, SiteFile, Which};

/// A head as it was designed; `None` where it still is.
pub fn head_as_designed(head: &HeadFile) -> Option<HeadFile> {
    let designed = head.as_built()?.designed;
    let mut one = head.clone();
    one.set_aimed(Which::Own, designed);
    (one.as_built, one.lens) = (None, one.lens.filter(|lens| lens.has_focal(designed.focal_mm)));
    Some(one)
}

/// A site as it was designed; `None` where nothing was taken over.
pub fn as_designed(site: &SiteFile) -> Option<SiteFile> {
    let mut file = site.clone();
    let mut any = false;
    for head in file.cameras.iter_mut().flat_map(|camera| &mut camera.heads) {
        if let Some(designed) = head_as_designed(head) {
            (*head, any) = (designed, true);
        }
    }
    any.then_some(file)
}
