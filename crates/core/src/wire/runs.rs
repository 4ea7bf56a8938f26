//! The way of each camera, from the recorder to it, with the worst that is on it.

use super::net::Net;
use super::rate::rate_of;
use super::told::{CableTold, NodeTold, RunTold};
use crate::file::{CableKind, CameraFile, SiteFile};
use crate::verdict::Verdict;
use std::collections::HashMap;

/// The runs of all cameras that stay, in the site's order; none on a site without cables.
pub(super) fn runs(site: &SiteFile, net: &Net, cables: &[CableTold], nodes: &[NodeTold]) -> Vec<RunTold> {
    let mut to: HashMap<&str, usize> = HashMap::new();
    for place in &net.order {
        to.insert(net.runs[*place].down.id(), *place);
    }
    let cords = (0..net.runs.len()).filter(|place| net.runs[*place].cable.kind == CableKind::Cord);
    let cords: HashMap<&str, usize> = cords.map(|place| (net.runs[place].down.id(), place)).collect();
    let nodes: HashMap<&str, &NodeTold> = nodes.iter().map(|node| (node.id.as_str(), node)).collect();
    let run = |camera: &CameraFile| {
        let mut on_way = vec![];
        let mut boxes = vec![];
        let mut at = camera.id.as_str();
        while let Some(place) = to.get(at).copied() {
            on_way.push(place);
            at = net.runs[place].up.id();
            boxes.push(at);
        }
        on_way.reverse();
        boxes.reverse();
        let length_m = on_way.iter().map(|place| cables[*place].length_m).sum();
        let unwired = on_way.is_empty();
        on_way.extend(cords.get(camera.id.as_str()));
        let of_cables = on_way.iter().map(|place| &cables[*place]);
        let of_cables = of_cables.map(|told| (told.verdict, told.id.clone(), &told.says));
        let of_boxes = boxes.iter().filter_map(|id| nodes.get(id));
        let of_boxes = of_boxes.map(|told| (told.verdict, named(net, &told.id), &told.says));
        let mut found: Vec<_> = of_cables.chain(of_boxes).filter(|(verdict, ..)| *verdict != Verdict::Kept).collect();
        found.sort_by_key(|(verdict, ..)| std::cmp::Reverse(*verdict));
        let worst = found.first().map_or(Verdict::Kept, |(verdict, ..)| *verdict);
        let mut says: Vec<String> =
            found.iter().flat_map(|(_, name, says)| says.iter().map(move |said| format!("{name}: {said}"))).collect();
        if unwired {
            says = vec!["has no way to a recorder yet".to_owned()];
        }
        let rate = rate_of(camera, &site.rules.wiring);
        RunTold {
            camera: camera.id.clone(),
            verdict: if unwired { Verdict::Unknown } else { worst },
            cables: on_way.iter().map(|place| net.runs[*place].cable.id.clone()).collect(),
            nodes: boxes.into_iter().map(str::to_owned).collect(),
            length_m,
            mbps: rate.mbps,
            most_mbps: rate.between[1],
            says,
        }
    };
    site.cameras.iter().filter(|camera| !camera.goes()).map(run).collect()
}

/// What a box is called.
fn named(net: &Net, id: &str) -> String {
    let ends = net.runs.iter().flat_map(|run| [run.up, run.down]);
    ends.into_iter().find(|thing| thing.id() == id).map_or(id, |thing| thing.name()).to_owned()
}
