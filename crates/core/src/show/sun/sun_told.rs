//! The sun in the pictures of a site: when it stands in which, and when it back-lights what (handbook, section 9).

use crate::file::{Fault, GeoPlace, HeadRef};
use crate::judge::Session;
use crate::judge::evaluation::eye_around;
use crate::scene::Eye;
use crate::site::{Head, Site, half_upright};
use crate::sun::clock::{Clock, shown};
use crate::sun::{SunYear, Up, position};
use glam::DVec3;
use jiff::Timestamp;
use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

/// A line to the sun is followed so far, m.
const FAR_M: f64 = 10_000.0;
/// So many days with the most sun in the picture are named.
const WORST_DAYS: usize = 3;

/// Minutes of a year at which the sun does something to a head; each in order.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct SunOfHead {
    /// It stands in the picture.
    pub in_picture: Vec<Up>,
    /// It stands behind each of the directions asked about.
    pub backlit: Vec<Vec<Up>>,
}

/// What a year of the sun does to a head that looks in some directions (of length one): whole minutes at which it is up, nothing opaque
/// stands in the way, and it lands in the picture, or stands within so many degrees of each direction.
pub fn sun_of_head(
    head: &Head,
    eye: &Eye,
    site: &Site,
    year: &SunYear,
    directions: &[DVec3],
    every: usize,
) -> SunOfHead {
    let forward = head.view().pose.forward;
    let corner = head.view().projection.corner_cosine();
    let near = site.rules().backlit_deg.to_radians().cos();
    let mut found = SunOfHead { in_picture: vec![], backlit: vec![vec![]; directions.len()] };
    for up in year.up().iter().step_by(every) {
        let may_hold = corner <= 0.0 || forward.dot(up.direction) >= corner - 1e-9;
        let behind = |way: &DVec3| way.dot(up.direction) >= near;
        if !may_hold && !directions.iter().any(behind) {
            continue;
        }
        let holds = may_hold && head.holds_direction(up.direction);
        if !holds && !directions.iter().any(behind) {
            continue;
        }
        if eye.first_solid(site.scene(), eye.from() + up.direction * FAR_M).is_some() {
            continue;
        }
        if holds {
            found.in_picture.push(*up);
        }
        for (way, minutes) in directions.iter().zip(&mut found.backlit) {
            if behind(way) {
                minutes.push(*up);
            }
        }
    }
    found
}

/// A year of the sun over a site.
///
/// # Errors
/// A site without a place, or a year that the sun is not told for.
pub fn sun_year(site: &Site, year: i32) -> Result<SunYear, Fault> {
    SunYear::new(place_of(site)?, year)
}

/// Where on the earth a site is.
///
/// # Errors
/// It does not say.
pub fn place_of(site: &Site) -> Result<&GeoPlace, Fault> {
    site.file().place.as_ref().ok_or_else(|| Fault::new("place", "the site does not say where on the earth it is"))
}

/// The sun in the pictures of a site through a year.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SunTold {
    /// Each head.
    pub heads: Vec<SunInHead>,
    /// Each target that lies before a head.
    pub targets: Vec<SunBehind>,
}

/// The sun in a head's picture.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SunInHead {
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// The id of the preset or flattened view; null for its own aim.
    #[schema(required)]
    pub view: Option<String>,
    /// Whole minutes, UTC, at which it stands in the picture.
    pub minutes_in_picture: u32,
    /// From when to when.
    pub days: Vec<SunRun>,
}

/// A run of minutes, UTC.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct SunRun {
    /// The day, UTC.
    pub date: String,
    /// Its first minute, RFC 3339.
    pub from: String,
    /// Its last.
    pub to: String,
}

/// The sun behind a target as a head sees it.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SunBehind {
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// The id of the preset or flattened view; null for its own aim.
    #[schema(required)]
    pub view: Option<String>,
    /// The target's id.
    pub target: String,
    /// Whole minutes, UTC, at which it back-lights it.
    pub minutes_backlit: u32,
}

/// The sun in the pictures of all heads, or of those that `of` names.
pub fn sun_told(session: &Session, year: &SunYear, of: impl Fn(&Head) -> bool) -> SunTold {
    let mut told = SunTold { heads: vec![], targets: vec![] };
    for (place, head) in session.site().heads().iter().enumerate().filter(|(_, head)| of(head)) {
        let (own, behind) = sun_of(session, year, place, head);
        told.heads.push(own);
        told.targets.extend(behind);
    }
    told
}

/// The sun in the picture of one head, by its place among the site's.
pub fn sun_of(session: &Session, year: &SunYear, place: usize, head: &Head) -> (SunInHead, Vec<SunBehind>) {
    let site = session.site();
    let eye = eye_around(site, head);
    let targets: Vec<(&str, DVec3)> = before(session, place, head).collect();
    let directions: Vec<DVec3> = targets.iter().map(|(_, way)| *way).collect();
    let found = sun_of_head(head, &eye, site, year, &directions, 1);
    let own = SunInHead {
        camera: head.camera_id().to_owned(),
        head: head.id().to_owned(),
        view: head.view_id().map(str::to_owned),
        minutes_in_picture: found.in_picture.len() as u32,
        days: runs(year, &found.in_picture),
    };
    let behind = targets.iter().zip(&found.backlit).map(|((target, _), minutes)| SunBehind {
        camera: head.camera_id().to_owned(),
        head: head.id().to_owned(),
        view: head.view_id().map(str::to_owned),
        target: (*target).to_owned(),
        minutes_backlit: minutes.len() as u32,
    });
    (own, behind.collect())
}

/// The targets that lie before a head, with the ways to them.
fn before<'a>(session: &'a Session, place: usize, head: &'a Head) -> impl Iterator<Item = (&'a str, DVec3)> {
    let pairs = session.site().targets().iter().zip(&session.views()[place].targets);
    pairs.filter_map(|(target, judged)| {
        let way = (judged.deciding?.point - head.position()).try_normalize()?;
        Some((target.id.as_str(), way))
    })
}

/// The runs of minutes, cut at midnight UTC.
fn runs(year: &SunYear, minutes: &[Up]) -> Vec<SunRun> {
    let mut runs: Vec<[u32; 2]> = Vec::new();
    for up in minutes {
        match runs.last_mut() {
            Some([_, last]) if *last + 1 == up.minute && !up.minute.is_multiple_of(1440) => *last = up.minute,
            _ => runs.push([up.minute, up.minute]),
        }
    }
    let told = |[from, to]: [u32; 2]| {
        let [from, to] = [from, to].map(|minute| year.time(minute).to_string());
        SunRun { date: from.get(..10).unwrap_or_default().to_owned(), from, to }
    };
    runs.into_iter().map(told).collect()
}

/// A head's year of sun, by the clock of the site.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SunCalendar {
    /// The year.
    pub year: i32,
    /// The zone that the clock shows.
    pub time_zone: String,
    /// Each day of it.
    pub days: Vec<SunDay>,
    /// When the clock is put on or back, in words.
    pub changes: Vec<String>,
    /// Hours in the year with the sun in the picture.
    pub hours_in_picture: f64,
    /// Hours with it behind the target in hand; null without one before the head.
    #[schema(required)]
    pub hours_backlit: Option<f64>,
    /// The days with the most of it in the picture.
    pub worst: Vec<WorstDay>,
    /// The longest stretches of the year with sun in the picture, first and last day, in words; empty without any.
    pub seasons: Vec<String>,
    /// How far a hood has to reach forward of the glass for each millimetre that it stands over its middle, mm, so that it stays out of
    /// the picture and keeps off the glass all sun that does not stand in it.
    pub hood_mm: f64,
}

/// A day, in minutes since midnight by the clock, from the first to the last of each run.
#[derive(Clone, Debug, Default, PartialEq, Serialize, ToSchema)]
pub struct SunDay {
    /// The day.
    pub date: String,
    /// When the sun is up.
    pub up: Vec<[u16; 2]>,
    /// When it stands in the picture.
    pub in_picture: Vec<[u16; 2]>,
    /// When it back-lights the target in hand.
    pub backlit: Vec<[u16; 2]>,
}

/// A day with much sun in the picture.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct WorstDay {
    /// The day.
    pub date: String,
    /// From when by the clock.
    pub from: String,
    /// To when.
    pub to: String,
    /// Bearing of the sun at its begin and its end, degrees.
    pub bearings_deg: [f64; 2],
    /// Minutes.
    pub minutes: u32,
}

/// The calendar of a head, with one target in hand or none.
///
/// # Errors
/// Names what the site does not have; a site without a place.
pub fn calendar(session: &Session, name: &HeadRef, target: Option<&str>, year: &SunYear) -> Result<SunCalendar, Fault> {
    let site = session.site();
    let place = site.view_place(&name.camera, &name.head, name.view.as_deref())?;
    let head = &site.heads()[place];
    let way = match target {
        Some(id) => {
            site.target_place(id)?;
            before(session, place, head).find(|(known, _)| *known == id).map(|(_, way)| way)
        }
        None => None,
    };
    let ways: Vec<DVec3> = way.into_iter().collect();
    let found = sun_of_head(head, &eye_around(site, head), site, year, &ways, 1);
    let zone = site.file().place.as_ref().map_or("UTC", |place| place.time_zone.as_str());
    let clock = Clock::of(zone);
    let mut days = Days::of(year, &clock);
    let eye = eye_around(site, head);
    // The year begins and ends by the clock, which is that of Greenwich for few.
    let [before, after] = &year.edges()[..] else { return Err(Fault::new("year", "is at an end of time")) };
    for part in [before, year, after] {
        let own;
        let found = if std::ptr::eq(part, year) {
            &found
        } else {
            own = sun_of_head(head, &eye, site, part, &ways, 1);
            &own
        };
        days.fill(part, part.up(), |day| &mut day.up);
        days.fill(part, &found.in_picture, |day| &mut day.in_picture);
        days.fill(part, found.backlit.first().map_or(&[], Vec::as_slice), |day| &mut day.backlit);
    }
    let half = half_upright(head);
    let hours = |minutes: &[Up]| minutes.len() as f64 / 60.0;
    Ok(SunCalendar {
        year: year.year(),
        time_zone: zone.to_owned(),
        changes: clock.changes(year.year()).into_iter().map(|change| in_words(&clock, change)).collect(),
        hours_in_picture: hours(&found.in_picture),
        hours_backlit: found.backlit.first().map(|minutes| hours(minutes)),
        worst: worst_days(year, &clock, &found.in_picture),
        seasons: seasons(&days.days),
        hood_mm: 1.0 / half.clamp(0.01, 1.55).tan(),
        days: days.days,
    })
}

/// The days of a year as the clock counts them.
struct Days<'a> {
    clock: &'a Clock,
    first: Option<Date>,
    days: Vec<SunDay>,
}

impl<'a> Days<'a> {
    fn of(year: &SunYear, clock: &'a Clock) -> Self {
        let first = i16::try_from(year.year()).ok().and_then(|year| Date::new(year, 1, 1).ok());
        let count = year.minutes() / 1440;
        let dates = first.into_iter().flat_map(|first| first.series(jiff::Span::new().days(1)).take(count as usize));
        let days = dates.map(|date| SunDay { date: date.to_string(), ..SunDay::default() }).collect();
        Days { clock, first, days }
    }

    /// Puts minutes into the days that the clock shows them on; what the clock shows in the year before or after is left out.
    fn fill(&mut self, year: &SunYear, minutes: &[Up], list: impl Fn(&mut SunDay) -> &mut Vec<[u16; 2]>) {
        let Some(first) = self.first else { return };
        // The clock is asked once an hour: it changes on the hour or the half, and offsets are whole quarters.
        let (mut asked, mut read) = (u32::MAX, None);
        for up in minutes {
            let quarter = up.minute / 15;
            if quarter != asked {
                asked = quarter;
                let local = self.clock.read(year.time(quarter * 15));
                let day = first.until(local.date).map_or(-1, |span| span.get_days());
                read = usize::try_from(day).ok().map(|day| (day, local.minute));
            }
            let Some((day, minute)) = read else { continue };
            let minute = minute + (up.minute % 15) as u16;
            let Some(day) = self.days.get_mut(day) else { continue };
            match list(day).last_mut() {
                Some([_, last]) if *last + 1 == minute => *last = minute,
                _ => list(day).push([minute, minute]),
            }
        }
    }
}

fn in_words(clock: &Clock, (at, by): (Timestamp, i32)) -> String {
    let local = clock.read(at);
    let (hours, way) = (f64::from(by.abs()) / 3600.0, if by > 0 { "put on" } else { "put back" });
    format!("{}: the clock is {way} by {hours} h, to {}", local.date, shown(local.minute))
}

fn worst_days(year: &SunYear, clock: &Clock, minutes: &[Up]) -> Vec<WorstDay> {
    let mut days: Vec<(Date, Vec<&Up>)> = Vec::new();
    for up in minutes {
        let date = clock.read(year.time(up.minute)).date;
        match days.last_mut() {
            Some((last, ups)) if *last == date => ups.push(up),
            _ => days.push((date, vec![up])),
        }
    }
    days.sort_by_key(|(_, ups)| std::cmp::Reverse(ups.len()));
    // Neighbours are of one season: the worst of each month is enough.
    let mut worst: Vec<WorstDay> = Vec::new();
    for (date, ups) in days {
        let (Some(first), Some(last)) = (ups.first(), ups.last()) else { continue };
        let month = date.to_string().get(..7).unwrap_or_default().to_owned();
        if worst.iter().any(|known| known.date.starts_with(&month)) {
            continue;
        }
        let bearing = |up: &Up| up.direction.x.atan2(up.direction.y).to_degrees().rem_euclid(360.0);
        let read = |up: &Up| shown(clock.read(year.time(up.minute)).minute);
        worst.push(WorstDay {
            date: date.to_string(),
            from: read(first),
            to: read(last),
            bearings_deg: [bearing(first), bearing(last)],
            minutes: ups.len() as u32,
        });
        if worst.len() == WORST_DAYS {
            break;
        }
    }
    worst
}

/// Stretches of days with the sun in the picture, with gaps of no more than three days, the longest first.
fn seasons(days: &[SunDay]) -> Vec<String> {
    let mut found: Vec<[usize; 2]> = Vec::new();
    for (place, _) in days.iter().enumerate().filter(|(_, day)| !day.in_picture.is_empty()) {
        match found.last_mut() {
            Some([_, last]) if place - *last <= 3 => *last = place,
            _ => found.push([place, place]),
        }
    }
    found.sort_by_key(|[from, to]| std::cmp::Reverse(to - from));
    found.iter().map(|[from, to]| format!("{} to {}", days[*from].date, days[*to].date)).collect()
}

/// The sun at a moment, and where it lands in a head's picture.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct SunAt {
    /// Bearing, degrees.
    pub azimuth_deg: f64,
    /// Height over the horizon, degrees.
    pub elevation_deg: f64,
    /// Where it lands, px right and down from the top-left corner; null out of the picture.
    #[schema(required)]
    pub pixel: Option<[f64; 2]>,
    /// Whether nothing opaque stands in the way.
    pub clear: bool,
}

/// Where the sun stands for a head at a local day and minute.
///
/// # Errors
/// Names what the site does not have, or a moment that there is not.
pub fn sun_at(site: &Site, name: &HeadRef, date: &str, minute: u16) -> Result<SunAt, Fault> {
    let place = site.file().place.as_ref();
    let place = place.ok_or_else(|| Fault::new("place", "the site does not say where on the earth it is"))?;
    let head = site.view(name)?;
    let day: Date = date.parse().map_err(|_| Fault::new("date", format!("\"{date}\" is no day, as in 2027-10-05")))?;
    let clock = Clock::of(&place.time_zone);
    let at =
        clock.moment(day, minute).ok_or_else(|| Fault::new("minute", format!("{minute} is no minute of a day")))?;
    let sun = position::over(place, at)?;
    let direction = sun.direction();
    let pixel = head.holds_direction(direction).then(|| {
        let view = head.view();
        view.projection.project(view.pose.to_camera(direction)).map(|pixel| pixel.to_array())
    });
    let eye = eye_around(site, head);
    Ok(SunAt {
        azimuth_deg: sun.azimuth_deg,
        elevation_deg: sun.apparent_elevation_deg,
        pixel: pixel.flatten(),
        clear: eye.first_solid(site.scene(), eye.from() + direction * FAR_M).is_none(),
    })
}
