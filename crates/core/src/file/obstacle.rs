//! Solids that may stand in the way.

use super::Point2;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A solid: an outline extruded from `base_m` to `top_m`.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Obstacle {
    /// Its id, unique among the obstacles.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// What it is.
    pub kind: ObstacleKind,
    /// Its corners in order, not repeated at the end.
    #[schema(value_type = Vec<[f64; 2]>)]
    pub outline: Vec<Point2>,
    /// Whether the outline is filled; an open one is a thin wall.
    #[serde(default = "yes")]
    pub closed: bool,
    /// Height of its underside, m.
    #[serde(default)]
    pub base_m: f64,
    /// Height of its top, m.
    pub top_m: f64,
    /// 0 opaque … 1 no hindrance; over 0.5 it does not block but is reported.
    #[serde(default)]
    #[schema(minimum = 0, maximum = 1)]
    pub see_through: f64,
    /// Height of the ground at its foot, m; base and top are over it.
    #[serde(default, skip_serializing_if = "super::is_zero")]
    pub ground_m: f64,
    /// Its corners when it stands open; a door or gate.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(value_type = Option<Vec<[f64; 2]>>)]
    pub open_outline: Option<Vec<Point2>>,
    /// Whether it stands open now.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub open: bool,
    /// Thickness of the trunk under a tree's crown, m.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub trunk_m: Option<f64>,
    /// How much a tree grows in a year, upwards and outwards, m.
    #[serde(default, skip_serializing_if = "super::is_zero")]
    pub growth_m_per_year: f64,
    /// How well one sees through a tree that has lost its leaves; none for one that keeps them.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bare_see_through: Option<f64>,
    /// Whether it carries writing that a plate reader may take for a plate: lettering, a sign, a pane that mirrors one.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub lettering: bool,
}

impl Obstacle {
    /// A filled, opaque solid that stands on the ground, with nothing else said.
    pub fn new(id: &str, name: &str, kind: ObstacleKind, outline: Vec<Point2>, top_m: f64) -> Self {
        Obstacle {
            id: id.to_owned(),
            name: name.to_owned(),
            kind,
            outline,
            closed: true,
            base_m: 0.0,
            top_m,
            see_through: 0.0,
            ground_m: 0.0,
            open_outline: None,
            open: false,
            trunk_m: None,
            growth_m_per_year: 0.0,
            bare_see_through: None,
            lettering: false,
        }
    }

    /// The corners that it has as it stands now.
    pub fn standing(&self) -> &[Point2] {
        match &self.open_outline {
            Some(outline) if self.open => outline,
            _ => &self.outline,
        }
    }
}

/// What an obstacle is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ObstacleKind {
    /// A building.
    Building,
    /// A wall.
    Wall,
    /// A fence.
    Fence,
    /// A tree.
    Tree,
    /// A pane of glass.
    Glass,
    /// A parked vehicle.
    Vehicle,
    /// An eave or another overhang.
    Eave,
    /// A door or gate that opens.
    Door,
    /// Anything else.
    Other,
}

fn yes() -> bool {
    true
}
