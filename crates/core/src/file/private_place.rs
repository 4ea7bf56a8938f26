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
    /// Whose ground it is: what is private is masked, of all other ground that is not the client's it is told how much is seen.
    #[serde(default, skip_serializing_if = "Whose::is_private")]
    pub whose: Whose,
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

/// Whose ground a place is.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Whose {
    /// Somebody's who must not be filmed there: it is masked.
    #[default]
    Private,
    /// A street, a path, a square.
    Public,
    /// The neighbour's, past the property line.
    Neighbour,
}

impl Whose {
    /// Whether it must be masked.
    pub fn is_private(&self) -> bool {
        *self == Whose::Private
    }
}

fn yes() -> bool {
    true
}
