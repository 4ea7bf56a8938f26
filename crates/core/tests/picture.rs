//! The picture against what is known apart from it: sizes that the handbook states, the sight lines' own pixels and densities, the
//! height of a course.

use bright_angle_core::Site;
use bright_angle_core::file::HeadRef;
use bright_angle_core::judge::Session;
use bright_angle_core::picture::{CHARACTER_M, COURSE_M, Exposed, Light, Picture, PictureWish, STROKE_M, Window};
use serde_json::{Value, json};

/// A camera at the origin, three metres up, that looks north at something 12 m off.
fn site(target: Value, obstacles: Value, focal_mm: f64, more: Value) -> Session {
    let mut model = json!({ "name": "M", "form": "bullet", "infrared_m": 30,
        "sensor": { "width_px": 1920, "height_px": 1080, "width_mm": 5.568, "height_mm": 3.132 },
        "lens": { "focal_min_mm": 2.8, "focal_max_mm": 60 } });
    if let (Some(model), Some(more)) = (model.as_object_mut(), more.as_object()) {
        model.extend(more.clone());
    }
    let tilt = (3.0_f64 - target["height_m"].as_f64().unwrap()).atan2(12.0).to_degrees();
    let file = json!({ "format": "bright-angle/site", "version": 1, "name": "S", "obstacles": obstacles, "targets": [target],
        "cameras": [{ "id": "c", "name": "C", "position": [0, 0], "height_m": 3, "model": model,
            "heads": [{ "id": "h", "pan_deg": 0, "tilt_deg": tilt, "focal_mm": focal_mm }] }] });
    Session::on(Site::parse(&file.to_string()).unwrap())
}

fn target(subject: &str, task: &str, height_m: f64) -> Value {
    json!({ "id": "t", "name": "T", "subject": subject, "task": task, "height_m": height_m, "facing_deg": 180,
        "shape": { "kind": "point", "points": [[0, 12]] } })
}

fn head() -> HeadRef {
    HeadRef { camera: "c".into(), head: "h".into(), view: None }
}

fn taken(session: &Session, window: Window, light: Light, samples: u32) -> Picture {
    let wish = PictureWish { window, light, grid: false, samples, shutter_s: 0.0 };
    let mut picture = Picture::begin(session, &head(), &wish, None).unwrap();
    while picture.step(session.site()) {}
    picture
}

fn loupe(session: &Session, light: Light) -> Picture {
    taken(session, Window::Loupe { target: "t".into(), across: 400, down: 200 }, light, 8)
}

/// The linear light of a pixel's green (IEC 61966-2-1, back).
fn light(picture: &Picture, u: u32, v: u32) -> f64 {
    let byte = f64::from(picture.rgba()[((v * picture.width() + u) * 4 + 1) as usize]) / 255.0;
    if byte <= 0.04045 { byte / 12.92 } else { ((byte + 0.055) / 1.055).powf(2.4) }
}

/// How wide the dark of a row is between two columns: whole pixels and the shares of those at its edges.
fn dark(values: &[f64]) -> f64 {
    let (least, most) = values.iter().fold((f64::MAX, f64::MIN), |(l, m), v| (l.min(*v), m.max(*v)));
    values.iter().map(|value| (most - value) / (most - least)).sum()
}

#[test]
fn a_plate_is_as_wide_and_its_strokes_as_thick_as_the_density_says() {
    let session = site(target("plate", "read", 0.7), json!([]), 20.0, json!({}));
    let line = &session.evaluation().sight_lines[0];
    let (across, up) = (line.px_per_m.unwrap(), line.px_per_m_up.unwrap());
    let picture = loupe(&session, Light::Day);
    let frame = *picture.frame();
    let (u, v) = ((line.pixel[0] - frame.origin[0]) as u32, (line.pixel[1] - frame.origin[1]) as u32);
    // Through the margin under the characters: from one edge of the plate to the other.
    let low = v + (0.047 * up) as u32;
    let row: Vec<f64> = (0..picture.width()).map(|u| light(&picture, u, low)).collect();
    let bright = row.iter().copied().fold(0.0, f64::max);
    let body = row[u as usize - (0.3 * across) as usize];
    let wide: f64 = row.iter().map(|value| ((value - body) / (bright - body)).clamp(0.0, 1.0)).sum();
    assert!((wide - 0.52 * across).abs() < 0.5, "{wide} px for {} px", 0.52 * across);
    // The first upright of the H, off its level bar: text begins 0.219 m left of the middle (five spaces, one gap, seven characters).
    let off_bar = v - (0.02 * up) as u32;
    let begins = (f64::from(u) - 0.226 * across) as u32;
    let stroke: Vec<f64> = (begins..begins + (0.03 * across) as u32).map(|u| light(&picture, u, off_bar)).collect();
    assert!((dark(&stroke) - STROKE_M * across).abs() < 0.5, "{} px for {} px", dark(&stroke), STROKE_M * across);
    // Down through that upright.
    let middle = (f64::from(u) - 0.212 * across) as u32;
    let column: Vec<f64> =
        (v - (0.05 * up) as u32..v + (0.05 * up) as u32).map(|v| light(&picture, middle, v)).collect();
    assert!((dark(&column) - CHARACTER_M * up).abs() < 0.7, "{} px for {} px", dark(&column), CHARACTER_M * up);
}

#[test]
fn courses_on_a_wall_are_as_high_as_bricks_are() {
    let wall = json!([{ "id": "o", "name": "O", "kind": "building", "top_m": 6,
        "outline": [[-8.05, 12.001], [8, 12.001], [8, 14], [-8.05, 14]] }]);
    let session = site(target("scene", "observe", 3.0), wall, 12.0, json!({}));
    let up = session.evaluation().sight_lines[0].px_per_m_up.unwrap();
    let picture = taken(&session, Window::Loupe { target: "t".into(), across: 8, down: 600 }, Light::Day, 4);
    let values: Vec<f64> = (0..picture.height()).map(|v| light(&picture, 2, v)).collect();
    let mean = values.iter().sum::<f64>() / values.len() as f64;
    // Where the light of the beds sets in.
    let beds: Vec<f64> =
        (1..values.len()).filter(|v| values[v - 1] < mean && values[*v] >= mean).map(|v| v as f64).collect();
    let apart = (beds[beds.len() - 1] - beds[0]) / (beds.len() - 1) as f64;
    assert!(beds.len() > 15, "{}", beds.len());
    assert!((apart / (COURSE_M * up) - 1.0).abs() < 0.01, "{apart} px for {} px", COURSE_M * up);
}

/// By night as it is set, so many stops over what makes the target in it well lit.
fn well_lit(session: &Session, stops: f64) -> Light {
    let told = bright_angle_core::show::night::light_told::light_told(session);
    let plate = session.site().targets()[0].is_reflecting;
    let gets = told.infrared[0].relative * if plate { 50.0 } else { 1.0 };
    Light::Night { stops: stops - gets.log2(), exposed: Some(Exposed::AsSet) }
}

#[test]
fn night_shows_a_plate_and_nothing_else_and_burns_a_near_wall_out() {
    let plate = site(target("plate", "read", 0.7), json!([]), 20.0, json!({}));
    let across = plate.evaluation().sight_lines[0].px_per_m.unwrap();
    let picture = loupe(&plate, well_lit(&plate, 0.0));
    let lights: Vec<f64> = (0..picture.height() * picture.width())
        .map(|place| light(&picture, place % picture.width(), place / picture.width()))
        .collect();
    let seen = lights.iter().filter(|light| **light > 0.3).count() as f64 / lights.len() as f64;
    let bright = lights.iter().copied().fold(0.0, f64::max);
    // The plate is exposed for, not burnt out; vehicle and ground are fifty times darker (handbook, section 9).
    assert!(bright > 0.6 && bright < 1.0, "{bright}");
    assert!(seen < 0.52 * 0.11 * across * across / lights.len() as f64, "{seen}");
    let near =
        json!([{ "id": "o", "name": "O", "kind": "wall", "closed": false, "top_m": 4, "outline": [[1, 2], [1, 6]] }]);
    let glare = site(target("person", "identify", 1.6), near, 2.8, json!({}));
    let share =
        |session: &Session, stops| taken(session, Window::Whole { width: 160 }, well_lit(session, stops), 1).clipped();
    let open = site(target("person", "identify", 1.6), json!([]), 2.8, json!({}));
    assert!(share(&glare, 0.0) > 10.0 * share(&open, 0.0).max(1e-3), "{} {}", share(&glare, 0.0), share(&open, 0.0));
    // A stop less burns less of it out.
    assert!(share(&glare, -3.0) < share(&glare, 0.0));
}

#[test]
fn a_camera_without_light_of_its_own_sees_nothing_by_night() {
    let session = site(target("person", "identify", 1.6), json!([]), 8.0, json!({ "infrared_m": null }));
    let picture = taken(&session, Window::Whole { width: 64 }, Light::Night { stops: 0.0, exposed: None }, 1);
    assert!(picture.rgba().chunks(4).all(|pixel| pixel[0] < 20 && pixel[3] == 255));
    assert!(!picture.told().infrared);
}

#[test]
fn what_stands_in_the_way_hides_who_stands_behind_it_and_a_fence_shows_through() {
    let session = |see_through: f64, top: f64| {
        let wall = json!([{ "id": "o", "name": "O", "kind": "fence", "closed": false, "top_m": top, "see_through": see_through,
            "outline": [[-3, 8], [3, 8]] }]);
        site(target("person", "identify", 1.6), wall, 20.0, json!({}))
    };
    let pixels = |session: &Session| taken(session, Window::Whole { width: 320 }, Light::Day, 1).rgba().to_vec();
    let differ = |a: &[u8], b: &[u8]| a.chunks(4).zip(b.chunks(4)).filter(|(a, b)| a != b).count();
    let nobody = |see_through: f64, top: f64| {
        // The same without anybody: a scene has no size.
        let wall = json!([{ "id": "o", "name": "O", "kind": "fence", "closed": false, "top_m": top, "see_through": see_through,
            "outline": [[-3, 8], [3, 8]] }]);
        site(target("scene", "identify", 1.6), wall, 20.0, json!({}))
    };
    let open = differ(&pixels(&session(0.8, 0.1)), &pixels(&nobody(0.8, 0.1)));
    let through = differ(&pixels(&session(0.8, 2.6)), &pixels(&nobody(0.8, 2.6)));
    let behind = differ(&pixels(&session(0.0, 2.6)), &pixels(&nobody(0.0, 2.6)));
    assert!(open > 800 && through > open * 9 / 10, "{open} {through}");
    assert_eq!(behind, 0);
}

#[test]
fn outside_the_image_circle_there_is_no_picture_and_inside_there_is() {
    let circle = json!({ "form": "fisheye", "sensor": { "width_px": 1920, "height_px": 1080, "width_mm": 5.568, "height_mm": 3.132,
        "image_circle_px": 1080 }, "lens": { "focal_min_mm": 1.0, "focal_max_mm": 60 } });
    let session = site(target("person", "detect", 1.6), json!([]), 1.2, circle);
    let picture = taken(&session, Window::Whole { width: 192 }, Light::Day, 1);
    let alpha = |u: u32, v: u32| picture.rgba()[((v * 192 + u) * 4 + 3) as usize];
    assert_eq!([alpha(0, 0), alpha(191, 107), alpha(20, 54), alpha(96, 54), alpha(96, 1)], [0, 0, 0, 255, 255]);
}

#[test]
fn marks_stand_where_sight_lines_land_and_a_loupe_of_what_lies_behind_is_refused() {
    let session = site(target("face", "identify", 1.6), json!([]), 8.0, json!({}));
    let told = taken(&session, Window::Whole { width: 100 }, Light::Day, 1).told();
    let line = &session.evaluation().sight_lines[0];
    assert_eq!(told.marks.len(), 1);
    assert_eq!((told.marks[0].pixel, told.marks[0].verdict), (line.pixel, line.verdict));
    let [left, top, right, bottom] = told.marks[0].bracket.unwrap();
    let across = line.px_per_m.unwrap();
    assert!(((right - left) - 0.20 * across).abs() < 1e-9 && ((bottom - top) - 0.28 * across).abs() < 1e-9);
    let mut behind = target("face", "identify", 1.6);
    behind["shape"]["points"] = json!([[0, -12]]);
    let session = site(behind, json!([]), 8.0, json!({}));
    let window = Window::Loupe { target: "t".into(), across: 10, down: 10 };
    let wish = PictureWish { window, light: Light::Day, grid: false, samples: 1, shutter_s: 0.0 };
    assert_eq!(Picture::begin(&session, &head(), &wish, None).unwrap_err().path, "target");
}

#[test]
fn a_flat_view_of_a_fisheye_is_lit_by_the_fisheyes_own_beam() {
    let more = json!({ "form": "fisheye", "lens": { "focal_min_mm": 1.0, "focal_max_mm": 1.0, "hfov_at_min_deg": 150, "hfov_at_max_deg": 150 } });
    let mut file =
        serde_json::to_value(site(target("scene", "detect", 0.0), json!([]), 2.8, json!({})).site().file()).unwrap();
    let camera = &mut file["cameras"][0];
    camera["model"].as_object_mut().unwrap().extend(more.as_object().unwrap().clone());
    camera["heads"][0] = json!({ "id": "h", "pan_deg": 0, "tilt_deg": 90, "focal_mm": 1.0, "flattened": [{ "id": "f", "name": "F",
        "pan_deg": 90, "tilt_deg": 30, "hfov_deg": 70, "width_px": 640, "height_px": 360 }] });
    let session = Session::on(Site::parse(&file.to_string()).unwrap());
    let light_of = |view: Option<&str>, width: u32| {
        let head = HeadRef { view: view.map(str::to_owned), ..head() };
        let wish = PictureWish {
            window: Window::Whole { width },
            light: Light::Night { stops: -4.0, exposed: None },
            grid: false,
            samples: 1,
            shutter_s: 0.0,
        };
        let mut picture = Picture::begin(&session, &head, &wish, None).unwrap();
        while picture.step(session.site()) {}
        let at = session.site().view(&head).unwrap().view().pixel_of([8.2, 0.2, 0.0].into()).unwrap().0;
        light(&picture, at.x as u32, at.y as u32)
    };
    let (round, flat) = (light_of(None, 1920), light_of(Some("f"), 640));
    assert!((flat / round - 1.0).abs() < 0.15, "{round} {flat}");
}

#[test]
fn what_moves_is_drawn_out_by_speed_times_shutter_times_density() {
    // A plate that crosses the picture at 5 m/s while the shutter is open a hundredth of a second: 50 mm.
    let mut crossing = target("plate", "read", 0.7);
    crossing["shape"] = json!({ "kind": "line", "points": [[-0.5, 12], [0.5, 12]] });
    crossing["speed_mps"] = json!(5);
    let session = site(crossing, json!([]), 20.0, json!({}));
    let shot = |shutter_s: f64| {
        let window = Window::Loupe { target: "t".into(), across: 500, down: 120 };
        let wish = PictureWish { window, light: well_lit(&session, -1.0), grid: false, samples: 8, shutter_s };
        let mut picture = Picture::begin(&session, &head(), &wish, None).unwrap();
        while picture.step(session.site()) {}
        picture
    };
    let (still, drawn) = (shot(0.0), shot(0.01));
    let mark = drawn.told().marks.remove(0);
    let expected = 5.0 * 0.01 * mark.px_per_m.unwrap();
    assert!((mark.blur_px - expected).abs() < 0.02 * expected, "{} told, {expected} px", mark.blur_px);
    // Its right edge was sharp; now it fades over that many pixels. A linear fade from 10 to 90 per cent takes 0.8 of it.
    let fade = |picture: &Picture| {
        let row = picture.height() / 2 - (0.045 * mark.px_per_m.unwrap()) as u32;
        let values: Vec<f64> = (picture.width() / 2..picture.width()).map(|u| light(picture, u, row)).collect();
        let most = values.iter().copied().fold(0.0, f64::max);
        let last = |share: f64| {
            let i = values.iter().rposition(|v| *v >= share * most).unwrap();
            // Between two pixels as a straight line.
            i as f64 + (values[i] - share * most) / (values[i] - values[i + 1]).max(1e-9)
        };
        last(0.1) - last(0.9)
    };
    let (still, drawn) = (fade(&still), fade(&drawn));
    assert!(still < 1.5, "{still} px without movement");
    assert!((drawn - 0.8 * expected).abs() < 1.0, "{drawn} px, expected {}", 0.8 * expected);
}

#[test]
fn the_metre_grid_on_the_ground_is_as_wide_as_the_projection_says() {
    // Straight down from three metres: a metre of ground is focal length over height, in pixels.
    let mut session = site(target("face", "identify", 1.6), json!([]), 6.0, json!({}));
    let mut camera = session.site().file().cameras[0].clone();
    camera.heads[0].tilt_deg = 90.0;
    let change = bright_angle_core::file::ListChange { order: None, put: vec![camera] };
    session.apply(bright_angle_core::file::SiteChange { cameras: Some(change), ..Default::default() }).unwrap();
    let shot = |grid: bool| {
        let window = Window::Whole { width: 1920 };
        let wish = PictureWish { window, light: Light::Day, grid, samples: 1, shutter_s: 0.0 };
        let mut picture = Picture::begin(&session, &head(), &wish, None).unwrap();
        while picture.step(session.site()) {}
        picture
    };
    let (with, without) = (shot(true), shot(false));
    // A row between two lines: where the grid changed something, a line crosses it.
    let row = with.height() / 2 + 200;
    let changed = |u: u32| (light(&with, u, row) - light(&without, u, row)).abs() > 1e-6;
    let crossed: Vec<u32> = (0..with.width()).filter(|u| changed(*u)).collect();
    let mut lines: Vec<(u32, u32)> = vec![];
    for u in crossed {
        match lines.last_mut() {
            Some((_, last)) if u == *last + 1 => *last = u,
            _ => lines.push((u, u)),
        }
    }
    let middles: Vec<f64> = lines.iter().map(|(a, b)| f64::from(a + b + 1) / 2.0).collect();
    let metre = 6.0 * 1920.0 / 5.568 / 3.0;
    assert!(middles.len() >= 2, "{middles:?}");
    for pair in middles.windows(2) {
        assert!((pair[1] - pair[0] - metre).abs() < 1.0, "{middles:?}, a metre is {metre} px");
    }
    // One passes under the camera.
    assert!(middles.iter().any(|u| (u - 960.0).abs() < 1.0), "{middles:?}");
}
