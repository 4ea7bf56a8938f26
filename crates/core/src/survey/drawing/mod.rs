//! The overhead picture under the plan: its scale from distances or from a world file.

mod scale;
mod world_file;

pub use scale::{ScaleFit, fit};
pub use world_file::{WorldFile, parse_world_file};
