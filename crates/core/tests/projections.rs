//! Pixels and densities against OpenCV 5.0 (`outside/projections`).

use bright_angle_core::equipment::lens::projection;
use bright_angle_core::file::Sensor;
use bright_angle_core::math::{Angle, Pose, View};
use glam::DVec3;

#[test]
fn pixels_and_densities_are_those_of_opencv() {
    let table = concat!(env!("CARGO_MANIFEST_DIR"), "/../../outside/projections/projections.csv");
    let mut reader = csv::Reader::from_path(table).unwrap();
    let mut seen = (0, 0);
    for record in reader.records() {
        let record = record.unwrap();
        let n: Vec<f64> = record.iter().skip(1).map(|field| field.parse().unwrap()).collect();
        let equidistant = &record[0] == "equidistant";
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
            projection: projection(&sensor, if equidistant { 0.0 } else { 1.0 }, n[4]),
        };
        let look = view.look(DVec3::new(n[11], n[12], n[13])).expect("in front of the camera");
        for (ours, theirs) in [(look.pixel.x, n[14]), (look.pixel.y, n[15]), (look.across, n[16]), (look.up, n[17])] {
            assert!((ours - theirs).abs() <= 1e-6 * theirs.abs().max(1.0), "{ours} is not {theirs} in {record:?}");
        }
        if equidistant { seen.1 += 1 } else { seen.0 += 1 }
    }
    assert!(seen.0 >= 200 && seen.1 >= 100, "the table has shrunk: {seen:?}");
}
