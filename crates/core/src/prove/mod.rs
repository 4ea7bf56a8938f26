//! What was promised against what hangs there: walk tests, later pictures against the one that was kept as the reference, and what is due.
//! Comparing pictures (feature `compare`) is a core of its own in the browser.

#[cfg(feature = "compare")]
pub mod carried;
#[cfg(feature = "compare")]
mod coarse;
#[cfg(feature = "compare")]
pub mod compare;
mod connected;
pub mod due;
pub mod grown;
pub mod later;
pub mod log_csv;
#[cfg(feature = "compare")]
mod plane;
pub mod proved;
#[cfg(feature = "compare")]
mod register;
#[cfg(feature = "compare")]
pub mod shot;
#[cfg(feature = "compare")]
mod tiles;
#[cfg(feature = "compare")]
mod turned;
pub mod walk;
