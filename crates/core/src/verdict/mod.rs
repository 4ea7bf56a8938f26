//! Verdicts and what they are made of, whatever is judged: how well something holds, what a rule found, in which unit, and what is left
//! out. Who judges is of no concern here.

mod left_out;
mod result;
mod rule_name;
mod standing;
mod unit;

pub use left_out::{Given, leaves_out};
pub use result::RuleResult;
pub use rule_name::RuleName;
pub use standing::Verdict;
pub use unit::Unit;
