//! Which cameras are seen from a place, and whether their direction can be read there.
//!
//! A camera is a ball of its form's size around the place where its lines begin. What of its disc, as seen from an eye, no solid
//! hides is its free share; a third of it is enough to know it for a camera.

use crate::equipment::looks::{ACUITY, Looks, looks, recognised_to};
use crate::file::Fault;
use crate::scene::Scene;
use crate::site::{Head, Site};
use crate::words::units::Units;
use glam::{DVec2, DVec3};
use serde::Serialize;
use utoipa::ToSchema;

/// How high the eyes of somebody who stands are, m: common practice, no source.
pub const EYES_M: f64 = 1.6;
/// The share of its body that must be free for a camera to be known for one.
pub const ENOUGH: f64 = 1.0 / 3.0;
/// Points that stand for the body.
const POINTS: usize = 24;
/// They go round by the golden angle, so that each stands for as much of the disc.
const GOLDEN: f64 = 2.399_963_229_728_653;
/// Who looks within this angle of somebody seems to look at him, degrees.
const AT_HIM_DEG: f64 = 20.0;

/// Whether it can be read where a camera points.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Direction {
    /// It can be read, and it points here.
    Here,
    /// It can be read, and it points elsewhere.
    Elsewhere,
    /// It is too far off to be read.
    TooFar,
    /// Its form never tells: a bubble, or a lens that sees all around.
    Untold,
}

/// One camera as seen from a place.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct CameraSeen {
    /// The camera.
    pub camera: String,
    /// How far off it is, m.
    pub slant_m: f64,
    /// The share of its body that nothing hides, 0 to 1.
    pub free: f64,
    /// Up to where a good eye knows it for a camera, m.
    pub known_to_m: f64,
    /// Whether it is seen, and known for a camera.
    pub seen: bool,
    /// Whether its direction can be read; null where it is not seen.
    #[schema(required)]
    pub direction: Option<Direction>,
    /// Up to where its direction can be read, m; null where its form never tells.
    #[schema(required)]
    pub direction_to_m: Option<f64>,
    /// The ids of what hides it.
    pub behind: Vec<String>,
    /// All of it in words.
    pub says: String,
}

/// The cameras as they are seen from a place.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SeenFrom {
    /// The place, m east and north.
    pub at: [f64; 2],
    /// The height of the eyes, m.
    pub eyes_m: f64,
    /// The id of the solid that the place lies inside of, where nobody stands.
    #[schema(required)]
    pub inside: Option<String>,
    /// The cameras: those that are seen first, then the nearest.
    pub cameras: Vec<CameraSeen>,
}

/// Tells which cameras somebody sees who stands at a place; `ground_m` is the height of the ground there.
///
/// # Errors
/// A place that is none.
pub fn seen_from(site: &Site, at: [f64; 2], ground_m: f64, units: Units) -> Result<SeenFrom, Fault> {
    let fits = at.iter().all(|axis| axis.abs() <= 1e6) && (-100.0..=500.0).contains(&ground_m);
    if !fits {
        return Err(Fault::new("at", "is no place of a site"));
    }
    let eyes = DVec2::from_array(at).extend(ground_m + EYES_M);
    let mut cameras: Vec<CameraSeen> = Body::all_of(site).map(|body| tell(site, &body, eyes, units)).collect();
    cameras.sort_by(|a, b| b.seen.cmp(&a.seen).then(a.slant_m.total_cmp(&b.slant_m)));
    let inside = site.scene().solid_around(eyes).map(|solid| solid.id().to_owned());
    Ok(SeenFrom { at, eyes_m: eyes.z, inside, cameras })
}

/// A camera as a body.
pub(super) struct Body<'a> {
    /// Its heads, which look from one place.
    pub heads: Vec<&'a Head>,
    /// Its middle, m.
    pub middle: DVec3,
    pub looks: Looks,
}

impl<'a> Body<'a> {
    /// The bodies of all cameras that are to hang there.
    pub fn all_of(site: &'a Site) -> impl Iterator<Item = Body<'a>> {
        site.file().cameras.iter().enumerate().filter_map(|(place, camera)| {
            let heads: Vec<&Head> = site.heads().iter().filter(|head| head.camera() == place).collect();
            let first = *heads.first()?;
            let middle = site.scene().out_of_mounting(first.position(), first.mounted_on());
            Some(Body { heads, middle, looks: looks(camera.model.form) })
        })
    }

    /// The id of the camera.
    pub fn camera(&self) -> &'a str {
        self.heads[0].camera_id()
    }

    /// The share of the body that nothing hides from an eye.
    pub fn free_from(&self, scene: &Scene, eye: DVec3) -> f64 {
        let free = self.points_from(eye).filter(|point| blockers(scene, eye, *point).is_none()).count();
        free as f64 / POINTS as f64
    }

    /// Points of its disc, square to the line from an eye.
    fn points_from(&self, eye: DVec3) -> impl Iterator<Item = DVec3> {
        let line = (self.middle - eye).normalize_or(DVec3::X);
        let (right, up) = line.any_orthonormal_pair();
        let (middle, radius) = (self.middle, self.looks.body_m / 2.0);
        (0..POINTS).map(move |i| {
            let out = radius * ((i as f64 + 0.5) / POINTS as f64).sqrt();
            let (sin, cos) = (i as f64 * GOLDEN).sin_cos();
            middle + (right * cos + up * sin) * out
        })
    }
}

/// The first thing that hides a point from an eye: its place among the solids.
fn blockers(scene: &Scene, eye: DVec3, point: DVec3) -> Option<String> {
    let first = scene.first_blocker(eye, point).map(|(solid, _)| solid.id());
    let dimmed = || scene.dimmed_by(eye, point).map(|(_, place)| scene.solids()[place].id());
    first.or_else(dimmed).map(str::to_owned)
}

fn tell(site: &Site, body: &Body, eyes: DVec3, units: Units) -> CameraSeen {
    let scene = site.scene();
    let free = body.free_from(scene, eyes);
    let slant_m = body.middle.distance(eyes);
    let known_to_m = recognised_to(body.looks.body_m, ACUITY);
    let direction_to_m = body.looks.points_m.map(|wide| recognised_to(wide, ACUITY));
    let seen = free >= ENOUGH && slant_m <= known_to_m;
    let mut behind: Vec<String> = Vec::new();
    for id in body.points_from(eyes).filter_map(|point| blockers(scene, eyes, point)) {
        if !behind.contains(&id) {
            behind.push(id);
        }
    }
    let direction = seen.then(|| match direction_to_m {
        None => Direction::Untold,
        Some(to) if slant_m > to => Direction::TooFar,
        Some(_) if points_at(body, eyes) => Direction::Here,
        Some(_) => Direction::Elsewhere,
    });
    let mut told = CameraSeen {
        camera: body.camera().to_owned(),
        slant_m,
        free,
        known_to_m,
        seen,
        direction,
        direction_to_m,
        behind,
        says: String::new(),
    };
    told.says = says(site, &told, units);
    told
}

/// Whether one of a camera's heads seems to look at an eye.
fn points_at(body: &Body, eyes: DVec3) -> bool {
    let towards = eyes - body.middle;
    body.heads.iter().any(|head| head.axis().angle_between(towards).to_degrees() <= AT_HIM_DEG)
}

fn says(site: &Site, told: &CameraSeen, units: Units) -> String {
    let off = units.reach(told.slant_m);
    let names = || {
        let of = |id: &String| {
            site.file().obstacles.iter().find(|o| &o.id == id).map_or_else(|| id.clone(), |o| o.name.clone())
        };
        told.behind.iter().take(2).map(of).collect::<Vec<_>>().join(" and ")
    };
    match told.direction {
        None if told.free == 0.0 => format!("hidden behind {}", names()),
        None if told.free < ENOUGH => format!("all but hidden behind {}", names()),
        None => format!("{off} off, too far to be known for a camera: up to {}", units.reach(told.known_to_m)),
        Some(Direction::Here) => format!("seen, {off} off; one can read that it points here"),
        Some(Direction::Elsewhere) => format!("seen, {off} off; one can read that it points elsewhere"),
        Some(Direction::TooFar) => {
            let to = told.direction_to_m.map_or_else(String::new, |to| units.reach(to));
            format!("seen, {off} off; where it points can be read up to {to}")
        }
        Some(Direction::Untold) => format!("seen, {off} off; where it points cannot be read"),
    }
}
