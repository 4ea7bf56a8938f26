//! Points of one picture found again in a later one of the same camera that was turned or zoomed in between: what was clicked once need not be
//! clicked again.
//!
//! First the turn of the whole picture (`register`), then the block around each point by itself, coarse and fine: what a lens bends away
//! from the pinhole is taken up there.

use super::coarse::warped;
use super::compare::{WIDE, comparable, found_again};
use super::plane::Plane;
use super::register::{AROUND, BLOCK, Block};
use super::shot::Shot;
use super::turned::Pinhole;
use crate::file::Fault;

/// Blocks are found again in pictures so wide, px: the turn's own size, then twice that.
const WIDTHS: [usize; 2] = [WIDE, 2 * WIDE];

/// Where points of the first picture, px right and down from its top-left corner, lie in the later one; `None` for one that is not found again
/// there, and for all where the pictures do not tell how the camera turned.
///
/// # Errors
/// Pictures of two sizes, too small ones, a field that no pinhole has.
pub fn carried(first: &Shot, later: &Shot, hfov_deg: f64, points: &[[f64; 2]]) -> Result<Vec<Option<[f64; 2]>>, Fault> {
    comparable(first, later, hfov_deg)?;
    let greys = [first.grey(), later.grey()];
    let at = |width: usize| {
        let height = (width * first.height / first.width).max(BLOCK + 2 * AROUND);
        greys.each_ref().map(|grey| grey.scaled_to(width, height))
    };
    let [before, after] = at(WIDE.min(first.width));
    let Some(found) = found_again(&before, &after, hfov_deg) else { return Ok(vec![None; points.len()]) };
    // How far off the turn each is, px of the pictures as they came.
    let mut off: Vec<Option<[f64; 2]>> = vec![Some([0.0; 2]); points.len()];
    let mut places = vec![None; points.len()];
    for width in WIDTHS.map(|width| width.min(first.width)) {
        let [before, after] = at(width).map(|plane| plane.softened(1));
        let scale = width as f64 / first.width as f64;
        let map = found.turned.map(&Pinhole::new(before.width, before.height, hfov_deg));
        let Some(back) = map.inverse() else { return Ok(vec![None; points.len()]) };
        let seen = warped(&before, &back, after.width, after.height);
        for (place, point) in points.iter().enumerate() {
            // Centres of pixels lie at whole numbers here, at halves in a picture.
            let by_turn = map.apply(point.map(|axis| axis * scale - 0.5));
            let again =
                by_turn.zip(off[place]).and_then(|(at, held)| again(&seen, &after, at, held.map(|axis| axis * scale)));
            off[place] = again.map(|by| by.map(|axis| axis / scale));
            places[place] = again.zip(by_turn).map(|(by, at)| [0, 1].map(|axis| (at[axis] + by[axis] + 0.5) / scale));
        }
    }
    Ok(places)
}

/// How far from `at` the block around it is found again in the later picture, from about `off` on.
fn again((seen, shown): &(Plane, Vec<bool>), later: &Plane, at: [f64; 2], off: [f64; 2]) -> Option<[f64; 2]> {
    let half = (BLOCK as f64 - 1.0) / 2.0;
    let whole = [off[0].round(), off[1].round()];
    let corner = |axis: usize, shifted: f64, size: usize| {
        let edge = (at[axis] - half).round() + shifted;
        (edge >= AROUND as f64 && edge + (BLOCK + AROUND) as f64 <= size as f64).then_some(edge as usize)
    };
    let (left, top) = (corner(0, 0.0, seen.width)?, corner(1, 0.0, seen.height)?);
    let corners = [(left, top), (left + BLOCK - 1, top), (left, top + BLOCK - 1), (left + BLOCK - 1, top + BLOCK - 1)];
    if !corners.into_iter().all(|(x, y)| shown[y * seen.width + x]) {
        return None;
    }
    let to = (corner(0, whole[0], later.width)?, corner(1, whole[1], later.height)?);
    let [right, down] = Block::of(seen, left, top)?.again(later, to.0, to.1)?;
    Some([whole[0] + right, whole[1] + down])
}
