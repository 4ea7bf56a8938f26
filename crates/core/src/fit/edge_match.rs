//! How a head hangs, found without clicks: edges of the plan's solids against edges of the real picture.
//!
//! Chamfer matching by direction (H. G. Barrow and others, "Parametric correspondence and chamfer matching", 1977; J. Shotton and others,
//! "Multiscale categorical object recognition using contour fragments", 2008; from memory): for each edge of the plan that the camera can
//! see, how far it is to the nearest edge of the picture that runs the same way. Coarse over turns and focal lengths around the design and
//! upside down, then refined. What is found is offered with a measure of trust; nobody takes it unseen.

use super::landmarks::clickables;
use crate::file::{Fault, HeadRef, ObstacleKind};
use crate::judge::evaluation::eye_around;
use crate::math::{Angle, Pose, View};
use crate::show::papers::landmarks::reaches;
use crate::site::{Head, Site};
use glam::{DVec2, DVec3};
use serde::{Deserialize, Serialize};
use std::collections::HashMap;
use utoipa::ToSchema;

/// A picture that is looked through has so many pixels to a side at most.
const MOST_PX: usize = 640;
/// Directions that edges are sorted by.
const WAYS: usize = 6;
/// A pixel is on an edge where its gradient is among the strongest: so many of all, and at least so strong, of 255.
const STRONGEST: f64 = 0.08;
const LEAST_GRADIENT: f64 = 8.0;
/// Edges are sought so far around, px: at first, and in the end.
const FAR_PX: f64 = 14.0;
const NEAR_PX: f64 = 4.0;
/// A point lies on an edge if it is no farther off, px.
const ON_EDGE_PX: f64 = 2.0;
/// Points along the plan's edges: so far apart as seen from the camera, degrees, and so many at most.
const APART_DEG: f64 = 0.7;
const MOST_POINTS: usize = 600;
/// What is nearer than this moves too much when the camera does, m.
const NEAREST_M: f64 = 1.5;
/// The turns that are tried around the design, degrees: to either side, and in steps of.
const PANS: (f64, f64) = (18.0, 1.5);
const TILTS: (f64, f64) = (12.0, 1.5);
const ROLLS: (f64, f64) = (6.0, 2.0);
/// Focal lengths that are tried, as shares of the design's.
const FOCALS: [f64; 3] = [0.92, 1.0, 1.08];
/// So many of the best are refined, and from these steps down to those: degrees, and shares of the focal length.
const REFINED: usize = 10;
const FIRST_STEP: [f64; 4] = [0.8, 0.8, 0.8, 0.02];
const LAST_SHARE: f64 = 0.04;
/// Two answers are different ones if they are so far apart, degrees.
const DIFFERENT_DEG: f64 = 2.5;
/// At least so many points, and such a share of those that the design has in its picture, must be in the picture.
const LEAST_SEEN: usize = 40;
const LEAST_SHARE: f64 = 0.35;
/// Trust (ours): so much nearer to edges than their surroundings, so many times better than the next answer, so many deviations over all
/// that was tried, and so many of the plan's edges there.
const GOOD: Limits = Limits { fit: 0.45, better: 1.25, out: 5.0, edges: 6 };
const FAIR: Limits = Limits { fit: 0.4, better: 1.07, out: 4.0, edges: 6 };
/// An edge of the plan is there if at least so many points, and such a share, of it lie on one of the picture.
const EDGE_POINTS: usize = 3;
const EDGE_SHARE: f64 = 0.7;
/// What is usual around a place, px to either side: where all is full of edges none says anything.
const AROUND_PX: usize = 12;
/// What is found is good to about so many pixels of what was looked at (ours).
const GOOD_TO_PX: f64 = 1.5;

/// The real picture, in grey, scaled down.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GreyPicture {
    /// Its width, px.
    pub width: usize,
    /// Its rows, from the top, 0 to 255 each.
    pub grey: Vec<u8>,
}

/// How far an answer can be trusted.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Trust {
    /// Look at it once.
    Good,
    /// Perhaps: look at each cross.
    Fair,
    /// Nothing was found that stands out.
    None,
}

/// Where a landmark lies as it was found.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct FoundMark {
    /// The landmark's id.
    pub id: String,
    /// Where, px of the head's full picture.
    pub pixel: [f64; 2],
}

/// What was found without clicks.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct EdgeMatch {
    /// How far it can be trusted.
    pub trust: Trust,
    /// The same in words.
    pub says: String,
    /// The share of the plan's edges that lie on an edge of the picture.
    pub on_edges: f64,
    /// Bearing, degrees.
    pub pan_deg: f64,
    /// Tilt, degrees.
    pub tilt_deg: f64,
    /// Roll, degrees.
    pub roll_deg: f64,
    /// Nominal focal length, mm.
    pub focal_mm: f64,
    /// To about so many degrees.
    pub within_deg: f64,
    /// Where landmarks lie then; none where it cannot be trusted.
    pub marks: Vec<FoundMark>,
}

/// What an answer must reach.
#[derive(Clone, Copy, Debug)]
struct Limits {
    fit: f64,
    better: f64,
    out: f64,
    edges: usize,
}

/// A point on an edge of the plan, and a second one a little along it.
#[derive(Clone, Copy, Debug)]
struct EdgePoint {
    at: DVec3,
    along: DVec3,
    /// Which edge it is of.
    edge: usize,
}

/// For each direction, how near each pixel is to an edge that runs so, over how near its surroundings are: within a wide and a narrow reach.
struct EdgeMap {
    width: usize,
    height: usize,
    wide: Vec<Vec<f32>>,
    narrow: Vec<Vec<f32>>,
    /// Within the narrow reach, whatever is around it.
    plain: Vec<Vec<f32>>,
    /// How far it is, px.
    far: Vec<Vec<f32>>,
}

/// A guess: pan, tilt, roll, degrees, and the share of the focal length.
type Guess = [f64; 4];

/// How a head hangs as the edges of its picture have it.
///
/// # Errors
/// A picture that is none, too large, or of another shape than the head's; a plan without edges before this head.
pub fn edge_match(site: &Site, name: &HeadRef, picture: &GreyPicture) -> Result<EdgeMatch, Fault> {
    let head = site.view(name)?;
    let count = picture.grey.len();
    let (width, height) = (picture.width, count / picture.width.max(1));
    if width < 64 || height < 36 || width > MOST_PX || height > MOST_PX || width * height != count {
        return Err(Fault::new(
            "picture",
            format!("{count} pixels of {width} to a row are no picture of 64 to {MOST_PX} px"),
        ));
    }
    if !super::landmarks::is_shape_of(head, width as f64, height as f64) {
        return Err(Fault::new("picture", format!("{width} × {height} is not the shape of this head's picture")));
    }
    let points = edges_seen(site, head);
    let scale = width as f64 / head.view().projection.size().x;
    let map = EdgeMap::of(picture, width, height);
    let seek = Seek { head, points: &points, scale, map: &map };
    let designed = seek.seen(&[head.pan().deg(), head.tilt().deg(), head.roll().deg(), 1.0]);
    if designed < LEAST_SEEN {
        let message = "the plan has too few edges before this head: click landmarks, or draw more of them";
        return Err(Fault::new("head", message));
    }
    Ok(seek.told(site, name, seek.all_around(designed)))
}

struct Seek<'a> {
    head: &'a Head,
    points: &'a [EdgePoint],
    scale: f64,
    map: &'a EdgeMap,
}

/// What the search found: the best guesses with how well they fit, and by how many deviations the best stands out.
struct Found {
    best: Vec<(f64, Guess)>,
    deviation: f64,
}

impl Seek<'_> {
    fn view(&self, [pan, tilt, roll, focal]: &Guess) -> View {
        let [pan, tilt, roll] = [*pan, *tilt, *roll].map(Angle::degrees);
        View {
            pose: Pose::new(self.head.position(), pan, tilt, roll),
            projection: self.head.view().projection.scaled(*focal),
        }
    }

    /// How many points a guess has in its picture.
    fn seen(&self, guess: &Guess) -> usize {
        let view = self.view(guess);
        self.points.iter().filter(|point| view.holds(point.at)).count()
    }

    /// How much nearer to edges the points lie than their surroundings do; `None` with too few in the picture.
    fn fit(&self, guess: &Guess, maps: &[Vec<f32>], least: usize) -> Option<f64> {
        let view = self.view(guess);
        let (mut sum, mut count) = (0.0, 0);
        for point in self.points {
            let Some((at, true)) = view.pixel_of(point.at) else { continue };
            let Some((next, _)) = view.pixel_of(point.along) else { continue };
            count += 1;
            let way = way_of(next - at);
            sum += self.map.read(maps, at * self.scale, way);
        }
        (count >= least).then(|| sum / f64::from(count as u32))
    }

    /// The share of the points that lie on an edge; and how many edges of the plan do, on the whole.
    fn on_edges(&self, guess: &Guess) -> (f64, usize) {
        let view = self.view(guess);
        let off = |point: &EdgePoint| {
            let (at, _) = view.pixel_of(point.at).filter(|(_, inside)| *inside)?;
            let (next, _) = view.pixel_of(point.along)?;
            let on = self.map.read(&self.map.far, at * self.scale, way_of(next - at)) < ON_EDGE_PX;
            Some((point.edge, on))
        };
        let offs: Vec<(usize, bool)> = self.points.iter().filter_map(off).collect();
        let mut edges: HashMap<usize, (usize, usize)> = HashMap::new();
        for (edge, on) in &offs {
            let held = edges.entry(*edge).or_default();
            *held = (held.0 + usize::from(*on), held.1 + 1);
        }
        let whole = |(on, all): &&(usize, usize)| *all >= EDGE_POINTS && *on as f64 >= EDGE_SHARE * *all as f64;
        let share = offs.iter().filter(|(_, on)| *on).count() as f64 / offs.len().max(1) as f64;
        (share, edges.values().filter(whole).count())
    }

    fn all_around(&self, designed: usize) -> Found {
        let least = ((designed as f64 * LEAST_SHARE) as usize).max(LEAST_SEEN / 2);
        let steps = |(far, step): (f64, f64)| {
            let count = (far / step).round() as i32;
            (-count..=count).map(move |place| f64::from(place) * step).collect::<Vec<f64>>()
        };
        let (pan, tilt, roll) = (self.head.pan().deg(), self.head.tilt().deg(), self.head.roll().deg());
        let mut all: Vec<(f64, Guess)> = vec![];
        for over in [0.0, 180.0] {
            for focal in FOCALS {
                for r in steps(ROLLS) {
                    for t in steps(TILTS) {
                        for p in steps(PANS) {
                            let guess = [pan + p, (tilt + t).clamp(-89.0, 89.0), roll + r + over, focal];
                            all.extend(self.fit(&guess, &self.map.wide, least).map(|fit| (fit, guess)));
                        }
                    }
                }
            }
        }
        let count = all.len().max(1) as f64;
        let mean = all.iter().map(|(fit, _)| fit).sum::<f64>() / count;
        let deviation = (all.iter().map(|(fit, _)| (fit - mean).powi(2)).sum::<f64>() / count).sqrt();
        all.sort_by(|a, b| b.0.total_cmp(&a.0));
        let mut starts: Vec<(f64, Guess)> = vec![];
        for (fit, guess) in all {
            if starts.len() < REFINED && starts.iter().all(|(_, held)| apart(held, &guess) > DIFFERENT_DEG) {
                starts.push((fit, guess));
            }
        }
        let coarse = starts.first().map_or(0.0, |(fit, _)| *fit);
        let mut best: Vec<(f64, Guess)> = starts.iter().map(|(_, guess)| self.refined(*guess, least)).collect();
        best.sort_by(|a, b| b.0.total_cmp(&a.0));
        // What was tried at first was held against edges farther off: how far the best stands out is told by that.
        Found { best, deviation: if deviation > 0.0 { (coarse - mean) / deviation } else { 0.0 } }
    }

    /// From a guess to the best one near it, by smaller and smaller steps (R. Hooke and T. A. Jeeves, "Direct search", 1961).
    fn refined(&self, from: Guess, least: usize) -> (f64, Guess) {
        let mut at = from;
        let mut fit = self.fit(&at, &self.map.plain, least).unwrap_or(0.0);
        let mut share = 1.0;
        while share > LAST_SHARE {
            let mut moved = false;
            for axis in 0..4 {
                for sign in [-1.0, 1.0] {
                    let mut tried = at;
                    tried[axis] += sign * share * FIRST_STEP[axis];
                    let then = self.fit(&tried, &self.map.plain, least).unwrap_or(0.0);
                    if then > fit {
                        (at, fit, moved) = (tried, then, true);
                    }
                }
            }
            if !moved {
                share *= 0.5;
            }
        }
        // Refined by how near edges are; held against others by how much nearer than their surroundings.
        (self.fit(&at, &self.map.narrow, least).unwrap_or(0.0), at)
    }

    fn told(&self, site: &Site, name: &HeadRef, found: Found) -> EdgeMatch {
        let (fit, guess) = found.best.first().copied().unwrap_or((0.0, [0.0, 0.0, 0.0, 1.0]));
        let others = found.best.iter().skip(1).filter(|(_, other)| apart(other, &guess) > DIFFERENT_DEG);
        let next = others.map(|(fit, _)| *fit).fold(0.0, f64::max);
        let (on_edges, edges) = self.on_edges(&guess);
        let is =
            |of: Limits| fit >= of.fit && fit >= of.better * next && found.deviation >= of.out && edges >= of.edges;
        let trust = if is(GOOD) {
            Trust::Good
        } else if is(FAIR) {
            Trust::Fair
        } else {
            Trust::None
        };
        let there = format!("{:.0} % of the plan's edges lie on edges of the picture", 100.0 * on_edges);
        let says = match trust {
            Trust::Good => format!("Found: {there}. Look at the crosses once"),
            Trust::Fair => format!("Perhaps so: {there}. Look at each cross"),
            Trust::None => "Nothing stands out: click landmarks".to_owned(),
        };
        let view = self.view(&guess);
        let marks = clickables(site, name).unwrap_or_default().into_iter().filter_map(|mark| {
            let (pixel, inside) = view.pixel_of(DVec3::from_array(mark.at))?;
            inside.then(|| FoundMark { id: mark.id, pixel: pixel.to_array() })
        });
        let camera = &site.file().cameras[self.head.camera()];
        let focal = camera.heads[self.head.place()].aimed(self.head.which()).focal_mm;
        let focal_px = self.head.view().projection.focal_px();
        EdgeMatch {
            trust,
            says,
            on_edges,
            pan_deg: guess[0].rem_euclid(360.0),
            tilt_deg: guess[1],
            roll_deg: Angle::degrees(guess[2]).wrapped().deg(),
            focal_mm: focal * guess[3],
            within_deg: (GOOD_TO_PX / self.scale / focal_px).atan().to_degrees(),
            marks: if trust == Trust::None { vec![] } else { marks.collect() },
        }
    }
}

/// How far two guesses are apart, degrees.
fn apart(a: &Guess, b: &Guess) -> f64 {
    (0..3).map(|axis| Angle::degrees(a[axis] - b[axis]).wrapped().abs().deg()).fold(0.0, f64::max)
}

/// The direction of a stretch of the picture, one of [`WAYS`].
fn way_of(step: DVec2) -> usize {
    let turn = step.y.atan2(step.x).rem_euclid(std::f64::consts::PI) / std::f64::consts::PI;
    (turn * WAYS as f64).round() as usize % WAYS
}

impl EdgeMap {
    fn of(picture: &GreyPicture, width: usize, height: usize) -> EdgeMap {
        let soft = softened(&picture.grey, width, height);
        let at = |x: usize, y: usize| f64::from(soft[y * width + x]);
        let mut gradients = vec![DVec2::ZERO; width * height];
        for y in 1..height - 1 {
            for x in 1..width - 1 {
                let right = at(x + 1, y - 1) + 2.0 * at(x + 1, y) + at(x + 1, y + 1);
                let left = at(x - 1, y - 1) + 2.0 * at(x - 1, y) + at(x - 1, y + 1);
                let below = at(x - 1, y + 1) + 2.0 * at(x, y + 1) + at(x + 1, y + 1);
                let above = at(x - 1, y - 1) + 2.0 * at(x, y - 1) + at(x + 1, y - 1);
                gradients[y * width + x] = DVec2::new(right - left, below - above) / 4.0;
            }
        }
        let mut strengths: Vec<f64> = gradients.iter().map(|gradient| gradient.length()).collect();
        let place = ((1.0 - STRONGEST) * (strengths.len() - 1) as f64) as usize;
        let (_, limit, _) = strengths.select_nth_unstable_by(place, f64::total_cmp);
        let limit = limit.max(LEAST_GRADIENT);
        let mut far = vec![vec![f32::MAX; width * height]; WAYS];
        for (place, gradient) in gradients.iter().enumerate() {
            if gradient.length() >= limit {
                // An edge runs square to its gradient; those next to its direction count as well.
                let way = way_of(DVec2::new(-gradient.y, gradient.x));
                for near in [WAYS - 1, 0, 1] {
                    far[(way + near) % WAYS][place] = if near == 0 { 0.0 } else { 0.5 };
                }
            }
        }
        far.iter_mut().for_each(|map| spread(map, width, height));
        let near = |reach: f64| far.iter().map(|map| over_usual(map, width, height, reach as f32)).collect();
        let plain = far.iter().map(|map| nearness(map, NEAR_PX as f32)).collect();
        EdgeMap { width, height, wide: near(FAR_PX), narrow: near(NEAR_PX), plain, far }
    }

    /// What a map has at a place for a direction.
    fn read(&self, maps: &[Vec<f32>], at: DVec2, way: usize) -> f64 {
        let x = (at.x as usize).min(self.width - 1);
        let y = (at.y as usize).min(self.height - 1);
        f64::from(maps[way][y * self.width + x])
    }
}

/// A picture with grain and fine patterns taken off: each pixel the mean of those around it.
fn softened(grey: &[u8], width: usize, height: usize) -> Vec<f32> {
    let plain: Vec<f32> = grey.iter().map(|value| f32::from(*value)).collect();
    means(&plain, width, height, 1)
}

/// The mean of a map around each pixel, so many to either side.
fn means(map: &[f32], width: usize, height: usize, around: usize) -> Vec<f32> {
    let mut sums = vec![0.0f64; (width + 1) * (height + 1)];
    for y in 0..height {
        let mut row = 0.0;
        for x in 0..width {
            row += f64::from(map[y * width + x]);
            sums[(y + 1) * (width + 1) + x + 1] = sums[y * (width + 1) + x + 1] + row;
        }
    }
    let mean = |x: usize, y: usize| {
        let (left, top) = (x.saturating_sub(around), y.saturating_sub(around));
        let (right, below) = ((x + around + 1).min(width), (y + around + 1).min(height));
        let at = |x: usize, y: usize| sums[y * (width + 1) + x];
        let sum = at(right, below) - at(left, below) - at(right, top) + at(left, top);
        (sum / ((right - left) * (below - top)) as f64) as f32
    };
    (0..width * height).map(|place| mean(place % width, place / width)).collect()
}

/// How near each pixel is to an edge, 1 on it and 0 past the reach.
fn nearness(far: &[f32], reach: f32) -> Vec<f32> {
    far.iter().map(|off| (1.0 - off / reach).max(0.0)).collect()
}

/// The same over how near its surroundings are.
fn over_usual(far: &[f32], width: usize, height: usize, reach: f32) -> Vec<f32> {
    let near = nearness(far, reach);
    let usual = means(&near, width, height, AROUND_PX);
    near.into_iter().zip(usual).map(|(near, usual)| near - usual).collect()
}

/// Distances to the nearest set pixel, forth and back (G. Borgefors, "Distance transformations in digital images", 1986; from memory).
fn spread(map: &mut [f32], width: usize, height: usize) {
    const SIDE: f32 = 1.0;
    const ACROSS: f32 = std::f32::consts::SQRT_2;
    let near = |map: &mut [f32], place: usize, other: usize, by: f32| {
        let through = map[other] + by;
        if through < map[place] {
            map[place] = through;
        }
    };
    for y in 0..height {
        for x in 0..width {
            let place = y * width + x;
            if x > 0 {
                near(map, place, place - 1, SIDE);
            }
            if y > 0 {
                near(map, place, place - width, SIDE);
                if x > 0 {
                    near(map, place, place - width - 1, ACROSS);
                }
                if x + 1 < width {
                    near(map, place, place - width + 1, ACROSS);
                }
            }
        }
    }
    for y in (0..height).rev() {
        for x in (0..width).rev() {
            let place = y * width + x;
            if x + 1 < width {
                near(map, place, place + 1, SIDE);
            }
            if y + 1 < height {
                near(map, place, place + width, SIDE);
                if x + 1 < width {
                    near(map, place, place + width + 1, ACROSS);
                }
                if x > 0 {
                    near(map, place, place + width - 1, ACROSS);
                }
            }
        }
    }
}

/// Points along the edges of what is built, that the camera's rays reach, whichever way it is turned.
fn edges_seen(site: &Site, head: &Head) -> Vec<EdgePoint> {
    let eye = eye_around(site, head);
    let here = head.position();
    let mut found = vec![];
    let mut count_of_edges = 0;
    let mut edge = |a: DVec3, b: DVec3| {
        count_of_edges += 1;
        let long = a.distance(b);
        let middle = a.lerp(b, 0.5).distance(here).max(NEAREST_M);
        let count = (long / middle / APART_DEG.to_radians()).ceil().clamp(1.0, 200.0);
        let step = (b - a) * (0.2 / count).min(0.5);
        for place in 0..count as usize {
            let at = a.lerp(b, (place as f64 + 0.5) / count);
            if at.distance(here) > NEAREST_M && reaches(site, &eye, at) {
                found.push(EdgePoint { at, along: at + step, edge: count_of_edges });
            }
        }
    };
    for obstacle in &site.file().obstacles {
        if matches!(obstacle.kind, ObstacleKind::Tree | ObstacleKind::Vehicle) || obstacle.open_outline.is_some() {
            continue;
        }
        let corners: Vec<DVec2> = obstacle.standing().iter().map(|p| DVec2::from_array(*p)).collect();
        let [top, base] = [obstacle.top_m, obstacle.base_m].map(|height| obstacle.ground_m + height);
        let last = if obstacle.closed { corners.len() } else { corners.len().saturating_sub(1) };
        for place in 0..last {
            let (a, b) = (corners[place], corners[(place + 1) % corners.len()]);
            edge(a.extend(top), b.extend(top));
            edge(a.extend(base), b.extend(base));
        }
        for corner in &corners {
            edge(corner.extend(base), corner.extend(top));
        }
    }
    if found.len() > MOST_POINTS {
        let every = found.len() as f64 / MOST_POINTS as f64;
        found = (0..MOST_POINTS).map(|place| found[(place as f64 * every) as usize]).collect();
    }
    found
}
