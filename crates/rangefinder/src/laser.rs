//! The laser: true distances with noise, and now and then no return or the thing behind the target.

use crate::world::{Place, as_built};
use rand::rngs::StdRng;
use rand::{Rng, SeedableRng};
use rand_distr::{Distribution, Normal};
use std::collections::VecDeque;
use std::str::FromStr;

/// One standard deviation of the device itself, m: ±1.5 mm.
const DEVICE_SIGMA_M: f64 = 0.0015;
/// What a shaking hand adds for each metre of distance, m.
const HAND_SIGMA: f64 = 0.0006;
/// One standard deviation of the inclination, degrees.
const INCLINATION_SIGMA_DEG: f64 = 0.1;

/// What a shot does.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Kind {
    /// Hits the target.
    Good,
    /// Hits something behind it.
    Stray,
    /// Does not come back.
    None,
}

impl FromStr for Kind {
    type Err = String;
    fn from_str(word: &str) -> Result<Self, String> {
        match word {
            "good" => Ok(Kind::Good),
            "stray" => Ok(Kind::Stray),
            "none" => Ok(Kind::None),
            other => Err(format!("\"{other}\" is none of good, stray, none")),
        }
    }
}

/// How often shots go wrong.
#[derive(Clone, Debug, Default)]
pub struct Faults {
    /// Share of shots without a return.
    pub no_return: f64,
    /// Share of shots that hit something behind the target.
    pub stray: f64,
    /// What the first shots do, whatever the shares say.
    pub script: Vec<Kind>,
}

/// One shot that came back.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Shot {
    /// Slope distance, m.
    pub slope_m: f64,
    /// Inclination, degrees above the horizontal.
    pub inclination_deg: f64,
    /// Strength of the return, %.
    pub signal: f64,
}

/// A laser with its noise.
pub struct Laser {
    rng: StdRng,
    faults: Faults,
    script: VecDeque<Kind>,
}

impl Laser {
    /// A laser; the same seed gives the same shots.
    pub fn new(seed: u64, mut faults: Faults) -> Self {
        let script = std::mem::take(&mut faults.script).into();
        Laser { rng: StdRng::seed_from_u64(seed), faults, script }
    }

    /// Shoots from one drawn place at another; `None` when nothing comes back.
    pub fn shoot(&mut self, from: Place, to: Place) -> Option<Shot> {
        let (from, to) = (as_built(from), as_built(to));
        let [dx, dy, dz] = [0, 1, 2].map(|axis| to[axis] - from[axis]);
        let level = dx.hypot(dy);
        let slope = level.hypot(dz);
        let past = match self.next_kind() {
            Kind::None => return None,
            Kind::Good => 0.0,
            Kind::Stray => self.rng.random_range(2.5..7.5),
        };
        let shake = DEVICE_SIGMA_M.hypot(HAND_SIGMA * slope);
        let signal = (100.0 - 0.6 * slope - self.rng.random_range(0.0..8.0)).clamp(5.0, 100.0);
        Some(Shot {
            slope_m: (slope + past + self.noise(shake)).max(0.01),
            inclination_deg: dz.atan2(level).to_degrees() + self.noise(INCLINATION_SIGMA_DEG),
            signal,
        })
    }

    fn noise(&mut self, sigma: f64) -> f64 {
        Normal::new(0.0, sigma).map_or(0.0, |normal| normal.sample(&mut self.rng))
    }

    fn next_kind(&mut self) -> Kind {
        let drawn: f64 = self.rng.random();
        self.script.pop_front().unwrap_or(match drawn {
            d if d < self.faults.no_return => Kind::None,
            d if d < self.faults.no_return + self.faults.stray => Kind::Stray,
            _ => Kind::Good,
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn shots_scatter_about_the_built_distance() {
        let mut laser = Laser::new(7, Faults::default());
        let (from, to) = ([0.0, 0.0, 1.5], [18.0, 6.0, 3.5]);
        let (a, b) = (as_built(from), as_built(to));
        let truth = (b[0] - a[0]).hypot(b[1] - a[1]).hypot(2.0);
        let shots: Vec<f64> = (0..400).map(|_| laser.shoot(from, to).unwrap().slope_m).collect();
        let mean = shots.iter().sum::<f64>() / 400.0;
        let spread = (shots.iter().map(|s| (s - mean).powi(2)).sum::<f64>() / 399.0).sqrt();
        assert!((mean - truth).abs() < 0.003, "{mean} {truth}");
        assert!((0.008..0.016).contains(&spread), "{spread}");
    }

    #[test]
    fn the_script_goes_first_and_the_shares_after_it() {
        let faults = Faults { no_return: 1.0, stray: 0.0, script: vec![Kind::Good, Kind::Stray, Kind::None] };
        let mut laser = Laser::new(1, faults);
        let shoot = |laser: &mut Laser| laser.shoot([0.0, 0.0, 0.0], [10.0, 0.0, 0.0]).map(|shot| shot.slope_m);
        let good = shoot(&mut laser).unwrap();
        assert!(shoot(&mut laser).unwrap() > good + 2.0);
        assert_eq!([shoot(&mut laser), shoot(&mut laser)], [None, None]);
    }
}
