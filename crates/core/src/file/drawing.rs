//! The overhead picture under the plan: where it lies, how it is turned, and its scale.

use super::Point2;
use serde::{Deserialize, Serialize};
use std::ops::RangeInclusive;
use utoipa::ToSchema;

/// The widest and tallest picture, px.
pub const MOST_PX: u32 = 20_000;

/// Scales that the drawing of a site may have, m per px.
pub const SCALES: RangeInclusive<f64> = 1e-4..=20.0;

/// A picture of the site from above, or a photo of a paper plan.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = SiteDrawing)]
pub struct Drawing {
    /// The picture's name in the store: the SHA-256 of its bytes, in hex.
    pub picture: String,
    /// Its width, px.
    pub width_px: u32,
    /// Its height, px.
    pub height_px: u32,
    /// Its scale, m per px; none while it has not been set.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub metres_per_px: Option<f64>,
    /// Where its middle lies on the site.
    #[serde(default)]
    #[schema(value_type = [f64; 2])]
    pub centre: Point2,
    /// The bearing that its top points to, degrees.
    #[serde(default)]
    pub turn_deg: f64,
    /// How far it is faded: 0 as it is, 1 not to be seen.
    #[serde(default)]
    #[schema(minimum = 0, maximum = 1)]
    pub fade: f64,
    /// The distances that the scale was made from.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub scale_from: Vec<ScaleMark>,
}

/// A distance between two places of the picture.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ScaleMark {
    /// One end, px right and down from the top-left corner.
    #[schema(value_type = [f64; 2])]
    pub a: Point2,
    /// The other end.
    #[schema(value_type = [f64; 2])]
    pub b: Point2,
    /// Horizontal distance between them, m.
    pub distance_m: f64,
}
