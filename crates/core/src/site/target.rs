//! A target: a point, line or area that must be seen, ready to be looked at.

use super::lane::Lane;
use super::needs::{Need, plate_need};
use super::subject::Body;
use crate::file::{Distance, Rules, ShapeKind, Subject, TargetFile, Task};
use crate::math::{Angle, sampling};
use glam::DVec3;
use std::borrow::Cow;

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
    /// Between which samples the target runs on: along a line, around an area.
    pub runs: Vec<[usize; 2]>,
    /// What counts of the subject around each sample.
    pub body: Body,
    /// The greatest share of it that may be hidden.
    pub may_be_hidden: f64,
    /// The middle of the samples.
    pub middle: DVec3,
    /// How far the farthest sample lies from the middle, m.
    pub reach: f64,
    /// The bearing its face or plate points to.
    pub facing: Option<Angle>,
    /// How fast it moves, m/s.
    pub speed: f64,
    /// How its distance was got.
    pub distance: Distance,
    /// How many heads must keep it.
    pub heads_wanted: usize,
    /// How much it matters, from 1 for the first of all down to nearly nothing; nothing where nobody said.
    pub weight: f64,
    /// Height of the ground there, m.
    pub ground: f64,
    /// How long it may go unseen, s.
    pub unseen_at_most_s: Option<f64>,
    /// Whether it is a plate that throws infrared light back to where it came from.
    pub is_reflecting: bool,
    /// The way of a plate, where it has one.
    pub lane: Option<Lane>,
    /// The way of a plate that stands at, or goes through, a point.
    pub passing: Option<Lane>,
    /// What an overview beside whoever reads it must keep: the vehicle, at the half-metres of the way.
    pub overview: Option<Box<Target>>,
}

impl Target {
    /// The target of a validated file, with its need looked up and its samples made.
    pub(crate) fn new(file: &TargetFile, rules: &Rules) -> Target {
        let (plan, around) = match file.shape.kind {
            ShapeKind::Point => (file.shape.points.clone(), None),
            ShapeKind::Line => (sampling::along(&file.shape.points), None),
            ShapeKind::Area => {
                let (samples, around) = sampling::within(&file.shape.points);
                (samples, Some(around))
            }
        };
        // Around an area the samples of its outline come first.
        let runs = match (file.shape.kind, around) {
            (ShapeKind::Point, _) => vec![],
            (_, Some(around)) => (0..around).map(|i| [i, (i + 1) % around]).collect(),
            (_, None) => (1..plan.len()).map(|i| [i - 1, i]).collect(),
        };
        let need = match file.needs_px_per_m {
            Some(px_per_m) => Need { px_per_m, basis: Cow::Borrowed("own value for this target") },
            None => plate_need(file.plate.as_ref(), rules.needs, file.task),
        };
        let mut samples: Vec<DVec3> =
            plan.into_iter().map(|p| DVec3::new(p[0], p[1], file.ground_m + file.height_m)).collect();
        let mut runs: Vec<[usize; 2]> = runs;
        if let Some(to) = file.height_to_m.filter(|to| *to != file.height_m) {
            // Judged at both ends of its heights.
            let count = samples.len();
            samples.extend(samples.clone().into_iter().map(|sample| sample.with_z(file.ground_m + to)));
            runs.extend(runs.clone().into_iter().map(|run| run.map(|place| place + count)));
        }
        let lane = Lane::of(file);
        let middle = samples.iter().sum::<DVec3>() / samples.len() as f64;
        Target {
            id: file.id.clone(),
            subject: file.subject,
            task: file.task,
            need,
            reach: samples.iter().map(|sample| sample.distance(middle)).fold(0.0, f64::max),
            middle,
            samples,
            runs,
            body: Body::new(file.subject, file.task, file.height_m, file.size_m),
            may_be_hidden: match file.subject {
                Subject::Person | Subject::Vehicle => rules.hidden_large_share,
                _ => rules.hidden_small_share,
            },
            facing: file.facing_deg.map(Angle::degrees),
            speed: file.speed_mps,
            distance: file.distance.clone(),
            heads_wanted: file.heads_wanted as usize,
            weight: file.importance.map_or(0.0, |importance| 1.0 / f64::from(importance.max(1))),
            ground: file.ground_m,
            unseen_at_most_s: file.unseen_at_most_s,
            is_reflecting: file.subject == Subject::Plate && file.plate.as_ref().is_none_or(|plate| plate.reflecting),
            passing: if lane.is_none() { Lane::through(file) } else { None },
            overview: lane.is_some().then(|| Box::new(Target::new(&vehicle_on(file), rules))),
            lane,
        }
    }

    /// The way of a plate that is on the move: then it is enough that it reads somewhere, often enough.
    pub fn moving_lane(&self) -> Option<&Lane> {
        self.lane.as_ref().or(self.passing.as_ref()).filter(|lane| lane.speed > 0.0)
    }

    /// How far what is looked at reaches from the middle, m: the samples, and the way of a plate that goes through a point.
    pub fn reach_with_way(&self) -> f64 {
        let way = self.passing.iter().flat_map(|lane| &lane.samples);
        way.map(|sample| sample.distance(self.middle)).fold(self.reach, f64::max)
    }

    /// Whether somebody's face is what the picture is used for.
    pub fn wants_a_face(&self) -> bool {
        matches!(self.subject, Subject::Face | Subject::Person)
            && matches!(self.task, Task::Recognise | Task::Identify | Task::Inspect)
    }
}

/// The vehicle that carries the plate, as an overview must see it.
fn vehicle_on(file: &TargetFile) -> TargetFile {
    TargetFile {
        subject: Subject::Vehicle,
        task: Task::Observe,
        needs_px_per_m: None,
        height_m: 0.75,
        height_to_m: None,
        size_m: None,
        facing_deg: None,
        plate: None,
        speed_mps: 0.0,
        heads_wanted: 1,
        ..file.clone()
    }
}
