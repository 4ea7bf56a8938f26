//! Enough pixels on each metre of the subject for the task.

use crate::file::Subject;
use crate::judge::sight::Sight;
use crate::verdict::Verdict;
use crate::verdict::{RuleName, RuleResult, Unit};
use std::borrow::Cow;

/// Holds the density against the target's need. Of a person or a face that is looked at steeply it is the lesser of across and
/// up; of a plate it is across × cos of the side angle. The worst case takes the target nearer or farther, to the side, lower
/// or higher, the head lower or higher, the focal length shorter and the aim to nine places of its range. Out of the picture
/// there is no figure.
pub fn judge(sight: &Sight) -> Option<RuleResult> {
    let limit = sight.target.need.px_per_m;
    let (value, worst, verdict) = match value(sight) {
        None => (None, None, Verdict::Unknown),
        Some(value) => {
            let worst = sight.in_view().then(|| least(sight).min(value));
            let holds = value >= limit;
            (Some(value), worst, Verdict::of(holds, holds && worst.is_none_or(|worst| worst >= limit)))
        }
    };
    Some(RuleResult {
        rule: RuleName::PixelDensity,
        value,
        worst,
        limit: Some(limit),
        broken_past: None,
        unit: Unit::PxPerM,
        verdict,
        basis: match (how(sight), &sight.target.need.basis) {
            (How::Across, basis) => basis.clone(),
            (How::Lesser, basis) => Cow::Owned(format!("{basis}; seen steeply, the lesser of across and up")),
            (How::Plate(_), basis) => Cow::Owned(format!("{basis}; across × cos of the side angle")),
        },
    })
}

/// What is held against the need, px/m; `None` out of the picture.
pub fn value(sight: &Sight) -> Option<f64> {
    if !sight.point_in_view() {
        return None;
    }
    let [across, up] = sight.densities();
    Some(match how(sight) {
        How::Across => across,
        How::Lesser => across.min(up),
        How::Plate(side) => across * shown(side),
    })
}

/// Which figure counts.
enum How {
    Across,
    Lesser,
    /// Seen from so many degrees to its side.
    Plate(f64),
}

fn how(sight: &Sight) -> How {
    let target = sight.target;
    if let (Subject::Plate, Some(side)) = (target.subject, sight.side_deg()) {
        return How::Plate(side);
    }
    // Past this a face is seen steeply.
    let steep = sight.separation.depression().abs().deg() > sight.rules.face_kept_deg;
    if steep && matches!(target.subject, Subject::Person | Subject::Face) { How::Lesser } else { How::Across }
}

/// The least of it over everything that is uncertain, px/m.
fn least(sight: &Sight) -> f64 {
    let head = sight.head;
    let corners = sight.point_corners();
    let across = corners.iter().map(|corner| head.least_across(*corner)).fold(f64::INFINITY, f64::min);
    match how(sight) {
        How::Across => across,
        How::Lesser => corners.iter().map(|corner| head.least_up(*corner)).fold(across, f64::min),
        How::Plate(side) => across * shown(side + sight.bearing_off_deg()),
    }
}

/// How much of its width a plate shows from an angle to its side.
fn shown(side_deg: f64) -> f64 {
    side_deg.min(90.0).to_radians().cos()
}
