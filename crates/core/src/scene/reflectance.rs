//! How much light surfaces give back on the mean: what an automatic exposure meters. Ours, as the pictures paint them
//! (`picture/surface.rs` is held to it).

use crate::file::ObstacleKind;

/// Of the ground.
pub const GROUND_REFLECTANCE: f64 = 0.36;
/// Of a solid of which nothing is known.
pub const USUAL_REFLECTANCE: f64 = 0.30;
/// Of the ground of a number plate with its characters.
pub const PLATE_REFLECTANCE: f64 = 0.60;

/// Of an obstacle's upright faces.
pub fn reflectance_of(kind: ObstacleKind) -> f64 {
    match kind {
        ObstacleKind::Building | ObstacleKind::Wall => 0.25,
        ObstacleKind::Tree => 0.14,
        ObstacleKind::Fence => 0.23,
        ObstacleKind::Door => 0.18,
        ObstacleKind::Eave => 0.50,
        ObstacleKind::Glass => 0.40,
        ObstacleKind::Vehicle => 0.25,
        ObstacleKind::Other => 0.38,
    }
}
