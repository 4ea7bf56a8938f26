//! Verdicts: sight lines through the rules, promises, and a session that follows changes.

mod aim_slack;
pub(crate) mod automatic;
pub(crate) mod build;
pub mod evaluation;
pub(crate) mod lane;
pub(crate) mod lit;
pub mod rules;
pub mod session;
pub(crate) mod sight;
pub mod sight_line;
pub mod tours;
pub mod unseen;
pub(crate) mod zone;
pub(crate) mod zone_light;

pub use evaluation::{Evaluation, HeadResult, TargetResult, evaluate, evaluate_within, within_reach};
pub use session::Session;
pub use sight_line::{Samples, SightLine};
