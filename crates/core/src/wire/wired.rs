//! All that is told of the wiring of a site: each cable, each box, each link between boxes, and the store.

use super::conduit::paths_told;
use super::findings::Findings;
use super::length::length_m;
use super::net::{Net, Run, Thing};
use super::power::{loop_ohm, reaches};
use super::rate::rate_of;
use super::runs::runs;
use super::store::store;
use super::told::{CableTold, LinkTold, NodeTold, Wired};
use crate::equipment::power_class::PowerClass;
use crate::file::{Cable, CableKind, CableWay, CameraFile, Node, NodeKind, SiteFile, WiringRules};
use crate::verdict::Verdict;
use std::collections::{HashMap, HashSet};

/// How fast a port is where nobody says, Mbit/s.
pub(super) const PORT_MBPS: f64 = 1000.0;

/// Power over a run.
#[derive(Clone, Copy)]
struct Fed {
    /// What the far end draws, W.
    watts: f64,
    /// The class that it is given, or none where its voltage is the cord's own.
    class: Option<u32>,
    loop_ohm: f64,
    source_v: f64,
    volts: Option<f64>,
    lost_w: f64,
}

/// The figures of a site's network, as they are gathered from the cameras up to the recorder.
struct Gathered<'a> {
    net: Net<'a>,
    rules: WiringRules,
    lengths: Vec<f64>,
    /// What goes over each run: as stated, and at most; and whose.
    mbps: Vec<[f64; 2]>,
    cameras: Vec<Vec<&'a str>>,
    fed: Vec<Option<Fed>>,
    /// Where a run's power comes from, if its upper end gives or passes any.
    gives: Vec<bool>,
    /// What cords feed, by id.
    on_cords: HashSet<&'a str>,
}

/// What is told of the wiring of a site, whose file is in order.
pub fn wired(site: &SiteFile) -> Wired {
    let gathered = Gathered::of(site);
    let nodes = site.network.iter().flat_map(|network| &network.nodes);
    let extended = gathered.extended_beyond();
    let cables: Vec<CableTold> =
        (0..gathered.net.runs.len()).map(|place| gathered.cable(place, extended.contains(&place))).collect();
    let nodes: Vec<NodeTold> = nodes.map(|node| gathered.node(node)).collect();
    let links = (0..gathered.net.runs.len()).filter_map(|place| gathered.link(place)).collect();
    let laid = gathered.net.runs.iter().zip(&gathered.lengths);
    let laid = laid.filter(|(run, _)| !matches!(run.cable.kind, CableKind::Cord | CableKind::Wireless));
    Wired {
        runs: runs(site, &gathered.net, &cables, &nodes),
        ways: paths_told(site),
        cable_m: laid.map(|(_, length)| length).sum(),
        cables,
        nodes,
        links,
        store: store(site),
        faults: gathered.net.faults,
    }
}

/// What a camera draws, W, and its class.
pub(super) fn draws(camera: &CameraFile) -> (Option<f64>, Option<u32>) {
    let own = camera.power.unwrap_or(crate::file::CameraPower { class: None, watts: None, battery_months: None });
    let class = own.class.or(camera.model.power_class);
    let watts = own.watts.or(camera.model.watts).or_else(|| Some(PowerClass::of(class?)?.device_w));
    (watts, class.or_else(|| PowerClass::for_watts(watts?)))
}

impl<'a> Gathered<'a> {
    fn of(site: &'a SiteFile) -> Gathered<'a> {
        let net = Net::of(site);
        let rules = site.rules.wiring;
        let count = net.runs.len();
        // A route is told from where its cable begins, whichever end is nearer to the recorder.
        let length = |run: &Run| match run.up.id() == run.cable.from {
            true => length_m(run.cable, run.up.end(), run.down.end(), &rules),
            false => length_m(run.cable, run.down.end(), run.up.end(), &rules),
        };
        let lengths = net.runs.iter().map(length).collect();
        let mut gathered = Gathered {
            net,
            rules,
            lengths,
            mbps: vec![[0.0; 2]; count],
            cameras: vec![vec![]; count],
            fed: vec![None; count],
            gives: vec![false; count],
            on_cords: HashSet::new(),
        };
        let cords = gathered.net.runs.iter().filter(|run| run.cable.kind == CableKind::Cord);
        gathered.on_cords = cords.map(|run| run.down.id()).collect();
        // From the recorder outwards it is known where power comes from; from the cameras inwards what is drawn.
        for place in gathered.net.order.clone() {
            gathered.find_source(place);
        }
        let on_cords: Vec<usize> =
            (0..count).filter(|place| gathered.net.runs[*place].cable.kind == CableKind::Cord).collect();
        for place in gathered.net.order.clone().into_iter().rev() {
            gathered.add_up(place);
        }
        for place in on_cords {
            gathered.feed_by_cord(place);
        }
        gathered
    }

    /// Whether a run's upper end gives power, or passes on what its own cable brings.
    fn find_source(&mut self, place: usize) {
        let run = self.net.runs[place];
        let Some(node) = run.up.node().filter(|_| run.cable.kind.carries_power()) else { return };
        let passed = node.kind.passes_power()
            && self.net.order.iter().any(|other| self.net.runs[*other].down.id() == node.id && self.gives[*other]);
        self.gives[place] = node.gives_power || passed;
    }

    /// Whether a cord feeds a thing.
    fn has_cord(&self, id: &str) -> bool {
        self.on_cords.contains(id)
    }

    fn add_up(&mut self, place: usize) {
        let run = self.net.runs[place];
        let below = self.net.from.get(run.down.id()).cloned().unwrap_or_default();
        let below: Vec<usize> = below.into_iter().filter(|other| self.net.runs[*other].reached).collect();
        let (watts, class) = match run.down {
            Thing::Camera(camera) => {
                let rate = rate_of(camera, &self.rules);
                self.mbps[place] = [rate.mbps, rate.between[1]];
                self.cameras[place] = vec![&camera.id];
                draws(camera)
            }
            Thing::Node(node) => {
                for other in &below {
                    self.mbps[place] = [0, 1].map(|i| self.mbps[place][i] + self.mbps[*other][i]);
                    let lost = self.cameras[*other].clone();
                    self.cameras[place].extend(lost);
                }
                let beside: f64 = node.others.iter().map(|other| other.mbps).sum();
                self.mbps[place] = self.mbps[place].map(|mbps| mbps + beside);
                self.takes(node, &below)
            }
        };
        let Some(watts) = watts.filter(|_| self.gives[place] && !self.has_cord(run.down.id())) else { return };
        let class = class.or_else(|| PowerClass::for_watts(watts)).unwrap_or(8);
        let Some(of) = PowerClass::of(class) else { return };
        let ohm = loop_ohm(self.lengths[place], of.pairs);
        let found = reaches(of.source_v, ohm, watts);
        self.fed[place] = Some(Fed {
            watts,
            class: Some(class),
            loop_ohm: ohm,
            source_v: of.source_v,
            volts: found.map(|found| found.volts),
            lost_w: found.map_or(0.0, |found| found.lost_w),
        });
    }

    /// What a box takes over its own cable, W: what it passes on, and what it draws itself; none where it has another supply.
    fn takes(&self, node: &Node, below: &[usize]) -> (Option<f64>, Option<u32>) {
        let passed: f64 = below.iter().filter_map(|other| self.fed[*other]).map(|fed| fed.watts + fed.lost_w).sum();
        if node.kind.passes_power() {
            (Some(self.rules.passes_w + passed), node.power_class_in)
        } else if node.power_class_in.is_some() {
            (Some(if node.gives_power { passed } else { 0.0 }), node.power_class_in)
        } else {
            (None, None)
        }
    }

    fn feed_by_cord(&mut self, place: usize) {
        let run = self.net.runs[place];
        let Thing::Camera(camera) = run.down else { return };
        let (Some(watts), Some(volts), Some(ohm)) = (draws(camera).0, run.cable.volts, run.cable.ohm_per_m) else {
            return;
        };
        let ohm = 2.0 * ohm * self.lengths[place];
        let found = reaches(volts, ohm, watts);
        self.fed[place] = Some(Fed {
            watts,
            class: None,
            loop_ohm: ohm,
            source_v: volts,
            volts: found.map(|found| found.volts),
            lost_w: found.map_or(0.0, |found| found.lost_w),
        });
    }

    /// The extended runs of boxes that have fewer ports for them.
    fn extended_beyond(&self) -> Vec<usize> {
        let mut used: HashMap<&str, u32> = HashMap::new();
        let extended = (0..self.net.runs.len()).filter(|place| self.net.runs[*place].cable.extended);
        extended
            .filter(|place| {
                let Some(node) = self.net.runs[*place].up.node() else { return true };
                let used = used.entry(&node.id).or_default();
                *used += 1;
                *used > node.extended_ports
            })
            .collect()
    }

    fn speed(&self, run: &Run) -> Option<f64> {
        let of = |thing: Thing| thing.node().map_or(f64::INFINITY, |node| node.speed_mbps.unwrap_or(PORT_MBPS));
        match run.cable.kind {
            CableKind::Cord => None,
            _ if run.cable.extended => Some(self.rules.extended_mbps),
            // One end is a box: two cameras are not joined.
            _ => Some(of(run.up).min(of(run.down))),
        }
    }

    fn cable(&self, place: usize, no_port: bool) -> CableTold {
        let run = &self.net.runs[place];
        let (length, limit) = (self.lengths[place], limit_m(run, &self.rules));
        let sure = self.rules.sure_m;
        let mut found = Findings::default();
        if let Some(limit) = limit {
            let sure = run.cable.extended || length <= sure || !may_be_poor(run.cable);
            found.that(Verdict::of(length <= limit, sure), || match length <= limit {
                true => format!("{length:.0} m: over {sure:.0} m poor or outdoor cable may fail"),
                false => format!("{length:.0} m, {limit:.0} m at most"),
            });
        }
        if no_port {
            found.that(Verdict::Broken, || format!("{} has no extended-reach port left for it", run.up.name()));
        }
        if run.cable.kind == CableKind::Wireless {
            self.wireless(run, &mut found);
        }
        if run.cable.existing.is_some() && !run.cable.tested && run.cable.kind != CableKind::Wireless {
            found.that(Verdict::Tight, || "was there before and nobody has tested it".to_owned());
        }
        if !run.reached && run.cable.kind != CableKind::Cord {
            found.that(Verdict::Broken, || "has no way to a recorder".to_owned());
        }
        self.power_findings(place, &mut found);
        let speed = self.speed(run);
        if let Some(speed) = speed {
            let [stated, most] = self.mbps[place];
            found.that(Verdict::of(stated <= speed, most <= speed), || {
                format!("{stated:.1} Mbit/s, up to {most:.1}, over {speed:.0}")
            });
        }
        let (verdict, says) = found.told();
        let fed = self.fed[place];
        CableTold {
            id: run.cable.id.clone(),
            length_m: length,
            limit_m: limit,
            verdict,
            loop_ohm: fed.map(|fed| fed.loop_ohm),
            watts: fed.map(|fed| fed.watts),
            volts_at_device: fed.and_then(|fed| fed.volts),
            watts_lost: fed.filter(|fed| fed.volts.is_some()).map(|fed| fed.lost_w),
            mbps: self.mbps[place][0],
            speed_mbps: speed,
            says,
            cautions: cautions(run.cable),
        }
    }

    /// A wireless link holds where its signal was measured and is strong enough.
    fn wireless(&self, run: &Run, found: &mut Findings) {
        let least = self.rules.signal_dbm;
        let measured = run.cable.signal_dbm;
        found.that(measured.map_or(Verdict::Unknown, |signal| Verdict::of(signal >= least, signal >= least)), || {
            match measured {
                Some(signal) => format!("signal {signal:.0} dBm, {least:.0} at least"),
                None => format!("nobody has measured the signal at {}", run.down.name()),
            }
        });
    }

    fn power_findings(&self, place: usize, found: &mut Findings) {
        let run = &self.net.runs[place];
        let Some(fed) = self.fed[place] else {
            let wants = match run.down {
                Thing::Camera(camera) => {
                    let battery = camera.power.is_some_and(|power| power.battery_months.is_some());
                    run.cable.kind != CableKind::Cord && !self.has_cord(&camera.id) && !battery
                }
                Thing::Node(node) => node.power_class_in.is_some() || node.kind.passes_power(),
            };
            if run.cable.kind == CableKind::Cord {
                let known = run.cable.volts.is_some() && run.cable.ohm_per_m.is_some();
                found.that(if known { Verdict::Kept } else { Verdict::Unknown }, || {
                    "its volts or its ohms are not said".to_owned()
                });
            } else if wants && run.reached && !self.gives[place] {
                found.that(Verdict::Broken, || format!("nothing gives {} power", run.down.name()));
            } else if wants && run.reached {
                found.that(Verdict::Unknown, || format!("what {} draws is not said", run.down.name()));
            }
            return;
        };
        let Some(class) = fed.class else {
            let drop = fed.volts.map(|volts| (fed.source_v - volts) / fed.source_v);
            let holds = drop.is_some_and(|drop| drop <= self.rules.cord_drop_share);
            found.that(Verdict::of(holds, holds), || match drop {
                Some(drop) => format!(
                    "{:.0} % of its {} V are lost, {:.0} % at most",
                    drop * 100.0,
                    fed.source_v,
                    self.rules.cord_drop_share * 100.0
                ),
                None => "will not run: the cord takes more than there is".to_owned(),
            });
            return;
        };
        let Some(of) = PowerClass::of(class) else { return };
        if let Some(given) = run.up.node().and_then(|node| node.port_class).filter(|given| *given < class) {
            found.that(Verdict::Broken, || format!("class {class} wanted, {} gives class {given}", run.up.name()));
        }
        if fed.watts > of.device_w {
            found.that(Verdict::Broken, || format!("{:.1} W, more than class {class} may draw", fed.watts));
        }
        // At worst it draws all that its class may.
        let runs_on = |watts: f64| reaches(of.source_v, fed.loop_ohm, watts).is_some_and(|at| at.volts >= of.least_v);
        let (stated, at_worst) = (runs_on(fed.watts), runs_on(fed.watts.max(of.device_w)));
        found.that(Verdict::of(stated, at_worst), || match (fed.volts, stated) {
            (None, _) => "will not run: the cable takes more than there is".to_owned(),
            (Some(volts), false) => format!("{volts:.1} V reach it, {} V wanted", of.least_v),
            (Some(volts), true) => {
                format!("{volts:.1} V reach it; with all that class {class} may draw it does not run")
            }
        });
    }

    fn node(&self, node: &Node) -> NodeTold {
        let at = |run: &&Run| run.cable.kind.takes_a_port() && (run.up.id() == node.id || run.down.id() == node.id);
        let ports_used = (self.net.runs.iter().filter(at).count() + node.others.len()) as u32;
        let powers = self.net.from.get(node.id.as_str()).into_iter().flatten().filter_map(|place| self.fed[*place]);
        let beside = node.others.iter().fold(0.0, |sum, other| sum + other.watts);
        let (mut drawn_w, mut reserved_w) = (beside, beside);
        for fed in powers {
            drawn_w += fed.watts + fed.lost_w;
            reserved_w += fed.class.and_then(PowerClass::of).map_or(fed.watts + fed.lost_w, |of| of.source_w);
        }
        let used_at_most = 1.0 - self.rules.free_share;
        let mut found = Findings::default();
        let joins = matches!(node.kind, NodeKind::Switch | NodeKind::Recorder | NodeKind::Router);
        if let Some(ports) = node.ports {
            let free = !joins || f64::from(ports_used) <= used_at_most * f64::from(ports);
            found.that(Verdict::of(ports_used <= ports, free), || match ports_used <= ports {
                true => format!("{ports_used} of {ports} ports: less than a fifth is free"),
                false => format!("{ports_used} cables for {ports} ports"),
            });
        }
        if let Some(budget) = node.budget_w {
            found.that(Verdict::of(drawn_w <= budget, drawn_w <= used_at_most * budget), || match drawn_w <= budget {
                true => format!("{drawn_w:.1} of {budget:.0} W: less than a fifth is free"),
                false => format!("{drawn_w:.1} W are drawn, it gives {budget:.0}"),
            });
        }
        let (verdict, says) = found.told();
        NodeTold {
            id: node.id.clone(),
            ports_used,
            ports: node.ports,
            drawn_w,
            battery_h: node.battery_wh.filter(|_| drawn_w > 0.0).map(|held| held / drawn_w),
            reserved_w,
            budget_w: node.budget_w,
            verdict,
            says,
        }
    }

    fn link(&self, place: usize) -> Option<LinkTold> {
        let run = &self.net.runs[place];
        run.up.node().and(run.down.node())?;
        let (capacity_mbps, [mbps, most]) = (self.speed(run)?, self.mbps[place]);
        Some(LinkTold {
            cable: run.cable.id.clone(),
            mbps,
            capacity_mbps,
            verdict: Verdict::of(mbps <= capacity_mbps, most <= capacity_mbps),
            cameras: self.cameras[place].iter().map(|id| (*id).to_owned()).collect(),
        })
    }
}

/// How long a run may be, m.
fn limit_m(run: &Run, rules: &WiringRules) -> Option<f64> {
    let of_recorder = || [run.up, run.down].into_iter().filter_map(Thing::node).any(|n| n.kind == NodeKind::Recorder);
    let with_partner = || run.down.node().is_some_and(|node| node.kind == NodeKind::Extender);
    match run.cable.kind {
        CableKind::Fibre | CableKind::Cord | CableKind::Wireless => None,
        _ if run.cable.extended => {
            Some(if of_recorder() || with_partner() { rules.extended_pair_m } else { rules.extended_m })
        }
        _ => Some(rules.channel_m),
    }
}

/// Whether a cable may hold less than a good one indoors.
fn may_be_poor(cable: &Cable) -> bool {
    cable.kind == CableKind::Cat5e
        || cable.existing.is_some()
        || matches!(cable.way, Some(CableWay::Trench | CableWay::Air))
}

/// What whoever lays a cable takes care of (handbook, sections 8 and 12).
fn cautions(cable: &Cable) -> Vec<String> {
    let copper = !matches!(cable.kind, CableKind::Fibre | CableKind::Wireless);
    let mut said = vec![];
    match cable.way {
        Some(CableWay::Trench) => said.push("Ask where pipes and cables lie before you dig."),
        Some(CableWay::Air) => said.push("Keep clear of overhead lines; a span needs a wire that carries it."),
        _ => {}
    }
    if copper && matches!(cable.way, Some(CableWay::Trench | CableWay::Air)) {
        said.push("Outdoors: surge protection at both ends, earthed as local codes say; joints in a box of their own.");
    }
    said.into_iter().map(str::to_owned).collect()
}
