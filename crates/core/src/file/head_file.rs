//! The heads of a camera as the file writes them.

use super::{Exposure, Flattened, Lens, Link, Preset};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One head of a camera: its aim and its focal length.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = CameraHead)]
pub struct HeadFile {
    /// Its id, unique in its camera.
    pub id: String,
    /// Bearing of the optical axis, degrees clockwise from north.
    pub pan_deg: f64,
    /// Angle of the optical axis below the horizontal, degrees.
    pub tilt_deg: f64,
    /// Turn about the optical axis, degrees clockwise as seen from behind.
    #[serde(default)]
    pub roll_deg: f64,
    /// The focal length that is set, mm.
    pub focal_mm: f64,
    /// Its own lens, where it differs from the model's.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lens: Option<Lens>,
    /// Aims that it goes to, in the order of its tour; its own aim is where it parks when no tour runs.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub presets: Vec<Preset>,
    /// How fast it turns, degrees a second; 80 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub slew_deg_s: Option<f64>,
    /// How long a change of focal length takes, s; 2 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub zoom_s: Option<f64>,
    /// The fixed view that points it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pointed_by: Option<Link>,
    /// Flat pictures cut out of its round one; a fisheye.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub flattened: Vec<Flattened>,
    /// How it takes its pictures.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub exposure: Option<Exposure>,
}
