//! The wish that cameras deter at a target, or go unnoticed there, with its verdict.
//!
//! Every sample of the target is a place where somebody stands. As stated he stands right there and sees as an eye of acuity 1.0 does;
//! at worst he stands anywhere that the target's distance leaves open, is short or tall, and has a poor eye where the cameras shall
//! deter, a very good one where they shall go unnoticed.

use super::seen_from::{Body, ENOUGH, EYES_M};
use crate::equipment::looks::{ACUITY, GOOD_ACUITY, POOR_ACUITY, recognised_to};
use crate::file::CameraWish;
use crate::math::Separation;
use crate::scene::{Eye, Volume};
use crate::site::{Site, Target};
use crate::verdict::Verdict;
use crate::words::units::Units;
use glam::{DVec2, DVec3};
use serde::Serialize;
use utoipa::ToSchema;

/// How much lower or higher eyes may be, m.
const EYES_OFF_M: f64 = 0.15;
/// What is open to either side is looked at in steps of this, m: half a body.
const STEP_M: f64 = 0.05;
/// … but in so many at most.
const MOST_STEPS: usize = 40;
/// A place that a solid cuts off ends so far before its face, as a share of the way.
const BEFORE_FACE: f64 = 1e-6;

/// What becomes of a target's wish.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct WishTold {
    /// The target.
    pub target: String,
    /// What is wished.
    pub wish: CameraWish,
    /// Whether it comes true.
    pub verdict: Verdict,
    /// At how many places of the target somebody can stand.
    pub places: usize,
    /// From how many of them a camera is seen.
    pub seen_from: usize,
    /// The place that decides, m east and north.
    #[schema(required)]
    pub at: Option<[f64; 2]>,
    /// The cameras that are seen from any of these places, the one seen from most of them first.
    pub cameras: Vec<String>,
    /// Up to where the direction of the first of them can be read, m; null where it never can, and where none is seen.
    #[schema(required)]
    pub direction_to_m: Option<f64>,
    /// All of it in words.
    pub says: String,
    /// What is not judged.
    pub left_out: String,
}

/// What becomes of the wishes of all targets that have one.
pub fn wishes(site: &Site, units: Units) -> Vec<WishTold> {
    let bodies: Vec<Body> = Body::all_of(site).collect();
    let wished = site.file().targets.iter().zip(site.targets());
    wished.filter_map(|(file, target)| Some(told(site, &bodies, target, file.cameras_shall?, units))).collect()
}

/// From a place a camera is seen as stated; however it may be; for certain.
#[derive(Clone, Copy, Default)]
struct Seen {
    stated: bool,
    perhaps: bool,
    surely: bool,
}

fn told(site: &Site, bodies: &[Body], target: &Target, wish: CameraWish, units: Units) -> WishTold {
    let stands = |sample: &DVec3| eyes_at(target, sample.truncate(), 0.0);
    let places: Vec<DVec3> =
        target.samples.iter().filter(|s| site.scene().solid_around(stands(s)).is_none()).copied().collect();
    let of_bodies: Vec<Vec<Seen>> =
        bodies.iter().map(|body| places.iter().map(|place| seen(site, body, target, *place)).collect()).collect();
    let any = |place: usize, of: fn(&Seen) -> bool| of_bodies.iter().any(|seen| of(&seen[place]));
    let all: Vec<Seen> = (0..places.len())
        .map(|place| Seen {
            stated: any(place, |seen| seen.stated),
            perhaps: any(place, |seen| seen.perhaps),
            surely: any(place, |seen| seen.surely),
        })
        .collect();
    let as_stated = |seen: &Seen| seen.stated == (wish == CameraWish::Deter);
    let at_worst = |seen: &Seen| match wish {
        CameraWish::Deter => seen.surely,
        CameraWish::GoUnnoticed => !seen.perhaps,
    };
    let verdict = if places.is_empty() {
        Verdict::Unknown
    } else {
        Verdict::of(all.iter().all(as_stated), all.iter().all(at_worst))
    };
    let decides = all.iter().position(|seen| !as_stated(seen)).or_else(|| all.iter().position(|seen| !at_worst(seen)));
    let mut counted: Vec<(usize, &Body)> = bodies
        .iter()
        .zip(&of_bodies)
        .map(|(body, seen)| (seen.iter().filter(|seen| seen.stated).count(), body))
        .filter(|(count, _)| *count > 0)
        .collect();
    counted.sort_by_key(|(count, _)| std::cmp::Reverse(*count));
    let first = counted.first().map(|(_, body)| *body);
    let mut told = WishTold {
        target: target.id.clone(),
        wish,
        verdict,
        places: places.len(),
        seen_from: all.iter().filter(|seen| seen.stated).count(),
        at: decides.map(|place| places[place].truncate().to_array()),
        cameras: counted.iter().map(|(_, body)| body.camera().to_owned()).collect(),
        direction_to_m: first.and_then(|body| Some(recognised_to(body.looks.points_m?, ACUITY))),
        says: String::new(),
        left_out: "By day only. Whether anybody looks up, and a camera's own red light by night, are not judged."
            .to_owned(),
    };
    told.says = says(site, &told, units);
    told
}

/// Eyes over a point of the plan, so much higher or lower than usual.
fn eyes_at(target: &Target, at: DVec2, by: f64) -> DVec3 {
    at.extend(target.ground + EYES_M + by)
}

/// How a camera is seen from one place of a target.
fn seen(site: &Site, body: &Body, target: &Target, sample: DVec3) -> Seen {
    let scene = site.scene();
    let known_to = |acuity: f64| recognised_to(body.looks.body_m, acuity);
    let stands = eyes_at(target, sample.truncate(), 0.0);
    let stated = body.middle.distance(stands) <= known_to(ACUITY) && body.free_from(scene, stands) >= ENOUGH;
    let open = MayStand::new(site, body, target, sample);
    let mut seen = Seen { stated, perhaps: stated, surely: stated };
    if open.is_clear(site, body) {
        let far = open.places(site, 2).map(|eyes| body.middle.distance(eyes));
        let (nearest, farthest) =
            far.fold((f64::INFINITY, 0.0_f64), |(least, most), off| (least.min(off), most.max(off)));
        return Seen {
            stated,
            perhaps: stated || nearest <= known_to(GOOD_ACUITY),
            surely: stated && farthest <= known_to(POOR_ACUITY),
        };
    }
    for eyes in open.places(site, open.steps()) {
        let (off, free) = (body.middle.distance(eyes), body.free_from(scene, eyes));
        seen.perhaps |= free > 0.0 && off <= known_to(GOOD_ACUITY);
        seen.surely &= free >= ENOUGH && off <= known_to(POOR_ACUITY);
        if seen.perhaps && !seen.surely {
            break;
        }
    }
    seen
}

/// Where the eyes may be of somebody who stands at a place: nearer and farther, to either side, lower and higher.
struct MayStand {
    /// The place as drawn, m.
    at: DVec2,
    /// The usual height of his eyes, m.
    eyes_m: f64,
    /// Away from the camera, and to the right of that.
    towards: DVec2,
    right: DVec2,
    /// How far he may be off, m.
    along: f64,
    across: f64,
    rise: f64,
}

impl MayStand {
    fn new(site: &Site, body: &Body, target: &Target, sample: DVec3) -> Self {
        let uncertain = &site.rules().uncertainties;
        let head = body.heads[0];
        let apart = Separation::between(body.middle, sample, || head.view().heading());
        MayStand {
            at: sample.truncate(),
            eyes_m: target.ground + EYES_M,
            towards: apart.towards,
            right: DVec2::new(apart.towards.y, -apart.towards.x),
            along: uncertain.distance(&target.distance, head.spot(), apart.ground),
            across: uncertain.across(&target.distance, apart.ground),
            rise: EYES_OFF_M + uncertain.rise(),
        }
    }

    /// Whether nothing at all stands between any of these eyes and the camera.
    fn is_clear(&self, site: &Site, body: &Body) -> bool {
        let corner = |along: f64, across: f64| self.at + self.towards * along + self.right * across;
        let radius = body.looks.body_m / 2.0;
        let across = self.across + radius;
        let corners: [DVec2; 4] =
            [(-1.0, -1.0), (1.0, -1.0), (1.0, 1.0), (-1.0, 1.0)].map(|(a, b)| corner(a * self.along, b * across));
        let (low, high) = (self.eyes_m - self.rise, self.eyes_m + self.rise);
        let lines = Volume::new(body.middle, radius, &corners, self.at, low, high);
        !site.scene().stands_in(&lines) && !Eye::is_dimmed(site.scene(), &lines)
    }

    /// Into how many steps what is open to either side is cut: no wider than half a body, but so many at most.
    fn steps(&self) -> usize {
        ((2.0 * self.across / STEP_M).ceil() as usize).clamp(2, MOST_STEPS)
    }

    /// The places of the eyes, in front of what stands there.
    fn places<'a>(&'a self, site: &'a Site, steps: usize) -> impl Iterator<Item = DVec3> + 'a {
        let sides = (0..=steps).map(move |i| 2.0 * i as f64 / steps as f64 - 1.0);
        sides.flat_map(move |side| {
            [-1.0, 0.0, 1.0].into_iter().flat_map(move |farther| {
                [-self.rise, self.rise].into_iter().map(move |by| {
                    let at = self.at + self.towards * self.along * farther + self.right * self.across * side;
                    let (stands, may) = (self.at.extend(self.eyes_m + by), at.extend(self.eyes_m + by));
                    match site.scene().first_blocker(stands, may) {
                        Some((_, share)) => stands.lerp(may, (share - BEFORE_FACE).max(0.0)),
                        None => may,
                    }
                })
            })
        })
    }
}

fn says(site: &Site, told: &WishTold, units: Units) -> String {
    let first = told.cameras.first().and_then(|id| site.file().cameras.iter().find(|camera| &camera.id == id));
    let first = first.map_or("no camera", |camera| camera.name.as_str());
    let WishTold { places, seen_from, .. } = *told;
    let from = if places == 1 { "from here".to_owned() } else { format!("from {seen_from} of {places} places") };
    let direction = match (told.direction_to_m, told.cameras.is_empty()) {
        (_, true) => String::new(),
        (Some(to), _) => format!("; where {first} points can be read up to {}", units.reach(to)),
        (None, _) => format!("; where {first} points cannot be read"),
    };
    match (told.wish, told.verdict) {
        (_, Verdict::Unknown) => "Nobody can stand here: it lies inside of something.".to_owned(),
        (CameraWish::Deter, Verdict::Kept) => {
            format!("A camera is seen from everywhere here, first of all {first}{direction}.")
        }
        (CameraWish::Deter, Verdict::Tight) => {
            format!(
                "A camera is seen from everywhere here as drawn, but not for certain: a step aside, or a poor eye{direction}."
            )
        }
        (CameraWish::Deter, Verdict::Broken) if seen_from == 0 => "No camera is seen from here.".to_owned(),
        (CameraWish::Deter, Verdict::Broken) => format!("A camera is seen {from} only{direction}."),
        (CameraWish::GoUnnoticed, Verdict::Kept) => "No camera can be noticed from here.".to_owned(),
        (CameraWish::GoUnnoticed, Verdict::Tight) => {
            "No camera is noticed from here as drawn; a step aside, or a very good eye, and one is.".to_owned()
        }
        (CameraWish::GoUnnoticed, Verdict::Broken) => format!("{first} is seen {from}{direction}."),
    }
}
