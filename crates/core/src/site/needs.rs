//! What each task needs: the tables of pixel density (handbook, section 5).

use crate::file::{NeedSet, PlateKind, Task};
use serde::Serialize;
use std::borrow::Cow;
use utoipa::ToSchema;

/// A pixel density with where it comes from.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Need {
    /// Least pixel density, px/m.
    pub px_per_m: f64,
    /// The source of the figure.
    pub basis: Cow<'static, str>,
}

/// Basis of a plate's need: IEC 62676-4 has no step for plates.
const READ_BASIS: &str =
    "read by a machine: 130 px across a 520 mm plate, 16 px of character height; common practice, no source";
const BY_EYE_BASIS: &str = "read by eye; common practice, no source";

/// The need of a plate of a kind for a task: its characters are as large on a narrow plate as on a wide one, so the need is that of the task
/// unless the kind has its own.
pub fn plate_need(kind: Option<&PlateKind>, needs: NeedSet, task: Task) -> Need {
    match kind.and_then(|kind| kind.needs_px_per_m.filter(|_| task.reads_plates()).map(|need| (need, kind))) {
        Some((px_per_m, kind)) => Need { px_per_m, basis: Cow::Owned(format!("own value of {} plates", kind.name)) },
        None => needs.need(task),
    }
}

impl NeedSet {
    /// Least pixel density for a task, px/m.
    pub fn need(self, task: Task) -> Need {
        let (px_per_m, basis) = match (self, task) {
            (_, Task::Read) => (250.0, READ_BASIS),
            (_, Task::ReadByEye) => (175.0, BY_EYE_BASIS),
            (NeedSet::Edition2014, task) => (
                match task {
                    Task::Monitor => 12.5,
                    Task::Detect => 25.0,
                    Task::Observe => 62.5,
                    Task::Recognise => 125.0,
                    Task::Identify | Task::Read | Task::ReadByEye => 250.0,
                    Task::Inspect => 1000.0,
                },
                "IEC 62676-4:2014",
            ),
            (NeedSet::Edition2025, task) => (
                match task {
                    Task::Monitor => 20.0,
                    Task::Detect => 40.0,
                    Task::Observe => 80.0,
                    Task::Recognise => 125.0,
                    Task::Identify | Task::Read | Task::ReadByEye => 250.0,
                    Task::Inspect => 1500.0,
                },
                "IEC 62676-4:2025, from memory",
            ),
        };
        Need { px_per_m, basis: Cow::Borrowed(basis) }
    }

    /// The name this edition gives the step that a task stands on. Which 2025 step answers which
    /// 2014 task is our reading: the steps in order, `validate` (500 px/m) left to own values.
    pub fn step_name(self, task: Task) -> &'static str {
        match (self, task) {
            (NeedSet::Edition2014, task) => task.word(),
            (NeedSet::Edition2025, Task::Monitor) => "overview",
            (NeedSet::Edition2025, Task::Detect) => "outline",
            (NeedSet::Edition2025, Task::Observe) => "discern",
            (NeedSet::Edition2025, Task::Recognise) => "perceive",
            (NeedSet::Edition2025, Task::Identify) => "characterise",
            (NeedSet::Edition2025, Task::Inspect) => "scrutinise",
            (NeedSet::Edition2025, Task::Read) => "read",
            (NeedSet::Edition2025, Task::ReadByEye) => "read by eye",
        }
    }

    /// The steps drawn as contours, from the least density to the greatest.
    pub fn contours(self) -> [(Task, f64); 5] {
        [Task::Detect, Task::Observe, Task::Recognise, Task::Identify, Task::Inspect]
            .map(|task| (task, self.need(task).px_per_m))
    }
}
