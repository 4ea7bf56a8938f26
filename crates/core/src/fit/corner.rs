//! The strongest corner near a click: where brightness changes in two directions (J. Shi and C. Tomasi, "Good features to track", 1994; from
//! memory), found to a fraction of a pixel where the gradients around it meet (W. Förstner and E. Gülch, 1987; from memory).

use crate::file::Fault;
use glam::DVec2;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The window that is looked at has at most so many pixels to a side.
const MOST_PX: usize = 121;
/// Gradients are summed over so many pixels to either side.
const AROUND: i64 = 3;
/// A corner stands out by so much of the window's contrast, as a share of the greatest answer there could be (ours).
const STANDS_OUT: f64 = 0.002;

/// A piece of a picture, in grey.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GreyPiece {
    /// Its width, px.
    pub width: usize,
    /// Its rows, from the top, 0 to 255 each.
    pub grey: Vec<u8>,
}

/// Where the strongest corner of a piece lies, px from its top-left corner (the middle of its first pixel is at 0.5, 0.5); null where
/// nothing in it is a corner.
///
/// # Errors
/// A piece that is no rectangle, or too large.
pub fn strongest_corner(piece: &GreyPiece) -> Result<Option<[f64; 2]>, Fault> {
    let (width, count) = (piece.width, piece.grey.len());
    if !(9..=MOST_PX).contains(&width) || count % width.max(1) != 0 || count / width < 9 || count / width > MOST_PX {
        return Err(Fault::new(
            "piece",
            format!("{count} pixels of {width} to a row are no piece of 9 to {MOST_PX} px"),
        ));
    }
    let high = count / width;
    let at = |x: i64, y: i64| f64::from(piece.grey[y as usize * width + x as usize]);
    let gradient = |x: i64, y: i64| DVec2::new(at(x + 1, y) - at(x - 1, y), at(x, y + 1) - at(x, y - 1)) / 2.0;
    let sums = |x: i64, y: i64| {
        let (mut xx, mut xy, mut yy, mut right) = (0.0, 0.0, 0.0, DVec2::ZERO);
        for (i, j) in (-AROUND..=AROUND).flat_map(|j| (-AROUND..=AROUND).map(move |i| (i, j))) {
            let g = gradient(x + i, y + j);
            let place = DVec2::new(i as f64, j as f64);
            (xx, xy, yy) = (xx + g.x * g.x, xy + g.x * g.y, yy + g.y * g.y);
            right += g * g.dot(place);
        }
        (xx, xy, yy, right)
    };
    let edge = AROUND + 1;
    let (wide, tall) = (width as i64, high as i64);
    let mut best: Option<(f64, i64, i64)> = None;
    for (x, y) in (edge..tall - edge).flat_map(|y| (edge..wide - edge).map(move |x| (x, y))) {
        let (xx, xy, yy, _) = sums(x, y);
        let least = 0.5 * (xx + yy) - (0.25 * (xx - yy).powi(2) + xy * xy).sqrt();
        // Of equals the one nearest to the middle.
        let off = DVec2::new(x as f64 + 0.5 - width as f64 / 2.0, y as f64 + 0.5 - high as f64 / 2.0).length();
        let score = least * (1.0 - 0.5 * off / (width.max(high) as f64));
        if best.is_none_or(|(held, ..)| score > held) {
            best = Some((score, x, y));
        }
    }
    let greatest = f64::from((2 * AROUND + 1).pow(2) as i32) * 127.5 * 127.5;
    let Some((score, x, y)) = best.filter(|(score, ..)| *score > STANDS_OUT * greatest) else { return Ok(None) };
    debug_assert!(score > 0.0);
    let (xx, xy, yy, right) = sums(x, y);
    let whole = xx * yy - xy * xy;
    let off = DVec2::new(yy * right.x - xy * right.y, xx * right.y - xy * right.x) / whole;
    // Where the gradients meet lies in the window, or they meet nowhere.
    let off = if off.abs().max_element() <= AROUND as f64 + 0.5 { off } else { DVec2::ZERO };
    Ok(Some([x as f64 + 0.5 + off.x, y as f64 + 0.5 + off.y]))
}

#[cfg(test)]
mod tests {
    use super::*;

    /// A dark corner whose point lies at a fraction of a pixel, each pixel the mean over its area.
    fn corner(point: DVec2) -> GreyPiece {
        let mean = |x: usize, y: usize| {
            let inside = (0..64)
                .filter(|k| {
                    let at =
                        DVec2::new(x as f64 + (k % 8) as f64 / 8.0 + 0.0625, y as f64 + (k / 8) as f64 / 8.0 + 0.0625);
                    at.x > point.x && at.y > point.y
                })
                .count();
            (220 - 180 * inside / 64) as u8
        };
        GreyPiece { width: 31, grey: (0..31 * 31).map(|k| mean(k % 31, k / 31)).collect() }
    }

    #[test]
    fn a_corner_is_found_to_half_a_pixel() {
        for point in [DVec2::new(15.0, 15.0), DVec2::new(12.3, 17.6), DVec2::new(18.75, 11.5)] {
            let found = strongest_corner(&corner(point)).unwrap().unwrap();
            assert!(DVec2::from_array(found).distance(point) < 0.5, "{found:?} for {point}");
        }
    }

    #[test]
    fn plain_ground_and_a_straight_edge_have_no_corner() {
        let plain = GreyPiece { width: 31, grey: vec![120; 31 * 31] };
        assert_eq!(strongest_corner(&plain).unwrap(), None);
        let edge = GreyPiece { width: 31, grey: (0..31 * 31).map(|k| if k % 31 < 15 { 40 } else { 200 }).collect() };
        assert_eq!(strongest_corner(&edge).unwrap(), None);
        assert!(strongest_corner(&GreyPiece { width: 40, grey: vec![0; 41] }).is_err());
    }
}
