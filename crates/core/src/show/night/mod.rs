//! The light of a night, as it is told.

pub mod light_told;
