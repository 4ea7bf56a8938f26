//! What carries the promises: cables, power, the network's load and the store (handbook, sections 7 and 12).

pub mod length;
pub mod net;
pub mod power;
pub mod rate;
pub mod store;
pub mod wired;
