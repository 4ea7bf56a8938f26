//! A plate on the move is not drawn out too far while the shutter is open.

use super::in_zone::InZone;
use crate::verdict::{RuleName, RuleResult, Unit, Verdict};

/// Holds the worst blur at the shutter that is set against a pixel; up to half a stroke it is tight.
pub fn judge(zone: &InZone) -> Option<RuleResult> {
    let kept = zone.viewer.rules.blur_kept_px;
    let half_stroke = (zone.told.stroke_px / 2.0).max(kept);
    let verdict = match zone.told.blur_px {
        None => Verdict::Unknown,
        Some(blur) if blur <= kept => Verdict::Kept,
        Some(blur) if blur <= half_stroke => Verdict::Tight,
        Some(_) => Verdict::Broken,
    };
    let found = RuleResult::of(RuleName::Blur, Unit::Px, zone.told.blur_px).limit(kept).past(half_stroke);
    Some(found.judged(verdict, zone.said("a pixel, tight up to half a stroke; common practice, no source")))
}
