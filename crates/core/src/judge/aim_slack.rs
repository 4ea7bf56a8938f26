//! Aim slack: the smallest single pan or tilt error that takes a point out of the picture.

use crate::math::Angle;
use crate::site::Head;
use glam::DVec3;

/// The smallest single pan or tilt error that takes `point` out of the picture of `head`; zero when
/// it is out of it already.
///
/// Source: handbook, section 4. Each of the four turns (left, right, up, down) is solved by
/// bracketing and bisection on how far the pixel lies inside the nearest edge.
pub fn aim_slack(head: &Head, point: DVec3) -> Angle {
    if head.in_front(point) != Some(true) {
        return Angle::ZERO;
    }
    // Turning the head by an error moves the point by the opposite one: the pose stays, the direction turns.
    let direction = point - head.position();
    let pose = head.view().pose;
    let level_right = DVec3::new(head.pan().cos(), -head.pan().sin(), 0.0);
    let along = level_right * level_right.dot(direction);
    let (level, square) = (DVec3::new(direction.x, direction.y, 0.0), DVec3::new(-direction.y, direction.x, 0.0));
    let (across, turned) = (direction - along, level_right.cross(direction));
    // Rodrigues' formula about the vertical and about the level axis.
    let pan = |(sin, cos): (f64, f64)| pose.to_camera(level * cos + square * sin + DVec3::Z * direction.z);
    let tilt = |(sin, cos): (f64, f64)| pose.to_camera(along + across * cos + turned * sin);
    let mut least = std::f64::consts::PI;
    for sign in [1.0, -1.0] {
        least = least_error(|error| inside_by(head, pan((sign * error).sin_cos())), least);
        least = least_error(|error| inside_by(head, tilt((sign * error).sin_cos())), least);
    }
    Angle::radians(least)
}

/// How far inside the nearest edge of the picture a direction in camera axes lands, px; negative outside.
fn inside_by(head: &Head, direction: DVec3) -> f64 {
    let projection = &head.view().projection;
    match head.curve().place(direction) {
        Some(place) => projection.inside_by(place * projection.focal_px()),
        None => -f64::MAX,
    }
}

/// The least error at which `margin` turns negative, if that is under `most`, else `most`.
fn least_error(margin: impl Fn(f64) -> f64, most: f64) -> f64 {
    // Grow a bracket, then close it with the Illinois method.
    let (mut low, mut margin_low) = (0.0, margin(0.0));
    let mut high = (most / 8.0).clamp(1e-3, 0.05).min(most);
    let mut margin_high = margin(high);
    while margin_high >= 0.0 {
        if high >= most {
            return most;
        }
        (low, margin_low) = (high, margin_high);
        high = (high * 2.0).min(most);
        margin_high = margin(high);
    }
    let mut kept_low = 0;
    for _ in 0..80 {
        if high - low < 1e-12 {
            break;
        }
        let chord = (low * margin_high - high * margin_low) / (margin_high - margin_low);
        let middle = if chord > low && chord < high { chord } else { 0.5 * (low + high) };
        let margin_middle = margin(middle);
        if margin_middle.abs() < 1e-9 {
            return middle;
        }
        if margin_middle < 0.0 {
            (high, margin_high) = (middle, margin_middle);
            kept_low += 1;
            if kept_low > 1 {
                margin_low *= 0.5;
            }
        } else {
            (low, margin_low) = (middle, margin_middle);
            kept_low = 0;
            margin_high *= 0.5;
        }
    }
    0.5 * (low + high)
}
