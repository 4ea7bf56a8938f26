//! From where on a difference is told, and what is due how often: settings that a firm can change.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The limits of proving and upkeep. Each is our default, or common practice without a source.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct ProvingRules {
    /// It moved: by more than so many degrees, wherever in the picture that is.
    #[schema(required = false)]
    pub moved_deg: f64,
    /// It is out of focus: under so much of the reference's sharpness.
    #[schema(required = false)]
    pub sharpness_share: f64,
    /// It is hazed: under so much of its contrast.
    #[schema(required = false)]
    pub contrast_share: f64,
    /// It is darker: under so much of its light.
    #[schema(required = false)]
    pub light_share: f64,
    /// A region counts from this share of the picture.
    #[schema(required = false)]
    pub region_share: f64,
    /// Growth counts from this share of the picture, where three pictures of different days agree.
    #[schema(required = false)]
    pub grown_share: f64,
    /// A camera's clock is wrong from so many seconds on.
    #[schema(required = false)]
    pub clock_s: f64,
    /// A measured density differs from the plan's from this share on.
    #[schema(required = false)]
    pub density_share: f64,
    /// Covers outdoors are cleaned every so many months.
    #[schema(required = false)]
    pub cover_months: f64,
    /// Pictures are held against the reference every so many months.
    #[schema(required = false)]
    pub pictures_months: f64,
    /// Recorder and cards are read back every so many months.
    #[schema(required = false)]
    pub playback_months: f64,
    /// Firmware is looked at every so many months.
    #[schema(required = false)]
    pub firmware_months: f64,
    /// Passwords are changed every so many months.
    #[schema(required = false)]
    pub password_months: f64,
    /// Joints, lanyards and mounts are looked at every so many months.
    #[schema(required = false)]
    pub joints_months: f64,
}

impl Default for ProvingRules {
    fn default() -> Self {
        ProvingRules {
            moved_deg: 0.15,
            sharpness_share: 0.7,
            contrast_share: 0.7,
            light_share: 0.6,
            region_share: 0.04,
            grown_share: 0.01,
            clock_s: 30.0,
            density_share: 0.1,
            cover_months: 6.0,
            pictures_months: 6.0,
            playback_months: 3.0,
            firmware_months: 6.0,
            password_months: 12.0,
            joints_months: 12.0,
        }
    }
}

impl ProvingRules {
    /// Whether these are ours.
    pub fn is_default(&self) -> bool {
        *self == ProvingRules::default()
    }
}
