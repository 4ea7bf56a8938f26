//! What the relief tells about the ground: how many see each place, what nobody sees and why, what one loses with a camera, and the
//! way across the site on which one is seen least.

pub mod count;
pub mod lost;
pub mod patches;
pub mod quiet_path;
pub mod seasons;
pub mod steps;
pub mod told;
pub mod why;
