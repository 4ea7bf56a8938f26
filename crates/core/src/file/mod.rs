//! The site file: its types, its faults, reading any version of it, validating it, and changes to it. Nothing is computed here.

mod agreement;
mod amount;
mod camera_file;
mod conditions;
mod distance;

pub mod drawing;
mod emitter;
mod evidence;
mod exposure;
mod fault;
mod fitting;
mod geo_place;
mod head_file;
mod height;
mod ids;
mod lamp;
pub mod limits;
mod link;
mod lists;
mod migration;
mod model;
mod mount;
mod mounting;
mod names;
mod net_device;
mod network;
mod obstacle;
mod patch;
mod plate;
mod point;
mod prices;
mod private_place;
mod proof;
mod proving_rules;
mod reacts;
pub mod schema;
mod settings;
mod shape;
mod site_change;
mod site_file;
mod snapshot;
mod survey_file;
mod target_file;
mod task;
mod validate;
mod validate_fitting;
mod validate_network;
mod validate_offer;
mod validate_proving;
mod validate_survey;
mod variant;
mod views;
mod visit;
mod wiring_rules;
pub mod zones;

pub use agreement::{AgreedBy, AgreedPromise, Agreement, Stood};
pub use amount::Amount;
pub use camera_file::CameraFile;
pub use conditions::Conditions;
pub use distance::{Distance, DistanceHow, FromSpot};
pub use drawing::{Drawing, ScaleMark};
pub use emitter::Emitter;
pub use evidence::{Evidence, Hung};
pub use exposure::{Exposure, ExposureMode, USUAL_FPS};
pub use fault::{Fault, FaultCode};
pub use fitting::{AsBuilt, Fitting, StepDone, StepHow};
pub use geo_place::GeoPlace;
pub use head_file::HeadFile;
pub(crate) use height::Height;
pub use ids::fresh_id;
pub use lamp::Lamp;
pub use link::{Link, LinkHung, LinkPair};
pub(crate) use lists::with_lists;
pub use migration::read_json;
pub use model::{Form, Infrared, Lens, Model, Sensor, USUAL_APART_DEG};
pub use mount::{Access, Behind, CableEntry, Mount, MountPart, PartKind, Surface};
pub use mounting::{Housing, MountedAs, grade};
pub use names::{HeadRef, Question};
pub use net_device::NetDevice;
pub use network::{
    Cable, CableKind, CablePath, CableWay, CameraPower, Codec, Network, Node, NodeKind, OnSwitch, Stream,
};
pub use obstacle::{Obstacle, ObstacleKind};
pub use patch::PatchOp;
pub use plate::{KnownPlate, PlateKind, known_plates};
pub use point::Point2;
pub use prices::{ExtraPrice, ItemPrice, Prices, Work, WorkPrice};
pub use private_place::{PrivatePlace, Whose};
pub use proof::{Proof, ProofHow};
pub use proving_rules::ProvingRules;
pub use reacts::{PictureZone, Reacts};
pub use settings::{OverlapSchool, PlateSchool, Rules, Uncertainties};
pub use shape::{Shape, ShapeKind};
pub use site_change::{ListChange, SiteChange, Touched};
pub use site_file::{FORMAT, SiteFile, VERSION};
pub use snapshot::{Against, Compared, Differs, HiddenTiles, Moved, Region, Snapshot};
pub use survey_file::{
    Brief, DRAWN_SIGMA_M, Existing, Photo, PhotoMark, READING_SIGMA_M, Reading, SiteKind, Spot, SpotKind,
};
pub use target_file::{CameraWish, TargetFile};
pub use task::{NeedSet, Subject, Task};
pub(crate) use validate::{FAR_M, MOST_CORNERS, MOST_OBSTACLES, faults, faults_of, model_faults, mount_part_faults};
pub use validate_offer::price_faults;
pub(crate) use validate_survey::MOST_SHOTS;
pub use variant::Variant;
pub use views::{Aimed, Flattened, Preset, Which};
pub use visit::{Upkept, Visit};
pub use wiring_rules::{WirePrices, WiringRules};

/// Whether a figure that is left out where it is zero can be left out.
fn is_zero(value: &f64) -> bool {
    *value == 0.0
}
