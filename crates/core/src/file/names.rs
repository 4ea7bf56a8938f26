//! Names of a head and of a sight line, by the ids in the file.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Names a head.
#[derive(Clone, Debug, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
pub struct HeadRef {
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
}

/// Which sight line is to be kept.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Question {
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// The target's id.
    pub target: String,
}
