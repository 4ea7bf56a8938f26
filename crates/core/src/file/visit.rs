//! Visits to keep a site as it was handed over: what was due, what was done.

use super::StepHow;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A visit.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = UpkeepVisit)]
pub struct Visit {
    /// Its id.
    pub id: String,
    /// The day, as in `2027-05-30`.
    pub date: String,
    /// Who came.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub by: Option<String>,
    /// What was done.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub done: Vec<Upkept>,
    /// Anything else.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub note: Option<String>,
    /// Whether it is over.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub closed: bool,
}

/// Something due that was done, or left.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Upkept {
    /// What, as `due` names it: `cover.c4`.
    pub id: String,
    /// What it was called.
    pub says: String,
    /// What became of it.
    #[serde(default)]
    #[schema(required = false)]
    pub how: StepHow,
    /// When, as in `2026-11-24T14:02:00Z`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at: Option<String>,
    /// What was found.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub note: Option<String>,
    /// The day of the oldest recording that was found, where recordings were played back.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub oldest: Option<String>,
}
