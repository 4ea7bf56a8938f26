//! A site's plan in the formats of others.

use crate::coverage::coverage;
use crate::dxf;
use bright_angle_core::exchange::plan::Plan;
use bright_angle_core::exchange::{geojson_write, svg};
use bright_angle_core::judge::Session;
use bright_angle_core::work::Patience;
use bright_angle_core::{Fault, Site};

/// A site as another format has it.
///
/// # Errors
/// What the format's library cannot write.
pub fn written(site: Site, format: &str, patience: &Patience) -> Result<String, Fault> {
    let file = site.file().clone();
    // A site that is too large to be judged is written all the same.
    let session = Session::within(site, patience).ok();
    let mut plan = session.as_ref().map_or_else(|| Plan::bare(&file), Plan::judged);
    if let Some(session) = &session {
        plan.coverage = coverage(session.site(), patience).unwrap_or_default();
    }
    match format {
        "geojson" | "geojson-metres" => Ok(geojson_write::write(&plan, format == "geojson-metres")),
        "dxf" => dxf::write(&plan),
        _ => Ok(svg::write(&plan)),
    }
}
