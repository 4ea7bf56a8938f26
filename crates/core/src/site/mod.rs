//! The compiled site: a whole design, validated once so that the rest of the program can trust it.

pub mod centred;
mod ground_edges;
mod head;
pub mod housed;
pub mod lane;
pub mod link;
mod mask;
mod masking;
mod mounting;
pub mod needs;
pub mod ray;
mod standing;
pub mod subject;
mod target;
pub mod tour;
mod uncertainty;

use crate::file::{
    CameraFile, Conditions, Fault, FaultCode, HeadRef, Obstacle, PrivatePlace, Reading, Rules, SiteChange, SiteFile,
    TargetFile, Touched, Which, faults, faults_of,
};
use crate::light::LampLight;
use crate::scene::{Eye, Scene, Solid};
use crate::wire::shared_cable::behind_one_cable;
use glam::DVec2;
pub use ground_edges::{GroundEdges, half_upright};
pub use head::Head;
use housed::in_one_housing;
pub use lane::{Lane, Run};
pub use mask::Mask;
pub use masking::masks_of;
pub use mounting::Mounting;
use standing::standing;
use std::collections::HashMap;
pub use target::Target;
pub use tour::Tour;

/// A validated site: its file and what is computed from it once.
///
/// It is only made by [`Site::parse`] and [`Site::from_file`], so whoever holds one holds numbers
/// in range, ids that exist and outlines that enclose something.
#[derive(Clone, Debug)]
pub struct Site {
    file: SiteFile,
    scene: Scene,
    private: Vec<Solid>,
    /// Ground that is not the client's and is told, not masked.
    foreign: Vec<Solid>,
    lamps: Vec<LampLight>,
    targets: Vec<Target>,
    heads: Vec<Head>,
    /// Who fails with whom, by the cameras' places; empty where nobody wishes for a back-up.
    fails_with: Vec<usize>,
}

/// Who fails with whom, where somebody wishes for a back-up: behind one cable, in one housing.
fn fails_with(file: &SiteFile) -> Vec<usize> {
    if !file.targets.iter().any(|target| target.heads_wanted > 1) {
        return vec![];
    }
    let cabled = if file.network.is_some() { behind_one_cable(file) } else { (0..file.cameras.len()).collect() };
    in_one_housing(file, cabled)
}

impl Site {
    /// Reads a site file; every fault is named with its place.
    pub fn parse(text: &str) -> Result<Site, Vec<Fault>> {
        Site::from_file(SiteFile::parse(text)?)
    }

    /// Validates a file that was read already.
    pub fn from_file(file: SiteFile) -> Result<Site, Vec<Fault>> {
        let faults = faults(&file);
        if !faults.is_empty() {
            return Err(faults);
        }
        let rules = &file.rules;
        let scene = Scene::new(file.obstacles.iter().flat_map(|o| standing(o, &file.conditions)).collect());
        let targets = file.targets.iter().map(|target| Target::new(target, rules)).collect();
        let [private, foreign] = compiled_private(&file);
        let lamps = lamp_lights(&file, &scene);
        let fails_with = fails_with(&file);
        let mut site = Site { scene, private, foreign, lamps, targets, heads: vec![], fails_with, file };
        let cameras = site.file.cameras.iter().enumerate();
        site.heads = cameras.flat_map(|(place, camera)| site.heads_of(place, camera)).collect();
        Ok(site)
    }

    /// Makes a change to the file and compiles anew what that touches. On faults nothing is changed.
    ///
    /// # Errors
    /// The faults of the file that would come of it.
    pub fn change(&mut self, change: SiteChange) -> Result<Touched, Vec<Fault>> {
        let solids_change = change.obstacles.is_some()
            || change.head.as_ref().is_some_and(|heading| heading.conditions != self.file.conditions);
        let mut file = self.file.clone();
        let mut touched = change.apply(&mut file)?;
        // Whether a camera hangs on its spot decides how well its distances are known.
        let moved = file.cameras.iter().filter(|c| c.spot.as_ref().is_some_and(|spot| touched.spots.contains(spot)));
        touched.cameras.extend(moved.map(|camera| camera.id.clone()));
        let faults = faults_of(&file, &touched);
        if !faults.is_empty() {
            return Err(faults);
        }
        let lights_change = solids_change || !touched.lamps.is_empty() || touched.reordered;
        let old_boxes = if solids_change { boxes_of(&self.scene, &touched) } else { vec![] };
        if solids_change {
            let mut held: HashMap<&str, Vec<Solid>> = HashMap::new();
            for solid in self.scene.solids().iter().filter(|s| !touched.all && !touched.obstacles.contains(s.id())) {
                held.entry(solid.id()).or_default().push(solid.clone());
            }
            let compile = |o: &Obstacle| held.remove(o.id.as_str()).unwrap_or_else(|| standing(o, &file.conditions));
            self.scene = Scene::new(file.obstacles.iter().flat_map(compile).collect());
        }
        if lights_change {
            self.lamps = lamp_lights(&file, &self.scene);
        }
        let boxes = [old_boxes, if solids_change { boxes_of(&self.scene, &touched) } else { vec![] }].concat();
        let private_change = !touched.private.is_empty();
        let first_private = private_change && self.private.is_empty();
        let private_before: Vec<String> = self.private.iter().map(|place| place.id().to_owned()).collect();
        if private_change {
            [self.private, self.foreign] = compiled_private(&file);
        }
        self.take_targets(&file, &touched);
        let mut held = self.held_heads(&touched);
        self.fails_with = fails_with(&file);
        self.file = file;
        if lights_change {
            held.values_mut().flatten().for_each(Head::forget_metered);
        }
        for head in held.values().flatten() {
            // What a bubble on a wall takes hangs on the wall.
            let here = head.position().truncate();
            if boxes.iter().any(|(lower, upper)| here.clamp(*lower, *upper).distance(here) <= NEAR_WALL_M) {
                touched.cameras.insert(head.camera_id().to_owned());
            }
        }
        if private_change || solids_change && !self.private.is_empty() {
            for head in held.values_mut().flatten() {
                if first_private {
                    // Where there was no private place nobody asked for masks: whether they decide nobody knows yet.
                    touched.cameras.insert(head.camera_id().to_owned());
                    continue;
                }
                // What nobody asked for decided nothing.
                let Some(known) = head.known_masks() else { continue };
                let masks = self.masks_after(head, known, &private_before, &touched, &boxes);
                if known != masks {
                    // Its promises are judged anew.
                    touched.cameras.insert(head.camera_id().to_owned());
                    head.take_masks(masks);
                }
            }
        }
        let cameras = self.file.cameras.iter().enumerate();
        self.heads = cameras
            .flat_map(|(place, camera)| match held.remove(&camera.id) {
                Some(heads) => heads.into_iter().map(|head| head.at_place(place)).collect(),
                None => self.heads_of(place, camera),
            })
            .collect();
        Ok(touched)
    }

    fn take_targets(&mut self, file: &SiteFile, touched: &Touched) {
        let mut held: HashMap<String, Target> = self.targets.drain(..).map(|t| (t.id.clone(), t)).collect();
        held.retain(|id, _| !touched.all && !touched.targets.contains(id));
        let compile = |t: &TargetFile| held.remove(&t.id).unwrap_or_else(|| Target::new(t, &file.rules));
        self.targets = file.targets.iter().map(compile).collect();
    }

    /// The heads that a change left as they are, by their camera's id.
    fn held_heads(&mut self, touched: &Touched) -> HashMap<String, Vec<Head>> {
        let mut held: HashMap<String, Vec<Head>> = HashMap::new();
        for head in self.heads.drain(..) {
            held.entry(head.camera_id().to_owned()).or_default().push(head);
        }
        held.retain(|id, _| !touched.all && !touched.cameras.contains(id));
        held
    }

    /// A view of a head of a camera that the site has, or might have at a place among its cameras.
    pub(crate) fn head_of(&self, place: usize, camera: &CameraFile, view: (usize, Which)) -> Head {
        Head::new(place, camera, view, self.rules(), &self.file.spots)
    }

    fn heads_of(&self, place: usize, camera: &CameraFile) -> Vec<Head> {
        if camera.goes() {
            return vec![];
        }
        let views = camera.heads.iter().enumerate();
        let views = views.flat_map(|(head, file)| file.views().into_iter().map(move |which| (head, which)));
        views.map(|view| self.head_of(place, camera, view)).collect()
    }

    /// The camera, by its place, that a camera fails together with; itself where there is none.
    pub(crate) fn fails_with(&self, camera: usize) -> usize {
        self.fails_with.get(camera).copied().unwrap_or(camera)
    }

    /// What of a head's picture must be masked for the private places.
    pub fn masks<'a>(&self, head: &'a Head) -> &'a [Mask] {
        if self.private.is_empty() { &[] } else { head.masks(|| self.masks_worked_out(head)) }
    }

    fn masks_worked_out(&self, head: &Head) -> Vec<Mask> {
        let eye = Eye::new(&self.scene, head.position(), head.mounted_on());
        masking::masks_of(head, &eye, &self.scene, &self.private)
    }

    /// The parts of a head's picture that show ground which is not the client's and is not masked, with the place's id.
    pub fn foreign_ground(&self, head: &Head) -> Vec<(&str, Mask)> {
        if self.foreign.is_empty() {
            return vec![];
        }
        let eye = Eye::new(&self.scene, head.position(), head.mounted_on());
        let found = masking::masks_of(head, &eye, &self.scene, &self.foreign);
        found.into_iter().map(|mask| (self.foreign[mask.place].id(), mask)).collect()
    }

    /// The masks of a head after a change: those of places that are as they were, before which nothing came or went, stay.
    fn masks_after(
        &self,
        head: &Head,
        known: &[Mask],
        before: &[String],
        touched: &Touched,
        boxes: &[(DVec2, DVec2)],
    ) -> Vec<Mask> {
        let mut eye: Option<Eye> = None;
        let here = head.position().truncate();
        let places = self.private.iter().enumerate();
        places
            .filter_map(|(place, private)| {
                let (lower, upper) = private.bounds();
                let (lower, upper) = (lower.min(here), upper.max(here));
                // Whatever shades it stands in the box around both.
                let passed = boxes.iter().any(|(low, high)| low.cmple(upper).all() && high.cmpge(lower).all());
                let held = before.iter().position(|id| id == private.id());
                match held.filter(|_| !passed && !touched.all && !touched.private.contains(private.id())) {
                    Some(was) => known.iter().find(|mask| mask.place == was).map(|mask| Mask { place, ..mask.clone() }),
                    None => {
                        let eye = eye.get_or_insert_with(|| Eye::new(&self.scene, head.position(), head.mounted_on()));
                        masking::mask_of(head, eye, &self.scene, private, place)
                    }
                }
            })
            .collect()
    }

    /// The file it was made from.
    pub fn file(&self) -> &SiteFile {
        &self.file
    }

    /// The limits and uncertainties that its verdicts are given under.
    pub fn rules(&self) -> &Rules {
        &self.file.rules
    }

    /// The solids in the way.
    pub fn scene(&self) -> &Scene {
        &self.scene
    }

    /// What would stand in the way under other conditions.
    pub fn scene_under(&self, conditions: &Conditions) -> Scene {
        Scene::new(self.file.obstacles.iter().flat_map(|obstacle| standing(obstacle, conditions)).collect())
    }

    /// The private places, in the file's order.
    pub fn private(&self) -> &[Solid] {
        &self.private
    }

    /// The lamps, in the file's order.
    pub fn lamps(&self) -> &[LampLight] {
        &self.lamps
    }

    /// The targets, in the file's order.
    pub fn targets(&self) -> &[Target] {
        &self.targets
    }

    /// All heads of all cameras, in the file's order.
    pub fn heads(&self) -> &[Head] {
        &self.heads
    }

    /// Horizontal distance of a reading, m.
    pub(crate) fn horizontal_m(&self, reading: &Reading) -> f64 {
        let [from, to] = [&reading.from, &reading.to].map(|id| self.file.height_of(id).unwrap_or_default());
        reading.horizontal_m(from, to).unwrap_or(0.0)
    }

    /// The head with these ids.
    pub fn head(&self, camera: &str, head: &str) -> Result<&Head, Fault> {
        self.view_place(camera, head, None).map(|place| &self.heads[place])
    }

    /// Whether a camera is there that goes: it has no heads to be judged.
    pub fn goes(&self, camera: &str) -> bool {
        self.file.cameras.iter().any(|held| held.id == camera && held.goes())
    }

    /// One of a head's views; without a view's id its first.
    pub fn view(&self, head: &HeadRef) -> Result<&Head, Fault> {
        self.view_place(&head.camera, &head.head, head.view.as_deref()).map(|place| &self.heads[place])
    }

    /// The place in [`Site::heads`] of a view of the head with these ids; without a view's id its first.
    pub fn view_place(&self, camera: &str, head: &str, view: Option<&str>) -> Result<usize, Fault> {
        let of_head = |h: &&Head| h.camera_id() == camera && h.id() == head;
        let found = self.heads.iter().position(|h| of_head(&h) && (view.is_none() || h.view_id() == view));
        found.ok_or_else(|| {
            if self.goes(camera) {
                return Fault::new("camera", format!("camera \"{camera}\" goes: it is judged no more"));
            }
            match (self.heads.iter().any(|h| h.camera_id() == camera), self.heads.iter().find(of_head)) {
                (false, _) => {
                    Fault::new("camera", format!("the site has no camera \"{camera}\"")).of(FaultCode::UnknownId)
                }
                (true, None) => {
                    Fault::new("head", format!("camera \"{camera}\" has no head \"{head}\"")).of(FaultCode::UnknownId)
                }
                (true, Some(_)) => {
                    Fault::new("view", format!("head \"{head}\" has no view \"{}\"", view.unwrap_or_default()))
                }
            }
        })
    }

    /// The place in [`Site::targets`] of the target with this id.
    pub fn target_place(&self, target: &str) -> Result<usize, Fault> {
        let place = self.targets.iter().position(|t| t.id == target);
        place.ok_or_else(|| {
            Fault::new("target", format!("the site has no target \"{target}\"")).of(FaultCode::UnknownId)
        })
    }
}

/// A solid so near to a camera may be the wall that it hangs on, m.
const NEAR_WALL_M: f64 = 1.0;

/// The boxes on the plan of the solids that a change touched.
fn boxes_of(scene: &Scene, touched: &Touched) -> Vec<(DVec2, DVec2)> {
    let of = |solid: &&Solid| touched.all || touched.obstacles.contains(solid.id());
    scene.solids().iter().filter(of).map(Solid::bounds).collect()
}

fn lamp_lights(file: &SiteFile, scene: &Scene) -> Vec<LampLight> {
    file.lamps.iter().map(|lamp| LampLight::new(lamp, scene)).collect()
}

/// The places that are masked, and the others.
fn compiled_private(file: &SiteFile) -> [Vec<Solid>; 2] {
    let of = |masked: bool| {
        let places = file.private.iter().filter(|place| place.whose.is_private() == masked);
        places.map(compiled).collect()
    };
    [of(true), of(false)]
}

/// A private place as a solid that hides nothing.
fn compiled(place: &PrivatePlace) -> Solid {
    let [base, top] = [place.base_m, place.top_m].map(|height| height + place.ground_m);
    Solid::new(&place.id, &place.outline, place.closed, base, top, 1.0)
}
