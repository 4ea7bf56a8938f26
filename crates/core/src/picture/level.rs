//! Lines in a picture that tell how it hangs: the horizon, and a line that is level through its middle.

use crate::site::Head;
use glam::{DVec2, DVec3};

/// Steps of a bearing, degrees.
const STEP_DEG: f64 = 1.0;

/// The horizon: all that is as high as the camera. Lines of px on the sensor, none where it is not in the picture.
pub fn horizon(head: &Head) -> Vec<Vec<[f64; 2]>> {
    line(head, 0.0)
}

/// All that lies as deep below the camera as what its middle shows: level where the camera hangs level.
pub fn level(head: &Head) -> Vec<Vec<[f64; 2]>> {
    line(head, head.view().pose.forward.z.clamp(-1.0, 1.0).asin())
}

/// The directions of one elevation, radians, as far as they are in the picture.
fn line(head: &Head, elevation: f64) -> Vec<Vec<[f64; 2]>> {
    let mut lines: Vec<Vec<[f64; 2]>> = vec![];
    let mut last: Option<DVec2> = None;
    let first = head.pan().deg() - 180.0;
    for step in 0..=(360.0 / STEP_DEG) as u32 {
        let bearing = (first + f64::from(step) * STEP_DEG).to_radians();
        let flat = DVec2::new(bearing.sin(), bearing.cos()) * elevation.cos();
        let now = pixel(head, flat.extend(elevation.sin()));
        match (last, now) {
            (None, Some(now)) => lines.push(vec![now.to_array()]),
            (Some(_), Some(now)) => lines.last_mut().expect("one was begun").push(now.to_array()),
            _ => {}
        }
        last = now;
    }
    lines.retain(|line| line.len() > 1);
    lines
}

/// Where a direction lands, a little past the picture's edges too, so that lines reach them.
fn pixel(head: &Head, direction: DVec3) -> Option<DVec2> {
    let projection = head.view().projection;
    let pixel = projection.project(head.view().pose.to_camera(direction))?;
    let past = projection.size() * 0.1;
    let inside = pixel.cmpge(-past).all() && pixel.cmple(projection.size() + past).all();
    (inside && head.shows(direction)).then_some(pixel)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::site::Site;

    #[test]
    fn the_horizon_of_a_level_pinhole_is_a_straight_line_tilt_above_the_middle() {
        let site = Site::parse(include_str!("../../../../demo/tern-quay.json")).unwrap();
        for head in site.heads().iter().filter(|head| head.roll().deg() == 0.0 && head.view().projection.bend() == 1.0)
        {
            let projection = head.view().projection;
            let up = projection.focal_px() * head.tilt().rad().tan();
            for [_, v] in horizon(head).into_iter().flatten() {
                assert!((v - (projection.size().y / 2.0 - up)).abs() < 1e-6, "{v}");
            }
        }
        let any = site.heads().iter().any(|head| !horizon(head).is_empty());
        assert!(any);
        let middle = site.heads()[0].view().projection.size() / 2.0;
        let near = level(&site.heads()[0]).into_iter().flatten().map(|p| DVec2::from_array(p).distance(middle));
        assert!(near.fold(f64::INFINITY, f64::min) < 1.0, "it passes through the middle");
    }
}
