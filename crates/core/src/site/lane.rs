//! The path of a plate: a line in the direction of travel, in steps of a tenth of a metre (handbook, section 10).

use crate::file::{PlateKind, ShapeKind, Subject, TargetFile};
use crate::math::Angle;
use glam::{DVec2, DVec3};

/// The step between two samples, m; wider on a path that is so long that it would take more than [`MOST`].
pub const STEP_M: f64 = 0.1;
/// So many samples a path takes at most.
const MOST: f64 = 5000.0;

/// The path of a plate, ready to be looked at.
#[derive(Clone, Debug, PartialEq)]
pub struct Lane {
    /// The plate's middle along the way.
    pub samples: Vec<DVec3>,
    /// How far along the way each is, m.
    pub along: Vec<f64>,
    /// Which way the plate travels there.
    pub travel: Vec<DVec2>,
    /// How fast, m/s; zero for one that stands.
    pub speed: f64,
    /// Width and height of the plate, m.
    pub size: DVec2,
    /// What it is like besides.
    pub plate: PlateKind,
}

impl Lane {
    /// The lane of a target that is the path of a plate.
    pub(super) fn of(file: &TargetFile) -> Option<Lane> {
        if file.subject != Subject::Plate || file.shape.kind != ShapeKind::Line {
            return None;
        }
        let points: Vec<DVec2> = file.shape.points.iter().map(|point| DVec2::from_array(*point)).collect();
        let length: f64 = points.windows(2).map(|pair| pair[0].distance(pair[1])).sum();
        let step = STEP_M.max(length / MOST);
        let height = file.ground_m + file.height_m;
        let count = (length / step * (1.0 + 1e-12)).floor() as usize;
        let (mut samples, mut along, mut travel) = (Vec::new(), Vec::new(), Vec::new());
        let (mut piece, mut begun) = (0, 0.0);
        for i in 0..=count {
            let way = i as f64 * step;
            let ends = |piece: usize| (points[piece], points[piece + 1]);
            while piece + 2 < points.len() && way > begun + ends(piece).0.distance(ends(piece).1) {
                begun += ends(piece).0.distance(ends(piece).1);
                piece += 1;
            }
            let (from, to) = ends(piece);
            let towards = (to - from).normalize_or(DVec2::Y);
            samples.push((from + towards * (way - begun)).extend(height));
            along.push(way);
            travel.push(towards);
        }
        Some(Lane {
            samples,
            along,
            travel,
            speed: file.speed_mps,
            size: DVec2::from_array(file.size_m.unwrap_or([0.52, 0.11])),
            plate: file.plate.clone().unwrap_or_default(),
        })
    }

    /// The sample that lies nearest to a point.
    pub fn nearest(&self, point: DVec3) -> usize {
        let far = |place: &usize| self.samples[*place].distance_squared(point);
        (0..self.samples.len()).min_by(|a, b| far(a).total_cmp(&far(b))).unwrap_or(0)
    }

    /// The bearing that the plate points to at a sample as seen from a place of the plan, where nobody said which: vehicles carry one at
    /// both ends, and that which shows itself more is read.
    pub fn facing(&self, sample: usize, from: DVec2) -> Angle {
        let travel = self.travel[sample];
        let to_camera = from - self.samples[sample].truncate();
        let shown = if travel.dot(to_camera) < 0.0 { -travel } else { travel };
        Angle::bearing_of(shown.x, shown.y)
    }
}
