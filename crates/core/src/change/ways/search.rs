//! The search for changes that keep a sight line: each runs over neat values, the least change first,
//! and stops at the first that holds at worst.

use super::aim;
use super::change::{Candidate, Change};
use super::desk::Desk;
use crate::change::edits::{Aim, aim_between, neat};
use crate::file::{
    Aimed, CameraFile, Emitter, Form, Housing, Infrared, Model, PlateSchool, Point2, Subject, Which, grade,
};
use crate::judge::build::build;
use crate::math::Angle;
use crate::site::Tour;
use glam::{DVec2, DVec3};

/// Steps of the neat values that are tried.
const FOCAL_STEP_MM: f64 = 0.1;
const HEIGHT_STEP_M: f64 = 0.05;
/// Lowest height proposed for a plate camera of the level school, m.
const PLATE_HEIGHT_M: f64 = 0.9;
/// A stay that is worth a move, and the longest one that is proposed, s; common practice, no source.
const LEAST_DWELL_S: f64 = 2.0;
const MOST_DWELL_S: f64 = 60.0;
/// How far beside a camera a lamp of its own is tried, m.
const ASIDE_M: [f64; 3] = [0.5, 1.0, 2.0];
/// The turn of a corridor picture, degrees.
const CORRIDOR_DEG: f64 = 90.0;

/// All changes found to the camera in question, in no order: at most one a kind, and one a spot and a catalogue model.
pub fn candidates(desk: &Desk, models: &[Model]) -> Vec<Candidate> {
    let search = Search::new(desk);
    if search.comes_back_too_late() {
        // No aim and no lens brings a tour back sooner.
        return search.tour().into_iter().collect();
    }
    let aimed = search.aimed(search.camera);
    let turned = |aim: Aim| Change::Aim(aim.pan_deg, aim.tilt_deg);
    let each = |run: &dyn Fn() -> Option<Candidate>| {
        desk.budget.next_search();
        run()
    };
    // Where a shutter does it, nobody climbs.
    desk.budget.next_search();
    let settings = search.settings();
    if !settings.is_empty() {
        return settings.into_iter().chain(each(&|| search.emitter_aside())).collect();
    }
    let aim = each(&|| aim::best(desk, search.camera, aimed));
    // Where a turn alone does it and costs nobody anything, a turn with something else is no way of its own.
    let turn_is_enough = aim.is_some();
    let gentle = aim.as_ref().is_some_and(|aim| {
        let ranked = desk.consequences(aim.effort, &aim.applied(search.camera));
        ranked.is_some_and(|(rank, _)| !rank.harms())
    });
    let unless_gentle = |run: &dyn Fn() -> Option<Candidate>| if gentle { None } else { each(run) };
    let instead = |single: Option<Candidate>, turning: &dyn Fn() -> Option<Candidate>| {
        single.or_else(|| if turn_is_enough { None } else { each(turning) })
    };
    let mut found: Vec<Candidate> = [
        instead(each(&|| search.focal(None)), &|| search.focal(Some(turned(aimed)))),
        instead(each(&|| search.height(false)), &|| search.height(true)),
        instead(unless_gentle(&|| search.nearer(false)), &|| search.nearer(true)),
        unless_gentle(&|| search.corridor()),
        unless_gentle(&|| search.back()),
        unless_gentle(&|| search.sideways()),
        each(&|| search.housing()),
        each(&|| search.emitter_aside()),
        aim,
    ]
    .into_iter()
    .flatten()
    .collect();
    desk.budget.next_search();
    found.extend(search.spots());
    found.extend(models.iter().filter_map(|model| each(&|| search.model(model, &turned(aimed)))));
    found
}

/// What is searched for: changes to the camera of a desk.
pub(super) struct Search<'a> {
    pub(super) desk: &'a Desk<'a>,
    pub(super) camera: &'a CameraFile,
    pub(super) head: (usize, Which),
}

impl<'a> Search<'a> {
    pub(super) fn new(desk: &'a Desk<'a>) -> Self {
        Search { desk, camera: desk.camera(), head: (desk.head_place, desk.which) }
    }
}

impl Search<'_> {
    /// The aim and focal length in question as they are.
    fn now(&self) -> Aimed {
        self.camera.heads[self.head.0].aimed(self.head.1)
    }

    /// A candidate of these changes if it keeps the sight line.
    pub(super) fn kept(&self, changes: Vec<Change>, effort: f64) -> Option<Candidate> {
        let candidate = Candidate { head: self.head, changes, effort };
        let then = candidate.applied(self.camera);
        if self.desk.keeps(&then) {
            return Some(candidate);
        }
        // A plate on the move may only want another shutter with it.
        let exposure = self.fitting_exposure(&then)?;
        let mut changes = candidate.changes;
        changes.push(Change::Exposure(exposure));
        let candidate = Candidate { changes, effort: effort + 0.05, ..candidate };
        self.desk.keeps(&candidate.applied(self.camera)).then_some(candidate)
    }

    /// Another focal length of the same lens, perhaps with a new aim.
    fn focal(&self, aim: Option<Change>) -> Option<Candidate> {
        let now = self.now().focal_mm;
        let base = if aim.is_some() { 2.0 } else { 0.0 };
        self.focals().into_iter().find_map(|focal| {
            let changes = aim.iter().cloned().chain([Change::Focal(focal)]).collect();
            self.kept(changes, base + (focal / now).ln().abs())
        })
    }

    /// Neat focal lengths of the lens, the least change first.
    pub(super) fn focals(&self) -> Vec<f64> {
        let (lens, now) = (self.camera.lens_of(self.head.0), self.now().focal_mm);
        focal_steps(lens.focal_min_mm, lens.focal_max_mm, now).into_iter().filter(|focal| *focal != now).collect()
    }

    /// A turn alone, a focal length alone, or both.
    pub(super) fn turned_or_zoomed(&self) -> Option<Candidate> {
        let aimed = self.aimed(self.camera);
        let turn = Change::Aim(aimed.pan_deg, aimed.tilt_deg);
        aim::best(self.desk, self.camera, aimed).or_else(|| self.focal(None)).or_else(|| self.focal(Some(turn)))
    }

    /// The picture turned on its side, aimed at the target: for what is high and narrow.
    fn corridor(&self) -> Option<Candidate> {
        let now = self.now().roll_deg;
        let roll = if (Angle::degrees(now).sin()).abs() < 0.5 { CORRIDOR_DEG } else { 0.0 };
        self.kept(self.followed(Change::Roll(roll), false), 0.6)
            .or_else(|| self.kept(self.followed(Change::Roll(roll), true), 0.8))
    }

    /// Whether it looks away for longer than the target may go unseen, or nobody said how long that is.
    fn comes_back_too_late(&self) -> bool {
        let gap = self.desk.head(self.camera).gap_s();
        gap.is_some_and(|gap| self.desk.target().unseen_at_most_s.is_none_or(|wish| gap > wish))
    }

    /// A shorter stay at each preset of the tour, so that it comes back in time.
    fn tour(&self) -> Option<Candidate> {
        let wish = self.desk.target().unseen_at_most_s?;
        let tour = Tour::of(&self.camera.heads[self.head.0])?;
        // Rounded down: a tenth of a second more would be too long.
        let dwell = (tour.dwell_for(wish)?.min(MOST_DWELL_S) * 10.0).floor() / 10.0;
        if dwell < LEAST_DWELL_S {
            return None;
        }
        self.kept(vec![Change::Dwell(dwell)], 0.4)
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
        // Only a box takes another lens; a turret with another lens is another turret.
        let same_body = now.form == Form::Box && model.form == now.form && model.sensor == now.sensor;
        // Among models that do, one with a lens and a build like the present one is less of a change.
        let alike = model.form == now.form && model.sensor == now.sensor;
        let builds = if alike {
            -0.9
        } else if model.form == now.form {
            0.0
        } else {
            0.5
        };
        let base = if same_body { 3.0 } else { 4.0 } + builds;
        let focal_now = self.now().focal_mm;
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
        // A preset is one of a head that is turned from afar, a flat view one of a fisheye.
        let has_the_view = match self.head.1 {
            Which::Own => true,
            Which::Preset(_) => model.form == Form::Ptz,
            Which::Flattened(_) => model.form == Form::Fisheye,
        };
        let form = match model.form {
            _ if !has_the_view => false,
            // By night a plate camera sees little but plates, and a general one none.
            Form::Plate => plate,
            _ if plate => false,
            Form::Ptz => now.form == Form::Ptz,
            _ => true,
        };
        let keeps = |now: bool, then: bool| then || !now;
        let as_high = |now: &Option<String>, then: &Option<String>, enough: u32| {
            grade(now.as_deref()).is_none_or(|now| grade(then.as_deref()).is_some_and(|then| then >= now.min(enough)))
        };
        form && as_high(&now.ip, &model.ip, 66)
            && as_high(&now.ik, &model.ik, 10)
            && keeps(now.infrared_light().is_some(), model.infrared_light().is_some())
    }

    /// A housing, where the weather or a hand is what it does not withstand; of a build that goes into one.
    fn housing(&self) -> Option<Candidate> {
        let fits = matches!(self.camera.model.form, Form::Box | Form::Bullet | Form::Turret);
        if !fits || self.camera.housing.is_some() {
            return None;
        }
        let housing = Housing { ip: Some("IP66".to_owned()), ik: Some("IK10".to_owned()) };
        let effort = if self.camera.model.form == Form::Box { 0.9 } else { 2.2 };
        self.kept(vec![Change::Housing(housing)], effort)
    }

    /// Its infrared light from a lamp of its own beside it, so that less of it comes back from a plate.
    fn emitter_aside(&self) -> Option<Candidate> {
        let light = self.camera.model.infrared_light().filter(|_| self.camera.emitter.is_none())?;
        if !self.desk.site.file().conditions.night || self.desk.target().subject != Subject::Plate {
            return None;
        }
        let head = self.desk.head(self.camera);
        let forward = head.axis().truncate().normalize_or(DVec2::Y);
        let beam_deg = light.beam_deg.unwrap_or(head.widest_field().deg().min(120.0));
        ASIDE_M.into_iter().flat_map(|aside| [aside, -aside]).find_map(|aside| {
            let at = DVec2::from_array(self.camera.position) + DVec2::new(forward.y, -forward.x) * aside;
            let light = Infrared { range_m: light.range_m, beam_deg: Some(beam_deg) };
            let position = [neat(at.x, 0.01), neat(at.y, 0.01)];
            let emitter = Emitter { position, height_m: self.camera.height_m, light };
            self.kept(vec![Change::Emitter(emitter)], 3.0 + aside.abs() / 10.0)
        })
    }

    /// A change, and the aim that follows from it.
    pub(super) fn followed(&self, change: Change, aiming: bool) -> Vec<Change> {
        if !aiming {
            return vec![change];
        }
        let moved = Candidate { head: self.head, changes: vec![change.clone()], effort: 0.0 }.applied(self.camera);
        let aim = self.aimed(&moved);
        vec![change, Change::Aim(aim.pan_deg, aim.tilt_deg)]
    }

    /// The aim that has the target, all that counts of it, in the middle of the angles it spans.
    pub(super) fn aimed(&self, camera: &CameraFile) -> Aim {
        let from = camera.eye();
        let target = self.desk.target();
        let mut points = target.samples.clone();
        if !target.body.is_point() {
            let ends = [target.body.low, target.body.high].map(|end| DVec3::Z * end);
            points = points.iter().flat_map(|point| ends.map(|end| *point + end)).collect();
        }
        let aim = aim_between(from, &points, camera.heads[self.head.0].aimed(self.head.1).pan_deg);
        // No flatter and no steeper than its build takes as it hangs.
        let build = build(&self.desk.head(camera), self.desk.site.scene());
        let tilt_deg = build.map_or(aim.tilt_deg, |build| aim.tilt_deg.clamp(build.tilts[0], build.tilts[1]));
        Aim { tilt_deg, ..aim }
    }

    /// The middle of the target and the ground distance to it.
    pub(super) fn towards_target(&self) -> (Point2, f64) {
        let middle = self.desk.target().middle;
        let from = self.camera.position;
        ([middle.x, middle.y], (middle.x - from[0]).hypot(middle.y - from[1]))
    }
}

/// Neat focal lengths of a lens, the least change from `now` first.
pub(super) fn focal_steps(shortest: f64, longest: f64, now: f64) -> Vec<f64> {
    let first = (shortest / FOCAL_STEP_MM).ceil() as u32;
    let last = (longest / FOCAL_STEP_MM).floor() as u32;
    let mut steps: Vec<f64> = (first..=last).map(|step| neat(f64::from(step) * FOCAL_STEP_MM, 0.1)).collect();
    steps.extend([shortest, longest]);
    steps.retain(|focal| (shortest..=longest).contains(focal));
    steps.sort_by(|a, b| (a / now).ln().abs().total_cmp(&(b / now).ln().abs()));
    steps.dedup();
    steps
}
