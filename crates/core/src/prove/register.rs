//! How a camera turned, from blocks of one picture that are found again in the other: a robust fit over all of them (Tukey's biweight, its
//! width narrowed step by step), which parked cars, shadows and rain do not pull away.

use super::coarse::{guesses, warped};
use super::plane::Plane;
use super::turned::{Map, Pinhole, Turned};
use nalgebra::{Matrix4, Vector4};

/// Blocks are so many pixels to a side, and found again so far around.
pub(super) const BLOCK: usize = 20;
pub(super) const AROUND: usize = 7;
/// A block needs such a deviation to be found again, of 255, and is found if its correlation is over this.
const LEAST_DEVIATION: f32 = 3.0;
const ALIKE: f32 = 0.7;
/// Blocks that fit lie within so many pixels.
const FITS_PX: f64 = 1.2;
/// A turn is believed in if so many blocks fit, that share of those that could, and that share of those that were found.
const LEAST_BLOCKS: usize = 10;
const LEAST_SHARE: f64 = 0.12;
const LEAST_OF_FOUND: f64 = 0.3;
/// Nothing else is tried where that share of those found fits.
const SURE: f64 = 0.5;

/// A turn, and what it rests on.
#[derive(Clone, Copy, Debug)]
pub struct Registered {
    /// The turn.
    pub turned: Turned,
    /// Blocks that fit.
    pub fit: usize,
    /// Blocks that could have been found.
    pub could: usize,
    /// Blocks that were found somewhere.
    pub found: usize,
}

impl Registered {
    fn holds(&self) -> bool {
        self.fit >= LEAST_BLOCKS
            && self.fit as f64 >= LEAST_SHARE * self.could as f64
            && self.fit as f64 >= LEAST_OF_FOUND * self.found as f64
    }
}

/// How a camera turned between two pictures, softened a little and of one size; `None` where they do not tell.
pub fn register(first: &Plane, later: &Plane, hfov_deg: f64) -> Option<Registered> {
    let pinhole = Pinhole::new(first.width, first.height, hfov_deg);
    let sure = |one: &Registered| one.holds() && one.fit as f64 >= SURE * one.found as f64;
    // Where it was: what has hardly moved is found at once.
    let mut all: Vec<Registered> = refined(first, later, &pinhole, Turned::default()).into_iter().collect();
    for usual in [true, false] {
        if let Some(sure) = all.iter().copied().filter(sure).max_by_key(|one| one.fit) {
            return Some(sure);
        }
        let guesses = guesses(first, later, hfov_deg, usual);
        all.extend(guesses.into_iter().filter_map(|guess| refined(first, later, &pinhole, guess)));
    }
    all.into_iter().filter(Registered::holds).max_by_key(|one| one.fit)
}

/// From a guess down to where the blocks have it.
fn refined(first: &Plane, later: &Plane, pinhole: &Pinhole, guess: Turned) -> Option<Registered> {
    let mut turned = guess;
    let mut found = None;
    for _ in 0..3 {
        let map = turned.map(pinhole);
        let (blocks, could) = find(first, later, &map)?;
        if blocks.len() < LEAST_BLOCKS {
            return None;
        }
        let before = turned;
        let fit;
        (turned, fit) = fitted(&blocks, pinhole, turned)?;
        found = Some(Registered { turned, fit, could, found: blocks.len() });
        let step = turned.figures().iter().zip(before.figures()).map(|(a, b)| (a - b).abs()).fold(0.0, f64::max);
        if step * pinhole.focal() < 0.3 {
            break;
        }
    }
    found
}

/// Blocks of the first picture, by the place of their middle, with where the later one has them; and how many could have been found.
type Blocks = Vec<([f64; 2], [f64; 2])>;

fn find(first: &Plane, later: &Plane, map: &Map) -> Option<(Blocks, usize)> {
    let back = map.inverse()?;
    let (width, height) = (later.width, later.height);
    let (seen, shown) = warped(first, &back, width, height);
    let mut blocks = Vec::new();
    let mut could = 0;
    for top in (AROUND..height.saturating_sub(BLOCK + AROUND)).step_by(BLOCK) {
        for left in (AROUND..width.saturating_sub(BLOCK + AROUND)).step_by(BLOCK) {
            let whole = |x: usize, y: usize| shown[y * width + x];
            let corners = [(left, top), (left + BLOCK, top), (left, top + BLOCK), (left + BLOCK, top + BLOCK)];
            if !corners.into_iter().all(|(x, y)| whole(x, y)) {
                continue;
            }
            let Some(block) = Block::of(&seen, left, top) else { continue };
            could += 1;
            let Some([right, down]) = block.again(later, left, top) else { continue };
            let middle = [left as f64 + (BLOCK as f64 - 1.0) / 2.0, top as f64 + (BLOCK as f64 - 1.0) / 2.0];
            if let Some(from) = back.apply(middle) {
                blocks.push((from, [middle[0] + right, middle[1] + down]));
            }
        }
    }
    Some((blocks, could))
}

/// A block with its mean taken out and its deviation made one.
pub(super) struct Block([f32; BLOCK * BLOCK]);

impl Block {
    /// The block at a place, by its left and top; `None` where it shows too little to be found again.
    pub(super) fn of(plane: &Plane, left: usize, top: usize) -> Option<Block> {
        let mut of = [0.0; BLOCK * BLOCK];
        for y in 0..BLOCK {
            of[y * BLOCK..][..BLOCK].copy_from_slice(&plane.of[(top + y) * plane.width + left..][..BLOCK]);
        }
        let mean = of.iter().sum::<f32>() / of.len() as f32;
        of.iter_mut().for_each(|figure| *figure -= mean);
        let length = of.iter().map(|figure| figure * figure).sum::<f32>().sqrt();
        if length < LEAST_DEVIATION * BLOCK as f32 {
            return None;
        }
        // What runs one way only slides along itself.
        let mut slopes = [0.0_f32; 3];
        for y in 1..BLOCK - 1 {
            for x in 1..BLOCK - 1 {
                let place = y * BLOCK + x;
                let (across, down) = (of[place + 1] - of[place - 1], of[place + BLOCK] - of[place - BLOCK]);
                slopes[0] += across * across;
                slopes[1] += across * down;
                slopes[2] += down * down;
            }
        }
        let half = (slopes[0] + slopes[2]) / 2.0;
        let least = half - ((slopes[0] - slopes[2]).powi(2) / 4.0 + slopes[1] * slopes[1]).sqrt();
        if least < 0.04 * half {
            return None;
        }
        of.iter_mut().for_each(|figure| *figure /= length);
        Some(Block(of))
    }

    /// How far from its place it is found again, right and down, between pixels by the parabola through the three highest.
    pub(super) fn again(&self, later: &Plane, left: usize, top: usize) -> Option<[f64; 2]> {
        const SIDE: usize = 2 * AROUND + 1;
        let mut alike = [[-1.0_f32; SIDE]; SIDE];
        let mut best = (0, 0);
        for (dy, row) in alike.iter_mut().enumerate() {
            for (dx, score) in row.iter_mut().enumerate() {
                *score = self.alike(later, left + dx - AROUND, top + dy - AROUND);
            }
        }
        for dy in 0..SIDE {
            for dx in 0..SIDE {
                if alike[dy][dx] > alike[best.1][best.0] {
                    best = (dx, dy);
                }
            }
        }
        let (dx, dy) = best;
        if alike[dy][dx] < ALIKE || dx == 0 || dy == 0 || dx == SIDE - 1 || dy == SIDE - 1 {
            return None;
        }
        let top_of = |before: f32, at: f32, after: f32| {
            let bend = before - 2.0 * at + after;
            if bend < -1e-6 { f64::from((0.5 * (before - after) / bend).clamp(-0.5, 0.5)) } else { 0.0 }
        };
        let fine = [
            top_of(alike[dy][dx - 1], alike[dy][dx], alike[dy][dx + 1]),
            top_of(alike[dy - 1][dx], alike[dy][dx], alike[dy + 1][dx]),
        ];
        Some([dx as f64 - AROUND as f64 + fine[0], dy as f64 - AROUND as f64 + fine[1]])
    }

    fn alike(&self, later: &Plane, left: usize, top: usize) -> f32 {
        let (mut product, mut sum, mut squares) = (0.0_f32, 0.0_f32, 0.0_f32);
        for y in 0..BLOCK {
            let mine = &self.0[y * BLOCK..][..BLOCK];
            let theirs = &later.of[(top + y) * later.width + left..][..BLOCK];
            for (a, b) in mine.iter().zip(theirs) {
                product += a * b;
                sum += b;
                squares += b * b;
            }
        }
        let deviation = (squares - sum * sum / (BLOCK * BLOCK) as f32).max(0.0).sqrt();
        if deviation < 0.3 * LEAST_DEVIATION * BLOCK as f32 { -1.0 } else { product / deviation }
    }
}

/// The turn that fits most blocks, and how many.
fn fitted(blocks: &Blocks, pinhole: &Pinhole, begin: Turned) -> Option<(Turned, usize)> {
    let mut turned = begin;
    for width in [12.0, 8.0, 5.0, 3.0, 3.0, 2.0, 2.0, 2.0_f64] {
        let figures = turned.figures();
        let map = turned.map(pinhole);
        let step = 1e-5;
        let nudged: Vec<Map> = (0..4)
            .map(|axis| {
                let mut figures = figures;
                figures[axis] += step;
                Turned::of(figures).map(pinhole)
            })
            .collect();
        let (mut normal, mut right) = (Matrix4::zeros(), Vector4::zeros());
        for (from, to) in blocks {
            let Some(at) = map.apply(*from) else { continue };
            let off = [to[0] - at[0], to[1] - at[1]];
            let share = (off[0] * off[0] + off[1] * off[1]) / (width * width);
            if share >= 1.0 {
                continue;
            }
            let weight = (1.0 - share) * (1.0 - share);
            let moved: Vec<[f64; 2]> = nudged.iter().map(|map| map.apply(*from).unwrap_or(at)).collect();
            for axis in 0..2 {
                let row = Vector4::from_fn(|figure, _| (moved[figure][axis] - at[axis]) / step);
                normal += weight * row * row.transpose();
                right += weight * off[axis] * row;
            }
        }
        let by = normal.try_inverse()? * right;
        turned = Turned::of([0, 1, 2, 3].map(|axis| figures[axis] + by[axis]));
    }
    let map = turned.map(pinhole);
    let fits = |(from, to): &&([f64; 2], [f64; 2])| {
        map.apply(*from).is_some_and(|at| (to[0] - at[0]).hypot(to[1] - at[1]) < FITS_PX)
    };
    Some((turned, blocks.iter().filter(fits).count()))
}
