//! How a head takes its pictures: shutter, pictures a second, focus, and how much of its infrared light it uses.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Pictures a second where nobody said how many; common practice, no source.
pub const USUAL_FPS: f64 = 25.0;

/// How a head is set to take its pictures.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Exposure {
    /// How long the shutter is open, s.
    #[schema(minimum = 0.00001, maximum = 1)]
    pub shutter_s: f64,
    /// Pictures a second.
    #[schema(minimum = 0.1, maximum = 240)]
    pub fps: f64,
    /// The distance that it is focused at, m; none for the one that centres what it must hold.
    #[serde(default)]
    pub focus_m: Option<f64>,
    /// The share of its infrared light that is used; all of it where left out, 0 for none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0, maximum = 1)]
    pub infrared_share: Option<f64>,
}
