//! What was done at a camera on the bench and on the ladder, and how it hangs since.

use super::{Aimed, Photo};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What was done at a camera.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct Fitting {
    /// The steps that were done or skipped.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub done: Vec<StepDone>,
    /// Photos of what was done; the note of one names the step that it is of.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub photos: Vec<Photo>,
    /// What was noted on the way.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub note: Option<String>,
}

/// A step that was done, or skipped.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct StepDone {
    /// The step's id; with a head's, `step.head`.
    pub id: String,
    /// When, as in `2026-11-24T14:02:00Z`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at: Option<String>,
    /// Whether it was done, or left for later.
    #[serde(default, skip_serializing_if = "StepHow::is_done")]
    #[schema(required = false)]
    pub how: StepHow,
}

/// What became of a step.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum StepHow {
    /// Done.
    #[default]
    Done,
    /// Left for later: it is asked again before the camera is closed.
    Later,
    /// Asked again, and left out: there is no need for it here.
    LeftOut,
}

impl StepHow {
    fn is_done(&self) -> bool {
        *self == StepHow::Done
    }
}

/// How a head hangs, as its picture showed. It holds as long as the head's aim is still the one that was found.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AsBuilt {
    /// The aim and focal length that were found.
    pub found: Aimed,
    /// How well its aim is known: one standard deviation of the worst of its angles, degrees.
    pub aim_sigma_deg: f64,
    /// The same of its focal length, as a share.
    pub focal_sigma: f64,
    /// The aim and focal length of the design.
    pub designed: Aimed,
    /// When it was found, as in `2026-11-24T14:02:00Z`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at: Option<String>,
}

/// An aim is still the one that was found if nothing is off it by more than this, degrees and mm.
const STILL: f64 = 1e-6;

impl AsBuilt {
    /// Whether an aim is still the one that was found.
    pub fn holds(&self, aimed: &Aimed) -> bool {
        let figures = |aimed: &Aimed| [aimed.pan_deg, aimed.tilt_deg, aimed.roll_deg, aimed.focal_mm];
        figures(&self.found).into_iter().zip(figures(aimed)).all(|(then, now)| (then - now).abs() <= STILL)
    }
}
