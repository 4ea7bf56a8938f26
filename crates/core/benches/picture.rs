//! How long a picture takes on the large site: as large as a panel, coarse under a hand, a loupe; how that grows with the solids; and
//! its rays beside a general bounding volume hierarchy on the same rays.

mod support;
use bright_angle_core::Site;
use bright_angle_core::file::HeadRef;
use bright_angle_core::judge::Session;
use bright_angle_core::picture::{Light, Picture, PictureWish, Window};
use bright_angle_core::scene::Eye;
use bright_angle_core::site::ray::ray;
use bvh::aabb::{Aabb, Bounded};
use bvh::bounding_hierarchy::BHShape;
use bvh::bvh::Bvh;
use bvh::ray::Ray;
use criterion::{BenchmarkId, Criterion, Throughput, criterion_group, criterion_main};
use glam::{DVec2, DVec3};
use nalgebra::{Point3, Vector3};
use std::hint::black_box;

const HEADS: usize = 64;

fn session(solids: usize) -> Session {
    Session::on(support::generated(HEADS, 200, solids, 200.0))
}

fn first_head(session: &Session) -> HeadRef {
    session.site().heads()[7].name()
}

fn worked_out(session: &Session, head: &HeadRef, window: Window, samples: u32) -> usize {
    let wish = PictureWish { window, light: Light::Day, grid: false, samples, shutter_s: 0.0 };
    let mut picture = Picture::begin(session, head, &wish, None).expect("a head of the site");
    while picture.step(session.site()) {}
    picture.rgba().len()
}

fn pictures(c: &mut Criterion) {
    let session = session(400);
    let head = first_head(&session);
    let mut group = c.benchmark_group("picture, 64 heads, 200 targets, 400 solids");
    for (name, width, samples) in [("320 x 181", 320, 1), ("640 x 362", 640, 1), ("640 x 362, four samples", 640, 2)] {
        group.bench_function(name, |b| {
            b.iter(|| worked_out(black_box(&session), &head, Window::Whole { width }, samples));
        });
    }
    let seen = session.evaluation().sight_lines.into_iter().find(|line| line.camera == head.camera).expect("one");
    group.bench_function("loupe 80 x 54, four samples", |b| {
        let window = Window::Loupe { target: seen.target.clone(), across: 80, down: 54 };
        b.iter(|| worked_out(black_box(&session), &head, window.clone(), 2));
    });
    group.finish();
}

fn growth(c: &mut Criterion) {
    let mut group = c.benchmark_group("picture 640 x 362 by solids");
    for solids in [100, 400, 1600] {
        let session = session(solids);
        let head = first_head(&session);
        group.bench_function(BenchmarkId::new("solids", solids), |b| {
            b.iter(|| worked_out(black_box(&session), &head, Window::Whole { width: 640 }, 1));
        });
    }
    group.finish();
}

/// A triangle of a solid for the general hierarchy.
struct Triangle {
    corners: [Point3<f64>; 3],
    node: usize,
}

impl Bounded<f64, 3> for Triangle {
    fn aabb(&self) -> Aabb<f64, 3> {
        let [a, b, c] = &self.corners;
        Aabb::empty().grow(a).grow(b).grow(c)
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

/// Walls and roofs of all solids; roofs as fans, which is right for the convex outlines of the generated site.
fn triangles(site: &Site) -> Vec<Triangle> {
    let mut all = Vec::new();
    for solid in site.scene().solids() {
        let at = |p: DVec2, z: f64| Point3::new(p.x, p.y, z);
        let (base, top) = (solid.base(), solid.top());
        for (a, b) in solid.edges() {
            all.push([at(a, base), at(b, base), at(b, top)]);
            all.push([at(a, base), at(b, top), at(a, top)]);
        }
        let corners = solid.corners();
        for pair in corners[1..].windows(2) {
            all.push([at(corners[0], top), at(pair[0], top), at(pair[1], top)]);
        }
    }
    all.into_iter().map(|corners| Triangle { corners, node: 0 }).collect()
}

fn beside_a_hierarchy(c: &mut Criterion) {
    let session = session(400);
    let site = session.site();
    let head = &site.heads()[7];
    let eye = Eye::new(site.scene(), head.position(), head.mounted_on());
    let size = head.view().projection.size();
    let pixels: Vec<DVec2> = (0..20_000)
        .map(|i| DVec2::new((f64::from(i) * 0.618_033_988_75).fract(), (f64::from(i) * 0.414_213_562).fract()) * size)
        .collect();
    let directions: Vec<DVec3> = pixels
        .iter()
        .filter_map(|pixel| Some(head.view().pose.to_site(head.view().projection.unproject(*pixel)?)))
        .collect();
    let mut shapes = triangles(site);
    let tree = Bvh::build(&mut shapes);
    let from = eye.from();
    let mut group = c.benchmark_group("20 000 rays");
    group.throughput(Throughput::Elements(pixels.len() as u64));
    group.bench_function("the eye", |b| {
        b.iter(|| {
            pixels
                .iter()
                .filter_map(|pixel| ray(head, &eye, site.scene(), *pixel))
                .filter(|met| met.solid.is_some())
                .count()
        });
    });
    group.bench_function("a bounding volume hierarchy", |b| {
        b.iter(|| {
            let nearest = |direction: &DVec3| {
                let ray =
                    Ray::new(Point3::new(from.x, from.y, from.z), Vector3::new(direction.x, direction.y, direction.z));
                tree.traverse_iterator(&ray, &shapes)
                    .map(|shape| {
                        ray.intersects_triangle(&shape.corners[0], &shape.corners[1], &shape.corners[2]).distance
                    })
                    .fold(f64::INFINITY, f64::min)
            };
            directions.iter().map(nearest).filter(|distance| distance.is_finite()).count()
        });
    });
    group.finish();
}

criterion_group! { name = benches; config = Criterion::default().sample_size(10); targets = pictures, growth, beside_a_hierarchy }
criterion_main!(benches);
