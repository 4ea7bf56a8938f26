//! Pixels and densities against OpenCV 5.0 (`outside/projections`).

use bright_angle_core::equipment::lens::projection;
use bright_angle_core::file::Sensor;
use bright_angle_core::math::{Angle, Pose, View};
use glam::DVec3;
use std::collections::HashMap;

/// Holds each row of a table against our own figures; the first column says which bend it has. Answers how often each stood there.
fn held(table: &str, within: f64, bend_of: impl Fn(&str) -> f64) -> HashMap<String, usize> {
    let table = format!("{}/../../../outside/projections/{table}", env!("CARGO_MANIFEST_DIR"));
    let mut reader = csv::Reader::from_path(table).unwrap();
    let mut seen = HashMap::new();
    for record in reader.records() {
        let record = record.unwrap();
        let n: Vec<f64> = record.iter().skip(1).map(|field| field.parse().unwrap()).collect();
        let sensor = Sensor {
            width_px: n[0] as u32,
            height_px: n[1] as u32,
            width_mm: n[2],
            height_mm: n[3],
            image_circle_px: None,
        };
        let view = View {
            pose: Pose::new(
                DVec3::new(n[8], n[9], n[10]),
                Angle::degrees(n[5]),
                Angle::degrees(n[6]),
                Angle::degrees(n[7]),
            ),
            projection: projection(&sensor, bend_of(&record[0]), n[4]),
        };
        let look = view.look(DVec3::new(n[11], n[12], n[13])).expect("in front of the camera");
        for (ours, theirs) in [(look.pixel.x, n[14]), (look.pixel.y, n[15]), (look.across, n[16]), (look.up, n[17])] {
            assert!((ours - theirs).abs() <= within * theirs.abs().max(1.0), "{ours} is not {theirs} in {record:?}");
        }
        *seen.entry(record[0].to_owned()).or_insert(0) += 1;
    }
    seen
}

#[test]
fn pixels_and_densities_are_those_of_opencv() {
    let seen = held("projections.csv", 1e-6, |kind| if kind == "equidistant" { 0.0 } else { 1.0 });
    assert!(seen["rectilinear"] >= 200 && seen["equidistant"] >= 100, "the table has shrunk: {seen:?}");
}

#[test]
fn bends_between_the_textbook_ones_are_those_of_the_series() {
    // OpenCV's polynomial is cut after the ninth power: the radius is right to 1e-9, its slope to about 1e-7.
    let seen = held("bends.csv", 1e-6, |bend| bend.parse().unwrap());
    assert!(seen.len() >= 150 && seen.keys().any(|bend| bend.starts_with('-')), "the table has shrunk");
}
