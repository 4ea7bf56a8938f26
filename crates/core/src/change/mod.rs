//! Changes to a design: the ways to keep a promise, what a hand does to cameras and targets, and two states of a site side by side.

pub mod compare;
pub mod designs;
pub mod edits;
pub mod forms;
pub mod merge;
mod merge_fields;
pub mod side;
pub mod store_cuts;
pub mod ways;
