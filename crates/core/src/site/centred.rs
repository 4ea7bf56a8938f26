//! What a pixel of a turned head's picture shows, in the middle: the pan and tilt for it.
//!
//! Source: handbook, sections 4 and 11. The pixel's direction by the lens's projection, turned by the head's own pan and tilt; both are on the
//! scales that the head was read off, wherever their zero is. The head is taken not to be rolled about its own axis.

use crate::file::{Fault, SiteFile};
use crate::math::{Angle, Pose};
use crate::site::Site;
use glam::{DVec2, DVec3};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How a turned head stood when its picture was taken.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TurnedAt {
    /// Its pan, degrees on its own scale.
    pub pan_deg: f64,
    /// Its tilt, degrees below the horizontal on its own scale.
    pub tilt_deg: f64,
    /// The focal length that its lens was set to, mm.
    pub focal_mm: f64,
}

/// Where a turned head looks so that it has something in the middle.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct Centred {
    /// Its pan, 0 to 360° on its own scale.
    pub pan_deg: f64,
    /// Its tilt, degrees below the horizontal on its own scale.
    pub tilt_deg: f64,
}

impl Centred {
    /// The pan and tilt that look in a direction of the head's own axes: x to its pan of 90°, y to its pan of zero, z up.
    pub fn on(direction: DVec3) -> Centred {
        let direction = direction.normalize_or_zero();
        Centred {
            pan_deg: direction.x.atan2(direction.y).to_degrees().rem_euclid(360.0),
            tilt_deg: -direction.z.clamp(-1.0, 1.0).asin().to_degrees(),
        }
    }
}

/// The pan and tilt with which a head has in the middle what `pixel` of its picture shows, px right and down from the top-left corner, while
/// it stands as it `stood`.
///
/// # Errors
/// A head that is not there, figures that no head and lens of its model can have, and a pixel that its picture does not have.
///
/// ```
/// # use bright_angle_core::{Site, site::centred::{TurnedAt, centred}};
/// let site = Site::parse(r#"{"format": "bright-angle/site", "version": 1, "name": "Yard", "targets": [], "cameras": [
///     {"id": "c", "name": "C", "position": [0, 0], "height_m": 4, "model": {"name": "M", "form": "ptz",
///      "sensor": {"width_px": 1920, "height_px": 1080, "width_mm": 5.376, "height_mm": 3.024},
///      "lens": {"focal_min_mm": 5, "focal_max_mm": 50}},
///      "heads": [{"id": "h", "pan_deg": 0, "tilt_deg": 10, "focal_mm": 6}]}]}"#)?;
/// let stood = TurnedAt { pan_deg: 30.0, tilt_deg: 0.0, focal_mm: 5.376 };
/// // Half a picture to the right is the arc tangent of a half, as wide as its focal length is long.
/// let right = centred(&site, "c", "h", &stood, [1920.0, 540.0])?;
/// assert!((right.pan_deg - 30.0 - 0.5_f64.atan().to_degrees()).abs() < 1e-9);
/// # Ok::<(), Vec<bright_angle_core::Fault>>(())
/// ```
pub fn centred(site: &Site, camera: &str, head: &str, stood: &TurnedAt, pixel: [f64; 2]) -> Result<Centred, Fault> {
    let found = site.head(camera, head)?;
    sound(site.file(), found.camera(), found.place(), stood)?;
    let projection = found.fitted().projection(stood.focal_mm);
    let pixel = DVec2::from_array(pixel);
    let none = || Fault::new("pixel", "lies outside of the picture");
    let ray =
        Some(pixel).filter(|at| projection.holds(*at)).and_then(|at| projection.unproject(at)).ok_or_else(none)?;
    let pose = Pose::new(DVec3::ZERO, Angle::degrees(stood.pan_deg), Angle::degrees(stood.tilt_deg), Angle::ZERO);
    Ok(Centred::on(pose.to_site(ray)))
}

fn sound(file: &SiteFile, camera: usize, head: usize, stood: &TurnedAt) -> Result<(), Fault> {
    let lens = file.cameras[camera].lens_of(head);
    for (name, figure, least, most) in [
        ("pan_deg", stood.pan_deg, -360.0, 360.0),
        ("tilt_deg", stood.tilt_deg, -90.0, 90.0),
        ("focal_mm", stood.focal_mm, lens.focal_min_mm, lens.focal_max_mm),
    ] {
        if !(least..=most).contains(&figure) {
            return Err(Fault::new(format!("stood.{name}"), format!("{figure} is not between {least} and {most}")));
        }
    }
    Ok(())
}
