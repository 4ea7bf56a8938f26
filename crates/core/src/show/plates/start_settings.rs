//! What a plate camera is set to on the first evening, each figure with its reason (handbook, sections 6, 9 and 10).

use crate::equipment::optics::SHUTTERS_S;
use crate::file::{Exposure, Fault, HeadRef, ObstacleKind, USUAL_FPS};
use crate::judge::Session;
use crate::judge::evaluation::{eye_around, viewer_of};
use crate::judge::lane::look_along_lane;
use crate::judge::lit::infrared_on;
use crate::judge::sight::{Sight, Viewer};
use crate::judge::zone::{Zone, ZoneTold, told};
use crate::light::needed_times;
use crate::math::Angle;
use crate::site::ray::{Met, ray};
use crate::site::{Head, Lane, Site, Target};
use crate::sun::clock::{Clock, shown};
use crate::sun::daylight::{Daylight, daylight};
use crate::words::sheet_text::guarded;
use crate::words::units::Units;
use glam::DVec2;
use serde::Serialize;
use std::collections::BTreeSet;
use utoipa::ToSchema;

/// Gain that plates bear before noise takes their edges, dB; common practice, no source.
const GAIN_DB: f64 = 24.0;
/// A little more light than the far end needs, in stops.
/// What is surely enough at worst.
const SURELY: f64 = 1.02;
const SPARE_STOPS: f64 = 0.5;
/// Around sunrise and sunset the automatic switch hunts, min; our default.
const HUNTS_MIN: i32 = 30;
/// The rays by which lettering is looked for in the picture.
const COLUMNS: usize = 64;
const ROWS: usize = 36;

/// A figure that is set, with its reason.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Setting {
    /// What is set.
    pub name: String,
    /// To what.
    pub value: String,
    /// Why.
    pub why: String,
}

/// The card of a plate camera.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct StartSettings {
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// The target whose plates it reads.
    pub target: String,
    /// What is set.
    pub settings: Vec<Setting>,
    /// The line that starts a reading, where the plate is in the middle of its zone: per cent of the picture from its top-left corner.
    pub trigger: [[f64; 2]; 2],
    /// What may be read falsely: names of obstacles in the picture that carry writing or mirror it.
    pub false_reads: Vec<String>,
    /// The exposure that is meant, for the site file.
    pub exposure: Exposure,
}

/// The cards of a head: one for every plate's way that it reads.
///
/// # Errors
/// Names the head that the site does not have.
pub fn start_settings(
    session: &Session,
    name: &HeadRef,
    date: Option<&str>,
    units: Units,
) -> Result<Vec<StartSettings>, Fault> {
    let site = session.site();
    let head = site.view(name)?;
    let date = date.map(|date| {
        date.parse::<jiff::civil::Date>()
            .map_err(|_| Fault::new("date", format!("\"{date}\" is no day, as in 2027-10-05")))
    });
    let date = date.transpose()?;
    let mut cards = Vec::new();
    for target in site.targets() {
        cards.extend(card(site, head, target, date, units)?);
    }
    Ok(cards)
}

fn card(
    site: &Site,
    head: &Head,
    target: &Target,
    date: Option<jiff::civil::Date>,
    units: Units,
) -> Result<Option<StartSettings>, Fault> {
    let Some(lane) = target.lane.as_ref().or(target.passing.as_ref()) else { return Ok(None) };
    let eye = eye_around(site, head);
    // A plate of which nobody said which way it points is taken to point to the camera.
    let towards = (head.position() - target.middle).truncate();
    let turned = target.passing.as_ref().filter(|_| target.facing.is_none());
    let turned = turned.map(|_| Target { facing: Some(Angle::bearing_of(towards.x, towards.y)), ..target.clone() });
    let target = turned.as_ref().unwrap_or(target);
    let viewer = viewer_of(site, head, &eye);
    let Some(zone) = look_along_lane(viewer, target, lane).zone else { return Ok(None) };
    let found = told(viewer, target, lane, zone);
    let shutter = shutter_for(found.shutter_wanted_s);
    let held = head.exposure();
    let usual = Exposure::fixed(shutter, USUAL_FPS);
    let mut exposure = held.map_or(usual, |held| Exposure { focus_m: None, ..held.with_shutter(shutter) });
    let setting = |name: &str, value: String, why: String| Setting { name: name.to_owned(), value, why };
    let mut settings = vec![setting(
        "Shutter",
        fraction(shutter),
        match found.shutter_wanted_s {
            Some(wanted) => format!("{} moves the plate by a pixel in {}", units.speed(lane.speed), fraction(wanted)),
            None if lane.speed > 0.0 => {
                "the plate does not move across the picture; the slowest of the usual start values".to_owned()
            }
            None => "for a plate that stands; the slowest of the usual start values".to_owned(),
        },
    )];
    settings.push(setting(
        "Gain limit",
        format!("{GAIN_DB:.0} dB"),
        "6 dB are a stop of light, and noise with it; plates need edges, not brightness. Common practice, no source"
            .to_owned(),
    ));
    if let Some((share, why)) = infrared(viewer, target, lane, zone, shutter, units) {
        settings.push(setting("Infrared power", format!("{:.0} %", share * 100.0), why));
        exposure.infrared_share = Some(share);
    }
    settings.push(setting(
        "Focus",
        units.length(found.focus_m),
        match found.sharp {
            Some(sharp) => format!(
                "sharp from {} to {}; plates are readable from {} to {}. Set it by night, under infrared light",
                units.length(sharp.near_m),
                sharp.far_m.map_or("far away".to_owned(), |far| units.length(far)),
                units.length(found.near_m),
                units.length(found.far_m)
            ),
            None => "in the middle of where plates are readable; the lens does not say its aperture".to_owned(),
        },
    ));
    settings.push(day_and_night(site, date)?);
    settings.push(setting(
        "Region",
        lane.plate.name.clone(),
        format!(
            "plates of {:.0} × {:.0} mm, characters {:.0} mm high: {:.0} px here",
            lane.size.x * 1e3,
            lane.size.y * 1e3,
            lane.plate.character_m * 1e3,
            found.char_height_px
        ),
    ));
    let size = head.view().projection.size();
    let [least, most] = found.size_window_px.map(|px| 100.0 * px / size.x);
    settings.push(setting(
        "Plate size window",
        format!("{least:.1} % to {most:.1} % of the picture's width"),
        format!(
            "{:.0} to {:.0} px: a little under the smallest and over the largest plate in the zone",
            found.size_window_px[0], found.size_window_px[1]
        ),
    ));
    let trigger = trigger(head, target, lane, &found);
    settings.push(setting(
        "Trigger line",
        format!(
            "from {:.0} %, {:.0} % to {:.0} %, {:.0} %",
            trigger[0][0], trigger[0][1], trigger[1][0], trigger[1][1]
        ),
        "across the path in the middle of where plates are readable, right and down from the picture's top-left corner"
            .to_owned(),
    ));
    Ok(Some(StartSettings {
        camera: head.camera_id().to_owned(),
        head: head.id().to_owned(),
        target: target.id.clone(),
        settings,
        trigger,
        false_reads: false_reads(site, head, &eye),
        exposure,
    }))
}

/// The longest usual shutter that leaves no more blur than is kept; 1/500 s for what stands (handbook, section 6: start values).
pub fn shutter_for(wanted: Option<f64>) -> f64 {
    let wanted = wanted.unwrap_or(f64::INFINITY).min(1.0 / 500.0);
    let shortest = SHUTTERS_S[SHUTTERS_S.len() - 1];
    SHUTTERS_S.into_iter().find(|shutter| *shutter <= wanted * (1.0 + 1e-9)).unwrap_or(shortest)
}

/// How much of its infrared light a head uses, so that the plate that gets least of it gets half a stop over what it needs at a shutter,
/// and surely enough; with the share of that which all of it gives, and how far away that plate is.
pub(crate) fn infrared_share(
    viewer: Viewer,
    target: &Target,
    lane: &Lane,
    zone: Zone,
    shutter: f64,
) -> Option<(f64, f64, f64)> {
    let head = viewer.head;
    let now = head.exposure().and_then(|exposure| exposure.infrared_share).unwrap_or(1.0);
    let [from, to] = zone.stated;
    let at = |place: usize| Some((infrared_on(&Sight::on_lane(viewer, target, lane, place, true))?, place));
    let all = (from..=to).filter_map(at);
    let (least, place) = all.min_by(|a, b| a.0.stated.total_cmp(&b.0.stated))?;
    let needs = needed_times(shutter) * now;
    let [gets, surely] = [least.stated, least.least].map(|light| light / needs);
    let share = if gets > 0.0 { (2_f64.powf(SPARE_STOPS) / gets).max(SURELY / surely).min(1.0) } else { 1.0 };
    let away = lane.samples[place].distance(head.position());
    Some((((share * 100.0).ceil() / 100.0).min(1.0), gets, away))
}

/// The same as a setting.
fn infrared(
    viewer: Viewer,
    target: &Target,
    lane: &Lane,
    zone: Zone,
    shutter: f64,
    units: Units,
) -> Option<(f64, String)> {
    let (share, gets, away) = infrared_share(viewer, target, lane, zone, shutter)?;
    let away = units.length(away);
    let why = if gets < 1.0 {
        format!("even all of it gives {:.0} % of what a plate {away} away needs at this shutter", gets * 100.0)
    } else {
        format!("half a stop over what a plate {away} away needs at this shutter; more overexposes the near ones")
    };
    Some((share, why))
}

/// Day and night by the clock, where the place is known.
fn day_and_night(site: &Site, date: Option<jiff::civil::Date>) -> Result<Setting, Fault> {
    let name = "Day and night".to_owned();
    let (Some(place), Some(date)) = (&site.file().place, date) else {
        let why = "the automatic switch hunts at dusk; the clock times follow once the site has its place on the earth"
            .to_owned();
        return Ok(Setting { name, value: "by the clock".to_owned(), why });
    };
    let (rise, set) = match daylight(place, &Clock::of(&place.time_zone), date)? {
        Daylight::Never => {
            let why = format!("the sun does not rise on {date}");
            return Ok(Setting { name, value: "night all day".to_owned(), why });
        }
        Daylight::Always => {
            let why = format!("the sun does not set on {date}");
            return Ok(Setting { name, value: "day all night".to_owned(), why });
        }
        Daylight::Between { rise, set } => (rise, set),
    };
    let at = |minute: u16, by: i32| shown((i32::from(minute) + by).rem_euclid(1440) as u16);
    Ok(Setting {
        name,
        value: format!("day from {}, night from {}", at(rise, HUNTS_MIN), at(set, -HUNTS_MIN)),
        why: format!(
            "by the clock: the automatic switch hunts around sunrise ({}) and sunset ({}) of {date}; set it anew with the seasons",
            shown(rise),
            shown(set)
        ),
    })
}

/// The line across the way in the middle of the zone, two metres to either side, in per cent of the picture.
fn trigger(head: &Head, target: &Target, lane: &crate::site::Lane, zone: &ZoneTold) -> [[f64; 2]; 2] {
    let middle = 0.5 * (zone.from + zone.to);
    let sample = lane.along.iter().position(|along| *along >= middle).unwrap_or(0);
    let side = DVec2::new(-lane.travel[sample].y, lane.travel[sample].x);
    let size = head.view().projection.size();
    let mut ends = [-2.0, 2.0].map(|off| {
        let at = lane.samples[sample].truncate() + side * off;
        let pixel = head.view().pixel_of(at.extend(target.middle.z)).map_or(size / 2.0, |(pixel, _)| pixel);
        let share = (pixel / size).clamp(DVec2::ZERO, DVec2::ONE) * 100.0;
        [share.x.round(), share.y.round()]
    });
    ends.sort_by(|a, b| a[0].total_cmp(&b[0]));
    ends
}

/// What in the picture carries writing, or mirrors it.
fn false_reads(site: &Site, head: &Head, eye: &crate::scene::Eye) -> Vec<String> {
    let size = head.view().projection.size();
    let mut seen: BTreeSet<String> = BTreeSet::new();
    for row in 0..ROWS {
        for column in 0..COLUMNS {
            let place = DVec2::new((column as f64 + 0.5) / COLUMNS as f64, (row as f64 + 0.5) / ROWS as f64);
            let Some(ray) = ray(head, eye, site.scene(), place * size) else { continue };
            if let Met::Obstacle(solid) = ray.met {
                seen.insert(solid.id().to_owned());
            }
            let panes = site.scene().passed(ray.from, ray.from + ray.direction * ray.distance.min(1e3));
            seen.extend(panes.into_iter().map(|solid| solid.id().to_owned()));
        }
    }
    let named = site.file().obstacles.iter().filter(|o| seen.contains(&o.id));
    named
        .filter_map(|o| match (o.lettering, o.kind) {
            (true, _) => Some(format!("{}: carries writing", o.name)),
            (false, ObstacleKind::Glass) => Some(format!("{}: may mirror a plate", o.name)),
            _ => None,
        })
        .collect()
}

/// A shutter as it is written: 1/1000 s.
pub fn fraction(seconds: f64) -> String {
    if seconds >= 0.5 { format!("{} s", round(seconds, 2)) } else { format!("1/{:.0} s", 1.0 / seconds) }
}

fn round(value: f64, digits: i32) -> f64 {
    let by = 10_f64.powi(digits);
    (value * by).round() / by
}

/// Cards as CSV: camera, target, setting, value, reason.
///
/// # Errors
/// A writer that cannot write; a string can.
pub fn as_csv(cards: &[StartSettings]) -> Result<String, Fault> {
    let failed = |error: &dyn std::fmt::Display| Fault::new("", error.to_string());
    let mut out = csv::Writer::from_writer(vec![]);
    out.write_record(["camera", "head", "target", "setting", "value", "why"]).map_err(|error| failed(&error))?;
    for card in cards {
        let falsely = card.false_reads.iter().map(|name| ("May be misread", name.as_str(), ""));
        let rows = card.settings.iter().map(|s| (s.name.as_str(), s.value.as_str(), s.why.as_str())).chain(falsely);
        for (name, value, why) in rows {
            // Names are what somebody typed.
            out.write_record([&card.camera, &card.head, &card.target, name, value, why].map(guarded))
                .map_err(|error| failed(&error))?;
        }
    }
    let bytes = out.into_inner().map_err(|error| failed(&error))?;
    String::from_utf8(bytes).map_err(|error| failed(&error))
}
