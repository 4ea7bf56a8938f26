//! Not behind the mask of a private place.

use crate::judge::sight::Sight;
use crate::math::{Ring, hull};
use crate::site::Mask;
use crate::verdict::Verdict;
use crate::verdict::{RuleName, RuleResult, Unit};
use glam::{DVec2, DVec3};
use std::borrow::Cow;

/// Says which share of the subject lies behind masks against the share that may be hidden; tight where the subject may stand so
/// that a mask touches it. Only where the head has a mask at all.
pub fn judge(sight: &Sight) -> Option<RuleResult> {
    let masks = sight.masks();
    if masks.is_empty() {
        return None;
    }
    let (share, verdict) = found(sight, masks);
    Some(RuleResult {
        rule: RuleName::Masked,
        value: Some(share),
        worst: None,
        limit: Some(sight.target.may_be_hidden),
        broken_past: None,
        unit: Unit::Masked,
        verdict,
        basis: Cow::Borrowed("the masks that the site's private places take in this picture"),
    })
}

/// What one mask alone does to a sight; kept where it is not touched.
pub fn by(sight: &Sight, mask: &Mask) -> Verdict {
    found(sight, std::slice::from_ref(mask)).1
}

/// The share of the subject behind some masks, and what follows.
fn found(sight: &Sight, masks: &[Mask]) -> (f64, Verdict) {
    let subject = part_of_picture(sight, &sight.body_corners());
    let share = masks.iter().map(|mask| mask.share_of(&subject)).sum::<f64>().min(1.0);
    let anywhere = part_of_picture(sight, &sight.may_be_at());
    let touched = masks.iter().any(|mask| mask.share_of(&anywhere) > 0.0);
    (share, Verdict::of(share <= sight.target.may_be_hidden, !touched))
}

/// The part of the picture that some corners take, as far as they are before the lens.
fn part_of_picture(sight: &Sight, corners: &[DVec3]) -> Ring {
    let pixels = corners.iter().filter_map(|corner| sight.head.view().pixel_of(*corner));
    hull(pixels.map(|(pixel, _)| pixel).collect::<Vec<DVec2>>())
}
