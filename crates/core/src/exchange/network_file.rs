//! The files that the wiring goes out as.

use super::{network_csv, network_graph};
use crate::file::{Fault, SiteFile};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A file of the wiring.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum NetworkFile {
    /// Cables, as CSV.
    Cables,
    /// Devices and ports, as CSV.
    Ports,
    /// Labels, as CSV.
    Labels,
    /// What is bought, as CSV.
    Materials,
    /// A graph for GraphViz.
    Dot,
    /// A graph as GraphML.
    Graphml,
}

impl NetworkFile {
    /// The file of a site.
    ///
    /// # Errors
    /// A table that cannot be written.
    pub fn written(self, site: &SiteFile) -> Result<String, Fault> {
        match self {
            NetworkFile::Cables => network_csv::cable_schedule(site),
            NetworkFile::Ports => network_csv::port_list(site),
            NetworkFile::Labels => network_csv::labels(site),
            NetworkFile::Materials => network_csv::materials(site),
            NetworkFile::Dot => Ok(network_graph::dot(site)),
            NetworkFile::Graphml => Ok(network_graph::graphml(site)),
        }
    }
}
