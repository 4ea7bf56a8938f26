//! The sun in the pictures of a site.

pub mod live_sun;
pub mod sun_told;
