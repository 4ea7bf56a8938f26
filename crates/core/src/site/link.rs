//! A fixed view that points a head that is turned from afar: the pose of the one in the other, from pairs of what both see.
//!
//! Source: handbook, section 11. A pair is a pixel of the fixed view and the pan and tilt with which the turned head has the same thing in
//! the middle of its picture. Things lie on the ground: the fixed view's ray meets it at a known place. Sought are the place of the
//! turned head and how its own scales are turned (pan zero, and the tilt of its axis), six figures, by Gauss and Newton on the
//! angles between where it looked and where it should have looked. Four pairs give eight equations.

use crate::file::{Fault, Link};
use crate::math::least_squares::{Fit, Settled, Stuck, Until, settle};
use crate::math::{Angle, Pose, hull};
use crate::scene::Eye;
use crate::site::centred::Centred;
use crate::site::{Head, Site};
use glam::{DMat3, DVec2, DVec3};
use nalgebra::{DMatrix, DVector};
use serde::Serialize;
use utoipa::ToSchema;

/// The fewest pairs.
pub const LEAST_PAIRS: usize = 4;
/// A place is looked at so far over the ground, m; ground within so far of a target is like there, m (our defaults).
const OVER_GROUND_M: f64 = 0.05;
const NEAR_M: f64 = 10.0;
const FIGURES: usize = 6;
const UNTIL: Until = Until { length: 1e-10, steps: 60 };
/// With more pairs than this none is left out to see how the others agree.
const MOST_LEFT_OUT: usize = 40;
/// Where the figures are taken from: how well the drawn place is known, m, and the scales, radians. They hold what few pairs leave
/// open, and weigh nothing beside a pair that is good to a tenth of a degree.
const PLACE_SIGMA_M: f64 = 2.0;
const TURN_SIGMA: f64 = 1.0;
/// How well a pair is pointed, radians (our default: a tenth of a degree).
const POINTED_SIGMA: f64 = 0.1 * std::f64::consts::PI / 180.0;

/// Where a turned head is to look so that it has what a pixel of a fixed view shows.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PointedThrough {
    /// Its pan, degrees on its own scale.
    pub pan_deg: f64,
    /// Its tilt.
    pub tilt_deg: f64,
    /// Why that is not to be trusted there, in words; nothing where it is.
    pub cautions: Vec<String>,
}

/// One of the fixed views that point a head.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LinkView {
    /// Its camera.
    pub camera: String,
    /// Its head.
    pub head: String,
    /// How many pairs it has.
    pub pairs: usize,
    /// The root of the mean of the squares of what they are off, degrees.
    pub rms_deg: f64,
    /// Why its pairs say nothing any more; null where they do.
    #[schema(required)]
    pub past: Option<String>,
}

/// How a turned head hangs, as its pairs have it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LinkFound {
    /// The fixed views, in their order.
    pub views: Vec<LinkView>,
    /// Where it is, m east, north and up.
    pub position: [f64; 3],
    /// How far that is from where it is drawn, m.
    pub moved_m: f64,
    /// The bearing that its pan of zero looks to, degrees.
    pub pan_zero_deg: f64,
    /// How far its axis leans off the plumb line, degrees.
    pub leans_deg: f64,
    /// By how much each pair is off, degrees, in their order, view after view.
    pub off_deg: Vec<f64>,
    /// The place in the list of the pair that is off most.
    pub worst: usize,
    /// The root of the mean of the squares of what they are off, degrees.
    pub rms_deg: f64,
}

/// How a turned head hangs: its place, and the turn from its own axes to the site's.
#[derive(Clone, Copy, Debug)]
struct Hung {
    at: DVec3,
    turn: DMat3,
}

impl Hung {
    /// From its drawn place and six figures: three metres, three turns.
    fn of(drawn: DVec3, figures: &[f64; FIGURES]) -> Hung {
        let [x, y, z, pan, lean, tip] = *figures;
        let turn = DMat3::from_rotation_z(-pan) * DMat3::from_rotation_x(lean) * DMat3::from_rotation_y(tip);
        Hung { at: drawn + DVec3::new(x, y, z), turn }
    }

    /// The direction that a pan and a tilt on its own scales look in.
    fn looks(&self, pan_deg: f64, tilt_deg: f64) -> DVec3 {
        self.turn * Pose::new(DVec3::ZERO, Angle::degrees(pan_deg), Angle::degrees(tilt_deg), Angle::ZERO).forward
    }

    /// By how much each pair is off, degrees.
    fn misses_deg(&self, pairs: &[Pointed]) -> Vec<f64> {
        let miss =
            |pair: &Pointed| self.looks(pair.pan_deg, pair.tilt_deg).angle_between(pair.place - self.at).to_degrees();
        pairs.iter().map(miss).collect()
    }

    /// The pan and tilt on its own scales that look at a point.
    fn aim_at(&self, point: DVec3) -> Centred {
        Centred::on(self.turn.transpose() * (point - self.at))
    }
}

/// A pair, with where on the ground it lies.
#[derive(Clone, Copy, Debug)]
struct Pointed {
    pan_deg: f64,
    tilt_deg: f64,
    place: DVec3,
}

/// The place in the list of the pair that fits worst: the one without which the others agree best. With few pairs the others
/// always agree; there it is the one that is off most.
fn worst(drawn: DVec3, pairs: &[Pointed], off: &[f64]) -> usize {
    let without = |left_out: usize| {
        let others: Vec<Pointed> =
            (0..pairs.len()).filter(|place| *place != left_out).map(|place| pairs[place]).collect();
        let misses = Hung::of(drawn, &solve(drawn, &others)).misses_deg(&others);
        misses.iter().map(|miss| miss * miss).sum::<f64>()
    };
    if (LEAST_PAIRS + 2..=MOST_LEFT_OUT).contains(&pairs.len()) {
        let squares: Vec<f64> = (0..pairs.len()).map(without).collect();
        return (0..pairs.len()).min_by(|a, b| squares[*a].total_cmp(&squares[*b])).unwrap_or(0);
    }
    (0..off.len()).max_by(|a, b| off[*a].total_cmp(&off[*b])).unwrap_or(0)
}

/// Where a pixel's ray of a fixed view meets the ground, m; `None` for the sky.
fn on_ground(fixed: &Head, pixel: DVec2) -> Option<DVec3> {
    let ray = fixed.view().pose.to_site(fixed.view().projection.unproject(pixel)?);
    let here = fixed.position();
    (ray.z < -1e-6).then(|| here + ray * (here.z / -ray.z))
}

/// How a head hangs, as its link's pairs have it.
///
/// # Errors
/// Too few pairs, a pixel that shows the sky, or a fixed view that is not there.
pub fn link_of(site: &Site, camera: &str, head: &str) -> Result<LinkFound, Fault> {
    Ok(solved(site, camera, head)?.found)
}

/// The pan and tilt with which a linked head looks at what a pixel of one of its fixed views shows (0 for the first), and whether that is
/// to be trusted there.
///
/// # Errors
/// The same, a view that does not point it, and a pixel that shows the sky.
pub fn point_through(
    site: &Site,
    camera: &str,
    head: &str,
    pixel: [f64; 2],
    by: usize,
) -> Result<PointedThrough, Fault> {
    let Solved { hung, turned, seen, .. } = solved(site, camera, head)?;
    let none = || Fault::new("by", format!("{} fixed views point it", seen.len()));
    let Seen { fixed, link, places } = seen.get(by).ok_or_else(none)?;
    let sky = || Fault::new("pixel", "shows no ground: only what stands on the ground is pointed at");
    let place = on_ground(fixed, DVec2::from_array(pixel)).ok_or_else(sky)?;
    let Centred { pan_deg, tilt_deg } = hung.aim_at(place);
    Ok(PointedThrough { pan_deg, tilt_deg, cautions: cautions(site, turned, fixed, link, places, pixel, place) })
}

/// Why a place is not to be trusted.
fn cautions(
    site: &Site,
    turned: &Head,
    fixed: &Head,
    link: &Link,
    places: &[DVec3],
    pixel: [f64; 2],
    place: DVec3,
) -> Vec<String> {
    let mut said = vec![];
    let around = hull(link.pairs.iter().map(|pair| DVec2::from_array(pair.pixel)));
    let at = DVec2::from_array(pixel);
    let inside = around.len() >= 3
        && (0..around.len()).all(|corner| {
            let (a, b) = (around[corner], around[(corner + 1) % around.len()]);
            (b - a).perp_dot(at - a) >= 0.0
        });
    if !inside {
        let near = places.iter().map(|pair| pair.distance(place)).fold(f64::INFINITY, f64::min);
        said.push(format!("outside of the pairs, {near:.0} m from the nearest: extrapolated"));
    }
    let scene = site.scene();
    let name = |place: usize| {
        let id = scene.solids()[place].id();
        let held = site.file().obstacles.iter().find(|held| held.id == id);
        held.map_or_else(|| id.to_owned(), |held| held.name.clone())
    };
    // A little over the ground: what stands there counts, the ground itself does not.
    let over = place + DVec3::Z * OVER_GROUND_M;
    for (head, says) in [(fixed, "the fixed view sees"), (turned, "what it would see is")] {
        let eye = Eye::new(scene, head.position(), head.mounted_on());
        if let Some((share, solid)) = eye.first_solid(scene, over)
            && share < 1.0
        {
            said.push(format!("{says} {} there, not the ground", name(solid)));
        }
    }
    let uneven = site.file().targets.iter().any(|target| {
        let near =
            target.shape.points.iter().any(|point| DVec2::from_array(*point).distance(place.truncate()) < NEAR_M);
        near && target.ground_m != 0.0
    });
    if uneven {
        said.push("the ground is not flat there: the link takes it to be".to_owned());
    }
    said
}

/// A fixed view with its pairs.
struct Seen<'a> {
    fixed: &'a Head,
    link: &'a Link,
    places: Vec<DVec3>,
}

/// A head that is pointed, solved.
struct Solved<'a> {
    hung: Hung,
    turned: &'a Head,
    seen: Vec<Seen<'a>>,
    found: LinkFound,
}

fn solved<'a>(site: &'a Site, camera: &str, head: &str) -> Result<Solved<'a>, Fault> {
    let turned = site.head(camera, head)?;
    let file = &site.file().cameras[turned.camera()].heads[turned.place()];
    let links: Vec<&Link> = file.links().collect();
    if links.is_empty() {
        return Err(Fault::new("pointed_by", "no fixed view points this camera"));
    }
    let count: usize = links.iter().map(|link| link.pairs.len()).sum();
    if count < LEAST_PAIRS {
        let message = format!("{count} of the {LEAST_PAIRS} pairs that it takes");
        return Err(Fault::new("pointed_by.pairs", message));
    }
    let see = |(number, link): (usize, &&'a Link)| {
        let fixed = site.head(&link.camera, &link.head)?;
        Ok(Seen { fixed, link, places: places(fixed, link, number)? })
    };
    let seen: Vec<Seen> = links.iter().enumerate().map(see).collect::<Result<_, Fault>>()?;
    let drawn = turned.position();
    let pointed = |one: &Seen| {
        let pairs = one.link.pairs.iter().zip(one.places.clone());
        pairs.map(|(pair, place)| Pointed { pan_deg: pair.pan_deg, tilt_deg: pair.tilt_deg, place }).collect::<Vec<_>>()
    };
    let pairs: Vec<Pointed> = seen.iter().flat_map(pointed).collect();
    let hung = Hung::of(drawn, &solve(drawn, &pairs));
    let off = hung.misses_deg(&pairs);
    let worst = worst(drawn, &pairs, &off);
    let zero = hung.looks(0.0, 0.0);
    let mut left = &off[..];
    let views = seen.iter().map(|one| {
        let (own, rest) = left.split_at(one.link.pairs.len());
        left = rest;
        LinkView {
            camera: one.link.camera.clone(),
            head: one.link.head.clone(),
            pairs: own.len(),
            rms_deg: rms(own),
            past: past(site, turned, one),
        }
    });
    let found = LinkFound {
        views: views.collect(),
        position: hung.at.to_array(),
        moved_m: hung.at.distance(drawn),
        pan_zero_deg: Angle::bearing_of(zero.x, zero.y).deg(),
        leans_deg: (hung.turn * DVec3::Z).angle_between(DVec3::Z).to_degrees(),
        worst,
        rms_deg: rms(&off),
        off_deg: off,
    };
    Ok(Solved { hung, turned, seen, found })
}

fn rms(off: &[f64]) -> f64 {
    (off.iter().map(|off| off * off).sum::<f64>() / off.len().max(1) as f64).sqrt()
}

/// Why a view's pairs say nothing any more: the fixed view looks elsewhere, or either hangs elsewhere. Where the turned one looks is
/// what is pointed.
fn past(site: &Site, turned: &Head, seen: &Seen) -> Option<String> {
    let then = seen.link.hung.as_ref()?;
    let cameras = &site.file().cameras;
    let (fixed, own) = (&cameras[seen.fixed.camera()], &cameras[turned.camera()]);
    let now = fixed.hung(seen.fixed.id(), None)?;
    if let Some(differs) = then.fixed.differs(&now) {
        return Some(format!("{}: {differs}, take its pairs again", fixed.name));
    }
    let moved = own.hung(turned.id(), turned.view_id()).is_some_and(|now| !then.turned.same_place(&now));
    moved.then(|| format!("{} hangs elsewhere now: take its pairs again", own.name))
}

/// Where the pairs' pixels lie on the ground.
fn places(fixed: &Head, link: &Link, number: usize) -> Result<Vec<DVec3>, Fault> {
    let at = if number == 0 { "pointed_by".to_owned() } else { format!("also_pointed_by[{}]", number - 1) };
    let place = |(number, pair): (usize, &crate::file::LinkPair)| {
        let sky = || Fault::new(format!("{at}.pairs[{number}].pixel"), "shows no ground in the fixed view");
        on_ground(fixed, DVec2::from_array(pair.pixel)).ok_or_else(sky)
    };
    link.pairs.iter().enumerate().map(place).collect()
}

/// How the turned head hangs, six figures sought: where it is off from where it is drawn, and how its scales are turned.
struct Hanging<'a> {
    drawn: DVec3,
    pairs: &'a [Pointed],
    first: [f64; FIGURES],
}

impl Hanging<'_> {
    /// By how much each pair misses, and how far each figure is from where it began, in standard deviations.
    fn misses(&self, figures: &[f64; FIGURES]) -> DVector<f64> {
        let hung = Hung::of(self.drawn, figures);
        let mut misses: Vec<f64> = Vec::with_capacity(3 * self.pairs.len() + FIGURES);
        for pair in self.pairs {
            let apart = hung.looks(pair.pan_deg, pair.tilt_deg).cross((pair.place - hung.at).normalize_or_zero());
            misses.extend(apart.to_array().map(|part| part / POINTED_SIGMA));
        }
        let sigma = |place: usize| if place < 3 { PLACE_SIGMA_M } else { TURN_SIGMA };
        misses.extend((0..FIGURES).map(|place| (figures[place] - self.first[place]) / sigma(place)));
        DVector::from_vec(misses)
    }
}

fn figures_of(at: &DVector<f64>) -> [f64; FIGURES] {
    std::array::from_fn(|place| at[place])
}

impl Fit for Hanging<'_> {
    fn misfit(&self, at: &DVector<f64>) -> f64 {
        self.misses(&figures_of(at)).norm_squared()
    }

    fn equations(&self, at: &DVector<f64>, _: u32) -> (DMatrix<f64>, DVector<f64>) {
        let figures = figures_of(at);
        let now = self.misses(&figures);
        let slope = |place: usize| {
            let h = 1e-6;
            let mut ahead = figures;
            ahead[place] += h;
            (self.misses(&ahead) - &now) / h
        };
        let slopes = DMatrix::from_columns(&(0..FIGURES).map(slope).collect::<Vec<_>>());
        (slopes.tr_mul(&slopes), -slopes.tr_mul(&now))
    }

    fn length(&self, step: &DVector<f64>) -> f64 {
        step.amax()
    }
}

fn solve(drawn: DVec3, pairs: &[Pointed]) -> [f64; FIGURES] {
    // The turn begins with the pan that the pairs say on the whole.
    let (mut sin, mut cos) = (0.0, 0.0);
    for pair in pairs {
        let step = pair.place - drawn;
        let turn = (Angle::bearing_of(step.x, step.y) - Angle::degrees(pair.pan_deg)).rad();
        (sin, cos) = (sin + turn.sin(), cos + turn.cos());
    }
    let first = [0.0, 0.0, 0.0, sin.atan2(cos), 0.0, 0.0];
    let from = DVector::from_column_slice(&first);
    match settle(&Hanging { drawn, pairs, first }, from, UNTIL, |_| Ok::<(), ()>(())) {
        Ok(Settled { at, .. }) | Err(Stuck::Unsettled(at)) => figures_of(&at),
        Err(Stuck::Singular | Stuck::Ended(())) => first,
    }
}
