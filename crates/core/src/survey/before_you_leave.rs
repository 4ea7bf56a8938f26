//! What is still missing or doubtful, in plain words and in the order of the walk.

use super::adjustment::Adjustment;
use super::drawing::ScaleFit;
use crate::file::{Brief, ShapeKind, Spot, Subject, TargetFile};
use crate::site::Site;
use crate::words::guide::{BRIEF_NEEDS, SPOT_NEEDS, TARGET_NEEDS};
use serde::Serialize;
use utoipa::ToSchema;

/// A point that the tape puts this far from where it is drawn is to be settled, m (our default figure).
const SETTLED_WITHIN_M: f64 = 0.02;

/// A step of the walk.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Step {
    /// What the client is asked.
    Brief,
    /// The overhead picture.
    Drawing,
    /// The places for cameras.
    Spots,
    /// What must be seen.
    Targets,
    /// The measured distances.
    Readings,
}

/// One thing to do before leaving.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Todo {
    /// Where it is done.
    pub step: Step,
    /// The id of the spot, target or reading that it is about.
    #[schema(required)]
    pub id: Option<String>,
    /// The field that is missing.
    #[schema(required)]
    pub field: Option<&'static str>,
    /// What to do, in plain words.
    pub says: String,
}

fn todo(step: Step, id: Option<&str>, field: Option<&'static str>, says: impl Into<String>) -> Todo {
    Todo { step, id: id.map(str::to_owned), field, says: says.into() }
}

/// All that is left to do on a site.
pub fn todos(site: &Site, adjustment: Option<&Adjustment>, scale: Option<&ScaleFit>) -> Vec<Todo> {
    let mut left = brief(site.file().brief.as_ref().unwrap_or(&Brief::default()));
    left.extend(drawing(site, scale));
    left.extend(spots(&site.file().spots));
    left.extend(targets(site));
    left.extend(readings(site, adjustment));
    left
}

/// The answers that a later stage needs.
fn brief(brief: &Brief) -> Vec<Todo> {
    let missing = BRIEF_NEEDS.into_iter().filter(|needed| !answered(brief, needed.field));
    missing.map(|needed| todo(Step::Brief, None, Some(needed.field), needed.asks)).collect()
}

/// Whether a field of a brief, spot or target says something.
fn answered(of: &impl Serialize, field: &str) -> bool {
    match serde_json::to_value(of).unwrap_or_default().get(field) {
        None | Some(serde_json::Value::Null) => false,
        Some(serde_json::Value::String(text)) => !text.trim().is_empty(),
        Some(_) => true,
    }
}

fn drawing(site: &Site, scale: Option<&ScaleFit>) -> Vec<Todo> {
    let Some(drawing) = &site.file().drawing else { return vec![] };
    let mut left = Vec::new();
    if drawing.metres_per_px.is_none() {
        left.push(todo(Step::Drawing, None, Some("metres_per_px"), "The drawing has no scale yet."));
    }
    if let Some(odd) = scale.and_then(|scale| scale.odd_one) {
        let says = format!("Distance {} does not go with the other distances of the drawing.", odd + 1);
        left.push(todo(Step::Drawing, None, Some("scale_from"), says));
    }
    left
}

fn spots(spots: &[Spot]) -> Vec<Todo> {
    if spots.is_empty() {
        return vec![todo(Step::Spots, None, None, "No spot for a camera yet.")];
    }
    let missing = |spot: &Spot| {
        let open = SPOT_NEEDS.into_iter().filter(|needed| !answered(spot, needed.field));
        let ask = |field, asks| todo(Step::Spots, Some(&spot.id), Some(field), format!("{}: {asks}", spot.name));
        open.map(|needed| ask(needed.field, needed.asks)).collect::<Vec<_>>()
    };
    spots.iter().flat_map(missing).collect()
}

fn targets(site: &Site) -> Vec<Todo> {
    let targets = &site.file().targets;
    if targets.is_empty() {
        return vec![todo(Step::Targets, None, None, "Nothing that must be seen yet.")];
    }
    let missing = |target: &TargetFile| {
        let mut left = Vec::new();
        let mut ask = |field, asks: &str| {
            left.push(todo(Step::Targets, Some(&target.id), Some(field), format!("{}: {asks}", target.name)));
        };
        // On its way a plate points along it.
        let on_its_way = target.shape.kind == ShapeKind::Line && target.speed_mps > 0.0;
        if target.subject == Subject::Plate && target.facing_deg.is_none() && !on_its_way {
            ask("facing_deg", "which way does the plate point?");
        }
        for needed in TARGET_NEEDS.into_iter().filter(|needed| !answered(target, needed.field)) {
            ask(needed.field, needed.asks);
        }
        left
    };
    targets.iter().flat_map(missing).collect()
}

fn readings(site: &Site, adjustment: Option<&Adjustment>) -> Vec<Todo> {
    let file = site.file();
    let mut left = Vec::new();
    let measured = |id: &str| file.readings.iter().any(|r| r.used && (r.from == id || r.to == id));
    for target in file.targets.iter().filter(|target| target.is_point() && !target.fixed && !measured(&target.id)) {
        left.push(todo(Step::Readings, Some(&target.id), None, format!("{}: no distance measured.", target.name)));
    }
    let Some(adjustment) = adjustment else {
        left.push(todo(Step::Readings, None, None, "The plan and the measurements do not come together."));
        return left;
    };
    let name = |id: &str| {
        let spot = file.spots.iter().find(|spot| spot.id == id).map(|spot| spot.name.as_str());
        spot.or_else(|| file.targets.iter().find(|target| target.id == id).map(|target| target.name.as_str()))
    };
    if let Some(doubtful) = adjustment.readings.iter().find(|reading| reading.doubtful) {
        if let Some(reading) = file.readings.iter().find(|reading| reading.id == doubtful.id) {
            let (from, to) = (name(&reading.from).unwrap_or(""), name(&reading.to).unwrap_or(""));
            let off = doubtful.gross_error_m.unwrap_or(doubtful.residual_m);
            let word = if off > 0.0 { "long" } else { "short" };
            let says = format!(
                "{from} to {to}: the reading is about {:.1} m too {word} for the others. Throw it out or shoot again.",
                off.abs()
            );
            left.push(todo(Step::Readings, Some(&reading.id), None, says));
        }
    } else if adjustment.points.iter().any(|point| point.moved_m > SETTLED_WITHIN_M) {
        let most = adjustment.points.iter().map(|point| point.moved_m).fold(0.0, f64::max);
        let says = format!("The plan and the measurements are up to {most:.2} m apart: accept the adjusted positions.");
        left.push(todo(Step::Readings, None, None, says));
    }
    left
}
