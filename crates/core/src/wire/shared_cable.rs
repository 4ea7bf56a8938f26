//! Who hangs behind one cable: cameras that one cut takes away together (handbook, section 4).
//!
//! A cable that feeds a box which lives on it (an extender, a repeater, an injector, a switch fed through its cable) carries all that hang
//! behind that box. A switch, router or recorder with a supply of its own is told by what fails with it, not here: where all cameras of a
//! house meet in one switch, that switch's uplink would make every back-up worthless.

use super::net::{Net, Thing};
use crate::file::{NodeKind, SiteFile};
use std::collections::HashMap;

/// For each camera of a file the place of the first one that hangs behind the same cable: its own where it shares none.
///
/// ```
/// use bright_angle_core::{file::SiteFile, wire::shared_cable::behind_one_cable};
/// assert!(behind_one_cable(&SiteFile::empty("Yard")).is_empty());
/// ```
pub fn behind_one_cable(site: &SiteFile) -> Vec<usize> {
    let mut own: Vec<usize> = (0..site.cameras.len()).collect();
    let net = Net::of(site);
    let above: HashMap<&str, usize> = net.order.iter().map(|place| (net.runs[*place].down.id(), *place)).collect();
    let mut first: HashMap<usize, usize> = HashMap::new();
    for (place, camera) in site.cameras.iter().enumerate() {
        let Some(mut run) = above.get(camera.id.as_str()).copied() else { continue };
        while lives_on_its_cable(net.runs[run].up) {
            let Some(next) = above.get(net.runs[run].up.id()) else { break };
            run = *next;
        }
        own[place] = *first.entry(run).or_insert(place);
    }
    own
}

/// Whether a box takes its power from the cable that leads to it.
fn lives_on_its_cable(thing: Thing) -> bool {
    thing.node().is_some_and(|node| match node.kind {
        NodeKind::Extender | NodeKind::Repeater | NodeKind::Injector => true,
        NodeKind::Switch => node.power_class_in.is_some(),
        NodeKind::Recorder | NodeKind::Router | NodeKind::Outlet => false,
    })
}
