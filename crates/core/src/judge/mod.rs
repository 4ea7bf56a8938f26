//! Verdicts: sight lines through the rules, promises, and a session that follows changes.

mod aim_slack;
pub mod evaluation;
pub(crate) mod lane;
pub mod rules;
pub mod session;
pub(crate) mod sight;
pub mod sight_line;
pub mod tours;
pub mod unseen;
pub(crate) mod zone;

pub use evaluation::{Evaluation, HeadResult, TargetResult, evaluate, evaluate_within, within_reach};
pub use session::Session;
pub use sight_line::{Samples, SightLine};
