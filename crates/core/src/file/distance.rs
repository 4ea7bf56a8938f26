//! How a distance was got, for its uncertainty.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How a target's distance was got.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DistanceHow {
    /// Read off the plan.
    #[default]
    Plan,
    /// Measured with a laser rangefinder.
    Laser,
    /// Guessed by eye.
    Guess,
}

/// How a target's distance was got, for its uncertainty.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Distance {
    /// Plan, laser or guess.
    pub how: DistanceHow,
    /// Its own uncertainty from wherever it is looked at, ± m, in place of the blanket one; it comes out of an adjustment.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub plus_minus_m: Option<f64>,
    /// Its own uncertainty from a spot, along the line: what was measured between the two is known better than where either is.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub from: Vec<FromSpot>,
}

/// How well the distance from a spot is known.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FromSpot {
    /// The spot's id.
    pub spot: String,
    /// ± m.
    pub plus_minus_m: f64,
}
