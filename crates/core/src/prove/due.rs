//! What is due at a site to keep it as it was handed over, and when: from the site itself (handbook, section 14). How often is a setting;
//! common practice, no source.

use crate::file::{
    CameraFile, Fault, NodeKind, Obstacle, ObstacleKind, Point2, ProvingRules, SiteFile, SiteKind, Snapshot, StepHow,
};
use crate::fit::shortest_walk::shortest_walk;
use crate::fit::spot_facts::SpotFacts;
use crate::fit::steps::{FitState, Steps, all_steps};
use crate::judge::Session;
use crate::judge::evaluation::eye_around;
use crate::show::sun::sun_told::sun_of_head;
use crate::site::Head;
use crate::sun::SunYear;
use geo::{Distance as _, Euclidean, Line, LineString, Polygon};
use glam::{DVec2, DVec3};
use jiff::civil::Date;
use jiff::{Span, ToSpan};
use serde::Serialize;
use utoipa::ToSchema;

/// A tree so near to a sight line is cut back, m (our default: two summers of growth).
const TREE_NEAR_M: f64 = 1.5;
/// Leaves are looked at in the middle and at the end of the growing season: months north of the equator.
const LEAF_MONTHS: [i8; 2] = [5, 8];
/// Indoors a cover is cleaned half as often; in a yard, with its dust, twice as often.
const INDOORS: f64 = 2.0;
const IN_A_YARD: f64 = 0.5;
/// Of the sun's year every so many minutes are looked at, and weeks without it part two seasons.
const SUN_EVERY: usize = 5;
const SEASON_APART_DAYS: u32 = 14;
const DAY_MIN: u32 = 24 * 60;

/// What is due at a site.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Due {
    /// The day that it is told for.
    pub on: String,
    /// Each thing, what is due first first.
    pub items: Vec<DueItem>,
    /// The ids of what is due by then, in walking order.
    pub now: Vec<String>,
    /// Cameras whose upkeep has not begun: they are not closed, and no picture of them is kept.
    pub not_begun: Vec<String>,
    /// What to mind.
    pub cautions: Vec<String>,
}

/// Something that is due once or again.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct DueItem {
    /// Its id, the same at every visit.
    pub id: String,
    /// What it is.
    pub kind: DueKind,
    /// The id of the camera, box or tree.
    pub of: String,
    /// What that is called.
    pub name: String,
    /// Where, m.
    #[schema(value_type = [f64; 2])]
    pub at: Point2,
    /// What to do.
    pub says: String,
    /// Why, and how often.
    pub why: String,
    /// When it was done last; null where it never was.
    #[schema(required)]
    pub last: Option<String>,
    /// When it is due.
    pub due: String,
    /// Whether that day is past.
    pub overdue: bool,
}

/// What can be due.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DueKind {
    /// Pictures held against the reference.
    Pictures,
    /// A cover cleaned.
    Cover,
    /// Leaves cut back.
    Leaves,
    /// The sun in the picture looked at.
    Sun,
    /// Recordings played back.
    Playback,
    /// A card read back.
    Card,
    /// Firmware looked at.
    Firmware,
    /// The password changed.
    Password,
    /// A battery changed.
    Battery,
    /// Joints, lanyard and mount looked at.
    Joints,
}

/// What is due at a site on a day. Without a year of the sun no sun weeks are told.
///
/// # Errors
/// What is no day.
pub fn due(session: &Session, on: &str, sun: Option<&SunYear>) -> Result<Due, Fault> {
    let on: Date = on.parse().map_err(|_| Fault::new("on", format!("\"{on}\" is no day such as 2027-05-30")))?;
    let file = session.site().file();
    let steps = all_steps(file)?;
    let kept = Kept { file, on, rules: file.rules.proving };
    let (mut items, mut not_begun, mut first) = (vec![], vec![], None::<Date>);
    for camera in file.cameras.iter().filter(|camera| !camera.goes()) {
        let Some(begins) = begins(file, camera, &steps) else {
            not_begun.push(camera.id.clone());
            continue;
        };
        first = Some(first.map_or(begins, |first| first.min(begins)));
        items.extend(kept.camera(camera, begins));
    }
    if let Some(begins) = first {
        items.extend(kept.recorders(begins));
        items.extend(kept.leaves(session, begins));
    }
    if let Some(sun) = sun {
        let begun =
            |head: &&Head| !not_begun.iter().any(|id| id == head.camera_id()) && !session.site().goes(head.camera_id());
        items.extend(session.site().heads().iter().filter(begun).filter_map(|head| kept.sun(session, head, sun)));
    }
    items.sort_by(|a, b| (&a.due, a.kind, &a.of).cmp(&(&b.due, b.kind, &b.of)));
    let now = in_walking_order(file, &items, &on.to_string());
    Ok(Due { on: on.to_string(), now, not_begun, cautions: cautions(), items })
}

fn cautions() -> Vec<String> {
    [
        "Footed ladder or platform, a second person at its foot; not in wind, rain or near bare wires.",
        "Power off before a housing is opened. Trees near lines are for who is licensed for it.",
        "Local codes and licensed practice decide.",
    ]
    .map(str::to_owned)
    .to_vec()
}

/// When a camera's upkeep begins: with the first picture that is kept of it, else when it was closed.
fn begins(file: &SiteFile, camera: &CameraFile, steps: &[Steps]) -> Option<Date> {
    let kept = file.snapshots.iter().filter(|snapshot| snapshot.camera == camera.id);
    let first = kept.filter_map(|snapshot| day_of(&snapshot.at)).min();
    let closed = || {
        let closed = steps.iter().any(|one| one.camera == camera.id && one.state == FitState::Closed);
        let done = camera.fitting.iter().flat_map(|fitting| &fitting.done);
        done.filter_map(|step| day_of(step.at.as_deref()?)).max().filter(|_| closed)
    };
    first.or_else(closed)
}

fn day_of(time: &str) -> Option<Date> {
    let at: jiff::Timestamp = time.parse().ok()?;
    Some(jiff::tz::TimeZone::UTC.to_datetime(at).date())
}

/// A site that is kept, and the day that is asked about.
struct Kept<'a> {
    file: &'a SiteFile,
    on: Date,
    rules: ProvingRules,
}

impl Kept<'_> {
    /// The last day on which something was done.
    fn last(&self, id: &str) -> Option<Date> {
        let done = self.file.visits.iter().filter_map(|visit| Some((visit.date.parse::<Date>().ok()?, visit)));
        done.filter(|(_, visit)| visit.done.iter().any(|one| one.id == id && one.how != StepHow::Later))
            .map(|(date, _)| date)
            .max()
    }

    fn item(&self, kind: DueKind, of: (&str, &str, Point2), says: String, why: String, due: Date) -> DueItem {
        let id = id_of(kind, of.0);
        DueItem {
            last: self.last(&id).map(|date| date.to_string()),
            id,
            kind,
            of: of.0.to_owned(),
            name: of.1.to_owned(),
            at: of.2,
            says,
            why,
            overdue: due < self.on,
            due: due.to_string(),
        }
    }

    /// Something that comes back every so many months.
    fn again(&self, kind: DueKind, of: (&str, &str, Point2), says: String, months: f64, begins: Date) -> DueItem {
        let last = self.last(&id_of(kind, of.0)).unwrap_or(begins).max(begins);
        let why = format!("every {} {}", months, if months == 1.0 { "month" } else { "months" });
        self.item(kind, of, says, why, after(last, months))
    }

    fn camera(&self, camera: &CameraFile, begins: Date) -> Vec<DueItem> {
        let (rules, name) = (&self.rules, &camera.name);
        let facts = SpotFacts::of(self.file, camera);
        let of = (camera.id.as_str(), name.as_str(), camera.position);
        let yard = self.file.brief.as_ref().and_then(|brief| brief.kind) == Some(SiteKind::Yard);
        let dust = match (facts.outdoor, yard) {
            (false, _) => INDOORS,
            (true, true) => IN_A_YARD,
            (true, false) => 1.0,
        };
        let again = |kind, says: String, months: f64| self.again(kind, of, says, months, begins);
        let mut items = vec![self.pictures(camera, begins)];
        items.push(again(
            DueKind::Cover,
            format!("Clean the cover of {name}: soft cloth, no solvent"),
            rules.cover_months * dust,
        ));
        items.push(again(
            DueKind::Firmware,
            format!("{name}: is its firmware still kept up? Note it"),
            rules.firmware_months,
        ));
        items.push(again(
            DueKind::Password,
            format!("{name}: change its password; it is noted nowhere here"),
            rules.password_months,
        ));
        let joints = if facts.outdoor { "joints, seals, lanyard and mount" } else { "lanyard and mount" };
        items.push(again(DueKind::Joints, format!("{name}: look at {joints}"), rules.joints_months));
        if camera.model.card_gb.unwrap_or(0) > 0 {
            items.push(again(DueKind::Card, format!("{name}: play its card back"), rules.playback_months));
        }
        if let Some(months) = camera.power.and_then(|power| power.battery_months) {
            items.push(again(DueKind::Battery, format!("{name}: change its battery"), months));
        }
        items
    }

    /// Pictures are held against the reference; the last one that was kept counts as done.
    fn pictures(&self, camera: &CameraFile, begins: Date) -> DueItem {
        let own = |snapshot: &&Snapshot| snapshot.camera == camera.id;
        let taken = self.file.snapshots.iter().filter(own).filter_map(|snapshot| day_of(&snapshot.at)).max();
        let of = (camera.id.as_str(), camera.name.as_str(), camera.position);
        let says = format!("{}: take its picture by day and by night, and compare it with the reference", camera.name);
        self.again(DueKind::Pictures, of, says, self.rules.pictures_months, taken.unwrap_or(begins).max(begins))
    }

    fn recorders(&self, begins: Date) -> Vec<DueItem> {
        let days = self.file.brief.as_ref().and_then(|brief| brief.retention_days);
        let promised = days.map_or_else(|| "the days promised".to_owned(), |days| format!("{days} days promised"));
        let nodes = self.file.network.iter().flat_map(|network| &network.nodes);
        let recorders = nodes.filter(|node| node.kind == NodeKind::Recorder);
        recorders
            .map(|node| {
                let says = format!(
                    "{}: play back and export one recording of each camera; oldest recording against {promised}",
                    node.name
                );
                let of = (node.id.as_str(), node.name.as_str(), node.position);
                self.again(DueKind::Playback, of, says, self.rules.playback_months, begins)
            })
            .collect()
    }

    /// Trees that stand in or near a sight line that keeps a promise, by the months in which leaves grow there.
    fn leaves(&self, session: &Session, begins: Date) -> Vec<DueItem> {
        let south = self.file.place.as_ref().is_some_and(|place| place.latitude_deg < 0.0);
        let months = LEAF_MONTHS.map(|month| if south { (month + 5) % 12 + 1 } else { month });
        let trees = self.file.obstacles.iter().filter(|obstacle| obstacle.kind == ObstacleKind::Tree);
        let near = trees.filter_map(|tree| {
            let names = near_lines(session, tree);
            if names.is_empty() {
                return None;
            }
            let middle = tree.outline.iter().fold(DVec2::ZERO, |sum, corner| sum + DVec2::from_array(*corner))
                / tree.outline.len() as f64;
            let of = (tree.id.as_str(), tree.name.as_str(), middle.to_array());
            let from = self.last(&id_of(DueKind::Leaves, &tree.id)).unwrap_or(begins).max(begins);
            let due = next_of(months, from)?;
            let says = format!("{}: cut back what stands before {}", tree.name, names.join(", "));
            Some(self.item(DueKind::Leaves, of, says, "twice in the growing season".to_owned(), due))
        });
        near.collect()
    }

    /// The next season in which the sun stands in a head's picture.
    fn sun(&self, session: &Session, head: &Head, sun: &SunYear) -> Option<DueItem> {
        let camera = &self.file.cameras[head.camera()];
        let eye = eye_around(session.site(), head);
        let minutes = sun_of_head(head, &eye, session.site(), sun, &[], SUN_EVERY).in_picture;
        let id = [head.camera_id(), head.id()].into_iter().chain(head.view_id()).collect::<Vec<_>>().join(".");
        let last = self.last(&id_of(DueKind::Sun, &id));
        let year = sun.year();
        let seasons = seasons(minutes.iter().map(|up| up.minute / DAY_MIN));
        let date = |day: u32| Date::new(i16::try_from(year).ok()?, 1, 1).ok()?.checked_add((day as i64).days()).ok();
        let (from, to) = seasons
            .into_iter()
            .filter_map(|(from, to)| Some((date(from)?, date(to)?)))
            .find(|(from, to)| *to >= self.on && last.is_none_or(|last| last < *from))?;
        let several = camera.heads.len() > 1 || head.view_id().is_some();
        let name = if several {
            format!("{} {}", camera.name, head.view_id().unwrap_or(head.id()))
        } else {
            camera.name.clone()
        };
        let says = format!("{name}: the sun stands in its picture until {to}; look whether it blinds");
        let of = (id.as_str(), camera.name.as_str(), camera.position);
        Some(self.item(DueKind::Sun, of, says, "when the sun comes into the picture".to_owned(), from))
    }
}

/// The id of something due: the same at every visit.
fn id_of(kind: DueKind, of: &str) -> String {
    let word = match kind {
        DueKind::Pictures => "pictures",
        DueKind::Cover => "cover",
        DueKind::Leaves => "leaves",
        DueKind::Sun => "sun",
        DueKind::Playback => "playback",
        DueKind::Card => "card",
        DueKind::Firmware => "firmware",
        DueKind::Password => "password",
        DueKind::Battery => "battery",
        DueKind::Joints => "joints",
    };
    let id = format!("{word}.{of}");
    id.chars().take(64).collect()
}

/// So many months later; parts of a month are days of thirty.
fn after(date: Date, months: f64) -> Date {
    let span = Span::new().months(months.trunc() as i64).days((months.fract() * 30.0).round() as i64);
    date.checked_add(span).unwrap_or(date)
}

/// The next first of one of these months after a day.
fn next_of(months: [i8; 2], after: Date) -> Option<Date> {
    let years = [after.year(), after.year() + 1];
    let dates = years.into_iter().flat_map(|year| months.map(|month| Date::new(year, month, 1).ok()));
    dates.flatten().filter(|date| *date > after).min()
}

/// Days in order, put together to seasons.
fn seasons(days: impl Iterator<Item = u32>) -> Vec<(u32, u32)> {
    let mut seasons: Vec<(u32, u32)> = vec![];
    for day in days {
        match seasons.last_mut() {
            Some((_, to)) if day <= *to + SEASON_APART_DAYS => *to = day.max(*to),
            _ => seasons.push((day, day)),
        }
    }
    seasons
}

/// The promises whose best sight line passes so near to a tree, and not high above it.
fn near_lines(session: &Session, tree: &Obstacle) -> Vec<String> {
    let around = Polygon::new(LineString::from_iter(tree.outline.iter().copied()), vec![]);
    let top = tree.ground_m + tree.top_m + TREE_NEAR_M;
    let site = session.site();
    let mut names = vec![];
    for ((target, file), result) in site.targets().iter().zip(&site.file().targets).zip(session.results()) {
        let Some(head) = result.best.as_ref().and_then(|best| site.view(best).ok()) else { continue };
        let from = head.position();
        let near = |sample: &DVec3| {
            let line = Line::new((from.x, from.y), (sample.x, sample.y));
            from.z.min(sample.z) <= top && Euclidean.distance(&line, &around) <= TREE_NEAR_M
        };
        if target.samples.iter().any(near) {
            names.push(file.name.clone());
        }
    }
    names
}

/// What is due by a day, place after place on a short way from the recorder, else from the first of them.
fn in_walking_order(file: &SiteFile, items: &[DueItem], on: &str) -> Vec<String> {
    let due: Vec<&DueItem> = items.iter().filter(|item| item.due.as_str() <= on).collect();
    let mut places: Vec<Point2> = vec![];
    for item in &due {
        if !places.contains(&item.at) {
            places.push(item.at);
        }
    }
    let recorder = file.network.iter().flat_map(|network| &network.nodes).find(|node| node.kind == NodeKind::Recorder);
    let from = recorder.map(|node| node.position).or_else(|| places.first().copied()).unwrap_or_default();
    let at: Vec<DVec2> = places.iter().map(|place| DVec2::from_array(*place)).collect();
    let order = shortest_walk(DVec2::from_array(from), &at);
    let of = |place: &usize| {
        due.iter().filter(|item| item.at == places[*place]).map(|item| item.id.clone()).collect::<Vec<_>>()
    };
    order.iter().flat_map(of).collect()
}
