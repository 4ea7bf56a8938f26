//! The offer: options of a design, what they cost, and the fewest cameras of a demo.

use bright_angle_core::file::SiteFile;
use bright_angle_core::judge::Session;
use bright_angle_core::offer::bill::bill;
use bright_angle_core::offer::fewest::{FewestAmong, FewestBy, Waiting, fewest};
use bright_angle_core::offer::options::options;
use bright_angle_core::words::units::Units;
use bright_angle_core::work::Patience;
use criterion::{Criterion, criterion_group, criterion_main};
use std::hint::black_box;

const WAITING: Waiting = Waiting { patience: &Patience::ENDLESS, progress: &|_| () };

fn offer(criterion: &mut Criterion) {
    let file: SiteFile = serde_json::from_str(include_str!("../../../demo/tern-quay.json")).unwrap();
    let session = Session::open(file.clone()).unwrap();
    criterion.bench_function("three options of the demo", |bencher| {
        bencher.iter(|| options(black_box(&session), &Patience::ENDLESS).unwrap());
    });
    criterion.bench_function("what the demo costs", |bencher| bencher.iter(|| bill(black_box(&file)).unwrap()));
    let wishes = [FewestBy::Count, FewestBy::Trips, FewestBy::BackUp];
    let mut group = criterion.benchmark_group("slow");
    group.sample_size(10);
    group.bench_function("fewest cameras of the demo, three answers", |bencher| {
        bencher.iter(|| fewest(black_box(&session), FewestAmong::Spots, &wishes, Units::Metres, &WAITING).unwrap());
    });
    group.finish();
}

criterion_group!(benches, offer);
criterion_main!(benches);
