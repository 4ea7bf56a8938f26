//! A later picture against the reference: whether the camera moved, is out of focus, veiled, hidden or darker. Names and meanings: the
//! site-file contract, *Compare*.
//!
//! Both are laid on each other as the camera turned between them; then each tile of the later one is held against what the reference has
//! there. What light alone does (another hour, shadows, rain, noise) changes none of what is looked at: which way slopes run, contrast over
//! mean, fine slopes over coarse ones.

use super::plane::Plane;
use super::register::register;
use super::shot::Shot;
use super::tiles::{Looked, Sharpness, TILE, Tiles, tiles};
use super::turned::{Pinhole, Turned};
use crate::file::Fault;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Pictures are looked at so wide, px; smaller ones than that below tell too little.
const WIDE: usize = 640;
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

/// From where on a difference is told.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct CompareLimits {
    /// It moved: by more than so many degrees, wherever in the picture that is.
    pub moved_deg: f64,
    /// It is out of focus: under so much of the reference's sharpness.
    pub sharpness_share: f64,
    /// It is hazed: under so much of its contrast.
    pub contrast_share: f64,
    /// It is darker: under so much of its light.
    pub light_share: f64,
    /// A region counts from this share of the picture.
    pub region_share: f64,
}

impl Default for CompareLimits {
    fn default() -> Self {
        CompareLimits {
            moved_deg: 0.15,
            sharpness_share: 0.7,
            contrast_share: 0.7,
            light_share: 0.6,
            region_share: 0.04,
        }
    }
}

/// What differs.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Differs {
    /// The camera turned, or its lens was set otherwise.
    Moved,
    /// It is out of focus.
    OutOfFocus,
    /// Contrast is lost: a dirty cover, haze, light into the lens.
    Hazed,
    /// Something hides what was seen.
    Blocked,
    /// There is less light.
    Darker,
}

/// How a camera turned.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct Moved {
    /// To the right, degrees.
    pub right_deg: f64,
    /// Down, degrees.
    pub down_deg: f64,
    /// Clockwise as seen from behind, degrees.
    pub roll_deg: f64,
    /// Over 1: zoomed in.
    pub scale: f64,
}

/// A part of the picture in which something differs.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Region {
    /// What.
    pub kind: Differs,
    /// Left, top, right, bottom, px of the later picture.
    pub box_px: [f64; 4],
    /// How much of the picture it is.
    pub share: f64,
}

/// A comparison.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Compared {
    /// What differs for the worse.
    pub says: Vec<Differs>,
    /// How the camera turned; null where the pictures do not tell.
    #[schema(required)]
    pub moved: Option<Moved>,
    /// Sharpness, later over reference.
    pub sharpness_share: f64,
    /// Contrast.
    pub contrast_share: f64,
    /// Light.
    pub light_share: f64,
    /// Where something differs.
    pub regions: Vec<Region>,
}

/// Compares a later picture of one camera with the reference, by the pinhole of so many degrees across.
///
/// # Errors
/// Pictures of two sizes, too small ones, a field that no pinhole has, one with colours against one without.
pub fn compare(reference: &Shot, later: &Shot, hfov_deg: f64, limits: &CompareLimits) -> Result<Compared, Fault> {
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
    let greys = [reference.grey(), later.grey()];
    let width = WIDE.min(later.width);
    let height = (width * later.height / later.width).max(TILE);
    let [first, second] =
        [(reference, &greys[0]), (later, &greys[1])].map(|(shot, grey)| Looked::at(shot, grey, width, height));
    let colours = [first.colour(), second.colour()];
    // What is black or white all over has no colours by day either.
    let tells = [&first, &second].iter().all(|of| LIGHT.contains(&mean(&of.grey)));
    if tells && colours.iter().any(|colour| *colour < GREY) && colours.iter().any(|colour| *colour > COLOURED) {
        let says = "has colours where the reference has none, or none where that has: compare day with day, and night with night";
        return Err(Fault::new("later", says));
    }
    let pinhole = Pinhole::new(width, height, hfov_deg);
    let found = PARTS.into_iter().find_map(|part| {
        let less = |plane: &Plane| plane.scaled_to(width / part, height / part).softened(1);
        register(&less(&first.grey), &less(&second.grey), hfov_deg)
    });
    let sharp = greys.each_ref().map(Sharpness::of);
    let map = found.map_or(Turned::default(), |found| found.turned).map(&pinhole);
    let tiles = tiles(&first, &second, [&sharp[0], &sharp[1]], &map)
        .ok_or_else(|| Fault::new("later", "cannot be laid on the reference"))?;
    let turned = found.map(|found| found.turned);
    Ok(told([&first, &second], turned, &pinhole, &tiles, [later.width, later.height], limits))
}

fn mean(plane: &Plane) -> f64 {
    f64::from(plane.of.iter().sum::<f32>()) / plane.of.len() as f64
}

fn told(
    [first, later]: [&Looked; 2],
    turned: Option<Turned>,
    pinhole: &Pinhole,
    tiles: &Tiles,
    size: [usize; 2],
    limits: &CompareLimits,
) -> Compared {
    let shown: Vec<_> = tiles.of.iter().filter(|tile| tile.shown).collect();
    let rms = |of: &Plane| {
        let mean = of.of.iter().sum::<f32>() / of.of.len() as f32;
        let square = of.of.iter().map(|figure| (figure - mean).powi(2)).sum::<f32>() / of.of.len() as f32;
        (f64::from(mean), f64::from(square.sqrt() / (mean + 1.0)))
    };
    let [(light_before, whole_before), (light_after, whole_after)] = [rms(&first.grey), rms(&later.grey)];
    let light_share = (light_after + 0.5) / (light_before + 0.5);
    let sharpness = median(shown.iter().filter_map(|tile| tile.sharpness));
    let contrast = median(shown.iter().filter_map(|tile| tile.contrast));
    let sharpness_share = sharpness.unwrap_or(if turned.is_some() { 1.0 } else { 0.0 });
    let contrast_share = contrast.unwrap_or(whole_after / whole_before.max(1e-6));
    let mut regions = Vec::new();
    let mut add = |kind: Differs, of: &dyn Fn(usize) -> bool, least: f64| {
        regions.extend(connected(tiles, of).into_iter().filter_map(|region| {
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
    Compared { says, moved, sharpness_share, contrast_share, light_share, regions }
}

fn veiled(tiles: &Tiles, place: usize, limits: &CompareLimits) -> bool {
    let tile = &tiles.of[place];
    let limit = if soft(tiles, place, limits) { SOFT_TOO } else { 1.0 } * limits.contrast_share;
    tile.blinded || tile.contrast.is_some_and(|share| share < limit)
}

fn soft(tiles: &Tiles, place: usize, limits: &CompareLimits) -> bool {
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

/// Tiles that hang together by a side or a corner.
fn connected(tiles: &Tiles, of: &dyn Fn(usize) -> bool) -> Vec<Vec<usize>> {
    let (columns, rows) = (tiles.columns, tiles.rows);
    let mut seen = vec![false; columns * rows];
    let mut regions = Vec::new();
    for begin in 0..columns * rows {
        if seen[begin] || !of(begin) {
            continue;
        }
        let (mut region, mut next) = (Vec::new(), vec![begin]);
        seen[begin] = true;
        while let Some(place) = next.pop() {
            region.push(place);
            let (x, y) = (place % columns, place / columns);
            for y in y.saturating_sub(1)..=(y + 1).min(rows - 1) {
                for x in x.saturating_sub(1)..=(x + 1).min(columns - 1) {
                    let there = y * columns + x;
                    if !seen[there] && of(there) {
                        seen[there] = true;
                        next.push(there);
                    }
                }
            }
        }
        regions.push(region);
    }
    regions
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
