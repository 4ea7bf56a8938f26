//! What heads cover: the relief of the whole site, the section along a sight line, a picture's outline, its use and its masks.

mod edges;
pub mod live_relief;
pub mod masks;
pub mod outline;
pub mod picture_use;
pub mod relief;
pub mod section;
