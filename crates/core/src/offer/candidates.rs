//! Cameras that might be put up: every surveyed spot with every model, each aimed at a target, at a part of a long one, or at several that
//! lie together, with the lens set to just reach them. Each is judged as it would hang; of one spot those go that another betters.

use super::keepers::Looking;
use crate::change::edits::{aim_between, camera_at, neat};
use crate::change::forms::takes_aim;
use crate::equipment::lens::FittedLens;
use crate::file::{Aimed, CameraFile, Exposure, Form, HeadFile, Model, Spot, USUAL_FPS, Which};
use crate::judge::evaluation::{HeadView, eye_around, took_too_long, view_within, viewer_of};
use crate::judge::lane::look_along_lane;
use crate::judge::rules::{of_the_build, of_the_place};
use crate::judge::sight::{Sight, Viewer};
use crate::judge::sight_line::{Judged, judge};
use crate::judge::zone::told;
use crate::scene::Eye;
use crate::show::plates::start_settings::shutter_for;
use crate::site::{Head, Site, Target};
use crate::verdict::Verdict;
use crate::work::{Over, Patience};
use glam::DVec3;

/// A zoom lens is tried at so many times the focal length that just reaches on the axis.
const TRIED_ZOOMS: [f64; 3] = [1.0, 1.14, 1.45];
/// Focal lengths go by tenths of a millimetre: what a hand sets.
const FOCAL_STEP_MM: f64 = 0.1;
/// The shutter of who reads plates before its lane has asked for another, s.
const READER_S: f64 = 0.001;
/// A long target is also aimed at by so many parts.
const PARTS: usize = 3;
/// With how many others a target may share an aim.
const MOST_SHARED: usize = 3;
/// Of one spot so many cameras are kept to choose from.
const MOST_OF_A_SPOT: usize = 60;

/// A camera that might hang, with what it makes of every target.
pub(super) struct Candidate {
    pub camera: CameraFile,
    pub looking: Looking,
    /// The place of its spot.
    pub spot: usize,
}

/// All of them, and how near the best that was tried came to each target.
pub(super) struct Candidates {
    pub found: Vec<Candidate>,
    /// For each target the camera that did best at it, by verdict and density.
    pub best: Vec<Option<(Verdict, f64, CameraFile)>>,
    /// How many were judged.
    pub tried: usize,
}

/// The cameras that might hang at some spots.
///
/// # Errors
/// When nobody waits any more.
pub(super) fn candidates(
    site: &Site,
    spots: &[&Spot],
    models: &[Model],
    patience: &Patience,
    progress: &dyn Fn(f64),
) -> Result<Candidates, Over> {
    let groups = alike(models);
    let mut all = Candidates { found: vec![], best: vec![None; site.targets().len()], tried: 0 };
    for (place, spot) in spots.iter().enumerate() {
        let Ok(hung) = camera_at(site.file(), spot.position, Some(spot)) else { continue };
        let at = Head::new(0, &hung, (0, Which::Own), site.rules(), &site.file().spots);
        let stands = site.scene().out_of_mounting(at.position(), at.mounted_on());
        if site.scene().solid_around(stands).is_none() {
            let eye = eye_around(site, &at);
            let open = site.targets().iter().map(|target| open_from_here(viewer_of(site, &at, &eye), target)).collect();
            let mut bench = Bench { site, eye, hung, spot: place, open, patience, all: &mut all, found: vec![] };
            let groups = bench.worth_trying(&groups);
            for (g, alike) in groups.iter().enumerate() {
                bench.all_of(alike)?;
                progress((place as f64 + (g + 1) as f64 / groups.len() as f64) / spots.len() as f64);
            }
            let found = bench.found;
            all.found.extend(not_bettered(site, found));
        }
    }
    Ok(all)
}

/// One spot.
struct Bench<'a> {
    site: &'a Site,
    eye: Eye,
    hung: CameraFile,
    spot: usize,
    /// Of each target the samples that a camera here may keep, whatever it is.
    open: Vec<Vec<DVec3>>,
    patience: &'a Patience<'a>,
    all: &'a mut Candidates,
    found: Vec<Candidate>,
}

impl Bench<'_> {
    /// All that models which see alike could do here.
    fn all_of(&mut self, alike: &[&Model]) -> Result<(), Over> {
        let model = alike[0];
        let lens = FittedLens::new(model.lens, model.sensor);
        let holds_here = self.holds_here(model);
        for target in 0..self.site.targets().len() {
            self.patience.check(|| took_too_long(self.site))?;
            let open = self.open[target].clone();
            if open.is_empty() || !holds_here {
                self.try_once(alike, target);
                continue;
            }
            for points in parts(&open) {
                for focal_mm in self.settings(model, &lens, target, &points) {
                    let Some(camera) = self.aimed(alike, focal_mm, &points) else { continue };
                    if !self.take(camera, &[target]) {
                        continue;
                    }
                    self.share(alike, focal_mm, target, &points);
                    // A longer lens shows the same with less around it.
                    break;
                }
            }
            self.overview(alike, &lens, target);
        }
        Ok(())
    }

    /// Of each group what takes the weather and the hands here, and of the groups those that no other outdoes. Where none holds here at
    /// all, the first: so that somebody can say why.
    fn worth_trying<'m>(&self, groups: &[Vec<&'m Model>]) -> Vec<Vec<&'m Model>> {
        let holding = |group: &Vec<&'m Model>| -> Vec<&'m Model> {
            group.iter().copied().filter(|model| self.holds_here(model)).collect()
        };
        let held: Vec<Vec<&Model>> = groups.iter().map(holding).filter(|group| !group.is_empty()).collect();
        if held.is_empty() {
            return groups.iter().take(1).cloned().collect();
        }
        // By night smaller pixels want more light: nothing is said before it is judged.
        if self.site.file().conditions.night {
            return held;
        }
        let outdone = |place: usize| {
            (0..held.len()).any(|other| {
                other != place
                    && outdoes(held[other][0], held[place][0])
                    && (other < place || !outdoes(held[place][0], held[other][0]))
            })
        };
        (0..held.len()).filter(|place| !outdone(*place)).map(|place| held[place].clone()).collect()
    }

    /// Whether a model takes the weather and the hands here.
    fn holds_here(&self, model: &Model) -> bool {
        let Some(target) = self.site.targets().first() else { return false };
        let aimed = Aimed { pan_deg: 0.0, tilt_deg: 0.0, roll_deg: 0.0, focal_mm: model.lens.focal_min_mm };
        let camera = CameraFile { model: model.clone(), heads: vec![HeadFile::new("h1", aimed)], ..self.hung.clone() };
        let head = self.head(&camera);
        let sight = Sight::new(viewer_of(self.site, &head, &self.eye), target, target.middle, true);
        of_the_build(&sight) == Verdict::Kept
    }

    /// So that somebody can say what stands against it, where nothing was tried yet.
    fn try_once(&mut self, alike: &[&Model], target: usize) {
        if self.all.best[target].is_none() {
            let samples = self.site.targets()[target].samples.clone();
            let camera = self.aimed(alike, alike[0].lens.focal_max_mm, &samples);
            if let Some(camera) = camera {
                self.take(camera, &[target]);
            }
        }
    }

    /// A camera that has the vehicle beside whoever reads its plate.
    fn overview(&mut self, alike: &[&Model], lens: &FittedLens, target: usize) {
        let plate = &self.site.targets()[target];
        let Some(vehicle) = plate.overview.as_ref().filter(|_| self.site.rules().overview_pair) else { return };
        let (need, points) = (vehicle.need.px_per_m, vehicle.samples.clone());
        for focal_mm in self.reaching(alike[0], lens, need, &points) {
            let Some(camera) = self.aimed(alike, focal_mm, &points) else { continue };
            let head = self.head(&camera);
            let judged = judge(viewer_of(self.site, &head, &self.eye), plate);
            self.all.tried += 1;
            if judged.lane.as_ref().is_some_and(|lane| lane.overview.contains(&Verdict::Kept)) {
                let view = view_within(self.site, &head, &self.eye, self.patience);
                self.found.push(Candidate { camera, looking: Looking { head, view }, spot: self.spot });
                return;
            }
        }
    }

    /// The focal lengths that just reach some points of a target.
    fn settings(&self, model: &Model, lens: &FittedLens, target: usize, points: &[DVec3]) -> Vec<f64> {
        let need = self.site.targets()[target].need.px_per_m;
        let reaching = self.reaching(model, lens, need, points);
        // What falls short everywhere says how far it falls short.
        let first = reaching.is_empty() && self.all.best[target].is_none();
        if first { vec![model.lens.focal_max_mm] } else { reaching }
    }

    /// The focal lengths to try that give a need on the axis; none where the lens does not reach.
    fn reaching(&self, model: &Model, lens: &FittedLens, need: f64, points: &[DVec3]) -> Vec<f64> {
        let far = points.iter().map(|point| point.distance(self.hung.eye())).fold(0.1, f64::max);
        let density = |focal: f64| lens.projection(focal).focal_px() / far;
        let (shortest, longest) = (model.lens.focal_min_mm, model.lens.focal_max_mm);
        if density(longest) < need {
            return vec![];
        }
        if !model.lens.is_zoom() {
            return vec![shortest];
        }
        let (mut low, mut high) = (shortest, longest);
        while density(low) < need && high - low > 1e-3 {
            let middle = 0.5 * (low + high);
            if density(middle) < need { low = middle } else { high = middle }
        }
        let reaches = if density(shortest) >= need { shortest } else { high };
        let step = |times: f64| neat((reaches * times / FOCAL_STEP_MM).ceil() * FOCAL_STEP_MM, FOCAL_STEP_MM);
        let mut tried: Vec<f64> = TRIED_ZOOMS.iter().map(|times| step(*times).clamp(shortest, longest)).collect();
        tried.dedup();
        tried
    }

    /// The first of models that see alike aimed at some points, where its build takes that.
    fn aimed(&self, alike: &[&Model], focal_mm: f64, points: &[DVec3]) -> Option<CameraFile> {
        let aim = aim_between(self.hung.eye(), points, 0.0);
        let aimed = Aimed { pan_deg: aim.pan_deg, tilt_deg: aim.tilt_deg, roll_deg: 0.0, focal_mm };
        alike.iter().find_map(|model| {
            // Who reads plates has a shutter that is set.
            let exposure = (model.form == Form::Plate).then(|| Exposure::fixed(READER_S, USUAL_FPS));
            let head = HeadFile { exposure, ..HeadFile::new("h1", aimed) };
            let camera = CameraFile { model: (*model).clone(), heads: vec![head], ..self.hung.clone() };
            let takes = takes_aim(&self.head(&camera), self.site.scene(), &camera, 0, Which::Own);
            takes.then_some(camera)
        })
    }

    fn head(&self, camera: &CameraFile) -> Head {
        // Its own place comes when it is chosen from.
        self.site.head_of(0, camera, (0, Which::Own))
    }

    /// A camera that reads a plate on the move, with the shutter that its speed asks for.
    fn set_for(&self, mut camera: CameraFile, target: usize) -> CameraFile {
        let target = &self.site.targets()[target];
        let Some(lane) = target.moving_lane().filter(|_| camera.model.form == Form::Plate) else { return camera };
        let head = self.head(&camera);
        let viewer = viewer_of(self.site, &head, &self.eye);
        let wanted = look_along_lane(viewer, target, lane).zone.map(|zone| told(viewer, target, lane, zone));
        if let (Some(exposure), Some(zone)) = (&mut camera.heads[0].exposure, wanted) {
            *exposure = exposure.with_shutter(shutter_for(zone.shutter_wanted_s));
        }
        camera
    }

    /// Judges a camera; takes it when it keeps something of each of these targets.
    fn take(&mut self, camera: CameraFile, targets: &[usize]) -> bool {
        let camera = self.set_for(camera, targets[0]);
        let head = self.head(&camera);
        let viewer = viewer_of(self.site, &head, &self.eye);
        self.all.tried += 1;
        let mut known: Vec<(usize, Judged)> = Vec::with_capacity(targets.len());
        // The one that was added last decides.
        for target in targets.iter().rev() {
            let judged = judge(viewer, &self.site.targets()[*target]);
            let held = &mut self.all.best[*target];
            if let Some(found) = judged.deciding {
                let better = held
                    .as_ref()
                    .is_none_or(|(verdict, across, _)| (found.verdict, -found.across) < (*verdict, -across));
                if better {
                    *held = Some((found.verdict, found.across, camera.clone()));
                }
            }
            if !keeps_some(&judged) {
                return false;
            }
            known.push((*target, judged));
        }
        let rest = |place: usize| match known.iter().position(|(target, _)| *target == place) {
            Some(held) => known[held].1.clone(),
            None => judge(viewer, &self.site.targets()[place]),
        };
        let view = HeadView { targets: (0..self.site.targets().len()).map(rest).collect() };
        self.found.push(Candidate { camera, looking: Looking { head, view }, spot: self.spot });
        true
    }

    /// The same camera turned so that it has other targets beside this one, as long as it keeps them all.
    fn share(&mut self, alike: &[&Model], focal_mm: f64, target: usize, points: &[DVec3]) {
        let from = self.hung.eye();
        let middle = |place: usize| self.site.targets()[place].middle - from;
        let apart = |place: usize| middle(target).angle_between(middle(place));
        let lens = FittedLens::new(alike[0].lens, alike[0].sensor).projection(focal_mm);
        let reaches = |other: usize| {
            let far = self.open[other].iter().map(|point| point.distance(from)).fold(f64::INFINITY, f64::min);
            lens.focal_px() / far >= self.site.targets()[other].need.px_per_m
        };
        let near = |other: &usize| *other != target && apart(*other) < lens.hfov() && reaches(*other);
        let mut others: Vec<usize> = (0..self.site.targets().len()).filter(near).collect();
        others.sort_by(|a, b| apart(*a).total_cmp(&apart(*b)));
        let (mut shared, mut points) = (vec![target], points.to_vec());
        for other in others.into_iter().take(2 * MOST_SHARED) {
            if shared.len() > MOST_SHARED {
                break;
            }
            let mut with: Vec<DVec3> = points.clone();
            with.extend(&self.open[other]);
            let mut both = shared.clone();
            both.push(other);
            let taken = self.aimed(alike, focal_mm, &with).is_some_and(|camera| self.take(camera, &both));
            if taken {
                (shared, points) = (both, with);
            }
        }
    }
}

/// Whether a model shows by day all that another one does, with no fewer pixels and for no more money: its lens goes at least as wide and
/// at least as narrow.
fn outdoes(one: &Model, other: &Model) -> bool {
    let fields = |model: &Model| {
        let lens = FittedLens::new(model.lens, model.sensor);
        [model.lens.focal_min_mm, model.lens.focal_max_mm].map(|focal| {
            let projection = lens.projection(focal);
            [projection.hfov(), projection.vfov()]
        })
    };
    let ([wide, narrow], [other_wide, other_narrow]) = (fields(one), fields(other));
    let wider = |a: [f64; 2], b: [f64; 2]| a.iter().zip(&b).all(|(a, b)| *a >= b - 0.01);
    let pixels = one.sensor.width_px >= other.sensor.width_px && one.sensor.height_px >= other.sensor.height_px;
    let cheap = match (one.price, other.price) {
        (Some(one), Some(other)) => one <= other,
        (one, None) => one.is_some() || other.price.is_none(),
        (None, Some(_)) => false,
    };
    // A plate camera has a shutter and a light of its own; it is judged for itself.
    let plain = one.form != Form::Plate && other.form != Form::Plate;
    plain && cheap && pixels && wider(wide, other_wide) && wider(other_narrow, narrow)
}

/// Models by what they see: those of one sensor, lens and light, the cheapest first, and what has no price last.
fn alike(models: &[Model]) -> Vec<Vec<&Model>> {
    let mut groups: Vec<Vec<&Model>> = Vec::new();
    for model in models {
        let sees_alike = |other: &Model| {
            (other.sensor, other.lens) == (model.sensor, model.lens)
                && (other.infrared_m, other.least_lux) == (model.infrared_m, model.least_lux)
                && other.infrared == model.infrared
        };
        match groups.iter_mut().find(|group| sees_alike(group[0])) {
            Some(group) => group.push(model),
            None => groups.push(vec![model]),
        }
    }
    let price = |model: &Model| model.price.unwrap_or(f64::INFINITY);
    groups.iter_mut().for_each(|group| group.sort_by(|a, b| price(a).total_cmp(&price(b))));
    groups
}

/// The samples of a target that a camera may keep from a place, whatever it is: nothing stands in the way, and none is seen too steeply or
/// too much from the side. The way of a plate is judged as a whole.
fn open_from_here(viewer: Viewer, target: &Target) -> Vec<DVec3> {
    let moving = target.moving_lane().is_some();
    let open = |point: &DVec3| moving || of_the_place(&Sight::new(viewer, target, *point, true)) == Verdict::Kept;
    target.samples.iter().copied().filter(open).collect()
}

/// All of a target, and of a long one its parts in order.
fn parts(samples: &[DVec3]) -> Vec<Vec<DVec3>> {
    let mut parts = vec![samples.to_vec()];
    if samples.len() >= 2 * PARTS {
        parts.extend(samples.chunks(samples.len().div_ceil(PARTS)).map(<[DVec3]>::to_vec));
    }
    parts
}

/// Whether a head keeps a target, or some of it.
fn keeps_some(judged: &Judged) -> bool {
    judged.counts.kept > 0 || judged.deciding.is_some_and(|found| found.verdict == Verdict::Kept)
}

/// What a camera keeps, place by place of all targets.
fn kept_places(site: &Site, view: &HeadView) -> Vec<bool> {
    let of = |(target, judged): (&Target, &Judged)| -> Vec<bool> {
        let whole = judged.deciding.is_some_and(|found| found.verdict == Verdict::Kept);
        let seen = judged.counts.seen > 0;
        let parts = 0..target.samples.len() + target.runs.len();
        let parts = parts.map(|part| seen && judged.part(part).verdict == Verdict::Kept);
        [whole].into_iter().chain(parts).collect()
    };
    site.targets().iter().zip(&view.targets).flat_map(of).collect()
}

/// Whether it has to do with a plate on its way: where it reads decides what must lie beside it, so none betters another.
fn reads(candidate: &Candidate) -> bool {
    candidate.looking.view.targets.iter().any(|judged| judged.lane.as_ref().is_some_and(|lane| lane.zone.is_some()))
}

/// Of the cameras of one spot those that no other betters: by what they keep, and by price where one is known.
fn not_bettered(site: &Site, found: Vec<Candidate>) -> Vec<Candidate> {
    let mut kept: Vec<(Vec<bool>, Candidate)> = Vec::new();
    let betters = |a: &(Vec<bool>, Candidate), b: &(Vec<bool>, Candidate)| {
        // Unknown is never cheaper.
        let cheap = match (a.1.camera.model.price, b.1.camera.model.price) {
            (Some(a), Some(b)) => a <= b,
            (Some(_), None) | (None, None) => true,
            (None, Some(_)) => false,
        };
        cheap && b.0.iter().zip(&a.0).all(|(b, a)| *a || !*b)
    };
    for candidate in found {
        let new = (kept_places(site, &candidate.looking.view), candidate);
        if !reads(&new.1) && kept.iter().any(|held| betters(held, &new)) {
            continue;
        }
        kept.retain(|held| reads(&held.1) || !betters(&new, held));
        kept.push(new);
    }
    let worth = |places: &[bool]| places.iter().filter(|kept| **kept).count();
    kept.sort_by_key(|held| std::cmp::Reverse(worth(&held.0)));
    kept.truncate(MOST_OF_A_SPOT);
    kept.into_iter().map(|(_, candidate)| candidate).collect()
}
