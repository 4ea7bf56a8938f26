//! What a lens then does: the field, and the density against the distance, at both ends of its zoom.

use super::lens::FittedLens;
use crate::file::{Fault, Model, model_faults};
use serde::Serialize;
use utoipa::ToSchema;

/// Distances that the density is told for, m.
const DISTANCES_M: [f64; 8] = [2.0, 3.0, 5.0, 10.0, 15.0, 20.0, 30.0, 50.0];

/// One end of a lens.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LensEnd {
    /// Focal length, mm.
    pub focal_mm: f64,
    /// Field across, degrees.
    pub hfov_deg: f64,
    /// Field upright, degrees.
    pub vfov_deg: f64,
    /// Density on the axis by distance: m, px/m.
    pub px_per_m: Vec<(f64, f64)>,
}

/// What a model's lens does.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LensFacts {
    /// Its wide end, and its long end where it zooms.
    pub ends: Vec<LensEnd>,
    /// How far it is from free of distortion: 1 is the pinhole (handbook, section 3).
    pub bend: f64,
    /// Whether that was solved from a published field.
    pub published_field: bool,
}

/// The facts of a model's lens.
///
/// # Errors
/// What makes no sense of the model, with its place.
pub fn lens_facts(model: &Model) -> Result<LensFacts, Vec<Fault>> {
    let faults = model_faults("model", model);
    if !faults.is_empty() {
        return Err(faults);
    }
    let fitted = FittedLens::new(model.lens, model.sensor);
    let end = |focal_mm: f64| {
        let projection = fitted.projection(focal_mm);
        LensEnd {
            focal_mm,
            hfov_deg: projection.hfov().to_degrees(),
            vfov_deg: projection.vfov().to_degrees(),
            px_per_m: DISTANCES_M.map(|far| (far, projection.focal_px() / far)).to_vec(),
        }
    };
    let mut ends = vec![end(model.lens.focal_min_mm)];
    if model.lens.is_zoom() {
        ends.push(end(model.lens.focal_max_mm));
    }
    Ok(LensFacts { ends, bend: fitted.bend(), published_field: model.lens.hfov_at_min_deg.is_some() })
}
