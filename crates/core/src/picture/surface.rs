//! The surfaces of what stands there: which face of a solid a ray met, and how it is painted.

use super::drape::Drape;
use super::paint::Paint;
use super::texture::{boards, bricks, leaves, measured, mottled, paving};
use crate::file::ObstacleKind;
use crate::scene::{Solid, face_of};
use glam::{DVec2, DVec3, Vec3};

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

#[cfg(test)]
mod tests {
    use super::*;
    use crate::scene::{GROUND_REFLECTANCE, reflectance_of};

    /// What an automatic meters is what is painted, within a tenth.
    #[test]
    fn surfaces_give_back_on_the_mean_what_is_metered() {
        let grey = |spot: Spot| f64::from(spot.paint.colour.element_sum()) / 3.0;
        let over = |of: &dyn Fn(f64, f64) -> f64| {
            let steps = (0..60).flat_map(|i| (0..60).map(move |k| (f64::from(i) * 0.137, f64::from(k) * 0.049)));
            steps.map(|(along, up)| of(along, up)).sum::<f64>() / 3600.0
        };
        let close = |found: f64, metered: f64, what: &str| {
            assert!((found / metered - 1.0).abs() < 0.1, "{what}: painted {found:.3}, metered {metered}");
        };
        close(over(&|x, y| grey(ground(DVec3::new(x, y * 3.0, 0.0), 0.01, false, None))), GROUND_REFLECTANCE, "ground");
        let wall = Solid::new("w", &[[0.0, 0.0], [9.0, 0.0], [9.0, 1.0], [0.0, 1.0]], true, 0.0, 3.0, 0.0);
        for kind in [
            ObstacleKind::Building,
            ObstacleKind::Wall,
            ObstacleKind::Tree,
            ObstacleKind::Fence,
            ObstacleKind::Door,
            ObstacleKind::Eave,
            ObstacleKind::Glass,
            ObstacleKind::Vehicle,
            ObstacleKind::Other,
        ] {
            let found = over(&|x, z| grey(of_solid(&wall, kind, DVec3::new(x, 0.0, z), DVec3::Y, 0.01)));
            close(found, reflectance_of(kind), &format!("{kind:?}"));
        }
    }
}
