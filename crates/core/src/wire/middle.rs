//! The middle of a way.

use crate::file::Point2;

/// The middle of a way by its length, and the corners on either side of it.
pub fn middle_of((from, to): (Point2, Point2), corners: &[Point2]) -> (Point2, Vec<Point2>, Vec<Point2>) {
    let way: Vec<Point2> = [from].into_iter().chain(corners.iter().copied()).chain([to]).collect();
    let long = |pair: &[Point2]| (pair[1][0] - pair[0][0]).hypot(pair[1][1] - pair[0][1]);
    let half = 0.5 * way.windows(2).map(long).sum::<f64>();
    let mut gone = 0.0;
    for (place, pair) in way.windows(2).enumerate() {
        let leg = long(pair);
        if gone + leg >= half && leg > 0.0 {
            let share = (half - gone) / leg;
            let at = [0, 1].map(|i| ((pair[0][i] + (pair[1][i] - pair[0][i]) * share) * 100.0).round() / 100.0);
            return (at, way[1..=place].to_vec(), way[place + 1..way.len() - 1].to_vec());
        }
        gone += leg;
    }
    (from, vec![], corners.to_vec())
}
