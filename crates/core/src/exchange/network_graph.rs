//! The wiring as a graph: GraphViz DOT and GraphML.

use super::network_csv::kind_of;
use crate::file::{CableKind, SiteFile};
use crate::wire::sheet::kind_name;
use crate::wire::wired::wired;
use std::fmt::Write;

/// A box or a camera of the graph: its id, name and what it is.
struct Vertex {
    id: String,
    name: String,
    kind: &'static str,
    at: [f64; 2],
}

/// A cable of the graph.
struct Edge {
    id: String,
    from: String,
    to: String,
    kind: CableKind,
    length_m: f64,
    mbps: f64,
    watts: Option<f64>,
}

/// The boxes, cameras and cables of a site; cables that lead nowhere are left out.
fn graph(site: &SiteFile) -> (Vec<Vertex>, Vec<Edge>) {
    let network = site.network.clone().unwrap_or_default();
    let told = wired(site);
    let boxes = network.nodes.iter().map(|node| Vertex {
        id: node.id.clone(),
        name: node.name.clone(),
        kind: kind_name(node.kind),
        at: node.position,
    });
    let cameras = site.cameras.iter().filter(|camera| !camera.goes()).map(|camera| Vertex {
        id: camera.id.clone(),
        name: camera.name.clone(),
        kind: "Camera",
        at: camera.position,
    });
    let edges = told.cables.iter().filter_map(|told| {
        let cable = network.cables.iter().find(|cable| cable.id == told.id)?;
        Some(Edge {
            id: cable.id.clone(),
            from: cable.from.clone(),
            to: cable.to.clone(),
            kind: cable.kind,
            length_m: told.length_m,
            mbps: told.mbps,
            watts: told.watts,
        })
    });
    (boxes.chain(cameras).collect(), edges.collect())
}

/// The wiring as GraphViz DOT: an undirected graph.
pub fn dot(site: &SiteFile) -> String {
    let quoted = |text: &str| format!("\"{}\"", text.replace('\\', "\\\\").replace('"', "\\\"").replace('\n', " "));
    let (vertices, edges) = graph(site);
    let mut text = format!("graph {} {{\n  node [shape=box];\n", quoted(&site.name));
    for vertex in vertices {
        let shape = if vertex.kind == "Camera" { ", shape=ellipse" } else { "" };
        let _ = writeln!(
            text,
            "  {} [label={}{shape}];",
            quoted(&vertex.id),
            quoted(&format!("{}\n{}", vertex.name, vertex.kind))
        );
    }
    for edge in edges {
        let watts = edge.watts.map(|watts| format!(", {watts:.1} W")).unwrap_or_default();
        let label =
            format!("{} {}, {:.0} m, {:.1} Mbit/s{watts}", edge.id, kind_of(edge.kind), edge.length_m, edge.mbps);
        let _ = writeln!(text, "  {} -- {} [label={}];", quoted(&edge.from), quoted(&edge.to), quoted(&label));
    }
    text.push_str("}\n");
    text
}

/// The wiring as GraphML.
pub fn graphml(site: &SiteFile) -> String {
    let safe = |text: &str| -> String {
        let kept = text.chars().filter(|c| *c >= ' ' || *c == '\t');
        kept.collect::<String>().replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;").replace('"', "&quot;")
    };
    let (vertices, edges) = graph(site);
    let mut text = String::from(
        "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<graphml xmlns=\"http://graphml.graphdrawing.org/xmlns\">\n",
    );
    for (id, of, kind) in [
        ("name", "node", "string"),
        ("kind", "node", "string"),
        ("east_m", "node", "double"),
        ("north_m", "node", "double"),
        ("cable", "edge", "string"),
        ("length_m", "edge", "double"),
        ("mbps", "edge", "double"),
        ("watts", "edge", "double"),
    ] {
        let _ = writeln!(text, "  <key id=\"{id}\" for=\"{of}\" attr.name=\"{id}\" attr.type=\"{kind}\"/>");
    }
    text.push_str("  <graph edgedefault=\"undirected\">\n");
    for vertex in vertices {
        let _ = writeln!(
            text,
            "    <node id=\"{}\"><data key=\"name\">{}</data><data key=\"kind\">{}</data><data key=\"east_m\">{}</data><data key=\"north_m\">{}</data></node>",
            safe(&vertex.id),
            safe(&vertex.name),
            vertex.kind,
            vertex.at[0],
            vertex.at[1]
        );
    }
    for edge in edges {
        let watts = edge.watts.map(|watts| format!("<data key=\"watts\">{watts}</data>")).unwrap_or_default();
        let _ = writeln!(
            text,
            "    <edge id=\"{}\" source=\"{}\" target=\"{}\"><data key=\"cable\">{}</data><data key=\"length_m\">{}</data><data key=\"mbps\">{}</data>{watts}</edge>",
            safe(&edge.id),
            safe(&edge.from),
            safe(&edge.to),
            kind_of(edge.kind),
            edge.length_m,
            edge.mbps
        );
    }
    text.push_str("  </graph>\n</graphml>\n");
    text
}
