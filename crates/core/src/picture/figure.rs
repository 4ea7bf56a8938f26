//! Subjects as they stand in a picture: upright, of their stated size, at the place that decides their sight line.

use super::face::face;
use super::paint::Paint;
use super::person::person;
use super::plate::plate;
use super::vehicle::vehicle;
use crate::file::{ShapeKind, Subject, TargetFile};
use crate::judge::{Session, SightLine};
use crate::math::{View, nearest_on};
use crate::site::subject::usual_size;
use crate::site::{Head, Target};
use crate::verdict::Verdict;
use glam::{DVec2, DVec3};

/// How tall whoever has a face is over its middle, m.
const OVER_FACE_M: f64 = 0.14;
/// The vehicle behind a plate, m.
const BEHIND_PLATE: DVec2 = DVec2::new(1.8, 1.5);
/// How far the plate stands out from it, m.
const PLATE_OUT_M: f64 = 0.02;

/// A subject at a place.
#[derive(Clone, Debug, PartialEq)]
pub struct Figure {
    /// The target's id.
    pub target: String,
    /// The target's place among the site's.
    pub place: usize,
    /// The point that its sight line goes to, m.
    pub at: DVec3,
    /// Where that lands on the sensor, px: as evaluated.
    pub pixel: DVec2,
    /// Pixel density there across, px/m; none out of the picture.
    pub px_per_m: Option<f64>,
    /// How its sight line stands.
    pub verdict: Verdict,
    /// Whether that line is clear.
    pub clear: bool,
    subject: Subject,
    /// The point of the ground under it.
    foot: DVec3,
    /// Horizontal, out of its front.
    normal: DVec3,
    /// Width and height of what must be seen, m.
    size: DVec2,
    /// Whether it shows its back.
    behind: bool,
    /// How it moves, m/s.
    velocity: DVec3,
    /// Whether a plate throws infrared light back.
    reflecting: bool,
}

/// The subjects of a site as a head sees them, at the places that decide their sight lines. What lies behind the head has none.
pub fn figures(session: &Session, head: &Head) -> Vec<Figure> {
    let (name, site) = (head.name(), session.site());
    let of = |(place, target): (usize, &Target)| {
        let question = name.to(&target.id);
        let line = session.line(&question).ok().flatten()?;
        let at = DVec3::new(line.at[0], line.at[1], target.middle.z);
        let file = site.file().targets.get(place)?;
        let moves = velocity(file, at, head.position());
        Figure::new((place, target), &line, at, file.size_m, head.position()).map(|figure| figure.moving(moves))
    };
    site.targets().iter().enumerate().filter_map(of).collect()
}

/// How the subject of a target moves at a place, m/s: along its line in the order of its points; at a point or in an area the way
/// it faces, and where nobody said which way that is, square to the line to the camera: there it is drawn out most.
fn velocity(file: &TargetFile, at: DVec3, eye: DVec3) -> DVec3 {
    let along = || {
        let points = file.shape.points.windows(2).map(|pair| (DVec2::from_array(pair[0]), DVec2::from_array(pair[1])));
        let off = |(a, b): &(DVec2, DVec2)| at.truncate().distance(nearest_on(at.truncate(), *a, *b));
        points.min_by(|a, b| off(a).total_cmp(&off(b))).map(|(a, b)| (b - a).normalize_or_zero())
    };
    let faces = || file.facing_deg.map(|deg| DVec2::new(deg.to_radians().sin(), deg.to_radians().cos()));
    let way = if file.shape.kind == ShapeKind::Line { along() } else { faces() };
    let way = way.unwrap_or_else(|| (at - eye).truncate().perp().normalize_or(DVec2::X));
    (way * file.speed_mps).extend(0.0)
}

impl Figure {
    fn new(
        (place, target): (usize, &Target),
        line: &SightLine,
        at: DVec3,
        size: Option<[f64; 2]>,
        eye: DVec3,
    ) -> Option<Figure> {
        let size = DVec2::from_array(size.or(usual_size(target.subject))?);
        let towards = (eye - at).with_z(0.0).try_normalize().unwrap_or(-DVec3::Y);
        let along_way = || target.lane.as_ref().map(|lane| lane.facing(lane.nearest(at), eye.truncate()));
        let facing = target.facing.or_else(along_way);
        let front = facing.map_or(towards, |bearing| DVec3::new(bearing.sin(), bearing.cos(), 0.0));
        let behind = front.dot(towards) < 0.0;
        Some(Figure {
            target: target.id.clone(),
            place,
            at,
            pixel: DVec2::from_array(line.pixel),
            px_per_m: line.px_per_m,
            verdict: line.verdict,
            clear: line.clear,
            subject: target.subject,
            foot: at.with_z(target.ground),
            normal: if behind { -front } else { front },
            size,
            behind,
            velocity: DVec3::ZERO,
            reflecting: target.is_reflecting,
        })
    }

    fn moving(self, velocity: DVec3) -> Figure {
        Figure { velocity, ..self }
    }

    /// How it moves, m/s.
    pub(super) fn velocity(&self) -> DVec3 {
        self.velocity
    }

    /// How far its sight line's end moves in the picture while a shutter is open so many seconds, px of the sensor: the speed
    /// there times the time (handbook, section 4).
    pub(super) fn drawn_out(&self, view: &View, shutter: f64) -> f64 {
        let pose = view.pose;
        let direction = pose.to_camera(self.at - pose.position);
        if view.projection.project(direction).is_none() {
            return 0.0;
        }
        view.projection.pixel_velocity(direction, pose.to_camera(self.velocity)).length() * shutter
    }

    /// Whether it is a plate.
    pub fn is_plate(&self) -> bool {
        self.subject == Subject::Plate
    }

    /// Half of the width and the height of what must be seen, m.
    pub(super) fn half(&self) -> DVec2 {
        self.size / 2.0
    }

    /// Whether it throws infrared light back.
    pub fn is_retro(&self) -> bool {
        self.subject == Subject::Plate && !self.behind && self.reflecting
    }

    /// Horizontal, towards who looks: out of its front, or out of its back.
    pub(super) fn normal(&self) -> DVec3 {
        self.normal
    }

    /// Half of its width and its height over the ground, m, with what belongs to it.
    fn extent(&self) -> DVec2 {
        match self.subject {
            Subject::Person | Subject::Vehicle => DVec2::new(self.size.x / 2.0, self.size.y),
            Subject::Face => DVec2::new(0.5 * self.size.x.max(0.5), self.over_ground() + self.size.y / 2.0),
            _ => DVec2::new(
                BEHIND_PLATE.x.max(self.size.x) / 2.0,
                BEHIND_PLATE.y.max(self.over_ground() + self.size.y / 2.0),
            ),
        }
    }

    /// Height of the stated point over its ground, m.
    fn over_ground(&self) -> f64 {
        self.at.z - self.foot.z
    }

    /// To the right of who looks at its front.
    fn right(&self) -> DVec3 {
        DVec3::new(-self.normal.y, self.normal.x, 0.0)
    }

    /// The box on the sensor, px, of what must be seen of it: left, top, right, bottom.
    pub fn bracket(&self) -> Option<[f64; 4]> {
        let across = self.px_per_m?;
        let half = DVec2::new(self.size.x / 2.0, self.size.y / 2.0) * across;
        let over = match self.subject {
            Subject::Person | Subject::Vehicle => (self.size.y - self.over_ground() - self.size.y / 2.0) * across,
            _ => 0.0,
        };
        let middle = self.pixel - DVec2::new(0.0, over);
        Some([middle.x - half.x, middle.y - half.y, middle.x + half.x, middle.y + half.y])
    }

    /// The box on the sensor, px, that all of it lands in; `None` where it reaches behind the lens.
    pub(super) fn bounds(&self, view: &View, shutter: f64) -> Option<(DVec2, DVec2)> {
        const STEPS: u32 = 8;
        let extent = self.extent();
        let out = self.velocity * (shutter / 2.0);
        let mut found: Option<(DVec2, DVec2)> = None;
        for step in 0..=STEPS {
            for other in 0..=STEPS {
                let share = DVec2::new(f64::from(step), f64::from(other)) / f64::from(STEPS);
                let side = self.right() * (extent.x * (2.0 * share.x - 1.0));
                let point = self.foot + side + DVec3::Z * (extent.y * share.y) + self.normal * PLATE_OUT_M;
                for point in [point - out, point + out] {
                    let (pixel, _) = view.pixel_of(point)?;
                    found = Some(found.map_or((pixel, pixel), |(low, high)| (low.min(pixel), high.max(pixel))));
                }
            }
        }
        // Straight edges bow in a bent picture.
        found.map(|(low, high)| {
            let give = DVec2::splat(2.0) + (high - low) * 0.06;
            (low - give, high + give)
        })
    }

    /// Where a ray meets it: how far away, m, and its paint there.
    pub(super) fn meet(&self, from: DVec3, direction: DVec3) -> Option<(f64, Paint)> {
        if self.subject == Subject::Plate
            && !self.behind
            && let Some((distance, at)) = self.on(from, direction, PLATE_OUT_M)
            && let Some(paint) = plate(at - DVec2::new(0.0, self.over_ground()), self.size)
        {
            let plain = Paint { retro: paint.retro && self.reflecting, ..paint };
            return Some((distance, plain));
        }
        let (distance, at) = self.on(from, direction, 0.0)?;
        self.paint(at).map(|paint| (distance, paint))
    }

    /// Where a ray meets its upright plane, `out` m before it: the distance, and the place right of its middle and up from the
    /// ground, m.
    fn on(&self, from: DVec3, direction: DVec3, out: f64) -> Option<(f64, DVec2)> {
        let towards = direction.dot(self.normal);
        if towards > -1e-9 {
            return None;
        }
        let foot = self.foot + self.normal * out;
        let distance = (foot - from).dot(self.normal) / towards;
        let step = from + direction * distance - foot;
        (distance > 0.0).then(|| (distance, DVec2::new(step.dot(self.right()), step.z)))
    }

    fn paint(&self, at: DVec2) -> Option<Paint> {
        match self.subject {
            Subject::Person => person(at, self.size, self.behind),
            Subject::Vehicle => vehicle(at, self.size),
            Subject::Face => {
                let middle = at - DVec2::new(0.0, self.over_ground());
                if !self.behind
                    && let Some(paint) = face(middle, self.size)
                {
                    return Some(paint);
                }
                let tall = self.over_ground() + OVER_FACE_M * self.size.y / 0.28;
                person(at, DVec2::new(0.5, tall), true).filter(|_| self.behind || middle.y < -self.size.y / 2.0 + 0.01)
            }
            Subject::Plate => vehicle(at, BEHIND_PLATE),
            Subject::Scene => None,
        }
    }
}
