//! What a site is like at the time that its verdicts are given for: leaves, years of growth. Doors stand as each of them says.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Season and years of growth that the verdicts are given for.
#[derive(Clone, Copy, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct Conditions {
    /// Whether the trees that lose their leaves have lost them.
    #[schema(required = false)]
    pub leaves_off: bool,
    /// How many years the trees have grown since they were drawn.
    #[schema(required = false, minimum = 0, maximum = 50)]
    pub years: f64,
}

impl Conditions {
    /// Whether these are the conditions of the drawing: in leaf, today.
    pub fn is_default(&self) -> bool {
        *self == Conditions::default()
    }
}
