//! The rules that a sight line is judged by, one a file; the limits are settings of the site.

mod build;
mod clear;
mod face_from_above;
mod in_view;
pub(crate) mod light_enough;
pub(crate) mod masked;
pub(crate) mod pixel_density;
pub(crate) mod plate_angles;
mod turned_away;
mod unseen;

use crate::judge::Verdict;
use crate::judge::sight::Sight;
use serde::Serialize;
use std::borrow::Cow;
use utoipa::ToSchema;

/// The name of a rule.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RuleName {
    /// Enough pixels per metre.
    PixelDensity,
    /// In the picture, with some slack in the aim.
    InView,
    /// Nothing in the way.
    Clear,
    /// A face not seen too steeply from above.
    FaceFromAbove,
    /// A face not turned away.
    TurnedAway,
    /// A plate not seen too much from the side.
    PlateSide,
    /// A plate not seen too steeply.
    PlateVertical,
    /// Not unseen for too long, of a head on tour.
    Unseen,
    /// Aimed no further than the camera's build goes.
    Build,
    /// Not behind the mask of a private place.
    Masked,
    /// By night: enough light on it.
    LightEnough,
    /// A plate on the move: seen often enough.
    Looks,
    /// A plate on the move: not drawn out too far while the shutter is open.
    Blur,
    /// A plate on the move: sharp from where it begins to read to where it ends to.
    Sharp,
    /// A plate on the move: infrared light that differs little enough between both ends.
    ZoneInfrared,
    /// A plate on the move: a picture no wider than its lane.
    LaneWidth,
}

/// What a rule found on a sight line.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct RuleResult {
    /// The rule.
    pub rule: RuleName,
    /// What was found, in `unit`; null when data is missing.
    #[schema(required)]
    pub value: Option<f64>,
    /// The same at the worst of the stated uncertainties, where the rule computes it.
    #[schema(required)]
    pub worst: Option<f64>,
    /// What it is held against, in `unit`; null where nobody said.
    #[schema(required)]
    pub limit: Option<f64>,
    /// Past this it is broken, where that differs from `limit`; between the two it is tight.
    #[schema(required)]
    pub broken_past: Option<f64>,
    /// `px/m`, `deg`, `s`, `px`, `m`, `stops`, `looks`, `times` (what it needs) or `hidden` or `masked` (shares of the subject).
    pub unit: &'static str,
    /// What follows.
    pub verdict: Verdict,
    /// Where the limit comes from.
    pub basis: Cow<'static, str>,
}

/// A rule: `None` where it does not apply to the target.
type Rule = fn(&Sight) -> Option<RuleResult>;

/// All rules, the most telling first.
const ALL: [Rule; 11] = [
    in_view::judge,
    clear::judge,
    pixel_density::judge,
    face_from_above::judge,
    turned_away::judge,
    plate_angles::side,
    plate_angles::vertical,
    unseen::judge,
    build::judge,
    masked::judge,
    light_enough::judge,
];

/// What each rule that applies finds on a sight.
pub(crate) fn judge(sight: &Sight) -> Vec<RuleResult> {
    let mut found = Vec::with_capacity(4);
    found.extend(ALL.iter().filter_map(|rule| rule(sight)));
    found
}

/// The verdict of the rules that are geometry of the place alone, at worst: in the picture, clear, dense enough, the plate's angles, masks.
pub(crate) fn geometric(sight: &Sight) -> Verdict {
    let rules: [Rule; 4] = [pixel_density::judge, plate_angles::side, plate_angles::vertical, masked::judge];
    let found = rules.iter().filter_map(|rule| rule(sight)).map(|found| found.verdict);
    let verdict = found.fold(in_view::verdict(sight), Verdict::max);
    // The costliest last.
    if verdict == Verdict::Kept { clear::verdict(sight) } else { verdict }
}

/// The verdict of all rules together: broken before unknown before tight before kept. What is broken as
/// stated is told first, without asking what the uncertainties would do to it.
pub(crate) fn verdict(sight: &Sight) -> Verdict {
    let enough = pixel_density::value(sight).is_some_and(|value| value >= sight.target.need.px_per_m);
    if !enough || !sight.in_view() || !sight.clear() {
        return Verdict::Broken;
    }
    let mut worst = in_view::verdict(sight);
    for rule in &ALL[2..] {
        worst = rule(sight).map_or(worst, |result| worst.max(result.verdict));
        if worst == Verdict::Broken {
            return worst;
        }
    }
    // The costliest last, and only if it still decides: it is clear as stated, so at worst it is tight.
    if worst == Verdict::Kept {
        worst = clear::verdict(sight);
    }
    worst
}
