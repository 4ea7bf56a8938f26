//! Footprints: where on the plan a head meets each need, with what stands in the way taken out.
//!
//! They are for drawing: at eye height, on rays a degree apart and at the corners of the solids,
//! rounded to the centimetre.

use crate::interval::Interval;
use crate::needs::Task;
use crate::rules::Rules;
use crate::{Angle, Head, Scene, Site, Solid};
use glam::{DVec2, DVec3};
use serde::Serialize;
use utoipa::ToSchema;

/// The height that footprints are computed at, m: a standing person's eyes.
pub const HEIGHT_M: f64 = 1.6;
/// Rays are no further apart than this, degrees.
const RAY_STEP_DEG: f64 = 1.0;
/// Rays on both sides of a corner are this far from it, degrees.
const CORNER_DEG: f64 = 0.01;
/// Steps along a ray between which the picture's edges are sought.
const STEPS: usize = 48;
/// Nearest ground distance looked at, m.
const NEAREST_M: f64 = 0.05;

/// Where one head meets each need.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Footprint {
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// The needs from the least to the greatest, each with where it is met.
    pub bands: Vec<Band>,
    /// The picture's outline on the ground, solids not regarded, as far as the least need reaches.
    pub outline: Vec<Vec<[f64; 2]>>,
}

/// Where a need is met.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Band {
    /// The task.
    pub task: Task,
    /// Its need, px/m.
    pub px_per_m: f64,
    /// Simple polygons, metres east and north.
    pub polygons: Vec<Vec<[f64; 2]>>,
}

/// The footprints of all heads of a site.
pub fn footprints(site: &Site) -> Vec<Footprint> {
    site.heads().iter().map(|head| footprint(head, site.rules(), site.scene())).collect()
}

/// The greatest distance, m, at which a head gives a need on its axis.
pub(crate) fn range_of(head: &Head, need: f64) -> f64 {
    // Off the axis a rectilinear picture is denser than on it: half as far again covers the corners.
    1.5 * head.view.projection.focal_px / need
}

/// The place between `outside` and `inside` from which on `holds` is true.
pub(crate) fn edge_between(outside: f64, inside: f64, holds: impl Fn(f64) -> bool) -> f64 {
    let (mut out, mut inn) = (outside, inside);
    if holds(out) {
        return out;
    }
    for _ in 0..50 {
        let middle = 0.5 * (out + inn);
        if holds(middle) { inn = middle } else { out = middle }
    }
    inn
}

fn footprint(head: &Head, rules: &Rules, scene: &Scene) -> Footprint {
    let contours = rules.needs.contours();
    let farthest = range_of(head, contours[0].1);
    let bearings = bearings(head, scene, farthest);
    let mut bands: Vec<Strips> = contours.iter().map(|_| Strips::default()).collect();
    let mut outline = Strips::default();
    for bearing in bearings {
        let ray = Ray { head, bearing };
        let ends = ray.need_ends(&contours.map(|(_, need)| need), farthest, HEIGHT_M);
        for (strips, seen) in bands.iter_mut().zip(ray.seen(scene, &ends)) {
            strips.add(&ray, seen);
        }
        outline.add(&ray, ray.in_picture(farthest, 0.0).into_iter().collect());
    }
    let bands = contours
        .into_iter()
        .zip(bands)
        .map(|((task, px_per_m), strips)| Band { task, px_per_m, polygons: strips.polygons() })
        .collect();
    Footprint { camera: head.camera_id.clone(), head: head.id.clone(), bands, outline: outline.polygons() }
}

/// The bearings to look along, ascending over a whole turn that starts behind the head.
fn bearings(head: &Head, scene: &Scene, farthest: f64) -> Vec<Angle> {
    let here = head.position().truncate();
    let start = head.view.heading().deg() - 180.0;
    let mut turns: Vec<f64> = (0..=(360.0 / RAY_STEP_DEG) as u32).map(|i| f64::from(i) * RAY_STEP_DEG).collect();
    let corners = scene.solids().iter().flat_map(Solid::corners).filter(|corner| corner.distance(here) < farthest);
    for corner in corners {
        let to = *corner - here;
        let turn = (Angle::bearing_of(to.x, to.y).deg() - start).rem_euclid(360.0);
        turns.extend([turn - CORNER_DEG, turn + CORNER_DEG]);
    }
    turns.retain(|turn| (0.0..=360.0).contains(turn));
    turns.sort_by(f64::total_cmp);
    turns.into_iter().map(|turn| Angle::degrees(start + turn)).collect()
}

/// A horizontal direction from a head.
struct Ray<'a> {
    head: &'a Head,
    bearing: Angle,
}

impl Ray<'_> {
    fn at(&self, ground: f64, z: f64) -> DVec3 {
        let here = self.head.position();
        DVec3::new(here.x + self.bearing.sin() * ground, here.y + self.bearing.cos() * ground, z)
    }

    /// The first stretch along the ray, at a height, that is in the picture.
    fn in_picture(&self, farthest: f64, z: f64) -> Option<Interval> {
        let growth = (farthest / NEAREST_M).powf(1.0 / (STEPS - 1) as f64);
        let ground = |step: usize| NEAREST_M * growth.powi(step as i32);
        let holds = |ground: f64| self.head.view.holds(self.at(ground, z));
        let first = (0..STEPS).find(|step| holds(ground(*step)))?;
        let last = (first..STEPS).take_while(|step| holds(ground(*step))).last()?;
        let start = if first == 0 { 0.0 } else { edge_between(ground(first - 1), ground(first), holds) };
        let end = if last + 1 == STEPS { farthest } else { edge_between(ground(last + 1), ground(last), holds) };
        Interval::new(start, end)
    }

    /// The stretch along the ray that meets each need, solids not regarded.
    fn need_ends(&self, needs: &[f64; 5], farthest: f64, z: f64) -> [Option<Interval>; 5] {
        let Some(picture) = self.in_picture(farthest, z) else { return [None; 5] };
        needs.map(|need| {
            let meets = |ground: f64| self.head.view.across_at(self.at(ground, z)) >= need;
            let near = picture.start.max(NEAREST_M);
            meets(near)
                .then(|| edge_between(picture.end, near, meets))
                .and_then(|end| Interval::new(picture.start, end))
        })
    }

    /// What is left of stretches along the ray where solids hide it.
    fn seen(&self, scene: &Scene, stretches: &[Option<Interval>; 5]) -> [Vec<Interval>; 5] {
        let Some(longest) = stretches.iter().flatten().map(|s| s.end).reduce(f64::max) else {
            return Default::default();
        };
        let mut shadows = self.shadows(scene, longest);
        stretches.map(|stretch| stretch.map_or(vec![], |stretch| stretch.without(&mut shadows)))
    }

    /// The stretches along the ray, up to `to_m`, that solids hide at [`HEIGHT_M`].
    fn shadows(&self, scene: &Scene, to_m: f64) -> Vec<Interval> {
        let (here, end) = (self.head.position(), self.at(to_m, HEIGHT_M));
        let (from, to) = (here.truncate(), end.truncate());
        scene
            .solids()
            .iter()
            .filter(|solid| solid.blocks && near_segment(solid, from, to))
            .flat_map(|solid| {
                solid.over(from, to).into_iter().filter_map(|over| {
                    shadow(here.z, HEIGHT_M, solid, Interval { start: over.start * to_m, end: over.end * to_m })
                })
            })
            .collect()
    }
}

/// Whether the box of a solid meets the box of a segment.
fn near_segment(solid: &Solid, from: DVec2, to: DVec2) -> bool {
    let (low, high) = (from.min(to), from.max(to));
    let corners = solid.corners().iter();
    let least = corners.clone().fold(DVec2::INFINITY, |a, b| a.min(*b));
    let most = corners.fold(DVec2::NEG_INFINITY, |a, b| a.max(*b));
    least.cmple(high).all() && most.cmpge(low).all()
}

/// The ground distances at which a point at height `z` is hidden from height `h` by a solid that the
/// ray crosses over `cut`: the line from (0, h) to (g, z) passes between its base and its top.
fn shadow(h: f64, z: f64, solid: &Solid, cut: Interval) -> Option<Interval> {
    let (base, top) = (solid.base, solid.top);
    let never = f64::INFINITY;
    let (start, end) = if h > z {
        // The line falls: over the near side it must have come under the top … by the far side, and
        // must still be over the base on the near side.
        let start = if base < h { cut.start * ((h - z) / (h - base)).max(1.0) } else { never };
        let end = if top < h { cut.end * (h - z) / (h - top) } else { never };
        (start, if top > z { end } else { cut.start })
    } else {
        let start = if top > z {
            cut.start
        } else if top > h {
            cut.start * (z - h) / (top - h)
        } else {
            never
        };
        let end = if base < h {
            never
        } else if base < z {
            cut.end * (z - h) / (base - h)
        } else {
            cut.start
        };
        (start, end)
    };
    Interval::new(start, end)
}

/// Joins the stretches of neighbouring rays to polygons.
#[derive(Default)]
struct Strips {
    open: Vec<Strip>,
    done: Vec<Vec<[f64; 2]>>,
}

/// A polygon in the making: its near and its far side.
struct Strip {
    near: Vec<[f64; 2]>,
    far: Vec<[f64; 2]>,
}

impl Strips {
    fn add(&mut self, ray: &Ray, stretches: Vec<Interval>) {
        if stretches.len() != self.open.len() {
            self.close();
            self.open = stretches.iter().map(|_| Strip { near: vec![], far: vec![] }).collect();
        }
        for (strip, stretch) in self.open.iter_mut().zip(stretches) {
            strip.near.push(rounded(ray.at(stretch.start, 0.0)));
            strip.far.push(rounded(ray.at(stretch.end, 0.0)));
        }
    }

    fn close(&mut self) {
        for strip in self.open.drain(..).filter(|strip| strip.near.len() > 1) {
            let mut polygon = strip.near;
            polygon.dedup();
            polygon.extend(strip.far.into_iter().rev());
            self.done.push(polygon);
        }
    }

    fn polygons(mut self) -> Vec<Vec<[f64; 2]>> {
        self.close();
        self.done
    }
}

fn rounded(at: DVec3) -> [f64; 2] {
    [at.x, at.y].map(|value| (value * 100.0).round() / 100.0)
}
