//! The pocket calculator: a distance and a task in, a focal length out.

use crate::equipment::lens::FittedLens;
use crate::file::{Model, NeedSet, Sensor, Task};
use crate::light::infrared::stops_across;
use serde::Serialize;
use utoipa::ToSchema;

/// How many lenses are named.
const MOST_LENSES: usize = 6;

/// What a distance and a task ask of a lens.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PocketAnswer {
    /// Slant distance, m.
    pub distance_m: f64,
    /// The task.
    pub task: Task,
    /// What it needs, px/m.
    pub needs_px_per_m: f64,
    /// Where the need comes from.
    pub basis: String,
    /// The sensor that the next two figures are for.
    pub sensor: Sensor,
    /// Focal length that just gives the need on the axis: f = n·s·w/W, mm.
    pub focal_mm: f64,
    /// Width of the scene there at that density: W/n, m.
    pub scene_width_m: f64,
    /// The near end of the zone that the subject crosses, if one was given.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub near: Option<PocketNear>,
    /// Catalogue models that reach it, the least zoom first; then the ones that fall least short.
    pub lenses: Vec<PocketLens>,
}

/// What differs at the near end of a zone that one setting has to serve.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct PocketNear {
    /// Slant distance there, m.
    pub distance_m: f64,
    /// Width of the scene there when the far end just gets its need, m.
    pub scene_width_m: f64,
    /// By how many stops infrared light is stronger there than at the far end.
    pub infrared_stops: f64,
}

/// A catalogue model held against the question.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PocketLens {
    /// The model's name.
    pub model: String,
    /// Whether it reaches the need at that distance, on the axis.
    pub reaches: bool,
    /// The shortest focal length that reaches, mm; the longest it has if none does.
    pub focal_mm: f64,
    /// Pixel density at that focal length and distance, on the axis, px/m.
    pub px_per_m: f64,
    /// Greatest range for the need at that focal length: s = W·f/(w·n), m.
    pub greatest_range_m: f64,
    /// Width of the scene at the distance: W/density, m.
    pub scene_width_m: f64,
}

/// Answers which focal length a task takes at a distance, on the axis (handbook, section 4).
///
/// ```
/// use bright_angle_core::{file::{NeedSet, Sensor, Task}, survey::pocket};
/// let sensor = Sensor { width_px: 2688, height_px: 1520, width_mm: 5.376, height_mm: 3.04, image_circle_px: None };
/// let answer = pocket::answer(18.9, Task::Identify, NeedSet::Edition2014, sensor, &[]);
/// assert_eq!(format!("{:.2}", answer.focal_mm), "9.45");
/// ```
pub fn answer(distance_m: f64, task: Task, needs: NeedSet, sensor: Sensor, models: &[Model]) -> PocketAnswer {
    let need = needs.need(task);
    let mut lenses: Vec<PocketLens> = models.iter().map(|model| hold(model, distance_m, need.px_per_m)).collect();
    lenses.sort_by(|a, b| {
        let surplus = |lens: &PocketLens| (lens.px_per_m / need.px_per_m).ln().abs();
        b.reaches.cmp(&a.reaches).then(surplus(a).total_cmp(&surplus(b)))
    });
    lenses.truncate(MOST_LENSES);
    PocketAnswer {
        distance_m,
        task,
        needs_px_per_m: need.px_per_m,
        basis: need.basis.into_owned(),
        sensor,
        focal_mm: need.px_per_m * distance_m * sensor.width_mm / sensor.width(),
        scene_width_m: sensor.width() / need.px_per_m,
        near: None,
        lenses,
    }
}

impl PocketAnswer {
    /// The answer for a zone: the same lens and setting also serve `near_m`, m, the nearer end.
    pub fn with_near_end(mut self, near_m: f64) -> Self {
        self.near = Some(PocketNear {
            distance_m: near_m,
            scene_width_m: self.scene_width_m * near_m / self.distance_m,
            infrared_stops: stops_across(near_m, self.distance_m),
        });
        self
    }
}

/// Pixel density of a model at a focal length and distance, on the axis, px/m.
pub(super) fn density(model: &Model, focal_mm: f64, distance_m: f64) -> f64 {
    FittedLens::new(model.lens, model.sensor).projection(focal_mm).focal_px() / distance_m
}

/// A model held against a need at a distance.
pub(super) fn hold(model: &Model, distance_m: f64, need: f64) -> PocketLens {
    let fitted = FittedLens::new(model.lens, model.sensor);
    let density = |focal: f64| fitted.projection(focal).focal_px() / distance_m;
    let (shortest, longest) = (model.lens.focal_min_mm, model.lens.focal_max_mm);
    let reaches = density(longest) >= need;
    let focal_mm = if density(shortest) >= need {
        shortest
    } else if reaches {
        // The density grows with the focal length: halve until a hundredth of a millimetre is sure.
        let (mut low, mut high) = (shortest, longest);
        while high - low > 1e-6 {
            let middle = 0.5 * (low + high);
            if density(middle) < need { low = middle } else { high = middle }
        }
        ((high * 10.0 - 1e-5).ceil() / 10.0).min(longest)
    } else {
        longest
    };
    let px_per_m = density(focal_mm);
    PocketLens {
        model: model.name.clone(),
        reaches,
        focal_mm,
        px_per_m,
        greatest_range_m: px_per_m * distance_m / need,
        scene_width_m: model.sensor.width() / px_per_m,
    }
}
