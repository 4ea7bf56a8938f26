//! The two sides of a merge.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Whose state of a thing to take.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Side {
    /// The one in hand.
    Mine,
    /// The other one.
    Theirs,
}
