//! The heads of a camera as the file writes them.

use super::{Aimed, AsBuilt, Exposure, Flattened, Lens, Link, Preset, Which};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One head of a camera: its aim and its focal length.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = CameraHead)]
pub struct HeadFile {
    /// Its id, unique in its camera.
    pub id: String,
    /// Bearing of the optical axis, degrees clockwise from north.
    pub pan_deg: f64,
    /// Angle of the optical axis below the horizontal, degrees.
    pub tilt_deg: f64,
    /// Turn about the optical axis, degrees clockwise as seen from behind.
    #[serde(default)]
    pub roll_deg: f64,
    /// The focal length that is set, mm.
    pub focal_mm: f64,
    /// Its own lens, where it differs from the model's.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lens: Option<Lens>,
    /// Aims that it goes to, in the order of its tour; its own aim is where it parks when no tour runs.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub presets: Vec<Preset>,
    /// How fast it turns, degrees a second; 80 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub slew_deg_s: Option<f64>,
    /// How long a change of focal length takes, s; 2 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub zoom_s: Option<f64>,
    /// The fixed view that points it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pointed_by: Option<Link>,
    /// Further fixed views that do, up to three.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub also_pointed_by: Vec<Link>,
    /// Flat pictures cut out of its round one; a fisheye.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub flattened: Vec<Flattened>,
    /// How it takes its pictures.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub exposure: Option<Exposure>,
    /// How it hangs, as its picture showed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub as_built: Option<AsBuilt>,
}

impl HeadFile {
    /// A head with an aim and nothing else said.
    pub fn new(id: &str, aim: Aimed) -> Self {
        HeadFile {
            exposure: None,
            as_built: None,
            id: id.to_owned(),
            pan_deg: aim.pan_deg,
            tilt_deg: aim.tilt_deg,
            roll_deg: aim.roll_deg,
            focal_mm: aim.focal_mm,
            lens: None,
            presets: vec![],
            slew_deg_s: None,
            zoom_s: None,
            pointed_by: None,
            also_pointed_by: vec![],
            flattened: vec![],
        }
    }

    /// The views that it is judged by: its presets, or its own aim where it has none; then its flattened views.
    pub fn views(&self) -> Vec<Which> {
        let aims = if self.presets.is_empty() { 0..0 } else { 0..self.presets.len() };
        let own = self.presets.is_empty().then_some(Which::Own);
        let flat = (0..self.flattened.len()).map(Which::Flattened);
        own.into_iter().chain(aims.map(Which::Preset)).chain(flat).collect()
    }

    /// The id of a view; none for its own aim.
    pub fn view_id(&self, which: Which) -> Option<&str> {
        match which {
            Which::Own => None,
            Which::Preset(place) => Some(&self.presets[place].id),
            Which::Flattened(place) => Some(&self.flattened[place].id),
        }
    }

    /// Aim and focal length of a view. A flattened view has no turn about its axis, and its head's focal length.
    pub fn aimed(&self, which: Which) -> Aimed {
        let (pan_deg, tilt_deg, roll_deg, focal_mm) = match which {
            Which::Own => (self.pan_deg, self.tilt_deg, self.roll_deg, self.focal_mm),
            Which::Preset(place) => {
                let preset = &self.presets[place];
                (preset.pan_deg, preset.tilt_deg, self.roll_deg, preset.focal_mm)
            }
            Which::Flattened(place) => {
                let view = &self.flattened[place];
                (view.pan_deg, view.tilt_deg, 0.0, self.focal_mm)
            }
        };
        Aimed { pan_deg, tilt_deg, roll_deg, focal_mm }
    }

    /// The fixed views that point it, in their order.
    pub fn links(&self) -> impl Iterator<Item = &Link> {
        self.pointed_by.iter().chain(&self.also_pointed_by)
    }

    /// How it hangs, where its picture showed that and nobody turned it since.
    pub fn as_built(&self) -> Option<&AsBuilt> {
        self.as_built.as_ref().filter(|built| built.holds(&self.aimed(Which::Own)))
    }

    /// Sets aim and focal length of a view; a flattened view keeps its own field and has no turn about its axis.
    pub fn set_aimed(&mut self, which: Which, to: Aimed) {
        match which {
            Which::Own => {
                (self.pan_deg, self.tilt_deg) = (to.pan_deg, to.tilt_deg);
                (self.roll_deg, self.focal_mm) = (to.roll_deg, to.focal_mm);
            }
            Which::Preset(place) => {
                let preset = &mut self.presets[place];
                (preset.pan_deg, preset.tilt_deg, preset.focal_mm) = (to.pan_deg, to.tilt_deg, to.focal_mm);
                self.roll_deg = to.roll_deg;
            }
            Which::Flattened(place) => {
                let view = &mut self.flattened[place];
                (view.pan_deg, view.tilt_deg) = (to.pan_deg, to.tilt_deg);
            }
        }
    }
}
