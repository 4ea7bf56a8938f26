//! Slope distances and the ground distances under them (handbook, section 4).

/// Horizontal distance, m, of a slope distance: slope·cos(inclination), or √(slope² − rise²) without an inclination;
/// `None` where the slope is not longer than the two ends are apart in height.
pub fn horizontal_m(slope_m: f64, inclination_deg: Option<f64>, rise_m: f64) -> Option<f64> {
    if let Some(inclination) = inclination_deg {
        return Some(slope_m * inclination.to_radians().cos());
    }
    let squared = slope_m * slope_m - rise_m * rise_m;
    (squared > 0.0).then(|| squared.sqrt())
}

/// Ground distance, m, that a slant distance leaves over a drop; a tenth of a metre where it leaves less.
///
/// ```
/// use bright_angle_core::math::ground_of_slant;
/// assert_eq!(ground_of_slant(5.0, 3.0), 4.0);
/// assert_eq!(ground_of_slant(2.0, 3.0), 0.1);
/// ```
pub fn ground_of_slant(slant_m: f64, drop_m: f64) -> f64 {
    horizontal_m(slant_m, None, drop_m).map_or(LEAST_GROUND_M, |ground| ground.max(LEAST_GROUND_M))
}

/// A point is not put nearer below another than this, m.
const LEAST_GROUND_M: f64 = 0.1;
