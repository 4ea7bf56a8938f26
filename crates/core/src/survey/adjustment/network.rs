//! The network of points and distances, and its solution by damped least squares, so that a net with a gross error settles, too.

use crate::file::{DRAWN_SIGMA_M, Fault, READING_SIGMA_M};
use crate::math::least_squares::{Fit, Stuck, Until, settle};
use crate::site::Site;
use crate::work::Patience;
use glam::DVec2;
use nalgebra::{Cholesky, DMatrix, DVector, Matrix2};
use std::collections::HashMap;

/// No point moves further than this in the last step, m.
const SETTLED_M: f64 = 1e-6;
/// The weights of drawn positions make the normal matrix positive definite, unless they are lost beside those of the readings.
const TOO_FAR_APART: &str =
    "the uncertainties of readings and drawn positions are too far apart to be weighed together";
/// Steps after which positions that do not settle are given up.
const MOST_STEPS: u32 = 400;
/// Steps after which the bends of the distances are taken in.
const PLAIN_STEPS: u32 = 20;

/// A spot or point target.
pub struct Point {
    pub id: String,
    pub drawn: DVec2,
    sigma_m: f64,
    /// Its place among the unknown points; `None` for one that cannot move or that no used reading speaks of.
    unknown: Option<usize>,
    fixed: bool,
}

/// A horizontal distance between two points.
pub struct Observation {
    from: usize,
    to: usize,
    pub distance_m: f64,
    pub sigma_m: f64,
    pub used: bool,
}

pub struct Network {
    pub points: Vec<Point>,
    /// In the order of the site's readings.
    pub observations: Vec<Observation>,
    unknowns: usize,
}

pub struct Solution {
    pub places: Vec<DVec2>,
    pub iterations: u32,
    unknown: Vec<Option<usize>>,
    /// Covariance of the unknown points' coordinates, m².
    q: DMatrix<f64>,
}

impl Network {
    pub fn of(site: &Site) -> Network {
        let spots = site.file().spots.iter();
        let spots = spots.map(|spot| (&spot.id, spot.position, spot.position_sigma_m, spot.fixed));
        let targets = site.file().targets.iter().filter(|target| target.is_point());
        let targets = targets.map(|target| (&target.id, target.shape.points[0], target.position_sigma_m, target.fixed));
        let mut points: Vec<Point> = spots
            .chain(targets)
            .map(|(id, at, sigma, fixed)| Point {
                id: id.clone(),
                drawn: DVec2::from_array(at),
                sigma_m: sigma.unwrap_or(DRAWN_SIGMA_M),
                unknown: None,
                fixed,
            })
            .collect();
        let places: HashMap<&str, usize> =
            points.iter().enumerate().map(|(place, point)| (point.id.as_str(), place)).collect();
        let place = |id: &str| *places.get(id).expect("validated: the point exists");
        let observations: Vec<Observation> = site
            .file()
            .readings
            .iter()
            .map(|reading| Observation {
                from: place(&reading.from),
                to: place(&reading.to),
                distance_m: site.horizontal_m(reading),
                sigma_m: reading.sigma_m.unwrap_or(READING_SIGMA_M),
                used: reading.used,
            })
            .collect();
        let mut unknowns = 0;
        for observation in observations.iter().filter(|observation| observation.used) {
            for end in [observation.from, observation.to] {
                let point = &mut points[end];
                if !point.fixed && point.unknown.is_none() {
                    point.unknown = Some(unknowns);
                    unknowns += 1;
                }
            }
        }
        Network { points, observations, unknowns }
    }

    /// The distance of an observation as it is drawn, m.
    pub fn drawn(&self, observation: &Observation) -> f64 {
        self.points[observation.from].drawn.distance(self.points[observation.to].drawn)
    }

    pub fn solve(&self, patience: &Patience) -> Result<Solution, Fault> {
        let unknown: Vec<Option<usize>> = self.points.iter().map(|point| point.unknown).collect();
        let mut from = DVector::zeros(2 * self.unknowns);
        for point in &self.points {
            if let Some(u) = point.unknown {
                (from[2 * u], from[2 * u + 1]) = (point.drawn.x, point.drawn.y);
            }
        }
        let too_long = || format!("{} measured points do not settle in the time that is allowed here", self.unknowns);
        let until = Until { length: SETTLED_M, steps: MOST_STEPS };
        let found = settle(self, from, until, |_| patience.check(too_long)).map_err(|stuck| {
            let message = match stuck {
                Stuck::Ended(over) => over.to_string(),
                Stuck::Singular => TOO_FAR_APART.to_owned(),
                Stuck::Unsettled(_) => {
                    "the positions do not settle: draw the points nearer to where they are".to_owned()
                }
            };
            Fault::new("readings", message)
        })?;
        let places = self.places(&found.at);
        let q = Cholesky::new(self.normal_equations(&places, false).0);
        let q = q.ok_or_else(|| Fault::new("readings", TOO_FAR_APART))?.inverse();
        Ok(Solution { places, iterations: found.steps, unknown, q })
    }

    /// Where the points are by the unknown coordinates.
    fn places(&self, at: &DVector<f64>) -> Vec<DVec2> {
        let place = |point: &Point| point.unknown.map_or(point.drawn, |u| DVec2::new(at[2 * u], at[2 * u + 1]));
        self.points.iter().map(place).collect()
    }

    /// What is minimised, at some places.
    fn misfit_of(&self, places: &[DVec2]) -> f64 {
        let off = |o: &&Observation| (o.distance_m - places[o.from].distance(places[o.to])) / o.sigma_m;
        let readings = self.observations.iter().filter(|o| o.used).map(|o| off(&o).powi(2)).sum::<f64>();
        let drawn = self.points.iter().zip(places).filter(|(point, _)| point.unknown.is_some());
        readings + drawn.map(|(point, at)| (at.distance(point.drawn) / point.sigma_m).powi(2)).sum::<f64>()
    }

    /// The normal matrix and the right side, linearised at some places; with `bent` also what the distances themselves bend by, which
    /// counts where misfits stay large (Newton's step).
    fn normal_equations(&self, places: &[DVec2], bent: bool) -> (DMatrix<f64>, DVector<f64>) {
        let size = 2 * self.unknowns;
        let mut normal = DMatrix::zeros(size, size);
        let mut right = DVector::zeros(size);
        for (point, place) in self.points.iter().zip(places) {
            if let Some(u) = point.unknown {
                let weight = point.sigma_m.powi(-2);
                let back = (point.drawn - *place) * weight;
                for (axis, pull) in back.to_array().into_iter().enumerate() {
                    normal[(2 * u + axis, 2 * u + axis)] += weight;
                    right[2 * u + axis] += pull;
                }
            }
        }
        for observation in self.observations.iter().filter(|observation| observation.used) {
            let row = row(observation, places, &|place| self.points[place].unknown);
            let weight = observation.sigma_m.powi(-2);
            let misfit = observation.distance_m - places[observation.from].distance(places[observation.to]);
            for (i, slope) in &row {
                right[*i] += weight * slope * misfit;
                for (j, other) in &row {
                    normal[(*i, *j)] += weight * slope * other;
                }
            }
        }
        if bent {
            self.add_bends(places, &mut normal);
        }
        (normal, right)
    }
}

impl Fit for Network {
    fn misfit(&self, at: &DVector<f64>) -> f64 {
        self.misfit_of(&self.places(at))
    }

    fn equations(&self, at: &DVector<f64>, step: u32) -> (DMatrix<f64>, DVector<f64>) {
        self.normal_equations(&self.places(at), self.may_bend(step))
    }

    fn length(&self, step: &DVector<f64>) -> f64 {
        (0..self.unknowns).map(|u| step[2 * u].hypot(step[2 * u + 1])).fold(0.0, f64::max)
    }

    fn may_bend(&self, step: u32) -> bool {
        step > PLAIN_STEPS
    }
}

impl Network {
    /// Adds w·(1 − d/r)·(I − u uᵀ) for each reading: d observed, r the distance as it is, u its direction.
    fn add_bends(&self, places: &[DVec2], normal: &mut DMatrix<f64>) {
        for observation in self.observations.iter().filter(|observation| observation.used) {
            let step = places[observation.from] - places[observation.to];
            let apart = step.length();
            if apart < SETTLED_M {
                continue;
            }
            let side = (step / apart).perp().to_array();
            let weight = observation.sigma_m.powi(-2) * (1.0 - observation.distance_m / apart);
            for (one, sign) in [(observation.from, 1.0), (observation.to, -1.0)] {
                for (other, other_sign) in [(observation.from, 1.0), (observation.to, -1.0)] {
                    let (Some(u), Some(v)) = (self.points[one].unknown, self.points[other].unknown) else { continue };
                    for i in 0..2 {
                        for j in 0..2 {
                            normal[(2 * u + i, 2 * v + j)] += weight * sign * other_sign * side[i] * side[j];
                        }
                    }
                }
            }
        }
    }
}

/// The slopes of a distance in the unknown coordinates, as (column, slope).
fn row(observation: &Observation, places: &[DVec2], unknown: &dyn Fn(usize) -> Option<usize>) -> Vec<(usize, f64)> {
    // Points that coincide have no direction between them: such a distance pulls nowhere.
    let along = (places[observation.from] - places[observation.to]).normalize_or_zero();
    [(observation.from, along), (observation.to, -along)]
        .into_iter()
        .filter_map(|(place, along)| Some((unknown(place)?, along)))
        .flat_map(|(u, along)| [(2 * u, along.x), (2 * u + 1, along.y)])
        .collect()
}

impl Solution {
    /// The adjusted distance of an observation, m.
    pub fn distance(&self, observation: &Observation) -> f64 {
        self.places[observation.from].distance(self.places[observation.to])
    }

    /// The variance of an adjusted distance: a Q aᵀ, m².
    pub fn variance(&self, observation: &Observation) -> f64 {
        let row = row(observation, &self.places, &|place| self.unknown[place]);
        row.iter().flat_map(|(i, a)| row.iter().map(move |(j, b)| a * b * self.q[(*i, *j)])).sum()
    }

    /// One standard deviation of the distance between two points, m, along the line between them.
    pub fn distance_sigma(&self, network: &Network, from: usize, to: usize) -> f64 {
        let line = Observation { from, to, distance_m: 0.0, sigma_m: 1.0, used: false };
        // What no reading speaks of is as good as it was drawn.
        let drawn = [from, to].into_iter().map(|place| &network.points[place]);
        let drawn = drawn.filter(|point| point.unknown.is_none() && !point.fixed).map(|point| point.sigma_m.powi(2));
        (self.variance(&line) + drawn.sum::<f64>()).max(0.0).sqrt()
    }

    /// The covariance of a point's east and north, m²: as drawn where no reading speaks of it, none where it is fixed.
    pub fn covariance_of(&self, network: &Network, place: usize) -> Matrix2<f64> {
        let point = &network.points[place];
        match self.unknown[place] {
            Some(u) => self.q.fixed_view::<2, 2>(2 * u, 2 * u).into_owned(),
            None if point.fixed => Matrix2::zeros(),
            None => Matrix2::identity() * point.sigma_m.powi(2),
        }
    }
}
