//! Plates on their way: where they read, and what their cameras are set to.

pub mod on_the_way;
pub mod start_settings;
