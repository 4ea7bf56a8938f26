//! The outline of a head's picture on the ground.

use crate::site::Head;
use glam::{DVec2, DVec3};

/// Steps along each side of the picture.
const STEPS: usize = 24;
/// The outline is followed so far out, m.
const FAR_M: f64 = 2_000.0;

/// The picture's border where it meets the ground (height zero), m east and north: lines that end where the border rises to
/// the horizon; one closed line (first point repeated) where it never does. Solids are not regarded.
pub fn outline(head: &Head) -> Vec<Vec<[f64; 2]>> {
    let size = head.view().projection.size();
    let corners = [DVec2::ZERO, DVec2::new(size.x, 0.0), size, DVec2::new(0.0, size.y)];
    let circle = head.view().projection.circle();
    let border = |step: usize| {
        let (side, along) = (step / STEPS % 4, (step % STEPS) as f64 / STEPS as f64);
        let from_centre = corners[side].lerp(corners[(side + 1) % 4], along) - size / 2.0;
        size / 2.0 + from_centre.clamp_length_max(circle)
    };
    let count = 4 * STEPS;
    let ground: Vec<Option<DVec2>> = (0..count).map(|step| on_ground(head, border(step))).collect();
    // Begin where the border comes down from the horizon, if it does anywhere.
    let begins = (0..count).find(|step| ground[*step].is_some() && ground[(step + count - 1) % count].is_none());
    let mut lines: Vec<Vec<DVec2>> = vec![];
    let mut open = false;
    for step in 0..=count {
        let place = (begins.unwrap_or(0) + step) % count;
        match ground[place] {
            Some(at) if step < count || begins.is_none() => {
                if !open {
                    let before = border((place + count - 1) % count);
                    lines.push(if begins.is_some() {
                        vec![last_on_ground(head, border(place), before)]
                    } else {
                        vec![]
                    });
                }
                open = true;
                lines.last_mut().expect("one was begun").push(at);
            }
            _ => {
                if open {
                    let before = border((place + count - 1) % count);
                    lines.last_mut().expect("one was begun").push(last_on_ground(head, before, border(place)));
                }
                open = false;
            }
        }
    }
    lines.retain(|line| line.len() > 1);
    lines.into_iter().map(|line| line.into_iter().map(|p| p.to_array()).collect()).collect()
}

/// Where a pixel's ray meets the ground, if that is not too far out.
fn on_ground(head: &Head, pixel: DVec2) -> Option<DVec2> {
    let here = head.position();
    let ray: DVec3 = head.view().pose.to_site(head.view().projection.unproject(pixel)?);
    let at = (ray.z < 0.0).then(|| here + ray * (here.z / -ray.z))?;
    (at.distance(here) <= FAR_M).then(|| at.truncate())
}

/// The farthest place on the ground between a pixel that is on it and one that is not.
fn last_on_ground(head: &Head, on: DVec2, off: DVec2) -> DVec2 {
    let (mut low, mut high) = (0.0, 1.0);
    for _ in 0..40 {
        let middle = 0.5 * (low + high);
        if on_ground(head, on.lerp(off, middle)).is_some() { low = middle } else { high = middle }
    }
    on_ground(head, on.lerp(off, low)).unwrap_or_default()
}
