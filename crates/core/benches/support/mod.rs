//! Made-up sites of any size, the same every time.
#![allow(dead_code)]

use bright_angle_core::Site;
use serde_json::{Value, json};

/// Spreads numbers evenly over [0, 1) without a random generator: multiples of the golden ratio.
pub fn spread(i: usize, salt: f64) -> f64 {
    ((i as f64 + 1.0) * 0.618_033_988_749_895 + salt).fract()
}

/// A yard of `side` metres with heads along its edges and inside, targets of all kinds (85 % points, 10 % lines of 10 m, 5 %
/// areas of 5 × 5 m) and small buildings, walls and vehicles.
pub fn generated(heads: usize, targets: usize, obstacles: usize, side: f64) -> Site {
    let cameras: Vec<Value> = (0..heads)
        .map(|i| {
            json!({"id": format!("c{i}"), "name": "C", "position": [spread(i, 0.1) * side, spread(i * 7, 0.6) * side],
                "height_m": 2.5 + 2.0 * spread(i, 0.3),
                "model": {"name": "M", "form": "bullet",
                    "sensor": {"width_px": 2688, "height_px": 1520, "width_mm": 5.376, "height_mm": 3.04},
                    "lens": {"focal_min_mm": 2.8, "focal_max_mm": 12, "hfov_at_min_deg": 104, "hfov_at_max_deg": 27}},
                "heads": [{"id": "h", "pan_deg": 360.0 * spread(i, 0.7), "tilt_deg": 5.0 + 15.0 * spread(i, 0.2),
                    "focal_mm": 2.8 + 9.0 * spread(i, 0.5)}]})
        })
        .collect();
    let targets: Vec<Value> = (0..targets)
        .map(|i| {
            let (x, y) = (spread(i, 0.25) * side, spread(i * 11, 0.8) * side);
            let shape = match i % 20 {
                0 => json!({"kind": "area", "points": [[x, y], [x + 5.0, y], [x + 5.0, y + 5.0], [x, y + 5.0]]}),
                1 | 2 => json!({"kind": "line", "points": [[x, y], [x + 10.0, y]]}),
                _ => json!({"kind": "point", "points": [[x, y]]}),
            };
            json!({"id": format!("t{i}"), "name": "T", "subject": "person", "task": "observe", "shape": shape, "height_m": 1.6})
        })
        .collect();
    let obstacles: Vec<Value> = (0..obstacles)
        .map(|i| {
            let (x, y) = (spread(i * 3, 0.45) * side, spread(i * 13, 0.15) * side);
            let (w, d) = (1.0 + 4.0 * spread(i, 0.9), 1.0 + 3.0 * spread(i, 0.35));
            json!({"id": format!("o{i}"), "name": "O", "kind": "other", "top_m": 1.0 + 3.0 * spread(i, 0.05),
                "outline": [[x, y], [x + w, y], [x + w, y + d], [x, y + d]]})
        })
        .collect();
    let site = json!({"format": "bright-angle/site", "version": 1, "name": "Bench", "obstacles": obstacles, "targets": targets, "cameras": cameras});
    Site::parse(&site.to_string()).expect("a valid site")
}
