//! One head of a camera, with the views that the stated uncertainties allow it.

use crate::lens::FittedLens;
use crate::rules::Rules;
use crate::site::file::CameraFile;
use crate::{Angle, Pose, View};
use glam::DVec3;

/// A head ready to look: its nominal view and the extremes of its aim and focal length.
#[derive(Clone, Debug)]
pub struct Head {
    /// The place of its camera in the site file.
    pub camera: usize,
    /// Its place among the camera's heads.
    pub place: usize,
    /// The id of its camera.
    pub camera_id: String,
    /// Its id in the camera.
    pub id: String,
    /// Bearing of the optical axis.
    pub pan: Angle,
    /// Angle of the optical axis below the horizontal.
    pub tilt: Angle,
    /// Turn about the optical axis.
    pub roll: Angle,
    /// The view as stated.
    pub view: View,
    /// The lens as fitted to its published field of view.
    pub fitted: FittedLens,
    /// The id of the spot that its camera sits on.
    pub spot: Option<String>,
    /// The effective focal length as set, mm.
    pub effective_focal_mm: f64,
    /// The shortest focal length, each with one of nine aims: worst for pixel density.
    short: [View; 9],
    /// The longest focal length, at the four corners of the aim: worst for staying in the picture.
    long: [View; 4],
}

impl Head {
    /// The head at `place` of a camera.
    pub fn new(camera_place: usize, camera: &CameraFile, place: usize, rules: &Rules) -> Self {
        let file = &camera.heads[place];
        let (pan, tilt, roll) =
            (Angle::degrees(file.pan_deg), Angle::degrees(file.tilt_deg), Angle::degrees(file.roll_deg));
        let position = DVec3::new(camera.position[0], camera.position[1], camera.height_m);
        let fitted = FittedLens::new(camera.model.lens, camera.model.sensor);
        let projection = fitted.projection(file.focal_mm);
        let aim = Angle::degrees(rules.uncertainties.aim_deg);
        let focal = rules.uncertainties.focal(camera.model.lens.is_zoom());
        let turned = |pan_steps: f64, tilt_steps: f64, focal_factor: f64| View {
            pose: Pose::new(position, pan + aim * pan_steps, tilt + aim * tilt_steps, roll),
            projection: projection.scaled(focal_factor),
        };
        let nine = std::array::from_fn(|i| turned((i % 3) as f64 - 1.0, (i / 3) as f64 - 1.0, 1.0 - focal));
        let four = [(-1.0, -1.0), (1.0, -1.0), (-1.0, 1.0), (1.0, 1.0)].map(|(p, t)| turned(p, t, 1.0 + focal));
        Head {
            camera: camera_place,
            place,
            camera_id: camera.id.clone(),
            id: file.id.clone(),
            pan,
            tilt,
            roll,
            view: turned(0.0, 0.0, 1.0),
            fitted,
            spot: camera.spot.clone(),
            effective_focal_mm: fitted.effective_focal_mm(file.focal_mm),
            short: nine,
            long: four,
        }
    }

    /// The optical centre, m.
    pub fn position(&self) -> DVec3 {
        self.view.pose.position
    }

    /// The least pixel density, px/m, that the uncertain aim and focal length leave at a point.
    pub fn least_across(&self, point: DVec3) -> f64 {
        self.short.iter().map(|view| view.across_at(point)).fold(f64::INFINITY, f64::min)
    }

    /// Whether a point stays in the picture over the uncertain aim and focal length.
    pub fn surely_holds(&self, point: DVec3) -> bool {
        self.long.iter().all(|view| view.holds(point))
    }
}
