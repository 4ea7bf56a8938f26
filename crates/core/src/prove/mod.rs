//! What was promised against what hangs there: a camera's later pictures against the one that was kept as its reference.

mod coarse;
pub mod compare;
mod plane;
mod register;
pub mod shot;
mod tiles;
mod turned;
