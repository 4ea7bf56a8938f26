//! Everything that is bought and brought: from the design, the wiring and the mounts, one list.

use super::spot_facts::SpotFacts;
use crate::file::{CableKind, CameraFile, Form, MountPart, PartKind, SiteFile, Surface};
use crate::wire::wired::wired;
use crate::words::sheet_text::guarded;
use serde::Serialize;
use utoipa::ToSchema;

/// Of small parts so much more is bought than is needed, at least one (common practice, no source).
const SPARE_SHARE: f64 = 0.1;
/// So much cable is on a reel, m (from memory: 1000 ft).
const REEL_M: f64 = 305.0;

/// What sort of thing it is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum MaterialKind {
    /// A camera.
    Camera,
    /// A part of a mount.
    Mount,
    /// A box of the network.
    Box,
    /// Cable.
    Cable,
    /// Screws, seals, plugs.
    Small,
    /// What has to be bought with something else.
    With,
}

impl MaterialKind {
    /// The word for it.
    pub fn word(self) -> &'static str {
        match self {
            MaterialKind::Camera => "camera",
            MaterialKind::Mount => "mount",
            MaterialKind::Box => "box",
            MaterialKind::Cable => "cable",
            MaterialKind::Small => "small parts",
            MaterialKind::With => "bought with it",
        }
    }
}

/// A line of the list.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Material {
    /// What it is.
    pub what: String,
    /// What sort of thing it is.
    pub kind: MaterialKind,
    /// How much is needed.
    pub needed: f64,
    /// How much more is brought.
    pub spare: f64,
    /// `m` for metres, empty for pieces.
    pub unit: &'static str,
    /// Where it goes: names of cameras and boxes.
    pub goes_to: Vec<String>,
    /// What one costs; null where nobody says.
    #[schema(required)]
    pub price: Option<f64>,
    /// What all of it costs.
    #[schema(required)]
    pub total: Option<f64>,
}

/// The list.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Materials {
    /// What is bought.
    pub bought: Vec<Material>,
    /// What is there already.
    pub there: Vec<Material>,
    /// What all that has a price costs together.
    pub price: f64,
    /// How many lines have no price.
    pub unpriced: usize,
}

/// Puts lines of the same thing together.
#[derive(Default)]
struct List(Vec<Material>);

impl List {
    fn add(&mut self, kind: MaterialKind, what: &str, count: f64, to: &str, price: Option<f64>) {
        if count <= 0.0 {
            return;
        }
        if let Some(held) = self.0.iter_mut().find(|held| held.what == what && held.kind == kind) {
            held.needed += count;
            if !held.goes_to.iter().any(|name| name == to) {
                held.goes_to.push(to.to_owned());
            }
            return;
        }
        let unit = if kind == MaterialKind::Cable { "m" } else { "" };
        let goes_to = vec![to.to_owned()];
        self.0.push(Material {
            what: what.to_owned(),
            kind,
            needed: count,
            spare: 0.0,
            unit,
            goes_to,
            price,
            total: None,
        });
    }

    fn finished(mut self) -> Vec<Material> {
        for one in &mut self.0 {
            if one.kind == MaterialKind::Small {
                one.spare = (one.needed * SPARE_SHARE).ceil();
            }
            if one.kind == MaterialKind::Cable {
                one.needed = one.needed.ceil();
                let reels = (one.needed / REEL_M).ceil();
                one.what = format!(
                    "{} ({reels:.0} {} of {REEL_M:.0} m)",
                    one.what,
                    if reels == 1.0 { "reel" } else { "reels" }
                );
            }
            one.total = one.price.map(|price| price * (one.needed + one.spare));
        }
        self.0.sort_by_key(|one| one.kind);
        self.0
    }
}

/// All that a site takes.
///
/// ```
/// use bright_angle_core::{file::SiteFile, fit::materials::materials};
/// assert!(materials(&SiteFile::empty("A yard")).bought.is_empty());
/// ```
pub fn materials(site: &SiteFile) -> Materials {
    let all: Vec<&str> = site.cameras.iter().map(|camera| camera.id.as_str()).collect();
    list(site, &all, true)
}

/// What is packed for a visit to some cameras: without cables and boxes, which are there by then.
pub fn packing(site: &SiteFile, cameras: &[&str]) -> Vec<Material> {
    list(site, cameras, false).bought
}

fn list(site: &SiteFile, cameras: &[&str], with_wiring: bool) -> Materials {
    let (mut bought, mut there) = (List::default(), List::default());
    for camera in site.cameras.iter().filter(|camera| !camera.goes() && cameras.contains(&camera.id.as_str())) {
        let to = if camera.is_bought() { &mut bought } else { &mut there };
        to.add(MaterialKind::Camera, &camera.model.name, 1.0, &camera.name, camera.model.price);
        if camera.existing != Some(crate::file::Existing::Stays) {
            mounted(&SpotFacts::of(site, camera), &mut bought);
        }
    }
    if with_wiring {
        wiring(site, &mut bought, &mut there);
    }
    let bought = bought.finished();
    Materials {
        price: bought.iter().filter_map(|one| one.total).fold(0.0, |sum, total| sum + total),
        unpriced: bought.iter().filter(|one| one.total.is_none()).count(),
        bought,
        there: there.finished(),
    }
}

/// What one camera's mount takes.
fn mounted(facts: &SpotFacts, to: &mut List) {
    let camera: &CameraFile = facts.camera;
    let name = &camera.name;
    let parts = facts.parts();
    for part in parts {
        to.add(MaterialKind::Mount, &part.name, 1.0, name, part.price);
        // What is there as a part of its own is not bought twice.
        let missing = part.bought_with.iter().filter(|other| !parts.iter().any(|part| stands_for(part, other)));
        missing.for_each(|other| to.add(MaterialKind::With, other, 1.0, name, None));
    }
    if facts.wants_back_box() && !parts.iter().any(|part| part.holds_tails) {
        let what = camera.model.back_box.as_deref().unwrap_or("Back box");
        to.add(MaterialKind::Mount, what, 1.0, name, None);
    }
    let screws = f64::from(facts.screws());
    let anchors = match facts.surface {
        Some(Surface::Wood) => "Screws for wood".to_owned(),
        Some(Surface::Steel) if facts.has(PartKind::PoleStrap) => String::new(),
        Some(surface) => format!("Anchors with screws for {}", surface.word()),
        None => "Anchors with screws, surface not named".to_owned(),
    };
    if !anchors.is_empty() {
        to.add(MaterialKind::Small, &anchors, screws, name, None);
    }
    let housed = facts.is_housed();
    if !housed {
        to.add(MaterialKind::Small, "Lanyard", 1.0, name, None);
    }
    to.add(MaterialKind::Small, "Desiccant bag", 1.0, name, None);
    if camera.model.card_gb.unwrap_or(0) > 0 {
        // A card a head.
        let cards = if camera.model.form == Form::MultiHead { camera.heads.len() as f64 } else { 1.0 };
        to.add(MaterialKind::Small, "Memory card, class 10 or better", cards, name, None);
    }
    if facts.outdoor && !facts.wireless {
        to.add(MaterialKind::Small, "Weather boot for the plug", 1.0, name, None);
    }
    let holes = camera.mount.as_ref().and_then(|mount| mount.seal_holes).unwrap_or(1);
    to.add(MaterialKind::Small, "Plug for a seal's hole", f64::from(holes) - facts.cables as f64, name, None);
}

/// Whether a part is what another one has to be bought with.
fn stands_for(part: &MountPart, other: &str) -> bool {
    part.name == other || (part.kind == PartKind::Cap && other.starts_with("Pendant cap"))
}

/// Cables, their plugs and the boxes.
fn wiring(site: &SiteFile, bought: &mut List, there: &mut List) {
    let Some(network) = &site.network else { return };
    let told = wired(site);
    let named = |id: &str| {
        let camera = site.cameras.iter().find(|camera| camera.id == id).map(|camera| camera.name.clone());
        camera
            .or_else(|| network.nodes.iter().find(|node| node.id == id).map(|node| node.name.clone()))
            .unwrap_or_default()
    };
    for node in &network.nodes {
        let to = if node.existing.is_none() { &mut *bought } else { &mut *there };
        if node.existing != Some(crate::file::Existing::Goes) {
            to.add(MaterialKind::Box, &node.name, 1.0, &node.name, None);
        }
    }
    for cable in &network.cables {
        let Some(length) = told.cables.iter().find(|one| one.id == cable.id).map(|one| one.length_m) else { continue };
        let (what, plugs) = match cable.kind {
            CableKind::Cat5e => ("Cable, category 5e", true),
            CableKind::Cat6 => ("Cable, category 6", true),
            CableKind::Cat6a => ("Cable, category 6A", true),
            CableKind::Fibre => ("Fibre, two strands", false),
            CableKind::Cord => ("Cord for power", false),
            CableKind::Wireless => continue,
        };
        let goes_to = format!("{} – {}", named(&cable.from), named(&cable.to));
        match cable.existing {
            None => {
                bought.add(MaterialKind::Cable, what, length, &goes_to, None);
                bought.add(
                    MaterialKind::Small,
                    "Plug for network cable",
                    if plugs { 2.0 } else { 0.0 },
                    &goes_to,
                    None,
                );
                bought.add(MaterialKind::Small, "Label for a cable's end", 2.0, &goes_to, None);
            }
            Some(crate::file::Existing::Goes) => {}
            Some(_) => there.add(MaterialKind::Cable, what, length, &goes_to, None),
        }
    }
}

/// The list as a table.
pub fn materials_csv(materials: &Materials) -> String {
    let mut out = csv::Writer::from_writer(Vec::new());
    let number = |value: Option<f64>| value.map(|value| value.to_string()).unwrap_or_default();
    // Writing to memory cannot fail.
    let _ = out.write_record(["what", "kind", "needed", "spare", "unit", "price", "total", "goes_to", "there"]);
    let lines = materials.bought.iter().map(|one| (one, "no")).chain(materials.there.iter().map(|one| (one, "yes")));
    for (one, is_there) in lines {
        let _ = out.write_record([
            guarded(&one.what),
            one.kind.word().to_owned(),
            one.needed.to_string(),
            one.spare.to_string(),
            one.unit.to_owned(),
            number(one.price),
            number(one.total),
            guarded(&one.goes_to.join("; ")),
            is_there.to_owned(),
        ]);
    }
    String::from_utf8(out.into_inner().unwrap_or_default()).unwrap_or_default()
}
