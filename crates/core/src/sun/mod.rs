//! Where the sun stands, and what the clock shows then (handbook, section 9).

pub mod clock;
pub mod daylight;
pub mod position;
mod sun_year;

pub use sun_year::{SunYear, Up};
