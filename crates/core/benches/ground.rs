//! How long it takes to tell about the ground: the use of all pictures, why a place is unseen, the quiet path on many cells, the
//! ground under a hand that turns a camera, two designs side by side; and how these grow.

mod support;
use bright_angle_core::Site;
use bright_angle_core::change::designs::side_by_side;
use bright_angle_core::file::{SiteChange, Variant};
use bright_angle_core::ground::quiet_path::quiet_path;
use bright_angle_core::ground::steps::Steps;
use bright_angle_core::ground::told::{GroundWish, LiveGround};
use bright_angle_core::ground::why::why;
use bright_angle_core::judge::Session;
use bright_angle_core::math::Grid;
use bright_angle_core::show::coverage::picture_use::picture_uses;
use bright_angle_core::show::coverage::relief::Relief;
use bright_angle_core::words::units::Units;
use criterion::{BenchmarkId, Criterion, criterion_group, criterion_main};
use serde_json::json;
use std::hint::black_box;

const HEIGHT: f64 = 1.6;

fn pictures(c: &mut Criterion) {
    let mut group = c.benchmark_group("use of the pictures, 400 solids");
    for heads in [16, 64, 256] {
        let session = Session::on(generated_small(heads));
        group.bench_with_input(BenchmarkId::new("heads", heads), &session, |b, session| {
            b.iter(|| picture_uses(black_box(session)))
        });
    }
    group.finish();
}

fn generated_small(heads: usize) -> Site {
    support::generated(heads, 40, 400, 200.0)
}

fn whys(c: &mut Criterion) {
    let mut group = c.benchmark_group("why a place is unseen, 400 solids");
    for heads in [16, 64, 256] {
        let site = generated_small(heads);
        group.bench_with_input(BenchmarkId::new("heads", heads), &site, |b, site| {
            b.iter(|| why(black_box(site), [101.0, 97.0], HEIGHT, 62.5, Units::Metres))
        });
    }
    group.finish();
}

fn paths(c: &mut Criterion) {
    let site = generated_small(64);
    let mut group = c.benchmark_group("quiet path, 64 heads, 400 solids");
    for (cells, cell) in [(40_000, 1.0), (160_000, 0.5), (640_000, 0.25)] {
        let grid = Grid::over([0.0, 0.0, 200.0, 200.0], cell);
        let relief = Relief::of(&site, grid, HEIGHT);
        let steps = Steps::over(&grid, site.scene());
        let seen: Vec<bool> = relief.best().iter().map(|density| *density >= 62.5).collect();
        let middle = grid.cell_at(glam::DVec2::new(100.0, 100.0)).expect("on the grid");
        let goal = (middle..grid.cells()).find(|cell| steps.is_open(*cell)).expect("open ground");
        group.bench_function(BenchmarkId::new("cells", cells), |b| {
            b.iter(|| quiet_path(black_box(&grid), &steps, &seen, goal))
        });
    }
    group.finish();
}

fn hand(c: &mut Criterion) {
    let mut group = c.benchmark_group("ground under a hand that turns a camera, 400 solids");
    for heads in [16, 64, 256] {
        let mut session = Session::on(generated_small(heads));
        let wish = GroundWish { need_px_per_m: 62.5, height_m: HEIGHT, goal: Some([100.0, 100.0]) };
        let mut ground = LiveGround::new(session.site(), HEIGHT);
        ground.tell(session.site(), &wish).expect("a ground");
        let mut camera = session.site().file().cameras[7].clone();
        group.bench_function(BenchmarkId::new("heads", heads), |b| {
            b.iter(|| {
                camera.heads[0].pan_deg = (camera.heads[0].pan_deg + 1.0) % 360.0;
                let change: SiteChange =
                    serde_json::from_value(json!({"cameras": {"put": [camera.clone()]}})).expect("a change");
                let delta = session.apply(change).expect("a site");
                ground.changed(session.site(), &delta);
                ground.tell(session.site(), black_box(&wish))
            })
        });
    }
    group.finish();
}

fn designs(c: &mut Criterion) {
    let mut group = c.benchmark_group("two designs side by side, 400 solids, 40 targets");
    group.sample_size(10);
    for heads in [16, 64] {
        let mut file = generated_small(heads).file().clone();
        let cameras = file.cameras.iter().skip(2).cloned().collect();
        file.variants = vec![Variant { id: "v".into(), name: "Fewer".into(), cameras }];
        let wish = GroundWish { need_px_per_m: 62.5, height_m: HEIGHT, goal: None };
        group.bench_with_input(BenchmarkId::new("heads", heads), &file, |b, file| {
            b.iter(|| side_by_side(black_box(file), None, Some("v"), &wish))
        });
    }
    group.finish();
}

criterion_group!(benches, pictures, whys, paths, hand, designs);
criterion_main!(benches);
