//! The network as the file writes it: boxes, the cables between them and the cameras.

use super::{Existing, NetDevice, Point2};
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
    /// The ways that cables can take.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub ways: Vec<CablePath>,
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
    /// Its battery for when the mains fail, Wh.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub battery_wh: Option<f64>,
    /// What else hangs on it: access points, door stations, lamps, alarm lines.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub others: Vec<OnSwitch>,
    /// What is noted of it as a device.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub device: Option<NetDevice>,
    /// Its disks, GB (decimal).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub disk_gb: Option<f64>,
    /// What becomes of one that was there before; new where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub existing: Option<Existing>,
}

/// Something on a port of a box that is no camera: an access point, a door station, a lamp, an alarm line.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OnSwitch {
    /// What it is called.
    pub name: String,
    /// What it draws over its cable, W.
    #[serde(default)]
    pub watts: f64,
    /// What it sends, Mbit/s.
    #[serde(default)]
    pub mbps: f64,
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
    /// No cable: a wireless link.
    Wireless,
}

impl CableKind {
    /// Whether power goes over it.
    pub fn carries_power(self) -> bool {
        !matches!(self, CableKind::Fibre | CableKind::Wireless)
    }

    /// Whether it takes a port of a box: a cord and a wireless link don't.
    pub fn takes_a_port(self) -> bool {
        !matches!(self, CableKind::Cord | CableKind::Wireless)
    }

    /// How thick it is, mm: what is usual (from memory).
    pub fn width_mm(self) -> f64 {
        match self {
            CableKind::Cat5e => 5.2,
            CableKind::Cat6 => 6.2,
            CableKind::Cat6a => 7.5,
            CableKind::Fibre => 3.0,
            CableKind::Cord => 6.0,
            CableKind::Wireless => 0.0,
        }
    }
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

/// A way that cables can take, drawn on the plan: a wall, a tray, a conduit, a trench, a span through the air.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CablePath {
    /// Its id, unique among the ways.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// How a cable goes along it.
    #[serde(rename = "in")]
    pub way: CableWay,
    /// Its corners, m.
    #[schema(value_type = Vec<[f64; 2]>)]
    pub points: Vec<Point2>,
    /// How high it is, m, where cables rise or sink to it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub height_m: Option<f64>,
    /// Of a conduit: its inside width, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub inside_mm: Option<f64>,
    /// What becomes of one that was there before; new where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub existing: Option<Existing>,
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
    /// The signal of a wireless link where its camera hangs, as measured, dBm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub signal_dbm: Option<f64>,
    /// Of a cable that was there before: whether it was tested.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub tested: bool,
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
    /// How long a battery lasts in it, months; each change is a service visit. It hangs on no supply then.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub battery_months: Option<f64>,
}

/// How pictures are packed.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Codec {
    /// H.264.
    H264,
    /// H.265.
    H265,
}

/// What a camera sends.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Stream {
    /// Its bit rate as measured, Mbit/s; a start value by its picture where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mbps: Option<f64>,
    /// How its pictures are packed; H.265 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub codec: Option<Codec>,
    /// How many pictures a second are recorded; as its heads are set, else 15, where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub fps: Option<f64>,
    /// Whether much moves in its picture: a road, a crowd, leaves.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub busy: bool,
    /// The share of the day that is recorded, 0 to 1; all of it where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub share_recorded: Option<f64>,
}
