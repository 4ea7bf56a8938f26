//! Subjects have a size: what of them must be in the picture and clear (handbook, section 4, "Verdicts").

use crate::file::{Subject, Task};

/// What counts of a subject whose stated point lies at height zero: an upright rectangle that faces the camera.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Body {
    /// Half its width, m.
    pub half: f64,
    /// Height of its lower edge over the stated point, m; negative below it.
    pub low: f64,
    /// Height of its upper edge over the stated point, m.
    pub high: f64,
}

impl Body {
    /// A point.
    const POINT: Body = Body { half: 0.0, low: 0.0, high: 0.0 };

    /// What counts of a subject for a task, with its stated point at `height_m` over the ground. Of a person that is the upper
    /// two thirds, to recognise or identify the upper half. Persons and vehicles stand on the ground, or so far above it that
    /// the stated point is not over their top.
    pub fn new(subject: Subject, task: Task, height_m: f64, size_m: Option<[f64; 2]>) -> Self {
        let Some([width, tall]) = size_m.or(usual_size(subject)) else { return Body::POINT };
        let (low, high) = match subject {
            Subject::Face | Subject::Plate | Subject::Scene => (-tall / 2.0, tall / 2.0),
            Subject::Person | Subject::Vehicle => {
                let top = tall.max(height_m) - height_m;
                (top - tall * counted_share(subject, task), top)
            }
        };
        Body { half: width / 2.0, low, high }
    }

    /// Whether it is only a point.
    pub fn is_point(&self) -> bool {
        self.half == 0.0
    }
}

/// Width and height of a subject, m; none for a scene, which is judged at its points. Common practice, no source.
pub fn usual_size(subject: Subject) -> Option<[f64; 2]> {
    match subject {
        Subject::Face => Some([0.20, 0.28]),
        Subject::Person => Some([0.5, 1.75]),
        Subject::Vehicle => Some([1.8, 1.5]),
        Subject::Plate => Some([0.52, 0.11]),
        Subject::Scene => None,
    }
}

/// How much of a standing subject counts, from its top down.
fn counted_share(subject: Subject, task: Task) -> f64 {
    match (subject, task) {
        (Subject::Person, Task::Recognise | Task::Identify | Task::Inspect) => 0.5,
        (Subject::Person, _) => 2.0 / 3.0,
        _ => 1.0,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn of_a_person_the_upper_part_counts() {
        let close = |body: Body, low: f64, high: f64| {
            assert!((body.low - low).abs() < 1e-12 && (body.high - high).abs() < 1e-12, "{body:?}");
        };
        // 1.75 m tall, stated at 1.6 m: two thirds begin at 0.583 m, the upper half at 0.875 m.
        close(Body::new(Subject::Person, Task::Detect, 1.6, None), 1.75 / 3.0 - 1.6, 0.15);
        close(Body::new(Subject::Person, Task::Identify, 1.6, None), 0.875 - 1.6, 0.15);
        close(Body::new(Subject::Person, Task::Detect, 5.6, None), -1.75 * 2.0 / 3.0, 0.0);
        close(Body::new(Subject::Vehicle, Task::Detect, 0.0, None), 0.0, 1.5);
        close(Body::new(Subject::Face, Task::Identify, 1.6, None), -0.14, 0.14);
        close(Body::new(Subject::Plate, Task::Read, 0.7, Some([0.305, 0.152])), -0.076, 0.076);
        assert!(Body::new(Subject::Scene, Task::Monitor, 0.0, None).is_point());
    }
}
