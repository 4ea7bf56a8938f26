//! A fixed view that points a head that is turned from afar: the pose of the one in the other, from pairs of what both see.
//!
//! Source: handbook, section 11. A pair is a pixel of the fixed view and the pan and tilt with which the turned head has the same thing in
//! the middle of its picture. Things lie on the ground: the fixed view's ray meets it at a known place. Sought are the place of the
//! turned head and how its own scales are turned (pan zero, and the tilt of its axis), six figures, by Gauss and Newton on the
//! angles between where it looked and where it should have looked. Four pairs give eight equations.

use crate::file::{Fault, Link};
use crate::math::least_squares::{Fit, Settled, Stuck, Until, settle};
use crate::math::{Angle, Pose};
use crate::site::{Head, Site};
use glam::{DMat3, DVec2, DVec3};
use nalgebra::{DMatrix, DVector};
use serde::Serialize;
use utoipa::ToSchema;

/// The fewest pairs.
pub const LEAST_PAIRS: usize = 4;
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

/// How a turned head hangs, as its pairs have it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LinkFound {
    /// Where it is, m east, north and up.
    pub position: [f64; 3],
    /// How far that is from where it is drawn, m.
    pub moved_m: f64,
    /// The bearing that its pan of zero looks to, degrees.
    pub pan_zero_deg: f64,
    /// How far its axis leans off the plumb line, degrees.
    pub leans_deg: f64,
    /// By how much each pair is off, degrees, in their order.
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

    /// The pan and tilt on its own scales that look at a point, degrees.
    fn aim_at(&self, point: DVec3) -> [f64; 2] {
        let own = self.turn.transpose() * (point - self.at).normalize_or_zero();
        [own.x.atan2(own.y).to_degrees().rem_euclid(360.0), -own.z.clamp(-1.0, 1.0).asin().to_degrees()]
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
    let (_, _, found) = solved(site, camera, head)?;
    Ok(found)
}

/// The pan and tilt, degrees on its own scales, with which a linked head looks at what a pixel of its fixed view shows.
///
/// # Errors
/// The same, and a pixel that shows the sky.
pub fn point_through(site: &Site, camera: &str, head: &str, pixel: [f64; 2]) -> Result<[f64; 2], Fault> {
    let (hung, fixed, _) = solved(site, camera, head)?;
    let sky = || Fault::new("pixel", "shows no ground: only what stands on the ground is pointed at");
    Ok(hung.aim_at(on_ground(fixed, DVec2::from_array(pixel)).ok_or_else(sky)?))
}

fn solved<'a>(site: &'a Site, camera: &str, head: &str) -> Result<(Hung, &'a Head, LinkFound), Fault> {
    let turned = site.head(camera, head)?;
    let file = &site.file().cameras[turned.camera()].heads[turned.place()];
    let link = file.pointed_by.as_ref().ok_or_else(|| Fault::new("pointed_by", "no fixed view points this camera"))?;
    let fixed = site.head(&link.camera, &link.head)?;
    if link.pairs.len() < LEAST_PAIRS {
        let message = format!("{} of the {LEAST_PAIRS} pairs that it takes", link.pairs.len());
        return Err(Fault::new("pointed_by.pairs", message));
    }
    let seen = places(fixed, link)?;
    let drawn = turned.position();
    let pairs: Vec<Pointed> = link
        .pairs
        .iter()
        .zip(seen)
        .map(|(pair, place)| Pointed { pan_deg: pair.pan_deg, tilt_deg: pair.tilt_deg, place })
        .collect();
    let hung = Hung::of(drawn, &solve(drawn, &pairs));
    let off = hung.misses_deg(&pairs);
    let worst = worst(drawn, &pairs, &off);
    let zero = hung.looks(0.0, 0.0);
    let found = LinkFound {
        position: hung.at.to_array(),
        moved_m: hung.at.distance(drawn),
        pan_zero_deg: Angle::bearing_of(zero.x, zero.y).deg(),
        leans_deg: (hung.turn * DVec3::Z).angle_between(DVec3::Z).to_degrees(),
        worst,
        rms_deg: (off.iter().map(|off| off * off).sum::<f64>() / off.len() as f64).sqrt(),
        off_deg: off,
    };
    Ok((hung, fixed, found))
}

/// Where the pairs' pixels lie on the ground.
fn places(fixed: &Head, link: &Link) -> Result<Vec<DVec3>, Fault> {
    let place = |(number, pair): (usize, &crate::file::LinkPair)| {
        let sky = || Fault::new(format!("pointed_by.pairs[{number}].pixel"), "shows no ground in the fixed view");
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
