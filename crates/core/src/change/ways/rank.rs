//! Which way comes first: what breaks no promise, then what makes none tight, then the least effort, less what it gains.

use super::way::{Effect, Way, WayKind};
use crate::file::OverlapSchool;
use crate::judge::TargetResult;
use crate::judge::evaluation::Seen;
use crate::site::Site;
use crate::verdict::Verdict;
use std::cmp::Ordering;
use std::collections::HashSet;

/// How many ways of one kind that buy another camera, go to a spot or ask another head are offered.
const MOST_ALIKE: usize = 2;
/// What a promise kept besides the one in question is worth, in effort (our scale: a turn is under 1, a new place 5).
const GAIN: f64 = 0.5;

/// What a promise that a second camera keeps is worth to the school of back-up, and costs the school of spread (our scale).
const OVERLAP: f64 = 0.4;

/// What a way is ordered by.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Rank {
    /// How many promises it breaks.
    broken: usize,
    /// How many others it makes worse.
    worsened: usize,
    /// How much those matter that it breaks or makes worse.
    harm: f64,
    /// How much of a change it is, less what it gains.
    cost: f64,
}

impl Rank {
    /// The same with what the client's school of overlap makes of promises that two cameras keep, `now` and `then`.
    pub fn by_school(self, school: Option<OverlapSchool>, now: usize, then: usize) -> Rank {
        let more = then as f64 - now as f64;
        let cost = match school {
            None => 0.0,
            Some(OverlapSchool::Spread) => OVERLAP * more,
            Some(OverlapSchool::BackUp) => -OVERLAP * more,
        };
        Rank { cost: self.cost + cost, ..self }
    }

    /// The better rank first.
    pub fn compare(&self, other: &Rank) -> Ordering {
        let losses = |rank: &Rank| (rank.broken, rank.worsened);
        losses(self).cmp(&losses(other)).then(self.harm.total_cmp(&other.harm)).then(self.cost.total_cmp(&other.cost))
    }

    /// Whether it makes any promise worse.
    pub fn harms(&self) -> bool {
        self.broken + self.worsened > 0
    }
}

/// Ranks a change of some effort by what the site's promises are now and would be then; what matters more counts for more.
pub fn compare_sites(effort: f64, site: &Site, now: &[TargetResult], then: &[TargetResult]) -> (Rank, Vec<Effect>) {
    let pairs = || now.iter().zip(then);
    let weighed = || site.targets().iter().map(|target| target.weight).zip(pairs());
    let harm = weighed().filter(|(_, (before, after))| after.verdict > before.verdict).map(|(weight, _)| weight).sum();
    let worse = || pairs().filter(|(before, after)| after.verdict > before.verdict);
    let broken = worse().filter(|(_, after)| after.verdict == Verdict::Broken).count();
    let better = weighed().filter(|(_, (before, after))| after.verdict < before.verdict);
    let gains: f64 = better.map(|(weight, _)| 1.0 + weight).sum();
    let effects = pairs()
        .filter(|(before, after)| before.verdict != after.verdict || before.best != after.best)
        .map(|(before, after)| Effect { target: before.target.clone(), before: before.verdict, after: after.verdict });
    let rank = Rank { broken, worsened: worse().count() - broken, harm, cost: effort - GAIN * gains };
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

/// How many promises two cameras or more keep, each by itself.
pub fn kept_twice(targets: usize, seen: &[Seen]) -> usize {
    let keepers = |target: usize| {
        let keeps = |seen: &&Seen| seen.view.targets[target].deciding.is_some_and(|d| d.verdict == Verdict::Kept);
        seen.iter().filter(keeps).map(|seen| seen.head.camera()).collect::<HashSet<_>>().len()
    };
    (0..targets).filter(|target| keepers(*target) > 1).count()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_schools_of_overlap_order_ways_the_other_way_round() {
        let rank = Rank { broken: 0, worsened: 0, harm: 0.0, cost: 1.0 };
        let with_one_more = |school| rank.by_school(school, 2, 3).compare(&rank);
        assert_eq!(with_one_more(Some(OverlapSchool::BackUp)), Ordering::Less, "comes first");
        assert_eq!(with_one_more(Some(OverlapSchool::Spread)), Ordering::Greater);
        assert_eq!(with_one_more(None), Ordering::Equal);
        let harms_little = Rank { broken: 1, harm: 0.1, ..rank };
        let harms_much = Rank { harm: 1.0, cost: 0.0, ..harms_little };
        assert_eq!(harms_little.compare(&harms_much), Ordering::Less, "what matters less is broken sooner");
        let breaks = Rank { broken: 1, ..rank };
        assert_eq!(
            breaks.by_school(Some(OverlapSchool::BackUp), 0, 9).compare(&rank),
            Ordering::Greater,
            "never before a promise"
        );
    }
}
