//! Solids that come from other programs' drawings and go to them: what is taken, what is left out and why; GeoJSON and SVG. (DXF is read
//! and written by the server, which has a library for it.)

pub mod geojson;
pub mod geojson_write;
mod names;
pub mod plan;
pub mod svg;
mod take;

pub use take::{Drawn, DrawnPoint, DrawnText, Found, Import, Layer, LeftOut, take};
