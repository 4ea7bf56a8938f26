//! Ways to mend what is broken in the wiring: each a change that anyone can apply, and offered only where it holds.

use super::attach_box::{direct_cable, new_box};
use super::net::Net;
use super::told::Wired;
use super::wired::{draws, wired};
use crate::equipment::power_class::PowerClass;
use crate::file::{
    Cable, CableKind, CameraFile, Fault, FaultCode, Network, Node, NodeKind, PatchOp, Point2, SiteFile, fresh_id,
};
use crate::verdict::Verdict;
use serde::Serialize;
use serde_json::{Value, json};
use utoipa::ToSchema;

/// A way to mend a cable, a box or a link.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct WireWay {
    /// What it is, in words.
    pub says: String,
    /// What stands differently then: boxes, cables and cameras by name, with verdicts.
    pub effects: Vec<WireEffect>,
    /// The change.
    pub patch: Vec<PatchOp>,
}

/// How something stands before and after.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct WireEffect {
    /// The id of the camera, box or cable.
    pub id: String,
    /// Before.
    pub before: Verdict,
    /// After.
    pub after: Verdict,
}

/// The ways to mend a cable or a box, by its id; none for what is kept.
///
/// # Errors
/// Names the id that the network does not have.
pub fn wire_ways(site: &SiteFile, id: &str) -> Result<Vec<WireWay>, Fault> {
    let nobody = || Fault::new("id", format!("the network has no \"{id}\"")).of(FaultCode::UnknownId);
    let network = site.network.as_ref().ok_or_else(nobody)?;
    let before = wired(site);
    let tried = if let Some(place) = network.cables.iter().position(|cable| cable.id == id) {
        of_cable(site, network, place)
    } else if let Some(place) = network.nodes.iter().position(|node| node.id == id) {
        of_node(site, network, place)
    } else {
        return Err(nobody());
    };
    Ok(tried.into_iter().filter_map(|(says, after)| way(site, &before, id, says, after)).collect())
}

/// A change that is tried, with its words.
type Tried = (String, Network);

fn of_cable(site: &SiteFile, network: &Network, place: usize) -> Vec<Tried> {
    let cable = &network.cables[place];
    let net = Net::of(site);
    let Some(run) = net.runs.iter().find(|run| run.cable.id == cable.id) else { return vec![] };
    let up = run.up.node().and_then(|node| network.nodes.iter().position(|other| other.id == node.id));
    let mut tried = vec![];
    let mut put = |says: String, change: &dyn Fn(&mut Network)| {
        let mut changed = network.clone();
        change(&mut changed);
        tried.push((says, changed));
    };
    if let Some(up) = up.filter(|_| cable.kind.takes_a_port() && cable.kind != CableKind::Fibre) {
        let node = &network.nodes[up];
        if !cable.extended {
            let says = match node.extended_ports {
                0 => format!("Take a {} with extended-reach ports, and run it at 10 Mbit/s", kind_word(node.kind)),
                _ => format!("Use an extended-reach port of {}: 10 Mbit/s", node.name),
            };
            put(says, &|network| {
                network.cables[place].extended = true;
                let used = network
                    .cables
                    .iter()
                    .filter(|cable| cable.extended && touches(cable, &network.nodes[up].id))
                    .count();
                let ports = &mut network.nodes[up].extended_ports;
                *ports = (*ports).max(used as u32);
            });
        }
        let class = run.down.node().map_or_else(|| camera_class(site, run.down.id()), |node| node.power_class_in);
        put("Put a repeater half-way: the cable begins anew there".to_owned(), &|network| {
            halfway(site, network, place, class);
        });
        put(format!("Put an injector beside {}: it gives class {}", node.name, class.unwrap_or(4)), &|network| {
            inject(site, network, place, up, class);
        });
    }
    if run.up.node().is_some() && run.down.node().is_some() && cable.kind.carries_power() {
        put("Take fibre: no limit of 100 m, no power over it".to_owned(), &|network| {
            network.cables[place].kind = CableKind::Fibre;
            network.cables[place].extended = false;
        });
    }
    if cable.kind == CableKind::Cord && cable.volts.is_some_and(|volts| volts < 24.0) {
        put("Take 24 V: half the current, a quarter of the loss".to_owned(), &|network| {
            network.cables[place].volts = Some(24.0);
        });
    }
    tried
}

fn of_node(site: &SiteFile, network: &Network, place: usize) -> Vec<Tried> {
    let node = &network.nodes[place];
    let net = Net::of(site);
    let below: Vec<usize> = net.from.get(node.id.as_str()).cloned().unwrap_or_default();
    // Those that draw most first: they are moved until it holds.
    let mut moved: Vec<(f64, &Cable)> = below
        .iter()
        .map(|run| &net.runs[*run])
        .filter(|run| run.cable.kind.takes_a_port())
        .map(|run| {
            let camera = site.cameras.iter().find(|camera| camera.id == run.down.id());
            (camera.and_then(|camera| draws(camera).0).unwrap_or(0.0), run.cable)
        })
        .collect();
    moved.sort_by(|a, b| b.0.total_cmp(&a.0));
    let mut tried = vec![];
    for count in 1..moved.len() {
        let ids: Vec<&str> = moved[..count].iter().map(|(_, cable)| cable.id.as_str()).collect();
        let mut changed = network.clone();
        split(site, &mut changed, place, &ids);
        let names: Vec<String> =
            moved[..count].iter().map(|(_, cable)| far_name(site, network, cable, &node.id)).collect();
        let says = format!("Split it: a second switch beside {} takes {}", node.name, listed(&names));
        let holds = |network: &Network| {
            let mut site = site.clone();
            site.network = Some(network.clone());
            let told = wired(&site);
            told.nodes.iter().find(|told| told.id == node.id).is_some_and(|told| told.verdict == Verdict::Kept)
        };
        if holds(&changed) {
            tried.push((says, changed));
            break;
        }
    }
    let told = wired(site).nodes.into_iter().find(|told| told.id == node.id);
    if let (Some(told), Some(budget)) = (told, node.budget_w) {
        let free = 1.0 - site.rules.wiring.free_share;
        let wanted = [60.0, 120.0, 180.0, 240.0, 370.0, 480.0, 740.0].into_iter().find(|w| told.drawn_w <= free * w);
        if let Some(wanted) = wanted.filter(|wanted| *wanted > budget) {
            let mut changed = network.clone();
            changed.nodes[place].budget_w = Some(wanted);
            tried.push((format!("Take a {} that gives {wanted:.0} W", kind_word(node.kind)), changed));
        }
        let wanted = [5_u32, 8, 16, 24, 48].into_iter().find(|p| f64::from(told.ports_used) <= free * f64::from(*p));
        if let (Some(wanted), Some(ports)) = (wanted, node.ports)
            && wanted > ports
        {
            let mut changed = network.clone();
            changed.nodes[place].ports = Some(wanted);
            tried.push((format!("Take a {} of {wanted} ports", kind_word(node.kind)), changed));
        }
    }
    tried
}

/// A way, if what it is for is broken or tight now and is better then, and nothing else comes out worse.
fn way(site: &SiteFile, before: &Wired, id: &str, says: String, network: Network) -> Option<WireWay> {
    let mut after = site.clone();
    let patch = difference(site.network.as_ref(), &network);
    after.network = Some(network);
    let told = wired(&after);
    let then = verdict_of(&told, id).unwrap_or(Verdict::Kept);
    let now = verdict_of(before, id)?;
    let fell = |(id, verdict): (&str, Verdict)| {
        verdict_of(&told, id).is_some_and(|then| then > verdict && then == Verdict::Broken)
    };
    let new_broken = all(&told).any(|(id, verdict)| verdict == Verdict::Broken && verdict_of(before, id).is_none());
    if then >= now
        || then == Verdict::Broken
        || all(before).any(fell)
        || new_broken
        || told.faults.len() > before.faults.len()
    {
        return None;
    }
    let effect = |(id, before): (&str, Verdict)| {
        let after = verdict_of(&told, id)?;
        (after != before).then(|| WireEffect { id: id.to_owned(), before, after })
    };
    Some(WireWay { says, effects: all(before).filter_map(effect).collect(), patch })
}

/// All that has a verdict, by its id.
fn all(told: &Wired) -> impl Iterator<Item = (&str, Verdict)> {
    let cables = told.cables.iter().map(|cable| (cable.id.as_str(), cable.verdict));
    let nodes = told.nodes.iter().map(|node| (node.id.as_str(), node.verdict));
    let runs = told.runs.iter().map(|run| (run.camera.as_str(), run.verdict));
    cables.chain(nodes).chain(runs)
}

fn verdict_of(told: &Wired, id: &str) -> Option<Verdict> {
    all(told).find(|(other, _)| *other == id).map(|(_, verdict)| verdict)
}

/// The change between two networks: what is different is put in its place, what is new at the end; a list that is left out of the file, or
/// empty, is put there whole.
fn difference(before: Option<&Network>, after: &Network) -> Vec<PatchOp> {
    let none = Network::default();
    let before = before.unwrap_or(&none);
    let mut ops = vec![];
    let mut list = |name: &str, before: Vec<Value>, after: Vec<Value>| {
        if before.is_empty() && !after.is_empty() {
            ops.push(PatchOp { op: "add", path: format!("/network/{name}"), value: Some(Value::Array(after)) });
            return;
        }
        for (place, thing) in after.into_iter().enumerate() {
            match before.get(place) {
                Some(held) if *held == thing => {}
                Some(_) => {
                    ops.push(PatchOp { op: "replace", path: format!("/network/{name}/{place}"), value: Some(thing) });
                }
                None => ops.push(PatchOp { op: "add", path: format!("/network/{name}/-"), value: Some(thing) }),
            }
        }
    };
    let json = |nodes: &[Node]| nodes.iter().map(|node| json!(node)).collect();
    list("nodes", json(&before.nodes), json(&after.nodes));
    let json = |cables: &[Cable]| cables.iter().map(|cable| json!(cable)).collect();
    list("cables", json(&before.cables), json(&after.cables));
    ops
}

fn touches(cable: &Cable, id: &str) -> bool {
    cable.from == id || cable.to == id
}

fn fresh_node(site: &SiteFile, network: &Network, letter: &str) -> String {
    let taken = network.nodes.iter().map(|node| node.id.as_str());
    fresh_id(letter, taken.chain(site.cameras.iter().map(|camera| camera.id.as_str())))
}

fn fresh_cable(network: &Network) -> String {
    fresh_id("k", network.cables.iter().map(|cable| cable.id.as_str()))
}

/// Where an end of a cable is, and how high.
fn place_of(site: &SiteFile, network: &Network, id: &str) -> (Point2, f64) {
    let camera = site.cameras.iter().find(|camera| camera.id == id);
    let of_node = || network.nodes.iter().find(|node| node.id == id).map(|node| (node.position, node.height_m));
    camera
        .map(|camera| (camera.position, camera.ground_m + camera.height_m))
        .or_else(of_node)
        .unwrap_or(([0.0; 2], 0.0))
}

fn camera_class(site: &SiteFile, id: &str) -> Option<u32> {
    site.cameras.iter().find(|camera| camera.id == id).and_then(|camera: &CameraFile| draws(camera).1)
}

/// Cuts a cable in the middle of its way and puts a repeater there.
fn halfway(site: &SiteFile, network: &mut Network, place: usize, class: Option<u32>) {
    let cable = network.cables[place].clone();
    let [from, to] = [&cable.from, &cable.to].map(|id| place_of(site, network, id));
    let (at, before, after) = super::middle::middle_of((from.0, to.0), &cable.route);
    let id = fresh_node(site, network, "b");
    let mut node = new_box(&id, NodeKind::Repeater, "Repeater", at, 0.5 * (from.1 + to.1));
    node.power_class_in = class.map(|class| (class + 1).min(8));
    network.nodes.push(node);
    let half = cable.length_m.map(|length| 0.5 * length);
    let second = Cable { id: fresh_cable(network), from: id.clone(), route: after, length_m: half, ..cable.clone() };
    network.cables[place] = Cable { to: id, route: before, length_m: half, extended: false, ..cable };
    network.cables.push(Cable { extended: false, ..second });
}

/// Puts an injector between a box and a cable.
fn inject(site: &SiteFile, network: &mut Network, place: usize, up: usize, class: Option<u32>) {
    let held = network.nodes[up].clone();
    let id = fresh_node(site, network, "b");
    let mut node = new_box(&id, NodeKind::Injector, "Injector", held.position, held.height_m);
    (node.gives_power, node.port_class, node.ports) = (true, class.or(Some(4)), Some(2));
    node.budget_w = class.and_then(PowerClass::of).map(|of| (of.source_w * 1.3).ceil());
    network.nodes.push(node);
    let cable = &mut network.cables[place];
    if cable.from == held.id {
        cable.from.clone_from(&id)
    } else {
        cable.to.clone_from(&id)
    }
    let short = direct_cable(&fresh_cable(network), [&id, &held.id], CableKind::Cat6, 1.0);
    network.cables.push(short);
}

/// Puts a second switch beside a box and moves cables to it.
fn split(site: &SiteFile, network: &mut Network, place: usize, ids: &[&str]) {
    let held = network.nodes[place].clone();
    let id = fresh_node(site, network, "sw");
    let ports = if ids.len() + 1 > 6 { 16 } else { 8 };
    let mut node =
        new_box(&id, NodeKind::Switch, &format!("Switch beside {}", held.name), held.position, held.height_m);
    (node.gives_power, node.ports, node.port_class) = (true, Some(ports), held.port_class.or(Some(4)));
    node.budget_w = Some(if ports > 8 { 240.0 } else { 120.0 });
    network.nodes.push(node);
    for cable in network.cables.iter_mut().filter(|cable| ids.contains(&cable.id.as_str())) {
        if cable.from == held.id { cable.from.clone_from(&id) } else { cable.to.clone_from(&id) }
    }
    let short = direct_cable(&fresh_cable(network), [&id, &held.id], CableKind::Cat6, 1.0);
    network.cables.push(short);
}

fn far_name(site: &SiteFile, network: &Network, cable: &Cable, near: &str) -> String {
    let id = if cable.from == near { &cable.to } else { &cable.from };
    let camera = site.cameras.iter().find(|camera| camera.id == *id).map(|camera| camera.name.clone());
    camera
        .or_else(|| network.nodes.iter().find(|node| node.id == *id).map(|node| node.name.clone()))
        .unwrap_or_default()
}

fn listed(names: &[String]) -> String {
    match names {
        [] => String::new(),
        [one] => one.clone(),
        [first @ .., last] => format!("{} and {last}", first.join(", ")),
    }
}

fn kind_word(kind: NodeKind) -> &'static str {
    match kind {
        NodeKind::Recorder => "recorder",
        NodeKind::Router => "router",
        NodeKind::Injector => "injector",
        _ => "switch",
    }
}
