//! The active area of an image sensor in the chosen picture mode.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Picture size in pixels and the active area that makes it, in millimetres.
///
/// The area is that of the chosen picture mode, not the chip's.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Sensor {
    /// Picture width, px.
    #[schema(minimum = 16, maximum = 20000)]
    pub width_px: u32,
    /// Picture height, px.
    #[schema(minimum = 16, maximum = 20000)]
    pub height_px: u32,
    /// Active width, mm.
    #[schema(minimum = 0.5, maximum = 100)]
    pub width_mm: f64,
    /// Active height, mm.
    #[schema(minimum = 0.5, maximum = 100)]
    pub height_mm: f64,
}

impl Sensor {
    /// Picture width in pixels.
    pub fn width(&self) -> f64 {
        f64::from(self.width_px)
    }

    /// Picture height in pixels.
    pub fn height(&self) -> f64 {
        f64::from(self.height_px)
    }

    /// The focal length in pixels: focal × W / sensor width (handbook, section 3).
    pub fn focal_px(&self, focal_mm: f64) -> f64 {
        focal_mm * self.width() / self.width_mm
    }

    /// Picture size in millions of pixels.
    pub fn megapixels(&self) -> f64 {
        self.width() * self.height() / 1e6
    }
}
