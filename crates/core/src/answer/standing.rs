//! Where a site stands, for a list of sites: how its promises stand, what is left to ask, and its plan drawn small.

use crate::judge::Session;
use crate::prove::due::due;
use crate::site::Site;
use crate::survey::survey_within;
use crate::verdict::Verdict;
use crate::work::{Over, Patience};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How many outlines a small plan has at most: the largest ones.
const MOST_OUTLINES: usize = 48;
/// How many corners each of them has at most.
const MOST_CORNERS: usize = 24;
/// How many cameras, and how many targets, are marked on it.
const MOST_MARKS: usize = 200;
/// How many days are told on which something is due.
const MOST_DUE: usize = 200;

/// Where a site stands.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Standing {
    /// How many promises are kept.
    pub kept: usize,
    /// How many are tight.
    pub tight: usize,
    /// How many are broken.
    pub broken: usize,
    /// Of how many something is not known.
    pub unknown: usize,
    /// How many things are left to ask or to measure.
    pub left: usize,
    /// The days on which something is due, in order; the sun's weeks are not among them.
    pub due: Vec<String>,
    /// The site's plan, small.
    pub plan: SmallPlan,
}

/// A plan drawn small, metres east and north.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct SmallPlan {
    /// Outlines of objects, the largest ones.
    pub outlines: Vec<Vec<[f64; 2]>>,
    /// Walls and fences, the longest ones.
    pub walls: Vec<Vec<[f64; 2]>>,
    /// Where cameras are.
    pub cameras: Vec<[f64; 2]>,
    /// Where targets are: their points.
    pub targets: Vec<[f64; 2]>,
}

/// Where a site stands.
///
/// # Errors
/// A site with more to look at than anybody waits for.
pub fn standing(site: Site, patience: &Patience) -> Result<Standing, Over> {
    let plan = small_plan(&site);
    let left = survey_within(&site, patience).before_you_leave.len();
    let session = Session::within(site, patience)?;
    let verdicts: Vec<Verdict> = session.summary().targets.into_iter().map(|target| target.verdict).collect();
    // The days do not hang on the day that they are asked for on.
    let due = due(&session, "2000-01-01", None).map(|due| due.items).unwrap_or_default();
    let count = |wanted| verdicts.iter().filter(|verdict| **verdict == wanted).count();
    Ok(Standing {
        kept: count(Verdict::Kept),
        tight: count(Verdict::Tight),
        broken: count(Verdict::Broken),
        unknown: count(Verdict::Unknown),
        left,
        due: due.into_iter().map(|item| item.due).take(MOST_DUE).collect(),
        plan,
    })
}

fn small_plan(site: &Site) -> SmallPlan {
    let file = site.file();
    let tenth = |[x, y]: [f64; 2]| [(x * 10.0).round() / 10.0, (y * 10.0).round() / 10.0];
    let largest = |closed: bool| {
        let mut found: Vec<&Vec<[f64; 2]>> = file
            .obstacles
            .iter()
            .filter(|obstacle| obstacle.closed == closed)
            .map(|obstacle| &obstacle.outline)
            .collect();
        found.sort_by(|a, b| reach(b).total_cmp(&reach(a)));
        found.into_iter().take(MOST_OUTLINES)
    };
    let thinned = |outline: &Vec<[f64; 2]>| {
        let every = outline.len().div_ceil(MOST_CORNERS).max(1);
        outline.iter().step_by(every).map(|corner| tenth(*corner)).collect()
    };
    SmallPlan {
        outlines: largest(true).map(thinned).collect(),
        walls: largest(false).map(thinned).collect(),
        cameras: file.cameras.iter().take(MOST_MARKS).map(|camera| tenth(camera.position)).collect(),
        targets: file
            .targets
            .iter()
            .take(MOST_MARKS)
            .filter_map(|target| target.shape.points.first().map(|point| tenth(*point)))
            .collect(),
    }
}

/// How large an outline is: the sum of its sides along both axes.
fn reach(outline: &[[f64; 2]]) -> f64 {
    let along = |axis: usize| {
        let [least, most] = outline.iter().fold([f64::INFINITY, f64::NEG_INFINITY], |[least, most], corner| {
            [least.min(corner[axis]), most.max(corner[axis])]
        });
        (most - least).max(0.0)
    };
    along(0) + along(1)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_small_plan_stays_small_and_takes_the_largest() {
        let corners: Vec<String> = (0..100)
            .map(|i| {
                let turn = f64::from(i) * std::f64::consts::TAU / 100.0;
                format!("[{}, {}]", 50.0 * turn.cos(), 50.0 * turn.sin())
            })
            .collect();
        let round =
            format!(r#"{{"id":"round","name":"R","kind":"other","top_m":2,"outline":[{}]}}"#, corners.join(","));
        let small: Vec<String> = (0..60)
            .map(|i| {
                let x = f64::from(i) * 3.0;
                format!(
                    r#"{{"id":"o{i}","name":"O","kind":"other","top_m":2,"outline":[[{x},0],[{0},0],[{0},1]]}}"#,
                    x + 1.0
                )
            })
            .collect();
        let file = format!(
            r#"{{"format":"bright-angle/site","version":1,"name":"S","obstacles":[{},{round}],"targets":[],"cameras":[]}}"#,
            small.join(",")
        );
        let plan = small_plan(&Site::parse(&file).unwrap());
        assert_eq!(plan.outlines.len(), MOST_OUTLINES);
        assert_eq!(plan.outlines[0].len(), 20, "every fifth corner of the round one, which comes first");
    }
}
