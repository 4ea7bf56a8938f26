//! A point of the plan.

/// A point of the plan: metres east, metres north.
pub type Point2 = [f64; 2];
