//! Which way comes first: what breaks no promise, then what makes none tight, then the least effort, less what it gains.

use super::{Effect, Way, WayKind};
use crate::judge::{TargetResult, Verdict};
use std::cmp::Ordering;

/// How many ways of one kind that buy another camera, go to a spot or ask another head are offered.
const MOST_ALIKE: usize = 2;
/// What a promise kept besides the one in question is worth, in effort (our scale: a turn is under 1, a new place 5).
const GAIN: f64 = 0.5;

/// What a way is ordered by.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Rank {
    /// How many promises it breaks.
    broken: usize,
    /// How many others it makes worse.
    worsened: usize,
    /// How much of a change it is, less what it gains.
    cost: f64,
}

impl Rank {
    /// The better rank first.
    pub fn compare(&self, other: &Rank) -> Ordering {
        let losses = |rank: &Rank| (rank.broken, rank.worsened);
        losses(self).cmp(&losses(other)).then(self.cost.total_cmp(&other.cost))
    }

    /// Whether it makes any promise worse.
    pub fn harms(&self) -> bool {
        self.broken + self.worsened > 0
    }
}

/// Ranks a change of some effort by what the site's promises are now and would be then.
pub fn compare_sites(effort: f64, now: &[TargetResult], then: &[TargetResult]) -> (Rank, Vec<Effect>) {
    let pairs = || now.iter().zip(then);
    let worse = || pairs().filter(|(before, after)| after.verdict > before.verdict);
    let broken = worse().filter(|(_, after)| after.verdict == Verdict::Broken).count();
    let gains = pairs().filter(|(before, after)| after.verdict < before.verdict).count();
    let effects = pairs()
        .filter(|(before, after)| before.verdict != after.verdict || before.best != after.best)
        .map(|(before, after)| Effect { target: before.target.clone(), before: before.verdict, after: after.verdict });
    let rank = Rank { broken, worsened: worse().count() - broken, cost: effort - GAIN * gains as f64 };
    (rank, effects.collect())
}

/// Leaves only the first few of the ways that are alike; `ranked` is in order already.
pub fn keep_the_best_of_each(ranked: &mut Vec<(Rank, Way)>) {
    let mut seen = [0; 5];
    ranked.retain(|(_, way)| {
        let takes_a_model = way.patch.iter().any(|op| op.path.ends_with("/model"));
        let kind = match (way.kind, takes_a_model) {
            (WayKind::Lens, _) => 0,
            (WayKind::Model, _) => 1,
            (WayKind::Spot, _) => 2,
            (WayKind::OtherHead, _) => 3,
            (_, true) => 4,
            _ => return true,
        };
        seen[kind] += 1;
        seen[kind] <= MOST_ALIKE
    });
}
