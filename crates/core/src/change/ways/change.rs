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
    /// Mounting height, m.
    Height(f64),
    /// Mounting place, with how far that is, m.
    Nearer(Point2, f64),
    /// Another model with the same build and sensor; the head in question set to a focal length.
    Lens(Box<Model>, f64),
    /// Another model; the head in question set to a focal length.
    Model(Box<Model>, f64),
}

impl Change {
    fn kind(&self) -> WayKind {
        match self {
            Change::Focal(_) => WayKind::Focal,
            Change::Aim(..) => WayKind::Aim,
            Change::Height(_) => WayKind::Height,
            Change::Nearer(..) => WayKind::Nearer,
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
    /// Its kind: that of its one change, or several.
    pub fn kind(&self) -> WayKind {
        match self.changes.as_slice() {
            [one] => one.kind(),
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
                Change::Height(height) => camera.height_m = *height,
                Change::Nearer(position, _) => {
                    camera.position = *position;
                    // It no longer sits where distances were measured from.
                    camera.spot = None;
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

    /// The same as a JSON Patch on the site file: what differs between the camera now and then.
    pub fn patch(&self, place: usize, now: &CameraFile) -> Vec<PatchOp> {
        let then = self.applied(now);
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
                ("focal_mm", new.focal_mm, old.focal_mm),
            ] {
                if new != old {
                    replace(format!("{at}/heads/{head}/{name}"), json!(new));
                }
            }
        }
        if then.spot != now.spot {
            patch.push(PatchOp { op: "remove", path: format!("{at}/spot"), value: None });
        }
        patch
    }
}
