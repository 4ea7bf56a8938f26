//! Cameras as the file writes them: where they are, their model, their heads.

use super::{
    CameraPower, Emitter, Existing, Fitting, Form, HeadFile, Housing, Hung, Lens, Model, Mount, MountedAs, NetDevice,
    Point2, Reacts, Stream, Which,
};
use glam::DVec3;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A camera as the file writes it.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = Camera)]
pub struct CameraFile {
    /// Its id, unique among the cameras.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// Where it is mounted.
    #[schema(value_type = [f64; 2])]
    pub position: Point2,
    /// The id of the spot that it sits on.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub spot: Option<String>,
    /// The id of the obstacle that it is mounted on, where that is known: it does not hide what the camera looks at.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mounted_on: Option<String>,
    /// How it hangs; as is usual at its spot where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mounted_as: Option<MountedAs>,
    /// The housing that it stands in.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub housing: Option<Housing>,
    /// The id of the camera in whose housing it stands, too, as a PTZ under several fixed ones: they fail together.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub housed_with: Option<String>,
    /// What becomes of a camera that was there before: one that goes is judged no more; new where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub existing: Option<Existing>,
    /// Height of its optical centre, m.
    pub height_m: f64,
    /// Height of the ground under it, m; `height_m` is over it.
    #[serde(default, skip_serializing_if = "super::is_zero")]
    pub ground_m: f64,
    /// The whole model, so that a file stands alone.
    pub model: Model,
    /// An infrared lamp of its own, in place of the one in its housing.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub emitter: Option<Emitter>,
    /// What it draws over its cable; as its model says where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub power: Option<CameraPower>,
    /// What it sends.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub stream: Option<Stream>,
    /// What is noted of it as a device on the network.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub device: Option<NetDevice>,
    /// What it does when something happens.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reacts: Option<Reacts>,
    /// What it hangs by.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mount: Option<Mount>,
    /// What was done at it on the bench and on the ladder.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fitting: Option<Fitting>,
    /// Its heads; most cameras have one.
    #[schema(min_items = 1, max_items = 16)]
    pub heads: Vec<HeadFile>,
}

impl CameraFile {
    /// Where its optical centre is, m.
    pub fn eye(&self) -> DVec3 {
        DVec3::new(self.position[0], self.position[1], self.ground_m + self.height_m)
    }

    /// Whether it was there before and is taken down.
    pub fn goes(&self) -> bool {
        self.existing == Some(Existing::Goes)
    }

    /// Whether it is bought: one that was there costs nothing.
    pub fn is_bought(&self) -> bool {
        self.existing.is_none()
    }

    /// Fits the heads to the model: its lens, focal lengths that it has, presets and flattened views only where it can have them.
    pub fn fit_heads(&mut self) {
        let lens = self.model.lens;
        for head in &mut self.heads {
            head.lens = None;
            head.focal_mm = head.focal_mm.clamp(lens.focal_min_mm, lens.focal_max_mm);
            if self.model.form != Form::Ptz {
                head.presets.clear();
                (head.slew_deg_s, head.zoom_s, head.pointed_by) = (None, None, None);
                head.also_pointed_by.clear();
            }
            if self.model.form != Form::Fisheye {
                head.flattened.clear();
            }
            for preset in &mut head.presets {
                preset.focal_mm = preset.focal_mm.clamp(lens.focal_min_mm, lens.focal_max_mm);
            }
        }
    }

    /// How one of its views hangs; `None` where it has no such view.
    pub fn hung(&self, head: &str, view: Option<&str>) -> Option<Hung> {
        let head = self.heads.iter().find(|held| held.id == head)?;
        let which = match view {
            None => Which::Own,
            Some(id) => head.views().into_iter().find(|which| head.view_id(*which) == Some(id))?,
        };
        Some(Hung {
            position: self.position,
            height_m: self.height_m,
            aimed: head.aimed(which),
            model: self.model.name.clone(),
        })
    }

    /// The lens of one of its heads.
    pub fn lens_of(&self, head: usize) -> Lens {
        self.heads[head].lens.unwrap_or(self.model.lens)
    }
}
