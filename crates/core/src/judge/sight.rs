//! A sight: one head looking at one sample of one target, as the rules ask about it.

use crate::file::Rules;
use crate::judge::aim_slack::aim_slack;
use crate::light::{LampLight, Lit};
use crate::math::{Angle, Separation};
use crate::scene::{COLUMNS, Eye, Scene, Solid, Upright, Volume};
use crate::site::{Head, Lane, Mask, Target, masks_of};
use crate::work::Patience;
use glam::{DVec2, DVec3};
use std::cell::OnceCell;

/// Lines are given at least this width, m: what has none would meet nothing.
const LEAST_HALF_M: f64 = 1e-3;
/// A place that a solid cuts off ends this share of the way before its face.
const BEFORE_FACE: f64 = 1e-6;

/// A head that looks, what stands around it, and the rules that hold.
#[derive(Clone, Copy)]
pub(crate) struct Viewer<'a> {
    pub head: &'a Head,
    pub eye: &'a Eye,
    pub scene: &'a Scene,
    pub rules: &'a Rules,
    /// The site's private places.
    pub private: &'a [Solid],
    /// Its lamps, by night; none by day, when nobody asks for them.
    pub lamps: Option<&'a [LampLight]>,
    /// How long somebody waits for what it makes of a target.
    pub patience: &'a Patience<'a>,
}

/// One head looking at one sample of one target, with what the rules ask about it.
pub(crate) struct Sight<'a> {
    pub head: &'a Head,
    pub target: &'a Target,
    pub rules: &'a Rules,
    viewer: Viewer<'a>,
    /// The sample.
    pub point: DVec3,
    pub separation: Separation,
    /// The bearing that its face or plate points to.
    pub facing: Option<Angle>,
    /// How far the ground distance may be off, ± m.
    along: f64,
    /// How far the sample may lie to either side, ± m.
    across: f64,
    point_in_view: bool,
    densities: OnceCell<[f64; 2]>,
    in_view: OnceCell<bool>,
    hidden: OnceCell<f64>,
    /// Whether it is a plate on its way, where light is judged all over the zone.
    on_its_way: bool,
    lit: OnceCell<Lit>,
    /// Asked for twice, by the rule and by the report, and costly.
    aim_slack: OnceCell<Angle>,
}

impl<'a> Sight<'a> {
    /// A sample that lies in front of the head.
    pub fn new(viewer: Viewer<'a>, target: &'a Target, point: DVec3, point_in_view: bool) -> Self {
        let Viewer { head, rules, .. } = viewer;
        let separation = Separation::between(head.position(), point, || head.view().heading());
        Sight {
            head,
            target,
            rules,
            viewer,
            point,
            along: rules.uncertainties.distance(&target.distance, head.spot(), separation.ground),
            across: rules.uncertainties.across(&target.distance, separation.ground),
            facing: target.facing,
            separation,
            point_in_view,
            densities: OnceCell::new(),
            in_view: OnceCell::new(),
            hidden: OnceCell::new(),
            on_its_way: false,
            lit: OnceCell::new(),
            aim_slack: OnceCell::new(),
        }
    }

    /// A sample of a plate's way: where nobody said which way the plate points, it points along the way.
    pub fn on_lane(viewer: Viewer<'a>, target: &'a Target, lane: &Lane, sample: usize, in_view: bool) -> Self {
        Sight::on_lane_at(viewer, target, lane, (sample, lane.samples[sample]), in_view)
    }

    /// The same at one of the heights at which plates sit there.
    pub fn on_lane_at(
        viewer: Viewer<'a>,
        target: &'a Target,
        lane: &Lane,
        (sample, point): (usize, DVec3),
        in_view: bool,
    ) -> Self {
        let sight = Sight::new(viewer, target, point, in_view);
        let facing = target.facing.or_else(|| Some(lane.facing(sample, viewer.head.position().truncate())));
        Sight { facing, ..sight }
    }

    /// The solids of the site.
    pub fn scene(&self) -> &'a Scene {
        self.viewer.scene
    }

    /// The same where a plate on the move reads: light is judged by the zone.
    #[must_use]
    pub fn in_zone(self) -> Self {
        Sight { on_its_way: true, ..self }
    }

    /// Who looks.
    pub fn viewer(&self) -> Viewer<'a> {
        self.viewer
    }

    /// The lamps by which it is judged; none by day, and none where light is judged by the zone.
    pub fn lamps(&self) -> Option<&'a [LampLight]> {
        self.viewer.lamps.filter(|_| !self.on_its_way)
    }

    /// The light on its subject, worked out once.
    pub fn lit(&self, work_out: impl FnOnce() -> Lit) -> &Lit {
        self.lit.get_or_init(work_out)
    }

    /// Where the sample may lie, and free of solids: a subject does not stand inside of one, nor behind it.
    pub fn places(&self) -> [DVec3; 8] {
        self.point_corners().map(|corner| match self.viewer.scene.first_blocker(self.point, corner) {
            Some((_, share)) => self.point.lerp(corner, (share - BEFORE_FACE).max(0.0)),
            None => corner,
        })
    }

    /// The place where the sample may lie that is nearest to a point.
    pub fn nearest_to(&self, from: DVec3) -> DVec3 {
        let (towards, right) = (self.separation.towards, self.right());
        let step = from - self.point;
        let rise = self.rules.uncertainties.rise();
        let along = step.truncate().dot(towards).clamp(-self.along, self.along);
        let side = step.truncate().dot(right).clamp(-self.across, self.across);
        (self.point.truncate() + towards * along + right * side).extend(self.point.z + step.z.clamp(-rise, rise))
    }

    /// What of the head's picture must be masked.
    pub fn masks(&self) -> &'a [Mask] {
        let Viewer { head, eye, scene, private, .. } = self.viewer;
        if private.is_empty() { &[] } else { head.masks(|| masks_of(head, eye, scene, private)) }
    }

    /// Whether the sample itself is in the picture; out of it there is no figure.
    pub fn point_in_view(&self) -> bool {
        self.point_in_view
    }

    /// Pixel density at the sample across and up, px/m.
    pub fn densities(&self) -> [f64; 2] {
        *self.densities.get_or_init(|| {
            let look = self.head.look(self.point);
            look.map_or([0.0; 2], |look| [look.across, look.up])
        })
    }

    /// Whether all of the subject that counts is in the picture.
    pub fn in_view(&self) -> bool {
        *self.in_view.get_or_init(|| {
            self.point_in_view
                && (self.target.body.is_point()
                    || self.body_corners().into_iter().all(|corner| self.head.in_front(corner) == Some(true)))
        })
    }

    /// The corners of what counts of the subject, upright and facing the head.
    pub fn body_corners(&self) -> [DVec3; 4] {
        let body = self.target.body;
        std::array::from_fn(|i| {
            let side = if i % 2 == 0 { -body.half } else { body.half };
            let flat = self.point.truncate() + self.right() * side;
            flat.extend(self.point.z + if i < 2 { body.low } else { body.high })
        })
    }

    /// Horizontal, square to the line, to its right.
    fn right(&self) -> DVec2 {
        let towards = self.separation.towards;
        DVec2::new(towards.y, -towards.x)
    }

    /// The corners of the box in which a part of the subject may lie as seen from the head, `half` wide to either side and
    /// between the heights `low` and `high` over the sample: nearer and farther, left and right, lower and higher, with the
    /// uncertain heights of both ends.
    fn box_corners(&self, half: f64, low: f64, high: f64) -> [DVec3; 8] {
        let rise = self.rules.uncertainties.rise();
        std::array::from_fn(|i| {
            let along = if i % 2 == 0 { -self.along } else { self.along };
            let side = if i / 2 % 2 == 0 { -self.across - half } else { self.across + half };
            let z = self.point.z + if i < 4 { low - rise } else { high + rise };
            (self.point.truncate() + self.separation.towards * along + self.right() * side).extend(z)
        })
    }

    /// The corners of the box in which what counts of the subject may lie as seen from the head.
    pub fn may_be_at(&self) -> [DVec3; 8] {
        let body = self.target.body;
        self.box_corners(body.half, body.low, body.high)
    }

    /// Where the sample itself may lie as seen from the head.
    pub fn point_corners(&self) -> [DVec3; 8] {
        self.box_corners(0.0, 0.0, 0.0)
    }

    /// The least ground distance that the sample may have, m.
    pub fn nearest_ground(&self) -> f64 {
        (self.separation.ground - self.along).max(0.0)
    }

    /// The greatest angle, degrees, above or below the horizontal at which a height over the sample may be seen.
    pub fn steepest_deg(&self, over: f64) -> f64 {
        let drop = (self.separation.drop - over).abs() + self.rules.uncertainties.rise();
        drop.atan2(self.nearest_ground()).to_degrees()
    }

    /// The greatest angle, degrees, by which the bearing of the sample may be off.
    pub fn bearing_off_deg(&self) -> f64 {
        let near = self.separation.ground - self.along;
        if near <= 0.0 { 180.0 } else { self.across.atan2(near).to_degrees() }
    }

    /// Whether all that counts of the subject stays in the picture over everything that is uncertain.
    pub fn surely_in_view(&self) -> bool {
        let corners = self.may_be_at();
        let middle = self.point - self.head.position();
        let apart = |corner: &DVec3| middle.angle_between(*corner - self.head.position());
        let bends = self.head.view().projection.bend() != 1.0;
        let apart = if bends { corners.iter().map(apart).fold(0.0, f64::max) } else { 0.0 };
        self.head.surely_hold(&corners, apart)
    }

    /// The share of what counts of the subject that is hidden, 0 to 1; of a point, or out of the picture, all or nothing.
    pub fn hidden(&self) -> f64 {
        *self.hidden.get_or_init(|| {
            let Viewer { eye, scene, .. } = self.viewer;
            if self.target.body.is_point() || !self.point_in_view {
                return if eye.is_blocked(scene, self.point) { 1.0 } else { 0.0 };
            }
            let whole = self.whole();
            let solids = eye.all_in_volume(scene, &whole);
            if solids.is_empty() && !Eye::is_dimmed(scene, &whole) {
                return 0.0;
            }
            let share = eye.hidden_share(scene, &solids, self.upright(0.0, 0.0), 0.0, 0.0);
            // Something stands in it, be it narrower than a column: of what may not be hidden at all that is not nothing.
            if self.target.may_be_hidden == 0.0 { share.max(f64::MIN_POSITIVE) } else { share }
        })
    }

    /// Whether no more of the subject is hidden than may be.
    pub fn clear(&self) -> bool {
        self.hidden() <= self.target.may_be_hidden
    }

    /// Whether that stays so over everything that is uncertain; what begins only behind the target does not count.
    pub fn surely_clear(&self) -> bool {
        let Viewer { eye, scene, .. } = self.viewer;
        let volume = self.uncertain();
        if self.target.may_be_hidden == 0.0 {
            return eye.is_clear(scene, &volume);
        }
        let solids = eye.all_in_volume(scene, &volume);
        solids.is_empty() && !Eye::is_dimmed(scene, &volume) || self.worst_hidden(&solids) <= self.target.may_be_hidden
    }

    /// The greatest share of the subject that is hidden with it nearer, left or right, and both ends lower (what stands on the
    /// ground hides most then) or both higher (what hangs does).
    fn worst_hidden(&self, solids: &[&Solid]) -> f64 {
        let Viewer { eye, scene, rules, .. } = self.viewer;
        let stated = rules.uncertainties;
        // What reaches down past all of the lines hides from below only.
        let hangs = solids.iter().any(|solid| solid.base() > (self.point.z + self.target.body.low).min(0.0));
        let ups: &[f64] = if hangs { &[-1.0, 1.0] } else { &[-1.0] };
        let shares = ups.iter().flat_map(|up| [(0.0, *up), (1.0, *up)]).map(|(near, up)| {
            let upright = self.upright(near * self.along, up * stated.height_m);
            eye.hidden_share(scene, solids, upright, self.across, up * stated.camera_height_m)
        });
        // A shadow may reach half a column further than its columns show.
        shares.fold(0.0, f64::max) + 0.5 / COLUMNS as f64
    }

    /// What counts of the subject, so many metres nearer and higher than stated.
    fn upright(&self, nearer: f64, higher: f64) -> Upright {
        let (body, towards) = (self.target.body, self.separation.towards);
        let z = self.point.z + higher;
        let middle = self.point.truncate() - towards * nearer;
        Upright { middle, towards, half: body.half, low: z + body.low, high: z + body.high }
    }

    /// All lines to the subject, with so many metres of uncertainty along, across, in its height and in the head's.
    fn volume(&self, along: f64, across: f64, height: f64, camera_height: f64) -> Volume {
        let body = self.target.body;
        let (flat, towards) = (self.point.truncate(), self.separation.towards);
        let side = self.right() * (across + body.half).max(LEAST_HALF_M);
        let nearer = flat - towards * along;
        let footprint = [flat - side, flat + side, nearer - side, nearer + side];
        let ends = if along > 0.0 { &footprint[..] } else { &footprint[..2] };
        let (low, high) = (self.point.z + body.low - height, self.point.z + body.high + height);
        Volume::new(self.viewer.eye.from(), camera_height, ends, flat, low, high)
    }

    /// All lines to what counts of the subject, over everything that is uncertain.
    pub fn uncertain(&self) -> Volume {
        let stated = self.rules.uncertainties;
        self.volume(self.along, self.across, stated.height_m, stated.camera_height_m)
    }

    /// All lines to what counts of the subject, as stated.
    pub fn whole(&self) -> Volume {
        self.volume(0.0, 0.0, 0.0, 0.0)
    }

    /// The smallest pan or tilt error that takes the sample out of the picture.
    pub fn aim_slack(&self) -> Angle {
        let slack = || if self.point_in_view { aim_slack(self.head, self.point) } else { Angle::ZERO };
        *self.aim_slack.get_or_init(slack)
    }

    /// The angle between the subject's normal and the line to the camera; `None` for any facing.
    pub fn incidence(&self) -> Option<Angle> {
        self.incidence_of(self.point)
    }

    /// The greatest that it may be.
    pub fn worst_incidence(&self) -> Option<Angle> {
        let angles = self.point_corners().into_iter().filter_map(|corner| self.incidence_of(corner));
        angles.reduce(|a, b| if b > a { b } else { a })
    }

    fn incidence_of(&self, point: DVec3) -> Option<Angle> {
        let facing = self.facing?;
        let normal = DVec3::new(facing.sin(), facing.cos(), 0.0);
        let to_camera = (self.head.position() - point).normalize_or_zero();
        Some(Angle::radians(normal.dot(to_camera).clamp(-1.0, 1.0).acos()))
    }

    /// The horizontal angle between the way that a plate points and the bearing to the head, degrees.
    pub fn side_deg(&self) -> Option<f64> {
        let facing = self.facing?;
        let to_camera = self.separation.bearing() + Angle::degrees(180.0);
        Some((to_camera - facing).wrapped().abs().deg())
    }
}

/// The lines from a head to everything between two neighbouring samples of a target, with everything that is uncertain.
pub(crate) fn run_volume(viewer: Viewer, target: &Target, ends: [DVec3; 2]) -> Volume {
    let (stated, body) = (viewer.rules.uncertainties, target.body);
    let here = viewer.eye.from().truncate();
    let mut footprint = [DVec2::ZERO; 8];
    for (i, point) in ends.into_iter().enumerate() {
        let flat = point.truncate();
        let step = flat - here;
        let towards = step.normalize_or(DVec2::Y);
        let right = DVec2::new(towards.y, -towards.x);
        let nearer = stated.distance(&target.distance, viewer.head.spot(), step.length());
        let side = (stated.across(&target.distance, step.length()) + body.half).max(LEAST_HALF_M);
        for (k, (near, sign)) in [(0.0, -1.0), (0.0, 1.0), (1.0, -1.0), (1.0, 1.0)].into_iter().enumerate() {
            footprint[4 * i + k] = flat - towards * nearer * near + right * side * sign;
        }
    }
    let low = ends[0].z.min(ends[1].z) + body.low - stated.height_m;
    let high = ends[0].z.max(ends[1].z) + body.high + stated.height_m;
    let middle = (ends[0].truncate() + ends[1].truncate()) / 2.0;
    Volume::new(viewer.eye.from(), stated.camera_height_m, &footprint, middle, low, high)
}
