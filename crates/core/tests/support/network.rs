//! Cameras, boxes and cables for networks.

use super::CameraAt;
use serde_json::{Value, json};

/// A camera of a class and so many watts that sends so many Mbit/s.
pub fn camera(id: &str, at: [f64; 2], class: u32, watts: f64, mbps: f64) -> Value {
    let mut camera = CameraAt { at, ..CameraAt::default() }.json();
    (camera["id"], camera["name"]) = (json!(id), json!(id.to_uppercase()));
    camera["power"] = json!({"class": class, "watts": watts});
    camera["stream"] = json!({"mbps": mbps});
    camera
}

/// A box at a place.
pub fn node_at(id: &str, kind: &str, at: [f64; 2], more: Value) -> Value {
    let mut node = json!({"id": id, "name": id, "kind": kind, "position": at, "height_m": 1.0});
    node.as_object_mut().unwrap().extend(more.as_object().unwrap().clone());
    node
}

/// A box at the origin.
pub fn node(id: &str, kind: &str, more: Value) -> Value {
    node_at(id, kind, [0.0, 0.0], more)
}

/// A cable.
pub fn cable(id: &str, from: &str, to: &str, more: Value) -> Value {
    let mut cable = json!({"id": id, "from": from, "to": to, "kind": "cat6"});
    cable.as_object_mut().unwrap().extend(more.as_object().unwrap().clone());
    cable
}

/// A recorder with ports that give power.
pub fn recorder(more: Value) -> Value {
    let mut made = node("nvr", "recorder", json!({"ports": 8, "budget_w": 120, "port_class": 4, "gives_power": true}));
    made.as_object_mut().unwrap().extend(more.as_object().unwrap().clone());
    made
}
