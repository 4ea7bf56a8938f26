//! Why a place is seen or not, head by head.

use crate::file::{Conditions, Fault, HeadRef};
use crate::judge::evaluation::eye_around;
use crate::math::Separation;
use crate::scene::{Eye, Scene};
use crate::site::{Head, Site};
use crate::words::units::Units;
use glam::{DVec2, DVec3};
use serde::Serialize;
use utoipa::ToSchema;

/// What a head makes of a place.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Reason {
    /// It sees it well enough.
    Seen,
    /// It sees it well enough, but looks elsewhere in between.
    InTurns,
    /// It would see it well enough, but by night it is too dark there.
    TooDark,
    /// It sees it, with too few pixels.
    TooFar,
    /// Something stands in the way.
    Behind,
    /// It lies under the camera, below its picture.
    Under,
    /// It lies out of its picture.
    OutOfPicture,
}

/// A side of a picture.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Edge {
    /// Left of it.
    Left,
    /// Right of it.
    Right,
    /// Above it.
    Above,
    /// Below it.
    Below,
    /// Behind the camera.
    Back,
}

/// What one head makes of a place, and why.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Told {
    /// The head.
    pub head: HeadRef,
    /// What it makes of it.
    pub reason: Reason,
    /// Out of the picture: on which side.
    #[schema(required)]
    pub side: Option<Edge>,
    /// … and by how many degrees.
    #[schema(required)]
    pub by_deg: Option<f64>,
    /// In the way: the ids of what the line meets, the nearest first.
    pub behind: Vec<String>,
    /// Whether leaves decide: with the other state of the trees (on or off) it would be the other way.
    pub leaves_decide: bool,
    /// Density there, px/m; null out of the picture.
    #[schema(required)]
    pub px_per_m: Option<f64>,
    /// How long it looks elsewhere, s; null for a head that never does.
    #[schema(required)]
    pub gap_s: Option<f64>,
    /// Slant distance, m.
    pub slant_m: f64,
    /// All of it in words.
    pub says: String,
}

/// Why a place is seen or not.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Why {
    /// The place, m east and north.
    pub at: [f64; 2],
    /// The height that was looked at, m.
    pub height_m: f64,
    /// The need, px/m.
    pub need_px_per_m: f64,
    /// The id of the solid that the place lies inside of, where nobody can stand.
    #[schema(required)]
    pub inside: Option<String>,
    /// How many cameras see it well enough and never look away.
    pub cameras: usize,
    /// What each head makes of it, those that come nearest to seeing it first.
    pub heads: Vec<Told>,
}

/// Tells of each head why it sees a place at a height well enough for a need, or does not.
///
/// # Errors
/// A place or a height that is none.
pub fn why(site: &Site, at: [f64; 2], height_m: f64, need: f64, units: Units) -> Result<Why, Fault> {
    let fits = at.iter().all(|axis| axis.abs() <= 1e6) && (-100.0..=500.0).contains(&height_m);
    if !fits || !(0.1..=100_000.0).contains(&need) {
        return Err(Fault::new("at", "is no place of a site, or no need"));
    }
    let point = DVec2::from_array(at).extend(height_m);
    let other_season = other_season(site);
    let looked: Vec<(&Head, Told)> =
        site.heads().iter().map(|head| (head, tell(site, head, other_season.as_ref(), point, need, units))).collect();
    let mut steady: Vec<usize> =
        looked.iter().filter(|(_, told)| told.reason == Reason::Seen).map(|(head, _)| head.camera()).collect();
    steady.sort_unstable();
    steady.dedup();
    let mut heads: Vec<Told> = looked.into_iter().map(|(_, told)| told).collect();
    heads.sort_by(|a, b| a.reason.cmp(&b.reason).then(a.slant_m.total_cmp(&b.slant_m)));
    let inside = site.scene().solid_around(point).map(|solid| solid.id().to_owned());
    Ok(Why { at, height_m, need_px_per_m: need, inside, cameras: steady.len(), heads })
}

/// The scene with the leaves the other way, where any tree loses them.
fn other_season(site: &Site) -> Option<Scene> {
    let loses = site.file().obstacles.iter().any(|obstacle| obstacle.bare_see_through.is_some());
    let now = site.file().conditions;
    loses.then(|| site.scene_under(&Conditions { leaves_off: !now.leaves_off, ..now }))
}

fn tell(site: &Site, head: &Head, other_season: Option<&Scene>, point: DVec3, need: f64, units: Units) -> Told {
    let look = head.look(point);
    let eye = eye_around(site, head);
    let apart = Separation::between(head.position(), point, || head.view().heading());
    let mut told = Told {
        head: head.name(),
        reason: Reason::Seen,
        side: None,
        by_deg: None,
        behind: vec![],
        leaves_decide: false,
        px_per_m: look.filter(|look| look.in_view).map(|look| look.across),
        gap_s: head.gap_s(),
        slant_m: apart.slant(),
        says: String::new(),
    };
    if let Some(density) = told.px_per_m {
        told.behind = in_the_way(site.scene(), &eye, point);
        let blocked = eye.is_blocked(site.scene(), point);
        let other = other_season.is_some_and(|scene| {
            Eye::new(scene, head.position(), head.mounted_on()).is_blocked(scene, point) != blocked
        });
        told.reason = match (blocked, density >= need) {
            (true, _) => Reason::Behind,
            (false, false) => Reason::TooFar,
            (false, true) if is_dark(site, head, point) => Reason::TooDark,
            (false, true) if head.gap_s().is_some_and(|gap| gap > 0.0) => Reason::InTurns,
            (false, true) => Reason::Seen,
        };
        told.leaves_decide = other && density >= need;
    } else {
        let (side, by_deg) = off_the_picture(head, point);
        // Close under the camera it lies below the picture, whatever the picture's turn.
        let under = apart.depression() > head.tilt() && apart.ground < apart.drop;
        (told.side, told.by_deg) = (Some(side), by_deg);
        told.reason = if under && side != Edge::Above { Reason::Under } else { Reason::OutOfPicture };
    }
    told.says = says(site, head, &told, need, units);
    told
}

/// Whether the site is judged by night, and a head has not light enough at a point.
fn is_dark(site: &Site, head: &Head, point: DVec3) -> bool {
    let enough = || head.light().is_enough(head.position(), point, site.scene(), site.lamps());
    site.file().conditions.night && !enough()
}

/// The ids of what blocks on the line to a point, the nearest first.
fn in_the_way(scene: &Scene, eye: &Eye, point: DVec3) -> Vec<String> {
    let from = eye.from();
    let mut hits: Vec<(f64, &str)> = scene
        .solids()
        .iter()
        .filter(|solid| solid.blocks())
        .filter_map(|solid| Some((solid.first_hit(from, point)?, solid.id())))
        .collect();
    if hits.is_empty() {
        hits.extend(eye.first_blocker(scene, point).map(|solid| (0.0, solid.id())));
    }
    hits.sort_by(|a, b| a.0.total_cmp(&b.0));
    let mut ids: Vec<String> = Vec::new();
    for (_, id) in hits {
        if !ids.iter().any(|known| known == id) {
            ids.push(id.to_owned());
        }
    }
    ids
}

/// On which side of the picture a point lies, and how far off it as an angle, degrees: to the nearest place of the picture's border.
fn off_the_picture(head: &Head, point: DVec3) -> (Edge, Option<f64>) {
    let view = head.view();
    let direction = view.pose.to_camera(point - head.position()).normalize_or_zero();
    let size = view.projection.size();
    let Some(pixel) = view.projection.project(direction).filter(|_| direction.z > 0.0) else {
        // Behind the camera, as a person would say it.
        return (Edge::Back, None);
    };
    let from_centre = pixel - size / 2.0;
    let nearest = size / 2.0
        + from_centre.clamp(-size / 2.0, size / 2.0).clamp_length_max(view.projection.circle().min(size.length()));
    let by = view.projection.unproject(nearest).map(|border| border.angle_between(direction).to_degrees());
    let past = from_centre.abs() - size / 2.0;
    let side = match (past.x > past.y, from_centre.x > 0.0, from_centre.y > 0.0) {
        (true, true, _) => Edge::Right,
        (true, false, _) => Edge::Left,
        (false, _, true) => Edge::Below,
        (false, _, false) => Edge::Above,
    };
    (side, by)
}

/// The farthest that a head has a need, about: its range on the axis, m.
fn range(head: &Head, need: f64) -> f64 {
    head.view().projection.focal_px() / need
}

fn says(site: &Site, head: &Head, told: &Told, need: f64, units: Units) -> String {
    let name = |id: &String| {
        let obstacle = site.file().obstacles.iter().find(|obstacle| &obstacle.id == id);
        obstacle.map_or_else(|| id.clone(), |obstacle| obstacle.name.clone())
    };
    let leaves_off = site.file().conditions.leaves_off;
    let season = match (told.leaves_decide, leaves_off, told.reason) {
        (true, true, Reason::Behind) => "; free when the leaves are on",
        (true, true, _) => ", only until the leaves come",
        (true, false, Reason::Behind) => "; free once the leaves are off",
        (true, false, _) => ", only while the leaves are on",
        (false, ..) => "",
    };
    let density = told.px_per_m.unwrap_or(0.0);
    match told.reason {
        Reason::Seen => format!("sees it with {density:.0} px/m{season}"),
        Reason::InTurns => {
            let gap = told.gap_s.unwrap_or(0.0);
            format!("sees it with {density:.0} px/m by PTZ tour, elsewhere for {gap:.0} s{season}")
        }
        Reason::TooDark => format!("{density:.0} px/m, but too dark there by night"),
        Reason::TooFar => format!(
            "{density:.0} px/m at {}, {need:.0} wanted: it reaches about {}",
            units.length(told.slant_m),
            units.length(range(head, need))
        ),
        Reason::Behind => {
            let names: Vec<String> = told.behind.iter().take(3).map(name).collect();
            format!(
                "behind {}{season}",
                if names.is_empty() { "see-through things in a row".to_owned() } else { names.join(" and ") }
            )
        }
        Reason::Under => "under the camera, below its picture".to_owned(),
        Reason::OutOfPicture => match (told.side, told.by_deg) {
            (Some(Edge::Back) | None, _) => "behind the camera's back".to_owned(),
            (Some(side), by) => {
                let side = match side {
                    Edge::Left => "left of",
                    Edge::Right => "right of",
                    Edge::Above => "above",
                    Edge::Below | Edge::Back => "below",
                };
                by.map_or_else(|| format!("{side} its picture"), |by| format!("{by:.0}° {side} its picture"))
            }
        },
    }
}
