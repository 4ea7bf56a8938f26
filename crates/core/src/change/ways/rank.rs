//! Which way comes first: none broken before some broken, then the least effort.

use super::change::Candidate;
use super::{Effect, Way, WayKind};
use crate::judge::TargetResult;
use std::cmp::Ordering;

/// How many ways of one kind that buy another camera are offered.
const MOST_MODELS: usize = 2;

/// What a way is ordered by.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Rank {
    /// How many promises it makes worse.
    worsened: usize,
    /// How much of a change it is.
    effort: f64,
}

impl Rank {
    /// The better rank first.
    pub fn compare(&self, other: &Rank) -> Ordering {
        self.worsened.cmp(&other.worsened).then(self.effort.total_cmp(&other.effort))
    }
}

/// Ranks a candidate by what the site's promises are now and would be then.
pub fn compare_sites(candidate: &Candidate, now: &[TargetResult], then: &[TargetResult]) -> (Rank, Vec<Effect>) {
    let worsened = now.iter().zip(then).filter(|(before, after)| after.verdict > before.verdict).count();
    let effects = now
        .iter()
        .zip(then)
        .filter(|(before, after)| before.verdict != after.verdict || before.best != after.best)
        .map(|(before, after)| Effect { target: before.target.clone(), before: before.verdict, after: after.verdict })
        .collect();
    (Rank { worsened, effort: candidate.effort }, effects)
}

/// Leaves only the first few of the ways that take another camera; `ranked` is in order already.
pub fn keep_the_best_models(ranked: &mut Vec<(Rank, Way)>) {
    let mut seen = [0; 3];
    ranked.retain(|(_, way)| {
        let takes_a_model = way.patch.iter().any(|op| op.path.ends_with("/model"));
        let kind = match (way.kind, takes_a_model) {
            (WayKind::Lens, _) => 0,
            (WayKind::Model, _) => 1,
            (_, true) => 2,
            _ => return true,
        };
        seen[kind] += 1;
        seen[kind] <= MOST_MODELS
    });
}
