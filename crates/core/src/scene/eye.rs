//! What one eye meets: the blocking solids around a point, sorted by direction and distance, so that a line of sight asks
//! only the few that lie on its bearing and nearer than its end.

use super::{Scene, Solid};
use glam::{DVec2, DVec3};

/// Directions are told apart in so many parts of a turn.
const PARTS: usize = 256;

/// The blocking solids around a point of the plan.
#[derive(Clone, Debug)]
pub struct Eye {
    at: DVec2,
    /// Where each part's entries begin, and at last where they end.
    begins: Vec<u32>,
    /// The solids by part, the nearest first.
    entries: Vec<Entry>,
}

#[derive(Clone, Copy, Debug)]
struct Entry {
    /// Square of the distance to the box of the solid, m².
    near: f64,
    solid: u32,
    base: f32,
    top: f32,
}

/// A solid and the parts of the turn it takes up: from the first to the last, which may pass the end of the turn.
struct Seen {
    entry: Entry,
    first: usize,
    count: usize,
}

impl Eye {
    /// Sorts the blocking solids of a scene around a point.
    pub fn new(scene: &Scene, at: DVec2) -> Self {
        let blocking = scene.solids().iter().enumerate().filter(|(_, solid)| solid.blocks());
        let mut seen: Vec<Seen> = blocking.map(|(place, solid)| see(at, place, solid)).collect();
        seen.sort_unstable_by(|a, b| a.entry.near.total_cmp(&b.entry.near));
        let mut begins = vec![0_u32; PARTS + 1];
        for solid in &seen {
            (0..solid.count).for_each(|step| begins[(solid.first + step) % PARTS + 1] += 1);
        }
        for part in 0..PARTS {
            begins[part + 1] += begins[part];
        }
        let mut next = begins.clone();
        let nothing = Entry { near: 0.0, solid: 0, base: 0.0, top: 0.0 };
        let mut entries = vec![nothing; begins[PARTS] as usize];
        for solid in &seen {
            for step in 0..solid.count {
                let part = (solid.first + step) % PARTS;
                entries[next[part] as usize] = solid.entry;
                next[part] += 1;
            }
        }
        Eye { at, begins, entries }
    }

    /// The places of the solids that may stand between the eye and a point of the plan, between two heights.
    #[inline]
    fn between(&self, to: DVec2, low: f64, high: f64) -> impl Iterator<Item = usize> {
        let step = to - self.at;
        let part = part_of(turn(step));
        let far = step.length_squared();
        self.entries[self.begins[part] as usize..self.begins[part + 1] as usize]
            .iter()
            .take_while(move |entry| entry.near <= far)
            .filter(move |entry| f64::from(entry.base) <= high && f64::from(entry.top) >= low)
            .map(|entry| entry.solid as usize)
    }

    /// Whether a blocking solid stands between the eye, at `from`, and a point.
    pub fn is_blocked(&self, scene: &Scene, from: DVec3, to: DVec3) -> bool {
        let (low, high) = (from.z.min(to.z), from.z.max(to.z));
        self.between(to.truncate(), low, high).any(|place| scene.solids()[place].first_hit(from, to).is_some())
    }

    /// The first blocking solid between the eye, at `from`, and a point; of two at once the earlier in the file.
    pub fn first_blocker<'a>(&'a self, scene: &'a Scene, from: DVec3, to: DVec3) -> Option<&'a Solid> {
        let (low, high) = (from.z.min(to.z), from.z.max(to.z));
        let hits = self
            .between(to.truncate(), low, high)
            .filter_map(|place| Some((scene.solids()[place].first_hit(from, to)?, place)));
        hits.reduce(|first, next| if next < first { next } else { first }).map(|(_, place)| &scene.solids()[place])
    }

    /// Whether no blocking solid is in any of some lines that start at `from` and run over the same plan line to `to`, each
    /// to a height of its own there.
    pub fn all_clear(&self, scene: &Scene, from: DVec3, to: DVec2, heights_at_end: &[f64]) -> bool {
        let low = heights_at_end.iter().copied().fold(from.z, f64::min);
        let high = heights_at_end.iter().copied().fold(from.z, f64::max);
        !self.between(to, low, high).any(|place| scene.solids()[place].hinders_any(from, to, heights_at_end))
    }
}

/// Which way a step points, as a share of a turn in [0, 1] that grows with the angle; straight up or down counts as east.
fn turn(step: DVec2) -> f64 {
    let sum = step.x.abs() + step.y.abs();
    if sum == 0.0 {
        return 0.0;
    }
    let along = step.x / sum;
    0.25 * if step.y >= 0.0 { 1.0 - along } else { 3.0 + along }
}

fn part_of(turn: f64) -> usize {
    ((turn * PARTS as f64) as usize).min(PARTS - 1)
}

fn see(at: DVec2, place: usize, solid: &Solid) -> Seen {
    let (lower, upper) = solid.bounds();
    let apart = (lower - at).max(at - upper).max(DVec2::ZERO);
    // Rounded outwards: what only touches is decided by the solid itself.
    let entry = Entry {
        near: apart.length_squared() * (1.0 - 1e-9),
        solid: place as u32,
        base: (solid.base() as f32).next_down(),
        top: (solid.top() as f32).next_up(),
    };
    if apart.max_element() < 1e-6 {
        return Seen { entry, first: 0, count: PARTS };
    }
    let corners = [lower, DVec2::new(upper.x, lower.y), upper, DVec2::new(lower.x, upper.y)];
    let reference = turn(corners[0] - at);
    let (mut least, mut most) = (0.0_f64, 0.0_f64);
    for corner in &corners[1..] {
        // Seen from outside a box takes up less than half a turn.
        let mut by = turn(*corner - at) - reference;
        if by.abs() > 0.5 {
            by -= by.signum();
        }
        (least, most) = (least.min(by), most.max(by));
    }
    let first = ((reference + least - 1e-9) * PARTS as f64).floor();
    let last = ((reference + most + 1e-9) * PARTS as f64).floor();
    let first_part = first.rem_euclid(PARTS as f64) as usize % PARTS;
    Seen { entry, first: first_part, count: ((last - first) as usize + 1).min(PARTS) }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn turns_grow_with_the_angle() {
        let turns: Vec<f64> = (0..360)
            .map(|degrees| {
                let angle = f64::from(degrees).to_radians();
                turn(DVec2::new(angle.cos(), angle.sin()))
            })
            .collect();
        assert!(turns.windows(2).all(|pair| pair[0] < pair[1]) && turns[359] < 1.0);
    }

    #[test]
    fn an_eye_meets_what_the_scene_meets() {
        let block = |i: u32| {
            let (x, y) = (f64::from(i * 7 % 40) - 20.0, f64::from(i * 13 % 38) - 19.0);
            let (w, d) = (0.2 + f64::from(i % 5), 0.3 + f64::from(i % 3));
            let outline = [[x, y], [x + w, y], [x + w, y + d], [x, y + d]];
            let closed = !i.is_multiple_of(4);
            Solid::new(&format!("o{i}"), &outline, closed, f64::from(i % 2), 1.5 + f64::from(i % 4), 0.0)
        };
        let scene = Scene::new((0..60).map(block).collect());
        for i in 0..40_u32 {
            let from = DVec3::new(f64::from(i * 11 % 50) - 25.0, f64::from(i * 17 % 46) - 23.3, 0.5 + f64::from(i % 5));
            let eye = Eye::new(&scene, from.truncate());
            for j in 0..200_u32 {
                let to =
                    DVec3::new(f64::from(j * 19 % 60) - 30.1, f64::from(j * 23 % 58) - 29.0, 0.3 + f64::from(j % 4));
                let (found, expected) = (eye.first_blocker(&scene, from, to), scene.first_blocker(from, to));
                assert_eq!(found.map(Solid::id), expected.map(|(solid, _)| solid.id()), "{from} to {to}");
                assert_eq!(eye.is_blocked(&scene, from, to), expected.is_some());
            }
        }
    }
}
