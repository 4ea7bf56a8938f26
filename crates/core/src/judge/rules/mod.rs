//! The rules that a sight line is judged by, one a file; the limits are settings of the site.

mod blur;
mod build;
mod clear;
mod face_from_above;
mod headlights;
mod in_view;
mod in_zone;
mod lane_width;
mod light_enough;
mod looks;
pub(crate) mod masked;
mod overexposed;
pub(crate) mod pixel_density;
mod plate_school;
pub(crate) mod plate_side;
pub(crate) mod plate_vertical;
mod sharp;
mod turned_away;
mod unseen;
mod weather;
mod within_reach;
mod zone_infrared;
mod zone_light;

pub(crate) use in_zone::InZone;

use crate::judge::sight::Sight;
use crate::verdict::{RuleResult, Verdict};

/// A rule: `None` where it does not apply to the target.
type Rule = fn(&Sight) -> Option<RuleResult>;
/// A rule for a plate on the move, asked about where it reads: `None` where it does not apply.
type ZoneRule = fn(&InZone) -> Option<RuleResult>;

/// Whether it is seen at all.
const SEEN: [Rule; 2] = [in_view::judge, clear::judge];

/// What is asked of what is seen, the most telling first; none of them asks what stands in the way.
const CHEAP: [Rule; 12] = [
    pixel_density::judge,
    face_from_above::judge,
    turned_away::judge,
    plate_side::judge,
    plate_vertical::judge,
    unseen::judge,
    build::judge,
    within_reach::judge,
    weather::judge,
    masked::judge,
    light_enough::judge,
    overexposed::judge,
];

/// The rules that are geometry of the place alone, beside whether it is seen.
const GEOMETRIC: [Rule; 4] = [pixel_density::judge, plate_side::judge, plate_vertical::judge, masked::judge];

/// The rules that hang on the place alone, whatever camera hangs there, beside what stands in the way.
#[cfg(feature = "route")]
const OF_THE_PLACE: [Rule; 4] = [face_from_above::judge, turned_away::judge, plate_side::judge, plate_vertical::judge];

/// The rules that hang on a model and its place, whatever it looks at.
#[cfg(feature = "route")]
const OF_THE_BUILD: [Rule; 2] = [within_reach::judge, weather::judge];

/// What a plate on the move is held to.
const IN_ZONE: [ZoneRule; 5] = [looks::judge, blur::judge, zone_light::enough, zone_light::not_over, headlights::judge];

/// What one that goes along a way is held to besides.
const ON_ITS_WAY: [ZoneRule; 3] = [sharp::judge, zone_infrared::judge, lane_width::judge];

/// What each rule that applies finds on a sight.
pub(crate) fn judge(sight: &Sight) -> Vec<RuleResult> {
    let mut found = Vec::with_capacity(4);
    found.extend(SEEN.iter().chain(&CHEAP).filter_map(|rule| rule(sight)));
    found
}

/// What each rule that applies finds where a plate on the move reads.
pub(crate) fn judge_zone(zone: &InZone) -> Vec<RuleResult> {
    let on_its_way = ON_ITS_WAY.iter().filter(|_| !zone.through_a_point);
    IN_ZONE.iter().chain(on_its_way).filter_map(|rule| rule(zone)).collect()
}

/// The verdict of the rules that are geometry of the place alone, at worst: in the picture, clear, dense enough, the plate's angles, masks.
pub(crate) fn geometric(sight: &Sight) -> Verdict {
    let found = GEOMETRIC.iter().filter_map(|rule| rule(sight)).map(|found| found.verdict);
    let verdict = found.fold(in_view::verdict(sight), Verdict::max);
    // The costliest last.
    if verdict == Verdict::Kept { clear::verdict(sight) } else { verdict }
}

/// The verdict of the rules that no other camera at the same place would change.
#[cfg(feature = "route")]
pub(crate) fn of_the_place(sight: &Sight) -> Verdict {
    let found = OF_THE_PLACE.iter().filter_map(|rule| rule(sight)).map(|found| found.verdict);
    let verdict = found.fold(Verdict::Kept, Verdict::max);
    // The costliest last.
    if verdict == Verdict::Kept { clear::verdict(sight) } else { verdict }
}

/// The verdict of the rules that no other aim of the same camera would change.
#[cfg(feature = "route")]
pub(crate) fn of_the_build(sight: &Sight) -> Verdict {
    OF_THE_BUILD.iter().filter_map(|rule| rule(sight)).map(|found| found.verdict).fold(Verdict::Kept, Verdict::max)
}

/// The verdict of all rules together: broken before unknown before tight before kept. What is broken as
/// stated is told first, without asking what the uncertainties would do to it.
pub(crate) fn verdict(sight: &Sight) -> Verdict {
    let enough = pixel_density::value(sight).is_some_and(|value| value >= sight.target.need.px_per_m);
    if !enough || !sight.in_view() || !sight.clear() {
        return Verdict::Broken;
    }
    let mut worst = in_view::verdict(sight);
    for rule in &CHEAP {
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
