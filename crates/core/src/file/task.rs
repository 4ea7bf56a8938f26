//! What the picture of a target is used for: subjects, tasks, and which table of needs applies.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What the picture of a target will be used for.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Task {
    /// See numbers, direction and speed of people across a wide area.
    Monitor,
    /// Say whether somebody is there.
    Detect,
    /// See some details, such as clothing.
    Observe,
    /// Say whether it is somebody known.
    Recognise,
    /// Know a stranger beyond reasonable doubt.
    Identify,
    /// Inspect the finest details.
    Inspect,
    /// Read a number plate, by a machine.
    Read,
    /// Read a number plate by eye.
    ReadByEye,
}

impl Task {
    /// All tasks from the least to the most demanding, then reading plates.
    pub const ALL: [Task; 8] = [
        Task::Monitor,
        Task::Detect,
        Task::Observe,
        Task::Recognise,
        Task::Identify,
        Task::Inspect,
        Task::Read,
        Task::ReadByEye,
    ];

    /// Whether it is reading plates.
    pub fn reads_plates(self) -> bool {
        matches!(self, Task::Read | Task::ReadByEye)
    }

    /// The task as the file writes it.
    pub fn word(self) -> &'static str {
        match self {
            Task::Monitor => "monitor",
            Task::Detect => "detect",
            Task::Observe => "observe",
            Task::Recognise => "recognise",
            Task::Identify => "identify",
            Task::Inspect => "inspect",
            Task::Read => "read",
            Task::ReadByEye => "read_by_eye",
        }
    }

    /// The task with this name.
    pub fn named(word: &str) -> Option<Task> {
        Task::ALL.into_iter().find(|task| task.word() == word)
    }
}

/// A published table of needs.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub enum NeedSet {
    /// IEC/EN 62676-4:2014/2015, the table on camera-view tasks.
    #[default]
    #[serde(rename = "2014")]
    Edition2014,
    /// IEC 62676-4:2025, regraded; its figures are from memory, to be checked against a copy.
    #[serde(rename = "2025")]
    Edition2025,
}

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
