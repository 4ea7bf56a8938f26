//! Bright Angle's outside: the command line, the HTTP interface and the keeping of sites.
//!
//! Everything that is computed comes from [`bright_angle_core`]; here it is only read, kept and
//! answered.

pub mod api;
pub mod calendar;
pub mod cli;
pub mod coverage;
pub mod device;
pub mod drawing;
pub mod dxf;
pub mod front;
pub mod papers;
pub mod picture;
pub mod plan_out;
pub mod relief;
pub mod share;
pub mod sheet;
pub mod store;
