//! What a camera's form takes: tilts, stops on the ring of a multi-head, heads spread along it.

use crate::change::edits::neat;
use crate::file::{CameraFile, Fault, Form, HeadFile, Which};
use crate::judge::build::build;
use crate::math::Angle;
use crate::scene::Scene;
use crate::site::{Head, Site};

/// Whether the build of a camera takes the aim of one of its views, which is `head`, among the solids of a site: the tilt as it hangs, and
/// on a ring the way to the heads beside it.
pub fn takes_aim(head: &Head, scene: &Scene, camera: &CameraFile, place: usize, which: Which) -> bool {
    let aimed = camera.heads[place].aimed(which);
    build(head, scene).is_none_or(|build| build.holds)
        && apart(camera, place, aimed.pan_deg) >= camera_apart(camera) - 1e-9
}

/// How near two heads of a camera can come on its ring, degrees; zero where it has none.
fn camera_apart(camera: &CameraFile) -> f64 {
    if camera.model.form == Form::MultiHead { camera.model.apart_deg() } else { 0.0 }
}

/// How far a pan is from the nearest other head of its camera, degrees; straight up and down counts as any.
fn apart(camera: &CameraFile, place: usize, pan_deg: f64) -> f64 {
    let others = camera.heads.iter().enumerate().filter(|(other, _)| *other != place);
    let far = others.map(|(_, head)| turn(head.pan_deg, pan_deg).abs());
    far.fold(180.0, f64::min)
}

/// The turn from one bearing to another, degrees, −180 to 180.
fn turn(from_deg: f64, to_deg: f64) -> f64 {
    (Angle::degrees(to_deg) - Angle::degrees(from_deg)).wrapped().deg()
}

/// A camera with its heads spread evenly: over the whole turn, or over `over_deg` about the middle of where they look now.
///
/// # Errors
/// Names the camera that the site does not have, or says that the heads don't fit so near to each other.
pub fn spread(site: &Site, camera: &str, over_deg: f64) -> Result<CameraFile, Fault> {
    let held = site.file().cameras.iter().find(|c| c.id == camera);
    let mut camera = held.ok_or_else(|| Fault::new("camera", format!("the site has no camera \"{camera}\"")))?.clone();
    let count = camera.heads.len() as f64;
    let whole = over_deg >= 360.0;
    let step = if whole { 360.0 / count } else { over_deg / (count - 1.0).max(1.0) };
    if !(0.0..=360.0).contains(&over_deg) || (count > 1.0 && step < camera_apart(&camera)) {
        let least = camera_apart(&camera);
        return Err(Fault::new(
            "over_deg",
            format!("camera views of this model come no nearer than {least}° to each other"),
        ));
    }
    let first = if whole { camera.heads[0].pan_deg } else { middle(&camera.heads) - over_deg / 2.0 };
    for (place, head) in camera.heads.iter_mut().enumerate() {
        head.pan_deg = neat((first + step * place as f64).rem_euclid(360.0), 0.1);
    }
    Ok(camera)
}

/// The bearing in the middle of where some heads look: of the sum of their directions; the first's where these cancel out.
fn middle(heads: &[HeadFile]) -> f64 {
    let sum = heads
        .iter()
        .map(|head| Angle::degrees(head.pan_deg))
        .fold([0.0, 0.0], |sum, pan| [sum[0] + pan.sin(), sum[1] + pan.cos()]);
    if sum[0].hypot(sum[1]) < 1e-6 { heads[0].pan_deg } else { sum[0].atan2(sum[1]).to_degrees() }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::change::edits::with_model;

    fn four() -> (Site, CameraFile) {
        let site = Site::parse(include_str!("../../../../demo/tern-quay.json")).unwrap();
        let camera = with_model(&site, "c7", "Multi-head 4 MP 2.8 mm").unwrap();
        let mut file = site.file().clone();
        file.cameras.retain(|c| c.id != "c7");
        file.cameras.push(camera.clone());
        (Site::from_file(file).unwrap(), camera)
    }

    #[test]
    fn heads_are_spread_over_a_turn_or_a_part_of_it() {
        let (site, camera) = four();
        let pans = |camera: &CameraFile| camera.heads.iter().map(|h| h.pan_deg).collect::<Vec<_>>();
        let steps = |pans: Vec<f64>| pans.windows(2).map(|w| turn(w[0], w[1]).round()).collect::<Vec<_>>();
        assert_eq!(steps(pans(&spread(&site, &camera.id, 360.0).unwrap())), [90.0; 3]);
        assert_eq!(steps(pans(&spread(&site, &camera.id, 180.0).unwrap())), [60.0; 3]);
        assert!(spread(&site, &camera.id, 60.0).is_err(), "20° apart");
    }

    #[test]
    fn a_bubble_is_not_asked_to_look_past_its_rim() {
        use crate::file::MountedAs;
        let site = Site::parse(include_str!("../../../../demo/tern-quay.json")).unwrap();
        let dome = site.file().cameras.iter().find(|c| c.model.form == Form::Dome).unwrap().clone();
        let takes = |tilt: f64, hangs: MountedAs| {
            let mut dome = CameraFile { mounted_as: Some(hangs), ..dome.clone() };
            dome.heads[0].tilt_deg = tilt;
            let head = site.head_of(0, &dome, (0, Which::Own));
            takes_aim(&head, site.scene(), &dome, 0, Which::Own)
        };
        assert_eq!([3.0, 22.0, 23.0, 90.0].map(|tilt| takes(tilt, MountedAs::Ceiling)), [false, false, true, true]);
        assert!(takes(3.0, MountedAs::Wall) && !takes(80.0, MountedAs::Wall));
    }
}
