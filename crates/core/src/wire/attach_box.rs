//! New boxes and cables, with nothing said of them that nobody knows.

use crate::file::{Cable, CableKind, Node, NodeKind, Point2};

/// A new box.
pub fn new_box(id: &str, kind: NodeKind, name: &str, position: Point2, height_m: f64) -> Node {
    Node {
        id: id.to_owned(),
        name: name.to_owned(),
        kind,
        position,
        height_m,
        ports: None,
        extended_ports: 0,
        budget_w: None,
        port_class: None,
        gives_power: false,
        power_class_in: None,
        speed_mbps: None,
        battery_wh: None,
        others: vec![],
        device: None,
        disk_gb: None,
        existing: None,
    }
}

/// A cable of a length, between what stands side by side.
pub fn direct_cable(id: &str, [from, to]: [&str; 2], kind: CableKind, length_m: f64) -> Cable {
    Cable {
        id: id.to_owned(),
        from: from.to_owned(),
        to: to.to_owned(),
        kind,
        route: vec![],
        route_height_m: None,
        extended: false,
        length_m: Some(length_m),
        way: None,
        volts: None,
        signal_dbm: None,
        tested: false,
        ohm_per_m: None,
        existing: None,
    }
}
