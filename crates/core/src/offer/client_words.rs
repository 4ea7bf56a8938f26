//! What a promise is to do, in the client's words.

use crate::file::{Subject, TargetFile, Task};

/// What a promise is to do, in the client's words.
pub(super) fn in_client_words(target: &TargetFile) -> String {
    let whom = match target.subject {
        Subject::Person => "a person",
        Subject::Face => "a face",
        Subject::Vehicle => "a vehicle",
        Subject::Plate => "a number plate",
        Subject::Scene => "the scene",
    };
    let does = match target.task {
        Task::Monitor => format!("see from afar whether {whom} moves there"),
        Task::Detect => format!("see that {whom} is there"),
        Task::Observe => format!("see what {whom} looks like and does"),
        Task::Recognise => format!("recognise {whom} that somebody knows"),
        Task::Identify => format!("identify {whom} that nobody knows"),
        Task::Inspect => format!("see every detail of {whom}"),
        Task::Read => format!("read {whom}, by a machine"),
        Task::ReadByEye => format!("read {whom}, by eye"),
    };
    let twice = if target.heads_wanted > 1 { format!(", by {} cameras", target.heads_wanted) } else { String::new() };
    format!("{does}{twice}")
}
