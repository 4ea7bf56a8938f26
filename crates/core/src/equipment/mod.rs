//! What is mounted: sensors, lenses, lights, and the catalogue that ships with the program.

pub mod build;
pub mod catalogue;
mod dotted;
pub mod lens;
pub mod lens_facts;
pub mod looks;
pub mod mounts;
pub mod optics;
pub mod power_class;
pub mod sheet;
pub mod stock;
pub mod stock_csv;
