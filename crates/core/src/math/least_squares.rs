//! Least squares that are not linear: Gauss and Newton, damped as Levenberg (1944) and Marquardt (1963) do where a full step would make
//! the fit worse. Where full steps settle the answer is theirs.

use nalgebra::{Cholesky, DMatrix, DVector};

/// The least share by which the normal matrix's diagonal is raised where a full step overshoots.
const FIRST_DAMPING: f64 = 1e-3;
/// Past this damping no step helps.
const MOST_DAMPING: f64 = 1e12;

/// What is sought: figures that make a sum of squares least.
pub trait Fit {
    /// The sum of squares.
    fn misfit(&self, at: &DVector<f64>) -> f64;

    /// The normal matrix and the right side, linearised at some figures, in the so many-th step.
    fn equations(&self, at: &DVector<f64>, step: u32) -> (DMatrix<f64>, DVector<f64>);

    /// How far a step goes, in the measure in which the figures settle.
    fn length(&self, step: &DVector<f64>) -> f64;

    /// Whether the normal matrix may bend the wrong way in that step, so that damping makes a way down of it.
    fn may_bend(&self, _step: u32) -> bool {
        false
    }
}

/// When figures are taken to be settled.
#[derive(Clone, Copy, Debug)]
pub struct Until {
    /// A step no longer than this is the last one.
    pub length: f64,
    /// So many steps are tried.
    pub steps: u32,
}

/// Why no figures were found.
#[derive(Clone, Debug, PartialEq)]
pub enum Stuck<Why> {
    /// The normal matrix cannot be solved.
    Singular,
    /// They do not settle; the best so far.
    Unsettled(DVector<f64>),
    /// Whoever waited gave up.
    Ended(Why),
}

/// The figures, and after how many steps they settled.
#[derive(Clone, Debug, PartialEq)]
pub struct Settled {
    /// The figures.
    pub at: DVector<f64>,
    /// Steps tried.
    pub steps: u32,
}

/// Seeks the figures from where they begin; `go_on` is asked before each step.
///
/// ```
/// use bright_angle_core::math::least_squares::{Fit, Until, settle};
/// use nalgebra::{DMatrix, DVector};
///
/// /// y = a², once: a is 3 for y = 9.
/// struct Root(f64);
/// impl Fit for Root {
///     fn misfit(&self, at: &DVector<f64>) -> f64 {
///         (self.0 - at[0] * at[0]).powi(2)
///     }
///     fn equations(&self, at: &DVector<f64>, _: u32) -> (DMatrix<f64>, DVector<f64>) {
///         let slope = 2.0 * at[0];
///         (DMatrix::from_element(1, 1, slope * slope), DVector::from_element(1, slope * (self.0 - at[0] * at[0])))
///     }
///     fn length(&self, step: &DVector<f64>) -> f64 {
///         step.amax()
///     }
/// }
/// let found = settle(&Root(9.0), DVector::from_element(1, 1.0), Until { length: 1e-9, steps: 50 }, |_| Ok::<(), ()>(()));
/// assert!((found.unwrap().at[0] - 3.0).abs() < 1e-9);
/// ```
///
/// # Errors
/// Says why there are none.
pub fn settle<Why>(
    fit: &impl Fit,
    from: DVector<f64>,
    until: Until,
    mut go_on: impl FnMut(u32) -> Result<(), Why>,
) -> Result<Settled, Stuck<Why>> {
    let mut at = from;
    let mut now = fit.misfit(&at);
    let mut damping = 0.0;
    let raised = |damping: f64| if damping == 0.0 { FIRST_DAMPING } else { damping * 10.0 };
    for steps in 1..=until.steps {
        go_on(steps).map_err(Stuck::Ended)?;
        let (mut normal, right) = fit.equations(&at, steps);
        for place in 0..normal.nrows() {
            normal[(place, place)] += damping * normal[(place, place)].abs();
        }
        let Some(normal) = Cholesky::new(normal) else {
            if fit.may_bend(steps) && damping < MOST_DAMPING {
                damping = raised(damping);
                continue;
            }
            return Err(Stuck::Singular);
        };
        let step = normal.solve(&right);
        let next = &at + &step;
        let then = fit.misfit(&next);
        let length = fit.length(&step);
        // At the bottom rounding alone makes a step look worse.
        if then > now && length >= until.length {
            if damping >= MOST_DAMPING {
                return Err(Stuck::Unsettled(at));
            }
            damping = raised(damping);
            continue;
        }
        (at, now) = (next, then);
        damping = if damping <= FIRST_DAMPING { 0.0 } else { damping / 10.0 };
        if length < until.length {
            return Ok(Settled { at, steps });
        }
    }
    Err(Stuck::Unsettled(at))
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Rosenbrock's valley (1960), as a sum of two squares: least at (1, 1), and full steps overshoot from where it is usually begun.
    struct Valley;

    impl Fit for Valley {
        fn misfit(&self, at: &DVector<f64>) -> f64 {
            100.0 * (at[1] - at[0] * at[0]).powi(2) + (1.0 - at[0]).powi(2)
        }

        fn equations(&self, at: &DVector<f64>, _: u32) -> (DMatrix<f64>, DVector<f64>) {
            let slopes = DMatrix::from_row_slice(2, 2, &[20.0 * at[0], -10.0, 1.0, 0.0]);
            let misses = DVector::from_vec(vec![10.0 * (at[1] - at[0] * at[0]), 1.0 - at[0]]);
            (slopes.transpose() * &slopes, slopes.transpose() * misses)
        }

        fn length(&self, step: &DVector<f64>) -> f64 {
            step.amax()
        }
    }

    const UNTIL: Until = Until { length: 1e-12, steps: 200 };

    #[test]
    fn the_valley_of_rosenbrock_is_followed_to_its_bottom() {
        let found = settle(&Valley, DVector::from_vec(vec![-1.2, 1.0]), UNTIL, |_| Ok::<(), ()>(())).unwrap();
        assert!((found.at - DVector::from_vec(vec![1.0, 1.0])).amax() < 1e-9);
    }

    #[test]
    fn whoever_gives_up_is_told_so() {
        let found =
            settle(
                &Valley,
                DVector::from_vec(vec![-1.2, 1.0]),
                UNTIL,
                |step| if step < 3 { Ok(()) } else { Err("late") },
            );
        assert_eq!(found, Err(Stuck::Ended("late")));
    }

    #[test]
    fn too_few_steps_leave_the_best_so_far() {
        let until = Until { steps: 2, ..UNTIL };
        let found = settle(&Valley, DVector::from_vec(vec![-1.2, 1.0]), until, |_| Ok::<(), ()>(()));
        let Err(Stuck::Unsettled(at)) = found else { panic!("{found:?}") };
        assert!(Valley.misfit(&at) <= Valley.misfit(&DVector::from_vec(vec![-1.2, 1.0])));
    }
}
