//! The wiring as tables: cable schedule, port list, labels, materials.

use crate::file::{CableKind, CableWay, Existing, Fault, SiteFile};
use crate::verdict::Verdict;
use crate::wire::sheet::{kind_name, network_sheet};
use crate::wire::wired::wired;
use std::collections::BTreeMap;

/// Cables one by one: from, to, kind, how it goes, length, limit, verdict and what is wrong.
///
/// # Errors
/// The table cannot be written.
pub fn cable_schedule(site: &SiteFile) -> Result<String, Fault> {
    let told = wired(site);
    let names = names(site);
    let name = |id: &str| names.get(id).cloned().unwrap_or_else(|| id.to_owned());
    let mut rows = vec![];
    for told in &told.cables {
        let Some(cable) = site.network.iter().flat_map(|n| &n.cables).find(|cable| cable.id == told.id) else {
            continue;
        };
        rows.push(vec![
            cable.id.clone(),
            name(&cable.from),
            name(&cable.to),
            kind_of(cable.kind).to_owned(),
            cable.way.map_or("", way_of).to_owned(),
            figure(Some(told.length_m), 1),
            figure(told.limit_m, 0),
            figure(told.watts, 1),
            figure(told.volts_at_device, 1),
            figure(Some(told.mbps), 1),
            verdict_of(told.verdict).to_owned(),
            told.says.join("; "),
        ]);
    }
    let heads =
        ["cable", "from", "to", "kind", "goes", "length_m", "limit_m", "watts", "volts", "mbps", "verdict", "says"];
    written(&heads, rows)
}

/// Devices with address, box, port, class and load.
///
/// # Errors
/// The table cannot be written.
pub fn port_list(site: &SiteFile) -> Result<String, Fault> {
    let names = names(site);
    let rows = network_sheet(site).rows.into_iter().map(|row| {
        vec![
            row.name,
            row.model,
            row.address.unwrap_or_default(),
            if row.planned { "planned" } else { "noted" }.to_owned(),
            row.hardware.unwrap_or_default(),
            row.on.map(|on| names.get(&on).cloned().unwrap_or(on)).unwrap_or_default(),
            row.port.map(|port| port.to_string()).unwrap_or_default(),
            row.class.map(|class| class.to_string()).unwrap_or_default(),
            figure(row.watts, 1),
            figure(Some(row.mbps), 1),
            row.settings.join("; "),
            if row.password_changed { "yes" } else { "no" }.to_owned(),
            row.firmware.unwrap_or_default(),
        ]
    });
    let heads = [
        "name",
        "model",
        "address",
        "address_is",
        "hardware",
        "on",
        "port",
        "class",
        "watts",
        "mbps",
        "settings",
        "password_changed",
        "firmware",
    ];
    written(&heads, rows.collect())
}

/// A label for either end of every cable.
///
/// # Errors
/// The table cannot be written.
pub fn labels(site: &SiteFile) -> Result<String, Fault> {
    let rows = network_sheet(site).labels.into_iter();
    let rows = rows.map(|label| vec![label.cable, label.here, label.there, figure(Some(label.length_m), 0)]);
    written(&["cable", "here", "there", "length_m"], rows.collect())
}

/// What is bought: metres of each kind of cable, boxes, surge protection; what is there already is not in it.
///
/// # Errors
/// The table cannot be written.
pub fn materials(site: &SiteFile) -> Result<String, Fault> {
    let told = wired(site);
    let mut found: BTreeMap<(String, &str), f64> = BTreeMap::new();
    let network = site.network.clone().unwrap_or_default();
    let is_new = |existing: Option<Existing>| existing.is_none();
    for cable in network.cables.iter().filter(|cable| is_new(cable.existing) && cable.kind != CableKind::Wireless) {
        let Some(told) = told.cables.iter().find(|told| told.id == cable.id) else { continue };
        let outdoors = matches!(cable.way, Some(CableWay::Trench | CableWay::Air));
        let name = format!("{}{}", kind_of(cable.kind), if outdoors { ", outdoor" } else { "" });
        *found.entry((name, "m")).or_default() += told.length_m;
        if outdoors && !matches!(cable.kind, CableKind::Fibre | CableKind::Cord) {
            *found.entry(("Surge protector".to_owned(), "pieces")).or_default() += 2.0;
        }
        if !matches!(cable.kind, CableKind::Fibre | CableKind::Cord) {
            *found.entry(("Plug, 8 contacts".to_owned(), "pieces")).or_default() += 2.0;
        }
    }
    for node in network.nodes.iter().filter(|node| is_new(node.existing)) {
        let kind = kind_name(node.kind);
        let ports = node.ports.map(|ports| format!(", {ports} ports")).unwrap_or_default();
        let watts = node.budget_w.map(|watts| format!(", {watts:.0} W")).unwrap_or_default();
        let disk = node.disk_gb.map(|disk| format!(", {disk:.0} GB")).unwrap_or_default();
        *found.entry((format!("{kind}{ports}{watts}{disk}"), "pieces")).or_default() += 1.0;
    }
    let rows = found.into_iter().map(|((what, unit), many)| vec![what, format!("{:.0}", many.ceil()), unit.to_owned()]);
    written(&["what", "quantity", "unit"], rows.collect())
}

fn names(site: &SiteFile) -> BTreeMap<String, String> {
    let nodes = site.network.iter().flat_map(|network| &network.nodes).map(|node| (node.id.clone(), node.name.clone()));
    nodes.chain(site.cameras.iter().map(|camera| (camera.id.clone(), camera.name.clone()))).collect()
}

fn figure(value: Option<f64>, decimals: usize) -> String {
    value.map(|value| format!("{value:.decimals$}")).unwrap_or_default()
}

/// What a kind of cable is called.
pub fn kind_of(kind: CableKind) -> &'static str {
    match kind {
        CableKind::Cat5e => "Cat 5e",
        CableKind::Cat6 => "Cat 6",
        CableKind::Cat6a => "Cat 6A",
        CableKind::Fibre => "Fibre",
        CableKind::Cord => "Cord",
        CableKind::Wireless => "Wireless",
    }
}

fn way_of(way: CableWay) -> &'static str {
    match way {
        CableWay::Wall => "wall",
        CableWay::Ceiling => "ceiling",
        CableWay::Conduit => "conduit",
        CableWay::Trench => "trench",
        CableWay::Air => "air",
    }
}

fn verdict_of(verdict: Verdict) -> &'static str {
    match verdict {
        Verdict::Kept => "kept",
        Verdict::Tight => "tight",
        Verdict::Unknown => "unknown",
        Verdict::Broken => "broken",
    }
}

fn written(heads: &[&str], rows: Vec<Vec<String>>) -> Result<String, Fault> {
    let mut to = csv::Writer::from_writer(vec![]);
    let failed = |error: String| Fault::new("", error);
    to.write_record(heads).map_err(|error| failed(error.to_string()))?;
    for row in rows {
        // A sheet must not take a name for a formula.
        let cells = row.into_iter().map(|cell| match cell.chars().next() {
            Some('=' | '+' | '@') => format!("'{cell}"),
            _ => cell,
        });
        to.write_record(cells).map_err(|error| failed(error.to_string()))?;
    }
    let bytes = to.into_inner().map_err(|error| failed(error.to_string()))?;
    String::from_utf8(bytes).map_err(|error| failed(error.to_string()))
}
