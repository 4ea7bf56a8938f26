//! Targets as the file writes them.

use super::{Distance, Photo, PlateKind, Shape, ShapeKind, Subject, Task};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A target as the file writes it.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = Target)]
pub struct TargetFile {
    /// Its id, unique among the targets.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// What must be seen there.
    pub subject: Subject,
    /// What the picture will be used for.
    pub task: Task,
    /// An own need in place of the task's, px/m.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub needs_px_per_m: Option<f64>,
    /// Where it is.
    pub shape: Shape,
    /// Height of the thing that must be seen, m.
    pub height_m: f64,
    /// Where the lane takes lorries: plates sit between `height_m` and this, m, and are judged at both; all of them at `height_m` where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub height_to_m: Option<f64>,
    /// Its own width and height in place of the subject's usual ones, m. A person and a vehicle stand on the ground, a face
    /// and a plate have their middle at `height_m`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(value_type = Option<[f64; 2]>)]
    pub size_m: Option<[f64; 2]>,
    /// The bearing its face or plate points to, degrees; none for any.
    #[serde(default)]
    pub facing_deg: Option<f64>,
    /// What kind of plate it is, where that is one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub plate: Option<PlateKind>,
    /// How fast the subject moves, m/s.
    #[serde(default)]
    pub speed_mps: f64,
    /// Height of the ground there, m; `height_m` is over it.
    #[serde(default, skip_serializing_if = "super::is_zero")]
    pub ground_m: f64,
    /// How long it may go unseen, s; none where that was not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub unseen_at_most_s: Option<f64>,
    /// How many heads must keep it.
    #[serde(default = "one")]
    #[schema(minimum = 1, maximum = 8)]
    pub heads_wanted: u32,
    /// How much it matters: 1 first; all that say nothing after those that do.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1, maximum = 99)]
    pub importance: Option<u32>,
    /// What the cameras themselves shall do to people there; nothing where nobody said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cameras_shall: Option<CameraWish>,
    /// How its distance was got.
    #[serde(default)]
    pub distance: Distance,
    /// How well the drawn position of a point is known: one standard deviation, m; 0.5 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub position_sigma_m: Option<f64>,
    /// Whether the position of a point is known and must not move.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub fixed: bool,
    /// What the picture will be used for, in the client's words.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub used_for: Option<String>,
    /// The light there at night.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub night_light: Option<String>,
    /// Its photos.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub photos: Vec<Photo>,
}

/// What cameras shall do to people.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CameraWish {
    /// Be seen, from everywhere here.
    Deter,
    /// Not be noticed, from anywhere here.
    GoUnnoticed,
}

impl TargetFile {
    /// Whether it is a point, which a reading can go to.
    pub fn is_point(&self) -> bool {
        self.shape.kind == ShapeKind::Point
    }
}

fn one() -> u32 {
    1
}
