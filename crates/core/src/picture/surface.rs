//! The surfaces of what stands there: which face of a solid a ray met, and how it is painted.

use super::drape::Drape;
use super::paint::Paint;
use super::texture::{boards, bricks, leaves, measured, mottled, paving};
use crate::file::ObstacleKind;
use crate::scene::Solid;
use glam::{DVec2, DVec3, Vec3};

/// A point this near to a top or an underside lies on it, m.
const ON_FACE_M: f64 = 1e-6;

/// A place of a surface.
#[derive(Clone, Copy, Debug)]
pub(super) struct Spot {
    /// Out of the surface, towards who looks.
    pub normal: DVec3,
    pub paint: Paint,
}

/// The ground: as the overhead picture shows it, where there is one, and else paved.
pub(super) fn ground(at: DVec3, pixel: f64, grid: bool, drape: Option<&Drape>) -> Spot {
    let at = at.truncate();
    let paint = match drape.and_then(|drape| drape.at(at, pixel)) {
        Some(colour) => measured(mottled(colour, at, pixel), at, pixel, grid),
        None => measured(paving(at, pixel), at, pixel, grid),
    };
    Spot { normal: DVec3::Z, paint }
}

/// A solid of a kind, where a ray meets it; `pixel` is how much of it one pixel covers, m.
pub(super) fn of_solid(solid: &Solid, kind: ObstacleKind, at: DVec3, direction: DVec3, pixel: f64) -> Spot {
    let (normal, along) = face_of(solid, at, direction);
    if normal.z != 0.0 {
        // From above a roof, from below a soffit.
        let shade = match kind {
            ObstacleKind::Tree => leaves(at.truncate(), pixel),
            ObstacleKind::Vehicle => Paint::of(0.30, 0.31, 0.33),
            _ => boards(at.x, 0.35, pixel, Vec3::new(0.26, 0.26, 0.27)),
        };
        return Spot { normal, paint: shade };
    }
    let up = at.z - solid.base();
    let paint = match kind {
        ObstacleKind::Building | ObstacleKind::Wall => bricks(DVec2::new(along, up), pixel),
        ObstacleKind::Tree => leaves(DVec2::new(along, at.z), pixel),
        ObstacleKind::Fence => boards(along, 0.12, pixel, Vec3::new(0.33, 0.25, 0.17)),
        ObstacleKind::Door => boards(along, 0.15, pixel, Vec3::new(0.16, 0.22, 0.20)),
        ObstacleKind::Eave => boards(at.z, 0.10, pixel, Vec3::new(0.55, 0.55, 0.52)),
        ObstacleKind::Glass => Paint::of(0.34, 0.42, 0.42),
        ObstacleKind::Vehicle => bodywork(up / (solid.top() - solid.base())),
        ObstacleKind::Other => boards(along, 0.5, pixel, Vec3::new(0.42, 0.42, 0.40)),
    };
    Spot { normal, paint }
}

/// A parked vehicle from the side, by the share of its height: wheels in shadow, bodywork, a band of windows.
fn bodywork(share: f64) -> Paint {
    match share {
        share if share < 0.15 => Paint::of(0.03, 0.03, 0.03),
        share if (0.55..0.88).contains(&share) => Paint::of(0.07, 0.09, 0.10),
        _ => Paint::of(0.42, 0.43, 0.45),
    }
}

/// The way out of the face that a point lies on, towards who looks, and how far along its edge it lies, m.
fn face_of(solid: &Solid, at: DVec3, direction: DVec3) -> (DVec3, f64) {
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
