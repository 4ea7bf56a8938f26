//! Where a spot goes that nobody has drawn yet: as far from its target as was measured, on the side that the target faces, else straight
//! out of whatever stands behind it, where the line between the two is free.

use crate::file::Fault;
use crate::site::Site;
use glam::{DVec2, DVec3};
use serde::Serialize;
use utoipa::ToSchema;

/// So high hangs what nobody has said the height of, m: common practice, no source.
pub const SPOT_HEIGHT_M: f64 = 2.8;
/// Sides that are tried, all around.
const SIDES: usize = 16;
/// What is measured that is no longer than the two heights are apart stands so far off, m.
const LEAST_M: f64 = 0.1;

/// Where a spot goes.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct SpotPlace {
    /// Where, m east and north.
    pub position: [f64; 2],
    /// How high, m.
    pub height_m: f64,
}

/// Where a spot goes from which a target is so far off in a straight line.
///
/// # Errors
/// Names the target that the site does not have, or a distance that is none.
pub fn spot_for(site: &Site, target: &str, slope_m: f64) -> Result<SpotPlace, Fault> {
    if !(0.0..=10_000.0).contains(&slope_m) {
        return Err(Fault::new("slope_m", format!("{slope_m} is outside 0 to 10000 m")));
    }
    let target = &site.targets()[site.target_place(target)?];
    let over = target.middle.z - target.ground;
    let drop = SPOT_HEIGHT_M - over;
    let level = (slope_m * slope_m - drop * drop).max(LEAST_M * LEAST_M).sqrt();
    let begins = target.facing.map_or(0.0, |facing| facing.deg());
    let place = |side: usize| -> DVec3 {
        let turn = (begins + side as f64 * 360.0 / SIDES as f64).to_radians();
        let at = target.middle.truncate() + DVec2::new(turn.sin(), turn.cos()) * level;
        at.extend(target.ground + SPOT_HEIGHT_M)
    };
    let scene = site.scene();
    let is_free = |at: DVec3| scene.solid_around(at).is_none() && scene.first_blocker(at, target.middle).is_none();
    let free: Vec<bool> = (0..SIDES).map(|side| is_free(place(side))).collect();
    let around = |a: usize, b: usize| a.abs_diff(b).min(SIDES - a.abs_diff(b));
    let from_blocked =
        |side: usize| (0..SIDES).filter(|other| !free[*other]).map(|other| around(side, other)).min().unwrap_or(0);
    // What faces somewhere is looked at from there, or from as near to it as is free; else from straight out of the wall.
    let liking = |side: &usize| match target.facing {
        Some(_) => (std::cmp::Reverse(around(*side, 0)), 0),
        None => (std::cmp::Reverse(0), from_blocked(*side)),
    };
    let best = (0..SIDES).filter(|side| free[*side]).rev().max_by_key(liking).unwrap_or(0);
    let at = place(best);
    let neat = |axis: f64| (axis * 100.0).round() / 100.0;
    Ok(SpotPlace { position: [neat(at.x), neat(at.y)], height_m: SPOT_HEIGHT_M })
}
