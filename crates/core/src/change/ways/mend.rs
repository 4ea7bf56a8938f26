//! Ways to mend what light does to a head's picture: infrared light that comes back, and the sun.

use super::change::{Candidate, Change, patch, placed_on};
use super::desk::{Budget, Desk};
use super::picture::{SHADE, tilt_schools};
use super::places::free_spots;
use super::way::{Measures, Way, WayKind};
use super::words;
use crate::file::{CameraFile, Emitter, Fault, Form, HeadRef};
use crate::judge::Session;
use crate::judge::evaluation::eye_around;
use crate::show::coverage::picture_use::{picture_use, task_of};
use crate::show::night::light_told::{exposed_target, washed_for};
use crate::show::sun::sun_told::sun_of_head;
use crate::site::Head;
use crate::sun::SunYear;
use crate::words::units::Units;
use crate::work::Patience;
use glam::DVec2;
use serde::Serialize;
use utoipa::ToSchema;

/// Turns that are tried, degrees to each side and down.
const TURNS_DEG: [f64; 8] = [2.0, 4.0, 6.0, 8.0, 12.0, 16.0, 24.0, 32.0];
/// Moves along the wall that are tried, m, and arms that hold it out from it.
const MOVES_M: [f64; 4] = [1.0, 2.0, 4.0, 6.0];
const ARMS_M: [f64; 3] = [0.3, 0.6, 1.0];
/// A camera that is this near to a wall hangs on it, m.
const NEAR_WALL_M: f64 = 0.5;
/// How many ways of one kind are offered.
const MOST_ALIKE: usize = 2;
/// How far beside the camera a lamp of its own hangs, m.
const ASIDE_M: f64 = 1.5;
/// A way has to take at least this share of it away.
const LEAST_GAIN: f64 = 0.3;
/// How many spots are looked at.
const MOST_SPOTS: usize = 3;
/// Of the sun every so many minutes are looked at while ways are tried.
const EVERY_MIN: usize = 5;

/// What is wrong with a head's picture, and the ways that mend it: those that cost no promise first, then by kind, the least effort
/// first; of a kind those that take most of it away.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Mends {
    /// How much there is of it now: a share of the picture, or hours a year.
    pub now: f64,
    /// The share of the picture that is of use now, 0 to 1.
    pub useful: f64,
    /// The ways.
    pub ways: Vec<Way>,
}

/// A change that is tried, of which kind, with its words.
type Tried = (WayKind, String, CameraFile);

/// What washes out in a head's picture by night, and the ways that mend it: a turn, a move, another build, a lamp of its own.
///
/// # Errors
/// Names the head that the site does not have.
pub fn washed_ways(session: &Session, name: &HeadRef, units: Units) -> Result<Mends, Fault> {
    let budget = Budget::within(&Patience::ENDLESS);
    let desk = Desk::of(session, session.site().view(name)?, 0, &budget);
    let Some((target, at)) = exposed_target(session, name)? else {
        return Ok(Mends { now: 0.0, useful: useful_of(&desk, session, session.site().view(name)?), ways: vec![] });
    };
    // A bubble that light comes back into spoils all of the picture.
    let trouble = |head: &Head| {
        let washed = washed_for(session, head, &eye_around(session.site(), head), target, at);
        washed.map_or(1.0, |washed| if washed.bubble.is_some() { 1.0 } else { washed.share })
    };
    let tried = [
        turns(&desk, units),
        builds(&desk, session)?,
        moves(&desk, units),
        lamps_of_its_own(&desk, units),
        spots(&desk, units),
    ];
    Ok(mends(&desk, session, &tried, trouble))
}

/// How many hours a year the sun stands in a head's picture, and the ways that lessen it: another tilt, a turn, another spot.
///
/// # Errors
/// Names the head that the site does not have.
pub fn sun_ways(session: &Session, name: &HeadRef, year: &SunYear, units: Units) -> Result<Mends, Fault> {
    let budget = Budget::within(&Patience::ENDLESS);
    let desk = Desk::of(session, session.site().view(name)?, 0, &budget);
    let hours = |head: &Head| {
        let site = session.site();
        let found = sun_of_head(head, &eye_around(site, head), site, year, &[], EVERY_MIN);
        found.in_picture.len() as f64 * EVERY_MIN as f64 / 60.0
    };
    let mut found = mends(&desk, session, &[turns(&desk, units), spots(&desk, units)], hours);
    for (name, tilt) in tilt_schools(session.site().view(name)?) {
        let candidate = Candidate {
            head: (desk.head_place, desk.which),
            changes: vec![Change::Aim(desk.head(desk.camera()).pan().deg(), tilt)],
            effort: 0.0,
        };
        let then = candidate.applied(desk.camera());
        let kind = if name == SHADE { WayKind::Shade } else { WayKind::Reach };
        let tried = (kind, format!("{name}: tilt {tilt:.1}° down"), then);
        let left = hours(&desk.head(&tried.2));
        // The price of a school is told also where it takes nothing away.
        found.ways.extend(mend(&desk, session, &tried, f64::INFINITY, left));
    }
    Ok(found)
}

fn useful_of(desk: &Desk, session: &Session, head: &Head) -> f64 {
    let site = desk.site;
    let own = site.heads().iter().find(|known| known.name() == head.name()).unwrap_or(head);
    picture_use(site, head, &eye_around(site, head), task_of(session, own)).useful
}

fn mends(desk: &Desk, session: &Session, kinds: &[Vec<Tried>], trouble: impl Fn(&Head) -> f64) -> Mends {
    let here = desk.head(desk.camera());
    let now = trouble(&here);
    let better = |a: &Way, b: &Way| a.harms.cmp(&b.harms).then(worth(now, b).total_cmp(&worth(now, a)));
    let mut ways: Vec<Way> = Vec::new();
    if now > 0.0 {
        for tried in kinds {
            let mut alike: Vec<Way> = tried
                .iter()
                .filter_map(|tried| mend(desk, session, tried, now, trouble(&desk.head(&tried.2))))
                .collect();
            alike.sort_by(better);
            ways.extend(alike.into_iter().take(MOST_ALIKE));
        }
    }
    // The kinds stand in the order of the effort: a turn of a screw before another place. What costs a promise comes last.
    ways.sort_by_key(|way| way.harms);
    Mends { now, useful: useful_of(desk, session, &here), ways }
}

/// A change as a way, if it takes enough of the trouble and can be built.
fn mend(desk: &Desk, session: &Session, (kind, says, then): &Tried, now: f64, left: f64) -> Option<Way> {
    let head = desk.head(then);
    let at = desk.site.scene().out_of_mounting(head.position(), head.mounted_on());
    if now.is_finite() && left > now * (1.0 - LEAST_GAIN)
        || !desk.can_be_built(then)
        || desk.site.scene().solid_around(at).is_some()
    {
        return None;
    }
    desk.budget.next_search();
    let (rank, effects) = desk.consequences(0.0, then)?;
    let patch = patch(desk.camera_place, desk.camera(), then);
    Some(Way {
        kind: *kind,
        says: says.clone(),
        why: String::new(),
        head: head.name(),
        target: None,
        measures: Measures { left: Some(left), useful: Some(useful_of(desk, session, &head)), reach_m: None },
        patch,
        effects,
        harms: rank.harms(),
    })
}

/// What a way is worth: how much of the trouble it takes, and how much of the picture it leaves of use; each as a share.
fn worth(now: f64, Way { measures, .. }: &Way) -> f64 {
    (now - measures.left.unwrap_or(now)) / now + measures.useful.unwrap_or(0.0)
}

/// A turn to either side, down, or up.
fn turns(desk: &Desk, units: Units) -> Vec<Tried> {
    let aim = desk.camera().heads[desk.head_place].aimed(desk.which);
    let sides = TURNS_DEG
        .into_iter()
        .flat_map(|by| [(by, 0.0), (-by, 0.0), (0.0, by), (0.0, -by), (by, by / 2.0), (-by, by / 2.0)]);
    let aims = sides.map(|(pan, tilt)| (aim.pan_deg + pan, aim.tilt_deg + tilt)).filter(|(_, tilt)| tilt.abs() <= 90.0);
    aims.map(|(pan, tilt)| changed(desk, vec![Change::Aim(pan.rem_euclid(360.0), tilt)], units)).collect()
}

fn changed(desk: &Desk, changes: Vec<Change>, units: Units) -> Tried {
    let candidate = Candidate { head: (desk.head_place, desk.which), changes, effort: 0.0 };
    (WayKind::Aim, words::says(desk, &candidate, units), candidate.applied(desk.camera()))
}

/// Along the wall that it hangs on, to either side, or out from it on an arm; none for one that hangs on nothing.
fn moves(desk: &Desk, units: Units) -> Vec<Tried> {
    let camera = desk.camera();
    let here = DVec2::from_array(camera.position);
    let solids = desk
        .site
        .scene()
        .solids()
        .iter()
        .filter(|solid| solid.base() < camera.height_m && camera.height_m < solid.top() + NEAR_WALL_M);
    let off = |at: DVec2| move |solid: &&crate::scene::Solid| solid.nearest_on_outline(at).distance(at);
    let Some(wall) =
        solids.min_by(|a, b| off(here)(a).total_cmp(&off(here)(b))).filter(|solid| off(here)(solid) < NEAR_WALL_M)
    else {
        return vec![];
    };
    let gap = off(here)(&wall);
    let out =
        (here - wall.nearest_on_outline(here)).normalize_or(desk.head(camera).axis().truncate().normalize_or(DVec2::Y));
    let along = out.perp();
    let name = desk
        .site
        .file()
        .obstacles
        .iter()
        .find(|known| known.id == wall.id())
        .map_or("the wall", |known| known.name.as_str());
    let arms = ARMS_M.into_iter().map(|by| (out * by, format!("Hang it on an arm, {} out", units.length(by))));
    let steps = MOVES_M.into_iter().flat_map(|by| [(along * by, by), (-along * by, by)]);
    let walks = steps.filter(|(step, _)| (off(here + *step)(&wall) - gap).abs() < 0.05);
    let walks = walks.map(|(step, by)| (step, format!("Move it {} along {name}", units.length(by))));
    let moved = arms.chain(walks).map(|(step, says)| {
        let at = here + step;
        let mut then = camera.clone();
        placed_on(&mut then, None);
        then.position = [(at.x * 100.0).round() / 100.0, (at.y * 100.0).round() / 100.0];
        (WayKind::Sideways, says, then)
    });
    moved.collect()
}

/// The same lens in a build without a bubble.
fn builds(desk: &Desk, session: &Session) -> Result<Vec<Tried>, Fault> {
    let now = &desk.camera().model;
    let bubble = matches!(now.form, Form::Dome | Form::VandalDome);
    let same = |model: &crate::file::Model| {
        bubble
            && matches!(model.form, Form::Turret | Form::Bullet)
            && model.sensor == now.sensor
            && model.lens.focal_min_mm == now.lens.focal_min_mm
            && model.infrared_light().is_some()
    };
    let models = session.models()?.into_iter().filter(same);
    Ok(models
        .map(|model| {
            let says = format!("Change to {}: no dome cover that its light comes back into", model.name);
            let mut then = desk.camera().clone();
            then.model = model;
            then.fit_heads();
            (WayKind::Model, says, then)
        })
        .collect())
}

/// Its light switched off in favour of a lamp of its own beside it, to either side.
fn lamps_of_its_own(desk: &Desk, units: Units) -> Vec<Tried> {
    let camera = desk.camera();
    let Some(light) = camera.model.infrared_light().filter(|_| camera.emitter.is_none()) else { return vec![] };
    let head = desk.head(camera);
    let forward = head.axis().truncate().normalize_or(DVec2::Y);
    let right = DVec2::new(forward.y, -forward.x);
    let beam_deg = light.beam_deg.unwrap_or(head.widest_field().deg().min(120.0));
    let sides = [(right, "right"), (-right, "left")];
    let own = sides.map(|(way, word)| {
        let at = DVec2::from_array(camera.position) + way * ASIDE_M;
        let position = [(at.x * 100.0).round() / 100.0, (at.y * 100.0).round() / 100.0];
        let emitter = Emitter {
            position,
            height_m: camera.height_m,
            light: crate::file::Infrared { range_m: light.range_m, beam_deg: Some(beam_deg) },
        };
        let mut then = camera.clone();
        then.emitter = Some(emitter);
        (
            WayKind::Emitter,
            format!("Switch its light off; an infrared lamp of its own {} to the {word}", units.length(ASIDE_M)),
            then,
        )
    });
    own.into_iter().collect()
}

/// Another surveyed spot, aimed at what it serves.
fn spots(desk: &Desk, units: Units) -> Vec<Tried> {
    let here = DVec2::from_array(desk.camera().position);
    let mut free = free_spots(desk.site.file());
    // What a hand can reach is no place for a camera that watches people.
    free.retain(|spot| spot.height_m >= desk.site.rules().mount_min_m);
    let far = |spot: &crate::file::Spot| DVec2::from_array(spot.position).distance(here);
    free.sort_by(|a, b| far(a).total_cmp(&far(b)));
    let name = desk.head(desk.camera()).name();
    let served = desk
        .session
        .results()
        .iter()
        .zip(desk.site.targets())
        .filter(|(result, _)| result.best.as_ref() == Some(&name));
    let points: Vec<glam::DVec3> = served.flat_map(|(_, target)| target.samples.iter().copied()).collect();
    if points.is_empty() {
        return vec![];
    }
    let moved = free.into_iter().take(MOST_SPOTS).map(|spot| {
        let mut then = desk.camera().clone();
        placed_on(&mut then, Some(spot));
        let aim = crate::change::edits::aim_between(then.eye(), &points, 0.0);
        let mut aimed = then.heads[desk.head_place].aimed(desk.which);
        (aimed.pan_deg, aimed.tilt_deg) = (aim.pan_deg, aim.tilt_deg);
        then.heads[desk.head_place].set_aimed(desk.which, aimed);
        (WayKind::Spot, format!("Move it to {}, {} up", spot.name, units.length(then.height_m)), then)
    });
    moved.collect()
}
