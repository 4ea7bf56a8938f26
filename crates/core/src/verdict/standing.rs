//! The four verdicts.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How well something holds (handbook, section 4). Ordered from best to worst.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Verdict {
    /// Holds over the stated uncertainties taken at their worst.
    Kept,
    /// Holds nominally only.
    Tight,
    /// Cannot be said: data is missing.
    Unknown,
    /// Does not hold.
    Broken,
}

impl Verdict {
    /// Kept if it holds at worst, tight if it holds nominally, else broken.
    pub fn of(nominally: bool, at_worst: bool) -> Self {
        match (nominally, at_worst) {
            (true, true) => Verdict::Kept,
            (true, false) => Verdict::Tight,
            (false, _) => Verdict::Broken,
        }
    }

    /// The word for it.
    pub fn word(self) -> &'static str {
        match self {
            Verdict::Kept => "kept",
            Verdict::Tight => "tight",
            Verdict::Unknown => "unknown",
            Verdict::Broken => "broken",
        }
    }
}
