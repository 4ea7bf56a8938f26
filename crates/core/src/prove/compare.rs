//! A later picture against the reference: whether the camera moved, is out of focus, veiled, hidden or darker. Names and meanings: the
//! site-file contract, *Compare*.
//!
//! Both are laid on each other as the camera turned between them; then each tile of the later one is held against what the reference has
//! there. What light alone does (another hour, shadows, rain, noise) changes none of what is looked at: which way slopes run, contrast over
//! mean, fine slopes over coarse ones.

use super::connected::connected;
use super::plane::Plane;
use super::register::{Registered, register};
use super::shot::Shot;
use super::tiles::{Looked, Sharpness, TILE, Tile, Tiles, tiles};
use super::turned::{Pinhole, Turned};
use crate::file::{Compared, Differs, Fault, HiddenTiles, Moved, ProvingRules, Region};

/// Pictures are looked at so wide, px; smaller ones than that below tell too little.
pub(super) const WIDE: usize = 640;
const LEAST_PX: [usize; 2] = [160, 90];
/// Fields that a pinhole can have, degrees.
const FIELDS_DEG: std::ops::RangeInclusive<f64> = 1.0..=150.0;
/// Where nothing of the reference is found again: contrast of its own says that it looks elsewhere; a picture this light is blinded.
const OF_ITS_OWN: f64 = 0.4;
const BLINDED: f64 = 235.0;
/// What is out of focus has less contrast for that alone: then hazed is what has less than this share of the limit.
const SOFT_TOO: f64 = 0.8;
/// They are laid on each other at that scale, else at a half or a quarter of it: a picture out of focus is found again in the coarse.
const PARTS: [usize; 3] = [1, 2, 4];
/// Under this mean distance of colours from grey a picture has none; over that it has.
const GREY: f64 = 0.012;
const COLOURED: f64 = 0.035;
/// A picture outside this mean is black or white, 0 to 255.
const LIGHT: std::ops::RangeInclusive<f64> = 12.0..=243.0;

/// Compares a later picture of one camera with the reference, by the pinhole of so many degrees across.
///
/// # Errors
/// Pictures of two sizes, too small ones, a field that no pinhole has, one with colours against one without.
pub fn compare(reference: &Shot, later: &Shot, hfov_deg: f64, limits: &ProvingRules) -> Result<Compared, Fault> {
    comparable(reference, later, hfov_deg)?;
    let greys = [reference.grey(), later.grey()];
    let width = WIDE.min(later.width);
    let height = (width * later.height / later.width).max(TILE);
    let [first, second] =
        [(reference, &greys[0]), (later, &greys[1])].map(|(shot, grey)| Looked::at(shot, grey, width, height));
    let colours = [first.colour(), second.colour()];
    // What is black or white all over has no colours by day either.
    let tells = [&first, &second].iter().all(|of| LIGHT.contains(&level(&of.grey).0));
    if tells && colours.iter().any(|colour| *colour < GREY) && colours.iter().any(|colour| *colour > COLOURED) {
        let says = "has colours where the reference has none, or none where that has: compare day with day, and night with night";
        return Err(Fault::new("later", says));
    }
    let pinhole = Pinhole::new(width, height, hfov_deg);
    let found = found_again(&first.grey, &second.grey, hfov_deg);
    let sharp = greys.each_ref().map(Sharpness::of);
    let map = found.map_or(Turned::default(), |found| found.turned).map(&pinhole);
    let tiles = tiles(&first, &second, [&sharp[0], &sharp[1]], &map)
        .ok_or_else(|| Fault::new("later", "cannot be laid on the reference"))?;
    let turned = found.map(|found| found.turned);
    Ok(told([&first, &second], turned, &pinhole, &tiles, [later.width, later.height], limits))
}

/// Whether two pictures can be compared at all: of one size, large enough, by a field that a pinhole has.
pub(super) fn comparable(reference: &Shot, later: &Shot, hfov_deg: f64) -> Result<(), Fault> {
    let size = [later.width, later.height];
    if [reference.width, reference.height] != size {
        let says = format!(
            "is {} × {} px, and the reference {} × {}: compare pictures of one camera at one setting",
            later.width, later.height, reference.width, reference.height
        );
        return Err(Fault::new("later", says));
    }
    if size[0] < LEAST_PX[0] || size[1] < LEAST_PX[1] {
        let says =
            format!("is {} × {} px: at least {} × {} tell something", size[0], size[1], LEAST_PX[0], LEAST_PX[1]);
        return Err(Fault::new("later", says));
    }
    if !FIELDS_DEG.contains(&hfov_deg) {
        let says = format!("{hfov_deg} is outside {} to {}°", FIELDS_DEG.start(), FIELDS_DEG.end());
        return Err(Fault::new("hfov_deg", says));
    }
    Ok(())
}

/// How the camera turned between two pictures; `None` where they do not tell.
pub(super) fn found_again(first: &Plane, later: &Plane, hfov_deg: f64) -> Option<Registered> {
    PARTS.into_iter().find_map(|part| {
        let less = |plane: &Plane| plane.scaled_to(plane.width / part, plane.height / part).softened(1);
        register(&less(first), &less(later), hfov_deg)
    })
}

/// The mean of a picture, and how far it deviates from that as a share of it.
fn level(of: &Plane) -> (f64, f64) {
    let mean = of.of.iter().sum::<f32>() / of.of.len() as f32;
    let square = of.of.iter().map(|figure| (figure - mean).powi(2)).sum::<f32>() / of.of.len() as f32;
    (f64::from(mean), f64::from(square.sqrt() / (mean + 1.0)))
}

/// Light of the later picture over the reference's, of what both show; of all where nothing of it is found again.
fn light_share(shown: &[&Tile], found: bool, [before, after]: [f64; 2]) -> f64 {
    let of = |picture: usize| shown.iter().map(|tile| tile.light[picture]).sum::<f64>() / shown.len() as f64;
    let [before, after] = if found && !shown.is_empty() { [of(0), of(1)] } else { [before, after] };
    (after + 0.5) / (before + 0.5)
}

fn told(
    [first, later]: [&Looked; 2],
    turned: Option<Turned>,
    pinhole: &Pinhole,
    tiles: &Tiles,
    size: [usize; 2],
    limits: &ProvingRules,
) -> Compared {
    let shown: Vec<_> = tiles.of.iter().filter(|tile| tile.shown).collect();
    let [(light_before, whole_before), (light_after, whole_after)] = [level(&first.grey), level(&later.grey)];
    let light_share = light_share(&shown, turned.is_some(), [light_before, light_after]);
    let sharpness = median(shown.iter().filter_map(|tile| tile.sharpness));
    let contrast = median(shown.iter().filter_map(|tile| tile.contrast));
    let sharpness_share = sharpness.unwrap_or(if turned.is_some() { 1.0 } else { 0.0 });
    let contrast_share = contrast.unwrap_or(whole_after / whole_before.max(1e-6));
    let mut regions = Vec::new();
    let mut add = |kind: Differs, of: &dyn Fn(usize) -> bool, least: f64| {
        regions.extend(connected([tiles.columns, tiles.rows], of).into_iter().filter_map(|region| {
            let share = area(tiles, &region, of) / tiles.of.len() as f64;
            (share >= least).then(|| Region { kind, box_px: around(tiles, &region, size, pinhole.size()[0]), share })
        }));
    };
    let least = limits.region_share;
    if turned.is_some() {
        add(Differs::Blocked, &|place| tiles.of[place].hidden, least);
        add(Differs::Hazed, &|place| veiled(tiles, place, limits), least);
        add(Differs::OutOfFocus, &|place| soft(tiles, place, limits), least);
    }
    let mut says = Vec::new();
    let moved = turned.map(|turned| Moved {
        right_deg: turned.right.to_degrees(),
        down_deg: turned.down.to_degrees(),
        roll_deg: turned.roll.to_degrees(),
        scale: turned.ln_scale.exp(),
    });
    match turned {
        Some(turned) if farthest_deg(&turned, pinhole) > limits.moved_deg => says.push(Differs::Moved),
        Some(_) => {}
        // Nothing of the reference is found again: what is there has contrast of its own, or has not.
        None if whole_after > OF_ITS_OWN * whole_before => says.push(Differs::Moved),
        None if light_after > BLINDED => says.push(Differs::Hazed),
        None => says.push(Differs::Blocked),
    }
    let has = |kind: Differs| regions.iter().any(|region: &Region| region.kind == kind);
    if turned.is_some() {
        let out_of_focus = sharpness.is_some_and(|share| share < limits.sharpness_share);
        if out_of_focus || has(Differs::OutOfFocus) {
            says.push(Differs::OutOfFocus);
        }
        let limit = if out_of_focus { SOFT_TOO } else { 1.0 } * limits.contrast_share;
        if contrast.is_some_and(|share| share < limit) || has(Differs::Hazed) {
            says.push(Differs::Hazed);
        }
        if has(Differs::Blocked) {
            says.push(Differs::Blocked);
        }
    }
    if light_share < limits.light_share {
        says.push(Differs::Darker);
    }
    let hidden = hidden_tiles(tiles, turned.is_some());
    Compared { says, moved, sharpness_share, contrast_share, light_share, regions, hidden }
}

/// The tiles that are hidden, where the reference is found again at all.
fn hidden_tiles(tiles: &Tiles, found: bool) -> HiddenTiles {
    let places: Vec<usize> = (0..tiles.of.len()).filter(|place| found && tiles.of[*place].hidden).collect();
    if places.is_empty() {
        return HiddenTiles::default();
    }
    HiddenTiles { columns: tiles.columns, rows: tiles.rows, places }
}

fn veiled(tiles: &Tiles, place: usize, limits: &ProvingRules) -> bool {
    let tile = &tiles.of[place];
    let limit = if soft(tiles, place, limits) { SOFT_TOO } else { 1.0 } * limits.contrast_share;
    tile.blinded || tile.contrast.is_some_and(|share| share < limit)
}

fn soft(tiles: &Tiles, place: usize, limits: &ProvingRules) -> bool {
    tiles.of[place].sharpness.is_some_and(|share| share < limits.sharpness_share)
}

/// How far the middle of any edge or corner of the picture moved, degrees by the pinhole: in the middle, and a third out.
fn farthest_deg(turned: &Turned, pinhole: &Pinhole) -> f64 {
    let map = turned.map(pinhole);
    let [width, height] = pinhole.size();
    let places = [[0.5, 0.5], [0.2, 0.5], [0.8, 0.5], [0.5, 0.2], [0.5, 0.8]];
    places
        .into_iter()
        .filter_map(|[x, y]| {
            let from = [x * width, y * height];
            let to = map.apply(from)?;
            Some(((to[0] - from[0]).hypot(to[1] - from[1]) / pinhole.focal()).to_degrees())
        })
        .fold(0.0, f64::max)
}

fn median(of: impl Iterator<Item = f64>) -> Option<f64> {
    let mut of: Vec<f64> = of.collect();
    of.sort_by(f64::total_cmp);
    (of.len() >= 5).then(|| of[of.len() / 2])
}

/// How many tiles a region is: those at its rim are half in it.
fn area(tiles: &Tiles, region: &[usize], of: &dyn Fn(usize) -> bool) -> f64 {
    let (columns, rows) = (tiles.columns, tiles.rows);
    let inner = |place: &&usize| {
        let (x, y) = (*place % columns, *place / columns);
        (x == 0 || of(*place - 1))
            && (x + 1 == columns || of(*place + 1))
            && (y == 0 || of(*place - columns))
            && (y + 1 == rows || of(*place + columns))
    };
    let inside = region.iter().filter(inner).count() as f64;
    inside + (region.len() as f64 - inside) / 2.0
}

fn around(tiles: &Tiles, region: &[usize], size: [usize; 2], wide: f64) -> [f64; 4] {
    let columns = region.iter().map(|place| place % tiles.columns);
    let rows = region.iter().map(|place| place / tiles.columns);
    let least = [columns.clone().min().unwrap_or(0), rows.clone().min().unwrap_or(0)];
    let most = [columns.max().unwrap_or(0) + 1, rows.max().unwrap_or(0) + 1];
    let scale = size[0] as f64 / wide;
    let at = |tile: usize| (tile * TILE) as f64 * scale;
    [at(least[0]), at(least[1]), at(most[0]).min(size[0] as f64), at(most[1]).min(size[1] as f64)]
}
