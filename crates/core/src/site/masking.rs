//! What of a head's picture must be masked for private places.

use super::mask::MOST_CORNERS;
use super::{Head, Mask};
use crate::math::{Ring, hull};
use crate::scene::{Eye, Scene, Solid};
use glam::{DVec2, DVec3};

/// The least rays across and down over the part of the picture that a private place may lie in, and how far apart they are at
/// most, px: what is seen through a narrower gap is not found.
const ACROSS: usize = 48;
const DOWN: usize = 32;
const APART_PX: f64 = 20.0;
/// Each edge of a private place is followed in so many steps: straight edges bow in a bent picture.
const STEPS: u32 = 8;
/// Rays that meet nothing are followed so far, m.
const FAR_M: f64 = 10_000.0;
/// A window counts as seen though it is drawn so deep in its wall, m, our choice; a garden only if nothing stands before it.
const IN_WALL_M: f64 = 0.3;
const BEFORE_M: f64 = 0.01;

/// The masks of all private places in a head's picture.
pub fn masks_of(head: &Head, eye: &Eye, scene: &Scene, private: &[Solid]) -> Vec<Mask> {
    let places = private.iter().enumerate();
    places.filter_map(|(place, private)| mask_of(head, eye, scene, private, place)).collect()
}

/// The mask of a private place in a head's picture: around every part of it that a ray reaches. `None` where the head sees
/// nothing of it.
pub fn mask_of(head: &Head, eye: &Eye, scene: &Scene, private: &Solid, place: usize) -> Option<Mask> {
    let size = head.view().projection.size();
    let (low, high) = bounds(head, private);
    let (low, high) = (low.max(DVec2::ZERO), high.min(size));
    if low.cmpge(high).any() {
        return None;
    }
    let rays = |room: f64, least: usize| ((room / APART_PX).ceil() as usize).max(least);
    let (across, down) = (rays(high.x - low.x, ACROSS), rays(high.y - low.y, DOWN));
    let step = (high - low) / DVec2::new(across as f64, down as f64);
    let corner = |column: usize, row: usize| low + step * DVec2::new(column as f64, row as f64);
    let mut seen = Vec::new();
    for row in 0..=down {
        for column in 0..=across {
            let pixel = corner(column, row);
            // Up to the next ray on each side something of it may be seen.
            if is_seen(head, eye, scene, private, pixel.clamp(DVec2::splat(0.01), size - 0.01)) {
                seen.extend([-1.0, 1.0].map(|x| pixel + step * DVec2::new(x, -1.0)));
                seen.extend([-1.0, 1.0].map(|x| pixel + step * DVec2::new(x, 1.0)));
            }
        }
    }
    if seen.is_empty() {
        return None;
    }
    let outline = hull(seen.into_iter().map(|pixel| pixel.clamp(DVec2::ZERO, size)));
    (outline.len() > 2).then(|| Mask { place, outline: with_few_corners(outline, size) })
}

/// The box that a private place lands in; the whole picture where part of it is not before the lens.
fn bounds(head: &Head, private: &Solid) -> (DVec2, DVec2) {
    let size = head.view().projection.size();
    let (mut low, mut high) = (DVec2::MAX, DVec2::MIN);
    for (from, to) in private.edges() {
        for share in (0..=STEPS).map(|step| f64::from(step) / f64::from(STEPS)) {
            for up in (0..=STEPS).map(|step| f64::from(step) / f64::from(STEPS)) {
                let z = private.base() + (private.top() - private.base()) * up;
                let Some((pixel, _)) = head.view().pixel_of(from.lerp(to, share).extend(z)) else {
                    return (DVec2::ZERO, size);
                };
                (low, high) = (low.min(pixel), high.max(pixel));
            }
        }
    }
    let give = (high - low) * 0.1 + 1.0;
    (low - give, high + give)
}

/// Whether a pixel shows the private place.
fn is_seen(head: &Head, eye: &Eye, scene: &Scene, private: &Solid, pixel: DVec2) -> bool {
    let view = head.view();
    if !view.projection.holds(pixel) {
        return false;
    }
    let Some(ray) = view.projection.unproject(pixel) else { return false };
    let direction = view.pose.to_site(ray);
    let to = end(eye.from(), direction, private.base());
    if !head.shows(direction) {
        return false;
    }
    let Some(reached) = private.first_hit(eye.from(), to) else { return false };
    let give = if private.is_filled() { BEFORE_M } else { IN_WALL_M } / eye.from().distance(to);
    eye.first_solid(scene, to).is_none_or(|(first, _)| reached <= first + give)
}

/// Where a ray ends: on the ground, or on that of a place that lies lower, or far away.
fn end(from: DVec3, direction: DVec3, base: f64) -> DVec3 {
    let over = from.z - base.min(0.0);
    let down = (direction.z < 0.0 && over > 0.0).then(|| over / -direction.z);
    from + direction * down.unwrap_or(FAR_M).min(FAR_M)
}

/// The same with few corners, never covering less: side after side is left out and its neighbours are drawn on until they meet,
/// whichever adds least. Where that would lead out of the picture, the box around it.
fn with_few_corners(mut outline: Ring, size: DVec2) -> Ring {
    while outline.len() > MOST_CORNERS {
        let count = outline.len();
        let corner = |i: usize| outline[i % count];
        let without = |side: usize| {
            let (a, b) = (corner(side), corner(side + 1));
            let (before, after) = (a - corner(side + count - 1), corner(side + 2) - b);
            let turn = before.perp_dot(after);
            let at = a + before * ((b - a).perp_dot(after) / turn);
            let inside = at.cmpge(DVec2::splat(-1e-6)).all() && at.cmple(size + 1e-6).all();
            (turn > 0.0 && inside).then(|| ((b - a).perp_dot(at - a).abs(), side, at))
        };
        let Some((_, side, at)) = (0..count).filter_map(without).min_by(|a, b| a.0.total_cmp(&b.0)) else {
            return boxed(&outline);
        };
        outline[side] = at.clamp(DVec2::ZERO, size);
        outline.remove((side + 1) % count);
    }
    outline
}

fn boxed(outline: &Ring) -> Ring {
    let (low, high) = outline.iter().fold((DVec2::MAX, DVec2::MIN), |(low, high), p| (low.min(*p), high.max(*p)));
    [low, DVec2::new(high.x, low.y), high, DVec2::new(low.x, high.y)].into_iter().collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::math::{clip, ring_area};

    #[test]
    fn a_round_outline_gets_eight_corners_and_loses_nothing() {
        let size = DVec2::splat(100.0);
        let round: Ring =
            (0..64).map(|i| DVec2::splat(50.0) + DVec2::from_angle(f64::from(i) * 0.098_174_77) * 30.0).collect();
        let few = with_few_corners(round.clone(), size);
        assert!(few.len() <= MOST_CORNERS);
        let covered = ring_area(&clip(round.clone(), &few));
        assert!((covered - ring_area(&round)).abs() < 1e-6, "{covered} of {}", ring_area(&round));
        assert!(ring_area(&few) < 1.15 * ring_area(&round), "{} for {}", ring_area(&few), ring_area(&round));
    }
}
