//! A way, and what it says of itself: the one shape of every change that is offered.

use crate::file::{HeadRef, PatchOp};
use crate::verdict::Verdict;
use serde::Serialize;
use utoipa::ToSchema;

/// What a way changes.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum WayKind {
    /// The focal length, inside the lens's range.
    Focal,
    /// Pan and tilt.
    Aim,
    /// The turn about the optical axis: a corridor picture, with the aim that goes with it.
    Roll,
    /// How long a tour stays at each of its presets.
    Tour,
    /// The mounting height.
    Height,
    /// The mounting place: a surveyed spot.
    Spot,
    /// The mounting place, along the ground towards the target.
    Nearer,
    /// The mounting place, straight back from the target.
    Back,
    /// The mounting place, sideways: along the wall, or square to the line.
    Sideways,
    /// The lens: another model with the same build and sensor.
    Lens,
    /// The model: another sensor or build.
    Model,
    /// More than one of these.
    Several,
    /// How the distance was got: it holds as drawn, and only that is not sure enough.
    Measure,
    /// Another head that is already there: it keeps the promise, the sight line in question stays as it is.
    OtherHead,
    /// One more camera, on a surveyed spot: it keeps the promise.
    Camera,
    /// Shutter, pictures a second, focus, or how much of its infrared light it uses.
    Exposure,
    /// A housing around the camera.
    Housing,
    /// A lamp more.
    Lamp,
    /// Where a plate on its way is read best: spot, lens, height, aim and shutter.
    Choke,
    /// One more camera that keeps the overview beside whoever reads a plate.
    Overview,
    /// Another tilt, for the sake of the picture.
    Tilt,
    /// The picture turned on its side, for the sake of the picture.
    Corridor,
    /// A longer focal length, for the sake of the picture.
    Longer,
    /// The tilt of the school of shade: well down, so that the sun cannot reach the sensor.
    Shade,
    /// The tilt of the school of reach: the top edge at the horizon.
    Reach,
    /// An infrared lamp of its own beside the camera, its own light off.
    Emitter,
}

/// What a change does to one promise of the site.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Effect {
    /// The target's id.
    pub target: String,
    /// Its verdict now.
    pub before: Verdict,
    /// Its verdict with the change.
    pub after: Verdict,
}

/// What a way comes to beside its promises, as far as it is for that.
#[derive(Clone, Copy, Debug, Default, PartialEq, Serialize, ToSchema)]
pub struct Measures {
    /// What is left of a trouble then: a share of the picture, or hours a year.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub left: Option<f64>,
    /// The useful share of the picture then, 0 to 1.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub useful: Option<f64>,
    /// How far out the ground straight ahead is of use then, m: in the picture, and within reach of the task.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(nullable = false)]
    pub reach_m: Option<f64>,
}

/// A change to a site that is worth it: to keep a sight line, or the promise by another one (`other_head`, `camera`), to mend a picture, to
/// put more of it to use.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Way {
    /// What it changes, or which school it follows.
    pub kind: WayKind,
    /// What to do, in plain words.
    pub says: String,
    /// What that gives, in plain words; empty where the measures say it.
    pub why: String,
    /// The head that it is for: the one that looks at the target then.
    pub head: HeadRef,
    /// The id of the target that it is for; null for one that is for the picture.
    #[schema(required)]
    pub target: Option<String>,
    /// What it comes to beside.
    #[serde(flatten)]
    pub measures: Measures,
    /// The change as a JSON Patch (RFC 6902) on the site file.
    pub patch: Vec<PatchOp>,
    /// Every target of the site whose verdict or best head changes.
    pub effects: Vec<Effect>,
    /// Whether it makes a promise worse.
    pub harms: bool,
}

/// The ways to keep a sight line, the best first.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Ways {
    /// The ways.
    pub ways: Vec<Way>,
    /// What to mind before hands follow any of them; empty without a way.
    pub cautions: Vec<String>,
    /// If there is none: what stands against it.
    #[schema(required)]
    pub why_none: Option<String>,
    /// Set when there was more to try than there was work allowed for: these are the best so far.
    #[schema(required)]
    pub cut_short: Option<String>,
}
