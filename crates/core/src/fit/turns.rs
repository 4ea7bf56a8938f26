//! From how a head hangs to how it should: what a hand on the ladder does, in words.

use super::pose::PoseFound;
use crate::file::{Aimed, Lens};
use crate::math::Angle;
use serde::Serialize;
use utoipa::ToSchema;

/// A turn under this is none, degrees (ours).
pub const ENOUGH_DEG: f64 = 0.2;
/// A focal length off by less than this share is as it should be (ours).
pub const ENOUGH_FOCAL: f64 = 0.01;
/// A fixed lens that is off by more than this is another one (ours: half the step between usual lenses).
const OTHER_LENS: f64 = 0.12;
/// Under this share a zoom is touched a little.
const A_LITTLE: f64 = 0.1;
/// Past this the picture stands on its head, degrees.
const OVER_DEG: f64 = 135.0;
/// Past this it lies on its side, degrees.
pub const SIDE_DEG: f64 = 45.0;
/// A head that looks down more steeply turns about its axis where others pan, degrees.
const STEEP_DEG: f64 = 80.0;
const SIGMAS: f64 = 2.0;

/// What is turned.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TurnKind {
    /// Left or right.
    Pan,
    /// Up or down.
    Tilt,
    /// About its axis.
    Roll,
    /// The focal length.
    Zoom,
    /// The lens itself.
    Lens,
}

/// One thing to do.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Turn {
    /// What is turned.
    pub kind: TurnKind,
    /// By how much: degrees to the right, down, clockwise as seen from behind; of a focal length the factor.
    pub by: f64,
    /// How well that is known: two standard deviations, in the same unit.
    pub within: f64,
    /// Whether it is as it should be.
    pub enough: bool,
    /// What to do, in words.
    pub says: String,
}

/// What to do, in the order in which hands do it: what is far off first about the axis, then pan, tilt, level, zoom.
pub fn turns(found: &PoseFound, designed: &Aimed, lens: &Lens) -> Vec<Turn> {
    let off = |then: f64, now: f64| Angle::degrees(then - now).wrapped().deg();
    let pan = off(designed.pan_deg, found.at.pan_deg);
    let tilt = designed.tilt_deg - found.at.tilt_deg;
    let roll = off(designed.roll_deg, found.at.roll_deg);
    let sigma = found.sigma;
    let mut said = vec![];
    let rolled = turn(TurnKind::Roll, roll, sigma.roll_deg, ["counter-clockwise", "clockwise"], &|by, way| {
        if roll.abs() >= OVER_DEG {
            format!("The picture stands on its head: turn it over, {by:.1}° {way}")
        } else if roll.abs() >= SIDE_DEG {
            format!("The picture lies on its side: turn it {by:.1}° {way}, or look at the corridor setting")
        } else {
            format!("Level it {by:.1}° {way}")
        }
    });
    let far = roll.abs() >= SIDE_DEG;
    if designed.tilt_deg.abs() > STEEP_DEG || found.at.tilt_deg.abs() > STEEP_DEG {
        // Looking straight down a bearing is a turn about the axis.
        let about = Angle::degrees(roll + pan * (designed.tilt_deg.to_radians().sin()).signum()).wrapped().deg();
        said.push(turn(
            TurnKind::Roll,
            about,
            sigma.roll_deg.min(sigma.pan_deg),
            ["counter-clockwise", "clockwise"],
            &|by, way| format!("Turn it {by:.1}° {way} about its axis"),
        ));
        said.push(turn(TurnKind::Tilt, tilt, sigma.tilt_deg, ["up", "down"], &|by, way| format!("{by:.1}° {way}")));
    } else {
        if far {
            said.push(rolled.clone());
        }
        said.push(turn(TurnKind::Pan, pan, sigma.pan_deg, ["left", "right"], &|by, way| format!("{by:.1}° {way}")));
        said.push(turn(TurnKind::Tilt, tilt, sigma.tilt_deg, ["up", "down"], &|by, way| format!("{by:.1}° {way}")));
        if !far {
            said.push(rolled);
        }
    }
    said.push(zoom(found, designed, lens));
    said
}

fn turn(kind: TurnKind, by: f64, sigma: f64, ways: [&str; 2], says: &dyn Fn(f64, &str) -> String) -> Turn {
    let within = SIGMAS * sigma;
    let enough = by.abs() <= ENOUGH_DEG;
    let what = match kind {
        TurnKind::Pan => "Left and right",
        TurnKind::Tilt => "Up and down",
        _ => "Level",
    };
    let says = if enough {
        format!("{what}: as planned, to ±{:.1}°", within.max(ENOUGH_DEG))
    } else {
        // What the points leave open is said: more of them tell more.
        let open = if within > by.abs() { format!(", give or take {within:.1}°") } else { String::new() };
        format!("{}{open}", says(by.abs(), ways[usize::from(by > 0.0)]))
    };
    Turn { kind, by, within, enough, says }
}

fn zoom(found: &PoseFound, designed: &Aimed, lens: &Lens) -> Turn {
    let (now, then) = (found.at.focal_mm, designed.focal_mm);
    let by = then / now;
    let within = SIGMAS * found.sigma.focal_mm / now;
    let share = by.max(1.0 / by) - 1.0;
    let told = |kind, enough, says| Turn { kind, by, within, enough, says };
    if !lens.is_zoom() {
        if share > OTHER_LENS.max(within) {
            let says = format!(
                "Wrong lens: this is the picture of one of about {now:.1} mm, the plan has {then:.1} mm. Is it the right camera? Power off before a lens is changed"
            );
            return told(TurnKind::Lens, false, says);
        }
        return told(TurnKind::Lens, true, format!("Lens: {then:.1} mm, as planned"));
    }
    if found.outside_lens && share > OTHER_LENS.max(within) {
        let [least, most] = [lens.focal_min_mm, lens.focal_max_mm];
        let says =
            format!("Wrong lens: about {now:.1} mm, outside this lens's {least}–{most} mm. Is it the right camera?");
        return told(TurnKind::Lens, false, says);
    }
    if share <= ENOUGH_FOCAL {
        return told(TurnKind::Zoom, true, format!("Zoom: {then:.1} mm, as planned"));
    }
    let way = if by > 1.0 { "in" } else { "out" };
    let little = if share < A_LITTLE { " a little" } else { "" };
    let open = if within > share { format!(", give or take {:.0} %", 100.0 * within) } else { String::new() };
    told(TurnKind::Zoom, false, format!("Zoom {way}{little}: from {now:.1} to {then:.1} mm{open}"))
}
