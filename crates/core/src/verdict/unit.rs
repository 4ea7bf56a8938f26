//! The units in which rules tell what they found.

use serde::Serialize;
use utoipa::ToSchema;

/// The unit of a rule's value and limit.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Unit {
    /// Pixels per metre.
    #[serde(rename = "px/m")]
    PxPerM,
    /// Degrees.
    Deg,
    /// Seconds.
    S,
    /// Pixels.
    Px,
    /// Metres.
    M,
    /// A grade of protection against dust and water.
    Ip,
    /// Doublings of light.
    Stops,
    /// Pictures in which a plate can be read.
    Looks,
    /// So many times what is needed.
    Times,
    /// The share of the subject that is hidden, 0 to 1.
    Hidden,
    /// The share of the subject that is masked, 0 to 1.
    Masked,
}
