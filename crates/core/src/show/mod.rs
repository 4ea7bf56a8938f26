//! What is drawn: the section along a sight line, and the relief of the whole site.

pub mod card;
mod edges;
pub mod light_told;
pub mod live_relief;
pub mod live_sun;
pub mod masks;
pub mod outline;
pub mod picture_use;
pub mod plates;
pub mod rays;
pub mod relief;
pub mod section;
pub mod start_settings;
pub mod sun_told;
