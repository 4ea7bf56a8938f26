//! Fitting: a pose from ten clicks, a picture looked through for edges, the work of 64 cameras in visits.

use bright_angle_core::Site;
use bright_angle_core::file::{HeadRef, SiteFile};
use bright_angle_core::fit::day::days;
use bright_angle_core::fit::edge_match::{GreyPicture, edge_match};
use bright_angle_core::fit::hangs::{HangsWish, hangs};
use bright_angle_core::fit::landmarks::clickables;
use bright_angle_core::fit::pose::{PoseWish, pose_of};
use bright_angle_core::fit::pose_points::PosePoint;
use bright_angle_core::judge::Session;
use bright_angle_core::picture::{Light, Picture, PictureWish, Window};
use criterion::{Criterion, criterion_group, criterion_main};
use std::hint::black_box;

fn demo() -> SiteFile {
    SiteFile::parse(include_str!("../../../demo/tern-quay.json")).unwrap()
}

fn name() -> HeadRef {
    HeadRef { camera: "c6".to_owned(), head: "h1".to_owned(), view: None }
}

/// The head's own landmarks, clicked where it has them.
fn clicked(session: &Session) -> Vec<PosePoint> {
    let marks = clickables(session.site(), &name()).unwrap();
    let seen = marks.into_iter().filter(|mark| mark.in_view).take(10);
    seen.map(|mark| {
        let ([x, y, z], [u, v]) = (mark.at, mark.pixel.unwrap());
        PosePoint { id: mark.id, x, y, z, u: u + 1.0, v: v - 0.5, sigma_m: Some(mark.sigma_m) }
    })
    .collect()
}

fn fit(c: &mut Criterion) {
    let session = Session::on(Site::from_file(demo()).unwrap());
    let points = clicked(&session);
    let head = session.site().view(&name()).unwrap();
    let placed = PoseWish { position_sigma_m: Some(0.3), height_sigma_m: Some(0.05), ..PoseWish::default() };
    c.bench_function("pose, ten points", |b| {
        b.iter(|| pose_of(session.site(), head, black_box(&points), PoseWish::default()).unwrap());
    });
    c.bench_function("pose, ten points, place sought", |b| {
        b.iter(|| pose_of(session.site(), head, black_box(&points), placed).unwrap());
    });
    let wish = HangsWish { head: name(), points: points.clone(), wish: PoseWish::default(), picture: None, at: None };
    c.bench_function("how it hangs, with what each promise gets", |b| {
        b.iter(|| hangs(&session, black_box(&wish)).unwrap())
    });

    let whole = PictureWish {
        window: Window::Whole { width: 480 },
        light: Light::Day,
        grid: false,
        samples: 1,
        shutter_s: 0.0,
    };
    let mut drawn = Picture::begin(&session, &name(), &whole, None).unwrap();
    while drawn.step(session.site()) {}
    let grey = drawn.rgba().chunks(4).map(|rgba| rgba[1]).collect();
    let picture = GreyPicture { width: 480, grey };
    c.bench_function("a picture without clicks", |b| {
        b.iter(|| edge_match(session.site(), &name(), black_box(&picture)).unwrap());
    });

    let mut large = demo();
    for number in 0..57 {
        let mut camera = large.cameras[number % 7].clone();
        camera.id = format!("x{number}");
        camera.position = [f64::from(number as u32 * 37 % 100), f64::from(number as u32 * 61 % 60)];
        large.cameras.push(camera);
    }
    c.bench_function("the day of 64 cameras", |b| b.iter(|| days(black_box(&large)).unwrap()));
}

criterion_group!(benches, fit);
criterion_main!(benches);
