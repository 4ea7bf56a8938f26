//! Names of a head and of a sight line, by the ids in the file.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Names a head.
#[derive(Clone, Debug, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
pub struct HeadRef {
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// The id of one of its presets or flattened views; none for its own aim.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub view: Option<String>,
}

impl HeadRef {
    /// The sight line from this head to a target, by its id.
    pub fn to(&self, target: &str) -> Question {
        Question {
            camera: self.camera.clone(),
            head: self.head.clone(),
            view: self.view.clone(),
            target: target.to_owned(),
        }
    }
}

/// Which sight line is to be kept.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Question {
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// The id of one of its presets or flattened views; none for its own aim, or the first preset where it has some.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub view: Option<String>,
    /// The target's id.
    pub target: String,
}

impl Question {
    /// The head in question.
    pub fn head_ref(&self) -> HeadRef {
        HeadRef { camera: self.camera.clone(), head: self.head.clone(), view: self.view.clone() }
    }
}
