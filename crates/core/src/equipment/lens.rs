//! Lenses: the bend and the effective focal length that agree with a published field of view.

use crate::file::{Lens, Sensor};
use crate::math::Projection;
use crate::math::projection::{EQUISOLID, PINHOLE, greatest_angle, radius};
use glam::DVec2;

/// A lens fitted to a sensor: what the published fields of view say about its projection.
///
/// The bend is solved at the wide end so that focal length and published field of view agree, and
/// kept to [−½, 1]; at each end the effective focal length gives the published field exactly; the
/// ratio effective/nominal runs linearly in the nominal focal length between them (handbook, 3).
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct FittedLens {
    lens: Lens,
    sensor: Sensor,
    bend: f64,
    published: bool,
    ratio_at_min: f64,
    ratio_at_max: f64,
}

impl FittedLens {
    /// Fits a lens to a sensor.
    ///
    /// ```
    /// use bright_angle_core::{equipment::lens::FittedLens, file::{Lens, Sensor}};
    /// let sensor = Sensor { width_px: 2688, height_px: 1520, width_mm: 5.376, height_mm: 3.04, image_circle_px: None };
    /// let lens = Lens { focal_min_mm: 2.8, focal_max_mm: 2.8, hfov_at_min_deg: Some(103.0),
    ///                   hfov_at_max_deg: None, f_number: None };
    /// assert!((FittedLens::new(lens, sensor).bend() - 0.48327).abs() < 5e-6);
    /// ```
    pub fn new(lens: Lens, sensor: Sensor) -> Self {
        let at_min = lens.hfov_at_min_deg.or(if lens.is_zoom() { None } else { lens.hfov_at_max_deg });
        let bend = at_min.map_or(PINHOLE, |hfov| bend_for(&sensor, lens.focal_min_mm, hfov));
        let ratio = |focal: f64, hfov: f64| effective_focal(&sensor, bend, hfov) / focal;
        let ratio_at_min = at_min.map_or(1.0, |hfov| ratio(lens.focal_min_mm, hfov));
        let ratio_at_max = match lens.hfov_at_max_deg {
            Some(hfov) if lens.is_zoom() => ratio(lens.focal_max_mm, hfov),
            _ => ratio_at_min,
        };
        FittedLens { lens, sensor, bend, published: at_min.is_some(), ratio_at_min, ratio_at_max }
    }

    /// Bend of the projection, −½ to 1.
    pub fn bend(&self) -> f64 {
        self.bend
    }

    /// Whether the bend came out of a published field of view (else it is 1 for want of one).
    pub fn is_published(&self) -> bool {
        self.published
    }

    /// The focal length, mm, that makes the projection agree with the published fields of view when
    /// the lens is set to `focal_mm`.
    pub fn effective_focal_mm(&self, focal_mm: f64) -> f64 {
        let span = self.lens.focal_max_mm - self.lens.focal_min_mm;
        let along = if span > 0.0 { (focal_mm - self.lens.focal_min_mm) / span } else { 0.0 };
        focal_mm * (self.ratio_at_min + (self.ratio_at_max - self.ratio_at_min) * along)
    }

    /// The projection with the lens at its widest.
    pub fn widest(&self) -> Projection {
        self.projection(self.lens.focal_min_mm)
    }

    /// The projection with the lens set to `focal_mm`.
    pub fn projection(&self, focal_mm: f64) -> Projection {
        projection(&self.sensor, self.bend, self.effective_focal_mm(focal_mm))
    }
}

/// The projection of a bend and an effective focal length, mm, onto a sensor.
pub fn projection(sensor: &Sensor, bend: f64, effective_focal_mm: f64) -> Projection {
    let size = DVec2::new(sensor.width(), sensor.height());
    let whole = Projection::of(bend, sensor.focal_px(effective_focal_mm), size);
    sensor.image_circle_px.map_or(whole, |circle| whole.in_circle(circle / 2.0))
}

/// The bend, −½ to 1, with which `focal_mm` gives the horizontal field `hfov_deg` on this sensor.
fn bend_for(sensor: &Sensor, focal_mm: f64, hfov_deg: f64) -> f64 {
    let half = hfov_deg.to_radians() / 2.0;
    let wanted = sensor.field_width_mm() / 2.0 / focal_mm;
    let half_width = |bend: f64| if half < greatest_angle(bend) { radius(bend, half) } else { f64::INFINITY };
    let (mut low, mut high) = (EQUISOLID, PINHOLE);
    if half_width(low) >= wanted {
        return low;
    }
    if half_width(high) <= wanted {
        return high;
    }
    // The half width grows with the bend: halve until the doubles meet.
    for _ in 0..200 {
        let middle = 0.5 * (low + high);
        if middle <= low || middle >= high {
            break;
        }
        if half_width(middle) < wanted { low = middle } else { high = middle }
    }
    0.5 * (low + high)
}

/// The focal length, mm, with which a bend gives the horizontal field `hfov_deg` on this sensor.
fn effective_focal(sensor: &Sensor, bend: f64, hfov_deg: f64) -> f64 {
    sensor.field_width_mm() / 2.0 / radius(bend, hfov_deg.to_radians() / 2.0)
}

#[cfg(test)]
mod tests {
    use super::*;

    const SENSOR: Sensor =
        Sensor { width_px: 2688, height_px: 1520, width_mm: 5.376, height_mm: 3.04, image_circle_px: None };

    fn fixed(focal: f64, hfov: Option<f64>) -> FittedLens {
        let lens = Lens {
            focal_min_mm: focal,
            focal_max_mm: focal,
            hfov_at_min_deg: hfov,
            hfov_at_max_deg: None,
            f_number: None,
        };
        FittedLens::new(lens, SENSOR)
    }

    #[test]
    fn bends_of_the_handbook() {
        // Handbook, section 4, check values (computed with OpenCV 5.0).
        for (focal, hfov, bend) in [(2.8, 103.0, 0.48327), (2.8, 112.0, -0.33514), (4.0, 78.0, -0.40711)] {
            assert_eq!(format!("{:.5}", fixed(focal, Some(hfov)).bend), format!("{bend:.5}"));
        }
        let past = fixed(12.0, Some(26.0));
        assert_eq!(past.bend, -0.5);
        assert_eq!(format!("{:.5}", past.effective_focal_mm(12.0)), "11.87245");
    }

    #[test]
    fn fields_of_view_of_the_handbook() {
        for (bend, hfov) in [(1.0, "87.662"), (0.5, "102.564"), (0.0, "110.008")] {
            assert_eq!(format!("{:.3}", projection(&SENSOR, bend, 2.8).hfov().to_degrees()), hfov);
        }
    }

    #[test]
    fn without_a_published_field_the_lens_is_a_pinhole_and_says_so() {
        let lens = fixed(2.8, None);
        assert_eq!((lens.bend, lens.published), (1.0, false));
        assert_eq!(lens.effective_focal_mm(2.8), 2.8);
    }

    #[test]
    fn both_ends_of_a_zoom_give_the_published_field() {
        let lens = Lens {
            focal_min_mm: 2.8,
            focal_max_mm: 12.0,
            hfov_at_min_deg: Some(104.0),
            hfov_at_max_deg: Some(27.0),
            f_number: None,
        };
        let fitted = FittedLens::new(lens, SENSOR);
        assert!((fitted.projection(2.8).hfov().to_degrees() - 104.0).abs() < 1e-9);
        assert!((fitted.projection(12.0).hfov().to_degrees() - 27.0).abs() < 1e-9);
        let (wide, long) = (fitted.effective_focal_mm(2.8) / 2.8, fitted.effective_focal_mm(12.0) / 12.0);
        let middle = fitted.effective_focal_mm(7.4) / 7.4;
        assert!((middle - 0.5 * (wide + long)).abs() < 1e-12);
    }

    #[test]
    fn a_fisheye_wider_than_half_a_circle_is_fitted() {
        let fitted = fixed(1.2, Some(185.0));
        assert!((fitted.projection(1.2).hfov().to_degrees() - 185.0).abs() < 1e-9);
    }
}
