//! What stands in the way: upright solids, an index of them, and what one eye meets of them.

mod eye;
mod face;
mod index;
mod reflectance;
mod shadow;
mod solid;
mod volume;

pub use eye::{COLUMNS, Eye, Upright};
pub use face::face_of;
pub use index::Scene;
pub use reflectance::{GROUND_REFLECTANCE, PLATE_REFLECTANCE, USUAL_REFLECTANCE, reflectance_of};
pub use shadow::{Shadow, hidden_stretches, shadow};
pub use solid::{BLOCKS_UP_TO, Solid};
pub use volume::Volume;
