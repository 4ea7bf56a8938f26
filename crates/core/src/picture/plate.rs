//! A number plate of our own making: characters of upright and level bars, of the sizes that plates have.

use super::paint::Paint;
use glam::DVec2;

/// Height of a character, m (handbook, section 10).
pub const CHARACTER_M: f64 = 0.079;
/// Width of a stroke, m (handbook, section 10).
pub const STROKE_M: f64 = 0.014;
/// Width of a character, and the space between two; from memory.
const WIDE_M: f64 = 0.050;
const SPACE_M: f64 = 0.011;
/// The space between the two groups; from memory.
const GROUPS_M: f64 = 0.033;
/// The size that all of this is of, m.
const SIZE: DVec2 = DVec2::new(0.52, 0.11);

/// What it says: made up, in characters that bars can write.
const SAYS: &str = "HE17 FLT";

/// The bars of a character: left, right, upright in the middle, top, middle, bottom.
fn bars(character: char) -> [bool; 6] {
    let bars = match character {
        'H' => "lr-.m.",
        'E' => "l..tmb",
        'F' => "l..tm.",
        'L' => "l....b",
        'T' => "..ut..",
        '1' => "..u...",
        '7' => ".r.t..",
        _ => "......",
    };
    let mut found = [false; 6];
    bars.chars().zip(&mut found).for_each(|(bar, here)| *here = bar.is_ascii_alphabetic());
    found
}

/// The paint of a plate at a place from its middle, right and up, m, of a plate of a size; `None` beside it.
pub fn plate(at: DVec2, size: DVec2) -> Option<Paint> {
    if (at.abs() * 2.0).cmpgt(size).any() {
        return None;
    }
    let ground = Paint::of(0.80, 0.80, 0.76).thrown_back();
    let ink = Paint::of(0.02, 0.02, 0.02);
    let at = at * SIZE / size;
    let long =
        SAYS.chars().map(|c| if c == ' ' { GROUPS_M - SPACE_M } else { WIDE_M + SPACE_M }).sum::<f64>() - SPACE_M;
    let mut left = -long / 2.0;
    for character in SAYS.chars() {
        if character == ' ' {
            left += GROUPS_M - SPACE_M;
            continue;
        }
        let within = DVec2::new(at.x - left, at.y + CHARACTER_M / 2.0);
        if (0.0..=WIDE_M).contains(&within.x) && (0.0..=CHARACTER_M).contains(&within.y) {
            return Some(if is_inked(within, bars(character)) { ink } else { ground });
        }
        left += WIDE_M + SPACE_M;
    }
    Some(ground)
}

/// Whether a place of a character, right and up from its lower left corner, m, is on a bar.
fn is_inked(DVec2 { x, y }: DVec2, [left, right, upright, top, middle, bottom]: [bool; 6]) -> bool {
    (left && x <= STROKE_M)
        || (right && x >= WIDE_M - STROKE_M)
        || (upright && (x - WIDE_M / 2.0).abs() <= STROKE_M / 2.0)
        || (top && y >= CHARACTER_M - STROKE_M)
        || (middle && (y - CHARACTER_M / 2.0).abs() <= STROKE_M / 2.0)
        || (bottom && y <= STROKE_M)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn its_strokes_are_as_wide_and_its_characters_as_high_as_they_should_be() {
        let inked = |x: f64, y: f64| plate(DVec2::new(x, y), SIZE).is_some_and(|paint| !paint.retro);
        let run = |along: &dyn Fn(f64) -> bool| {
            (0..5200).filter(|i| along(f64::from(*i) / 10_000.0 - 0.26)).count() as f64 / 10_000.0
        };
        // Off the level bars there are only upright strokes: H 2, E, 1, 7 (right), F, L, T: eight of them.
        let strokes = run(&|x| inked(x, 0.02));
        assert!((strokes - 8.0 * STROKE_M).abs() < 0.002, "{strokes}");
        // The first upright of the H.
        let left = (0..5200).map(|i| f64::from(i) / 10_000.0 - 0.26).find(|x| inked(*x, 0.02)).unwrap();
        let high = run(&|y| inked(left + STROKE_M / 2.0, y));
        assert!((high - CHARACTER_M).abs() < 0.0005, "{high}");
        assert_eq!(plate(DVec2::new(0.261, 0.0), SIZE), None);
    }
}
