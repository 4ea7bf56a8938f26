//! Which part of the sensor a picture shows, and how large.

use crate::file::HeadRef;
use glam::DVec2;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The most pixels a picture is worked out for at once on a side.
const LARGEST: u32 = 8192;

/// What is wished to be seen.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case", deny_unknown_fields)]
pub enum Window {
    /// The whole picture.
    Whole {
        /// How wide it is shown, px.
        width: u32,
    },
    /// Some rows of the whole picture, so that several hands can share it.
    Band {
        /// How wide the whole is shown, px.
        width: u32,
        /// The first row.
        from: u32,
        /// The row after the last.
        to: u32,
    },
    /// The pixels of the sensor themselves around a target, one by one.
    Loupe {
        /// The target.
        target: String,
        /// How many pixels of the sensor across and down.
        across: u32,
        /// The same down.
        down: u32,
    },
}

/// A part of the sensor at a size.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct Frame {
    /// The top-left corner on the sensor, px.
    #[schema(value_type = [f64; 2])]
    pub origin: [f64; 2],
    /// Sensor pixels per pixel shown.
    pub scale: f64,
    /// Width shown, px.
    pub width: u32,
    /// Height shown, px.
    pub height: u32,
}

impl Frame {
    /// A whole picture of a size, px, at a width.
    pub fn whole(size: DVec2, width: u32) -> Frame {
        let width = width.clamp(1, LARGEST);
        let scale = size.x / f64::from(width);
        Frame { origin: [0.0; 2], scale, width, height: ((size.y / scale).round() as u32).clamp(1, LARGEST) }
    }

    /// Some rows of a whole picture at a width; none where there are none.
    pub fn band(size: DVec2, width: u32, from: u32, to: u32) -> Frame {
        let whole = Frame::whole(size, width);
        let from = from.min(whole.height);
        let height = to.min(whole.height).saturating_sub(from);
        Frame { origin: [0.0, f64::from(from) * whole.scale], height, ..whole }
    }

    /// The pixels around a place of the sensor, one by one; on whole pixels, so that each is the sensor's own.
    pub fn around(at: DVec2, across: u32, down: u32) -> Frame {
        let (width, height) = (across.clamp(1, 2048), down.clamp(1, 2048));
        let corner = (at - DVec2::new(f64::from(width), f64::from(height)) / 2.0).round();
        Frame { origin: corner.to_array(), scale: 1.0, width, height }
    }

    /// The place on the sensor of a place of the picture shown, px from its top-left corner.
    pub fn sensor(&self, shown: DVec2) -> DVec2 {
        DVec2::from_array(self.origin) + shown * self.scale
    }
}

/// A wish for a target that a head does not have before it.
pub fn not_before(target: &str, head: &HeadRef) -> String {
    format!("\"{target}\" does not lie before {} {}", head.camera, head.head)
}
