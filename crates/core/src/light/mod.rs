//! What light does on a site by night: lamps, the infrared light of heads, and what a picture needs of it (handbook, section 9).

mod head_light;
pub mod infrared;
mod lamp_light;

pub use head_light::{HeadLight, RATED_SHUTTER_S, RETRO, needed_times};
pub use lamp_light::{LampLight, candela, lux_upright};
