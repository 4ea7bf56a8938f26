//! Textures that help to judge scale: courses on walls, paving on the ground, a metre grid. They fade where they are finer than a
//! pixel, to their own mean, so that nothing shimmers.

use super::paint::Paint;
use glam::{DVec2, Vec3};

/// Height of a course of bricks with its joint, m; length of a brick with its joint. Common practice, from memory: the metric brick
/// of 215 × 65 mm with joints of 10 mm.
pub const COURSE_M: f64 = 0.075;
const BRICK_M: f64 = 0.225;
const JOINT_M: f64 = 0.010;
/// Side of a paving slab with its joint, m; our choice.
const SLAB_M: f64 = 0.6;
const SLAB_JOINT_M: f64 = 0.012;

/// How much of a pattern of a period is left in pixels of a size, m: all of it at four pixels a period, nothing at two.
pub fn left_of(period: f64, pixel: f64) -> f32 {
    ((period / pixel.max(1e-9) - 2.0) / 2.0).clamp(0.0, 1.0) as f32
}

/// A figure between 0 and 1 that belongs to a cell.
pub fn chance(column: i64, row: i64) -> f32 {
    let mixed = (column.wrapping_mul(0x9E37_79B9_7F4A_7C15_u64 as i64)
        ^ row.wrapping_mul(0xC2B2_AE3D_27D4_EB4F_u64 as i64)) as u64;
    let mixed = (mixed ^ (mixed >> 29)).wrapping_mul(0xBF58_476D_1CE4_E5B9);
    ((mixed >> 40) & 0xFFFF) as f32 / 65535.0
}

/// A wall of bricks: along it and up it, m.
pub fn bricks(at: DVec2, pixel: f64) -> Paint {
    let (brick, joint) = (Vec3::new(0.36, 0.17, 0.11), Vec3::new(0.52, 0.49, 0.44));
    let row = (at.y / COURSE_M).floor();
    let shift = if row.rem_euclid(2.0) < 1.0 { 0.0 } else { BRICK_M / 2.0 };
    let column = ((at.x + shift) / BRICK_M).floor();
    let (along, up) = (at.x + shift - column * BRICK_M, at.y - row * COURSE_M);
    let in_bed = (up < JOINT_M) as u8 as f32;
    let in_head = (along < JOINT_M) as u8 as f32;
    // Beds are seen farther than the joints between bricks of a course.
    let bed = blend((JOINT_M / COURSE_M) as f32, in_bed, left_of(COURSE_M, pixel));
    let head = blend((JOINT_M / BRICK_M) as f32, in_head, left_of(BRICK_M / 2.0, pixel));
    let own = 1.0 + 0.35 * (chance(column as i64, row as i64) - 0.5) * left_of(COURSE_M * 1.5, pixel);
    let mortar = bed + head * (1.0 - bed);
    let colour = (brick * own).lerp(joint, mortar);
    Paint { colour, retro: false }
}

/// Ground paved with slabs.
pub fn paving(at: DVec2, pixel: f64) -> Paint {
    let cell = (at / SLAB_M).floor();
    let within = at - cell * SLAB_M;
    let in_joint = (within.min_element() < SLAB_JOINT_M) as u8 as f32;
    let joint = blend((2.0 * SLAB_JOINT_M / SLAB_M) as f32, in_joint, left_of(SLAB_M / 3.0, pixel));
    let own = 1.0 + 0.16 * (chance(cell.x as i64, cell.y as i64) - 0.5) * left_of(SLAB_M, pixel);
    Paint { colour: Vec3::new(0.40, 0.38, 0.34) * own * (1.0 - 0.45 * joint), retro: false }
}

/// Ground with a grid of metres laid on it, on request.
pub fn measured(ground: Paint, at: DVec2, pixel: f64, grid: bool) -> Paint {
    // Lines as wide as a pixel, at least four centimetres.
    let off = (at - at.round()).abs().min_element();
    if !grid || off >= 0.02_f64.max(pixel * 0.6) {
        return ground;
    }
    Paint { colour: ground.colour.lerp(Vec3::new(0.75, 0.45, 0.02), 0.8 * left_of(1.0, pixel)), ..ground }
}

/// Boards or bars of a width, upright.
pub fn boards(along: f64, width: f64, pixel: f64, colour: Vec3) -> Paint {
    let board = (along / width).floor();
    let gap = ((along - board * width) < width * 0.12) as u8 as f32;
    let dark = blend(0.12, gap, left_of(width, pixel));
    let own = 1.0 + 0.2 * (chance(board as i64, 7) - 0.5) * left_of(width, pixel);
    Paint { colour: colour * own * (1.0 - 0.5 * dark), retro: false }
}

/// Ground of a colour, mottled so that near and far can be told apart on it.
pub fn mottled(colour: Vec3, at: DVec2, pixel: f64) -> Paint {
    let shade = 1.0 + 0.10 * clump(at, 0.8, pixel) + 0.16 * clump(at, 0.2, pixel) + 0.12 * clump(at, 0.05, pixel);
    Paint { colour: colour * shade, retro: false }
}

/// Lighter or darker from cell to cell of a size, −½ to ½.
fn clump(at: DVec2, size: f64, pixel: f64) -> f32 {
    let cell = (at / size).floor();
    (chance(cell.x as i64, cell.y as i64) - 0.5) * left_of(size, pixel)
}

/// Foliage: clumps of leaves.
pub fn leaves(at: DVec2, pixel: f64) -> Paint {
    let shade = 1.0 + 0.5 * clump(at, 0.45, pixel) + 0.6 * clump(at, 0.16, pixel);
    Paint { colour: Vec3::new(0.12, 0.22, 0.06) * shade.max(0.2), retro: false }
}

fn blend(mean: f32, here: f32, left: f32) -> f32 {
    mean + (here - mean) * left
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_texture_that_fades_keeps_its_mean() {
        let mean = |pixel: f64| {
            let count = 20_000;
            let place = |i: u32| DVec2::new(f64::from(i % 141) * 0.0317, f64::from(i / 141) * 0.0171);
            (0..count).map(|i| bricks(place(i), pixel).colour).sum::<Vec3>() / count as f32
        };
        assert!((mean(1e-4) - mean(1.0)).length() < 0.01, "{} {}", mean(1e-4), mean(1.0));
    }

    #[test]
    fn courses_repeat_with_their_height() {
        let bed = |z: f64| bricks(DVec2::new(0.05, z), 1e-4).colour.y > 0.4;
        let beds: Vec<i32> =
            (1..3000_i32).filter(|i| bed(f64::from(*i) / 1000.0) && !bed(f64::from(*i - 1) / 1000.0)).collect();
        // From the second on they are a course apart.
        assert!(
            beds.windows(2).all(|pair| (f64::from(pair[1] - pair[0]) / 1000.0 - COURSE_M).abs() < 0.0011),
            "{beds:?}"
        );
    }
}
