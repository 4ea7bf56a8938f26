//! Aim slack: the smallest single pan or tilt error that takes a point out of the picture.

use crate::{Angle, Head, Projection};
use glam::{DQuat, DVec3};

/// The smallest single pan or tilt error that takes `point` out of the picture of `head`; zero when
/// it is out of it already.
///
/// Source: handbook, section 4. Each of the four turns (left, right, up, down) is solved by
/// bracketing and bisection on how far the pixel lies inside the nearest edge.
pub fn aim_slack(head: &Head, point: DVec3) -> Angle {
    if !head.view.holds(point) {
        return Angle::ZERO;
    }
    // Turning the head by an error moves the point by the opposite one: the pose stays, the direction turns.
    let direction = point - head.position();
    let pose = head.view.pose;
    let level_right = DVec3::new(head.pan.cos(), -head.pan.sin(), 0.0);
    let pan = |error: f64| pose.to_camera(DQuat::from_rotation_z(error) * direction);
    let tilt = |error: f64| pose.to_camera(DQuat::from_axis_angle(level_right, error) * direction);
    let mut least = std::f64::consts::PI;
    for sign in [1.0, -1.0] {
        least = least_error(|error| inside_by(&head.view.projection, pan(sign * error)), least);
        least = least_error(|error| inside_by(&head.view.projection, tilt(sign * error)), least);
    }
    Angle::radians(least)
}

/// How far inside the nearest edge of the picture a direction in camera axes lands, px; negative outside.
fn inside_by(projection: &Projection, direction: DVec3) -> f64 {
    match projection.project(direction) {
        Some(pixel) => pixel.min(projection.size - pixel).min_element(),
        None => -f64::MAX,
    }
}

/// The least error at which `margin` turns negative, if that is under `most`, else `most`.
fn least_error(margin: impl Fn(f64) -> f64, most: f64) -> f64 {
    // Grow a bracket from a twentieth of a degree, then close it with the Illinois method.
    let (mut low, mut margin_low) = (0.0, margin(0.0));
    let mut high = (most / 64.0).max(1e-3);
    let mut margin_high = margin(high);
    while margin_high >= 0.0 {
        if high >= most {
            return most;
        }
        (low, margin_low) = (high, margin_high);
        high = (high * 1.6).min(most);
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
