//! The search for changes that keep a sight line: each runs over neat values, the least change first,
//! and stops at the first that holds at worst.

use super::Desk;
use super::change::{Candidate, Change};
use crate::change::edits::{aim_between, neat};
use crate::file::{CameraFile, Form, Model, PlateSchool, Point2, Subject};
use crate::math::Angle;
use glam::DVec3;

/// Steps of the neat values that are tried.
const FOCAL_STEP_MM: f64 = 0.1;
const AIM_STEP_DEG: f64 = 0.5;
const HEIGHT_STEP_M: f64 = 0.05;
const NEARER_STEP_M: f64 = 0.1;
/// A camera is not put nearer to its target than this, m.
const NEAREST_M: f64 = 1.0;
/// Lowest height proposed for a plate camera of the level school, m.
const PLATE_HEIGHT_M: f64 = 0.9;

/// All changes found, in no order: at most one a kind, and one a catalogue model.
pub fn candidates(desk: &Desk, models: &[Model]) -> Vec<Candidate> {
    let search = Search { desk, camera: desk.camera(), head: desk.head_place };
    let aimed = search.aim_at_target(search.camera);
    let (focal, aim) = (search.focal(None), search.aim());
    let (height, nearer) = (search.height(false), search.nearer(false));
    // Where a turn alone does it, a turn with something else is no way of its own.
    let turn_is_enough = aim.is_some();
    let instead = |single: Option<Candidate>, turning: &dyn Fn() -> Option<Candidate>| {
        single.or_else(|| if turn_is_enough { None } else { turning() })
    };
    let mut found: Vec<Candidate> = [
        instead(focal, &|| search.focal(Some(aimed.clone()))),
        instead(height, &|| search.height(true)),
        instead(nearer, &|| search.nearer(true)),
        aim,
    ]
    .into_iter()
    .flatten()
    .collect();
    found.extend(models.iter().filter_map(|model| search.model(model, &aimed)));
    found
}

struct Search<'a> {
    desk: &'a Desk<'a>,
    camera: &'a CameraFile,
    head: usize,
}

impl Search<'_> {
    /// A candidate of these changes if it keeps the sight line.
    fn kept(&self, changes: Vec<Change>, effort: f64) -> Option<Candidate> {
        let candidate = Candidate { head: self.head, changes, effort };
        self.desk.keeps(&candidate.applied(self.camera)).then_some(candidate)
    }

    /// Another focal length of the same lens, perhaps with a new aim.
    fn focal(&self, aim: Option<Change>) -> Option<Candidate> {
        let lens = self.camera.model.lens;
        let now = self.camera.heads[self.head].focal_mm;
        let base = if aim.is_some() { 2.0 } else { 0.0 };
        let others = focal_steps(lens.focal_min_mm, lens.focal_max_mm, now).into_iter().filter(|focal| *focal != now);
        others.into_iter().find_map(|focal| {
            let changes = aim.iter().cloned().chain([Change::Focal(focal)]).collect();
            self.kept(changes, base + (focal / now).ln().abs())
        })
    }

    /// A turn towards the target, no further than it takes.
    fn aim(&self) -> Option<Candidate> {
        let head = &self.camera.heads[self.head];
        let Change::Aim(pan, tilt) = self.aim_at_target(self.camera) else { return None };
        let turn = (Angle::degrees(pan) - Angle::degrees(head.pan_deg)).wrapped().deg();
        let nod = tilt - head.tilt_deg;
        let steps = (turn.abs().max(nod.abs()) / AIM_STEP_DEG).ceil();
        (1..=steps as u32).find_map(|step| {
            let share = f64::from(step) / steps;
            let pan = neat(head.pan_deg + turn * share, 0.1);
            let pan = if pan > 360.0 {
                pan - 360.0
            } else if pan < -360.0 {
                pan + 360.0
            } else {
                pan
            };
            let change = Change::Aim(pan, neat(head.tilt_deg + nod * share, 0.1).clamp(-90.0, 90.0));
            self.kept(vec![change], (turn * share).hypot(nod * share) / 90.0)
        })
    }

    /// Another mounting height, perhaps with the aim following.
    fn height(&self, aiming: bool) -> Option<Candidate> {
        let rules = self.desk.site.rules();
        let plate = self.desk.site.targets()[self.desk.target_place].subject == Subject::Plate;
        let least = if plate && rules.plate_school == PlateSchool::Level { PLATE_HEIGHT_M } else { rules.mount_min_m };
        let now = self.camera.height_m;
        let steps = ((rules.mount_max_m - least) / HEIGHT_STEP_M).round().max(0.0) as u32;
        let mut heights: Vec<f64> =
            (0..=steps).map(|step| neat(least + f64::from(step) * HEIGHT_STEP_M, 0.01)).collect();
        heights.sort_by(|a, b| (a - now).abs().total_cmp(&(b - now).abs()));
        heights.into_iter().filter(|height| (height - now).abs() > 1e-9).find_map(|height| {
            let change = Change::Height(height);
            self.kept(self.followed(change, aiming), if aiming { 2.0 } else { 1.0 } + (height - now).abs() / 6.0)
        })
    }

    /// A place nearer to the target along the ground, perhaps with the aim following.
    fn nearer(&self, aiming: bool) -> Option<Candidate> {
        let (centre, ground) = self.towards_target();
        let from = self.camera.position;
        let steps = ((ground - NEAREST_M) / NEARER_STEP_M).floor().max(0.0) as u32;
        (1..=steps).find_map(|step| {
            let moved = neat(f64::from(step) * NEARER_STEP_M, 0.1);
            let share = moved / ground;
            let place: Point2 = [0, 1].map(|axis| neat(from[axis] + (centre[axis] - from[axis]) * share, 0.001));
            let change = Change::Nearer(place, moved);
            self.kept(self.followed(change, aiming), if aiming { 6.0 } else { 5.0 } + moved / 20.0)
        })
    }

    /// A model out of the catalogue, as aimed now or else aimed at the target.
    fn model(&self, model: &Model, aimed: &Change) -> Option<Candidate> {
        let now = &self.camera.model;
        let heads = model.head_count.unwrap_or(1) as usize;
        if !self.suits(model)
            || model.lens == now.lens && model.sensor == now.sensor
            || heads != self.camera.heads.len()
        {
            return None;
        }
        let same_body = model.form == now.form && model.sensor == now.sensor;
        // Among models that do, one with a lens and a build like the present one is less of a change.
        let builds = if model.form == now.form { 0.0 } else { 0.5 };
        let base = if same_body { 3.0 } else { 4.0 } + builds;
        let focal_now = self.camera.heads[self.head].focal_mm;
        let with = |focal: f64| match same_body {
            true => Change::Lens(Box::new(model.clone()), focal),
            false => Change::Model(Box::new(model.clone()), focal),
        };
        let steps = focal_steps(model.lens.focal_min_mm, model.lens.focal_max_mm, focal_now);
        let effort = |focal: f64| base + (focal / focal_now).ln().abs();
        let as_aimed = steps.iter().find_map(|focal| self.kept(vec![with(*focal)], effort(*focal)));
        as_aimed.or_else(|| {
            steps.iter().find_map(|focal| self.kept(vec![with(*focal), aimed.clone()], effort(*focal) + 0.5))
        })
    }

    /// Whether a model is one to propose: a plate camera sees little but plates by night, a PTZ looks
    /// away, and what the present model withstands or lights the new one must too.
    fn suits(&self, model: &Model) -> bool {
        let now = &self.camera.model;
        let plate = self.desk.site.targets()[self.desk.target_place].subject == Subject::Plate;
        let form = match model.form {
            Form::Plate => plate,
            Form::Ptz => now.form == Form::Ptz,
            _ => true,
        };
        let keeps = |now: bool, then: bool| then || !now;
        form && keeps(now.ip.is_some(), model.ip.is_some())
            && keeps(now.ik.is_some(), model.ik.is_some())
            && keeps(now.infrared_m.is_some(), model.infrared_m.is_some())
    }

    /// A change, and the aim that follows from it.
    fn followed(&self, change: Change, aiming: bool) -> Vec<Change> {
        if !aiming {
            return vec![change];
        }
        let moved = Candidate { head: self.head, changes: vec![change.clone()], effort: 0.0 }.applied(self.camera);
        vec![change, self.aim_at_target(&moved)]
    }

    /// The aim that has the target in the middle of the angles it spans.
    fn aim_at_target(&self, camera: &CameraFile) -> Change {
        let from = DVec3::new(camera.position[0], camera.position[1], camera.height_m);
        let samples = &self.desk.site.targets()[self.desk.target_place].samples;
        let aim = aim_between(from, samples, camera.heads[self.head].pan_deg);
        Change::Aim(aim.pan_deg, aim.tilt_deg)
    }

    /// The middle of the target and the ground distance to it.
    fn towards_target(&self) -> (Point2, f64) {
        let samples = &self.desk.site.targets()[self.desk.target_place].samples;
        let middle = samples.iter().sum::<DVec3>() / samples.len() as f64;
        let from = self.camera.position;
        ([middle.x, middle.y], (middle.x - from[0]).hypot(middle.y - from[1]))
    }
}

/// Neat focal lengths of a lens, the least change from `now` first.
fn focal_steps(shortest: f64, longest: f64, now: f64) -> Vec<f64> {
    let first = (shortest / FOCAL_STEP_MM).ceil() as u32;
    let last = (longest / FOCAL_STEP_MM).floor() as u32;
    let mut steps: Vec<f64> = (first..=last).map(|step| neat(f64::from(step) * FOCAL_STEP_MM, 0.1)).collect();
    steps.extend([shortest, longest]);
    steps.retain(|focal| (shortest..=longest).contains(focal));
    steps.sort_by(|a, b| (a / now).ln().abs().total_cmp(&(b / now).ln().abs()));
    steps.dedup();
    steps
}
