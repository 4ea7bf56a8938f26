//! The rules and the geometry of aiming security cameras.
//!
//! A *target* is a promise to the client, a *sight line* (one head looking at one target) is the
//! evidence that keeps it, and every [`judge::rules`] result says what it found, against which limit and
//! on what basis. The crate does no I/O and knows no clock, thread, random number or global state,
//! so that the same code answers the command line, the server and (compiled to WebAssembly) a
//! browser.
//!
//! ```
//! use bright_angle_core::{evaluate, Site};
//! let site = Site::parse(r#"{
//!   "format": "bright-angle/site", "version": 1, "name": "A yard", "obstacles": [],
//!   "targets": [{"id": "t1", "name": "Till", "subject": "face", "task": "identify",
//!     "shape": {"kind": "point", "points": [[0, 20]]}, "height_m": 1.6}],
//!   "cameras": [{"id": "c1", "name": "C1", "position": [0, 0], "height_m": 3,
//!     "model": {"name": "Bullet 2 MP 6 mm", "form": "bullet",
//!       "sensor": {"width_px": 1920, "height_px": 1080, "width_mm": 5.376, "height_mm": 3.024},
//!       "lens": {"focal_min_mm": 6, "focal_max_mm": 6}},
//!     "heads": [{"id": "h1", "pan_deg": 0, "tilt_deg": 4, "focal_mm": 6}]}]
//! }"#).unwrap();
//! let line = &evaluate(&site).sight_lines[0];
//! assert_eq!(format!("{:.4}", line.px_per_m.unwrap()), "106.8813");
//! ```
//!
//! Frames (handbook, section 3): metres, x east, y north, z up, ground z = 0; `pan` is a bearing
//! clockwise from north, `tilt` is positive below the horizontal, `roll` is clockwise as seen from
//! behind the camera.
//!
//! The rooms and their order stand in `docs/architecture.md`; `tests/rooms.rs` holds them.

pub mod answer;
pub mod change;
pub mod equipment;
pub mod exchange;
pub mod file;
pub mod fit;
pub mod ground;
pub mod judge;
pub mod light;
pub mod math;
#[cfg(feature = "route")]
pub mod offer;
pub mod picture;
pub mod prove;
pub mod scene;
pub mod show;
pub mod site;
pub mod sun;
pub mod survey;
pub mod trainer;
pub mod verdict;
pub mod wire;
pub mod words;
pub mod work;

pub use file::Fault;
pub use judge::{evaluate, evaluate_within};
pub use site::Site;
pub use verdict::Verdict;
