//! Repeated shots: their mean and spread, and the ones that went past.

use serde::Serialize;
use utoipa::ToSchema;

/// A shot this far from the middle one, m, or further than six times what the others scatter, is left out (our default figures).
const PAST_M: f64 = 0.10;
const PAST_SPREADS: f64 = 6.0;
/// Least standard deviation of a mean, m: a hand does not aim better.
const LEAST_SIGMA_M: f64 = 0.005;

/// What repeated shots make together.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Shots {
    /// Mean of the shots that count, m.
    pub slope_m: f64,
    /// Standard deviation of one of them, m; null for a single shot.
    #[schema(required)]
    pub spread_m: Option<f64>,
    /// Standard deviation to take for the mean, m.
    pub sigma_m: f64,
    /// Places of the shots that are left out.
    pub left_out: Vec<usize>,
}

/// Puts repeated shots together: the middle one decides which went past (a median is not moved by them), the rest is averaged. Two
/// shots cannot tell which of them is wrong: then nothing is left out. `None` without a shot.
///
/// ```
/// use bright_angle_core::survey::shots;
/// let found = shots(&[18.93, 18.93, 24.61]).unwrap();
/// assert_eq!((found.slope_m, found.left_out), (18.93, vec![2]));
/// ```
pub fn shots(all: &[f64]) -> Option<Shots> {
    let middle = median(all)?;
    let off: Vec<f64> = all.iter().map(|shot| (shot - middle).abs()).collect();
    // The median deviation is 0.6745 standard deviations of a normal scatter.
    let scatter = median(&off)? / 0.6745;
    let limit = PAST_M.max(PAST_SPREADS * scatter);
    let past = |place: &usize| all.len() > 2 && off[*place] > limit;
    let left_out: Vec<usize> = (0..all.len()).filter(past).collect();
    let good: Vec<f64> = (0..all.len()).filter(|place| !past(place)).map(|place| all[place]).collect();
    let slope_m = good.iter().sum::<f64>() / good.len() as f64;
    let squares: f64 = good.iter().map(|shot| (shot - slope_m).powi(2)).sum();
    let spread_m = (good.len() > 1).then(|| (squares / (good.len() - 1) as f64).sqrt());
    // One shot may be a hand's shake off.
    let sigma_m = spread_m.map_or(0.02, |spread| (spread / (good.len() as f64).sqrt()).max(LEAST_SIGMA_M));
    Some(Shots { slope_m, spread_m, sigma_m, left_out })
}

fn median(values: &[f64]) -> Option<f64> {
    let mut sorted = values.to_vec();
    sorted.sort_by(f64::total_cmp);
    let (low, high) = (sorted.get(values.len().checked_sub(1)? / 2)?, sorted.get(values.len() / 2)?);
    Some(0.5 * (low + high))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn good_shots_are_averaged() {
        let found = shots(&[10.00, 10.02, 10.01, 9.99]).unwrap();
        assert!((found.slope_m - 10.005).abs() < 1e-12 && found.left_out.is_empty());
        assert!((found.spread_m.unwrap() - 0.012910).abs() < 1e-6, "√(5e-4 / 3) by hand");
        assert_eq!(shots(&[]), None);
        assert_eq!(shots(&[7.5]).unwrap(), Shots { slope_m: 7.5, spread_m: None, sigma_m: 0.02, left_out: vec![] });
    }

    #[test]
    fn a_stray_is_left_out_when_there_are_enough_to_tell() {
        assert_eq!(shots(&[18.93, 24.6]).unwrap().left_out, Vec::<usize>::new());
        assert_eq!(shots(&[24.6, 18.93, 18.94, 18.92]).unwrap().left_out, vec![0]);
    }
}
