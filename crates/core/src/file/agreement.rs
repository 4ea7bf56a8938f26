//! What a client agreed to: which promises, seen by which cameras, at what price, signed by whom. It is never changed; what is different
//! later is shown against it.

use super::{Amount, CameraFile, TargetFile};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// An agreement.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Agreement {
    /// Its id.
    pub id: String,
    /// Who agreed.
    pub name: String,
    /// When, as in `2026-11-30`.
    pub date: String,
    /// How.
    pub by: AgreedBy,
    /// The signature: strokes of points, both axes 0 to 1 over a field three times as wide as high.
    #[serde(default)]
    #[schema(value_type = Vec<Vec<[f64; 2]>>)]
    pub signature: Vec<Vec<[f64; 2]>>,
    /// What the design was called.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub option: Option<String>,
    /// What all of it costs with tax, where all was known.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub total: Option<Amount>,
    /// The money of it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub currency: Option<String>,
    /// How each promise stood.
    pub promises: Vec<AgreedPromise>,
    /// The promises as they were.
    pub targets: Vec<TargetFile>,
    /// The cameras as they were.
    pub cameras: Vec<CameraFile>,
}

/// How somebody agreed.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum AgreedBy {
    /// On the installer's tablet.
    Tablet,
    /// On a page that was sent, and came back.
    Page,
    /// By a link.
    Link,
}

/// How a promise stood when it was agreed: the words of verdicts.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Stood {
    /// With every tolerance at its worst.
    Kept,
    /// As stated only.
    Tight,
    /// A figure was missing.
    Unknown,
    /// It did not.
    Broken,
}

/// A promise as it was agreed.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AgreedPromise {
    /// The target's id.
    pub target: String,
    /// How it stood.
    pub verdict: Stood,
    /// What it was to be, in words.
    pub says: String,
}
