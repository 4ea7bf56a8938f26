//! The rules that a sight line is judged by, one a file, and the limits a firm can change.

mod clear;
mod face_from_above;
mod in_view;
mod pixel_density;
mod plate_angles;
mod turned_away;

use crate::Verdict;
use crate::needs::NeedSet;
use crate::sight_line::Sight;
use crate::uncertainty::Uncertainties;
use serde::{Deserialize, Serialize};
use std::borrow::Cow;
use utoipa::ToSchema;

/// The limits of a site. Each has the handbook's value unless the firm sets its own.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct Rules {
    /// Which table of needs applies.
    #[schema(required = false)]
    pub needs: NeedSet,
    /// Which school of plate cameras applies.
    #[schema(required = false)]
    pub plate_school: PlateSchool,
    /// Face seen from above: kept up to this depression, degrees …
    #[schema(required = false)]
    pub face_kept_deg: f64,
    /// … tight up to this one, broken past it.
    #[schema(required = false)]
    pub face_tight_deg: f64,
    /// Level school: greatest side angle to the plate, degrees.
    #[schema(required = false)]
    pub level_side_deg: f64,
    /// Level school: greatest vertical angle to the plate, degrees.
    #[schema(required = false)]
    pub level_vertical_deg: f64,
    /// Raised school: greatest side angle to the plate, degrees.
    #[schema(required = false)]
    pub raised_side_deg: f64,
    /// Raised school: greatest vertical angle to the plate, degrees.
    #[schema(required = false)]
    pub raised_vertical_deg: f64,
    /// Lowest mounting height that ways may propose, m: out of reach.
    #[schema(required = false)]
    pub mount_min_m: f64,
    /// Greatest mounting height that ways may propose, m: can still be serviced.
    #[schema(required = false)]
    pub mount_max_m: f64,
    /// The stated uncertainties.
    #[schema(required = false)]
    pub uncertainties: Uncertainties,
}

/// The two schools of plate cameras (handbook, section 6).
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PlateSchool {
    /// Near plate height, both angles as small as possible.
    #[default]
    Level,
    /// Two to six metres up, steeper angles allowed.
    Raised,
}

impl Default for Rules {
    fn default() -> Self {
        Rules {
            needs: NeedSet::default(),
            plate_school: PlateSchool::default(),
            face_kept_deg: 15.0,
            face_tight_deg: 30.0,
            level_side_deg: 15.0,
            level_vertical_deg: 15.0,
            raised_side_deg: 30.0,
            raised_vertical_deg: 30.0,
            mount_min_m: 2.4,
            mount_max_m: 6.0,
            uncertainties: Uncertainties::default(),
        }
    }
}

impl Rules {
    /// Whether these are the handbook's.
    pub fn is_default(&self) -> bool {
        *self == Rules::default()
    }

    /// The limits that are angles, with their names.
    pub fn angles(&self) -> [(&'static str, f64); 6] {
        [
            ("face_kept_deg", self.face_kept_deg),
            ("face_tight_deg", self.face_tight_deg),
            ("level_side_deg", self.level_side_deg),
            ("level_vertical_deg", self.level_vertical_deg),
            ("raised_side_deg", self.raised_side_deg),
            ("raised_vertical_deg", self.raised_vertical_deg),
        ]
    }
}

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
    /// What it is held against, in `unit`.
    pub limit: f64,
    /// Past this it is broken, where that differs from `limit`; between the two it is tight.
    #[schema(required)]
    pub broken_past: Option<f64>,
    /// `px/m`, `deg` or `blocked` (0 or 1).
    pub unit: &'static str,
    /// What follows.
    pub verdict: Verdict,
    /// Where the limit comes from.
    pub basis: Cow<'static, str>,
}

/// A rule: `None` where it does not apply to the target.
type Rule = fn(&Sight) -> Option<RuleResult>;

/// All rules, the most telling first.
const ALL: [Rule; 7] = [
    in_view::judge,
    clear::judge,
    pixel_density::judge,
    face_from_above::judge,
    turned_away::judge,
    plate_angles::side,
    plate_angles::vertical,
];

/// What each rule that applies finds on a sight.
pub(crate) fn judge(sight: &Sight) -> Vec<RuleResult> {
    ALL.iter().filter_map(|rule| rule(sight)).collect()
}

/// The verdict of all rules together: broken before unknown before tight before kept. What is broken as
/// stated is told first, without asking what the uncertainties would do to it.
pub(crate) fn verdict(sight: &Sight) -> Verdict {
    if !sight.in_view() || !sight.clear || sight.look.across < sight.target.need.px_per_m {
        return Verdict::Broken;
    }
    let mut worst = in_view::verdict(sight).max(clear::verdict(sight));
    for rule in &ALL[2..] {
        worst = rule(sight).map_or(worst, |result| worst.max(result.verdict));
        if worst == Verdict::Broken {
            break;
        }
    }
    worst
}
