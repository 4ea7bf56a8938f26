//! The site file as it is written: one open JSON format for a whole design.
//!
//! These types mirror the file field for field and hold whatever JSON can say; only a
//! [`Site`](crate::site::Site) has been validated.

use super::height::Height;
use super::{
    Agreement, Brief, CameraFile, Conditions, Drawing, GeoPlace, Lamp, Network, Obstacle, Prices, PrivatePlace, Proof,
    Reading, Rules, Snapshot, Spot, TargetFile, Variant, Visit,
};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The word that marks a site file.
pub const FORMAT: &str = "bright-angle/site";
/// The newest version that this program reads, and the one it writes.
pub const VERSION: u32 = 1;

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
    /// The boxes and cables that carry it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub network: Option<Network>,
    /// What the design in hand is called, where there are others.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(max_length = 200)]
    pub design: Option<String>,
    /// Other designs for the same promises.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub variants: Vec<Variant>,
    /// What it costs.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub prices: Option<Prices>,
    /// What the client agreed to.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub agreements: Vec<Agreement>,
    /// What was tried out at the targets once the cameras hung.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub proofs: Vec<Proof>,
    /// Pictures of the cameras over the years.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub snapshots: Vec<Snapshot>,
    /// Visits since.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub visits: Vec<Visit>,
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
            network: None,
            spots: vec![],
            readings: vec![],
            obstacles: vec![],
            lamps: vec![],
            private: vec![],
            targets: vec![],
            cameras: vec![],
            design: None,
            variants: vec![],
            prices: None,
            agreements: vec![],
            proofs: vec![],
            snapshots: vec![],
            visits: vec![],
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
