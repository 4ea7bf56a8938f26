//! How a head takes its pictures: shutter, pictures a second, focus, gain, and how much of its infrared light it uses.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Pictures a second where nobody said how many; common practice, no source.
pub const USUAL_FPS: f64 = 25.0;

/// How a head is set to take its pictures.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Exposure {
    /// How long the shutter is open, s; of an automatic the longest that it takes. Where left out, the camera chooses.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.00001, maximum = 1)]
    pub shutter_s: Option<f64>,
    /// Whether the shutter stays as it is set or the camera chooses; where left out, fixed if a shutter is stated.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mode: Option<ExposureMode>,
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
    /// The most that its automatic raises the gain, dB; its least light is rated with this gain.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0, maximum = 100)]
    pub gain_max_db: Option<f64>,
}

/// Who sets the shutter.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ExposureMode {
    /// It stays as it is set.
    Fixed,
    /// The camera, picture by picture.
    Auto,
}

impl Exposure {
    /// A fixed shutter, and nothing else said.
    pub fn fixed(shutter_s: f64, fps: f64) -> Exposure {
        Exposure { shutter_s: Some(shutter_s), mode: None, fps, focus_m: None, infrared_share: None, gain_max_db: None }
    }

    /// The shutter that stays as it is set, s; `None` for an automatic.
    ///
    /// ```
    /// use bright_angle_core::file::{Exposure, ExposureMode};
    /// let fixed = Exposure::fixed(0.001, 25.0);
    /// assert_eq!(fixed.fixed_s(), Some(0.001));
    /// assert_eq!(Exposure { mode: Some(ExposureMode::Auto), ..fixed }.fixed_s(), None);
    /// ```
    pub fn fixed_s(&self) -> Option<f64> {
        self.shutter_s.filter(|_| self.mode != Some(ExposureMode::Auto))
    }

    /// The same with another fixed shutter.
    #[must_use]
    pub fn with_shutter(self, shutter_s: f64) -> Exposure {
        Exposure { shutter_s: Some(shutter_s), mode: None, ..self }
    }
}
