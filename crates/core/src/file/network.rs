//! The network as the file writes it: boxes, the cables between them and the cameras.

use super::{Existing, Point2};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The wired side of a site.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Network {
    /// Its boxes.
    #[serde(default)]
    pub nodes: Vec<Node>,
    /// Its cables.
    #[serde(default)]
    pub cables: Vec<Cable>,
}

/// What a box of the network is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum NodeKind {
    /// It keeps the recordings.
    Recorder,
    /// It joins cables.
    Switch,
    /// It puts power on one cable.
    Injector,
    /// It carries on over a longer cable, for one camera or several.
    Extender,
    /// A cable begins anew there.
    Repeater,
    /// The way to other networks.
    Router,
    /// Mains or a power supply.
    Outlet,
}

impl NodeKind {
    /// Whether it passes power on that comes in on its own cable.
    pub fn passes_power(self) -> bool {
        matches!(self, NodeKind::Extender | NodeKind::Repeater)
    }
}

/// A box of the network.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Node {
    /// Its id, unique among boxes and cameras.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// What it is.
    pub kind: NodeKind,
    /// Where it is.
    #[schema(value_type = [f64; 2])]
    pub position: Point2,
    /// How high it hangs, m.
    #[serde(default)]
    pub height_m: f64,
    /// How many cables go in; not judged where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ports: Option<u32>,
    /// How many of these reach farther at 10 Mbit/s.
    #[serde(default)]
    pub extended_ports: u32,
    /// All the power that it can give, W; not judged where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub budget_w: Option<f64>,
    /// The highest power class that a port gives, 1 to 8 (IEEE 802.3); not judged where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub port_class: Option<u32>,
    /// Whether it gives power to what hangs on its cables.
    #[serde(default)]
    pub gives_power: bool,
    /// The power class that it takes itself over its cable; none where it has another supply.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub power_class_in: Option<u32>,
    /// How fast its ports are, Mbit/s; 1000 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub speed_mbps: Option<f64>,
    /// Its disks, GB (decimal).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub disk_gb: Option<f64>,
    /// What becomes of one that was there before; new where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub existing: Option<Existing>,
}

/// What a cable is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CableKind {
    /// Category 5e.
    Cat5e,
    /// Category 6.
    Cat6,
    /// Category 6A.
    Cat6a,
    /// Glass: no power.
    Fibre,
    /// A cord from a supply: power alone.
    Cord,
}

/// How a cable goes.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CableWay {
    /// Along or in a wall.
    Wall,
    /// Above a ceiling.
    Ceiling,
    /// In a conduit.
    Conduit,
    /// In the ground.
    Trench,
    /// Through the air.
    Air,
}

/// A cable between two ends, cameras or boxes.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Cable {
    /// Its id, unique among the cables.
    pub id: String,
    /// The id of the camera or box where it begins.
    pub from: String,
    /// The id of the camera or box where it ends.
    pub to: String,
    /// What it is.
    pub kind: CableKind,
    /// The corners of its way between its ends, m.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(value_type = Vec<[f64; 2]>)]
    pub route: Vec<Point2>,
    /// How high it goes between its ends, m, where it rises to a ceiling or sinks into a trench first.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub route_height_m: Option<f64>,
    /// Whether it runs at 10 Mbit/s, to reach farther.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub extended: bool,
    /// Its length where that is known, m; by its way where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub length_m: Option<f64>,
    /// How it goes.
    #[serde(default, rename = "in", skip_serializing_if = "Option::is_none")]
    pub way: Option<CableWay>,
    /// A cord's voltage at its supply, V.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub volts: Option<f64>,
    /// A cord's resistance, ohms per metre of one of its two wires.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ohm_per_m: Option<f64>,
    /// What becomes of one that was there before; new where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub existing: Option<Existing>,
}

/// The power that a camera draws over its cable, in place of its model's.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CameraPower {
    /// Its class, 1 to 8 (IEEE 802.3).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub class: Option<u32>,
    /// What it draws, W.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub watts: Option<f64>,
}

/// What a camera sends, as measured.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Stream {
    /// Its bit rate, Mbit/s; a start value by its picture where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mbps: Option<f64>,
    /// The share of the day that is recorded, 0 to 1; all of it where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub share_recorded: Option<f64>,
}
