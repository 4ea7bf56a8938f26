//! What a pixel's ray meets first: a solid, the ground, or the sky.

use super::Head;
use crate::scene::{Eye, Scene, Solid};
use glam::{DVec2, DVec3};

/// Rays that meet nothing are followed so far, m.
const FAR_M: f64 = 10_000.0;

/// What a ray meets.
#[derive(Clone, Copy, Debug)]
pub enum Met<'a> {
    /// A solid that one does not see through.
    Obstacle(&'a Solid),
    /// The ground, height zero.
    Ground,
    /// Nothing.
    Sky,
}

/// A pixel's ray as far as it goes.
#[derive(Clone, Copy, Debug)]
pub struct Ray<'a> {
    /// Where it begins, m.
    pub from: DVec3,
    /// Its direction, of length one.
    pub direction: DVec3,
    /// What it meets.
    pub met: Met<'a>,
    /// The place of a solid that it meets among the scene's.
    pub solid: Option<usize>,
    /// How far that is, m; infinite for the sky.
    pub distance: f64,
}

/// Follows the ray of a pixel, px right and down from the top-left corner; `None` where the picture shows nothing there (outside a
/// fisheye's circle).
pub fn ray<'a>(head: &Head, eye: &'a Eye, scene: &'a Scene, pixel: DVec2) -> Option<Ray<'a>> {
    let view = head.view();
    if !view.projection.holds(pixel) {
        return None;
    }
    Some(follow(eye, scene, view.pose.to_site(view.projection.unproject(pixel)?)))
}

/// Follows a ray from an eye in a direction of length one.
pub fn follow<'a>(eye: &'a Eye, scene: &'a Scene, direction: DVec3) -> Ray<'a> {
    let from = eye.from();
    let down_to_ground = (direction.z < 0.0 && from.z > 0.0).then(|| from.z / -direction.z);
    let reach = down_to_ground.unwrap_or(FAR_M).min(FAR_M);
    let to = from + direction * reach;
    let first = eye.first_solid(scene, to);
    let (met, distance) = match first {
        Some((share, place)) => (Met::Obstacle(&scene.solids()[place]), share * reach),
        None => match down_to_ground {
            Some(distance) => (Met::Ground, distance),
            None => (Met::Sky, f64::INFINITY),
        },
    };
    Ray { from, direction, met, solid: first.map(|(_, place)| place), distance }
}
