//! Properties that hold for every lens, pose and point.

use crate::support::*;
use bright_angle_core::equipment::lens::{FittedLens, projection};
use bright_angle_core::file::Lens;
use bright_angle_core::file::Sensor;
use bright_angle_core::math::{Angle, Pose, View};
use glam::{DVec2, DVec3};
use proptest::prelude::*;

const SENSOR: Sensor =
    Sensor { width_px: 2688, height_px: 1520, width_mm: 5.376, height_mm: 3.04, image_circle_px: None };

fn view(bend: f64, focal: f64, angles: (f64, f64, f64)) -> View {
    let (pan, tilt, roll) = angles;
    View {
        pose: Pose::new(DVec3::new(1.0, 2.0, 3.0), Angle::degrees(pan), Angle::degrees(tilt), Angle::degrees(roll)),
        projection: projection(&SENSOR, bend, focal),
    }
}

fn angles() -> impl Strategy<Value = (f64, f64, f64)> {
    (-180.0..180.0_f64, -60.0..80.0_f64, -180.0..180.0_f64)
}

/// Whether a camera turned off its aim still has the target in its picture, and its aim slack.
fn seen_when_off(camera: &CameraAt, at: [f64; 2], pan: f64, tilt: f64) -> (bool, f64) {
    let mut json = camera.json();
    json["heads"][0]["pan_deg"] = (camera.pan + pan).into();
    json["heads"][0]["tilt_deg"] = (camera.tilt + tilt).into();
    let found = evaluated(&site(vec![json], vec![target("face", "detect", at, 1.6)], vec![]));
    let line = &found["sight_lines"][0];
    (line["in_view"] == true, line["aim_slack_deg"].as_f64().unwrap_or(0.0))
}

proptest! {
    #[test]
    fn aim_slack_is_the_smallest_single_turn_that_loses_the_target(
        pan in -25.0..25.0_f64, tilt in -5.0..40.0_f64, roll in prop::sample::select(vec![0.0, 90.0, 30.0]), east in -6.0..6.0_f64, north in 5.0..30.0_f64,
    ) {
        let camera = CameraAt { pan, tilt, roll, focal: 4.0, ..Default::default() };
        let (seen, slack) = seen_when_off(&camera, [east, north], 0.0, 0.0);
        prop_assume!(seen);
        let turned = |by: f64| [(by, 0.0), (-by, 0.0), (0.0, by), (0.0, -by)].map(|(p, t)| seen_when_off(&camera, [east, north], p, t).0);
        prop_assert!(turned((slack - 1e-6).max(0.0)).iter().all(|seen| *seen), "lost before {slack}");
        prop_assert!(turned(slack + 1e-6).iter().any(|seen| !seen), "still seen past {slack}");
    }

    #[test]
    fn projection_is_inverted_by_its_inverse(bend in -0.5..1.0_f64, focal in 2.0..30.0_f64, u in 0.0..2688.0_f64, v in 0.0..1520.0_f64) {
        let projection = projection(&SENSOR, bend, focal);
        if let Some(direction) = projection.unproject(DVec2::new(u, v)) {
            let back = projection.project(direction).unwrap();
            prop_assert!((back - DVec2::new(u, v)).length() < 1e-6, "{back}");
            prop_assert!((direction.length() - 1.0).abs() < 1e-12);
        }
    }

    #[test]
    fn density_falls_with_distance(bend in -0.5..1.0_f64, focal in 2.0..30.0_f64, a in angles(), off in -0.6..0.6_f64, near in 1.0..50.0_f64, more in 1.01..4.0_f64) {
        let view = view(bend, focal, a);
        let ray = view.pose.to_site(DVec3::new(off.sin(), 0.3 * off, off.cos()));
        let density = |distance: f64| view.across_at(view.pose.position + ray * distance);
        prop_assert!(density(near) > density(near * more));
    }

    #[test]
    fn density_is_the_limit_of_a_small_step(bend in -0.5..1.0_f64, focal in 2.0..12.0_f64, a in angles(), x in -0.7..0.7_f64, y in -0.5..0.5_f64, far in 2.0..40.0_f64) {
        let view = view(bend, focal, a);
        let point = view.pose.position + view.pose.to_site(DVec3::new(x, y, 1.0)) * far;
        let pixel = |p: DVec3| view.pixel_of(p).unwrap().0;
        let h = 1e-5;
        let up = (pixel(point + DVec3::Z * h) - pixel(point - DVec3::Z * h)).length() / (2.0 * h);
        let found = view.look(point).unwrap().up;
        prop_assert!((up - found).abs() < 1e-4 * found.max(1.0), "{up} {found}");
    }

    #[test]
    fn a_published_field_comes_out_as_published(focal in 2.0..20.0_f64, wider in 1.0..1.25_f64) {
        let pinhole = 2.0 * (SENSOR.width_mm / 2.0 / focal).atan().to_degrees();
        let published = pinhole * wider;
        let lens = Lens { focal_min_mm: focal, focal_max_mm: focal, hfov_at_min_deg: Some(published), hfov_at_max_deg: None, f_number: None };
        let fitted = FittedLens::new(lens, SENSOR);
        prop_assert!((-0.5..=1.0).contains(&fitted.bend()));
        prop_assert!((fitted.projection(focal).hfov().to_degrees() - published).abs() < 1e-6);
    }

    #[test]
    fn turning_the_site_turns_nothing_in_the_picture(a in angles(), turn in -180.0..180.0_f64, x in 2.0..20.0_f64, y in -5.0..5.0_f64) {
        let one = view(1.0, 6.0, a);
        let other = view(1.0, 6.0, (a.0 + turn, a.1, a.2));
        let offset = one.pose.to_site(DVec3::new(y, 0.2 * y, x));
        let (sin, cos) = turn.to_radians().sin_cos();
        let turned = DVec3::new(offset.x * cos + offset.y * sin, offset.y * cos - offset.x * sin, offset.z);
        let (p, q) = (one.look(one.pose.position + offset).unwrap(), other.look(other.pose.position + turned).unwrap());
        prop_assert!((p.pixel - q.pixel).length() < 1e-6 && (p.across - q.across).abs() < 1e-6);
    }
}
