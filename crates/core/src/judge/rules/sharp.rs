//! A plate on the move is sharp from where it begins to read to where it ends to.

use super::in_zone::{InZone, STRETCH};
use crate::verdict::{RuleName, RuleResult, Unit, Verdict};

/// Holds the spot that a point is drawn to at both ends against a pixel, at the widest aperture; unknown where the lens does not say its
/// aperture.
pub fn judge(zone: &InZone) -> Option<RuleResult> {
    let (head, told) = (zone.viewer.head, &zone.told);
    let spot = [told.near_m, told.far_m].map(|at| head.spot_px(told.focus_m, at));
    let spot = spot[0].zip(spot[1]).map(|(near, far)| near.max(far));
    let (verdict, basis) = match told.sharp {
        Some(sharp) => {
            let holds = told.near_m >= sharp.near_m && sharp.far_m.is_none_or(|far| told.far_m <= far);
            (zone.over(holds), if holds { "depth of field, one pixel, at the widest aperture" } else { STRETCH })
        }
        None => (Verdict::Unknown, "the lens does not say its aperture"),
    };
    Some(RuleResult::of(RuleName::Sharp, Unit::Px, spot).limit(1.0).judged(verdict, basis))
}
