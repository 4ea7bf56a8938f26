//! The four verdicts.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What a verdict leaves out, and so says.
pub fn leaves_out(night: bool, on_the_move: bool) -> &'static str {
    match (night, on_the_move) {
        (false, false) => {
            "By day, standing still, in focus. By night it is judged when the site is set to it; low sun is shown, not judged; wiring and recording are not judged yet."
        }
        (true, false) => {
            "By night, standing still, in focus. What is washed out and lamps in the picture are shown, not judged; wiring and recording are not judged yet."
        }
        (false, true) => {
            "By day, at the speed stated, dry and clean plates. By night it is judged when the site is set to it; low sun is shown, not judged; wiring and recording are not judged yet."
        }
        (true, true) => {
            "By night, at the speed stated, dry and clean plates. What is washed out and lamps in the picture are shown, not judged; wiring and recording are not judged yet."
        }
    }
}

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
