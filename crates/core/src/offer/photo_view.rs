//! A head's view laid into a photo that was taken from its spot: known points clicked in the photo tell how it was held and how long its
//! lens is; then every pixel of the view has its place in the photo.
//!
//! The photo is taken as a pinhole's (a phone's own corrections see to that), held where the head is to hang: from one place the two
//! pictures differ by a turn alone, whatever is near or far. How far the clicked points are off tells whether that holds.

use crate::file::{Fault, HeadFile, HeadRef, Lens, Photo, SiteFile};
use crate::fit::landmarks::clickables;
use crate::fit::pose::{PoseWish, pose_of};
use crate::fit::pose_points::PosePoint;
use crate::math::{Angle, Pose, View};
use crate::site::{Head, Site};
use glam::DVec2;
use serde::Serialize;
use utoipa::ToSchema;

/// So many points tell the photo's turn and lens, with one left to name a wrong one.
pub const LEAST_MARKS: usize = 4;
/// A click in a photo is good to so much of its width, one standard deviation (ours).
const CLICK: f64 = 1.0 / 600.0;
/// A photo whose points are off by more than this share of its width was not taken from the spot, or a point is another (ours).
const MOST_OFF: f64 = 0.02;
/// The places of the view that are looked up; between them it runs straight enough.
const COLUMNS: usize = 49;
const ROWS: usize = 29;
/// A frame of 36 mm by 24 mm: photos' focal lengths are told as on one.
const FULL_FRAME_MM: f64 = 36.0;

/// Where the pixels of a view lie in a photo.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PhotoLaid {
    /// The photo's name in the store.
    pub picture: String,
    /// Columns of places that are told, from the view's left edge to its right.
    pub columns: usize,
    /// Rows, from its top edge to its bottom.
    pub rows: usize,
    /// The places, row by row: shares of the photo's width and height; null where it does not show that.
    #[schema(value_type = Vec<Option<[f64; 2]>>)]
    pub at: Vec<Option<[f64; 2]>>,
    /// How much of the view the photo shows, 0 to 1.
    pub share: f64,
    /// The photo's focal length as on a frame 36 mm wide, mm.
    pub focal_36_mm: f64,
    /// How far the clicked points are off, root mean square, as a share of the photo's width.
    pub off_share: f64,
    /// The point that may be a wrong one.
    #[schema(required)]
    pub doubtful: Option<String>,
    /// Whether the points fit well enough to be shown to a client.
    pub fits: bool,
}

impl PhotoLaid {
    /// Where a place of the view, in shares of its width and height, lies in the photo, in shares of that: between the four places
    /// around it. `None` where the photo does not show one of them.
    pub fn place(&self, share: [f64; 2]) -> Option<[f64; 2]> {
        let along = |share: f64, of: usize| {
            let at = share.clamp(0.0, 1.0) * (of - 1) as f64;
            let before = (at as usize).min(of - 2);
            (before, at - before as f64)
        };
        let ((column, across), (row, down)) = (along(share[0], self.columns), along(share[1], self.rows));
        let corner = |row: usize, column: usize| self.at[row * self.columns + column];
        let upper = [corner(row, column)?, corner(row, column + 1)?];
        let lower = [corner(row + 1, column)?, corner(row + 1, column + 1)?];
        Some([0, 1].map(|axis| {
            let between = |[a, b]: [[f64; 2]; 2]| a[axis] * (1.0 - across) + b[axis] * across;
            between(upper) * (1.0 - down) + between(lower) * down
        }))
    }
}

/// Lays a head's view into a photo.
///
/// # Errors
/// Too few points, points that cannot tell, a photo of no size; each with its place in the photo.
pub fn lay(site: &Site, head: &Head, photo: &Photo) -> Result<PhotoLaid, Vec<Fault>> {
    let Some([width, height]) = photo.size_px else {
        return Err(vec![Fault::new("size_px", "is not known: click the points anew")]);
    };
    if photo.marks.len() < LEAST_MARKS {
        let says = format!("are {}: {LEAST_MARKS} points at least tell how the photo was held", photo.marks.len());
        return Err(vec![Fault::new("marks", says)]);
    }
    let held = as_photo(site.file(), head, [width, height]).map(Site::from_file).transpose()?;
    let held = held.ok_or_else(|| vec![Fault::new("head", "is not there")])?;
    let taken = held.heads().first().ok_or_else(|| vec![Fault::new("head", "is not there")])?;
    // Where a landmark is by the plan of today, not by that of the day it was clicked.
    let name = HeadRef { camera: head.camera_id().to_owned(), head: head.id().to_owned(), view: None };
    let known = clickables(site, &name).map_err(|fault| vec![fault])?;
    let points = photo.marks.iter().map(|mark| {
        let now = known.iter().find(|one| one.id == mark.id);
        let [x, y, z] = now.map_or(mark.at, |one| one.at);
        let [u, v] = mark.px;
        PosePoint { id: mark.id.clone(), x, y, z, u, v, sigma_m: now.map_or(mark.sigma_m, |one| Some(one.sigma_m)) }
    });
    let points: Vec<PosePoint> = points.collect();
    let found = pose_of(&held, taken, &points, PoseWish { sigma_px: width * CLICK, ..PoseWish::default() })?;
    let [pan, tilt, roll] = [found.at.pan_deg, found.at.tilt_deg, found.at.roll_deg].map(Angle::degrees);
    let pose = Pose::new(taken.position(), pan, tilt, roll);
    let scale = found.at.focal_mm / FULL_FRAME_MM;
    let seen = View { pose, projection: taken.view().projection.scaled(scale) };
    let at = places(head.view(), &seen);
    let off_share = found.rms_px / width;
    Ok(PhotoLaid {
        picture: photo.picture.clone(),
        columns: COLUMNS,
        rows: ROWS,
        share: at.iter().flatten().count() as f64 / at.len() as f64,
        at,
        focal_36_mm: found.at.focal_mm,
        off_share,
        doubtful: found.points.iter().find(|point| point.doubtful).map(|point| point.id.clone()),
        fits: found.settled && off_share <= MOST_OFF,
    })
}

/// The site with a pinhole of the photo's shape in the head's place, and no other camera.
fn as_photo(file: &SiteFile, head: &Head, [width, height]: [f64; 2]) -> Option<SiteFile> {
    let mut camera = file.cameras.get(head.camera())?.clone();
    let aimed = camera.heads.get(head.place())?.aimed(head.which());
    let mut alone = HeadFile::new(head.id(), aimed);
    alone.focal_mm = FULL_FRAME_MM;
    camera.heads = vec![alone];
    camera.model.form = crate::file::Form::Bullet;
    camera.model.head_count = None;
    camera.model.tilts_deg = None;
    camera.model.sensor.width_px = width as u32;
    camera.model.sensor.height_px = height as u32;
    camera.model.sensor.image_circle_px = None;
    camera.model.sensor.width_mm = FULL_FRAME_MM;
    camera.model.sensor.height_mm = FULL_FRAME_MM * height / width;
    // A lens that draws as a pinhole does.
    camera.model.lens = Lens {
        focal_min_mm: FULL_FRAME_MM / 8.0,
        focal_max_mm: FULL_FRAME_MM * 8.0,
        hfov_at_min_deg: None,
        hfov_at_max_deg: None,
        f_number: None,
    };
    // Nothing else of the site counts, and what is left out must not be spoken of.
    Some(SiteFile {
        cameras: vec![camera],
        targets: vec![],
        readings: vec![],
        variants: vec![],
        design: None,
        agreements: vec![],
        network: None,
        ..file.clone()
    })
}

/// Where each place of a view lies in a picture taken from the same place.
fn places(view: &View, seen: &View) -> Vec<Option<[f64; 2]>> {
    let (size, photo) = (view.projection.size(), seen.projection.size());
    let part = |place: usize, of: usize| place as f64 / (of - 1) as f64;
    let grid =
        (0..ROWS).flat_map(|row| (0..COLUMNS).map(move |column| DVec2::new(part(column, COLUMNS), part(row, ROWS))));
    grid.map(|share| {
        let direction = view.pose.to_site(view.projection.unproject(share * size)?);
        let direction = seen.pose.to_camera(direction);
        let pixel = seen.projection.project(direction).filter(|_| direction.z > 0.0)?;
        let at = pixel / photo;
        (at.min_element() >= 0.0 && at.max_element() <= 1.0).then(|| at.to_array())
    })
    .collect()
}
