//! What a switch and a recorder report, held against what is planned.

use super::net::Net;
use super::power::loop_ohm;
use super::sheet::ports;
use super::store::store;
use super::wired::wired;
use crate::equipment::power_class::PowerClass;
use crate::file::{CableKind, Fault, FaultCode, SiteFile};
use crate::verdict::Verdict;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A port's power may differ by this share and so many watts before it is told (common practice, no source).
const POWER_OFF: f64 = 0.25;
const POWER_OFF_W: f64 = 1.0;
/// A cable's measured length may differ by this share and so many metres (common practice, no source).
const LENGTH_OFF: f64 = 0.15;
const LENGTH_OFF_M: f64 = 5.0;
/// The bytes that a recorder stores in a day may differ by this share (common practice, no source).
const STORED_OFF: f64 = 0.3;

/// What a switch reports.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SwitchReport {
    /// What it calls itself.
    pub name: String,
    /// Its ports.
    pub ports: Vec<PortReport>,
    /// What is stored in a day, GB; null where it is no recorder.
    #[serde(default)]
    pub stored_gb_per_day: Option<f64>,
}

/// What a switch reports of a port.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PortReport {
    /// The port, from 1.
    pub port: usize,
    /// How fast its link is, Mbit/s; 0 where there is none.
    pub link_mbps: f64,
    /// What it gives, W.
    pub watts: f64,
    /// The length of its cable as its test measures it, m.
    #[serde(default)]
    pub length_m: Option<f64>,
    /// Where that test finds a bad joint, m from the switch.
    #[serde(default)]
    pub joint_m: Option<f64>,
    /// Whether the port turned power off because it gave all that it can.
    #[serde(default)]
    pub overload: bool,
}

/// What differs at a port, or at the recorder.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Differs {
    /// The port; null for the box itself.
    #[schema(required)]
    pub port: Option<usize>,
    /// The cable there; null where none is planned.
    #[schema(required)]
    pub cable: Option<String>,
    /// What hangs on it.
    #[schema(required)]
    pub name: Option<String>,
    /// How bad it is.
    pub verdict: Verdict,
    /// What differs, in words.
    pub says: String,
}

/// What is planned at a port of a box.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Planned {
    /// The port, from 1.
    pub port: usize,
    /// The cable there, m.
    pub length_m: f64,
    /// What the port gives, W.
    pub watts: f64,
    /// The speed of its link, Mbit/s.
    pub mbps: f64,
}

/// What is planned at the ports of a box, in their order.
pub fn planned(site: &SiteFile, node: &str) -> Vec<Planned> {
    let (net, told) = (Net::of(site), wired(site));
    let ports = ports(&net);
    let at = |cable: &super::told::CableTold| {
        let port = *ports.get(&(node, cable.id.as_str()))?;
        let up = net.runs.iter().any(|run| run.cable.id == cable.id && run.up.id() == node);
        let watts = if up { cable.watts.unwrap_or(0.0) + cable.watts_lost.unwrap_or(0.0) } else { 0.0 };
        Some(Planned { port, length_m: cable.length_m, watts, mbps: cable.speed_mbps.unwrap_or(0.0) })
    };
    let mut found: Vec<Planned> = told.cables.iter().filter_map(at).collect();
    found.sort_by_key(|planned| planned.port);
    found
}

/// What differs between what a box reports and what is planned for it, the worst first; nothing where all is as planned.
///
/// # Errors
/// Names the box that the network does not have.
pub fn differs(site: &SiteFile, node: &str, report: &SwitchReport) -> Result<Vec<Differs>, Fault> {
    let nodes = site.network.iter().flat_map(|network| &network.nodes);
    let of = nodes.into_iter().find(|held| held.id == node);
    let of = of.ok_or_else(|| Fault::new("node", format!("the network has no \"{node}\"")).of(FaultCode::UnknownId))?;
    let (net, told) = (Net::of(site), wired(site));
    let ports = ports(&net);
    let mut found = vec![];
    for port in &report.ports {
        let run = net.runs.iter().enumerate().find(|(_, run)| {
            run.cable.kind != CableKind::Cord && ports.get(&(node, run.cable.id.as_str())) == Some(&port.port)
        });
        let Some((_, run)) = run else {
            if port.link_mbps > 0.0 || port.watts > 0.0 {
                found.push(Differs {
                    port: Some(port.port),
                    cable: None,
                    name: None,
                    verdict: Verdict::Unknown,
                    says: "something hangs on it that is not planned".to_owned(),
                });
            }
            continue;
        };
        let other = if run.up.id() == node { run.down } else { run.up };
        let Some(cable) = told.cables.iter().find(|cable| cable.id == run.cable.id) else { continue };
        let mut say = |verdict: Verdict, says: String| {
            let (id, name) = (run.cable.id.clone(), other.name().to_owned());
            found.push(Differs { port: Some(port.port), cable: Some(id), name: Some(name), verdict, says });
        };
        if let Some(joint) = port.joint_m {
            say(Verdict::Broken, format!("bad joint {joint:.0} m from {}", of.name));
        }
        if port.overload {
            say(Verdict::Broken, "the port turned power off: it gave all that it can".to_owned());
        }
        let planned = cable.speed_mbps.unwrap_or(0.0);
        if port.link_mbps <= 0.0 {
            say(Verdict::Broken, "no link".to_owned());
        } else if port.link_mbps < planned && port.link_mbps < 1000.0 && run.down.node().is_some() {
            say(Verdict::Broken, format!("linked at {:.0} Mbit/s, {planned:.0} planned", port.link_mbps));
        } else if port.link_mbps < cable.mbps {
            say(Verdict::Broken, format!("linked at {:.0} Mbit/s, {:.1} go over it", port.link_mbps, cable.mbps));
        } else if port.link_mbps < planned.min(100.0) {
            say(Verdict::Tight, format!("linked at {:.0} Mbit/s, {:.0} planned", port.link_mbps, planned.min(100.0)));
        }
        if run.up.id() == node
            && let (Some(watts), Some(lost)) = (cable.watts, cable.watts_lost)
        {
            let planned = watts + lost;
            let off = port.watts - planned;
            if off.abs() > (POWER_OFF * planned).max(POWER_OFF_W) && port.link_mbps > 0.0 {
                let verdict = if off > 0.0 { Verdict::Tight } else { Verdict::Unknown };
                say(verdict, format!("{:.1} W are drawn, {planned:.1} planned", port.watts));
            }
        }
        if let Some(length) = port.length_m {
            let off = (length - cable.length_m).abs();
            if off > (LENGTH_OFF * cable.length_m).max(LENGTH_OFF_M) {
                let limit = cable.limit_m.unwrap_or(f64::INFINITY);
                let verdict = if length > limit { Verdict::Broken } else { Verdict::Tight };
                let class = PowerClass::of(3).map_or(2, |of| of.pairs);
                let ohm = loop_ohm(length, class);
                say(verdict, format!("the cable measures {length:.0} m ({ohm:.1} Ω), {:.0} planned", cable.length_m));
            }
        }
    }
    for run in net.runs.iter().filter(|run| run.up.id() == node && run.cable.kind != CableKind::Cord) {
        let port = ports.get(&(node, run.cable.id.as_str())).copied();
        if port.is_some_and(|port| !report.ports.iter().any(|told| told.port == port)) {
            found.push(Differs {
                port,
                cable: Some(run.cable.id.clone()),
                name: Some(run.down.name().to_owned()),
                verdict: Verdict::Broken,
                says: "nothing is reported of this port".to_owned(),
            });
        }
    }
    if let Some(stored) = report.stored_gb_per_day {
        let planned = store(site).gb_per_day;
        if planned > 0.0 && (stored - planned).abs() > STORED_OFF * planned {
            let verdict = if stored > planned { Verdict::Tight } else { Verdict::Unknown };
            let says = format!("{stored:.0} GB are stored in a day, {planned:.0} planned");
            found.push(Differs { port: None, cable: None, name: None, verdict, says });
        }
    }
    found.sort_by_key(|found| (std::cmp::Reverse(found.verdict), found.port));
    Ok(found)
}
