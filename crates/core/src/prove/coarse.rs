//! A first guess of how a camera turned, however far: orientation correlation (A. Fitch and others, "Orientation correlation", BMVC 2002;
//! from memory) for each of some rolls and scales. Only the direction of slopes counts, which light changes least.

use super::plane::Plane;
use super::turned::{Map, Pinhole, Turned};
use rustfft::FftPlanner;
use rustfft::num_complex::Complex;

/// The pictures are looked at so wide, px.
const WIDE: usize = 256;
/// Rolls that are tried, degrees, and scales: those that are usual, then the others.
const USUAL: ([f64; 3], [f64; 1]) = ([0.0, -4.0, 4.0], [1.0]);
const OTHERS: ([f64; 7], [f64; 3]) = ([0.0, -4.0, 4.0, -8.0, 8.0, -12.0, 12.0], [1.0, 0.88, 1.14]);
/// A slope under this says nothing, of 255 a pixel.
const LEAST_SLOPE: f32 = 1.5;
/// So many guesses are looked into.
const FOLLOWED: usize = 4;

/// Turns that may be it, the likeliest first: of those that are usual, or of all.
pub fn guesses(first: &Plane, later: &Plane, hfov_deg: f64, usual: bool) -> Vec<Turned> {
    let (rolls, scales) = if usual { (&USUAL.0[..], &USUAL.1[..]) } else { (&OTHERS.0[..], &OTHERS.1[..]) };
    let height = (WIDE * first.height / first.width).max(8);
    let [first, later] = [first, later].map(|plane| plane.scaled_to(WIDE, height));
    let pinhole = Pinhole::new(WIDE, height, hfov_deg);
    let mut planner = FftPlanner::new();
    let rows = (planner.plan_fft_forward(WIDE), planner.plan_fft_inverse(WIDE));
    let columns = (planner.plan_fft_forward(height), planner.plan_fft_inverse(height));
    let transform = |of: &mut Vec<Complex<f32>>, back: bool| {
        let (row, column) = if back { (&rows.1, &columns.1) } else { (&rows.0, &columns.0) };
        row.process(of);
        let mut turned = transposed(of, WIDE, height);
        column.process(&mut turned);
        *of = transposed(&turned, height, WIDE);
    };
    let mut seen = directions(&later);
    transform(&mut seen, false);
    let mut found: Vec<(f32, Turned)> = Vec::new();
    for &scale in scales {
        for &roll in rolls {
            let turn = Turned { roll: roll.to_radians(), ln_scale: f64::ln(scale), ..Turned::default() };
            let Some(back) = turn.map(&pinhole).inverse() else { continue };
            let mut of = directions(&warped(&first, &back, WIDE, height).0);
            transform(&mut of, false);
            of.iter_mut().zip(&seen).for_each(|(a, b)| *a = a.conj() * b);
            transform(&mut of, true);
            found.extend(peaks(&of, height).into_iter().map(|(peak, [x, y])| {
                // What moves left was turned to the right.
                let focal = pinhole.focal() * scale;
                let turned = Turned { right: (-x / focal).atan(), down: (-y / focal).atan(), ..turn };
                (peak, turned)
            }));
        }
    }
    found.sort_by(|a, b| b.0.total_cmp(&a.0));
    let mut kept: Vec<Turned> = Vec::new();
    for (_, turned) in found {
        let apart = |held: &Turned| {
            let off = [held.right - turned.right, held.down - turned.down];
            off[0].hypot(off[1]) > 4.0 / pinhole.focal() || (held.roll - turned.roll).abs() > 0.1
        };
        if kept.iter().all(apart) {
            kept.push(turned);
        }
        if kept.len() == FOLLOWED {
            break;
        }
    }
    kept
}

/// A picture as another sees it: each pixel from where `back` has it, and whether it shows that.
pub fn warped(from: &Plane, back: &Map, width: usize, height: usize) -> (Plane, Vec<bool>) {
    let mut plane = Plane::empty(width, height);
    let mut shown = vec![false; width * height];
    for y in 0..height {
        for x in 0..width {
            let at = back.apply([x as f64, y as f64]).and_then(|[u, v]| from.between(u, v));
            if let Some(figure) = at {
                plane.of[y * width + x] = figure;
                shown[y * width + x] = true;
            }
        }
    }
    (plane, shown)
}

fn transposed(of: &[Complex<f32>], width: usize, height: usize) -> Vec<Complex<f32>> {
    (0..width).flat_map(|x| (0..height).map(move |y| of[y * width + x])).collect()
}

/// The direction of each slope that says something, softly cut off at the edges.
fn directions(plane: &Plane) -> Vec<Complex<f32>> {
    let (across, down) = plane.slopes();
    let window = |place: usize, of: usize| (std::f32::consts::PI * (place as f32 + 0.5) / of as f32).sin();
    let mut of = Vec::with_capacity(plane.of.len());
    for y in 0..plane.height {
        let fades = window(y, plane.height);
        for x in 0..plane.width {
            let slope = Complex::new(across.at(x, y), down.at(x, y));
            let length = slope.norm();
            let kept = if length > LEAST_SLOPE { slope / length } else { Complex::default() };
            of.push(kept * fades * window(x, plane.width));
        }
    }
    of
}

/// The two highest peaks, each with how far it is right and down.
fn peaks(of: &[Complex<f32>], height: usize) -> Vec<(f32, [f64; 2])> {
    let mut best: Vec<(f32, [f64; 2])> = Vec::new();
    let signed = |place: usize, of: usize| if place > of / 2 { place as f64 - of as f64 } else { place as f64 };
    let mut sorted: Vec<usize> = (0..of.len()).collect();
    let few = 24.min(sorted.len());
    sorted.select_nth_unstable_by(few - 1, |a, b| of[*b].re.total_cmp(&of[*a].re));
    sorted.truncate(few);
    sorted.sort_by(|a, b| of[*b].re.total_cmp(&of[*a].re));
    for place in sorted {
        let at = [signed(place % WIDE, WIDE), signed(place / WIDE, height)];
        if best.iter().all(|(_, held)| (held[0] - at[0]).hypot(held[1] - at[1]) > 3.0) {
            best.push((of[place].re, at));
        }
        if best.len() == 2 {
            break;
        }
    }
    best
}
