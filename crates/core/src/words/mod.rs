//! What is said to people: lengths, what a site asks for, and what to mind.

pub mod because;
pub mod begins;
pub mod cautions;
pub mod compass;
pub mod guide;
pub mod sheet_text;
mod shortfall;
pub mod units;

pub use shortfall::shortfall;
