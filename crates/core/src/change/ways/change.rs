//! Changes to one camera, as values and as JSON Patches.

use super::WayKind;
use crate::file::{CameraFile, Model, PatchOp, Point2};
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
    /// Mounting height, m.
    Height(f64),
    /// Another mounting place.
    Place(Place),
    /// Another model with the same build and sensor; the head in question set to a focal length.
    Lens(Box<Model>, f64),
    /// Another model; the head in question set to a focal length.
    Model(Box<Model>, f64),
}

/// Where a camera is moved.
#[derive(Clone, Debug, PartialEq)]
pub struct Place {
    pub how: Moved,
    pub position: Point2,
    /// How far that is, m.
    pub by: f64,
    /// What it hangs on there, by name; none in mid-air.
    pub on: Option<String>,
}

/// How a camera gets to another place.
#[derive(Clone, Debug, PartialEq)]
pub enum Moved {
    /// To a surveyed spot, by id, at its height, m.
    Spot(String, f64),
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
            Change::Height(_) => WayKind::Height,
            Change::Place(place) => match place.how {
                Moved::Spot(..) => WayKind::Spot,
                Moved::Nearer => WayKind::Nearer,
                Moved::Back => WayKind::Back,
                Moved::Sideways => WayKind::Sideways,
            },
            Change::Lens(..) => WayKind::Lens,
            Change::Model(..) => WayKind::Model,
        }
    }
}

/// Changes that together keep the sight line.
#[derive(Clone, Debug, PartialEq)]
pub struct Candidate {
    /// The head in question, by its place in the camera.
    pub head: usize,
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
        for change in &self.changes {
            match change {
                Change::Focal(focal) => camera.heads[self.head].focal_mm = *focal,
                Change::Aim(pan, tilt) => {
                    camera.heads[self.head].pan_deg = *pan;
                    camera.heads[self.head].tilt_deg = *tilt;
                }
                Change::Roll(roll) => camera.heads[self.head].roll_deg = *roll,
                Change::Height(height) => camera.height_m = *height,
                Change::Place(place) => {
                    camera.position = place.position;
                    // It no longer sits where distances were measured from, nor on what it hung on.
                    (camera.spot, camera.mounted_on) = (None, None);
                    if let Moved::Spot(id, height) = &place.how {
                        (camera.spot, camera.height_m) = (Some(id.clone()), *height);
                    }
                }
                Change::Lens(model, focal) | Change::Model(model, focal) => {
                    let lens = model.lens;
                    for head in &mut camera.heads {
                        head.focal_mm = head.focal_mm.clamp(lens.focal_min_mm, lens.focal_max_mm);
                    }
                    camera.heads[self.head].focal_mm = *focal;
                    camera.model = model.as_ref().clone();
                }
            }
        }
        camera
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
    for (head, (new, old)) in then.heads.iter().zip(&now.heads).enumerate() {
        for (name, new, old) in [
            ("pan_deg", new.pan_deg, old.pan_deg),
            ("tilt_deg", new.tilt_deg, old.tilt_deg),
            ("roll_deg", new.roll_deg, old.roll_deg),
            ("focal_mm", new.focal_mm, old.focal_mm),
        ] {
            if new != old {
                replace(format!("{at}/heads/{head}/{name}"), json!(new));
            }
        }
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
