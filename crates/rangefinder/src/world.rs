//! What was built, as against what was drawn.

/// A place: metres east, north, up.
pub type Place = [f64; 3];

/// Where a drawn place really is. Drawings are off by a few decimetres, neighbours alike: long soft waves do that.
///
/// ```
/// let [east, north, _] = bright_angle_rangefinder::world::as_built([84.5, 36.2, 1.6]);
/// assert!((east - 84.5).hypot(north - 36.2) < 0.6);
/// ```
pub fn as_built([east, north, up]: Place) -> Place {
    [
        east + 0.28 * (north / 23.0 + 0.7).sin() + 0.14 * (east / 17.0 + 1.9).cos(),
        north + 0.31 * (east / 29.0 - 0.4).cos() - 0.12 * (north / 13.0).sin(),
        up,
    ]
}
