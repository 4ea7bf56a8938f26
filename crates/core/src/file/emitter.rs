//! An infrared lamp of a camera's own.

use super::{Infrared, Point2};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// An infrared lamp of its own that shines for a camera in place of the one in its housing; it points where the camera points.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Emitter {
    /// Where it is mounted.
    #[schema(value_type = [f64; 2])]
    pub position: Point2,
    /// Its height over the ground under the camera, m.
    pub height_m: f64,
    /// Its light.
    pub light: Infrared,
}
