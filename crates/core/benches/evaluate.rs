//! How long an evaluation takes: `cargo bench`. Figures are reported, never asserted: machines differ.

mod support;
use bright_angle_core::evaluate;
use criterion::{BenchmarkId, Criterion, Throughput, criterion_group, criterion_main};
use std::hint::black_box;
use support::generated;

fn whole_site(c: &mut Criterion) {
    let site = generated(64, 200, 400, 200.0);
    c.bench_function("evaluate 64 heads, 200 targets, 400 obstacles", |b| b.iter(|| evaluate(black_box(&site))));
}

/// Point targets only, so that a sight line is one line of sight; the yard is the same, it just fills up.
fn obstacles(c: &mut Criterion) {
    let mut group = c.benchmark_group("per sight line, by obstacles");
    for count in [100, 400, 1600] {
        let site = generated(32, 200, count, 400.0);
        let lines = evaluate(&site).sight_lines.len() as u64;
        group.throughput(Throughput::Elements(lines));
        group.bench_with_input(BenchmarkId::from_parameter(count), &site, |b, site| {
            b.iter(|| evaluate(black_box(site)))
        });
    }
    group.finish();
}

criterion_group! { name = benches; config = Criterion::default().sample_size(30); targets = whole_site, obstacles }
criterion_main!(benches);
