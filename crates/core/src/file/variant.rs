//! Another design for the same promises, kept beside the one in hand.

use super::CameraFile;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Cameras that might be put up in place of the site's.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Variant {
    /// Its id, unique among the variants.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// Its cameras; ids are unique within it.
    pub cameras: Vec<CameraFile>,
}
