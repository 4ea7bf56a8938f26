//! How long the relief takes: from nothing, with one head moved, by size, and beside one ray a cell through a general BVH.

mod support;
use bright_angle_core::Site;
use bright_angle_core::math::Grid;
use bright_angle_core::show::coverage::relief::Relief;
use bvh::aabb::{Aabb, Bounded};
use bvh::bounding_hierarchy::BHShape;
use bvh::bvh::Bvh;
use bvh::ray::Ray;
use criterion::{BenchmarkId, Criterion, criterion_group, criterion_main};
use nalgebra::{Point3, Vector3};
use std::hint::black_box;
use std::thread;
use support::generated;

const HEIGHT: f64 = 1.6;

fn grid(cell: f64) -> Grid {
    Grid::over([0.0, 0.0, 200.0, 200.0], cell)
}

/// The relief with two threads, each with every other head.
fn on_two_cores(site: &Site, grid: Grid) -> Relief {
    let heads = site.heads().len();
    let half = |first: usize| {
        let mut relief = Relief::empty(grid, HEIGHT, heads);
        (first..heads).step_by(2).for_each(|head| relief.put(site, head));
        relief
    };
    thread::scope(|scope| {
        let other = scope.spawn(|| half(1));
        let mut whole = half(0);
        whole.merge(&other.join().expect("no panic"));
        whole
    })
}

fn whole(c: &mut Criterion) {
    let site = generated(64, 0, 400, 200.0);
    let mut group = c.benchmark_group("relief, 64 heads, 400 solids, 640 000 cells");
    group.bench_function("from nothing, one core", |b| b.iter(|| Relief::of(black_box(&site), grid(0.25), HEIGHT)));
    group.bench_function("from nothing, two cores", |b| b.iter(|| on_two_cores(black_box(&site), grid(0.25))));
    let mut relief = Relief::of(&site, grid(0.25), HEIGHT);
    group.bench_function("one head put again", |b| b.iter(|| relief.put(black_box(&site), 7)));
    group.finish();
}

fn growth(c: &mut Criterion) {
    let mut group = c.benchmark_group("relief, growth");
    for heads in [16, 64, 256] {
        let site = generated(heads, 0, 400, 200.0);
        group.bench_with_input(BenchmarkId::new("heads", heads), &site, |b, site| {
            b.iter(|| Relief::of(black_box(site), grid(0.5), HEIGHT))
        });
    }
    for solids in [100, 400, 1600] {
        let site = generated(64, 0, solids, 200.0);
        group.bench_with_input(BenchmarkId::new("solids", solids), &site, |b, site| {
            b.iter(|| Relief::of(black_box(site), grid(0.5), HEIGHT))
        });
    }
    let site = generated(64, 0, 400, 200.0);
    for cell in [0.5, 0.25, 0.125] {
        group.bench_with_input(BenchmarkId::new("cells", cell), &cell, |b, cell| {
            b.iter(|| Relief::of(black_box(&site), grid(*cell), HEIGHT))
        });
    }
    group.finish();
}

/// A triangle of a solid's hull.
struct Triangle {
    corners: [Point3<f64>; 3],
    node: usize,
}

impl Bounded<f64, 3> for Triangle {
    fn aabb(&self) -> Aabb<f64, 3> {
        self.corners.iter().fold(Aabb::empty(), |bounds, corner| bounds.grow(corner))
    }
}

impl BHShape<f64, 3> for Triangle {
    fn set_bh_node_index(&mut self, index: usize) {
        self.node = index;
    }

    fn bh_node_index(&self) -> usize {
        self.node
    }
}

/// The hulls of all solids of a site whose outlines are convex, as the made-up ones are.
fn triangles(site: &Site) -> Vec<Triangle> {
    let mut found = Vec::new();
    for solid in site.scene().solids() {
        let at = |corner: &glam::DVec2, z: f64| Point3::new(corner.x, corner.y, z);
        let corners = solid.corners();
        for (a, b) in solid.edges() {
            let square = [at(&a, solid.base()), at(&b, solid.base()), at(&b, solid.top()), at(&a, solid.top())];
            found.push([square[0], square[1], square[2]]);
            found.push([square[0], square[2], square[3]]);
        }
        for z in [solid.base(), solid.top()] {
            found.extend((2..corners.len()).map(|i| [at(&corners[0], z), at(&corners[i - 1], z), at(&corners[i], z)]));
        }
    }
    found.into_iter().map(|corners| Triangle { corners, node: 0 }).collect()
}

/// The relief by one ray a cell and head, for the cells in the head's picture.
fn by_rays(site: &Site, grid: Grid, hulls: &[Triangle], tree: &Bvh<f64, 3>) -> Vec<f32> {
    let mut best = vec![0.0_f32; grid.cells()];
    for head in site.heads() {
        let eye = head.position();
        let from = Point3::new(eye.x, eye.y, eye.z);
        for row in 0..grid.rows {
            for column in 0..grid.columns {
                let point = grid.centre(column, row).extend(HEIGHT);
                let Some(true) = head.in_front(point) else { continue };
                let step = point - eye;
                let ray = Ray::new(from, Vector3::new(step.x, step.y, step.z));
                let far = step.length();
                let hidden = tree.traverse_iterator(&ray, hulls).any(|triangle: &Triangle| {
                    let [a, b, c] = &triangle.corners;
                    let near = ray.intersects_triangle(a, b, c).distance.min(ray.intersects_triangle(a, c, b).distance);
                    near < far - 1e-9
                });
                if !hidden {
                    let cell = &mut best[row * grid.columns + column];
                    *cell = cell.max(head.view().across_at(point) as f32);
                }
            }
        }
    }
    best
}

fn beside_rays(c: &mut Criterion) {
    let site = generated(64, 0, 400, 200.0);
    let mut hulls = triangles(&site);
    let tree = Bvh::build(&mut hulls);
    let cells = grid(0.5);
    let (ours, theirs) = (Relief::of(&site, cells, HEIGHT), by_rays(&site, cells, &hulls, &tree));
    let differ = ours.best().iter().zip(&theirs).filter(|(a, b)| (**a - **b).abs() > 1e-3 * a.max(**b)).count();
    println!("relief and rays differ in {differ} of {} cells", cells.cells());
    let mut group = c.benchmark_group("relief, 160 000 cells, one core");
    group.bench_function("shadows filled", |b| b.iter(|| Relief::of(black_box(&site), cells, HEIGHT)));
    group
        .bench_function("one ray a cell through a BVH", |b| b.iter(|| by_rays(black_box(&site), cells, &hulls, &tree)));
    group.finish();
}

criterion_group! { name = benches; config = Criterion::default().sample_size(10); targets = whole, growth, beside_rays }
criterion_main!(benches);
