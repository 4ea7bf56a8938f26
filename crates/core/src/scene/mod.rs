//! What stands in the way: upright solids, an index of them, and what one eye meets of them.

mod eye;
mod index;
mod shadow;
mod solid;

pub use eye::Eye;
pub use index::Scene;
pub use shadow::{Shadow, shadow};
pub use solid::{BLOCKS_UP_TO, Solid};
