//! What is mounted: sensors, lenses, lights, and the catalogue that ships with the program.

pub mod build;
pub mod catalogue;
pub mod lens;
pub mod optics;
pub mod sheet;
