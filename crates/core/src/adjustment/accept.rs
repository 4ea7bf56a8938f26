//! Taking the adjusted positions over, as a JSON Patch on the site file.

use super::AdjustedPoint;
use crate::Site;
use crate::ways::PatchOp;
use serde_json::{Value, json};

/// Positions are taken over to the millimetre; what moves less than this stays.
const LEAST_M: f64 = 5e-4;
/// A stated uncertainty covers so many standard deviations: 95 of 100 errors on a line.
const COVERAGE: f64 = 2.0;

/// The change that puts every measured point where the adjustment has it, cameras with their spots, each with its own
/// uncertainty in place of a blanket one. How well a point was *drawn* stays as it is: the same readings would else count twice
/// when they are adjusted again.
pub fn patch(site: &Site, points: &[AdjustedPoint]) -> Vec<PatchOp> {
    let file = site.file();
    let measured = |id: &str| {
        let used = file.readings.iter().filter(|reading| reading.used);
        used.clone().any(|reading| reading.from == id || reading.to == id)
    };
    let mut patch = Vec::new();
    for point in points.iter().filter(|point| measured(&point.id)) {
        let moves = point.moved_m >= LEAST_M;
        let at = point.position.map(|axis| (axis * 1e3).round() / 1e3);
        let stated = json!(rounded_up(COVERAGE * point.ellipse.major_m));
        if let Some(place) = file.spots.iter().position(|spot| spot.id == point.id) {
            let base = format!("/spots/{place}");
            if moves {
                patch.push(set(format!("{base}/position"), json!(at)));
            }
            for (place, _) in file.cameras.iter().enumerate().filter(|(_, camera)| camera.spot.as_ref() == Some(&point.id)) {
                patch.push(set(format!("/cameras/{place}/position"), json!(at)));
                patch.push(set(format!("/cameras/{place}/position_plus_minus_m"), stated.clone()));
            }
        } else if let Some(place) = file.targets.iter().position(|target| target.id == point.id) {
            let base = format!("/targets/{place}");
            if moves {
                patch.push(set(format!("{base}/shape/points/0"), json!(at)));
            }
            patch.push(set(format!("{base}/distance"), json!({"how": "laser", "plus_minus_m": stated})));
        }
    }
    patch
}

/// `add` sets a field of an object whether it was there or not (RFC 6902, 4.1).
fn set(path: String, value: Value) -> PatchOp {
    let op = if path.ends_with("/points/0") { "replace" } else { "add" };
    PatchOp { op, path, value }
}

/// To the next whole millimetre: an uncertainty is not rounded away.
fn rounded_up(metres: f64) -> f64 {
    (metres * 1e3).ceil() / 1e3
}
