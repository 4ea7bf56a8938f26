//! The path of a plate: a line in the direction of travel, in steps of a tenth of a metre (handbook, section 10).

use crate::file::{PlateKind, ShapeKind, Subject, TargetFile};
use crate::math::Angle;
use glam::{DVec2, DVec3};

/// The step between two samples, m; wider on a path that is so long that it would take more than [`MOST`].
pub const STEP_M: f64 = 0.1;
/// A plate that goes through a point is followed so far before and behind it, m; ours.
const THROUGH_M: f64 = 5.0;
/// So many samples a path takes at most.
const MOST: f64 = 5000.0;

/// Samples from the first to the last of a run.
pub type Run = [usize; 2];

/// The path of a plate, ready to be looked at.
#[derive(Clone, Debug, PartialEq)]
pub struct Lane {
    /// The plate's middle along the way.
    pub samples: Vec<DVec3>,
    /// How far along the way each is, m.
    pub along: Vec<f64>,
    /// Which way the plate travels there.
    pub travel: Vec<DVec2>,
    /// How far above these other plates sit, m: zero where all sit at one height.
    pub rise: f64,
    /// The sample at which it must read, of a plate that goes through a point; anywhere on its way will do for any other.
    pub through: Option<usize>,
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
        Some(Lane::along(file, &points))
    }

    /// The way of a plate at a point: of one that moves a few metres before and behind it in the direction that it points to, where that is
    /// stated; of one that stands the point.
    pub(super) fn through(file: &TargetFile) -> Option<Lane> {
        if file.subject != Subject::Plate || file.shape.kind != ShapeKind::Point {
            return None;
        }
        let at = DVec2::from_array(*file.shape.points.first()?);
        let towards = file.facing_deg.map(|facing| DVec2::new(facing.to_radians().sin(), facing.to_radians().cos()));
        let reach = if file.speed_mps > 0.0 && towards.is_some() { THROUGH_M } else { 0.0 };
        let step = towards.unwrap_or(DVec2::Y) * reach;
        let mut lane = Lane::along(file, &[at - step, at + step]);
        lane.through = Some(lane.samples.len() / 2);
        if towards.is_none() {
            // Which way it goes nobody said: what comes of its speed nobody knows.
            lane.speed = 0.0;
        }
        Some(lane)
    }

    fn along(file: &TargetFile, points: &[DVec2]) -> Lane {
        let length: f64 = points.windows(2).map(|pair| pair[0].distance(pair[1])).sum();
        let step = STEP_M.max(length / MOST);
        let height = file.ground_m + file.height_to_m.unwrap_or(file.height_m).min(file.height_m);
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
        Lane {
            samples,
            rise: file.height_to_m.map_or(0.0, |to| (to - file.height_m).abs()),
            through: None,
            along,
            travel,
            speed: file.speed_mps,
            size: DVec2::from_array(file.size_m.unwrap_or([0.52, 0.11])),
            plate: file.plate.clone().unwrap_or_default(),
        }
    }

    /// Where plates sit at a sample: the lowest, and the highest where that is another.
    pub fn heights(&self, sample: usize) -> impl Iterator<Item = DVec3> + use<> {
        let low = self.samples[sample];
        std::iter::once(low).chain((self.rise > 0.0).then_some(low + DVec3::Z * self.rise))
    }

    /// The sample that lies nearest to a point.
    pub fn nearest(&self, point: DVec3) -> usize {
        let far = |place: &usize| self.samples[*place].distance_squared(point);
        (0..self.samples.len()).min_by(|a, b| far(a).total_cmp(&far(b))).unwrap_or(0)
    }

    /// Whether the plate that a place of the plan sees at a sample is the one in front: the one that points where the vehicle goes, where
    /// somebody said which way it points.
    pub fn shows_front(&self, sample: usize, from: DVec2, facing: Option<Angle>) -> bool {
        let travel = self.travel[sample];
        match facing {
            Some(facing) => travel.dot(DVec2::new(facing.sin(), facing.cos())) > 0.0,
            None => travel.dot(from - self.samples[sample].truncate()) >= 0.0,
        }
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
