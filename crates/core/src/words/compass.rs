//! Directions in words.

use glam::DVec2;

/// The eight names, clockwise from north.
const NAMES: [&str; 8] = ["north", "north-east", "east", "south-east", "south", "south-west", "west", "north-west"];

/// The name of the direction, east and north, that is nearest of eight.
///
/// ```
/// use bright_angle_core::words::compass::compass;
/// assert_eq!(compass([3.0, -2.5].into()), "south-east");
/// ```
pub fn compass(step: DVec2) -> &'static str {
    let eighth = step.x.atan2(step.y).to_degrees() / 45.0;
    NAMES[eighth.round().rem_euclid(8.0) as usize % 8]
}
