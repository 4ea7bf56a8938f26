//! The network as a tree: from the recorder through its boxes to the cameras, and what does not hang together.

use super::length::End;
use crate::file::{Cable, CableKind, CameraFile, Existing, Node, NodeKind, SiteFile};
use std::collections::{HashMap, VecDeque};

/// What stands at an end of a cable.
#[derive(Clone, Copy, Debug)]
pub enum Thing<'a> {
    /// A camera.
    Camera(&'a CameraFile),
    /// A box.
    Node(&'a Node),
}

impl<'a> Thing<'a> {
    /// Its id.
    pub fn id(self) -> &'a str {
        match self {
            Thing::Camera(camera) => &camera.id,
            Thing::Node(node) => &node.id,
        }
    }

    /// What it is called.
    pub fn name(self) -> &'a str {
        match self {
            Thing::Camera(camera) => &camera.name,
            Thing::Node(node) => &node.name,
        }
    }

    /// Where a cable reaches it.
    pub fn end(self) -> End {
        match self {
            Thing::Camera(camera) => End { at: camera.position, height_m: camera.ground_m + camera.height_m },
            Thing::Node(node) => End { at: node.position, height_m: node.height_m },
        }
    }

    /// It, as a box.
    pub fn node(self) -> Option<&'a Node> {
        if let Thing::Node(node) = self { Some(node) } else { None }
    }
}

/// A cable that is there, with its ends: the one nearer to the recorder, and the other.
#[derive(Clone, Copy, Debug)]
pub struct Run<'a> {
    /// The cable.
    pub cable: &'a Cable,
    /// Its end towards the recorder; for a cord, its supply.
    pub up: Thing<'a>,
    /// Its other end.
    pub down: Thing<'a>,
    /// Whether it has a way to a recorder.
    pub reached: bool,
}

/// The network of a site.
pub struct Net<'a> {
    /// Its runs, in the file's order.
    pub runs: Vec<Run<'a>>,
    /// The places of the runs, those nearest to a recorder first.
    pub order: Vec<usize>,
    /// The runs that go on from a thing, by its id.
    pub from: HashMap<&'a str, Vec<usize>>,
    /// What does not hang together, in words.
    pub faults: Vec<String>,
}

impl<'a> Net<'a> {
    /// The network of a site, whose file is in order.
    pub fn of(site: &'a SiteFile) -> Net<'a> {
        let network = site.network.as_ref();
        let nodes: &[Node] = network.map_or(&[], |network| &network.nodes);
        let gone = |existing: Option<Existing>| existing == Some(Existing::Goes);
        let mut things: HashMap<&str, Thing> = HashMap::new();
        things.extend(nodes.iter().filter(|n| !gone(n.existing)).map(|node| (node.id.as_str(), Thing::Node(node))));
        let cameras = || site.cameras.iter().filter(|camera| !camera.goes());
        things.extend(cameras().map(|camera| (camera.id.as_str(), Thing::Camera(camera))));
        let cables: &[Cable] = network.map_or(&[], |network| &network.cables);
        let mut net = Net { runs: vec![], order: vec![], from: HashMap::new(), faults: vec![] };
        let mut ends: HashMap<&str, Vec<usize>> = HashMap::new();
        for cable in cables.iter().filter(|cable| !gone(cable.existing)) {
            let (Some(up), Some(down)) = (things.get(cable.from.as_str()), things.get(cable.to.as_str())) else {
                let lost = [&cable.from, &cable.to].into_iter().find(|id| !things.contains_key(id.as_str()));
                net.faults.push(format!("{} leads to {}, which is not there", cable.id, lost.unwrap_or(&cable.to)));
                continue;
            };
            if let (Thing::Camera(one), Thing::Camera(other)) = (up, down) {
                net.faults.push(format!("{} joins two cameras, {} and {}", cable.id, one.name, other.name));
                continue;
            }
            let place = net.runs.len();
            net.runs.push(Run { cable, up: *up, down: *down, reached: false });
            if cable.kind == CableKind::Cord {
                // A supply stands at its beginning, whichever way it was drawn.
                let run = &mut net.runs[place];
                if run.up.node().is_none_or(|node| node.kind != NodeKind::Outlet) {
                    (run.up, run.down) = (run.down, run.up);
                }
                net.from.entry(net.runs[place].up.id()).or_default().push(place);
            } else {
                ends.entry(up.id()).or_default().push(place);
                ends.entry(down.id()).or_default().push(place);
            }
        }
        net.walk(nodes, &ends);
        for camera in cameras() {
            let runs = ends.get(camera.id.as_str()).map_or(&[][..], Vec::as_slice);
            let names: Vec<&str> = runs.iter().map(|place| net.runs[*place].cable.id.as_str()).collect();
            if runs.len() > 1 {
                net.faults.push(format!("{} is wired more than once: {}", camera.name, names.join(", ")));
            }
            if cables.is_empty() {
                continue;
            }
            if !runs.iter().any(|place| net.runs[*place].reached) {
                net.faults.push(format!("{} has no way to a recorder", camera.name));
            }
        }
        net
    }

    /// From the recorders on: which end of each cable is the nearer one. A cable that closes a ring is a fault.
    fn walk(&mut self, nodes: &'a [Node], ends: &HashMap<&'a str, Vec<usize>>) {
        let recorders = nodes.iter().filter(|node| node.kind == NodeKind::Recorder);
        let mut waiting: VecDeque<&str> = recorders.map(|node| node.id.as_str()).collect();
        if waiting.is_empty() && !self.runs.is_empty() {
            self.faults.push("there is no recorder: where the recordings go is not said".to_owned());
        }
        let mut seen: HashMap<&str, ()> = waiting.iter().map(|id| (*id, ())).collect();
        let mut taken = vec![false; self.runs.len()];
        while let Some(id) = waiting.pop_front() {
            for place in ends.get(id).into_iter().flatten().copied() {
                if std::mem::replace(&mut taken[place], true) {
                    continue;
                }
                let run = &mut self.runs[place];
                if run.up.id() != id {
                    (run.up, run.down) = (run.down, run.up);
                }
                run.reached = true;
                let down = run.down.id();
                if seen.insert(down, ()).is_some() {
                    let says = format!("{} closes a ring at {}", run.cable.id, run.down.name());
                    self.faults.push(says);
                    continue;
                }
                self.order.push(place);
                self.from.entry(id).or_default().push(place);
                // Nothing goes on behind a camera.
                if run.down.node().is_some() {
                    waiting.push_back(down);
                }
            }
        }
    }
}
