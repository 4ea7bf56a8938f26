//! The site file as it is written: one open JSON format for a whole design.
//!
//! These types mirror the file field for field and hold whatever JSON can say; only a
//! [`Site`](crate::Site) has been validated.

use super::Fault;
use super::survey_file::{Brief, Photo, Reading, Spot};
use crate::drawing::Drawing;
use crate::lens::Lens;
use crate::needs::{Need, Task};
use crate::rules::Rules;
use crate::target::Subject;
use crate::uncertainty::Distance;
use crate::{Angle, Sensor, Solid, Target, sampling};
use glam::DVec3;
use serde::{Deserialize, Serialize};
use std::borrow::Cow;
use utoipa::ToSchema;

/// The word that marks a site file.
pub const FORMAT: &str = "bright-angle/site";
/// The newest version that this program reads, and the one it writes.
pub const VERSION: u32 = 1;

/// A point of the plan: metres east, metres north.
pub type Point2 = [f64; 2];

/// A whole site.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SiteFile {
    /// `bright-angle/site`.
    pub format: String,
    /// Version of the format, 1.
    pub version: u32,
    /// Name of the site.
    #[schema(max_length = 200)]
    pub name: String,
    /// The firm's limits and uncertainties for this site; the handbook's where left out.
    #[serde(default, skip_serializing_if = "Rules::is_default")]
    pub rules: Rules,
    /// What the client was asked.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub brief: Option<Brief>,
    /// The overhead picture under the plan.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub drawing: Option<Drawing>,
    /// Places that cameras can be mounted at, in the order of the walk.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub spots: Vec<Spot>,
    /// Measured distances.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub readings: Vec<Reading>,
    /// Solids that may stand in the way.
    #[serde(default)]
    pub obstacles: Vec<Obstacle>,
    /// What must be seen.
    pub targets: Vec<TargetFile>,
    /// What sees it.
    pub cameras: Vec<CameraFile>,
}

/// A solid: an outline extruded from `base_m` to `top_m`.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Obstacle {
    /// Its id, unique among the obstacles.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// What it is.
    pub kind: ObstacleKind,
    /// Its corners in order, not repeated at the end.
    #[schema(value_type = Vec<[f64; 2]>)]
    pub outline: Vec<Point2>,
    /// Whether the outline is filled; an open one is a thin wall.
    #[serde(default = "yes")]
    pub closed: bool,
    /// Height of its underside, m.
    #[serde(default)]
    pub base_m: f64,
    /// Height of its top, m.
    pub top_m: f64,
    /// 0 opaque … 1 no hindrance; over 0.5 it does not block but is reported.
    #[serde(default)]
    #[schema(minimum = 0, maximum = 1)]
    pub see_through: f64,
}

/// What an obstacle is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ObstacleKind {
    /// A building.
    Building,
    /// A wall.
    Wall,
    /// A fence.
    Fence,
    /// A tree.
    Tree,
    /// A pane of glass.
    Glass,
    /// A parked vehicle.
    Vehicle,
    /// Anything else.
    Other,
}

/// A target as the file writes it.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = Target)]
pub struct TargetFile {
    /// Its id, unique among the targets.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// What must be seen there.
    pub subject: Subject,
    /// What the picture will be used for.
    pub task: Task,
    /// An own need in place of the task's, px/m.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub needs_px_per_m: Option<f64>,
    /// Where it is.
    pub shape: Shape,
    /// Height of the thing that must be seen, m.
    pub height_m: f64,
    /// The bearing its face or plate points to, degrees; none for any.
    #[serde(default)]
    pub facing_deg: Option<f64>,
    /// How fast the subject moves, m/s.
    #[serde(default)]
    pub speed_mps: f64,
    /// How many heads must keep it.
    #[serde(default = "one")]
    #[schema(minimum = 1, maximum = 8)]
    pub heads_wanted: u32,
    /// How its distance was got.
    #[serde(default)]
    pub distance: Distance,
    /// How well the drawn position of a point is known: one standard deviation, m; 0.5 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub position_sigma_m: Option<f64>,
    /// Whether the position of a point is known and must not move.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub fixed: bool,
    /// What the picture will be used for, in the client's words.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub used_for: Option<String>,
    /// The light there at night.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub night_light: Option<String>,
    /// Its photos.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub photos: Vec<Photo>,
}

/// Where a target is.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Shape {
    /// Point, line or area.
    pub kind: ShapeKind,
    /// One point, the points of a line in order, or the corners of an area in order.
    #[schema(value_type = Vec<[f64; 2]>)]
    pub points: Vec<Point2>,
}

/// The kind of place that a target takes up.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ShapeKind {
    /// One point.
    Point,
    /// A line, straight or with corners.
    Line,
    /// An area with a simple outline.
    Area,
}

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
    /// Height of its optical centre, m.
    pub height_m: f64,
    /// The whole model, so that a file stands alone.
    pub model: Model,
    /// Its heads; most cameras have one.
    #[schema(min_items = 1, max_items = 16)]
    pub heads: Vec<HeadFile>,
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
    /// Protection against dust and water, as in `IP67` (IEC 60529).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ip: Option<String>,
    /// Protection against blows, as in `IK10` (IEC 62262).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ik: Option<String>,
    /// Power class over the network cable, 1 to 8 (IEEE 802.3).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub power_class: Option<u32>,
    /// Weight without bracket, kg.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub weight_kg: Option<f64>,
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
}

fn yes() -> bool {
    true
}

fn one() -> u32 {
    1
}

/// The two fields that say how to read the rest.
#[derive(Deserialize)]
struct Header {
    format: String,
    version: u32,
}

impl SiteFile {
    /// An empty site.
    pub fn empty(name: &str) -> Self {
        SiteFile {
            format: FORMAT.to_owned(),
            version: VERSION,
            name: name.to_owned(),
            rules: Rules::default(),
            brief: None,
            drawing: None,
            spots: vec![],
            readings: vec![],
            obstacles: vec![],
            targets: vec![],
            cameras: vec![],
        }
    }

    /// The height of a spot or a point target, m.
    pub(crate) fn height_of(&self, id: &str) -> Option<f64> {
        let spot = self.spots.iter().find(|spot| spot.id == id).map(|spot| spot.height_m);
        spot.or_else(|| self.targets.iter().find(|target| target.id == id && target.is_point()).map(|t| t.height_m))
    }

    /// Reads a file of any version that this program knows, without validating its figures.
    pub fn parse(text: &str) -> Result<SiteFile, Vec<Fault>> {
        // Where the header cannot be read, reading it all names the place better.
        let header: Header = read(text).map_err(|faults| read::<SiteFile>(text).err().unwrap_or(faults))?;
        if header.format != FORMAT {
            let message = format!("\"{}\" is not a site file; expected \"{FORMAT}\"", shortened(&header.format));
            return Err(vec![Fault::new("format", message)]);
        }
        match header.version {
            VERSION => read(text),
            0 => Err(vec![Fault::new("version", "there is no version 0")]),
            newer => Err(vec![Fault::new(
                "version",
                format!("{newer} is newer than this program reads ({VERSION}); update it to open this file"),
            )]),
        }
    }
}

/// Reads JSON; a fault names the place down to the field.
fn read<'de, T: Deserialize<'de>>(text: &'de str) -> Result<T, Vec<Fault>> {
    let mut reader = serde_json::Deserializer::from_str(text);
    let value = serde_path_to_error::deserialize(&mut reader).map_err(|error| {
        let path = match error.path().to_string() {
            whole if whole == "." => String::new(),
            path => path,
        };
        vec![Fault::new(path, error.inner().to_string())]
    })?;
    reader.end().map_err(|error| vec![Fault::new("", error.to_string())])?;
    Ok(value)
}

/// A text cut to what fits a message.
fn shortened(text: &str) -> String {
    text.chars().take(60).collect()
}

impl Obstacle {
    /// The solid that the obstacle is.
    pub(super) fn solid(&self) -> Solid {
        Solid::new(&self.id, &self.outline, self.closed, self.base_m, self.top_m, self.see_through)
    }
}

impl TargetFile {
    /// Whether it is a point, which a reading can go to.
    pub fn is_point(&self) -> bool {
        self.shape.kind == ShapeKind::Point
    }

    /// The target with its need looked up and its samples made.
    pub(super) fn compile(&self, rules: &Rules) -> Target {
        let plan = match self.shape.kind {
            ShapeKind::Point => self.shape.points.clone(),
            ShapeKind::Line => sampling::along(&self.shape.points),
            ShapeKind::Area => sampling::within(&self.shape.points),
        };
        let need = match self.needs_px_per_m {
            Some(px_per_m) => Need { px_per_m, basis: Cow::Borrowed("own value for this target") },
            None => rules.needs.need(self.task),
        };
        Target {
            id: self.id.clone(),
            subject: self.subject,
            task: self.task,
            need,
            samples: plan.into_iter().map(|p| DVec3::new(p[0], p[1], self.height_m)).collect(),
            facing: self.facing_deg.map(Angle::degrees),
            distance: self.distance.clone(),
            heads_wanted: self.heads_wanted as usize,
        }
    }
}
