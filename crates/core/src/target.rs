//! A target: a point, line or area that must be seen, ready to be looked at.

use crate::Angle;
use crate::needs::{Need, Task};
use crate::uncertainty::Distance;
use glam::DVec3;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What must be seen there.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Subject {
    /// A person, head to foot.
    Person,
    /// A person's face.
    Face,
    /// A vehicle.
    Vehicle,
    /// A number plate.
    Plate,
    /// The scene as a whole.
    Scene,
}

/// A validated target with its samples.
#[derive(Clone, Debug, PartialEq)]
pub struct Target {
    /// Its id in the site file.
    pub id: String,
    /// What must be seen there.
    pub subject: Subject,
    /// What the picture will be used for.
    pub task: Task,
    /// The pixel density that takes.
    pub need: Need,
    /// The points that stand for it: one for a point, steps of at most half a metre for the rest.
    pub samples: Vec<DVec3>,
    /// The bearing its face or plate points to.
    pub facing: Option<Angle>,
    /// How its distance was got.
    pub distance: Distance,
    /// How many heads must keep it.
    pub heads_wanted: usize,
}

impl Target {
    /// Whether somebody's face is what the picture is used for.
    pub fn wants_a_face(&self) -> bool {
        matches!(self.subject, Subject::Face | Subject::Person)
            && matches!(self.task, Task::Recognise | Task::Identify | Task::Inspect)
    }
}
