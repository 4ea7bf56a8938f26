//! Changes to a design: the ways to keep a promise, and what a hand does to a camera or a target.

pub mod edits;
pub mod ways;
