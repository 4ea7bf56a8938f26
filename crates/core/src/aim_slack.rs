//! Aim slack: the smallest single pan or tilt error that takes a point out of the picture.

use crate::{Angle, Head, Pose, View};
use glam::DVec3;

/// The smallest single pan or tilt error that takes `point` out of the picture of `head`; zero when
/// it is out of it already.
///
/// Source: handbook, section 4. Each of the four turns (left, right, up, down) is solved by
/// bracketing and bisection on how far the pixel lies inside the nearest edge.
pub fn aim_slack(head: &Head, point: DVec3) -> Angle {
    if margin(&head.view, point) < 0.0 {
        return Angle::ZERO;
    }
    let pan = |error: f64| turned(head, Angle::radians(error), Angle::ZERO);
    let tilt = |error: f64| turned(head, Angle::ZERO, Angle::radians(error));
    let mut least = std::f64::consts::PI;
    for sign in [1.0, -1.0] {
        least = least_error(|error| margin(&pan(sign * error), point), least);
        least = least_error(|error| margin(&tilt(sign * error), point), least);
    }
    Angle::radians(least)
}

fn turned(head: &Head, pan: Angle, tilt: Angle) -> View {
    View {
        pose: Pose::new(head.position(), head.pan + pan, head.tilt + tilt, head.roll),
        projection: head.view.projection,
    }
}

/// How far inside the nearest edge of the picture a point lies, px; negative outside.
fn margin(view: &View, point: DVec3) -> f64 {
    match view.pixel_of(point) {
        Some((pixel, _)) => pixel.min(view.projection.size - pixel).min_element(),
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
