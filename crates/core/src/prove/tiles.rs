//! A picture against the reference, tile by tile, once both lie on each other: what is still there, what is veiled, soft, or hidden.

use super::coarse::warped;
use super::plane::{Plane, Sums};
use super::shot::Shot;
use super::turned::Map;

/// Tiles are so many pixels to a side, of pictures that are looked at so wide.
pub const TILE: usize = 16;
/// A slope under this is no edge, of 255 a pixel; a tile has edges if they are such a share of it.
const EDGE: f32 = 3.0;
const EDGES: f64 = 0.08;
/// A tile is lost if its slopes agree less than this with the reference's, and is there if they agree more than that (cosine).
const LOST: f64 = 0.25;
const THERE: f64 = 0.5;
/// What hides has another colour (of the shares of red and green), edges of its own (a share of the tile), or is so much lighter or
/// darker; a shadow that went has none of them.
const OTHER_COLOUR: f64 = 0.05;
const OWN_EDGES: f64 = 0.12;
const FLAT_OTHER_COLOUR: f64 = 0.08;
const FLAT_OWN_EDGES: f64 = 0.2;
const LIGHTER: f64 = 3.0;
/// What is usual in flat tiles is told of so many.
const LEAST_FLAT: usize = 12;
/// Under this no slope is an edge, however dark it is.
const NOISE: f32 = 1.8;
/// Structure is there where the two are alike like this.
const ALIKE: f64 = 0.6;
/// Sharpness is told of tiles whose slopes have such a mean square at the coarse scale.
const LEAST_TEXTURE: f64 = 6.0;
/// A tile is full of light at this.
const FULL: f64 = 247.0;

/// What is told of a tile.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct Tile {
    /// Whether both pictures show it.
    pub shown: bool,
    /// Whether something hides it: `Some` where that can be told.
    pub hidden: bool,
    /// Whether the reference has hardly an edge in it.
    flat: bool,
    /// Whether edges of the reference are lost in it.
    lost: bool,
    /// Whether they are there.
    there: bool,
    /// How far its colour is from the reference's.
    colour: f64,
    /// How much of it is edges.
    edges: f64,
    /// Whether it is so much lighter or darker as no shadow makes it.
    other_light: bool,
    /// Contrast against the reference's, where structure is there.
    pub contrast: Option<f64>,
    /// Sharpness against the reference's, where there is enough to tell.
    pub sharpness: Option<f64>,
    /// Full of light where the reference was not.
    pub blinded: bool,
    /// Its light in the reference and now, 0 to 255.
    pub light: [f64; 2],
}

/// The tiles of a picture.
pub struct Tiles {
    /// So many in a row.
    pub columns: usize,
    /// Rows.
    pub rows: usize,
    /// Row by row.
    pub of: Vec<Tile>,
}

/// A picture at the scale at which tiles are looked at: its light, and its colour by the shares of red and green.
pub struct Looked {
    /// Light, 0 to 255.
    pub grey: Plane,
    red: Plane,
    green: Plane,
}

impl Looked {
    /// A picture looked at so wide.
    pub fn at(shot: &Shot, grey: &Plane, width: usize, height: usize) -> Looked {
        let plane = |channel: usize| {
            let of = shot.rgb.chunks_exact(3).map(|pixel| f32::from(pixel[channel])).collect();
            Plane { width: shot.width, height: shot.height, of }.scaled_to(width, height)
        };
        let [red, green, blue] = [plane(0), plane(1), plane(2)];
        let share = |of: &Plane| {
            let parts = of.of.iter().zip(red.of.iter().zip(&green.of).zip(&blue.of));
            let of = parts.map(|(part, ((r, g), b))| if r + g + b > 36.0 { part / (r + g + b) } else { 1.0 / 3.0 });
            Plane { width, height, of: of.collect() }
        };
        Looked { grey: grey.scaled_to(width, height), red: share(&red), green: share(&green) }
    }

    /// How coloured it is: the mean distance of red's and green's shares from a third.
    pub fn colour(&self) -> f64 {
        let off = |plane: &Plane| plane.of.iter().map(|share| f64::from((share - 1.0 / 3.0).abs())).sum::<f64>();
        (off(&self.red) + off(&self.green)) / self.red.of.len() as f64
    }
}

/// How sharp a picture is, from its slopes at its own scale and at a coarser one; noise is taken out.
pub struct Sharpness {
    fine: Sums,
    coarse: Sums,
    noise: f64,
    step: usize,
    size: [usize; 2],
}

impl Sharpness {
    /// Of a picture at its own scale.
    pub fn of(grey: &Plane) -> Sharpness {
        let step = (grey.width / 120).clamp(3, 16);
        let squares = |plane: &Plane| {
            let mut of = Plane::empty(plane.width, plane.height);
            for y in 0..plane.height - 1 {
                for x in 0..plane.width - 1 {
                    let at = plane.at(x, y);
                    of.of[y * plane.width + x] = (plane.at(x + 1, y) - at).powi(2) + (plane.at(x, y + 1) - at).powi(2);
                }
            }
            Sums::of(&of)
        };
        let coarse = grey.scaled_to(grey.width / step, grey.height / step);
        let size = [coarse.width, coarse.height];
        Sharpness { fine: squares(grey), coarse: squares(&coarse), noise: noise(grey), step, size }
    }

    /// Fine slopes over coarse ones around a place, in shares of the picture, and the coarse ones' mean square; `None` at the edge.
    fn around(&self, [x, y]: [f64; 2], half: f64) -> Option<(f64, f64)> {
        let [width, height] = self.size.map(|side| side as f64);
        let inside = |middle: f64, half: f64, side: f64| {
            let [from, to] = [middle - half, middle + half];
            (from >= 0.0 && to <= side - 1.0).then_some([from as usize, to as usize])
        };
        let ([left, right], [top, bottom]) =
            (inside(x * width, half * width, width)?, inside(y * height, half * width, height)?);
        if right <= left || bottom <= top {
            return None;
        }
        let area = ((right - left) * (bottom - top)) as f64;
        let coarse = self.coarse.over([left, top, right, bottom]) / area;
        let fine = self.fine.over([left, top, right, bottom].map(|side| side * self.step));
        let fine = fine / (area * (self.step * self.step) as f64);
        let square = self.noise * self.noise;
        let less = (coarse - 4.0 * square / (self.step * self.step) as f64).max(0.0);
        Some(((fine - 4.0 * square).max(0.0) / less.max(1e-9), less))
    }
}

/// The noise of a picture, one standard deviation: J. Immerkær's mask ("Fast noise variance estimation", 1996; from memory) with the
/// median in place of the mean, so that edges do not count.
fn noise(grey: &Plane) -> f64 {
    let (width, height) = (grey.width, grey.height);
    let mut counts = [0_usize; 1024];
    let mut all = 0;
    for y in (1..height - 1).step_by(2) {
        for x in (1..width - 1).step_by(3) {
            let row = |y: usize| {
                let of = &grey.of[y * width + x - 1..][..3];
                of[0] - 2.0 * of[1] + of[2]
            };
            let bend = (row(y - 1) - 2.0 * row(y) + row(y + 1)).abs();
            counts[((bend * 4.0) as usize).min(1023)] += 1;
            all += 1;
        }
    }
    let mut seen = 0;
    let median = counts.iter().position(|count| {
        seen += count;
        seen * 2 >= all
    });
    // The mask makes six of each deviation; the median of a Gaussian's size is 0.6745 of it.
    (median.unwrap_or(0) as f64 / 4.0) / (6.0 * 0.6745)
}

/// Looks at each tile of the later picture. `map` brings the reference's pixels, at the scale of the tiles, onto it.
pub fn tiles(first: &Looked, later: &Looked, sharp: [&Sharpness; 2], map: &Map) -> Option<Tiles> {
    let back = map.inverse()?;
    let (width, height) = (later.grey.width, later.grey.height);
    let (grey, shown) = warped(&first.grey, &back, width, height);
    let [red, green] = [&first.red, &first.green].map(|plane| warped(plane, &back, width, height).0);
    let slopes = Slopes::between(&grey, &later.grey, &shown);
    let white = white_balance([&red, &green], [&later.red, &later.green], &shown);
    let few = [&grey, &later.grey].map(|plane| plane.softened(1).scaled_to(width / 4, height / 4));
    let (columns, rows) = (width / TILE, height / TILE);
    let mut of = Vec::with_capacity(columns * rows);
    for row in 0..rows {
        for column in 0..columns {
            let (left, top) = (column * TILE, row * TILE);
            let inside = |mask: &dyn Fn(usize) -> bool| {
                let pixels = (top..top + TILE).flat_map(|y| (left..left + TILE).map(move |x| y * width + x));
                pixels.filter(|place| mask(*place)).count() as f64 / (TILE * TILE) as f64
            };
            if inside(&|place| shown[place]) < 0.99 {
                of.push(Tile::default());
                continue;
            }
            let mean = |plane: &Plane| {
                let rows = (top..top + TILE).map(|y| plane.of[y * width + left..][..TILE].iter().sum::<f32>());
                f64::from(rows.sum::<f32>()) / (TILE * TILE) as f64
            };
            let [before, after] = [mean(&grey), mean(&later.grey)];
            let colour = other_colour([mean(&red), mean(&green)], [mean(&later.red), mean(&later.green)], white);
            let colour = if before > 20.0 && after > 20.0 { colour } else { 0.0 };
            let [had, has] = [0, 1].map(|picture| inside(&|place| slopes.edges[picture][place]));
            let agree = slopes.agree([left, top]);
            let lost = had >= EDGES && agree < LOST;
            let factor = (after + 4.0) / (before + 4.0);
            let other_light = !(1.0 / LIGHTER..=LIGHTER).contains(&factor);
            let (contrast, alike) = contrast(&few, left / 4, top / 4);
            let structured = alike > ALIKE;
            let sharpness = sharpness(sharp, &back, [left, top], [width, height]).filter(|_| structured && !lost);
            let blinded = after > FULL && before < FULL - 30.0;
            of.push(Tile {
                shown: true,
                hidden: false,
                flat: had < EDGES,
                lost,
                there: agree > THERE,
                colour,
                edges: has,
                other_light,
                contrast: contrast.filter(|_| structured),
                sharpness,
                blinded,
                light: [before, after],
            });
        }
    }
    let mut tiles = Tiles { columns, rows, of };
    tiles.hide();
    tiles.fill();
    Some(tiles)
}

impl Tiles {
    /// Tells what is hidden. Edges that are all over, where the reference has none, are rain's or the noise's.
    fn hide(&mut self) {
        let mut flat: Vec<f64> = self.of.iter().filter(|tile| tile.shown && tile.flat).map(|tile| tile.edges).collect();
        flat.sort_by(f64::total_cmp);
        let usual = if flat.len() >= LEAST_FLAT { flat[flat.len() / 2] } else { 0.0 };
        for tile in self.of.iter_mut().filter(|tile| tile.shown) {
            let own = tile.edges - usual;
            tile.hidden = if tile.flat {
                tile.colour > FLAT_OTHER_COLOUR || own > FLAT_OWN_EDGES
            } else {
                tile.lost && (tile.colour > OTHER_COLOUR || own > OWN_EDGES || tile.other_light)
            };
        }
    }

    /// What hides has no holes: a tile with hidden ones nearly all around is hidden, unless the reference is seen in it.
    fn fill(&mut self) {
        let around = |place: usize| {
            let (x, y) = (place % self.columns, place / self.columns);
            let near = (y.saturating_sub(1)..=(y + 1).min(self.rows - 1))
                .flat_map(|y| (x.saturating_sub(1)..=(x + 1).min(self.columns - 1)).map(move |x| (x, y)));
            near.filter(|(x, y)| self.of[y * self.columns + x].hidden).count()
        };
        let filled: Vec<usize> = (0..self.of.len())
            .filter(|place| {
                let tile = &self.of[*place];
                tile.shown && !tile.hidden && !tile.there && around(*place) >= 5
            })
            .collect();
        filled.into_iter().for_each(|place| self.of[place].hidden = true);
    }
}

/// How far a colour is from any that the reference's makes as it pales.
fn other_colour(first: [f64; 2], later: [f64; 2], white: [f64; 2]) -> f64 {
    let third = 1.0 / 3.0;
    let before = first.map(|share| share - third);
    let after = [0, 1].map(|channel| later[channel] - white[channel] - third);
    let square = before[0] * before[0] + before[1] * before[1];
    let kept = ((before[0] * after[0] + before[1] * after[1]) / square.max(1e-6)).clamp(0.0, 1.1);
    (0..2).map(|channel| (after[channel] - kept * before[channel]).abs()).sum()
}

/// How colours shifted all over: the median of the later less the first, of each share.
fn white_balance(first: [&Plane; 2], later: [&Plane; 2], shown: &[bool]) -> [f64; 2] {
    [0, 1].map(|channel| {
        let mut off: Vec<f32> = (0..shown.len())
            .step_by(7)
            .filter(|place| shown[*place])
            .map(|place| later[channel].of[place] - first[channel].of[place])
            .collect();
        if off.is_empty() {
            return 0.0;
        }
        let middle = off.len() / 2;
        f64::from(*off.select_nth_unstable_by(middle, f32::total_cmp).1)
    })
}

/// The slopes of both pictures.
struct Slopes {
    /// Which pixels are on an edge.
    edges: [Vec<bool>; 2],
    /// For each pixel the product of both slopes, and the square of each; steep ones are held down, so that a shadow's edge does not
    /// outweigh all others.
    products: [Sums; 3],
}

impl Slopes {
    fn between(first: &Plane, later: &Plane, shown: &[bool]) -> Slopes {
        let (width, height) = (first.width, first.height);
        let slopes = [first, later].map(|plane| plane.softened(1).slopes());
        let steep =
            |of: &(Plane, Plane)| -> Vec<f32> { of.0.of.iter().zip(&of.1.of).map(|(a, b)| a.hypot(*b)).collect() };
        let steepness = slopes.each_ref().map(steep);
        // The same light makes the same slopes: what is darker all over has weaker ones.
        let sum = |of: &Vec<f32>| {
            let counted = of.iter().zip(shown).filter(|(_, shown)| **shown);
            counted.map(|(slope, _)| f64::from(*slope)).sum::<f64>()
        };
        let [before, after] = steepness.each_ref().map(sum);
        let strength = (after / before.max(1e-9)).clamp(0.25, 1.0) as f32;
        let edges = [(0, EDGE), (1, (EDGE * strength).max(NOISE))].map(|(picture, least)| {
            steepness[picture].iter().zip(shown).map(|(slope, shown)| *shown && *slope > least).collect()
        });
        let held = |picture: usize, place: usize| {
            let size = steepness[picture][place];
            let part = if size > 1.0 { size.sqrt().recip() } else { 1.0 };
            [slopes[picture].0.of[place] * part, slopes[picture].1.of[place] * part]
        };
        let dot = |a: usize, b: usize| {
            let of = (0..width * height).map(|place| {
                let (a, b) = (held(a, place), held(b, place));
                a[0] * b[0] + a[1] * b[1]
            });
            Sums::of(&Plane { width, height, of: of.collect() })
        };
        Slopes { edges, products: [dot(0, 1), dot(0, 0), dot(1, 1)] }
    }

    /// How much the slopes in a tile agree: the cosine between them.
    fn agree(&self, [left, top]: [usize; 2]) -> f64 {
        let sums = self.products.each_ref().map(|sums| sums.over([left, top, left + TILE, top + TILE]));
        sums[0] / (sums[1] * sums[2]).sqrt().max(1e-9)
    }
}

/// Contrast around a tile, of means over four pixels: deviation over mean, against the reference's; and how alike the two are.
fn contrast(of: &[Plane; 2], left: usize, top: usize) -> (Option<f64>, f64) {
    let side = TILE / 4;
    let [from_x, from_y] = [left.saturating_sub(side / 2), top.saturating_sub(side / 2)];
    let [to_x, to_y] = [(left + side + side / 2).min(of[0].width), (top + side + side / 2).min(of[0].height)];
    let places: Vec<usize> = (from_y..to_y).flat_map(|y| (from_x..to_x).map(move |x| y * of[0].width + x)).collect();
    let count = places.len() as f64;
    let mean = |plane: &Plane| places.iter().map(|place| f64::from(plane.of[*place])).sum::<f64>() / count;
    let means = of.each_ref().map(mean);
    let moment = |a: usize, b: usize| {
        let off = |plane: usize, place: usize| f64::from(of[plane].of[place]) - means[plane];
        places.iter().map(|place| off(a, *place) * off(b, *place)).sum::<f64>() / count
    };
    let (first, later, both) = (moment(0, 0).sqrt(), moment(1, 1).sqrt(), moment(0, 1));
    if first < 3.0 || means[0] < 8.0 || means[1] < 4.0 {
        return (None, 0.0);
    }
    (Some(later / means[1] / (first / means[0])), if later > 0.2 { both / (first * later) } else { 0.0 })
}

/// Sharpness around a tile against the reference's.
fn sharpness([first, later]: [&Sharpness; 2], back: &Map, at: [usize; 2], size: [usize; 2]) -> Option<f64> {
    let middle = at.map(|side| side as f64 + TILE as f64 / 2.0 - 0.5);
    let share = |[x, y]: [f64; 2]| [(x + 0.5) / size[0] as f64, (y + 0.5) / size[1] as f64];
    let half = TILE as f64 / size[0] as f64;
    let (before, texture) = first.around(share(back.apply(middle)?), half)?;
    let (after, still) = later.around(share(middle), half)?;
    (texture > LEAST_TEXTURE && still > 0.02 * texture && before > 1e-6).then(|| after / before)
}
