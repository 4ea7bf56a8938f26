//! Questions whose figures are checked at the door.

use super::Door;
use crate::change::ways::mend::{Mends, sun_ways};
use crate::file::{Fault, HeadRef, Hung, Point2, Sensor};
use crate::judge::Session;
use crate::judge::tours::{Tours, tours};
use crate::math::homography::to_rectangle;
use crate::prove::due::{Due, due};
use crate::show::sun::live_sun::{SunHoursTold, sun_hours};
use crate::show::sun::sun_told::{SunCalendar, calendar};
use crate::site::Site;
use crate::survey::drawing::{WorldFile, parse_world_file};
use crate::survey::first_answer::{Asked, FirstAnswer, first_answer};
use crate::words::units::Units;
use glam::DVec2;

/// A common sensor, that the plain focal length of a first answer is told for.
pub const COMMON_SENSOR: Sensor =
    Sensor { width_px: 2688, height_px: 1520, width_mm: 5.376, height_mm: 3.04, image_circle_px: None };

/// How long an event may last that chances are told for, s.
const EVENT_S: std::ops::RangeInclusive<f64> = 0.0..=86_400.0;

pub(super) fn first_answer_to(session: &Session, asked: Asked) -> Result<FirstAnswer, Fault> {
    asked.checked()?;
    Ok(first_answer(asked, session.site().rules(), COMMON_SENSOR, &session.models()?))
}

pub(super) fn world_file_of(text: &str, share: f64) -> Result<WorldFile, Fault> {
    if !(share > 0.0 && share <= 1.0) {
        return Err(Fault::new("share", format!("{share} is no share of a width")));
    }
    Ok(parse_world_file(text)?.of_picture_scaled_to(share))
}

pub(super) fn tours_of(site: &Site, event_s: f64) -> Result<Tours, Fault> {
    if !EVENT_S.contains(&event_s) {
        return Err(Fault::new("event_s", format!("{event_s} is outside 0 to 86400 s")));
    }
    Ok(tours(site, event_s))
}

pub(super) fn sun_calendar(
    door: &mut Door,
    head: &HeadRef,
    target: Option<&str>,
    year: i32,
) -> Result<SunCalendar, Fault> {
    let (session, year) = door.under_the_sun(year)?;
    calendar(session, head, target, year)
}

pub(super) fn sun_ways_out(door: &mut Door, head: &HeadRef, year: i32, units: Units) -> Result<Mends, Fault> {
    let (session, year) = door.under_the_sun(year)?;
    sun_ways(session, head, year, units)
}

pub(super) fn sun_hours_of(door: &mut Door, year: i32, place: usize) -> Result<SunHoursTold, Fault> {
    let (session, year) = door.under_the_sun(year)?;
    Ok(sun_hours(session, year, place))
}

/// How a view hangs now.
pub(super) fn hung_now(site: &Site, head: &HeadRef) -> Result<Hung, Fault> {
    let view = site.view(head)?;
    let camera = &site.file().cameras[view.camera()];
    let hung = camera.hung(&head.head, view.view_id());
    hung.ok_or_else(|| Fault::new("head", format!("camera \"{}\" has no such view", head.camera)))
}

/// What is due on a day; with the sun's weeks where the site says where on the earth it is.
pub(super) fn due_on(door: &mut Door, on: &str) -> Result<Due, Fault> {
    let year = on.get(..4).and_then(|year| year.parse().ok()).filter(|_| door.session().site().file().place.is_some());
    match year {
        Some(year) => {
            let (session, sun) = door.under_the_sun(year)?;
            due(session, on, Some(sun))
        }
        None => due(door.session(), on, None),
    }
}

/// The map that straightens what four corners bound.
pub(super) fn straightened(corners: [Point2; 4], size: Point2) -> Result<Vec<f64>, Fault> {
    let sound =
        corners.iter().flatten().chain(&size).all(|figure| figure.is_finite()) && size.iter().all(|side| *side >= 1.0);
    let map = sound.then(|| to_rectangle(corners.map(DVec2::from_array), DVec2::from_array(size))).flatten();
    let none =
        || Fault::new("corners", "these four are no corners of a picture: click them one after the other, around it");
    map.map(|map| map.to_vec()).ok_or_else(none)
}
