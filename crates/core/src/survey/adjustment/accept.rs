//! Taking the adjusted positions over, as a JSON Patch on the site file.

use super::AdjustedPoint;
use super::network::{Network, Solution};
use crate::file::{CameraFile, Distance, DistanceHow, FromSpot, PatchOp, Point2};
use crate::site::Site;
use glam::DVec2;
use serde_json::{Value, json};

/// Positions are taken over to the millimetre; what moves less than this stays.
const LEAST_M: f64 = 5e-4;
/// A stated uncertainty covers so many standard deviations: 95 of 100 errors on a line.
const COVERAGE: f64 = 2.0;

/// The change that puts every measured point where the adjustment has it, cameras with their spots, each target with its own
/// uncertainty in place of a blanket one. How well a point was *drawn* stays as it is: the same readings would else count twice
/// when they are adjusted again.
pub fn patch(site: &Site, network: &Network, solution: &Solution, points: &[AdjustedPoint]) -> Vec<PatchOp> {
    let file = site.file();
    let mut patch = Vec::new();
    let measured = |point: &AdjustedPoint| {
        let used = file.readings.iter().filter(|reading| reading.used);
        used.clone().any(|reading| reading.from == point.id || reading.to == point.id)
    };
    for (node, point) in points.iter().enumerate().filter(|(_, point)| measured(point)) {
        let at = point.position.map(|axis| (axis * 1e3).round() / 1e3);
        let moves = point.moved_m >= LEAST_M;
        if let Some(place) = file.spots.iter().position(|spot| spot.id == point.id) {
            // Walls do not move with what hangs on them: a spot that would end up inside one goes to its face.
            let at = out_of_walls(site, at, file.spots[place].ground_m + file.spots[place].height_m);
            if moves {
                patch.push(set(format!("/spots/{place}/position"), json!(at)));
            }
            let sits = |camera: &CameraFile| camera.spot.as_ref() == Some(&point.id) && camera.position != at;
            let cameras = file.cameras.iter().enumerate().filter(|(_, camera)| sits(camera));
            patch.extend(cameras.map(|(place, _)| set(format!("/cameras/{place}/position"), json!(at))));
        } else if let Some(place) = file.targets.iter().position(|target| target.id == point.id) {
            if moves {
                patch.push(set(format!("/targets/{place}/shape/points/0"), json!(at)));
            }
            // The network holds the spots first, in the file's order.
            let from: Vec<FromSpot> = (0..file.spots.len())
                .map(|spot| FromSpot {
                    spot: file.spots[spot].id.clone(),
                    plus_minus_m: stated(solution.distance_sigma(network, spot, node)),
                })
                .collect();
            let distance =
                Distance { how: DistanceHow::Laser, plus_minus_m: Some(stated(point.ellipse.major_m)), from };
            if file.targets[place].distance != distance {
                patch.push(set(format!("/targets/{place}/distance"), json!(distance)));
            }
        }
    }
    patch
}

/// A place that lies inside a solid at a height, on the face that is nearest.
fn out_of_walls(site: &Site, at: Point2, height_m: f64) -> Point2 {
    let here = DVec2::from_array(at);
    let around = site.scene().solid_around(here.extend(height_m));
    around.map_or(at, |solid| solid.nearest_on_outline(here).to_array().map(|axis| (axis * 1e3).round() / 1e3))
}

/// `add` sets a field of an object whether it was there or not (RFC 6902, 4.1).
fn set(path: String, value: Value) -> PatchOp {
    let op = if path.ends_with("/points/0") { "replace" } else { "add" };
    PatchOp { op, path, value: Some(value) }
}

/// The stated uncertainty of a standard deviation, to the next whole millimetre: it is not rounded away.
fn stated(sigma_m: f64) -> f64 {
    (COVERAGE * sigma_m * 1e3).ceil() / 1e3
}
