//! A straight stretch between two points of the plan.

use glam::DVec2;

/// The point of the stretch from `a` to `b` that is nearest to `at`.
///
/// ```
/// use bright_angle_core::math::nearest_on;
/// use glam::DVec2;
/// assert_eq!(nearest_on(DVec2::new(3.0, 4.0), DVec2::ZERO, DVec2::new(10.0, 0.0)), DVec2::new(3.0, 0.0));
/// assert_eq!(nearest_on(DVec2::new(-3.0, 4.0), DVec2::ZERO, DVec2::new(10.0, 0.0)), DVec2::ZERO);
/// ```
pub fn nearest_on(at: DVec2, a: DVec2, b: DVec2) -> DVec2 {
    let along = b - a;
    let long = along.length_squared();
    if long == 0.0 { a } else { a + along * ((at - a).dot(along) / long).clamp(0.0, 1.0) }
}
