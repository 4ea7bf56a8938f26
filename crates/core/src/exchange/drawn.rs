//! What is found in a drawing of another program, in metres, before any of it is taken.

use crate::file::Point2;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One outline of a drawing, in metres.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Drawn {
    /// What it is in the file, as in `feature 12: Polygon`.
    pub source: String,
    /// Its layer; empty for none.
    pub layer: String,
    /// What it is called, if it says so.
    pub name: Option<String>,
    /// Its corners, m.
    pub points: Vec<Point2>,
    /// Whether it closes.
    pub closed: bool,
    /// Height of its underside, m.
    pub base_m: Option<f64>,
    /// Height of its top, m.
    pub top_m: Option<f64>,
}

/// A measured point of a drawing, as rangefinders write them.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct DrawnPoint {
    /// What it is in the file.
    pub source: String,
    /// Its layer.
    pub layer: String,
    /// What it is called: by itself, or by the text that stands at it.
    #[schema(required)]
    pub name: Option<String>,
    /// Where it is, m.
    #[schema(value_type = [f64; 2])]
    pub at: Point2,
    /// Its height, m.
    pub height_m: f64,
}

/// A text of a drawing.
#[derive(Clone, Debug, PartialEq)]
pub struct DrawnText {
    /// What it is in the file.
    pub source: String,
    /// Its layer.
    pub layer: String,
    /// What it says, in one line.
    pub says: String,
    /// Where it stands, m.
    pub at: Point2,
}

/// All that was found in a drawing.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Found {
    /// Its outlines.
    pub drawn: Vec<Drawn>,
    /// Its measured points.
    pub points: Vec<DrawnPoint>,
    /// Its texts, which name what they stand at.
    pub texts: Vec<DrawnText>,
    /// What else there is, and why it is left out.
    pub left_out: Vec<LeftOut>,
    /// What it holds in all, by kind, in words; empty where that was not counted.
    pub holds: Vec<(String, usize)>,
}

/// What was left out.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct LeftOut {
    /// What it is in the file.
    pub source: String,
    /// Its layer.
    pub layer: String,
    /// Why.
    pub why: String,
}

/// The box around some points: its lower and upper corner; the other way round where there are none.
pub(super) fn box_of<'a>(points: impl Iterator<Item = &'a Point2>) -> [Point2; 2] {
    points.fold([[f64::MAX; 2], [f64::MIN; 2]], |[low, high], p| {
        [[low[0].min(p[0]), low[1].min(p[1])], [high[0].max(p[0]), high[1].max(p[1])]]
    })
}
