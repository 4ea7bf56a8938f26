//! The network of points and distances, and its Gauss–Newton solution.

use crate::file::{DRAWN_SIGMA_M, Fault, READING_SIGMA_M};
use crate::site::Site;
use glam::DVec2;
use nalgebra::{Cholesky, DMatrix, DVector, Dyn, Matrix2};

/// No point moves further than this in the last step, m.
const SETTLED_M: f64 = 1e-6;
/// Steps after which positions that do not settle are given up.
const MOST_STEPS: u32 = 200;

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
        let place = |id: &str| points.iter().position(|point| point.id == id).expect("validated: the point exists");
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

    pub fn solve(&self) -> Result<Solution, Fault> {
        let mut places: Vec<DVec2> = self.points.iter().map(|point| point.drawn).collect();
        let unknown: Vec<Option<usize>> = self.points.iter().map(|point| point.unknown).collect();
        for iterations in 1..=MOST_STEPS {
            let (normal, right) = self.normal_equations(&places)?;
            let step = normal.solve(&right);
            let mut moved = 0.0_f64;
            for (place, unknown) in places.iter_mut().zip(&unknown) {
                if let Some(u) = unknown {
                    let by = DVec2::new(step[2 * u], step[2 * u + 1]);
                    *place += by;
                    moved = moved.max(by.length());
                }
            }
            if moved < SETTLED_M {
                let q = self.normal_equations(&places)?.0.inverse();
                return Ok(Solution { places, iterations, unknown, q });
            }
        }
        Err(Fault::new("readings", "the positions do not settle: draw the points nearer to where they are"))
    }

    /// The normal matrix, ready to be solved, and the right side, linearised at some places.
    fn normal_equations(&self, places: &[DVec2]) -> Result<(Cholesky<f64, Dyn>, DVector<f64>), Fault> {
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
        // The weights of drawn positions make it positive definite, unless they are lost beside those of the readings.
        let solvable = Cholesky::new(normal);
        let message = "the uncertainties of readings and drawn positions are too far apart to be weighed together";
        Ok((solvable.ok_or_else(|| Fault::new("readings", message))?, right))
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
