//! A made-up yard with one camera and one promise, another for each number: for whoever has no site in hand.

use crate::change::edits::{aim_at, camera_at};
use crate::equipment::catalogue;
use crate::file::{Fault, Form, HeadRef, Model, Shape, ShapeKind, SiteFile, Subject, TargetFile, Task};
use crate::site::Site;
use serde_json::json;

/// The targets that are made up: what must be seen, for what, at which height.
const TARGETS: [(&str, Subject, Task, f64); 4] = [
    ("A till", Subject::Face, Task::Identify, 1.6),
    ("A side door", Subject::Face, Task::Recognise, 1.6),
    ("A loading bay", Subject::Person, Task::Observe, 1.2),
    ("A gate", Subject::Vehicle, Task::Recognise, 1.0),
];

/// The figures of a number, one after the other (S. Vigna's splitmix64; from memory).
struct Figures(u64);

impl Figures {
    /// The next one, from 0 up to 1.
    fn share(&mut self) -> f64 {
        self.0 = self.0.wrapping_add(0x9e37_79b9_7f4a_7c15);
        let mut z = self.0;
        z = (z ^ (z >> 30)).wrapping_mul(0xbf58_476d_1ce4_e5b9);
        z = (z ^ (z >> 27)).wrapping_mul(0x94d0_49bb_1331_11eb);
        ((z ^ (z >> 31)) >> 11) as f64 / (1_u64 << 53) as f64
    }

    fn between(&mut self, least: f64, most: f64) -> f64 {
        least + (most - least) * self.share()
    }

    fn place(&mut self, count: usize) -> usize {
        ((self.share() * count as f64) as usize).min(count.saturating_sub(1))
    }
}

/// The yard of a number.
///
/// # Errors
/// As the catalogue's.
pub fn made_up(number: u32) -> Result<SiteFile, Fault> {
    let mut figures = Figures(u64::from(number));
    let (name, subject, task, height_m) = TARGETS[figures.place(TARGETS.len())];
    let far = figures.between(6.0, 26.0);
    let aside = figures.between(-0.2, 0.2) * far;
    let mut file = SiteFile::empty("A made-up yard");
    file.targets.push(TargetFile {
        shape: Shape { kind: ShapeKind::Point, points: vec![[neat(aside), neat(far)]] },
        ..target(name, subject, task, height_m)?
    });
    let mut camera = camera_at(&file, [0.0, 0.0], None)?;
    camera.height_m = neat(figures.between(2.4, 5.6));
    let plain = |model: &Model| !model.lens.is_zoom() && matches!(model.form, Form::Turret | Form::Bullet | Form::Dome);
    let models: Vec<Model> = catalogue::models()?.into_iter().filter(plain).collect();
    camera.model = models[figures.place(models.len())].clone();
    camera.heads[0].focal_mm = camera.model.lens.focal_min_mm;
    file.cameras.push(camera);
    let site = Site::from_file(file.clone()).map_err(|faults| faults[0].clone())?;
    let line = HeadRef { camera: "c1".to_owned(), head: "h1".to_owned(), view: None }.to("t1");
    let aim = aim_at(&site, &line)?;
    (file.cameras[0].heads[0].pan_deg, file.cameras[0].heads[0].tilt_deg) = (neat(aim.pan_deg), neat(aim.tilt_deg));
    Ok(file)
}

fn target(name: &str, subject: Subject, task: Task, height_m: f64) -> Result<TargetFile, Fault> {
    let read = json!({"id": "t1", "name": name, "subject": subject, "task": task, "height_m": height_m,
        "shape": {"kind": "point", "points": [[0.0, 1.0]]}, "distance": {"how": "laser"}});
    serde_json::from_value(read).map_err(|error| Fault::new("targets", error.to_string()))
}

/// As somebody measures: to a tenth.
fn neat(figure: f64) -> f64 {
    (figure * 10.0).round() / 10.0
}
