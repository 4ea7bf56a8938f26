//! How long the sun's year, the light of a night and a plate's way take on the large site.

mod support;
use bright_angle_core::Site;
use bright_angle_core::file::{GeoPlace, ListChange, SiteChange};
use bright_angle_core::judge::Session;
use bright_angle_core::show::night::light_told::light_told;
use bright_angle_core::show::sun::live_sun::{LiveSun, sun_hours};
use bright_angle_core::sun::SunYear;
use criterion::{Criterion, criterion_group, criterion_main};
use serde_json::json;
use std::hint::black_box;

fn place() -> GeoPlace {
    GeoPlace { latitude_deg: 52.4, longitude_deg: -1.9, elevation_m: 140.0, time_zone: "Europe/London".into() }
}

/// The large site, on the earth, with plates on their way and lamps.
fn session() -> Session {
    let mut file = support::generated(64, 200, 400, 200.0).file().clone();
    file.place = Some(place());
    let lanes = (0..4).map(|i| {
        let x = 40.0 * f64::from(i) + 20.0;
        serde_json::from_value(
            json!({"id": format!("lane{i}"), "name": "Lane", "subject": "plate", "task": "read", "speed_mps": 5.0,
            "shape": {"kind": "line", "points": [[x, 20.0], [x + 5.0, 80.0]]}, "height_m": 0.7}),
        )
        .expect("a target")
    });
    file.targets.extend(lanes);
    let lamps = (0..20).map(|i| {
        json!({"id": format!("l{i}"), "name": "L", "position": [10.0 * f64::from(i), 200.0 * support::spread(i as usize, 0.4)],
            "height_m": 6.0, "lumens": 6000.0})
    });
    file.lamps = serde_json::from_value(lamps.collect()).expect("lamps");
    for camera in &mut file.cameras {
        camera.model.infrared_m = Some(40.0);
        camera.model.least_lux = Some(0.05);
    }
    Session::on(Site::from_file(file).expect("a valid site"))
}

fn suns(c: &mut Criterion) {
    let session = session();
    let mut group = c.benchmark_group("sun, a year of minutes");
    group.sample_size(10);
    group.bench_function("the sun alone", |b| b.iter(|| SunYear::new(black_box(&place()), 2027).expect("a year")));
    group.bench_function("one head, the sun known", |b| {
        let year = SunYear::new(&place(), 2027).expect("a year");
        b.iter(|| sun_hours(black_box(&session), &year, 0));
    });
    group.bench_function("64 heads from nothing", |b| {
        b.iter(|| {
            let mut sun = LiveSun::default();
            let year = sun.year(session.site(), 2027).expect("a place");
            (0..session.site().heads().len())
                .map(|place| sun_hours(black_box(&session), year, place))
                .collect::<Vec<_>>()
        });
    });
    group.finish();
}

fn ways(c: &mut Criterion) {
    let mut session = session();
    let mut group = c.benchmark_group("plates on their way, 64 heads, 4 ways of 60 m");
    let mut turn = 0;
    group.bench_function("a camera moved", |b| {
        b.iter(|| {
            turn += 1;
            let mut camera = session.site().file().cameras[7].clone();
            camera.heads[0].pan_deg = f64::from(turn % 360);
            let cameras = Some(ListChange { order: None, put: vec![camera] });
            session.apply(SiteChange { cameras, ..SiteChange::default() }).expect("a change").judged
        });
    });
    group.bench_function("a way moved", |b| {
        b.iter(|| {
            turn += 1;
            let mut lane = session.site().file().targets[200].clone();
            lane.shape.points[0][0] = 20.0 + f64::from(turn % 10);
            let targets = Some(ListChange { order: None, put: vec![lane] });
            session.apply(SiteChange { targets, ..SiteChange::default() }).expect("a change").judged
        });
    });
    group.finish();
    c.bench_function("light of a night, 64 heads, 204 targets, 20 lamps", |b| {
        b.iter(|| light_told(black_box(&session)))
    });
}

criterion_group!(benches, suns, ways);
criterion_main!(benches);
