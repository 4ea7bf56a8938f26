//! Changes to a site file as JSON Patches (RFC 6902).

use serde::Serialize;
use serde_json::Value;
use utoipa::ToSchema;

/// One operation of a JSON Patch (RFC 6902).
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PatchOp {
    /// `replace`, `add` or `remove`.
    pub op: &'static str,
    /// JSON Pointer into the site file.
    pub path: String,
    /// The new value; none for `remove`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub value: Option<Value>,
}
