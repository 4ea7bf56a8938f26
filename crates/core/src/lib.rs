//! The rules and the geometry of aiming security cameras.
//!
//! A *target* is a promise to the client, a *sight line* (one head looking at one target) is the
//! evidence that keeps it, and every [`rules`] result says what it found, against which limit and
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
//! assert_eq!(format!("{:.4}", line.px_per_m), "106.8813");
//! ```
//!
//! Frames (handbook, section 3): metres, x east, y north, z up, ground z = 0; `pan` is a bearing
//! clockwise from north, `tilt` is positive below the horizontal, `roll` is clockwise as seen from
//! behind the camera.

pub mod adjustment;
mod aim_slack;
mod angle;
pub mod catalogue;
pub mod drawing;
mod evaluation;
pub mod first_answer;
pub mod footprint;
mod ground_edges;
mod head;
pub mod infrared;
mod interval;
pub mod lens;
pub mod needs;
mod obstacle;
pub mod pocket;
mod pose;
mod projection;
pub mod rules;
mod sampling;
mod scene;
pub mod section;
mod sensor;
mod sight_line;
pub mod site;
pub mod study;
pub mod survey;
mod target;
pub mod uncertainty;
pub mod units;
mod verdict;
mod view;
pub mod ways;

pub use angle::Angle;
pub use evaluation::{Evaluation, HeadRef, HeadResult, TargetResult, evaluate};
pub use head::Head;
pub use obstacle::Solid;
pub use pose::Pose;
pub use projection::Projection;
pub use scene::Scene;
pub use sensor::Sensor;
pub use sight_line::{Samples, SightLine};
pub use site::{Fault, Site};
pub use target::Target;
pub use verdict::Verdict;
pub use view::{Look, View};
