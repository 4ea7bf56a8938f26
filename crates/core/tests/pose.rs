//! How a head hangs, as its picture shows: held against SciPy's least squares on points that OpenCV projected
//! (outside/pose/generate.py), and against what its standard deviations say.

use crate::support;

use bright_angle_core::Site;
use bright_angle_core::fit::pose::{PoseFigures, PoseFound, PoseWish, pose_of};
use bright_angle_core::fit::pose_points::PosePoint;
use glam::{DVec2, DVec3};
use serde::Deserialize;
use serde_json::{Value, json};

#[derive(Deserialize)]
struct Table {
    width_px: u32,
    height_px: u32,
    width_mm: f64,
    cases: Vec<Case>,
}

#[derive(Deserialize)]
struct Case {
    sort: String,
    lens: Value,
    designed: Hung,
    built: Hung,
    sigma_px: f64,
    place_sigma_m: Option<[f64; 3]>,
    wrong: Option<usize>,
    points: Vec<[f64; 5]>,
    scipy: Solved,
}

#[derive(Deserialize)]
struct Hung {
    eye: [f64; 3],
    angles: [f64; 3],
    focal: f64,
}

#[derive(Deserialize)]
struct Solved {
    at: Value,
    sigma: Value,
    rms_px: f64,
}

fn table() -> Table {
    serde_json::from_str(include_str!("../../../outside/pose/pose.json")).unwrap()
}

fn site(table: &Table, lens: &Value, hung: &Hung) -> Site {
    let sensor = support::sensor(table.width_px, table.height_px, table.width_mm);
    let [pan, tilt, roll] = hung.angles;
    let camera = json!({"id": "c1", "name": "C1", "position": [hung.eye[0], hung.eye[1]], "height_m": hung.eye[2],
        "model": {"name": "M", "form": "turret", "sensor": sensor, "lens": lens},
        "heads": [{"id": "h1", "pan_deg": pan, "tilt_deg": tilt, "roll_deg": roll, "focal_mm": hung.focal}]});
    support::parse(&support::site(vec![camera], vec![], vec![]))
}

fn points(of: &[[f64; 5]]) -> Vec<PosePoint> {
    let point = |(place, [x, y, z, u, v]): (usize, &[f64; 5])| PosePoint {
        id: format!("p{place}"),
        x: *x,
        y: *y,
        z: *z,
        u: *u,
        v: *v,
        sigma_m: None,
    };
    of.iter().enumerate().map(point).collect()
}

fn solve(table: &Table, case: &Case) -> PoseFound {
    let site = site(table, &case.lens, &case.designed);
    let wish = PoseWish {
        sigma_px: case.sigma_px,
        position_sigma_m: case.place_sigma_m.map(|sigma| sigma[0]),
        height_sigma_m: case.place_sigma_m.map(|sigma| sigma[2]),
    };
    pose_of(&site, &site.heads()[0], &points(&case.points), wish).unwrap()
}

fn named(figures: &PoseFigures) -> Value {
    serde_json::to_value(figures).unwrap()
}

fn apart(a: f64, b: f64) -> f64 {
    ((a - b + 540.0).rem_euclid(360.0) - 180.0).abs()
}

#[test]
fn poses_and_standard_deviations_are_those_of_scipy() {
    let table = table();
    for (number, case) in table.cases.iter().enumerate() {
        let found = solve(&table, case);
        let (at, sigma) = (named(&found.at), named(&found.sigma));
        assert!(found.settled, "{number}");
        for (name, value) in case.scipy.at.as_object().unwrap() {
            let (value, ours) = (value.as_f64().unwrap(), at[name].as_f64().unwrap());
            let spread = case.scipy.sigma[name].as_f64().unwrap();
            let off = if name.ends_with("_deg") { apart(value, ours) } else { (value - ours).abs() };
            assert!(off < 1e-4 * spread + 1e-9, "{number} {}: {name} {ours} for {value} ± {spread}", case.sort);
            let ours = sigma[name].as_f64().unwrap();
            assert!((ours / spread - 1.0).abs() < 1e-3, "{number} {}: σ of {name} {ours} for {spread}", case.sort);
        }
        assert!((found.rms_px - case.scipy.rms_px).abs() < 1e-6, "{number}");
    }
}

#[test]
fn without_noise_the_truth_is_found_however_it_hangs() {
    let table = table();
    for case in table.cases.iter().filter(|case| case.scipy.rms_px < 1e-6) {
        let found = solve(&table, case).at;
        for (ours, truth) in [found.pan_deg, found.tilt_deg, found.roll_deg].into_iter().zip(case.built.angles) {
            assert!(apart(ours, truth) < 1e-6, "{}: {ours} for {truth}", case.sort);
        }
        assert!((found.focal_mm / case.built.focal - 1.0).abs() < 1e-8, "{}", case.sort);
    }
}

#[test]
fn a_wrongly_clicked_point_is_named() {
    let table = table();
    // With four points another may fit the wrong one as well: what is left over is then shared.
    let named =
        table.cases.iter().filter_map(|case| Some((case, case.wrong?))).filter(|(case, _)| case.points.len() > 4);
    let mut count = 0;
    for (case, wrong) in named {
        let found = solve(&table, case);
        assert!(found.points[wrong].doubtful, "{found:?}");
        assert_eq!(found.points.iter().filter(|point| point.doubtful).count(), 1);
        count += 1;
    }
    assert!(count >= 4);
}

#[test]
fn a_fixed_lens_that_is_another_one_is_told() {
    let table = table();
    for case in table.cases.iter().filter(|case| case.sort == "other lens") {
        let lens = case.lens["focal_max_mm"].as_f64().unwrap();
        assert_eq!(solve(&table, case).outside_lens, case.built.focal > lens * 1.01);
    }
}

/// Random figures that are the same each time (Marsaglia's xorshift, 2003), and Gaussian ones by the method of Box and Muller (1958).
struct Dice(u64);

impl Dice {
    fn share(&mut self) -> f64 {
        self.0 ^= self.0 << 13;
        self.0 ^= self.0 >> 7;
        self.0 ^= self.0 << 17;
        (self.0 >> 11) as f64 / (1u64 << 53) as f64
    }

    fn between(&mut self, from: f64, to: f64) -> f64 {
        from + (to - from) * self.share()
    }

    fn gauss(&mut self) -> f64 {
        (-2.0 * self.share().max(1e-300).ln()).sqrt() * (std::f64::consts::TAU * self.share()).cos()
    }
}

/// Ten thousand pictures with Gaussian noise: the truth lies within two standard deviations as often as the Gaussian law has it, 95 ± 1 %.
#[test]
fn the_truth_is_within_two_stated_standard_deviations_as_often_as_it_should_be() {
    let table = table();
    let lens = json!({"focal_min_mm": 2.8, "focal_max_mm": 12, "hfov_at_min_deg": 103, "hfov_at_max_deg": 29});
    let mut dice = Dice(77);
    let (mut within, mut tries) = ([0usize; 7], 0);
    for round in 0..100 {
        let truth = Hung {
            eye: [0.0, 0.0, dice.between(2.5, 5.0)],
            angles: [dice.between(0.0, 360.0), dice.between(3.0, 40.0), dice.between(-3.0, 3.0)],
            focal: dice.between(3.2, 9.0),
        };
        let built = site(&table, &lens, &truth);
        let view = *built.heads()[0].view();
        let placed = round % 2 == 1;
        let places: Vec<(DVec3, DVec2, f64)> = (0..10)
            .map(|_| {
                let pixel = DVec2::new(dice.between(50.0, 2600.0), dice.between(50.0, 1470.0));
                let ray = view.pose.to_site(view.projection.unproject(pixel).unwrap());
                let sigma = if placed { 0.0 } else { dice.between(0.0, 0.05) };
                (view.pose.position + ray * dice.between(5.0, 30.0), pixel, sigma)
            })
            .collect();
        for _ in 0..100 {
            // Where the place is uncertain the drawing is off by as much as it says.
            let off = if placed { [0.3 * dice.gauss(), 0.3 * dice.gauss(), 0.05 * dice.gauss()] } else { [0.0; 3] };
            let drawn = [0, 1, 2].map(|axis| truth.eye[axis] + off[axis]);
            let site = site(&table, &lens, &Hung { eye: drawn, angles: truth.angles, focal: truth.focal });
            let clicked: Vec<PosePoint> = places
                .iter()
                .enumerate()
                .map(|(number, (place, pixel, sigma))| {
                    let at = *place + DVec3::new(dice.gauss(), dice.gauss(), dice.gauss()) * *sigma;
                    PosePoint {
                        id: number.to_string(),
                        x: at.x,
                        y: at.y,
                        z: at.z,
                        u: pixel.x + 2.0 * dice.gauss(),
                        v: pixel.y + 2.0 * dice.gauss(),
                        sigma_m: Some(*sigma),
                    }
                })
                .collect();
            let wish = PoseWish {
                sigma_px: 2.0,
                position_sigma_m: placed.then_some(0.3),
                height_sigma_m: placed.then_some(0.05),
            };
            let found = pose_of(&site, &site.heads()[0], &clicked, wish).unwrap();
            tries += 1;
            let angle = |ours: f64, truth: f64, sigma: f64| apart(ours, truth) <= 2.0 * sigma;
            let (at, sigma) = (found.at, found.sigma);
            within[0] += usize::from(angle(at.pan_deg, truth.angles[0], sigma.pan_deg));
            within[1] += usize::from(angle(at.tilt_deg, truth.angles[1], sigma.tilt_deg));
            within[2] += usize::from(angle(at.roll_deg, truth.angles[2], sigma.roll_deg));
            within[3] += usize::from((at.focal_mm - truth.focal).abs() <= 2.0 * sigma.focal_mm);
            let eye = [(at.east_m, sigma.east_m), (at.north_m, sigma.north_m), (at.height_m, sigma.height_m)];
            for (axis, (at, sigma)) in eye.into_iter().enumerate() {
                within[4 + axis] +=
                    usize::from(at.is_some_and(|at| (at - truth.eye[axis]).abs() <= 2.0 * sigma.unwrap()));
            }
        }
    }
    assert_eq!(tries, 10_000);
    // The law says 95.45 %; the place is sought in half of the tries.
    for (place, count) in within.into_iter().enumerate() {
        let of = if place < 4 { 10_000.0 } else { 5_000.0 };
        let share = count as f64 / of;
        assert!((0.94..=0.965).contains(&share), "figure {place}: {share} ({within:?})");
    }
}

/// What a point is uncertain by itself is counted: 0.25 m at 10 m is 1.4°.
#[test]
fn what_the_plan_is_uncertain_by_is_counted() {
    let table = table();
    let lens = json!({"focal_min_mm": 2.8, "focal_max_mm": 2.8});
    let hung = Hung { eye: [0.0, 0.0, 3.0], angles: [0.0, 10.0, 0.0], focal: 2.8 };
    let site = site(&table, &lens, &hung);
    let head = &site.heads()[0];
    let at = |x: f64, z: f64| {
        let (pixel, _) = head.view().pixel_of(DVec3::new(x, 10.0, z)).unwrap();
        [x, 10.0, z, pixel.x, pixel.y]
    };
    let mut clicked = points(&[at(-4.0, 0.0), at(4.0, 0.0), at(-4.0, 3.0), at(4.0, 3.0)]);
    let sure = pose_of(&site, head, &clicked, PoseWish::default()).unwrap().sigma.pan_deg;
    clicked.iter_mut().for_each(|point| point.sigma_m = Some(0.25));
    let unsure = pose_of(&site, head, &clicked, PoseWish::default()).unwrap().sigma.pan_deg;
    // Four corners, each 1.4° off at most: about half of that.
    assert!(sure < 0.05 && (0.4..1.4).contains(&unsure), "{sure} {unsure}");
}

fn refused(points: Vec<PosePoint>) -> String {
    let table = table();
    let lens = json!({"focal_min_mm": 2.8, "focal_max_mm": 2.8});
    let hung = Hung { eye: [0.0, 0.0, 3.0], angles: [0.0, 10.0, 0.0], focal: 2.8 };
    let site = site(&table, &lens, &hung);
    let faults = pose_of(&site, &site.heads()[0], &points, PoseWish::default()).unwrap_err();
    faults.iter().map(ToString::to_string).collect::<Vec<_>>().join("; ")
}

#[test]
fn points_that_cannot_tell_are_refused_with_the_reason() {
    let at = |u: f64, v: f64, y: f64| [0.001 * u, y, 2.0, u, v];
    assert!(refused(points(&[at(10.0, 10.0, 8.0), at(500.0, 10.0, 8.0)])).contains("it takes 3"));
    let near = refused(points(&[at(1300.0, 700.0, 900.0), at(1301.0, 700.0, 900.0), at(1300.0, 701.0, 900.0)]));
    assert!(near.contains("in one direction"), "{near}");
    let outside = refused(points(&[at(10.0, 10.0, 8.0), at(500.0, 10.0, 8.0), at(5000.0, 10.0, 8.0)]));
    assert!(outside.contains("points[2].u: 5000, 10 is outside the picture of 2688 × 1520 px"), "{outside}");
    let mut twice = points(&[at(10.0, 10.0, 8.0), at(500.0, 10.0, 8.0), at(900.0, 600.0, 8.0)]);
    twice[2].id = "p0".to_owned();
    assert!(refused(twice).contains("there twice"));
}
