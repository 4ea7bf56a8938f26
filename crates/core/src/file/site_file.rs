//! The site file as it is written: one open JSON format for a whole design.
//!
//! These types mirror the file field for field and hold whatever JSON can say; only a
//! [`Site`](crate::site::Site) has been validated.

use super::{
    Brief, Conditions, Distance, Drawing, Exposure, Flattened, Form, GeoPlace, Infrared, Lamp, Lens, Link, Model,
    Photo, PlateKind, Preset, PrivatePlace, Reading, Rules, Spot, Subject, Task, Variant,
};
use glam::DVec3;
use serde::{Deserialize, Serialize};
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
    /// Season and years that the verdicts are given for; in leaf and today where left out.
    #[serde(default, skip_serializing_if = "Conditions::is_default")]
    pub conditions: Conditions,
    /// Where on the earth it is; the sun asks.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub place: Option<GeoPlace>,
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
    /// What lights it at night.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub lamps: Vec<Lamp>,
    /// What no camera may show.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub private: Vec<PrivatePlace>,
    /// What must be seen.
    pub targets: Vec<TargetFile>,
    /// What sees it.
    pub cameras: Vec<CameraFile>,
    /// What the design in hand is called, where there are others.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(max_length = 200)]
    pub design: Option<String>,
    /// Other designs for the same promises.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub variants: Vec<Variant>,
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
    /// Height of the ground at its foot, m; base and top are over it.
    #[serde(default, skip_serializing_if = "super::is_zero")]
    pub ground_m: f64,
    /// Its corners when it stands open; a door or gate.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(value_type = Option<Vec<[f64; 2]>>)]
    pub open_outline: Option<Vec<Point2>>,
    /// Whether it stands open now.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub open: bool,
    /// Thickness of the trunk under a tree's crown, m.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub trunk_m: Option<f64>,
    /// How much a tree grows in a year, upwards and outwards, m.
    #[serde(default, skip_serializing_if = "super::is_zero")]
    pub growth_m_per_year: f64,
    /// How well one sees through a tree that has lost its leaves; none for one that keeps them.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bare_see_through: Option<f64>,
    /// Whether it carries writing that a plate reader may take for a plate: lettering, a sign, a pane that mirrors one.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub lettering: bool,
}

impl Obstacle {
    /// A filled, opaque solid that stands on the ground, with nothing else said.
    pub fn new(id: &str, name: &str, kind: ObstacleKind, outline: Vec<Point2>, top_m: f64) -> Self {
        Obstacle {
            id: id.to_owned(),
            name: name.to_owned(),
            kind,
            outline,
            closed: true,
            base_m: 0.0,
            top_m,
            see_through: 0.0,
            ground_m: 0.0,
            open_outline: None,
            open: false,
            trunk_m: None,
            growth_m_per_year: 0.0,
            bare_see_through: None,
            lettering: false,
        }
    }

    /// The corners that it has as it stands now.
    pub fn standing(&self) -> &[Point2] {
        match &self.open_outline {
            Some(outline) if self.open => outline,
            _ => &self.outline,
        }
    }
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
    /// An eave or another overhang.
    Eave,
    /// A door or gate that opens.
    Door,
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
    /// Its own width and height in place of the subject's usual ones, m. A person and a vehicle stand on the ground, a face
    /// and a plate have their middle at `height_m`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(value_type = Option<[f64; 2]>)]
    pub size_m: Option<[f64; 2]>,
    /// The bearing its face or plate points to, degrees; none for any.
    #[serde(default)]
    pub facing_deg: Option<f64>,
    /// What kind of plate it is, where that is one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub plate: Option<PlateKind>,
    /// How fast the subject moves, m/s.
    #[serde(default)]
    pub speed_mps: f64,
    /// Height of the ground there, m; `height_m` is over it.
    #[serde(default, skip_serializing_if = "super::is_zero")]
    pub ground_m: f64,
    /// How long it may go unseen, s; none where that was not said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub unseen_at_most_s: Option<f64>,
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
    /// The id of the obstacle that it is mounted on, where that is known: it does not hide what the camera looks at.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mounted_on: Option<String>,
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
    /// Its heads; most cameras have one.
    #[schema(min_items = 1, max_items = 16)]
    pub heads: Vec<HeadFile>,
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
    /// Flat pictures cut out of its round one; a fisheye.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub flattened: Vec<Flattened>,
    /// How it takes its pictures.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub exposure: Option<Exposure>,
}

/// An infrared lamp of its own that shines for a camera in place of the one in its housing; it points where the camera points.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Emitter {
    /// Where it is mounted.
    #[schema(value_type = [f64; 2])]
    pub position: Point2,
    /// Its height over the ground under the camera, m.
    pub height_m: f64,
    /// Its light.
    pub light: Infrared,
}

fn yes() -> bool {
    true
}

fn one() -> u32 {
    1
}

impl SiteFile {
    /// An empty site.
    pub fn empty(name: &str) -> Self {
        SiteFile {
            format: FORMAT.to_owned(),
            version: VERSION,
            name: name.to_owned(),
            rules: Rules::default(),
            conditions: Conditions::default(),
            place: None,
            brief: None,
            drawing: None,
            spots: vec![],
            readings: vec![],
            obstacles: vec![],
            lamps: vec![],
            private: vec![],
            targets: vec![],
            cameras: vec![],
            design: None,
            variants: vec![],
        }
    }

    /// The height of a spot or a point target over the ground at its foot, and the height of that ground, m.
    pub(crate) fn height_of(&self, id: &str) -> Option<Height> {
        let spot = self.spots.iter().find(|spot| spot.id == id);
        let spot = spot.map(|spot| Height { over_ground: spot.height_m, ground: spot.ground_m });
        let target = || self.targets.iter().find(|target| target.id == id && target.is_point());
        spot.or_else(|| target().map(|t| Height { over_ground: t.height_m, ground: t.ground_m }))
    }
}

/// How high something is.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub(crate) struct Height {
    /// Over the ground at its foot, m.
    pub over_ground: f64,
    /// Height of that ground, m.
    pub ground: f64,
}

impl CameraFile {
    /// Where its optical centre is, m.
    pub fn eye(&self) -> DVec3 {
        DVec3::new(self.position[0], self.position[1], self.ground_m + self.height_m)
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
            }
            if self.model.form != Form::Fisheye {
                head.flattened.clear();
            }
            for preset in &mut head.presets {
                preset.focal_mm = preset.focal_mm.clamp(lens.focal_min_mm, lens.focal_max_mm);
            }
        }
    }

    /// The lens of one of its heads.
    pub fn lens_of(&self, head: usize) -> Lens {
        self.heads[head].lens.unwrap_or(self.model.lens)
    }
}

impl TargetFile {
    /// Whether it is a point, which a reading can go to.
    pub fn is_point(&self) -> bool {
        self.shape.kind == ShapeKind::Point
    }
}
