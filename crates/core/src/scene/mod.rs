//! What stands in the way: upright solids, an index of them, and what one eye meets of them.

mod eye;
mod index;
mod shadow;
mod solid;
mod volume;

pub use eye::{COLUMNS, Eye, Upright};
pub use index::Scene;
pub use shadow::{Shadow, hidden_stretches, shadow};
pub use solid::{BLOCKS_UP_TO, Solid};
pub use volume::Volume;
