//! What decides a promise, in words: the rule that holds it back most, as somebody on a ladder says it.

use crate::judge::evaluation::TargetResult;
use crate::judge::{Session, SightLine};
use crate::verdict::{RuleName, RuleResult, Verdict};
use crate::words::units::Units;
use serde::Serialize;
use utoipa::ToSchema;

/// Why a promise stands as it does.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Because {
    /// The target's id.
    pub target: String,
    /// The rule that decides; null where all are kept, where nothing is in front of a camera, and where the overview decides.
    #[schema(required)]
    pub rule: Option<RuleName>,
    /// The density that it found, px/m, where that is the pixel density: seen steeply, the lesser of across and up.
    #[schema(required)]
    pub px_per_m: Option<f64>,
    /// It in words, as in "31 % too few pixels"; null where all are kept.
    #[schema(required)]
    pub says: Option<String>,
}

/// Why each promise of a site stands as it does, by the camera that is best for it.
pub fn reasons(session: &Session, units: Units) -> Vec<Because> {
    session.summary().targets.iter().map(|result| reason(session, result, units)).collect()
}

fn reason(session: &Session, result: &TargetResult, units: Units) -> Because {
    let because = |rule: Option<&RuleResult>, says: Option<&str>| Because {
        target: result.target.clone(),
        rule: rule.map(|rule| rule.rule),
        px_per_m: rule.filter(|rule| rule.rule == RuleName::PixelDensity).and_then(|rule| rule.value),
        says: says.map(ToOwned::to_owned),
    };
    if result.verdict == Verdict::Kept {
        return because(None, None);
    }
    let Some(best) = &result.best else {
        let none = session.site().file().cameras.is_empty();
        return because(None, Some(if none { "no camera yet" } else { "behind every camera" }));
    };
    match session.line(&best.to(&result.target)).ok().flatten() {
        Some(line) => match decides(&line) {
            Some(rule) => because(Some(rule), Some(&in_words(session, &line, rule, units))),
            None if result.overview.as_ref().is_some_and(|held| held.verdict != Verdict::Kept) => {
                because(None, Some("no overview of the vehicle"))
            }
            None => because(None, Some("not every part of it is kept by one camera")),
        },
        None => because(None, Some("behind every camera")),
    }
}

/// What holds a sight line back, in words; `None` where every rule of it is kept.
pub fn what_holds_back(session: &Session, line: &SightLine, units: Units) -> Option<String> {
    decides(line).map(|rule| in_words(session, line, rule, units))
}

/// The rule that decides a sight line: of the worst verdict, the first in the order in which they are judged, but what hides a target
/// or keeps it out of the picture before how many pixels that would have had. `None` where all are kept.
pub fn decides(line: &SightLine) -> Option<&RuleResult> {
    let worst = line.rules.iter().map(|rule| rule.verdict).max().filter(|worst| *worst != Verdict::Kept)?;
    let mut held = line.rules.iter().filter(|rule| rule.verdict == worst);
    [RuleName::InView, RuleName::Clear]
        .into_iter()
        .find_map(|first| held.clone().find(|rule| rule.rule == first))
        .or_else(|| held.next())
}

fn in_words(session: &Session, line: &SightLine, rule: &RuleResult, units: Units) -> String {
    let value = rule.value.unwrap_or(0.0);
    let at_worst = rule.worst.unwrap_or(value);
    let tight = rule.verdict == Verdict::Tight;
    match rule.rule {
        RuleName::PixelDensity => pixels(line, rule),
        RuleName::InView if !line.in_view => "out of the picture".to_owned(),
        RuleName::InView if rule.limit.is_some_and(|limit| value < limit) => {
            format!("aim may be off by only {:.1}°", value.max(0.0))
        }
        RuleName::InView => "perhaps not all of it in the picture".to_owned(),
        RuleName::Clear => hidden(session, line),
        RuleName::FaceFromAbove => format!("face seen {value:.0}° from above"),
        RuleName::TurnedAway => format!("face turned {value:.0}° away"),
        RuleName::PlateSide if rule.value.is_none() => "the plate's direction is not stated".to_owned(),
        RuleName::PlateSide => format!("plate {value:.0}° from the side"),
        RuleName::PlateVertical => format!("plate {value:.0}° from above or below"),
        RuleName::Unseen if rule.value.is_none() => "PTZ elsewhere at times".to_owned(),
        RuleName::Unseen => format!("PTZ elsewhere for {value:.0} s"),
        RuleName::Build => "outside the tilt range of the camera".to_owned(),
        RuleName::WithinReach => format!("within reach, {} up", units.length(value)),
        RuleName::Weather => "weather rating too low or not stated".to_owned(),
        RuleName::Masked => "behind a privacy mask".to_owned(),
        RuleName::LightEnough if rule.value.is_none() => "light not known".to_owned(),
        RuleName::LightEnough if tight => format!("light just enough, {at_worst:.1} × its need in the worst case"),
        RuleName::LightEnough => format!("too dark, {value:.2} × its need"),
        RuleName::Overexposed => format!("overexposed, {at_worst:.0} × its need"),
        RuleName::Headlights => "headlights glare".to_owned(),
        RuleName::Looks if rule.value.is_none() => "frame rate or shutter not stated".to_owned(),
        RuleName::Looks => format!("only {value:.0} pictures of the plate"),
        RuleName::Blur if rule.value.is_none() => "shutter not stated".to_owned(),
        RuleName::Blur => format!("motion blur {value:.1} px"),
        RuleName::Sharp if rule.value.is_none() => "aperture not stated".to_owned(),
        RuleName::Sharp => "outside the depth of field".to_owned(),
        RuleName::ZoneInfrared => "infrared light uneven along the path".to_owned(),
        RuleName::LaneWidth => format!("picture {} wide at the lane", units.length(value)),
    }
}

/// What the density lacks; where only the worst case does, says so.
fn pixels(line: &SightLine, rule: &RuleResult) -> String {
    let (Some(found), Some(need)) = (rule.value, rule.limit) else { return "out of the picture".to_owned() };
    let lacks = |found: f64| format!("{:.0} % too few pixels", ((1.0 - found / need) * 100.0).max(1.0));
    if line.px_per_m.is_none() {
        "out of the picture".to_owned()
    } else if found < need {
        lacks(found)
    } else {
        format!("{} in the worst case", lacks(rule.worst.unwrap_or(found).min(need)))
    }
}

fn hidden(session: &Session, line: &SightLine) -> String {
    let named = |id: &String| {
        let obstacles = &session.site().file().obstacles;
        obstacles.iter().find(|held| &held.id == id).map_or_else(|| id.clone(), |held| held.name.clone())
    };
    let behind = line.blocked_by.as_ref().or_else(|| line.unseen.as_ref().and_then(|unseen| unseen.behind.first()));
    match (behind, line.may_hide.first(), line.seen_through.first()) {
        (Some(id), ..) => format!("behind {}", named(id)),
        (None, Some(id), _) => format!("perhaps behind {}", named(id)),
        (None, None, Some(id)) => format!("seen through {}", named(id)),
        _ => format!("{:.0} % of it hidden", line.hidden_share * 100.0),
    }
}
