//! Two pictures of 2 MP compared: a camera that hangs as it hung, and one that was knocked.

use bright_angle_core::file::ProvingRules;
use bright_angle_core::prove::compare::compare;
use bright_angle_core::prove::shot::Shot;
use criterion::{Criterion, criterion_group, criterion_main};
use std::hint::black_box;

const SIZE: [usize; 2] = [1920, 1080];

/// A scene of patches of many sizes, seen so many pixels to the right and down.
fn seen(right: usize, down: usize) -> Shot {
    let hash = |x: usize, y: usize, size: usize| {
        let mixed =
            ((x / size) as u32).wrapping_mul(0x9e37_79b9) ^ ((y / size) as u32).wrapping_mul(0x85eb_ca6b) ^ size as u32;
        (mixed ^ (mixed >> 15)).wrapping_mul(0x2c1b_3c6d) >> 26
    };
    let rgb = (0..SIZE[1]).flat_map(|y| {
        (0..SIZE[0]).flat_map(move |x| {
            let (x, y) = (x + right, y + down);
            let light = [200, 67, 23, 9].map(|size| hash(x, y, size)).iter().sum::<u32>() as u8;
            [light, light / 2 + 40, 255 - light]
        })
    });
    Shot { width: SIZE[0], height: SIZE[1], rgb: rgb.collect() }
}

fn compared(c: &mut Criterion) {
    let reference = seen(400, 300);
    let limits = ProvingRules::default();
    for (name, later) in
        [("still", seen(400, 300)), ("moved by 0.3°", seen(410, 300)), ("knocked by 8°", seen(650, 360))]
    {
        c.bench_function(&format!("compare, 2 MP, {name}"), |b| {
            b.iter(|| compare(black_box(&reference), black_box(&later), 60.0, &limits).unwrap());
        });
    }
}

criterion_group! { name = benches; config = Criterion::default().sample_size(10); targets = compared }
criterion_main!(benches);
