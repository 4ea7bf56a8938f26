//! Geometry without a subject: angles, intervals, projections, poses, grids, samples.

mod angle;
mod clip;
mod grid;
pub mod homography;
mod hull;
mod interval;
pub mod least_squares;
mod lens_curve;
mod pose;
pub mod projection;
mod ray_curve;
pub mod sampling;
mod segment;
mod simple;
mod slope;
mod view;

pub use angle::Angle;
pub use clip::{clip, keep_left, ring_area, sides};
pub use grid::Grid;
pub use hull::{Ring, hull};
pub use interval::Interval;
pub use lens_curve::LensCurve;
pub use pose::Pose;
pub use projection::Projection;
pub use ray_curve::RayCurve;
pub use segment::nearest_on;
pub use simple::is_simple;
pub use slope::{ground_of_slant, horizontal_m};
pub use view::{Look, Separation, View};
