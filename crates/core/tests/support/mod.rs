//! Site files for tests.
#![allow(dead_code)]

pub mod network;

use serde_json::{Value, json};

/// A sensor of so many pixels and millimetres.
pub fn sensor(width_px: u32, height_px: u32, width_mm: f64) -> Value {
    json!({"width_px": width_px, "height_px": height_px, "width_mm": width_mm,
           "height_mm": width_mm * f64::from(height_px) / f64::from(width_px)})
}

/// A camera with one head and a lens of one focal length.
pub struct CameraAt {
    pub at: [f64; 2],
    pub height: f64,
    pub pan: f64,
    pub tilt: f64,
    pub roll: f64,
    pub focal: f64,
    pub hfov: Option<f64>,
    pub sensor: Value,
}

impl Default for CameraAt {
    fn default() -> Self {
        let (at, height, pan, tilt, roll, focal, hfov) = ([0.0, 0.0], 3.0, 0.0, 4.0, 0.0, 6.0, None);
        CameraAt { at, height, pan, tilt, roll, focal, hfov, sensor: sensor(1920, 1080, 5.376) }
    }
}

impl CameraAt {
    pub fn json(&self) -> Value {
        let mut lens = json!({"focal_min_mm": self.focal, "focal_max_mm": self.focal});
        if let Some(hfov) = self.hfov {
            lens["hfov_at_min_deg"] = json!(hfov);
        }
        json!({"id": "c1", "name": "C1", "position": self.at, "height_m": self.height,
            "model": {"name": "Test", "form": "bullet", "sensor": self.sensor, "lens": lens},
            "heads": [{"id": "h1", "pan_deg": self.pan, "tilt_deg": self.tilt, "roll_deg": self.roll, "focal_mm": self.focal}]})
    }
}

/// A point target measured by laser.
pub fn target(subject: &str, task: &str, at: [f64; 2], height: f64) -> Value {
    json!({"id": "t1", "name": "T1", "subject": subject, "task": task,
        "shape": {"kind": "point", "points": [at]}, "height_m": height, "distance": {"how": "laser"}})
}

pub fn site(cameras: Vec<Value>, targets: Vec<Value>, obstacles: Vec<Value>) -> Value {
    json!({"format": "bright-angle/site", "version": 1, "name": "Test", "obstacles": obstacles, "targets": targets, "cameras": cameras})
}

/// A box standing on the ground.
pub fn block(x: [f64; 2], y: [f64; 2], top: f64) -> Value {
    json!({"id": "o1", "name": "Block", "kind": "building", "top_m": top,
        "outline": [[x[0], y[0]], [x[1], y[0]], [x[1], y[1]], [x[0], y[1]]]})
}

pub fn parse(site: &Value) -> bright_angle_core::Site {
    bright_angle_core::Site::parse(&site.to_string()).unwrap_or_else(|faults| panic!("{faults:?}"))
}

/// The evaluation as the JSON that everybody sees.
pub fn evaluated(site: &Value) -> Value {
    serde_json::to_value(bright_angle_core::evaluate(&parse(site))).unwrap()
}

pub const DEMOS: [&str; 4] = [
    include_str!("../../../../demo/tern-quay.json"),
    include_str!("../../../../demo/umber-yard.json"),
    include_str!("../../../../demo/veterinary-clinic.json"),
    include_str!("../../../../demo/saltpan-lane.json"),
];
