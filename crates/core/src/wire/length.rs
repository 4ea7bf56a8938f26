//! How long a cable is: its way on the plan, what it rises and falls, slack, and what lies in a housing.

use crate::file::{Cable, Point2, WiringRules};

/// An end of a cable: where it is, and how high, m.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct End {
    /// Where it is.
    pub at: Point2,
    /// How high it is.
    pub height_m: f64,
}

/// The length of a cable between two ends, m; as stated, where that is known.
pub fn length_m(cable: &Cable, from: End, to: End, rules: &WiringRules) -> f64 {
    if let Some(length) = cable.length_m {
        return length;
    }
    let way: Vec<Point2> = [from.at].into_iter().chain(cable.route.iter().copied()).chain([to.at]).collect();
    let plan: f64 = way.windows(2).map(|pair| (pair[1][0] - pair[0][0]).hypot(pair[1][1] - pair[0][1])).sum();
    let rise = match cable.route_height_m {
        Some(route) => (from.height_m - route).abs() + (route - to.height_m).abs(),
        None => (from.height_m - to.height_m).abs(),
    };
    (plan + rise) * (1.0 + rules.slack_share) + rules.housing_m
}
