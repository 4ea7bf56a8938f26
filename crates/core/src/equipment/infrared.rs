//! Infrared light on the subject, by the inverse square of the distance (handbook, section 4).

/// By how many stops the exposure that infrared light asks for changes across a zone from `near_m` to `far_m`
/// (slant distances, m): 2·log2(far / near). One camera setting has to serve both ends.
///
/// ```
/// use bright_angle_core::equipment::infrared::stops_across;
/// assert_eq!(stops_across(10.0, 20.0), 2.0);
/// ```
pub fn stops_across(near_m: f64, far_m: f64) -> f64 {
    2.0 * (far_m / near_m).log2()
}
