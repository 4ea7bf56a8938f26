//! Where a target is: a point, a line or an area.

use super::Point2;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Where a target is.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Shape {
    /// Point, line or area.
    pub kind: ShapeKind,
    /// One point, the points of a line in order, or the corners of an area in order.
    #[schema(value_type = Vec<[f64; 2]>)]
    pub points: Vec<Point2>,
}

/// The kind of place that a target takes up.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ShapeKind {
    /// One point.
    Point,
    /// A line, straight or with corners.
    Line,
    /// An area with a simple outline.
    Area,
}
