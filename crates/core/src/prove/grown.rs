//! What grew into a picture: tiles that stay hidden over several pictures of different days.

use super::connected::connected;
use crate::file::{Differs, HiddenTiles, ProvingRules, Region, Snapshot};
use std::collections::HashMap;

/// So many pictures have to agree (site-file contract, *Compare*).
pub const PICTURES: usize = 3;
/// Pictures of one day are one: what is parked there stands in all of them.
const APART_S: i64 = 20 * 3600;

/// The regions that stay hidden in the last pictures of different days, in pixels of pictures so wide and high; none where there are too
/// few of them. A picture in which the camera had turned tells nothing here.
pub fn grown(later: &[&Snapshot], rules: &ProvingRules) -> Vec<Region> {
    let last = last_days(later);
    let Some(newest) = last.first().filter(|_| last.len() == PICTURES) else { return vec![] };
    let of = |snapshot: &Snapshot| snapshot.against.as_ref().map(|against| against.found.hidden.clone());
    let tiles: Vec<HiddenTiles> = last.iter().filter_map(|snapshot| of(snapshot)).collect();
    let (columns, rows) = (tiles[0].columns, tiles[0].rows);
    if columns == 0 || tiles.iter().any(|one| (one.columns, one.rows) != (columns, rows)) {
        return vec![];
    }
    let mut counts: HashMap<usize, usize> = HashMap::new();
    tiles.iter().flat_map(|one| &one.places).for_each(|place| *counts.entry(*place).or_default() += 1);
    let always = |place: usize| counts.get(&place) == Some(&PICTURES);
    let scale = [newest.picture.width_px / columns as f64, newest.picture.height_px / rows as f64];
    let regions = connected([columns, rows], &always).into_iter().map(|region| {
        let (x, y) = (region.iter().map(|place| place % columns), region.iter().map(|place| place / columns));
        let least = [x.clone().min().unwrap_or(0), y.clone().min().unwrap_or(0)];
        let most = [x.max().unwrap_or(0) + 1, y.max().unwrap_or(0) + 1];
        let at = |tile: [usize; 2]| [tile[0] as f64 * scale[0], tile[1] as f64 * scale[1]];
        let ([left, top], [right, bottom]) = (at(least), at(most));
        let share = region.len() as f64 / (columns * rows) as f64;
        Region { kind: Differs::Blocked, box_px: [left, top, right, bottom], share }
    });
    regions.filter(|region| region.share >= rules.grown_share).collect()
}

/// The last pictures of different days in which the camera had not turned, the newest first.
fn last_days<'a>(later: &[&'a Snapshot]) -> Vec<&'a Snapshot> {
    let mut dated: Vec<(i64, &Snapshot)> = later
        .iter()
        .filter(|snapshot| {
            let found = snapshot.against.as_ref().map(|against| &against.found);
            found.is_some_and(|found| found.moved.is_some() && !found.says.contains(&Differs::Moved))
        })
        .filter_map(|snapshot| Some((snapshot.at.parse::<jiff::Timestamp>().ok()?.as_second(), *snapshot)))
        .collect();
    dated.sort_by_key(|(at, _)| std::cmp::Reverse(*at));
    let mut last: Vec<(i64, &Snapshot)> = vec![];
    for (at, snapshot) in dated {
        if last.len() < PICTURES && last.last().is_none_or(|(held, _)| held - at >= APART_S) {
            last.push((at, snapshot));
        }
    }
    last.into_iter().map(|(_, snapshot)| snapshot).collect()
}
