//! Plates throw light back to where it came from (handbook, section 9, "Infrared"): brighter than paint to a lens beside the light, as
//! paint to one that stands far off it.

/// How much brighter a plate looks to a lens beside the light than paint does (handbook: order of magnitude, from memory).
pub const RETRO: f64 = 50.0;
/// Up to here all of it comes back, degrees; ours, coarse.
const ALL_UP_TO_DEG: f64 = 2.0;
/// From here on none more than from paint, degrees; ours, coarse.
const NONE_FROM_DEG: f64 = 10.0;

/// How many times brighter than paint a plate comes back to a lens that stands `off` radians beside the light as seen from the plate,
/// where `most` times come back along the light itself: linear in the logarithm between 2° and 10°.
///
/// ```
/// use bright_angle_core::light::retro_gain;
/// assert_eq!(retro_gain(0.0, 50.0), 50.0);
/// assert_eq!(retro_gain(0.5, 50.0), 1.0);
/// ```
pub fn retro_gain(off: f64, most: f64) -> f64 {
    let share = ((NONE_FROM_DEG - off.to_degrees()) / (NONE_FROM_DEG - ALL_UP_TO_DEG)).clamp(0.0, 1.0);
    most.powf(share)
}
