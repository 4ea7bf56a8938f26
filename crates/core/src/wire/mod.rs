//! What carries the promises: cables, power, the network's load and the store (handbook, sections 7 and 12).

#[cfg(feature = "route")]
pub mod attach;
pub mod attach_box;
pub mod conduit;
pub mod estimate;
mod findings;
#[cfg(feature = "route")]
pub mod greedy;
pub mod length;
pub mod mend;
mod middle;
pub mod net;
#[cfg(feature = "route")]
pub mod paths;
#[cfg(feature = "route")]
pub mod places;
pub mod power;
pub mod prices;
pub mod rate;
pub mod read_switch;
#[cfg(feature = "route")]
pub mod route;
pub mod runs;
pub mod shared_cable;
pub mod sheet;
pub mod store;
pub mod told;
pub mod wired;
