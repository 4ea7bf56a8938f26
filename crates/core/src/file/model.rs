//! Camera models as the file writes them: sensor, lens, build.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How near two heads of a multi-head come on their ring where the model does not say, degrees (our default).
pub const USUAL_APART_DEG: f64 = 30.0;

/// Picture size in pixels and the active area that makes it, in millimetres.
///
/// The area is that of the chosen picture mode, not the chip's.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Sensor {
    /// Picture width, px.
    #[schema(minimum = 16, maximum = 20000)]
    pub width_px: u32,
    /// Picture height, px.
    #[schema(minimum = 16, maximum = 20000)]
    pub height_px: u32,
    /// Active width, mm.
    #[schema(minimum = 0.5, maximum = 100)]
    pub width_mm: f64,
    /// Active height, mm.
    #[schema(minimum = 0.5, maximum = 100)]
    pub height_mm: f64,
    /// Diameter of the image circle, px, where the lens does not fill the picture: outside it, as in the corners of a circular
    /// fisheye's picture, nothing is seen, and the published field of view is the circle's.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub image_circle_px: Option<f64>,
}

impl Sensor {
    /// Picture width in pixels.
    pub fn width(&self) -> f64 {
        f64::from(self.width_px)
    }

    /// Picture height in pixels.
    pub fn height(&self) -> f64 {
        f64::from(self.height_px)
    }

    /// How wide the picture is that the published field of view speaks of, mm: the image circle where that is narrower.
    pub fn field_width_mm(&self) -> f64 {
        let circle = self.image_circle_px.unwrap_or(f64::INFINITY);
        self.width_mm * (circle / self.width()).min(1.0)
    }

    /// The focal length in pixels: focal × W / sensor width (handbook, section 3).
    pub fn focal_px(&self, focal_mm: f64) -> f64 {
        focal_mm * self.width() / self.width_mm
    }

    /// Picture size in millions of pixels.
    pub fn megapixels(&self) -> f64 {
        self.width() * self.height() / 1e6
    }
}

/// A lens as its maker describes it. A fixed lens has both focal lengths equal.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Lens {
    /// Shortest (widest) focal length, mm.
    #[schema(minimum = 0.5, maximum = 2000)]
    pub focal_min_mm: f64,
    /// Longest (narrowest) focal length, mm.
    #[schema(minimum = 0.5, maximum = 2000)]
    pub focal_max_mm: f64,
    /// Published horizontal field of view at the shortest focal length, degrees.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hfov_at_min_deg: Option<f64>,
    /// Published horizontal field of view at the longest focal length, degrees.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hfov_at_max_deg: Option<f64>,
    /// Widest aperture, focal length over opening.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub f_number: Option<f64>,
}

impl Lens {
    /// Whether the focal length can be set.
    pub fn is_zoom(&self) -> bool {
        self.focal_max_mm > self.focal_min_mm
    }

    /// Whether the lens has this focal length.
    pub fn has_focal(&self, focal_mm: f64) -> bool {
        let slack = 1e-9 * self.focal_max_mm;
        focal_mm >= self.focal_min_mm - slack && focal_mm <= self.focal_max_mm + slack
    }
}

/// Infrared light as its maker rates it.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Infrared {
    /// Rated range, m: there the light is 1 on its axis.
    #[schema(minimum = 0, maximum = 2000)]
    pub range_m: f64,
    /// The whole angle between the edges of its beam, degrees; as wide as the lens at its widest where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1, maximum = 179)]
    pub beam_deg: Option<f64>,
}

/// A camera model.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Model {
    /// What it is called.
    pub name: String,
    /// Its build.
    pub form: Form,
    /// Its sensor.
    pub sensor: Sensor,
    /// Its lens.
    pub lens: Lens,
    /// How many heads it has; one where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub head_count: Option<u32>,
    /// Rated range of its infrared light, m; none where it has no such light.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub infrared_m: Option<f64>,
    /// Its infrared light with the width of its beam, in place of `infrared_m`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub infrared: Option<Infrared>,
    /// The least light that it makes a usable picture of, lux, at a shutter of 1/30 s.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub least_lux: Option<f64>,
    /// Protection against dust and water, as in `IP67` (IEC 60529).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ip: Option<String>,
    /// Protection against blows, as in `IK10` (IEC 62262).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ik: Option<String>,
    /// Power class over the network cable, 1 to 8 (IEEE 802.3).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub power_class: Option<u32>,
    /// The most power that it draws, W.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub watts: Option<f64>,
    /// Whether its heads are turned by motors when it is set up, and never by hand.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub motor_aimed: bool,
    /// Whether it records sound.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sound: Option<bool>,
    /// The colours that it comes in, as in `white`.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub colours: Vec<String>,
    /// The back box or bracket that goes with it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub back_box: Option<String>,
    /// Weight without bracket, kg.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub weight_kg: Option<f64>,
    /// The least and the greatest tilt that its build takes, degrees below the horizontal; those usual for its form where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(value_type = Option<[f64; 2]>)]
    pub tilts_deg: Option<[f64; 2]>,
    /// How near two heads can come on its ring, degrees; a multi-head.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub apart_deg: Option<f64>,
    /// The most pictures a second that it makes.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fps_max: Option<f64>,
    /// The shortest and the longest shutter that it has, s.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(value_type = Option<[f64; 2]>)]
    pub shutters_s: Option<[f64; 2]>,
    /// How many alarm inputs it has.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub alarm_inputs: Option<u32>,
    /// How many alarm outputs it has.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub alarm_outputs: Option<u32>,
    /// The largest memory card that it takes, GB; 0 for none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub card_gb: Option<u32>,
    /// Anything else.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub note: Option<String>,
    /// What one costs, in the firm's own money.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub price: Option<f64>,
}

/// The build of a camera.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Form {
    /// A tube on a bracket.
    Bullet,
    /// A ball in a socket, no bubble.
    Turret,
    /// A ball under a bubble.
    Dome,
    /// A dome that resists blows.
    VandalDome,
    /// A body for a lens of choice.
    Box,
    /// One lens that sees all around.
    Fisheye,
    /// Several heads in one housing.
    MultiHead,
    /// Turned and zoomed from afar.
    Ptz,
    /// Made for number plates.
    Plate,
}

impl Model {
    /// Its infrared light, if it has any.
    pub fn infrared_light(&self) -> Option<Infrared> {
        let plain = self.infrared_m.map(|range_m| Infrared { range_m, beam_deg: None });
        self.infrared.or(plain).filter(|light| light.range_m > 0.0)
    }

    /// How near two of its heads can come on the ring, degrees: as stated, else the usual.
    pub fn apart_deg(&self) -> f64 {
        self.apart_deg.unwrap_or(USUAL_APART_DEG)
    }
}

impl Form {
    /// Whether a camera of it looks one way: what sees all around, or turns, is laid out at the desk.
    pub fn looks_one_way(self) -> bool {
        !matches!(self, Form::Fisheye | Form::MultiHead | Form::Ptz)
    }

    /// What the form is called.
    pub fn word(self) -> &'static str {
        match self {
            Form::Bullet => "bullet",
            Form::Turret => "turret",
            Form::Dome => "dome",
            Form::VandalDome => "vandal-resistant dome",
            Form::Box => "box",
            Form::Fisheye => "fisheye",
            Form::MultiHead => "multi-head",
            Form::Ptz => "PTZ",
            Form::Plate => "plate camera",
        }
    }
}
