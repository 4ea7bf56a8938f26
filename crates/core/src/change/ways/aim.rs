//! The search for another aim, in two dimensions: the turn that worsens the fewest other promises, then the least one.

use super::change::{Candidate, Change};
use super::desk::Desk;
use super::rank::Rank;
use crate::change::edits::{Aim, neat};
use crate::file::CameraFile;
use crate::math::Angle;

/// Steps of the straight way from the aim as it is to the target in the middle, degrees.
const STEP_DEG: f64 = 0.5;
/// Aims that are tried around the middle, to each side: so many steps, each a share of the field of view.
const AROUND: i32 = 4;
const FIELD_SHARE: f64 = 0.11;
/// How many aims that keep the sight line are looked at for what they do to the others.
const MOST_WEIGHED: usize = 24;

/// The best aim of the head in question; `middle` is the one with the target in the middle.
pub fn best(desk: &Desk, camera: &CameraFile, middle: Aim) -> Option<Candidate> {
    let now = camera.heads[desk.head_place].aimed(desk.which);
    let turn = (Angle::degrees(middle.pan_deg) - Angle::degrees(now.pan_deg)).wrapped().deg();
    let nod = middle.tilt_deg - now.tilt_deg;
    let candidate = |by_pan: f64, by_tilt: f64| {
        let tilt = neat(now.tilt_deg + by_tilt, 0.1).clamp(-90.0, 90.0);
        let change = Change::Aim(in_range(neat(now.pan_deg + by_pan, 0.1)), tilt);
        Candidate { head: (desk.head_place, desk.which), changes: vec![change], effort: by_pan.hypot(by_tilt) / 90.0 }
    };
    let kept = |candidate: &Candidate| desk.keeps(&candidate.applied(camera));
    let weighed = |candidate: Candidate| {
        let (rank, _) = desk.consequences(candidate.effort, &candidate.applied(camera))?;
        Some((rank, candidate))
    };
    // No further towards the middle than it takes.
    let steps = (turn.abs().max(nod.abs()) / STEP_DEG).ceil().max(1.0);
    let straight = (1..=steps as u32).map(|step| f64::from(step) / steps);
    let first = straight.map(|share| candidate(turn * share, nod * share)).find(kept)?;
    let mut found: Vec<(Rank, Candidate)> = vec![weighed(first)?];
    if !found[0].0.harms() {
        return found.pop().map(|(_, candidate)| candidate);
    }
    // It costs another promise something: perhaps a turn that is less straight does not.
    let projection = desk.head(camera).view().projection;
    let step = [projection.hfov(), projection.vfov()].map(|field| (field.to_degrees() * FIELD_SHARE).max(STEP_DEG));
    let mut around: Vec<Candidate> = (-AROUND..=AROUND)
        .flat_map(|i| (-AROUND..=AROUND).map(move |j| (f64::from(i), f64::from(j))))
        .map(|(i, j)| candidate(turn + i * step[0], nod + j * step[1]))
        .collect();
    around.sort_by(|a, b| a.effort.total_cmp(&b.effort));
    around.retain(kept);
    found.extend(around.into_iter().take(MOST_WEIGHED).filter_map(weighed));
    found.sort_by(|(a, _), (b, _)| a.compare(b));
    found.into_iter().next().map(|(_, candidate)| candidate)
}

fn in_range(pan: f64) -> f64 {
    match pan {
        pan if pan > 360.0 => pan - 360.0,
        pan if pan < -360.0 => pan + 360.0,
        pan => pan,
    }
}
