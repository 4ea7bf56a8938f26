//! How much cable a site takes, told before anybody has drawn it: for the quote.

use super::length::{End, length_m};
use super::wired::wired;
use crate::file::{Cable, CableKind, CameraFile, NodeKind, ObstacleKind, Point2, SiteFile};
use serde::Serialize;
use utoipa::ToSchema;

/// Cable for a quote.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct CableEstimate {
    /// All of it, m.
    pub metres: f64,
    /// Cameras whose run is drawn.
    pub drawn: usize,
    /// Cameras whose cable way was estimated at the survey.
    pub estimated: usize,
    /// Cameras that are counted along and across to the recorder on the plan.
    pub across: usize,
    /// Cameras that are counted to the farthest corner of a building, as nobody knows where the recorder goes.
    pub bounded: usize,
    /// Cameras of which nothing is known, and that are not in it.
    pub unknown: usize,
}

/// Cable for a quote, camera by camera the best that is known: its drawn run, the estimate of its spot, along and across to the recorder,
/// or to the farthest corner of a building.
pub fn cable_estimate(site: &SiteFile) -> CableEstimate {
    let told = wired(site);
    let mut found = CableEstimate { metres: told.cable_m, drawn: 0, estimated: 0, across: 0, bounded: 0, unknown: 0 };
    let nodes = site.network.iter().flat_map(|network| &network.nodes);
    let recorder = nodes.into_iter().find(|node| node.kind == NodeKind::Recorder);
    let buildings = site.obstacles.iter().filter(|o| o.kind == ObstacleKind::Building);
    let corners: Vec<Point2> = buildings.flat_map(|building| building.outline.iter().copied()).collect();
    for camera in site.cameras.iter().filter(|camera| !camera.goes()) {
        if told.runs.iter().any(|run| run.camera == camera.id && !run.cables.is_empty()) {
            found.drawn += 1;
            continue;
        }
        let spot = site.spots.iter().find(|spot| camera.spot.as_ref() == Some(&spot.id));
        let far = |height_m: f64| move |at: &Point2| across(site, camera, End { at: *at, height_m });
        let (metres, count) = if let Some(metres) = spot.and_then(|spot| spot.cable_m) {
            (metres, &mut found.estimated)
        } else if let Some(node) = recorder {
            (far(node.height_m)(&node.position), &mut found.across)
        } else if let Some(metres) = corners.iter().map(far(0.0)).max_by(f64::total_cmp) {
            (metres, &mut found.bounded)
        } else {
            (0.0, &mut found.unknown)
        };
        *count += 1;
        found.metres += metres;
    }
    found
}

/// Along and across, as walls go.
fn across(site: &SiteFile, camera: &CameraFile, to: End) -> f64 {
    let from = End { at: camera.position, height_m: camera.ground_m + camera.height_m };
    let corner = [to.at[0], from.at[1]];
    let cable = Cable {
        route: vec![corner],
        length_m: None,
        ..super::attach_box::direct_cable("k", ["a", "b"], CableKind::Cat6, 0.0)
    };
    length_m(&cable, from, to, &site.rules.wiring)
}
