//! A lamp more, where light is what is missing by night.

use super::desk::Desk;
use super::rank::{Rank, compare_sites};
use super::way::{Measures, Way, WayKind};
use crate::change::edits::fresh_id;
use crate::file::{Lamp, ListChange, PatchOp, SiteChange};
use crate::judge::sight_line::not_kept;
use crate::verdict::{RuleName, Verdict};
use crate::words::units::Units;
use serde_json::json;
use std::f64::consts::TAU;

/// Lamps that one buys for a yard, lm; common practice, no source.
const LUMENS: [f64; 7] = [500.0, 1000.0, 2000.0, 4000.0, 8000.0, 15_000.0, 30_000.0];
/// A lamp hangs so far over its camera, m: out of its picture, behind its lens.
const OVER_M: f64 = 0.5;
/// What it takes: a fitting and a cable for it (our scale: a new camera takes 7).
const EFFORT: f64 = 4.2;
/// So many sight lines judged anew cost as much as a look at a sample.
const LINES_A_LOOK: usize = 2;

/// The least lamp over the camera that, in the light of everything else, keeps the promise; only where the night is too dark for it.
pub fn one_more_lamp(desk: &Desk, units: Units) -> Option<(Rank, Way)> {
    let file = desk.site.file();
    let target = desk.target();
    let head = desk.head(desk.camera());
    let dark = desk.looking(&head, |viewer| not_kept(viewer, target));
    let least = head.light().least_lux.filter(|_| file.conditions.night && dark.contains(&RuleName::LightEnough))?;
    let camera = desk.camera();
    let (height, eye) = (camera.height_m + OVER_M, camera.eye());
    // Lamps that give less than the farthest sample needs are not tried: E = Φ/2π·cos θ/d².
    let needed = |at: &glam::DVec3| {
        let step = eye + glam::DVec3::Z * OVER_M - *at;
        let cosine = step.truncate().length() / step.length();
        least * head.light().times * TAU * step.length_squared() / cosine.max(1e-3)
    };
    let needed = target.samples.iter().map(needed).fold(0.0, f64::max);
    let id = fresh_id("l", file.lamps.iter().map(|lamp| lamp.id.as_str()));
    let lines = desk.site.heads().len() * desk.site.targets().len();
    LUMENS.into_iter().filter(|lumens| *lumens >= needed).take(3).find_map(|lumens| {
        desk.budget.next_search();
        if !desk.budget.pay_whole(1 + lines / LINES_A_LOOK) {
            return None;
        }
        let name = format!("Lamp over {}", camera.name);
        let lamp = Lamp {
            id: id.clone(),
            name,
            position: camera.position,
            height_m: height,
            lumens,
            ground_m: camera.ground_m,
        };
        let mut session = desk.session.clone();
        let order = file.lamps.iter().map(|lamp| lamp.id.clone()).chain([id.clone()]).collect();
        let lamps = Some(ListChange { order: Some(order), put: vec![lamp.clone()] });
        session.apply(SiteChange { lamps, ..SiteChange::default() }).ok()?;
        let (rank, effects) = compare_sites(EFFORT, desk.site, desk.session.results(), session.results());
        let keeps = effects.iter().any(|effect| effect.target == target.id && effect.after == Verdict::Kept);
        let path = if file.lamps.is_empty() { "/lamps" } else { "/lamps/-" };
        let value = if file.lamps.is_empty() { json!([lamp]) } else { json!(lamp) };
        let way = Way {
            kind: WayKind::Lamp,
            says: format!("Add a lamp of {lumens:.0} lumens over {}, {} up", camera.name, units.length(height)),
            why: "the night is what is too dark here · a fitting and its cable: a licensed electrician".to_owned(),
            head: head.name(),
            target: Some(target.id.clone()),
            measures: Measures::default(),
            patch: vec![PatchOp { op: "add", path: path.to_owned(), value: Some(value) }],
            effects,
            harms: rank.harms(),
        };
        keeps.then_some((rank, way))
    })
}
