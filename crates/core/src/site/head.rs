//! One head of a camera, with the views that the stated uncertainties allow it.

use super::tour::Tour;
use super::{Mask, Mounting};
use crate::equipment::lens::FittedLens;
use crate::equipment::optics::{Sharp, depth_of_field, spot_mm};
use crate::file::{CameraFile, Exposure, Flattened, HeadRef, Lens, Rules, Sensor, Spot, Which};
use crate::light::{HeadLight, Part};
use crate::math::{Angle, LensCurve, Look, Pose, View};
use glam::{DVec2, DVec3};
use std::sync::OnceLock;

/// A camera hangs on its spot if it is drawn so near to it, m.
const ON_SPOT_M: f64 = 0.05;
/// What a picture showed of an aim surely holds within so many standard deviations; and no picture tells more than this, degrees and share
/// (ours).
const SURELY_SIGMAS: f64 = 2.0;
const LEAST_AIM_DEG: f64 = 0.1;
const LEAST_FOCAL: f64 = 0.003;
/// How near to the picture's edge, px, a pixel off the tabulated curve is looked up exactly.
const NEAR_EDGE_PX: f64 = 1e-4;
/// The table of the curve reaches so far past the picture's corners: what an uncertain aim may ask for.
const PAST_CORNERS_DEG: f64 = 6.0;

/// A head ready to look: its nominal view and the extremes of its aim and focal length.
#[derive(Clone, Debug)]
pub struct Head {
    camera: usize,
    place: usize,
    which: Which,
    camera_id: String,
    id: String,
    view_id: Option<String>,
    pan: Angle,
    tilt: Angle,
    roll: Angle,
    aim_uncertain: Angle,
    view: View,
    fitted: FittedLens,
    spot: Option<String>,
    mounted_on: Option<String>,
    effective_focal_mm: f64,
    curve: LensCurve,
    /// Forward axes of nine aims; with the shortest focal length worst for pixel density.
    nine: [DVec3; 9],
    short_px: f64,
    /// Pan and tilt at their corners, roll at both ends and as stated; with the longest focal length worst for staying in
    /// the picture.
    corners: [Pose; 12],
    long_px: f64,
    /// What the corners leave out because a turn moves a pixel along an arc, as an angle.
    arc: f64,
    /// Its tour, and which stop of it this is.
    tour: Option<(Tour, usize)>,
    /// How its camera hangs.
    mounting: Mounting,
    /// The round picture that this flat one is cut out of.
    source: Option<Box<Head>>,
    /// Its own light, and how it takes pictures.
    light: HeadLight,
    exposure: Option<Exposure>,
    sensor: Sensor,
    f_number: Option<f64>,
    focal_mm: f64,
    /// Worked out when they are first asked for: of most that are only tried nobody asks.
    masks: OnceLock<Vec<Mask>>,
    /// How light the parts of its picture are by night, likewise.
    metered: OnceLock<Vec<Part>>,
}

impl Head {
    /// A view of the head at `place` of the camera at `camera_place` of the file.
    pub fn new(
        camera_place: usize,
        camera: &CameraFile,
        (place, which): (usize, Which),
        rules: &Rules,
        spots: &[Spot],
    ) -> Self {
        let file = &camera.heads[place];
        let aimed = file.aimed(which);
        let (pan, tilt, roll) =
            (Angle::degrees(aimed.pan_deg), Angle::degrees(aimed.tilt_deg), Angle::degrees(aimed.roll_deg));
        let position = camera.eye();
        let lens = camera.lens_of(place);
        let (fitted, focal_mm) = match which {
            Which::Flattened(view) => flat_lens(&file.flattened[view]),
            _ => (FittedLens::new(lens, camera.model.sensor), aimed.focal_mm),
        };
        let projection = fitted.projection(focal_mm);
        // A window that is cut out by figures is as sure as the round picture under it.
        // What its picture showed is known better than what a hand was told to set.
        let built = file.as_built().filter(|_| which == Which::Own);
        let known = built.map(|built| Angle::degrees((built.aim_sigma_deg * SURELY_SIGMAS).max(LEAST_AIM_DEG)));
        let aim = known.unwrap_or(Angle::degrees(rules.uncertainties.aim_deg));
        let rolls = known.unwrap_or(Angle::degrees(rules.uncertainties.roll_deg));
        let share = built.map(|built| (built.focal_sigma * SURELY_SIGMAS).max(LEAST_FOCAL));
        let share = share.unwrap_or_else(|| rules.uncertainties.focal(lens.is_zoom()));
        let turned = |[pan_steps, tilt_steps, roll_steps]: [f64; 3]| {
            Pose::new(position, pan + aim * pan_steps, tilt + aim * tilt_steps, roll + rolls * roll_steps)
        };
        let corner_of = |i: usize| [(i % 2) as f64 * 2.0 - 1.0, (i / 2 % 2) as f64 * 2.0 - 1.0, (i / 4) as f64 - 1.0];
        let corner = projection.scaled(1.0 - share).corner_cosine().clamp(-1.0, 1.0).acos();
        let reach = (corner + PAST_CORNERS_DEG.to_radians() + 2.0 * aim.rad()).min(std::f64::consts::PI);
        let source: Option<Box<Head>> = matches!(which, Which::Flattened(_))
            .then(|| Box::new(Head::new(camera_place, camera, (place, Which::Own), rules, spots)));
        let (under_axis, under_fitted) = match &source {
            Some(source) => (source.view.pose.forward, source.fitted),
            None => (turned([0.0; 3]).forward, fitted),
        };
        Head {
            camera: camera_place,
            place,
            which,
            camera_id: camera.id.clone(),
            id: file.id.clone(),
            view_id: file.view_id(which).map(str::to_owned),
            pan,
            tilt,
            roll,
            aim_uncertain: aim,
            curve: LensCurve::new(projection.bend(), reach.cos()),
            nine: std::array::from_fn(|i| turned([(i % 3) as f64 - 1.0, (i / 3) as f64 - 1.0, 0.0]).forward),
            short_px: projection.focal_px() * (1.0 - share),
            corners: std::array::from_fn(|i| turned(corner_of(i))),
            long_px: projection.focal_px() * (1.0 + share),
            arc: (aim.rad() + rolls.rad()).powi(2) / 2.0,
            view: View { pose: turned([0.0; 3]), projection },
            fitted,
            spot: on_spot(camera, spots).map(|spot| spot.id.clone()),
            mounted_on: camera.mounted_on.clone(),
            effective_focal_mm: fitted.effective_focal_mm(focal_mm),
            tour: if let Which::Preset(at) = which { Tour::of(file).map(|tour| (tour, at)) } else { None },
            mounting: Mounting::of(camera, on_spot(camera, spots)),
            light: HeadLight::new(
                camera,
                file.exposure.as_ref(),
                position,
                under_axis,
                Angle::radians(under_fitted.widest().hfov()),
            ),
            exposure: file.exposure,
            sensor: camera.model.sensor,
            f_number: lens.f_number,
            focal_mm,
            source,
            masks: OnceLock::new(),
            metered: OnceLock::new(),
        }
    }

    /// What of its picture must be masked for the site's private places, worked out once.
    pub(crate) fn masks(&self, work_out: impl FnOnce() -> Vec<Mask>) -> &[Mask] {
        self.masks.get_or_init(work_out)
    }

    /// How light the parts of its picture are by night, worked out once.
    pub(crate) fn metered(&self, work_out: impl FnOnce() -> Vec<Part>) -> &[Part] {
        self.metered.get_or_init(work_out)
    }

    /// Forgets that: something stands or shines elsewhere now.
    pub(super) fn forget_metered(&mut self) {
        self.metered = OnceLock::new();
    }

    /// The same masks, if anybody ever asked.
    pub(super) fn known_masks(&self) -> Option<&[Mask]> {
        self.masks.get().map(Vec::as_slice)
    }

    /// Puts other masks in the place of those that are known.
    pub(super) fn take_masks(&mut self, masks: Vec<Mask>) {
        self.masks = OnceLock::from(masks);
    }

    /// The same head of a camera that now has another place in the file.
    pub(crate) fn at_place(mut self, camera: usize) -> Self {
        self.camera = camera;
        self
    }

    /// The place of its camera in the site file.
    pub fn camera(&self) -> usize {
        self.camera
    }

    /// Its place among the camera's heads.
    pub fn place(&self) -> usize {
        self.place
    }

    /// Which of the head's views it is.
    pub fn which(&self) -> Which {
        self.which
    }

    /// The id of the preset or flattened view that it is; none for the head's own aim.
    pub fn view_id(&self) -> Option<&str> {
        self.view_id.as_deref()
    }

    /// Its name by ids.
    pub fn name(&self) -> HeadRef {
        HeadRef { camera: self.camera_id.clone(), head: self.id.clone(), view: self.view_id.clone() }
    }

    /// Its own light, and how much it needs.
    pub fn light(&self) -> &HeadLight {
        &self.light
    }

    /// How it takes its pictures, where that was said.
    pub fn exposure(&self) -> Option<&Exposure> {
        self.exposure.as_ref()
    }

    /// What is sharp with it focused at a distance, m; the circle of confusion is one pixel. `None` where its aperture is not known, and
    /// for a flat picture that was cut out of a round one.
    pub fn sharp_at(&self, focus_m: f64) -> Option<Sharp> {
        let f_number = self.f_number.filter(|_| !self.is_flattened())?;
        Some(depth_of_field(self.focal_mm, f_number, self.sensor.width_mm / self.sensor.width(), focus_m))
    }

    /// How wide a point at a distance is out of focus, px; `None` as for [`Head::sharp_at`].
    pub fn spot_px(&self, focus_m: f64, at_m: f64) -> Option<f64> {
        let f_number = self.f_number.filter(|_| !self.is_flattened())?;
        Some(spot_mm(self.focal_mm, f_number, focus_m, at_m) * self.sensor.width() / self.sensor.width_mm)
    }

    /// How long it looks elsewhere before it comes back, s; `None` for a head that never looks away.
    pub fn gap_s(&self) -> Option<f64> {
        self.tour.as_ref().map(|(tour, stop)| tour.gap_s(*stop))
    }

    /// The chance that it sees at all what takes so many seconds; `None` for a head that never looks away.
    pub fn tour_chance(&self, event_s: f64) -> Option<f64> {
        self.tour.as_ref().map(|(tour, stop)| tour.chance(*stop, event_s))
    }

    /// How its camera hangs, and what it withstands there.
    pub fn mounting(&self) -> &Mounting {
        &self.mounting
    }

    /// Whether it is a flat picture cut out of a round one.
    pub fn is_flattened(&self) -> bool {
        self.source.is_some()
    }

    /// The id of its camera.
    pub fn camera_id(&self) -> &str {
        &self.camera_id
    }

    /// Its id in the camera.
    pub fn id(&self) -> &str {
        &self.id
    }

    /// Bearing of the optical axis.
    pub fn pan(&self) -> Angle {
        self.pan
    }

    /// Angle of the optical axis below the horizontal.
    pub fn tilt(&self) -> Angle {
        self.tilt
    }

    /// Turn about the optical axis.
    pub fn roll(&self) -> Angle {
        self.roll
    }

    /// How far its aim may be off, each angle.
    pub fn aim_uncertain(&self) -> Angle {
        self.aim_uncertain
    }

    /// The view as stated.
    pub fn view(&self) -> &View {
        &self.view
    }

    /// The lens as fitted to its published field of view.
    pub fn fitted(&self) -> &FittedLens {
        &self.fitted
    }

    /// The id of the obstacle that its camera is mounted on, where that was said.
    pub fn mounted_on(&self) -> Option<&str> {
        self.mounted_on.as_deref()
    }

    /// The id of the spot that its camera sits on, if it hangs where the spot is.
    pub fn spot(&self) -> Option<&str> {
        self.spot.as_deref()
    }

    /// The effective focal length as set, mm.
    pub fn effective_focal_mm(&self) -> f64 {
        self.effective_focal_mm
    }

    /// The tabulated curve of its lens.
    pub fn curve(&self) -> &LensCurve {
        &self.curve
    }

    /// The optical centre, m.
    pub fn position(&self) -> DVec3 {
        self.view.pose.position
    }

    /// Whether there is anything to see in a direction in the site: of a flat picture only what the round one holds.
    pub fn shows(&self, direction: DVec3) -> bool {
        self.source.as_ref().is_none_or(|source| source.view.holds(source.position() + direction))
    }

    /// Whether a direction in the site lands in its picture.
    pub fn holds_direction(&self, direction: DVec3) -> bool {
        let pixel = self.view.projection.project(self.view.pose.to_camera(direction));
        pixel.is_some_and(|pixel| self.view.projection.holds(pixel)) && self.shows(direction)
    }

    /// The field across of its lens at its widest; of a flat picture that of the round one under it.
    pub fn widest_field(&self) -> Angle {
        Angle::radians(self.under().fitted.widest().hfov())
    }

    /// Which way its lens points; a flat picture has that of the round one under it.
    pub fn axis(&self) -> DVec3 {
        self.under().view.pose.forward
    }

    /// The head whose sensor takes the picture: of a flat picture the round one under it.
    pub(crate) fn under(&self) -> &Head {
        self.source.as_deref().unwrap_or(self)
    }

    /// Looks at a point as stated. In a flat picture that was cut out of a round one there is no more than in that.
    pub fn look(&self, point: DVec3) -> Option<Look> {
        let look = self.view.look(point)?;
        let Some(source) = &self.source else { return Some(look) };
        let under = source.view.look(point);
        let in_view = look.in_view && under.is_some_and(|under| under.in_view);
        let least = |flat: f64, round: Option<f64>| round.map_or(0.0, |round| flat.min(round));
        Some(Look {
            in_view,
            across: least(look.across, under.map(|under| under.across)),
            up: least(look.up, under.map(|under| under.up)),
            ..look
        })
    }

    /// Whether a point lands in the picture; `None` when it is not even in front of the head.
    pub fn in_front(&self, point: DVec3) -> Option<bool> {
        let inside = self.in_front_of_it(point)?;
        Some(inside && self.source.as_ref().is_none_or(|source| source.in_front_of_it(point) == Some(true)))
    }

    fn in_front_of_it(&self, point: DVec3) -> Option<bool> {
        let direction = self.view.pose.to_camera(point - self.position());
        // Past the picture's corners nothing lands in it: most points are told apart without a root.
        let corner = self.view.projection.corner_cosine();
        if corner > 0.0
            && (direction.z <= 0.0 || direction.z * direction.z < corner * corner * direction.length_squared())
        {
            return (direction.z > 0.0).then_some(false);
        }
        let inside = match self.curve.place(direction) {
            Some(place) => self.view.projection.inside_by(place * self.view.projection.focal_px()),
            None => return None,
        };
        let in_view = if inside.abs() < NEAR_EDGE_PX { self.view.holds(point) } else { inside > 0.0 };
        (direction.z > 0.0 || in_view).then_some(in_view)
    }

    /// The pixel density across at a point, px/m, off the tabulated curve of the lens.
    pub fn about_across(&self, point: DVec3) -> f64 {
        let direction = point - self.position();
        let (square, step) =
            (direction.length_squared(), DVec3::new(direction.y, -direction.x, 0.0).normalize_or(DVec3::X));
        let cosine = self.view.pose.forward.dot(direction) / square.sqrt();
        let forward_step = self.view.pose.forward.dot(step);
        let density = self.curve.density(square, cosine, self.curve.factor(cosine), forward_step);
        self.no_more_than_under(self.view.projection.focal_px() * density, |source| source.about_across(point))
    }

    /// A figure of this picture, but no more than the round one that it was cut out of has.
    fn no_more_than_under(&self, figure: f64, of: impl Fn(&Head) -> f64) -> f64 {
        self.source.as_ref().map_or(figure, |source| figure.min(of(source)))
    }

    /// The least pixel density, px/m, that the uncertain aim and focal length leave at a point.
    pub fn least_across(&self, point: DVec3) -> f64 {
        let direction = point - self.position();
        let ground = direction.x.hypot(direction.y);
        let step = if ground > 1e-9 {
            DVec3::new(direction.y / ground, -direction.x / ground, 0.0)
        } else {
            let plumb = self.view.heading();
            DVec3::new(plumb.cos(), -plumb.sin(), 0.0)
        };
        let (square, length) = (direction.length_squared(), direction.length());
        let density = |forward: &DVec3| {
            let cosine = forward.dot(direction) / length;
            self.curve.density(square, cosine, self.curve.factor(cosine), forward.dot(step))
        };
        let least = self.short_px * self.nine.iter().map(density).fold(f64::INFINITY, f64::min);
        self.no_more_than_under(least, |source| source.least_across(point))
    }

    /// The least pixel density up, px/m, at a point over the uncertain aim and focal length.
    pub fn least_up(&self, point: DVec3) -> f64 {
        let up = |pose: &Pose| {
            let direction = pose.to_camera(point - pose.position);
            self.view.projection.pixel_velocity(direction, pose.to_camera(DVec3::Z)).length()
        };
        let least = self.corners.iter().chain([&self.view.pose]).map(up).fold(f64::INFINITY, f64::min);
        let least = least * self.short_px / self.view.projection.focal_px();
        self.no_more_than_under(least, |source| source.least_up(point))
    }

    /// Whether a point lands in the picture as stated or with the aim or the focal length off.
    pub fn shows_perhaps(&self, point: DVec3) -> bool {
        let wide = self.short_px / self.view.projection.focal_px();
        let projection = self.view.projection.scaled(wide);
        let holds = |pose: &Pose| View { pose: *pose, projection }.holds(point);
        self.view.holds(point) || self.corners.iter().any(holds)
    }

    /// Whether points, none further than `apart` (as an angle) from the middle of them, stay in the picture over the uncertain
    /// aim, roll and focal length; with them all that lies between them.
    pub fn surely_hold(&self, points: &[DVec3], apart: f64) -> bool {
        // A straight line bends in the picture of all but a pinhole.
        let bow = if self.view.projection.bend() == 1.0 { 0.0 } else { apart * apart / 2.0 };
        let margin = self.long_px * (self.arc + bow);
        self.source.as_ref().is_none_or(|source| source.surely_hold(points, apart))
            && self.corners.iter().all(|pose| {
                points.iter().all(|point| {
                    let place = self.curve.place(pose.to_camera(*point - pose.position));
                    place.is_some_and(|place: DVec2| self.view.projection.inside_by(place * self.long_px) >= margin)
                })
            })
    }
}

/// The lens that a flat picture has as if a camera had taken it: without distortion, as wide as the window. One millimetre of focal
/// length stands for it.
fn flat_lens(view: &Flattened) -> (FittedLens, f64) {
    let focal_mm = 1.0;
    let width_mm = 2.0 * focal_mm * (view.hfov_deg.to_radians() / 2.0).tan();
    let height_mm = width_mm * f64::from(view.height_px) / f64::from(view.width_px);
    let (width_px, height_px) = (view.width_px, view.height_px);
    let sensor = Sensor { width_px, height_px, width_mm, height_mm, image_circle_px: None };
    let lens = Lens {
        focal_min_mm: focal_mm,
        focal_max_mm: focal_mm,
        hfov_at_min_deg: None,
        hfov_at_max_deg: None,
        f_number: None,
    };
    (FittedLens::new(lens, sensor), focal_mm)
}

/// The spot that a camera sits on; one that was moved off it no longer sits where distances were measured from.
fn on_spot<'a>(camera: &CameraFile, spots: &'a [Spot]) -> Option<&'a Spot> {
    let (at, id) = (DVec2::from_array(camera.position), camera.spot.as_ref()?);
    spots.iter().find(|known| known.id == *id && DVec2::from_array(known.position).distance(at) <= ON_SPOT_M)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::equipment::catalogue;
    use crate::file::{Aimed, HeadFile, Model};

    fn camera_at(position: [f64; 2], model: Model, head: HeadFile) -> CameraFile {
        let (id, name) = ("c".into(), "C".into());
        CameraFile {
            mount: None,
            reacts: None,
            fitting: None,
            id,
            name,
            position,
            spot: None,
            mounted_on: None,
            mounted_as: None,
            housing: None,
            emitter: None,
            power: None,
            stream: None,
            device: None,
            existing: None,
            housed_with: None,
            height_m: 3.0,
            ground_m: 0.0,
            model,
            heads: vec![head],
        }
    }

    #[test]
    fn the_quick_looks_agree_with_the_exact_ones() {
        let rules = Rules::default();
        for (n, model) in catalogue::models().unwrap().into_iter().enumerate() {
            let focal = 0.5 * (model.lens.focal_min_mm + model.lens.focal_max_mm);
            let head =
                HeadFile::new("h", Aimed { pan_deg: 37.0, tilt_deg: 18.0, roll_deg: 5.0 * n as f64, focal_mm: focal });
            let name = model.name.clone();
            let camera = camera_at([1.0, 2.0], model, head);
            let head = Head::new(0, &camera, (0, Which::Own), &rules, &[]);
            for i in 0..900 {
                let (turn, far) = (f64::from(i) * 0.7, 0.4 + f64::from(i % 60));
                let point = head.position() + DVec3::new(turn.sin() * far, turn.cos() * far, f64::from(i % 7) - 3.2);
                let exact = head.view.look(point).map(|look| look.in_view);
                assert_eq!(head.in_front(point), exact, "{name} {point}");
                if exact == Some(true) {
                    let least = head.least_across(point);
                    let by_hand = (0..9)
                        .map(|i| {
                            let turn = |steps: i32| Angle::degrees(f64::from(steps - 1));
                            let (pan, tilt) = (head.pan + turn(i % 3), head.tilt + turn(i / 3));
                            let pose = Pose::new(head.position(), pan, tilt, head.roll);
                            let share = rules.uncertainties.focal(camera.model.lens.is_zoom());
                            let projection = head.view.projection.scaled(1.0 - share);
                            View { pose, projection }.across_at(point)
                        })
                        .fold(f64::INFINITY, f64::min);
                    assert!((least / by_hand - 1.0).abs() < 1e-8, "{name} {point}: {least} {by_hand}");
                }
            }
        }
    }

    #[test]
    fn what_may_bend_past_the_edge_between_two_points_is_not_surely_held() {
        let mut rules = Rules::default();
        let stated = &mut rules.uncertainties;
        (stated.aim_deg, stated.roll_deg, stated.focal_share) = (0.0, 0.0, 0.0);
        let model = catalogue::models().unwrap().into_iter().find(|m| m.lens.focal_min_mm == 2.8 && !m.lens.is_zoom());
        let model = model.unwrap();
        let head = HeadFile::new("h", Aimed { pan_deg: 0.0, tilt_deg: 0.0, roll_deg: 0.0, focal_mm: 2.8 });
        let camera = camera_at([0.0, 0.0], model, head);
        let head = Head::new(0, &camera, (0, Which::Own), &rules, &[]);
        let projection = head.view.projection;
        // Two pixels inside the right edge, ten metres away.
        let pixel = DVec2::new(projection.size().x - 2.0, projection.size().y / 2.0);
        let point = head.position() + head.view.pose.to_site(projection.unproject(pixel).unwrap()) * 10.0;
        assert!(head.surely_hold(&[point], 0.0), "a point");
        // A body that reaches 0.1 rad from its middle: between its corners the edge may bow by 0.1²/2 of the focal length, 7 px.
        assert!(!head.surely_hold(&[point], 0.1), "the end of a body");
    }
}
