//! The shortest way that visits all of some places, from a first one: exactly for few (M. Held and R. M. Karp, "A dynamic programming approach
//! to sequencing problems", 1962), and by exchanges of two stretches for more (G. A. Croes, 1958). Both from memory.

use glam::DVec2;

/// Up to so many places are put in order exactly.
const EXACTLY: usize = 12;
/// So often all pairs are tried at most.
const ROUNDS: usize = 200;

/// The order of places whose way from `from` is shortest.
///
/// ```
/// use bright_angle_core::fit::shortest_walk::shortest_walk;
/// use glam::DVec2;
/// let places = [DVec2::new(5.0, 0.0), DVec2::new(1.0, 0.0), DVec2::new(3.0, 0.0)];
/// assert_eq!(shortest_walk(DVec2::ZERO, &places), [1, 2, 0]);
/// ```
pub fn shortest_walk(from: DVec2, places: &[DVec2]) -> Vec<usize> {
    if places.len() <= EXACTLY { exactly(from, places) } else { by_exchanges(from, places) }
}

/// How long a way is, m.
pub fn length(from: DVec2, places: &[DVec2], order: &[usize]) -> f64 {
    let mut at = from;
    let step = |place: &usize| {
        let long = at.distance(places[*place]);
        at = places[*place];
        long
    };
    order.iter().map(step).sum()
}

fn exactly(from: DVec2, places: &[DVec2]) -> Vec<usize> {
    let count = places.len();
    if count == 0 {
        return vec![];
    }
    // The shortest way over a set of places that ends at one of them, and the place before it.
    let mut best = vec![[(f64::INFINITY, usize::MAX); EXACTLY]; 1 << count];
    for (place, at) in places.iter().enumerate() {
        best[1 << place][place] = (from.distance(*at), usize::MAX);
    }
    for set in 1usize..1 << count {
        for last in (0..count).filter(|last| set & (1 << last) != 0) {
            let (so_far, _) = best[set][last];
            for next in (0..count).filter(|next| set & (1 << next) == 0) {
                let long = so_far + places[last].distance(places[next]);
                let held = &mut best[set | (1 << next)][next];
                if long < held.0 {
                    *held = (long, last);
                }
            }
        }
    }
    let mut set = (1 << count) - 1;
    let mut last = (0..count).min_by(|a, b| best[set][*a].0.total_cmp(&best[set][*b].0)).unwrap_or(0);
    let mut order = vec![];
    while last != usize::MAX {
        order.push(last);
        let before = best[set][last].1;
        set &= !(1 << last);
        last = before;
    }
    order.reverse();
    order
}

fn by_exchanges(from: DVec2, places: &[DVec2]) -> Vec<usize> {
    let mut left: Vec<usize> = (0..places.len()).collect();
    let mut order: Vec<usize> = vec![];
    let mut at = from;
    while !left.is_empty() {
        let nearest = (0..left.len())
            .min_by(|a, b| at.distance(places[left[*a]]).total_cmp(&at.distance(places[left[*b]])))
            .unwrap_or(0);
        let next = left.swap_remove(nearest);
        at = places[next];
        order.push(next);
    }
    let place = |order: &[usize], step: usize| if step == 0 { from } else { places[order[step - 1]] };
    for _ in 0..ROUNDS {
        let mut better = false;
        for first in 0..order.len() {
            for last in first + 1..order.len() {
                // Turning the stretch around changes its two ends only; the way may end anywhere.
                let (before, begin, end) = (place(&order, first), place(&order, first + 1), place(&order, last + 1));
                let after = order.get(last + 1).map(|next| places[*next]);
                let now = before.distance(begin) + after.map_or(0.0, |after| end.distance(after));
                let then = before.distance(end) + after.map_or(0.0, |after| begin.distance(after));
                if then < now - 1e-9 {
                    order[first..=last].reverse();
                    better = true;
                }
            }
        }
        if !better {
            break;
        }
    }
    order
}

#[cfg(test)]
mod tests {
    use super::*;

    fn scattered(count: usize) -> Vec<DVec2> {
        let share = |number: usize| (number as f64 * 0.754_877_666_246_693).fract();
        (0..count).map(|n| DVec2::new(share(n + 1), share((n + 1) * (n + 3)))).collect()
    }

    /// Every order there is (brute force).
    fn least(from: DVec2, places: &[DVec2], order: &mut Vec<usize>) -> f64 {
        if order.len() == places.len() {
            return length(from, places, order);
        }
        let mut best = f64::INFINITY;
        for place in 0..places.len() {
            if !order.contains(&place) {
                order.push(place);
                best = best.min(least(from, places, order));
                order.pop();
            }
        }
        best
    }

    #[test]
    fn few_places_are_in_the_best_order_of_all() {
        for count in 1..8 {
            let places = scattered(count);
            let order = shortest_walk(DVec2::ZERO, &places);
            let best = least(DVec2::ZERO, &places, &mut vec![]);
            assert!((length(DVec2::ZERO, &places, &order) - best).abs() < 1e-9, "{count}");
        }
    }

    #[test]
    fn many_places_are_each_visited_once_and_not_much_farther_than_need_be() {
        let places = scattered(EXACTLY);
        let exact = length(DVec2::ZERO, &places, &exactly(DVec2::ZERO, &places));
        let near = by_exchanges(DVec2::ZERO, &places);
        assert!(length(DVec2::ZERO, &places, &near) < 1.25 * exact);
        let mut order = shortest_walk(DVec2::ZERO, &scattered(64));
        order.sort_unstable();
        assert_eq!(order, (0..64).collect::<Vec<_>>());
    }
}
