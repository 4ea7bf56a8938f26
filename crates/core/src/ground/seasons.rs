//! How the promises stand when the site is not as it is drawn: leaves on or off, years of growth, doors and gates the other way.

use crate::file::{CameraFile, Conditions, SiteFile};
use crate::judge::Session;
use crate::site::Site;
use crate::verdict::Verdict;
use serde::Serialize;
use utoipa::ToSchema;

/// Years of growth that are looked ahead.
const YEARS: [f64; 2] = [3.0, 10.0];

/// So many doors are looked at: each is a whole evaluation.
const MOST_DOORS: usize = 12;

/// A promise that stands differently then.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ThenStands {
    /// The target's id.
    pub target: String,
    /// Its verdict now.
    pub before: Verdict,
    /// Its verdict then.
    pub after: Verdict,
}

/// What another state of the site does to the promises.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct OtherState {
    /// What is different, in words.
    pub says: String,
    /// The promises that stand differently; none if nothing changes.
    pub changes: Vec<ThenStands>,
}

/// How the promises stand in every other state that the obstacles can be in, one thing at a time; of the doors the first dozen.
pub fn other_states(session: &Session) -> Vec<OtherState> {
    let file = session.site().file();
    let mut states: Vec<(String, SiteFile)> = Vec::new();
    let now = file.conditions;
    let under = |conditions: Conditions| SiteFile { conditions, ..file.clone() };
    if file.obstacles.iter().any(|obstacle| obstacle.bare_see_through.is_some()) {
        let says = if now.leaves_off { "When the leaves are on" } else { "When the leaves are off" };
        states.push((says.to_owned(), under(Conditions { leaves_off: !now.leaves_off, ..now })));
    }
    if file.obstacles.iter().any(|obstacle| obstacle.growth_m_per_year > 0.0) {
        let more = YEARS.into_iter().filter(|years| now.years + years <= 50.0);
        states.extend(more.map(|years| {
            (format!("After {years:.0} more years of growth"), under(Conditions { years: now.years + years, ..now }))
        }));
    }
    let says = if now.night { "By day" } else { "By night" };
    let lit = |camera: &CameraFile| camera.emitter.is_some() || camera.model.infrared_light().is_some();
    if now.night || !file.lamps.is_empty() || file.cameras.iter().any(lit) {
        states.push((says.to_owned(), under(Conditions { night: !now.night, ..now })));
    }
    let doors = file.obstacles.iter().enumerate().filter(|(_, obstacle)| obstacle.open_outline.is_some());
    for (place, obstacle) in doors.take(MOST_DOORS) {
        let mut other = file.clone();
        other.obstacles[place].open = !obstacle.open;
        states.push((format!("With {} {}", obstacle.name, if obstacle.open { "shut" } else { "open" }), other));
    }
    states
        .into_iter()
        .filter_map(|(says, file)| {
            let then = Session::on(Site::from_file(file).ok()?);
            let pairs = session.results().iter().zip(then.results());
            let changes = pairs.filter(|(now, then)| now.verdict != then.verdict).map(|(now, then)| ThenStands {
                target: now.target.clone(),
                before: now.verdict,
                after: then.verdict,
            });
            Some(OtherState { says, changes: changes.collect() })
        })
        .collect()
}
