//! A picture's scale from one or several distances, by least squares.

use crate::file::ScaleMark;
use serde::Serialize;
use utoipa::ToSchema;

/// A distance is the odd one out past so many times what the others are off by …
const ODD_PAST: f64 = 3.0;
/// … and past this share of itself (our default figures).
const ODD_SHARE: f64 = 0.02;

/// A scale and how well the distances agree on it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ScaleFit {
    /// The scale, m per px.
    pub metres_per_px: f64,
    /// Distance as given minus distance at that scale, m, one for each.
    pub residuals_m: Vec<f64>,
    /// The one that does not go with the others, if there is one; it takes three to tell.
    #[schema(required)]
    pub odd_one: Option<usize>,
}

/// Fits the scale k that minimises Σ (distance − k·px)²: k = Σ distance·px / Σ px². `None` without a distance.
///
/// ```
/// use bright_angle_core::{file::ScaleMark, survey::drawing::fit};
/// let mark = |px: f64, distance_m: f64| ScaleMark { a: [0.0, 0.0], b: [px, 0.0], distance_m };
/// assert_eq!(fit(&[mark(100.0, 10.0)]).unwrap().metres_per_px, 0.1);
/// ```
pub fn fit(marks: &[ScaleMark]) -> Option<ScaleFit> {
    let metres_per_px = slope(marks.iter())?;
    let residuals_m = marks.iter().map(|mark| mark.distance_m - metres_per_px * length(mark)).collect();
    Some(ScaleFit { metres_per_px, residuals_m, odd_one: odd_one(marks) })
}

fn length(mark: &ScaleMark) -> f64 {
    (mark.b[0] - mark.a[0]).hypot(mark.b[1] - mark.a[1])
}

fn slope<'a>(marks: impl Iterator<Item = &'a ScaleMark>) -> Option<f64> {
    let (mut top, mut bottom) = (0.0, 0.0);
    for mark in marks {
        top += mark.distance_m * length(mark);
        bottom += length(mark).powi(2);
    }
    (bottom > 0.0).then(|| top / bottom)
}

/// Each distance is held against the scale that the others make; the worst one is odd if they agree much better.
fn odd_one(marks: &[ScaleMark]) -> Option<usize> {
    if marks.len() < 3 {
        return None;
    }
    let held = |place: usize| {
        let others = || marks.iter().enumerate().filter(move |(other, _)| *other != place).map(|(_, mark)| mark);
        let scale = slope(others())?;
        let squares: f64 = others().map(|mark| (mark.distance_m - scale * length(mark)).powi(2)).sum();
        let spread = (squares / (marks.len() - 2) as f64).sqrt();
        let off = (marks[place].distance_m - scale * length(&marks[place])).abs();
        (off > ODD_PAST * spread && off > ODD_SHARE * marks[place].distance_m).then_some((place, off))
    };
    let worst = (0..marks.len()).filter_map(held).max_by(|a, b| a.1.total_cmp(&b.1))?;
    Some(worst.0)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn mark(px: f64, distance_m: f64) -> ScaleMark {
        ScaleMark { a: [3.0, 4.0], b: [3.0 + 0.6 * px, 4.0 + 0.8 * px], distance_m }
    }

    #[test]
    fn several_distances_share_their_errors() {
        // By hand: Σ d·px = 10·100 + 20.4·200 = 5080, Σ px² = 50 000.
        let found = fit(&[mark(100.0, 10.0), mark(200.0, 20.4)]).unwrap();
        assert!((found.metres_per_px - 0.1016).abs() < 1e-12);
        assert!((found.residuals_m[0] + 0.16).abs() < 1e-9 && (found.residuals_m[1] - 0.08).abs() < 1e-9);
        assert_eq!(found.odd_one, None, "two cannot tell which of them is wrong");
        assert_eq!(fit(&[]), None);
    }

    #[test]
    fn the_odd_one_is_named() {
        let found = fit(&[mark(100.0, 10.02), mark(300.0, 29.97), mark(250.0, 30.0), mark(180.0, 18.01)]).unwrap();
        assert_eq!(found.odd_one, Some(2));
        let good = fit(&[mark(100.0, 10.02), mark(300.0, 29.97), mark(250.0, 25.02)]).unwrap();
        assert_eq!(good.odd_one, None);
    }
}
