//! What a head can look at besides its own aim: presets of one that is turned from afar, flattened views of a fisheye.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// An aim that a head goes to, with how long it stays.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Preset {
    /// Its id, unique among the presets and flattened views of its head.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// Bearing of the optical axis, degrees clockwise from north.
    pub pan_deg: f64,
    /// Angle of the optical axis below the horizontal, degrees.
    pub tilt_deg: f64,
    /// The focal length that is set, mm.
    pub focal_mm: f64,
    /// How long the tour stays here, s.
    #[schema(minimum = 0.1, maximum = 86400)]
    pub dwell_s: f64,
}

/// A flat picture cut out of a fisheye's round one. It shows no more than the round picture holds there.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Flattened {
    /// Its id, unique among the presets and flattened views of its head.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// Bearing of its middle, degrees clockwise from north.
    pub pan_deg: f64,
    /// Angle of its middle below the horizontal, degrees.
    pub tilt_deg: f64,
    /// Its horizontal field of view, degrees.
    #[schema(minimum = 5, maximum = 150)]
    pub hfov_deg: f64,
    /// Its width, px.
    #[schema(minimum = 16, maximum = 20000)]
    pub width_px: u32,
    /// Its height, px.
    #[schema(minimum = 16, maximum = 20000)]
    pub height_px: u32,
}

/// Which of a head's views is meant.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
pub enum Which {
    /// Its own aim.
    #[default]
    Own,
    /// The preset at this place.
    Preset(usize),
    /// The flattened view at this place.
    Flattened(usize),
}

/// Aim and focal length of one of a head's views.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Aimed {
    /// Bearing of the optical axis, degrees.
    pub pan_deg: f64,
    /// Angle of the optical axis below the horizontal, degrees.
    pub tilt_deg: f64,
    /// Turn about the optical axis, degrees.
    pub roll_deg: f64,
    /// Focal length, mm.
    pub focal_mm: f64,
}
