//! Ways in plain words.

use super::change::{Candidate, Change, Moved, Place};
use super::desk::Desk;
use crate::file::{CameraFile, Exposure, PlateSchool, Which};
use crate::judge::SightLine;
use crate::judge::sight_line::{describe, judge, not_kept};
use crate::math::Angle;
use crate::show::plates::start_settings::fraction;
use crate::verdict::RuleName;
use crate::verdict::Verdict;
use crate::words::units::Units;

/// What to do.
pub fn says(desk: &Desk, candidate: &Candidate, units: Units) -> String {
    let parts: Vec<String> = candidate.changes.iter().map(|change| one(desk, change, units)).collect();
    let mut text = parts.join(", ");
    if let Some(first) = text.get(..1).map(str::to_uppercase) {
        text.replace_range(..1, &first);
    }
    text
}

fn one(desk: &Desk, change: &Change, units: Units) -> String {
    let camera = desk.camera();
    let head = camera.heads[desk.head_place].aimed(desk.which);
    match change {
        Change::Focal(focal) if *focal > head.focal_mm => format!("zoom in to {focal} mm"),
        Change::Focal(focal) => format!("zoom out to {focal} mm"),
        Change::Aim(pan, tilt) => aim(head.pan_deg, head.tilt_deg, *pan, *tilt),
        Change::Dwell(dwell) => format!("stay {dwell} s at each preset"),
        Change::Height(height) if *height > camera.height_m => format!("raise it to {}", units.length(*height)),
        Change::Height(height) => format!("lower it to {}", units.length(*height)),
        Change::Roll(roll) if *roll == 0.0 => "turn the picture upright".to_owned(),
        Change::Roll(_) => "turn the picture on its side (corridor setting)".to_owned(),
        Change::Place(place) => moved(place, units),
        Change::Housing(housing) => format!(
            "put it in a housing ({})",
            [&housing.ip, &housing.ik].into_iter().flatten().cloned().collect::<Vec<_>>().join(", ")
        ),
        Change::Emitter(emitter) => {
            let [x, y] = camera.position;
            let aside = (emitter.position[0] - x).hypot(emitter.position[1] - y);
            format!("switch its light off; an infrared lamp of its own {} beside it", units.length(aside))
        }
        Change::Exposure(exposure) => exposed(camera.heads[desk.head_place].exposure.as_ref(), exposure),
        Change::Lens(model, focal) => {
            format!("fit another lens: {}{}", model.name, set_to(model.lens.is_zoom(), *focal))
        }
        Change::Model(model, focal) => format!("change to {}{}", model.name, set_to(model.lens.is_zoom(), *focal)),
    }
}

/// What of an exposure is different.
fn exposed(now: Option<&Exposure>, then: &Exposure) -> String {
    let differs = |of: fn(&Exposure) -> Option<f64>| now.is_none_or(|now| of(now) != of(then));
    let shutter =
        then.shutter_s.filter(|_| differs(Exposure::fixed_s)).map(|s| format!("set the shutter to {}", fraction(s)));
    let fps = differs(|of| Some(of.fps)).then(|| format!("set the frame rate to {:.0} a second", then.fps));
    let focus = differs(|of| of.focus_m).then(|| match then.focus_m {
        Some(at) => format!("focus at {at:.1} m"),
        None => "focus where plates are readable".to_owned(),
    });
    let share = |of: &Exposure| Some(of.infrared_share.unwrap_or(1.0));
    let light = (now.map_or(Some(1.0), share) != share(then))
        .then(|| format!("set the infrared light to {:.0} %", 100.0 * then.infrared_share.unwrap_or(1.0)));
    let parts: Vec<String> =
        [shutter, fps, focus.filter(|_| now.is_some_and(|now| now.focus_m.is_some()) || then.focus_m.is_some()), light]
            .into_iter()
            .flatten()
            .collect();
    if parts.is_empty() { "fix the shutter".to_owned() } else { parts.join(", ") }
}

fn moved(place: &Place, units: Units) -> String {
    let (by, on) = (units.length(place.by), place.on.as_deref());
    match (&place.how, on) {
        (Moved::Spot { .. }, Some(spot)) => format!("move it to {spot}"),
        (Moved::Spot { id, .. }, None) => format!("move it to {id}"),
        (Moved::Nearer, _) => format!("move it {by} nearer along the ground"),
        (Moved::Back, _) => format!("move it {by} straight back"),
        (Moved::Sideways, Some(wall)) => format!("move it {by} along {wall}"),
        (Moved::Sideways, None) => format!("move it {by} sideways"),
    }
}

fn set_to(zoom: bool, focal: f64) -> String {
    if zoom { format!(", set to {focal} mm") } else { String::new() }
}

fn aim(pan: f64, tilt: f64, new_pan: f64, new_tilt: f64) -> String {
    let turn = (Angle::degrees(new_pan) - Angle::degrees(pan)).wrapped().deg();
    let nod = new_tilt - tilt;
    let sideways = (turn.abs() >= 0.05)
        .then(|| format!("turn it {:.1}° {}", turn.abs(), if turn > 0.0 { "right" } else { "left" }));
    let upright =
        (nod.abs() >= 0.05).then(|| format!("tilt it {:.1}° {}", nod.abs(), if nod > 0.0 { "down" } else { "up" }));
    match (sideways, upright) {
        (Some(a), Some(b)) => format!("{a}, {b}"),
        (a, b) => a.or(b).unwrap_or_else(|| "aim as it is".to_owned()),
    }
}

/// What that gives.
pub fn why(desk: &Desk, candidate: &Candidate, units: Units) -> String {
    let head = desk.head(&candidate.applied(desk.camera()));
    let mut parts = Vec::new();
    if let Some(line) = line_of(desk, &head) {
        let worst = line.rules.iter().find(|rule| rule.rule == RuleName::PixelDensity).and_then(|rule| rule.worst);
        match (line.px_per_m, worst) {
            (Some(found), Some(worst)) => parts.push(format!("{found:.0} px/m, {worst:.0} in the worst case")),
            (Some(found), None) => parts.push(format!("{found:.0} px/m")),
            (None, _) => {}
        }
    }
    let hfov = |head: &crate::site::Head| head.view().projection.hfov().to_degrees();
    if let Some(model) = candidate.model() {
        let now = &desk.camera().model;
        if model.sensor.width_px != now.sensor.width_px {
            parts.push(format!("{} px wide instead of {}", model.sensor.width_px, now.sensor.width_px));
        }
    }
    let new_width = hfov(&head);
    if (new_width - hfov(&desk.head(desk.camera()))).abs() > 0.05 {
        parts.push(format!("picture {new_width:.0}° wide"));
    }
    if let Some(line) = line_of(desk, &head) {
        parts.push(format!("{} away", units.length(line.slant_m)));
    }
    match candidate.place() {
        Some(Place { how: Moved::Spot { height_m: height, .. }, .. }) => {
            parts.push(format!("a surveyed spot, {} up", units.length(*height)))
        }
        Some(Place { on: None, .. }) => parts.push("needs something there to mount it on".to_owned()),
        _ => {}
    }
    parts.join(" · ")
}

/// What one more camera gives.
pub fn of_new(desk: &Desk, camera: &CameraFile, units: Units) -> String {
    let head = desk.site.head_of(desk.site.file().cameras.len(), camera, (0, Which::Own));
    let focal =
        if camera.model.lens.is_zoom() { format!("set to {} mm · ", camera.heads[0].focal_mm) } else { String::new() };
    match line_of(desk, &head) {
        Some(line) => format!(
            "{focal}{:.0} px/m · {} away · one more cable, and one more camera to pay",
            line.px_per_m.unwrap_or(0.0),
            units.length(line.slant_m)
        ),
        None => focal,
    }
}

/// What is said when there was more to try than work allowed for.
pub const CUT_SHORT: &str = "There was more to try than is worth waiting for: these are the best found so far. A smaller target is searched whole.";

/// What is said when nothing was found before that.
pub const NOT_YET: &str = "Nothing was found in the time that is worth waiting for; not all was tried. Fewer lamps and private places, or a smaller target, are searched whole.";

/// What stands against every way.
pub fn why_none(desk: &Desk, units: Units) -> String {
    let rules = desk.site.rules();
    let target = &desk.site.targets()[desk.target_place];
    let Some(line) = line_of(desk, &desk.head(desk.camera())) else {
        return "The target is behind this camera, and no turn towards it keeps the promise.".to_owned();
    };
    let holding = |name: RuleName| line.rules.iter().find(|rule| rule.rule == name && rule.verdict != Verdict::Kept);
    if holding(RuleName::PlateSide).is_some_and(|rule| rule.verdict == Verdict::Unknown) {
        return "Which way the plate points is not stated: give the target its facing first.".to_owned();
    }
    if let Some(rule) = holding(RuleName::Unseen) {
        return match target.unseen_at_most_s {
            None => {
                "A PTZ on tour is elsewhere at times: state how long this may go unseen, or give it a fixed camera."
                    .to_owned()
            }
            Some(wish) => format!(
                "The PTZ is elsewhere for {:.1} s and {wish} s are allowed: take presets out of the tour, or give this a fixed camera.",
                rule.value.unwrap_or(0.0)
            ),
        };
    }
    if let Some(rule) = holding(RuleName::PlateSide) {
        let school = if rules.plate_school == PlateSchool::Level { "level" } else { "raised" };
        return format!(
            "The plate is seen {:.0}° from the side and the {school} method allows {:.0}°: no change at this spot alters that, the camera has to sit closer to the plate's own line.",
            rule.value.unwrap_or(0.0),
            rule.limit.unwrap_or(0.0)
        );
    }
    if holding(RuleName::TurnedAway).is_some() {
        return "The face looks away from this spot: another spot has to see it from the front.".to_owned();
    }
    let named = |ids: &[String]| {
        let obstacles = ids.iter().filter_map(|id| desk.site.file().obstacles.iter().find(|o| &o.id == id));
        obstacles.map(|obstacle| obstacle.name.clone()).collect::<Vec<_>>().join(" and ")
    };
    if let Some(rule) = holding(RuleName::Build) {
        return format!(
            "This aim is outside its tilt range, {}; no other mount, form or spot was found that keeps it.",
            rule.basis
        );
    }
    if let Some(rule) = [RuleName::WithinReach, RuleName::Weather].into_iter().find_map(holding) {
        return format!("It is {}: no height, housing or model was found that stands it and keeps this.", rule.basis);
    }
    if holding(RuleName::Masked).is_some() {
        return "It lies behind the mask of a private place, from here and from every other place that was tried."
            .to_owned();
    }
    for (rule, says) in [
        (
            RuleName::LightEnough,
            "It is too dark there by night, and no light was found that reaches it: more lamps, or a camera nearer to it.",
        ),
        (RuleName::Overexposed, "The plate is overexposed by night at every power and shutter that was tried."),
        (
            RuleName::Looks,
            "Too few pictures are taken of it on its path: slow the vehicles down, or read them where they drive longer towards a camera.",
        ),
        (RuleName::Blur, "Its motion blur is too long at every shutter that was tried: aim more along its path."),
    ] {
        if holding(rule).is_some() && holding(RuleName::Clear).is_none() && holding(RuleName::PixelDensity).is_none() {
            return says.to_owned();
        }
    }
    if holding(RuleName::Clear).is_some() {
        let may = named(&line.may_hide);
        let name = blocker_name(desk, &line)
            .or_else(|| (!may.is_empty()).then_some(may))
            .or_else(|| (!line.seen_through.is_empty()).then(|| named(&line.seen_through)))
            .unwrap_or_else(|| "What stands between two places of it".to_owned());
        return format!(
            "{name} stands in the way, also from every height between {} and {} and from every place nearer on the straight line.",
            units.length(rules.mount_min_m),
            units.length(rules.mount_max_m)
        );
    }
    if target.samples.len() > 1 {
        let sharing =
            desk.session.views().iter().filter(|view| view.targets[desk.target_place].counts.seen > 0).count();
        let advice = if sharing > 1 {
            "a camera more at another spot, or make it smaller"
        } else {
            "share it between two cameras, or make it smaller"
        };
        return format!(
            "No single change keeps every part of it ({} somewhere along it now): {advice}.",
            failing(desk).join(", ")
        );
    }
    if let Some(rule) = holding(RuleName::FaceFromAbove) {
        return format!(
            "The face is seen {:.0}° from above and no height or place within reach brings that under {:.0}° with enough pixels left.",
            rule.value.unwrap_or(0.0),
            rule.limit.unwrap_or(0.0)
        );
    }
    format!(
        "No lens of the catalogue, height or place on the straight line gives {:.0} px/m with the target safely in the picture.",
        target.need.px_per_m
    )
}

/// What is not kept at some sample of the target now.
fn failing(desk: &Desk) -> Vec<&'static str> {
    let target = &desk.site.targets()[desk.target_place];
    let head = desk.head(desk.camera());
    let found = desk.looking(&head, |viewer| not_kept(viewer, target));
    let mut words: Vec<&'static str> = found
        .into_iter()
        .map(|rule| match rule {
            RuleName::InView => "not safely in the picture",
            RuleName::Clear => "not clear",
            RuleName::PixelDensity => "too few pixels",
            RuleName::FaceFromAbove => "seen too steeply",
            RuleName::TurnedAway => "turned away",
            RuleName::PlateSide => "too much from the side",
            RuleName::PlateVertical => "too steep for a plate",
            RuleName::Unseen => "unseen for too long",
            RuleName::Build => "an aim outside its tilt range",
            RuleName::WithinReach => "within reach of a hand",
            RuleName::Weather => "not made for outdoors",
            RuleName::Masked => "in front of a private place",
            RuleName::LightEnough => "too dark by night",
            RuleName::Overexposed => "overexposed by night",
            RuleName::Headlights => "headlights glare at this shutter",
            RuleName::Looks => "too few pictures of it on its path",
            RuleName::Blur => "too much motion blur",
            RuleName::Sharp => "outside the depth of field",
            RuleName::ZoneInfrared => "too much infrared light at one end or too little at the other",
            RuleName::LaneWidth => "in a picture wider than its lane",
        })
        .collect();
    words.sort_unstable();
    words.dedup();
    words
}

fn blocker_name(desk: &Desk, line: &SightLine) -> Option<String> {
    let id = line.blocked_by.as_ref()?;
    desk.site.file().obstacles.iter().find(|obstacle| &obstacle.id == id).map(|obstacle| obstacle.name.clone())
}

fn line_of(desk: &Desk, head: &crate::site::Head) -> Option<SightLine> {
    let target = &desk.site.targets()[desk.target_place];
    desk.looking(head, |viewer| describe(viewer, target, &judge(viewer, target)))
}
