//! Lamps: what lights a site at night besides the cameras.

use super::Point2;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A lamp at a height that shines down and to all sides.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Lamp {
    /// Its id, unique among the lamps.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// Where it hangs.
    #[schema(value_type = [f64; 2])]
    pub position: Point2,
    /// Height over the ground there, m.
    pub height_m: f64,
    /// Its light, lumens; zero for one that is out.
    #[schema(minimum = 0, maximum = 1_000_000)]
    pub lumens: f64,
    /// Height of the ground under it, m.
    #[serde(default, skip_serializing_if = "super::is_zero")]
    pub ground_m: f64,
}
