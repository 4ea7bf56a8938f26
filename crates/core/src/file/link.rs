//! What links a head that is turned from afar to the fixed views that point it.

use super::Hung;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A pair that links a fixed view to a head that is turned: something that both see.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LinkPair {
    /// Where it is in the fixed view, px right and down from the top-left corner.
    #[schema(value_type = [f64; 2])]
    pub pixel: [f64; 2],
    /// The pan with which the turned head has it in the middle of its picture, degrees on its own scale.
    pub pan_deg: f64,
    /// The tilt with which it has, degrees below the horizontal on its own scale.
    pub tilt_deg: f64,
}

/// How both heads of a link hung.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LinkHung {
    /// The fixed view.
    pub fixed: Hung,
    /// The turned head: its place alone counts, its aim is what is pointed.
    pub turned: Hung,
}

/// A fixed head that points one that is turned from afar.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Link {
    /// The id of the fixed view's camera.
    pub camera: String,
    /// The id of its head.
    pub head: String,
    /// What both see: four or more pairs, on the ground.
    pub pairs: Vec<LinkPair>,
    /// How the fixed view and the turned head hung when the pairs were taken: moved since, they say nothing.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hung: Option<LinkHung>,
}
