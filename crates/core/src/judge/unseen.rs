//! How much of a line or an area a head does not see, exactly: shadows are polygons on a level, pictures are sampled.

use crate::judge::sight::Viewer;
use crate::math::Interval;
use crate::scene::{Solid, Volume, hidden_stretches};
use crate::site::Target;
use glam::{DVec2, DVec3};
use serde::Serialize;
use utoipa::ToSchema;

/// The rows that an area is cut into.
const ROWS: usize = 64;
/// Less of a line than this is not hidden but touched, m.
const LEAST_M: f64 = 1e-4;

/// The part of a line or an area that a head does not see.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Unseen {
    /// The share of it that solids hide, 0 to 1, by exact shadows.
    pub hidden_share: f64,
    /// The ids of the solids that hide it.
    pub behind: Vec<String>,
    /// The share of its samples that are out of the picture.
    pub outside_share: f64,
}

/// The stretches between two points of one height that something hides from a head, as shares of the way, in order.
pub(super) fn hidden_on(viewer: Viewer, from: DVec3, to: DVec3) -> Vec<Interval> {
    let length = from.distance(to);
    let (a, b) = (from.truncate(), to.truncate());
    let volume = Volume::new(viewer.eye.from(), 0.0, &[a, b], (a + b) / 2.0, from.z, to.z);
    let solids = viewer.eye.in_volume(viewer.scene, &volume);
    let mut hidden: Vec<Interval> =
        solids.flat_map(|solid| hidden_stretches(solid, viewer.eye.from(), from, to)).collect();
    hidden.retain(|stretch| stretch.length() * length > LEAST_M);
    hidden.sort_by(|a, b| a.start.total_cmp(&b.start));
    hidden
}

/// What of a line or an area a head does not see; `None` for a point.
pub(super) fn unseen(viewer: Viewer, target: &Target) -> Option<Unseen> {
    if target.runs.is_empty() {
        return None;
    }
    let out = target.samples.iter().filter(|point| viewer.head.in_front(**point) != Some(true)).count();
    let is_area = target.runs.last().is_some_and(|[_, to]| *to == 0);
    let near = near_by(viewer, target);
    let hidden = if is_area { hidden_area } else { hidden_length };
    let (hidden_share, behind) = hidden(viewer, target, &near);
    Some(Unseen { hidden_share, behind, outside_share: out as f64 / target.samples.len() as f64 })
}

/// The solids that stand between a head and a target, in the file's order.
fn near_by<'a>(viewer: Viewer<'a>, target: &Target) -> Vec<&'a Solid> {
    let footprint: Vec<DVec2> = target.samples[..target.runs.len().max(1)].iter().map(|p| p.truncate()).collect();
    let last = target.samples[target.runs.len().min(target.samples.len() - 1)].truncate();
    let footprint = [footprint, vec![last]].concat();
    let level = target.samples[0].z;
    let volume = Volume::new(viewer.eye.from(), 0.0, &footprint, target.middle.truncate(), level, level);
    viewer.eye.all_in_volume(viewer.scene, &volume).into_vec()
}

fn hidden_length(viewer: Viewer, target: &Target, near: &[&Solid]) -> (f64, Vec<String>) {
    let (mut hidden, mut whole) = (0.0, 0.0);
    let mut behind = Vec::new();
    let from_eye = viewer.eye.from();
    for [from, to] in target.runs.iter().map(|[from, to]| [target.samples[*from], target.samples[*to]]) {
        let length = from.distance(to);
        let mut stretches = Vec::new();
        for solid in near {
            let of_solid = hidden_stretches(solid, from_eye, from, to);
            if of_solid.iter().any(|stretch| stretch.length() * length > LEAST_M) {
                note(&mut behind, solid.id());
                stretches.extend(of_solid);
            }
        }
        let left = Interval { start: 0.0, end: 1.0 }.without(&mut stretches);
        hidden += length * (1.0 - left.into_iter().map(Interval::length).sum::<f64>());
        whole += length;
    }
    (hidden / whole, behind)
}

/// Cut into rows, exact in each.
fn hidden_area(viewer: Viewer, target: &Target, near: &[&Solid]) -> (f64, Vec<String>) {
    let outline: Vec<[f64; 2]> = target.samples[..target.runs.len()].iter().map(|p| p.truncate().to_array()).collect();
    let area = Solid::new("", &outline, true, 0.0, 1.0, 0.0);
    let (lower, upper) = area.bounds();
    let level = target.samples[0].z;
    let (mut hidden, mut whole) = (0.0, 0.0);
    let mut behind = Vec::new();
    for row in 0..ROWS {
        let y = lower.y + (upper.y - lower.y) * (row as f64 + 0.5) / ROWS as f64;
        let [from, to] = [lower.x, upper.x].map(|x| DVec3::new(x, y, level));
        let length = from.distance(to);
        let mut stretches: Vec<Interval> = Vec::new();
        let inside = area.over(from.truncate(), to.truncate());
        for solid in near {
            let of_solid = hidden_stretches(solid, viewer.eye.from(), from, to);
            let meets = |stretch: &Interval| {
                inside.iter().any(|part| stretch.meet(*part).is_some_and(|both| both.length() * length > LEAST_M))
            };
            if of_solid.iter().any(meets) {
                note(&mut behind, solid.id());
                stretches.extend(of_solid);
            }
        }
        for part in inside {
            let left = part.without(&mut stretches);
            whole += part.length() * length;
            hidden += (part.length() - left.into_iter().map(Interval::length).sum::<f64>()) * length;
        }
    }
    (if whole > 0.0 { hidden / whole } else { 0.0 }, behind)
}

fn note(behind: &mut Vec<String>, id: &str) {
    if behind.last().is_none_or(|last| last != id) && !behind.iter().any(|known| known == id) {
        behind.push(id.to_owned());
    }
}
