//! Facts of the trade that the whole chain has to agree with. Each is common practice, no source.

use crate::support::*;
use bright_angle_core::file::Sensor;
use bright_angle_core::file::{NeedSet, Task};
use bright_angle_core::survey::pocket;

const FOOT: f64 = 0.3048;

/// Density on the axis of a rectilinear lens at a distance, through the whole chain.
fn on_axis(width_px: u32, width_mm: f64, focal: f64, distance: f64) -> f64 {
    let camera =
        CameraAt { tilt: 0.0, focal, sensor: sensor(width_px, width_px * 9 / 16, width_mm), ..Default::default() };
    let found = evaluated(&site(vec![camera.json()], vec![target("face", "identify", [0.0, distance], 3.0)], vec![]));
    found["sight_lines"][0]["px_per_m"].as_f64().unwrap()
}

#[test]
fn the_standards_table_of_needs() {
    // IEC/EN 62676-4:2014/2015, table on camera-view tasks; the same as 80, 40, 16, 8, 4 and 1 mm per pixel.
    let tasks = [Task::Monitor, Task::Detect, Task::Observe, Task::Recognise, Task::Identify, Task::Inspect];
    for (task, mm_per_px) in tasks.into_iter().zip([80.0, 40.0, 16.0, 8.0, 4.0, 1.0]) {
        assert_eq!(NeedSet::Edition2014.need(task).px_per_m, 1000.0 / mm_per_px);
    }
    // UK Home Office publication 28/09 (2009): the 1.6 m test figure fills 400 PAL lines for identify, half of
    // them for recognise, a quarter for observe, a tenth for detect, a twentieth for monitor.
    for (task, share) in [
        (Task::Identify, 1.0),
        (Task::Recognise, 0.5),
        (Task::Observe, 0.25),
        (Task::Detect, 0.1),
        (Task::Monitor, 0.05),
    ] {
        assert_eq!(NeedSet::Edition2014.need(task).px_per_m, share * 400.0 / 1.6);
    }
    // IEC 62676-4:2025, from memory.
    for (task, need) in tasks.into_iter().zip([20.0, 40.0, 80.0, 125.0, 250.0, 1500.0]) {
        let found = NeedSet::Edition2025.need(task);
        assert_eq!(found.px_per_m, need);
        assert!(found.basis.contains("from memory"));
    }
    assert!(NeedSet::Edition2014.need(Task::Read).basis.contains("common practice, no source"));
}

#[test]
fn a_wide_eight_megapixel_lens_does_not_recognise_at_60_ft() {
    // Common practice, no source: past 60 ft take the zoom.
    let found = on_axis(3840, 7.68, 2.8, 60.0 * FOOT);
    assert_eq!(format!("{found:.1}"), "76.6");
    assert!(found < NeedSet::Edition2014.need(Task::Recognise).px_per_m);
}

#[test]
fn a_plate_at_66_and_a_half_ft_wants_a_zoom_but_not_its_end() {
    // Common practice, no source.
    let need = NeedSet::Edition2014.need(Task::Read).px_per_m;
    assert!(on_axis(3840, 7.68, 2.8, 20.27) < need);
    assert!(on_axis(3840, 7.68, 12.0, 20.27) > need * 1.1);
}

#[test]
fn a_two_megapixel_plate_camera_reads_from_50_to_100_ft() {
    // Common practice, no source: 8 mm at 50 ft, 32 mm at 100 ft.
    assert_eq!(format!("{:.0}", on_axis(1920, 5.376, 8.0, 50.0 * FOOT)), "187");
    assert_eq!(format!("{:.0}", on_axis(1920, 5.376, 32.0, 100.0 * FOOT)), "375");
}

#[test]
fn at_22_mm_and_70_ft_the_picture_is_a_lane_wide() {
    // Common practice, no source.
    let width = 1920.0 / on_axis(1920, 5.376, 22.0, 70.0 * FOOT);
    assert_eq!(format!("{width:.1}"), "5.2");
}

#[test]
fn a_level_plate_camera_looks_under_two_degrees() {
    // Common practice, no source: 48 in up, plates 24 to 34 in up, 70 ft away.
    for inches in [24.0, 34.0] {
        let camera = CameraAt { height: 48.0 * 0.0254, tilt: 0.0, focal: 22.0, ..Default::default() };
        let mut plate = target("plate", "read", [0.0, 70.0 * FOOT], inches * 0.0254);
        plate["facing_deg"] = 180.0.into();
        let line = evaluated(&site(vec![camera.json()], vec![plate], vec![]))["sight_lines"][0].take();
        let rules = line["rules"].as_array().unwrap();
        let vertical = rules.iter().find(|rule| rule["rule"] == "plate_vertical").unwrap();
        assert!(vertical["value"].as_f64().unwrap() < 2.0);
        assert_eq!(vertical["verdict"], "kept");
        assert!(vertical["basis"].as_str().unwrap().contains("common practice, no source"));
    }
}

#[test]
fn one_setting_does_not_serve_plates_at_25_and_75_ft() {
    // Common practice, no source: infrared exposure differs by 3.2 stops.
    let sensor = Sensor { width_px: 1920, height_px: 1080, width_mm: 5.376, height_mm: 3.024, image_circle_px: None };
    let zone =
        pocket::answer(75.0 * FOOT, Task::Read, NeedSet::Edition2014, sensor, &[]).with_near_end(25.0 * FOOT).near;
    assert_eq!(format!("{:.1}", zone.expect("a near end").infrared_stops), "3.2");
}

#[test]
fn thirty_times_zoom_does_not_show_a_face_at_600_m() {
    // Common practice, no source: 142 mm on 2 MP.
    let found = on_axis(1920, 5.376, 142.0, 600.0);
    assert_eq!(format!("{found:.1}"), "84.5");
    assert!(found < NeedSet::Edition2014.need(Task::Recognise).px_per_m);
}
