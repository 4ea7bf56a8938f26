//! Changes to one camera, as values and as JSON Patches.

use super::way::WayKind;
use crate::file::{CameraFile, Emitter, Exposure, HeadFile, Housing, Model, PatchOp, Point2, Spot, Which};
use serde_json::{Value, json};

/// A change of one property of a camera or of the head in question.
#[derive(Clone, Debug, PartialEq)]
pub enum Change {
    /// Focal length, mm.
    Focal(f64),
    /// Pan and tilt, degrees.
    Aim(f64, f64),
    /// Turn about the optical axis, degrees: 90° is the corridor picture.
    Roll(f64),
    /// How long the tour stays at each of its presets, s.
    Dwell(f64),
    /// Mounting height, m.
    Height(f64),
    /// Another mounting place.
    Place(Place),
    /// Another model with the same build and sensor; the head in question set to a focal length.
    Lens(Box<Model>, f64),
    /// Another model; the head in question set to a focal length.
    Model(Box<Model>, f64),
    /// Shutter, pictures a second, focus and infrared light of the head in question.
    Exposure(Exposure),
    /// A housing around the camera.
    Housing(Housing),
    /// An infrared lamp of its own beside the camera, its own light off.
    Emitter(Emitter),
}

/// Where a camera is moved.
#[derive(Clone, Debug, PartialEq)]
pub struct Place {
    pub how: Moved,
    pub position: Point2,
    /// How far that is, m.
    pub by: f64,
    /// What it hangs on there, by name.
    pub on: Option<String>,
    /// The id of the solid that it hangs on there, where that is the one that it is known to hang on.
    pub mounted_on: Option<String>,
}

/// How a camera gets to another place.
#[derive(Clone, Debug, PartialEq)]
pub enum Moved {
    /// To a surveyed spot, by id, at its height over the ground there, m.
    Spot { id: String, height_m: f64, ground_m: f64 },
    /// Along the ground towards the target.
    Nearer,
    /// Straight back from it.
    Back,
    /// Sideways: along the wall that it hangs on, or square to the line.
    Sideways,
}

impl Change {
    fn kind(&self) -> WayKind {
        match self {
            Change::Focal(_) => WayKind::Focal,
            Change::Aim(..) => WayKind::Aim,
            Change::Roll(_) => WayKind::Roll,
            Change::Dwell(_) => WayKind::Tour,
            Change::Height(_) => WayKind::Height,
            Change::Place(place) => match place.how {
                Moved::Spot { .. } => WayKind::Spot,
                Moved::Nearer => WayKind::Nearer,
                Moved::Back => WayKind::Back,
                Moved::Sideways => WayKind::Sideways,
            },
            Change::Lens(..) => WayKind::Lens,
            Change::Model(..) => WayKind::Model,
            Change::Exposure(_) => WayKind::Exposure,
            Change::Housing(_) => WayKind::Housing,
            Change::Emitter(_) => WayKind::Emitter,
        }
    }
}

/// Changes that together keep the sight line.
#[derive(Clone, Debug, PartialEq)]
pub struct Candidate {
    /// The head in question, by its place in the camera, and which of its views.
    pub head: (usize, Which),
    /// What changes.
    pub changes: Vec<Change>,
    /// How much of a change it is, for ranking.
    pub effort: f64,
}

impl Candidate {
    /// Its kind: that of its one change. An aim that goes with another place or another turn about the axis is part of that.
    pub fn kind(&self) -> WayKind {
        match self.changes.as_slice() {
            [one] => one.kind(),
            // A shutter is set with everything else.
            [one, Change::Exposure(_)] => one.kind(),
            [place @ (Change::Place(_) | Change::Roll(_)), Change::Aim(..)] => match place.kind() {
                WayKind::Nearer => WayKind::Several,
                kind => kind,
            },
            _ => WayKind::Several,
        }
    }

    /// Whether it takes another model out of the catalogue.
    pub fn model(&self) -> Option<&Model> {
        self.changes.iter().find_map(|change| match change {
            Change::Lens(model, _) | Change::Model(model, _) => Some(model.as_ref()),
            _ => None,
        })
    }

    /// Where it moves the camera, if it does.
    pub fn place(&self) -> Option<&Place> {
        self.changes.iter().find_map(|change| if let Change::Place(place) = change { Some(place) } else { None })
    }

    /// The camera with the changes made.
    pub fn applied(&self, camera: &CameraFile) -> CameraFile {
        let mut camera = camera.clone();
        let (place, which) = self.head;
        for change in &self.changes {
            let mut aimed = camera.heads[place].aimed(which);
            match change {
                Change::Focal(focal) => aimed.focal_mm = *focal,
                Change::Aim(pan, tilt) => (aimed.pan_deg, aimed.tilt_deg) = (*pan, *tilt),
                Change::Roll(roll) => aimed.roll_deg = *roll,
                Change::Dwell(dwell) => {
                    camera.heads[place].presets.iter_mut().for_each(|preset| preset.dwell_s = *dwell);
                }
                Change::Height(height) => camera.height_m = *height,
                Change::Place(place) => {
                    camera.position = place.position;
                    // It no longer sits where distances were measured from, nor on what it hung on.
                    (camera.spot, camera.mounted_on) = (None, place.mounted_on.clone());
                    if let Moved::Spot { id, height_m, ground_m } = &place.how {
                        (camera.spot, camera.height_m) = (Some(id.clone()), *height_m);
                        camera.ground_m = *ground_m;
                    }
                }
                Change::Lens(model, focal) | Change::Model(model, focal) => {
                    camera.model = model.as_ref().clone();
                    camera.fit_heads();
                    aimed.focal_mm = *focal;
                }
                Change::Exposure(exposure) => camera.heads[place].exposure = Some(*exposure),
                Change::Housing(housing) => camera.housing = Some(housing.clone()),
                Change::Emitter(emitter) => camera.emitter = Some(*emitter),
            }
            camera.heads[place].set_aimed(which, aimed);
        }
        camera
    }
}

/// Puts a camera on a spot; on none it hangs where it hangs, and on nothing that is known.
pub fn placed_on(camera: &mut CameraFile, spot: Option<&Spot>) {
    (camera.spot, camera.mounted_on) = (None, None);
    if let Some(spot) = spot {
        camera.position = spot.position;
        (camera.spot, camera.height_m) = (Some(spot.id.clone()), spot.height_m.max(0.05));
        camera.ground_m = spot.ground_m;
    }
}

/// What differs between a camera now and then, as a JSON Patch on the site file; `place` is its place among the cameras.
pub fn patch(place: usize, now: &CameraFile, then: &CameraFile) -> Vec<PatchOp> {
    let at = format!("/cameras/{place}");
    let mut patch = Vec::new();
    let mut replace = |path: String, value: Value| patch.push(PatchOp { op: "replace", path, value: Some(value) });
    if then.model != now.model {
        replace(format!("{at}/model"), json!(then.model));
    }
    if then.position != now.position {
        replace(format!("{at}/position"), json!(then.position));
    }
    if then.height_m != now.height_m {
        replace(format!("{at}/height_m"), json!(then.height_m));
    }
    if then.ground_m != now.ground_m {
        let op = if now.ground_m == 0.0 { "add" } else { "replace" };
        let value = (then.ground_m != 0.0).then(|| json!(then.ground_m));
        patch.push(PatchOp { op: if value.is_some() { op } else { "remove" }, path: format!("{at}/ground_m"), value });
    }
    for (head, (new, old)) in then.heads.iter().zip(&now.heads).enumerate() {
        head_patch(&mut patch, &format!("{at}/heads/{head}"), old, new);
    }
    if then.emitter != now.emitter {
        let path = format!("{at}/emitter");
        let value = then.emitter.map(|emitter| json!(emitter));
        patch.push(PatchOp { op: if value.is_some() { "add" } else { "remove" }, path, value });
    }
    if then.housing != now.housing {
        let path = format!("{at}/housing");
        let value = then.housing.as_ref().map(|housing| json!(housing));
        patch.push(PatchOp { op: if value.is_some() { "add" } else { "remove" }, path, value });
    }
    for (name, new, old) in [("spot", &then.spot, &now.spot), ("mounted_on", &then.mounted_on, &now.mounted_on)] {
        match new {
            _ if new == old => {}
            // `add` sets a field whether it was there or not (RFC 6902, 4.1).
            Some(id) => patch.push(PatchOp { op: "add", path: format!("{at}/{name}"), value: Some(json!(id)) }),
            None => patch.push(PatchOp { op: "remove", path: format!("{at}/{name}"), value: None }),
        }
    }
    patch
}

/// What differs between a head now and then, down to the figures of its presets and flattened views.
fn head_patch(patch: &mut Vec<PatchOp>, at: &str, now: &HeadFile, then: &HeadFile) {
    differences(patch, at, &json!(now), &json!(then));
}

fn differences(patch: &mut Vec<PatchOp>, at: &str, now: &Value, then: &Value) {
    match (now, then) {
        _ if now == then => {}
        (Value::Object(held), Value::Object(new)) => {
            for (key, value) in new {
                match held.get(key) {
                    Some(old) => differences(patch, &format!("{at}/{key}"), old, value),
                    None => {
                        patch.push(PatchOp { op: "add", path: format!("{at}/{key}"), value: Some(value.clone()) });
                    }
                }
            }
            let gone = held.keys().filter(|key| !new.contains_key(*key));
            patch.extend(gone.map(|key| PatchOp { op: "remove", path: format!("{at}/{key}"), value: None }));
        }
        (Value::Array(held), Value::Array(new)) if held.len() == new.len() => {
            for (place, (old, value)) in held.iter().zip(new).enumerate() {
                differences(patch, &format!("{at}/{place}"), old, value);
            }
        }
        _ => patch.push(PatchOp { op: "replace", path: at.to_owned(), value: Some(then.clone()) }),
    }
}
