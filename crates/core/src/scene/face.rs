//! Which face of a solid a ray met.

use super::Solid;
use glam::{DVec2, DVec3};

/// A point this near to a top or an underside lies on it, m.
const ON_FACE_M: f64 = 1e-6;

/// The way out of the face that a point lies on, towards who looks along a direction, and how far along its edge it lies, m.
pub fn face_of(solid: &Solid, at: DVec3, direction: DVec3) -> (DVec3, f64) {
    if solid.is_filled() && direction.z < 0.0 && (at.z - solid.top()).abs() < ON_FACE_M {
        return (DVec3::Z, 0.0);
    }
    if solid.is_filled() && direction.z > 0.0 && (at.z - solid.base()).abs() < ON_FACE_M {
        return (-DVec3::Z, 0.0);
    }
    let here = at.truncate();
    let mut nearest = (f64::INFINITY, DVec2::X, 0.0);
    for (from, to) in solid.edges() {
        let edge = to - from;
        let along = ((here - from).dot(edge) / edge.length_squared()).clamp(0.0, 1.0);
        let off = (from + edge * along).distance_squared(here);
        if off < nearest.0 {
            nearest = (off, edge, along * edge.length());
        }
    }
    let out = nearest.1.perp().normalize_or_zero();
    let out = if out.dot(direction.truncate()) > 0.0 { -out } else { out };
    (out.extend(0.0), nearest.2)
}
