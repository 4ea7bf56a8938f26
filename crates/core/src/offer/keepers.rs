//! Who keeps what: cameras to choose from, and which sets of them keep which promise. A set keeps a promise when the evaluation of a site
//! with just that set says so.

use crate::file::CameraFile;
use crate::judge::Session;
use crate::judge::evaluation::{HeadView, TargetResult, promise_of};
use crate::judge::sight_line::Judged;
use crate::site::{Head, Site};
use crate::verdict::Verdict;
use std::collections::{HashMap, HashSet};

/// A head with what it makes of each target.
pub(super) struct Looking {
    pub head: Head,
    pub view: HeadView,
}

/// The cameras to choose from: each with its heads and presets.
pub(super) struct Keepers<'a> {
    pub site: &'a Site,
    pub choices: Vec<Vec<Looking>>,
}

/// The places that must be covered for a promise: of each, the choices that keep it.
pub(super) struct Demand {
    /// The target's place.
    pub target: usize,
    /// Rows of choices, each of which must hold as many that don't fail together as are wanted.
    pub rows: Vec<Vec<usize>>,
    /// How many.
    pub wanted: usize,
    /// What counts as kept: the promise's verdict is at most this.
    pub level: Verdict,
    /// All choices that have to do with it.
    pub concerned: Vec<usize>,
    /// Whether it is the promise itself; else a wish beyond it, which the rows alone decide.
    pub is_promise: bool,
}

/// The cameras of a file that stay, with their heads, in its order.
pub(super) fn present(session: &Session) -> Vec<(&CameraFile, Vec<Looking>)> {
    let site = session.site();
    let of = |(place, camera)| {
        let heads = site.heads().iter().zip(session.views()).filter(move |(head, _)| head.camera() == place);
        (camera, heads.map(|(head, view)| Looking { head: head.clone(), view: view.clone() }).collect())
    };
    site.file().cameras.iter().enumerate().filter(|(_, camera)| !camera.goes()).map(of).collect()
}

/// How many different ones there are.
pub(super) fn different(of: impl Iterator<Item = usize>) -> usize {
    of.collect::<HashSet<usize>>().len()
}

impl Keepers<'_> {
    /// The promise of a target as a set of choices has it.
    pub fn result(&self, target: usize, chosen: &[usize]) -> TargetResult {
        let heads = chosen.iter().flat_map(|choice| &self.choices[*choice]);
        let heads: Vec<(&Head, &Judged)> =
            heads.map(|looking| (&looking.head, &looking.view.targets[target])).collect();
        promise_of(self.site, &self.site.targets()[target], &heads)
    }

    /// Whether a set of choices keeps a promise at some level.
    pub fn keep(&self, target: usize, level: Verdict, chosen: &[usize]) -> bool {
        self.result(target, chosen).verdict <= level
    }

    /// All choices.
    pub fn all(&self) -> Vec<usize> {
        (0..self.choices.len()).collect()
    }

    /// The choice that each fails together with, itself where there is none.
    pub fn fails_with(&self) -> Vec<usize> {
        let mut first: HashMap<usize, usize> = HashMap::new();
        let groups = self.choices.iter().enumerate().map(|(place, heads)| {
            let group = heads.first().map(|looking| self.site.fails_with(looking.head.camera()));
            group.map_or(place, |group| *first.entry(group).or_insert(place))
        });
        groups.collect()
    }

    /// What a promise demands of a set.
    pub fn demand(&self, place: usize, level: Verdict) -> Demand {
        let target = &self.site.targets()[place];
        let judged = |choice: &usize| self.choices[*choice].iter().map(|looking| &looking.view.targets[place]);
        let concerned: Vec<usize> = self
            .all()
            .into_iter()
            .filter(|choice| {
                judged(choice)
                    .any(|of| of.counts.seen > 0 || of.lane.as_ref().is_some_and(|lane| !lane.overview.is_empty()))
            })
            .collect();
        let moving = target.moving_lane().is_some();
        let parts = if moving { 1 } else { target.samples.len() + target.runs.len() };
        let keeps = |choice: &usize, part: usize| {
            judged(choice).filter(|of| of.counts.seen > 0).any(|of| {
                let verdict = if moving { of.deciding.map(|found| found.verdict) } else { Some(of.part(part).verdict) };
                verdict.is_some_and(|verdict| verdict <= level)
            })
        };
        let mut rows: Vec<Vec<usize>> =
            (0..parts).map(|part| concerned.iter().copied().filter(|choice| keeps(choice, part)).collect()).collect();
        rows.sort_by(|a: &Vec<usize>, b| a.len().cmp(&b.len()).then_with(|| a.cmp(b)));
        rows.dedup();
        Demand { target: place, rows: barest(rows), wanted: target.heads_wanted, level, concerned, is_promise: true }
    }
}

/// The rows that no other row is part of: whoever covers these covers all. They come the shortest first.
fn barest(rows: Vec<Vec<usize>>) -> Vec<Vec<usize>> {
    let mut kept: Vec<Vec<usize>> = Vec::new();
    for row in rows {
        if !kept.iter().any(|held| held.iter().all(|choice| row.binary_search(choice).is_ok())) {
            kept.push(row);
        }
    }
    kept
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_row_that_holds_another_is_covered_with_it() {
        assert_eq!(barest(vec![vec![1], vec![2, 3], vec![1, 2], vec![2, 3, 4]]), [vec![1], vec![2, 3]]);
        // Nobody covers an empty row, and then nothing else counts.
        assert_eq!(barest(vec![vec![], vec![1]]), [Vec::<usize>::new()]);
    }
}
