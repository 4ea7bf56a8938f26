//! The network sheet: who has which address, hangs on which port, draws and sends how much, and what is set on the switch; and the labels
//! for both ends of every cable. Passwords are not in it.

use super::net::{Net, Thing};
use super::told::Wired;
use super::wired::{draws, wired};
use crate::file::{CableKind, NetDevice, Node, NodeKind, SiteFile};
use serde::Serialize;
use std::collections::{HashMap, HashSet};
use std::net::Ipv4Addr;
use utoipa::ToSchema;

/// Where boxes begin in the segment, and where cameras do.
const FIRST_BOX: u32 = 2;
const FIRST_CAMERA: u32 = 101;

/// A device on the sheet.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SheetRow {
    /// The id of the camera or box.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// Its model, or what kind of box it is.
    pub model: String,
    /// Its address; null where the segment has no more.
    #[schema(required)]
    pub address: Option<String>,
    /// Whether that is planned only: nobody has noted another.
    pub planned: bool,
    /// Whether somebody else has the same one.
    pub twice: bool,
    /// Its hardware address, where it is noted.
    #[schema(required)]
    pub hardware: Option<String>,
    /// The box that it hangs on.
    #[schema(required)]
    pub on: Option<String>,
    /// The port there, counted in the order of the cables.
    #[schema(required)]
    pub port: Option<usize>,
    /// Its power class.
    #[schema(required)]
    pub class: Option<u32>,
    /// What it draws, W.
    #[schema(required)]
    pub watts: Option<f64>,
    /// What it sends, Mbit/s.
    pub mbps: f64,
    /// What is set at its port.
    pub settings: Vec<String>,
    /// Whether the password that it came with was changed.
    pub password_changed: bool,
    /// The firmware that is on it.
    #[schema(required)]
    pub firmware: Option<String>,
}

/// The label of one end of a cable.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Label {
    /// The cable's id.
    pub cable: String,
    /// Where this end is: a camera's or a box's name, with the port.
    pub here: String,
    /// Where the other end is.
    pub there: String,
    /// How long it is, m.
    pub length_m: f64,
}

/// The network sheet of a site.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct NetworkSheet {
    /// The segment, as in `192.168.50.0/24`.
    pub segment: String,
    /// Boxes first, then cameras, in the site's order.
    pub rows: Vec<SheetRow>,
    /// Both ends of every cable.
    pub labels: Vec<Label>,
    /// What to see to on the network.
    pub cautions: Vec<String>,
}

/// The network sheet of a site.
pub fn network_sheet(site: &SiteFile) -> NetworkSheet {
    let net = Net::of(site);
    let told = wired(site);
    let ports = ports(&net);
    let nodes: Vec<&Node> =
        site.network.iter().flat_map(|network| &network.nodes).filter(|node| has_address(node)).collect();
    let cameras: Vec<_> = site.cameras.iter().filter(|camera| !camera.goes()).collect();
    let noted = |device: &Option<NetDevice>| device.as_ref().and_then(|device| device.address);
    let taken: HashSet<Ipv4Addr> =
        nodes.iter().filter_map(|n| noted(&n.device)).chain(cameras.iter().filter_map(|c| noted(&c.device))).collect();
    let rules = &site.rules.wiring;
    let plan = Segment { first: u32::from(rules.segment), bits: rules.segment_bits };
    let (mut boxes, mut heads) = (plan.free(FIRST_BOX, &taken), plan.free(FIRST_CAMERA, &taken));
    let up: HashMap<&str, (usize, &str)> =
        net.order.iter().map(|place| (net.runs[*place].down.id(), (*place, net.runs[*place].up.id()))).collect();
    let mut rows = vec![];
    let mut row =
        |thing: Thing, model: String, device: &Option<NetDevice>, next: &mut dyn FnMut() -> Option<Ipv4Addr>| {
            let (on, run) = up.get(thing.id()).map(|(run, on)| (*on, *run)).unzip();
            let cable = run.map(|run| net.runs[run].cable);
            let port = cable.and_then(|cable| ports.get(&(on.unwrap_or_default(), cable.id.as_str())).copied());
            let address = noted(device);
            let (watts, class, mbps) = match thing {
                Thing::Camera(camera) => {
                    let (watts, class) = draws(camera);
                    (watts, class, super::rate::rate_of(camera, rules).mbps)
                }
                Thing::Node(node) => (None, node.power_class_in, load(&told, cable.map(|cable| cable.id.as_str()))),
            };
            let device = device.clone().unwrap_or_default();
            rows.push(SheetRow {
                id: thing.id().to_owned(),
                name: thing.name().to_owned(),
                model,
                planned: address.is_none(),
                address: address.or_else(next).map(|address| address.to_string()),
                twice: false,
                hardware: device.hardware.as_deref().and_then(NetDevice::hardware_of),
                on: on.map(str::to_owned),
                port,
                class,
                watts,
                mbps,
                settings: settings(cable.is_some_and(|cable| cable.extended), class),
                password_changed: device.password_changed,
                firmware: device.firmware,
            });
        };
    for node in nodes {
        row(Thing::Node(node), kind_name(node.kind).to_owned(), &node.device, &mut || boxes.next());
    }
    for camera in cameras {
        row(Thing::Camera(camera), camera.model.name.clone(), &camera.device, &mut || heads.next());
    }
    let mut held: HashMap<String, usize> = HashMap::new();
    rows.iter().filter_map(|row| row.address.clone()).for_each(|address| *held.entry(address).or_default() += 1);
    rows.iter_mut().for_each(|row| row.twice = row.address.as_ref().is_some_and(|address| held[address] > 1));
    NetworkSheet {
        segment: format!("{}/{}", rules.segment, rules.segment_bits),
        rows,
        labels: labels(&net, &told, &ports),
        cautions: [
            "Cameras on a segment of their own, with no way to the internet.",
            "Reserve each address for its hardware address.",
            "Change every password before a camera goes up. It is not kept here.",
            "Firmware from the maker, before the ladder.",
        ]
        .map(str::to_owned)
        .to_vec(),
    }
}

/// The addresses of a segment.
struct Segment {
    first: u32,
    bits: u8,
}

impl Segment {
    /// The free ones from a number on: not the first and not the last of the segment.
    fn free(&self, from: u32, taken: &HashSet<Ipv4Addr>) -> impl Iterator<Item = Ipv4Addr> {
        let size = 1_u32 << (32 - u32::from(self.bits)).min(31);
        let base = self.first & !(size - 1);
        // In a small segment cameras begin where boxes do.
        let from = if from < size - 1 { from } else { FIRST_BOX };
        let taken = taken.clone();
        (from..size - 1)
            .map(move |number| Ipv4Addr::from(base + number))
            .filter(move |address| !taken.contains(address))
    }
}

fn load(told: &Wired, cable: Option<&str>) -> f64 {
    told.cables.iter().find(|told| Some(told.id.as_str()) == cable).map_or(0.0, |told| told.mbps)
}

/// Whether a box has an address: an injector and an outlet have none.
fn has_address(node: &Node) -> bool {
    matches!(node.kind, NodeKind::Recorder | NodeKind::Switch | NodeKind::Router)
}

/// What a kind of box is called.
pub fn kind_name(kind: NodeKind) -> &'static str {
    match kind {
        NodeKind::Recorder => "Recorder",
        NodeKind::Switch => "Switch",
        NodeKind::Injector => "Injector",
        NodeKind::Extender => "Extender",
        NodeKind::Repeater => "Repeater",
        NodeKind::Router => "Router",
        NodeKind::Outlet => "Outlet",
    }
}

fn settings(extended: bool, class: Option<u32>) -> Vec<String> {
    let mut said = vec![];
    if extended {
        said.push("extended reach on, 10 Mbit/s".to_owned());
    }
    if class.is_some_and(|class| class > 4) {
        said.push("power priority high".to_owned());
    }
    said
}

/// The ports of boxes by box and cable: in the order in which the cables stand in the file.
pub fn ports<'a>(net: &Net<'a>) -> HashMap<(&'a str, &'a str), usize> {
    let mut next: HashMap<&str, usize> = HashMap::new();
    let mut found = HashMap::new();
    for run in net.runs.iter().filter(|run| run.cable.kind != CableKind::Cord) {
        for end in [run.up, run.down].into_iter().filter(|end| end.node().is_some()) {
            let port = next.entry(end.id()).or_insert(0);
            *port += 1;
            found.insert((end.id(), run.cable.id.as_str()), *port);
        }
    }
    found
}

fn labels(net: &Net, told: &Wired, ports: &HashMap<(&str, &str), usize>) -> Vec<Label> {
    let lengths: HashMap<&str, f64> = told.cables.iter().map(|cable| (cable.id.as_str(), cable.length_m)).collect();
    let of = |thing: Thing, cable: &str| match ports.get(&(thing.id(), cable)) {
        Some(port) => format!("{} port {port}", thing.name()),
        None => thing.name().to_owned(),
    };
    let runs = net.runs.iter().filter(|run| run.cable.kind != CableKind::Wireless);
    runs.flat_map(|run| {
        let id = run.cable.id.as_str();
        let [up, down] = [of(run.up, id), of(run.down, id)];
        let label = |here: &String, there: &String| Label {
            cable: id.to_owned(),
            here: here.clone(),
            there: there.clone(),
            length_m: lengths.get(id).copied().unwrap_or(0.0),
        };
        [label(&up, &down), label(&down, &up)]
    })
    .collect()
}
