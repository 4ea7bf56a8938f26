//! How long a session takes to follow a hand.

mod support;
use bright_angle_core::change::ways::ways;
use bright_angle_core::file::{ListChange, Question, SiteChange};
use bright_angle_core::judge::Session;
use bright_angle_core::show::coverage::section::section;
use bright_angle_core::words::units::Units;
use criterion::{Criterion, criterion_group, criterion_main};
use std::hint::black_box;
use support::generated;

fn camera_moved(session: &Session, step: f64) -> SiteChange {
    let mut camera = session.site().file().cameras[7].clone();
    camera.position[0] += step;
    SiteChange { cameras: Some(ListChange { order: None, put: vec![camera] }), ..SiteChange::default() }
}

fn obstacle_moved(session: &Session, step: f64) -> SiteChange {
    let mut obstacle = session.site().file().obstacles[7].clone();
    obstacle.outline.iter_mut().for_each(|corner| corner[0] += step);
    SiteChange { obstacles: Some(ListChange { order: None, put: vec![obstacle] }), ..SiteChange::default() }
}

fn target_moved(session: &Session, step: f64) -> SiteChange {
    let mut target = session.site().file().targets[7].clone();
    target.shape.points[0][0] += step;
    SiteChange { targets: Some(ListChange { order: None, put: vec![target] }), ..SiteChange::default() }
}

/// A change of the site by a step, m.
type Change = fn(&Session, f64) -> SiteChange;

fn hand(c: &mut Criterion) {
    let site = generated(64, 200, 400, 200.0);
    let mut group = c.benchmark_group("session, 64 heads, 200 targets, 400 obstacles");
    group.bench_function("open", |b| b.iter(|| Session::on(black_box(site.clone()))));
    let changes: [(&str, Change); 3] =
        [("a camera moved", camera_moved), ("an obstacle moved", obstacle_moved), ("a target moved", target_moved)];
    for (name, change) in changes {
        let mut session = Session::on(site.clone());
        let mut step = 0.01;
        group.bench_function(name, |b| {
            b.iter(|| {
                // There and back again, so that the site stays as it is.
                step = -step;
                let change = change(&session, step);
                session.apply(change).expect("a valid change")
            })
        });
    }
    let session = Session::on(site.clone());
    let line = Question { camera: "c7".into(), head: "h".into(), view: None, target: "t7".into() };
    group.bench_function("the section of a line", |b| {
        b.iter(|| section(&session, black_box(&line)).expect("a section"))
    });
    group.sample_size(10);
    group.bench_function("the ways of a line", |b| {
        b.iter(|| ways(&session, black_box(&line), Units::Metres).expect("ways"))
    });
    group.finish();
}

criterion_group! { name = benches; config = Criterion::default().sample_size(40); targets = hand }
criterion_main!(benches);
