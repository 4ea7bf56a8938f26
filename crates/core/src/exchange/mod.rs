//! Solids that come from other programs' drawings and go to them: what is taken, what is left out and why; GeoJSON and SVG. (DXF is read
//! and written by the server, which has a library for it.)

mod drawn;
pub mod geojson;
pub mod geojson_write;
mod names;
pub mod network_csv;
pub mod network_file;
pub mod network_graph;
pub mod plan;
pub mod svg;
mod take;

pub use drawn::{Drawn, DrawnPoint, DrawnText, Found, LeftOut};
pub use take::{Import, Layer, take};
