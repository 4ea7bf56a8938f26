//! What is sharp, and how light and shutter go together (handbook, sections 4 and 9).

/// The nearest and the farthest distance that is sharp.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Sharp {
    /// m.
    pub near_m: f64,
    /// m; none where it goes on without end.
    pub far_m: Option<f64>,
}

/// The hyperfocal distance, m: H = f²/(N·c) + f, of a focal length and a circle of confusion in mm.
pub fn hyperfocal_m(focal_mm: f64, f_number: f64, circle_mm: f64) -> f64 {
    (focal_mm * focal_mm / (f_number * circle_mm) + focal_mm) / 1e3
}

/// What is sharp with the lens focused at a distance, m: near = s(H − f)/(H + s − 2f), far = s(H − f)/(H − s), without end from H on.
///
/// ```
/// use bright_angle_core::equipment::optics::depth_of_field;
/// // 50 mm at f/2, 0.03 mm, focused at 5 m, by hand: H = 41.7167 m, near 4.4691 m, far 5.6741 m.
/// let sharp = depth_of_field(50.0, 2.0, 0.03, 5.0);
/// assert!((sharp.near_m - 4.4691).abs() < 1e-4 && (sharp.far_m.unwrap() - 5.6741).abs() < 1e-4);
/// ```
pub fn depth_of_field(focal_mm: f64, f_number: f64, circle_mm: f64, focus_m: f64) -> Sharp {
    let (hyper, focal) = (hyperfocal_m(focal_mm, f_number, circle_mm), focal_mm / 1e3);
    let near_m = focus_m * (hyper - focal) / (hyper + focus_m - 2.0 * focal);
    let far_m = (focus_m < hyper).then(|| focus_m * (hyper - focal) / (hyper - focus_m));
    Sharp { near_m: near_m.max(0.0), far_m }
}

/// The focus that centres a zone from `near_m` to `far_m`: 2·s1·s2/(s1 + s2) (handbook, section 10).
pub fn centring_focus_m(near_m: f64, far_m: f64) -> f64 {
    2.0 * near_m * far_m / (near_m + far_m)
}

/// Width of the spot that a point at a distance makes out of focus, mm on the sensor: f·A·|s − s'|/(s·(s' − f)) with the opening
/// A = f/N, s where the point is and s' where the lens is focused (thin lens).
pub fn spot_mm(focal_mm: f64, f_number: f64, focus_m: f64, at_m: f64) -> f64 {
    let (focus, at) = (focus_m * 1e3, at_m * 1e3);
    focal_mm * focal_mm / f_number * (at - focus).abs() / (at * (focus - focal_mm)).max(1e-9)
}

/// The exposure value at ISO 100: log2(N²/t).
pub fn exposure_value(f_number: f64, shutter_s: f64) -> f64 {
    (f_number * f_number / shutter_s).log2()
}

/// Shutters that cameras are set to, s, the longest first.
pub const SHUTTERS_S: [f64; 12] = [
    1.0 / 30.0,
    1.0 / 60.0,
    1.0 / 125.0,
    1.0 / 250.0,
    1.0 / 500.0,
    1.0 / 1000.0,
    1.0 / 1500.0,
    1.0 / 2000.0,
    1.0 / 3000.0,
    1.0 / 4000.0,
    1.0 / 5000.0,
    1.0 / 10_000.0,
];

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn at_the_edges_of_what_is_sharp_a_point_is_as_wide_as_the_circle() {
        let (focal, stop, circle, focus) = (22.0, 1.4, 0.002, 21.0);
        let sharp = depth_of_field(focal, stop, circle, focus);
        for edge in [sharp.near_m, sharp.far_m.unwrap()] {
            // The handbook's near is a hair off the thin lens's: its H takes one focal length more.
            assert!((spot_mm(focal, stop, focus, edge) / circle - 1.0).abs() < 2e-3, "{edge}");
        }
        assert_eq!(depth_of_field(2.8, 2.0, 0.002, 50.0).far_m, None);
        // From the hyperfocal distance on, all from half of it is sharp.
        let hyper = hyperfocal_m(2.8, 2.0, 0.002);
        assert!((depth_of_field(2.8, 2.0, 0.002, hyper).near_m / (hyper / 2.0) - 1.0).abs() < 1e-3);
    }

    #[test]
    fn exposure_values_are_those_of_the_tables() {
        // f/1.0 and one second is EV 0 by definition; f/8 at 1/125 s is EV 13 (12.97).
        assert_eq!(exposure_value(1.0, 1.0), 0.0);
        assert!((exposure_value(8.0, 1.0 / 125.0) - 12.97).abs() < 0.01);
    }

    #[test]
    fn the_focus_that_centres_a_zone_leaves_both_ends_equally_unsharp() {
        let focus = centring_focus_m(10.0, 30.0);
        assert_eq!(focus, 15.0);
        assert!((spot_mm(16.0, 1.6, focus, 10.0) / spot_mm(16.0, 1.6, focus, 30.0) - 1.0).abs() < 1e-9);
    }
}
