//! What can be clicked in a head's picture: landmarks by name, with where each must lie.

use crate::file::{Fault, HeadRef};
use crate::judge::evaluation::eye_around;
use crate::show::papers::landmarks::{Mark, SIGMAS, candidates, reaches};
use crate::site::{Head, Site};
use serde::Serialize;
use utoipa::ToSchema;

/// So many are offered at most: those in the designed picture first, then the nearest to it.
const MOST: usize = 60;

/// A landmark that can be clicked.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Clickable {
    /// An id for it, from those of the file.
    pub id: String,
    /// What it is.
    pub says: String,
    /// Where it is, m.
    pub at: [f64; 3],
    /// How well that is known: one standard deviation each way, m.
    pub sigma_m: f64,
    /// Where the design has it in the picture, px; it may lie outside. Null behind the camera.
    #[schema(required)]
    pub pixel: Option<[f64; 2]>,
    /// Whether it is in the picture of the design.
    pub in_view: bool,
}

/// What can be clicked in a head's picture: landmarks that its rays reach, whichever way it is turned.
///
/// # Errors
/// Names the head that the site does not have.
pub fn clickables(site: &Site, name: &HeadRef) -> Result<Vec<Clickable>, Fault> {
    let head = site.view(name)?;
    let eye = eye_around(site, head);
    let marks = candidates(site, head).into_iter().chain(boards(site));
    let mut found: Vec<(f64, Clickable)> = marks
        .filter(|mark| reaches(site, &eye, mark.at))
        .map(|mark| {
            let look = head.view().pixel_of(mark.at);
            let off = head.view().pose.forward.angle_between(mark.at - head.position());
            let in_view = look.is_some_and(|(_, inside)| inside) && head.in_front(mark.at) == Some(true);
            let pixel = look.map(|(pixel, _)| pixel.to_array());
            let Mark { id, says, at, sigma_m } = mark;
            (off, Clickable { id, says, at: at.to_array(), sigma_m, pixel, in_view })
        })
        .collect();
    found.sort_by(|a, b| b.1.in_view.cmp(&a.1.in_view).then(a.0.total_cmp(&b.0)));
    Ok(found.into_iter().take(MOST).map(|(_, clickable)| clickable).collect())
}

/// Point targets: somebody stands there, or a board of that height.
fn boards(site: &Site) -> Vec<Mark> {
    let uncertain = &site.rules().uncertainties;
    let of = |target: &crate::site::Target| {
        let file = site.file().targets.iter().find(|file| file.id == target.id && file.is_point())?;
        let at = *target.samples.first()?;
        let says = format!("{}, {} m up", file.name, file.height_m);
        let sigma_m = uncertain.across(&file.distance, 0.0) / SIGMAS;
        Some(Mark { id: target.id.clone(), says, at, sigma_m })
    };
    site.targets().iter().filter_map(of).collect()
}

/// The picture of a head, by width and height, px: a picture of another shape is not its own.
pub fn is_shape_of(head: &Head, width: f64, height: f64) -> bool {
    let size = head.view().projection.size();
    (width / height / (size.x / size.y) - 1.0).abs() < 0.01
}
