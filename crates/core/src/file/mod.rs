//! The site file: its types, its faults, reading any version of it, validating it, and changes to it. Nothing is computed here.

mod distance;
pub mod drawing;
mod fault;
mod migration;
mod model;
mod names;
mod patch;
pub mod schema;
mod settings;
mod site_change;
mod site_file;
mod survey_file;
mod task;
mod validate;
mod validate_survey;

pub use distance::{Distance, DistanceHow, FromSpot};
pub use drawing::{Drawing, ScaleMark};
pub use fault::Fault;
pub use migration::read_json;
pub use model::{Form, Lens, Model, Sensor};
pub use names::{HeadRef, Question};
pub use patch::PatchOp;
pub use settings::{PlateSchool, Rules, Uncertainties};
pub use site_change::{ListChange, SiteChange, Touched};
pub use site_file::{
    CameraFile, FORMAT, HeadFile, Obstacle, ObstacleKind, Point2, Shape, ShapeKind, SiteFile, TargetFile, VERSION,
};
pub use survey_file::{Brief, DRAWN_SIGMA_M, Photo, READING_SIGMA_M, Reading, SiteKind, Spot, SpotKind};
pub use task::{NeedSet, Subject, Task};
pub(crate) use validate::{faults, faults_of};
pub(crate) use validate_survey::MOST_SHOTS;
