//! What is told of a network.

use super::store::StoreTold;
use crate::verdict::Verdict;
use serde::Serialize;
use utoipa::ToSchema;

/// What is told of a cable.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct CableTold {
    /// Its id.
    pub id: String,
    /// How long it is, m.
    pub length_m: f64,
    /// How long it may be, m; null where its kind has no such limit.
    #[schema(required)]
    pub limit_m: Option<f64>,
    /// Whether it carries what it must.
    pub verdict: Verdict,
    /// Resistance of its loop, ohms; null where it carries no power.
    #[schema(required)]
    pub loop_ohm: Option<f64>,
    /// What it feeds draws, W; null where it carries no power.
    #[schema(required)]
    pub watts: Option<f64>,
    /// Voltage at what it feeds, V; null where it carries no power, or where it will not run.
    #[schema(required)]
    pub volts_at_device: Option<f64>,
    /// Lost in it, W.
    #[schema(required)]
    pub watts_lost: Option<f64>,
    /// What goes over it, Mbit/s.
    pub mbps: f64,
    /// How fast it is, Mbit/s; null for a cord.
    #[schema(required)]
    pub speed_mbps: Option<f64>,
    /// What is wrong with it, in words, the worst first.
    pub says: Vec<String>,
    /// What whoever lays it takes care of.
    pub cautions: Vec<String>,
}

/// What is told of a box.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct NodeTold {
    /// Its id.
    pub id: String,
    /// How many cables go in.
    pub ports_used: u32,
    /// How many may.
    #[schema(required)]
    pub ports: Option<u32>,
    /// The power that it gives, with what is lost in its cables, W.
    pub drawn_w: f64,
    /// How long its battery holds when the mains fail, hours; null where none is said or it gives no power.
    #[schema(required)]
    pub battery_h: Option<f64>,
    /// What the classes of all that it feeds may draw of it together, W: what some boxes set aside.
    pub reserved_w: f64,
    /// What it can give.
    #[schema(required)]
    pub budget_w: Option<f64>,
    /// Whether it does.
    pub verdict: Verdict,
    /// What is wrong with it, in words, the worst first.
    pub says: Vec<String>,
}

/// What is told of a cable between two boxes.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LinkTold {
    /// The cable's id.
    pub cable: String,
    /// What goes over it, Mbit/s.
    pub mbps: f64,
    /// What can.
    pub capacity_mbps: f64,
    /// Whether it does, with bit rates as high as their start values may be.
    pub verdict: Verdict,
    /// The ids of the cameras that are lost with it.
    pub cameras: Vec<String>,
}

/// The whole way of a camera, from the recorder to it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct RunTold {
    /// The camera's id.
    pub camera: String,
    /// The worst of its cables, its boxes and their links; unknown where nobody has wired it yet.
    pub verdict: Verdict,
    /// Its cables, from the recorder on, and the cord that feeds it.
    pub cables: Vec<String>,
    /// The boxes on its way, the recorder first.
    pub nodes: Vec<String>,
    /// Its cables together, m.
    pub length_m: f64,
    /// What it sends, Mbit/s: its start value or as measured, and at most.
    pub mbps: f64,
    /// At most.
    pub most_mbps: f64,
    /// What is wrong on its way, in words, the worst first.
    pub says: Vec<String>,
}

/// A way that cables take.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PathTold {
    /// Its id.
    pub id: String,
    /// The cables that run in it.
    pub cables: Vec<String>,
    /// How much of a conduit they fill, a share; null where it is none or its width is not said.
    #[schema(required)]
    pub fill: Option<f64>,
    /// How much they may; null where none is said.
    #[schema(required)]
    pub most_fill: Option<f64>,
    /// Whether they fit.
    pub verdict: Verdict,
}

/// The wiring of a site.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Wired {
    /// Its cables, in the file's order.
    pub cables: Vec<CableTold>,
    /// Its boxes, in the file's order.
    pub nodes: Vec<NodeTold>,
    /// Its links, in the file's order.
    pub links: Vec<LinkTold>,
    /// The way of each camera from the recorder, in the site's order.
    pub runs: Vec<RunTold>,
    /// The ways that cables take, in the file's order.
    pub ways: Vec<PathTold>,
    /// All its cable, m; cords and wireless links left aside.
    pub cable_m: f64,
    /// Its store.
    pub store: StoreTold,
    /// What does not hang together, in words.
    pub faults: Vec<String>,
}
