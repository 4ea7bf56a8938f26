//! What a site is like at the time that its verdicts are given for: leaves, years of growth, day or night. Doors stand as each of them says.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Season, years of growth and day or night that the verdicts are given for.
#[derive(Clone, Copy, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct Conditions {
    /// Whether the trees that lose their leaves have lost them.
    #[schema(required = false)]
    pub leaves_off: bool,
    /// How many years the trees have grown since they were drawn.
    #[schema(required = false, minimum = 0, maximum = 50)]
    pub years: f64,
    /// Whether they are given for the night: by lamps and infrared light.
    #[schema(required = false)]
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    pub night: bool,
}

impl Conditions {
    /// Whether these are the conditions of the drawing: in leaf, today, by day.
    pub fn is_default(&self) -> bool {
        *self == Conditions::default()
    }
}
