//! How a density stands to its need, in words.

use crate::file::Task;

/// As in `needs 250 to identify, 32 % short`; densities in px/m.
///
/// ```
/// use bright_angle_core::{file::Task, words::shortfall};
/// assert_eq!(shortfall(171.0, 250.0, Task::Identify), "needs 250 to identify, 32 % short");
/// assert_eq!(shortfall(75.0, 62.5, Task::Observe), "needs 62.5 to observe, 20 % to spare");
/// ```
pub fn shortfall(found: f64, need: f64, task: Task) -> String {
    let share = (found / need - 1.0) * 100.0;
    let much = match share {
        share if share.abs() < 0.5 => "just that".to_owned(),
        share if share < 0.0 => format!("{:.0} % short", share.abs()),
        share => format!("{share:.0} % to spare"),
    };
    format!("needs {} to {}, {much}", density(need), task.word())
}

/// A density as it is told: whole from 100 on, else to one decimal.
fn density(value: f64) -> String {
    if value >= 100.0 { format!("{value:.0}") } else { format!("{}", (value * 10.0).round() / 10.0) }
}
