//! What light does on a site by night: lamps, the infrared light of heads, and what a picture needs of it (handbook, section 9).

mod head_light;
pub mod infrared;
mod lamp_light;
mod lit;
mod metering;
mod retro;

pub use head_light::{HeadLight, RATED_SHUTTER_S, TimesRange, needed_times};
pub use lamp_light::{LampLight, candela, lux_upright};
pub use lit::{Lit, Spread};
pub use metering::{Part, exposure_for_grey};
pub use retro::{RETRO, retro_gain};

/// How light the light that a picture needs makes white: 1 is the lightest that the picture can show. Our choice.
pub const WHITE: f64 = 0.9;
/// The least light that a camera is taken to need that does not say its own, lux, where a picture is drawn or metered; our choice.
pub const DRAWN_LEAST_LUX: f64 = 0.05;
