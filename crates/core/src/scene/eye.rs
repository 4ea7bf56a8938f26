//! What one eye meets: the blocking solids around a point, sorted by direction and distance, so that a line of sight asks
//! only the few that lie on its bearing and nearer than its end.

use super::{BLOCKS_UP_TO, Scene, Solid, Volume};
use crate::math::Interval;
use glam::{DVec2, DVec3};
use smallvec::SmallVec;

/// Directions are told apart in so many parts of a turn.
const PARTS: usize = 256;

/// The columns that a subject is cut into where only a part of it is hidden.
pub const COLUMNS: usize = 10;

/// An upright rectangle that faces the eye.
#[derive(Clone, Copy, Debug)]
pub struct Upright {
    /// The point of the plan under its middle.
    pub middle: DVec2,
    /// The horizontal direction from the eye, square to it.
    pub towards: DVec2,
    /// Half its width, m.
    pub half: f64,
    /// Height of its lower edge, m.
    pub low: f64,
    /// Height of its upper edge, m.
    pub high: f64,
}

/// The blocking solids around a point of the plan.
#[derive(Clone, Debug)]
pub struct Eye {
    /// Where the lines begin, m: the optical centre, out of the surface that it is mounted on.
    from: DVec3,
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
    /// The distance to the box, and to its farthest corner, m.
    reach: (f32, f32),
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
    /// Sorts the blocking solids of a scene around a point; `mounted_on` names the solid that it is mounted on, if that is known.
    pub fn new(scene: &Scene, at: DVec3, mounted_on: Option<&str>) -> Self {
        let from = scene.out_of_mounting(at, mounted_on);
        let at = from.truncate();
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
        let nothing = Entry { near: 0.0, reach: (0.0, 0.0), solid: 0, base: 0.0, top: 0.0 };
        let mut entries = vec![nothing; begins[PARTS] as usize];
        for solid in &seen {
            for step in 0..solid.count {
                let part = (solid.first + step) % PARTS;
                entries[next[part] as usize] = solid.entry;
                next[part] += 1;
            }
        }
        Eye { from, at, begins, entries }
    }

    /// Where its lines begin, m.
    pub fn from(&self) -> DVec3 {
        self.from
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

    /// Whether the line to a point is blocked: by a solid, or by several see-through ones that together let too little through.
    pub fn is_blocked(&self, scene: &Scene, to: DVec3) -> bool {
        let (low, high) = (self.from.z.min(to.z), self.from.z.max(to.z));
        self.between(to.truncate(), low, high).any(|place| scene.solids()[place].first_hit(self.from, to).is_some())
            || scene.has_several_see_through() && scene.dimmed_by(self.from, to).is_some()
    }

    /// The first solid that blocks the line to a point; of two at once the earlier in the file. Of see-through ones in series
    /// it is the one behind which too little is left.
    pub fn first_blocker<'a>(&'a self, scene: &'a Scene, to: DVec3) -> Option<&'a Solid> {
        let (low, high) = (self.from.z.min(to.z), self.from.z.max(to.z));
        let hits = self
            .between(to.truncate(), low, high)
            .filter_map(|place| Some((scene.solids()[place].first_hit(self.from, to)?, place)));
        let dimmed = scene.has_several_see_through().then(|| scene.dimmed_by(self.from, to)).flatten();
        let first = hits.chain(dimmed).reduce(|first, next| if next < first { next } else { first });
        first.map(|(_, place)| &scene.solids()[place])
    }

    /// The first opaque solid on the line to a point, and the share of the line up to it; what one sees through is passed. Of two at
    /// once the earlier in the file. With its place in the file.
    pub fn first_solid(&self, scene: &Scene, to: DVec3) -> Option<(f64, usize)> {
        let step = to.truncate() - self.at;
        let (low, high) = (self.from.z.min(to.z), self.from.z.max(to.z));
        let part = part_of(turn(step));
        let far = step.length_squared();
        // How fast the line rises over the plan; upright lines are told apart by their heights alone.
        let length = far.sqrt();
        let slope = if length > 1e-6 { (to.z - self.from.z) / length } else { f64::NAN };
        let mut first: Option<(f64, usize)> = None;
        for entry in &self.entries[self.begins[part] as usize..self.begins[part + 1] as usize] {
            // The nearest come first: what begins behind the first hit cannot be before it.
            let reach = first.map_or(1.0, |(share, _)| share);
            if entry.near > far * reach * reach {
                break;
            }
            if f64::from(entry.base) > high || f64::from(entry.top) < low {
                continue;
            }
            // Over the solid's own distances it may pass above or below it.
            let [a, b] = [entry.reach.0, entry.reach.1].map(|reach| self.from.z + slope * f64::from(reach));
            if a.max(b) < f64::from(entry.base) || a.min(b) > f64::from(entry.top) {
                continue;
            }
            let place = entry.solid as usize;
            if let Some(share) = scene.solids()[place].first_hit(self.from, to)
                && first.is_none_or(|so_far| (share, place) < so_far)
            {
                first = Some((share, place));
            }
        }
        first
    }

    /// The blocking solids that stand in a volume that begins at this eye; a solid may come twice.
    pub fn in_volume<'a, 'b>(
        &'b self,
        scene: &'a Scene,
        volume: &'b Volume,
    ) -> impl Iterator<Item = &'a Solid> + use<'a, 'b> {
        let (first, count) = self.parts_of(volume);
        let far = volume.corners().iter().map(|p| p.distance_squared(self.at)).fold(0.0, f64::max);
        let (low, high) = volume.heights();
        (0..count)
            .flat_map(move |step| {
                let part = (first + step) % PARTS;
                self.entries[self.begins[part] as usize..self.begins[part + 1] as usize].iter()
            })
            .filter(move |entry| entry.near <= far && f64::from(entry.base) <= high && f64::from(entry.top) >= low)
            .map(|entry| &scene.solids()[entry.solid as usize])
            .filter(|solid| volume.meets(solid))
    }

    /// The same, each once, in the file's order.
    pub fn all_in_volume<'a>(&self, scene: &'a Scene, volume: &Volume) -> SmallVec<[&'a Solid; 8]> {
        let mut solids: SmallVec<[&Solid; 8]> = self.in_volume(scene, volume).collect();
        solids.sort_unstable_by_key(|solid| std::ptr::from_ref::<Solid>(solid));
        solids.dedup_by_key(|solid| std::ptr::from_ref::<Solid>(solid));
        solids
    }

    /// Whether nothing that stands in a volume hides anything: no blocking solid, and not too many see-through ones.
    pub fn is_clear(&self, scene: &Scene, volume: &Volume) -> bool {
        self.in_volume(scene, volume).next().is_none() && !Eye::is_dimmed(scene, volume)
    }

    /// Whether the see-through solids that stand in a volume may together let too little through.
    pub fn is_dimmed(scene: &Scene, volume: &Volume) -> bool {
        if !scene.has_several_see_through() {
            return false;
        }
        let panes = scene.solids().iter().filter(|solid| !solid.blocks() && volume.meets(solid));
        panes.map(Solid::see_through).product::<f64>() <= BLOCKS_UP_TO
    }

    /// The greatest share that is hidden of an upright rectangle, `half` m to either side of its middle between two heights, with
    /// its middle anywhere within `off` m to either side of a point of the plan, square to the direction `towards`, and the eye
    /// `raised` by so many metres. Cut into columns, exact in each.
    /// `solids` are those that stand in the volume of all these lines.
    pub fn hidden_share(&self, scene: &Scene, solids: &[&Solid], upright: Upright, off: f64, raised: f64) -> f64 {
        let Upright { middle, towards, half, low, high } = upright;
        let right = DVec2::new(towards.y, -towards.x);
        let width = 2.0 * half / COLUMNS as f64;
        let steps = (off / width).ceil() as usize;
        let count = COLUMNS + 2 * steps;
        let eye = self.from.z + raised;
        let foot = |column: usize| middle + right * width * (column as f64 + 0.5 - count as f64 / 2.0);
        let hides_all = |solid: &Solid, column: usize| {
            let hidden = solid.hidden_heights(self.at, eye, foot(column));
            hidden.iter().any(|hidden| hidden.start <= low && hidden.end >= high)
        };
        // Most of what is hidden at all is hidden by one thing, and whole.
        if solids.iter().any(|solid| solid.is_convex() && hides_all(solid, 0) && hides_all(solid, count - 1)) {
            return 1.0;
        }
        let several = scene.has_several_see_through();
        let hidden: SmallVec<[f64; 64]> = (0..count)
            .map(|column| {
                let to = foot(column);
                if several && scene.dimmed_by(self.at.extend(eye), to.extend(0.5 * (low + high))).is_some() {
                    return 1.0;
                }
                let mut hidden: SmallVec<[Interval; 4]> = SmallVec::new();
                solids.iter().for_each(|solid| hidden.extend(solid.hidden_heights(self.at, eye, to)));
                let whole = Interval { start: low, end: high };
                let length = match hidden.as_slice() {
                    [] => 0.0,
                    [one] => one.meet(whole).map_or(0.0, Interval::length),
                    _ => whole.length() - whole.without(&mut hidden).into_iter().map(Interval::length).sum::<f64>(),
                };
                length / whole.length()
            })
            .collect();
        let most = hidden.windows(COLUMNS).map(|window| window.iter().sum::<f64>()).fold(0.0, f64::max);
        most / COLUMNS as f64
    }

    /// The parts of the turn that a volume takes up: the first, and how many.
    fn parts_of(&self, volume: &Volume) -> (usize, usize) {
        if volume.surrounds_eye() {
            return (0, PARTS);
        }
        let mut ends = volume.corners().iter().filter(|p| p.distance_squared(self.at) > 1e-12);
        let Some(reference) = ends.next().map(|p| turn(*p - self.at)) else { return (0, PARTS) };
        span(reference, ends.map(|p| turn(*p - self.at)))
    }
}

/// The parts of a turn that some directions span, less than half of it, and how many these are.
fn span(reference: f64, others: impl Iterator<Item = f64>) -> (usize, usize) {
    let (mut least, mut most) = (0.0_f64, 0.0_f64);
    for other in others {
        let mut by = other - reference;
        if by.abs() > 0.5 {
            by -= by.signum();
        }
        (least, most) = (least.min(by), most.max(by));
    }
    let first = ((reference + least - 1e-9) * PARTS as f64).floor();
    let last = ((reference + most + 1e-9) * PARTS as f64).floor();
    (first.rem_euclid(PARTS as f64) as usize % PARTS, ((last - first) as usize + 1).min(PARTS))
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
    let farthest = (lower - at).abs().max((upper - at).abs()).length();
    // Rounded outwards: what only touches is decided by the solid itself.
    let entry = Entry {
        near: apart.length_squared() * (1.0 - 1e-9),
        reach: ((apart.length() * (1.0 - 1e-6)) as f32, (farthest * (1.0 + 1e-6)) as f32),
        solid: place as u32,
        base: (solid.base() as f32).next_down(),
        top: (solid.top() as f32).next_up(),
    };
    if apart.max_element() < 1e-6 {
        return Seen { entry, first: 0, count: PARTS };
    }
    let corners = [lower, DVec2::new(upper.x, lower.y), upper, DVec2::new(lower.x, upper.y)];
    // Seen from outside a box takes up less than half a turn.
    let (first, count) = span(turn(corners[0] - at), corners[1..].iter().map(|corner| turn(*corner - at)));
    Seen { entry, first, count }
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
            let eye = Eye::new(&scene, from, None);
            for j in 0..200_u32 {
                let to =
                    DVec3::new(f64::from(j * 19 % 60) - 30.1, f64::from(j * 23 % 58) - 29.0, 0.3 + f64::from(j % 4));
                let (found, expected) = (eye.first_blocker(&scene, to), scene.first_blocker(eye.from(), to));
                assert_eq!(found.map(Solid::id), expected.map(|(solid, _)| solid.id()), "{from} to {to}");
                assert_eq!(eye.is_blocked(&scene, to), expected.is_some());
                // On along the same way, as the rays of pixels go: far out, steeply up, down to the ground.
                for to in [to, to + (to - from) * 50.0, to.with_z(40.0), to.with_z(0.0)] {
                    let first = eye.first_solid(&scene, to).map(|(_, place)| scene.solids()[place].id());
                    let expected = scene.first_blocker(eye.from(), to).map(|(solid, _)| solid.id());
                    assert_eq!(first, expected, "{from} to {to}");
                }
            }
        }
    }
}
