//! The first answer, on the spot: a reading and a task in, a lens out, with the thumb rule beside it.

use super::pocket::{PocketAnswer, PocketLens, answer};
use crate::equipment::lens::FittedLens;
use crate::file::{Fault, Form, Model, NeedSet, Rules, Sensor, Task, grade};
use crate::verdict::Verdict;
use crate::words::units::INCH_M;
use serde::Serialize;
use utoipa::ToSchema;

/// The thumb rule: past this distance take the zoom lens, nearer the wide one. Common practice, no source: 60 ft.
const THUMB_RULE_M: f64 = 60.0 * 12.0 * INCH_M;
/// Lenses up to this focal length count as wide, mm (common practice, no source).
pub(super) const WIDE_MM: f64 = 2.8;

/// What a spot, a target and a distance ask for.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Asked {
    /// Slant distance, m.
    pub slant_m: f64,
    /// Height of the spot, m.
    pub spot_height_m: f64,
    /// Height of what must be seen, m.
    pub target_height_m: f64,
    /// The task.
    pub task: Task,
    /// Whether the spot is outdoors, where somebody said.
    pub outdoor: Option<bool>,
    /// Whether a hand can reach it, where somebody said.
    pub in_reach: Option<bool>,
}

impl Asked {
    /// Whether its figures make sense.
    ///
    /// # Errors
    /// Names the figure that does not.
    pub fn checked(self) -> Result<Self, Fault> {
        for (path, value, range) in [
            ("slant_m", self.slant_m, 0.1..=10_000.0),
            ("spot_height_m", self.spot_height_m, 0.0..=500.0),
            ("target_height_m", self.target_height_m, 0.0..=500.0),
        ] {
            if !range.contains(&value) {
                return Err(Fault::new(path, format!("{value} is outside {} to {} m", range.start(), range.end())));
            }
        }
        Ok(self)
    }
}

/// The first answer.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct FirstAnswer {
    /// Focal length, scene width and catalogue lenses.
    pub pocket: PocketAnswer,
    /// Angle from which the target is seen from above, degrees.
    pub depression_deg: f64,
    /// What the rule on faces seen from above makes of that.
    pub from_above: Verdict,
    /// Nearest ground in the picture of the first catalogue lens, aimed at the target, m; null where none reaches.
    #[schema(required)]
    pub near_edge_m: Option<f64>,
    /// What the thumb rule says.
    pub thumb_rule: ThumbRule,
}

/// The thumb rule's answer beside the computed one.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ThumbRule {
    /// Whether it says to take the zoom.
    pub says_zoom: bool,
    /// Whether the computation agrees.
    pub agrees: bool,
    /// Why, in a sentence.
    pub why: String,
}

/// Answers for one sight line, on the axis of a camera aimed at the target.
pub fn first_answer(asked: Asked, rules: &Rules, sensor: Sensor, models: &[Model]) -> FirstAnswer {
    let fit: Vec<Model> = models.iter().filter(|model| suits(model, asked)).cloned().collect();
    let pocket = answer(asked.slant_m, asked.task, rules.needs, sensor, &fit);
    let drop = asked.spot_height_m - asked.target_height_m;
    let depression_deg = (drop / asked.slant_m).clamp(-1.0, 1.0).asin().to_degrees();
    let first = pocket.lenses.first().filter(|lens| lens.reaches);
    let near_edge_m = first.and_then(|lens| near_edge(lens, models, asked.spot_height_m, depression_deg));
    FirstAnswer {
        depression_deg,
        from_above: Verdict::of(depression_deg <= rules.face_tight_deg, depression_deg <= rules.face_kept_deg),
        near_edge_m,
        thumb_rule: thumb_rule(asked, rules.needs, sensor, models),
        pocket,
    }
}

/// Whether a model is one to propose: by night a plate camera sees little but plates, and a PTZ looks away; outdoors it withstands the
/// weather and is no bare box, within reach it withstands blows and cannot be turned (handbook, section 6).
pub(super) fn suits(model: &Model, asked: Asked) -> bool {
    let at_least = |rating: &Option<String>, least: u32| grade(rating.as_deref()).is_some_and(|grade| grade >= least);
    let form = match model.form {
        Form::Plate => asked.task.reads_plates(),
        Form::Ptz => false,
        _ => true,
    };
    let weather = asked.outdoor != Some(true) || model.form != Form::Box && at_least(&model.ip, 66);
    let reach = asked.in_reach != Some(true) || model.form != Form::Turret && at_least(&model.ik, 8);
    form && weather && reach
}

/// Where the bottom of the picture meets the ground: h / tan(depression + half the vertical field).
fn near_edge(lens: &PocketLens, models: &[Model], height_m: f64, depression_deg: f64) -> Option<f64> {
    let model = models.iter().find(|model| model.name == lens.model)?;
    let projection = FittedLens::new(model.lens, model.sensor).projection(lens.focal_mm);
    let below = depression_deg.to_radians() + 0.5 * projection.vfov();
    (below > 0.0).then(|| (height_m / below.tan()).max(0.0))
}

fn thumb_rule(asked: Asked, needs: NeedSet, sensor: Sensor, models: &[Model]) -> ThumbRule {
    let says_zoom = asked.slant_m > THUMB_RULE_M;
    // What the sharpest wide lens of the catalogue gives there.
    let wide: Vec<Model> = models.iter().filter(|model| model.lens.focal_max_mm <= WIDE_MM).cloned().collect();
    let best = answer(asked.slant_m, asked.task, needs, sensor, &wide)
        .lenses
        .into_iter()
        .max_by(|a, b| a.px_per_m.total_cmp(&b.px_per_m));
    let reaches = best.as_ref().is_some_and(|lens| lens.reaches);
    let need = needs.need(asked.task).px_per_m;
    let gives = best.map_or(0.0, |lens| lens.px_per_m);
    let enough = if reaches { "enough" } else { "not enough" };
    ThumbRule {
        says_zoom,
        agrees: says_zoom != reaches,
        why: format!("a wide lens gives {gives:.0} px/m here, {enough} to {} ({need} px/m)", asked.task.word()),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::equipment::catalogue;

    const SENSOR: Sensor =
        Sensor { width_px: 2688, height_px: 1520, width_mm: 5.376, height_mm: 3.04, image_circle_px: None };

    fn ask(slant_m: f64, task: Task) -> FirstAnswer {
        let asked = Asked { slant_m, spot_height_m: 3.6, target_height_m: 1.6, task, outdoor: None, in_reach: None };
        first_answer(asked, &Rules::default(), SENSOR, &catalogue::models().unwrap())
    }

    #[test]
    fn a_face_at_a_till() {
        let found = ask(18.9, Task::Identify);
        // By hand: f = 250 · 18.9 · 5.376 / 2688; asin(2 / 18.9).
        assert!((found.pocket.focal_mm - 9.45).abs() < 1e-12);
        assert!((found.depression_deg - 6.0744).abs() < 1e-4);
        assert_eq!(found.from_above, Verdict::Kept);
        assert!(found.near_edge_m.is_some_and(|near| near > 2.0 && near < 18.9));
        assert!(found.pocket.lenses.iter().all(|lens| !lens.model.contains("Plate") && !lens.model.contains("PTZ")));
        // 18.9 m is past 60 ft: the rule says zoom, and so does the computation.
        assert_eq!((found.thumb_rule.says_zoom, found.thumb_rule.agrees), (true, true));
    }

    #[test]
    fn what_the_survey_rules_out_is_not_named() {
        let named = |outdoor: Option<bool>, in_reach: Option<bool>| {
            let asked = Asked {
                slant_m: 18.9,
                spot_height_m: 3.6,
                target_height_m: 1.6,
                task: Task::Identify,
                outdoor,
                in_reach,
            };
            let found = first_answer(asked, &Rules::default(), SENSOR, &catalogue::models().unwrap());
            found.pocket.lenses.into_iter().map(|lens| lens.model).collect::<Vec<_>>()
        };
        assert!(named(None, None).iter().any(|name| name.starts_with("Box")), "{:?}", named(None, None));
        let outdoors = named(Some(true), None);
        assert!(
            !outdoors.is_empty() && outdoors.iter().all(|name| !name.starts_with("Box") && !name.starts_with("Dome"))
        );
        let in_reach = named(Some(true), Some(true));
        assert!(!in_reach.is_empty() && in_reach.iter().all(|name| !name.starts_with("Turret")), "{in_reach:?}");
    }

    #[test]
    fn the_thumb_rule_is_told_where_it_is_wrong() {
        // Common practice, no source: the rule. At 10 m a wide lens does not identify, whatever the rule says …
        let near = ask(10.0, Task::Identify).thumb_rule;
        assert_eq!((near.says_zoom, near.agrees), (false, false));
        // … and at 25 m it is enough to detect.
        let far = ask(25.0, Task::Detect).thumb_rule;
        assert_eq!((far.says_zoom, far.agrees), (true, false));
        assert!(far.why.contains("enough to detect (25 px/m)"), "{}", far.why);
    }
}
