//! Where cameras can be wired to: boxes that are there, and places where a switch could stand.

use super::net::Net;
use super::told::Wired;
use crate::file::{Existing, Node, NodeKind, Point2, SiteFile};

/// A switch that routing may put down (generic).
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Kit {
    /// What it is called.
    pub name: &'static str,
    /// Its ports.
    pub ports: u32,
    /// The power that it gives, W.
    pub budget_w: f64,
    /// The highest class of a port.
    pub port_class: u32,
}

/// The switches that routing may put down: of each only so much is used that the share stays free that the rules ask for.
pub const KITS: [Kit; 4] = [
    Kit { name: "Switch, 8 ports, 120 W", ports: 8, budget_w: 120.0, port_class: 4 },
    Kit { name: "Switch, 16 ports, 240 W", ports: 16, budget_w: 240.0, port_class: 4 },
    Kit { name: "Switch, 8 ports, 240 W, class 6", ports: 8, budget_w: 240.0, port_class: 6 },
    Kit { name: "Switch, 16 ports, 480 W, class 8", ports: 16, budget_w: 480.0, port_class: 8 },
];

/// Somewhere that cameras can be wired to.
#[derive(Clone, Debug, PartialEq)]
pub struct Place {
    /// Where it is.
    pub position: Point2,
    /// How high, m.
    pub height_m: f64,
    /// What stands there.
    pub stands: Stands,
    /// The ports, power, W, and extended ports that are left.
    pub left: Left,
}

/// What is left of a box.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Left {
    /// Ports; infinite where nobody has said how many there are.
    pub ports: f64,
    /// Power, W; infinite where nobody has said how much there is.
    pub watts: f64,
    /// Extended-reach ports.
    pub extended: f64,
}

/// What stands at a place.
#[derive(Clone, Debug, PartialEq)]
pub enum Stands {
    /// A box that is there.
    Box {
        /// It.
        node: Box<Node>,
        /// Whether it is a recorder or has a way to one.
        reached: bool,
        /// Over which place it reaches it, and what that link still carries, Mbit/s; none for a recorder.
        up: Option<(usize, f64)>,
    },
    /// Nothing yet: a switch can stand there, beside the thing of this name.
    Free {
        /// What is there: an outlet, a recorder.
        beside: String,
    },
}

impl Place {
    /// Whether it is a recorder.
    pub fn records(&self) -> bool {
        matches!(&self.stands, Stands::Box { node, .. } if node.kind == NodeKind::Recorder)
    }
}

/// The places of a site: boxes first, in the file's order; then where there are mains.
pub fn places(site: &SiteFile, wired: &Wired) -> Vec<Place> {
    let nodes =
        || site.network.iter().flat_map(|network| &network.nodes).filter(|n| n.existing != Some(Existing::Goes));
    let net = Net::of(site);
    let joins = |kind: NodeKind| matches!(kind, NodeKind::Recorder | NodeKind::Switch | NodeKind::Router);
    let boxes: Vec<&Node> = nodes().filter(|node| joins(node.kind)).collect();
    let at = |id: &str| boxes.iter().position(|node| node.id == id);
    // A link over a repeater or a converter counts by where it comes out.
    let up_of = |node: &Node| -> Option<(usize, f64)> {
        let (mut id, mut free) = (node.id.as_str(), f64::INFINITY);
        loop {
            let run = net.order.iter().map(|place| &net.runs[*place]).find(|run| run.down.id() == id)?;
            if let Some(link) = wired.links.iter().find(|link| link.cable == run.cable.id) {
                free = free.min(link.capacity_mbps - link.mbps);
            }
            id = run.up.id();
            if let Some(place) = at(id) {
                return Some((place, free.max(0.0)));
            }
        }
    };
    let mut found: Vec<Place> = boxes
        .iter()
        .map(|node| {
            let told = wired.nodes.iter().find(|told| told.id == node.id);
            let used = told.map_or(0.0, |told| f64::from(told.ports_used));
            let drawn = told.map_or(0.0, |told| told.drawn_w);
            let extended = net.runs.iter().filter(|run| run.cable.extended && run.up.id() == node.id).count();
            let up = up_of(node);
            Place {
                position: node.position,
                height_m: node.height_m,
                left: Left {
                    ports: node.ports.map_or(f64::INFINITY, |ports| (f64::from(ports) - used).max(0.0)),
                    watts: node.budget_w.map_or(f64::INFINITY, |budget| (budget - drawn).max(0.0)),
                    extended: (f64::from(node.extended_ports) - extended as f64).max(0.0),
                },
                stands: Stands::Box {
                    reached: node.kind == NodeKind::Recorder || up.is_some(),
                    up: up.filter(|_| node.kind != NodeKind::Recorder),
                    node: Box::new((*node).clone()),
                },
            }
        })
        .collect();
    let none = Left { ports: 0.0, watts: 0.0, extended: 0.0 };
    let mains = nodes().filter(|node| matches!(node.kind, NodeKind::Recorder | NodeKind::Outlet | NodeKind::Router));
    found.extend(mains.map(|node| Place {
        position: node.position,
        height_m: node.height_m,
        stands: Stands::Free { beside: node.name.clone() },
        left: none,
    }));
    found
}
