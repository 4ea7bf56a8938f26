//! What the cameras must not show: a neighbour's window, a garden, a street.

use super::Point2;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A private place: an outline between two heights. A filled one is all that happens over a piece of ground; an open one stands
/// upright, like a window.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PrivatePlace {
    /// Its id, unique among the private places.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// Its corners in order, not repeated at the end.
    #[schema(value_type = Vec<[f64; 2]>)]
    pub outline: Vec<Point2>,
    /// Whether the outline is filled; an open one is upright, like a window.
    #[serde(default = "yes")]
    pub closed: bool,
    /// Height of its lower edge over the ground there, m.
    #[serde(default)]
    pub base_m: f64,
    /// Height of its upper edge over the ground there, m.
    pub top_m: f64,
    /// Height of the ground there, m.
    #[serde(default, skip_serializing_if = "super::is_zero")]
    pub ground_m: f64,
}

fn yes() -> bool {
    true
}
