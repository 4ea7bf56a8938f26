//! The light of a night: what lamps and infrared light give at each target, and what of a head's picture washes out (handbook, section 9).

use crate::file::{Fault, Form, HeadRef};
use crate::judge::Session;
use crate::light::infrared::Beam;
use crate::light::lux_upright;
use crate::scene::Eye;
use crate::site::ray::{Met, ray};
use crate::site::{Head, Site};
use glam::{DVec2, DVec3};
use serde::Serialize;
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// The rays that a picture is judged by: columns and rows, each in the middle of its share of the picture.
const COLUMNS: usize = 48;
const ROWS: usize = 30;
/// A bubble throws infrared light back that meets something nearer than this in the beam, m (handbook, section 6; our default).
const BUBBLE_M: f64 = 1.0;
/// The directions around the axis in which that is looked for.
const AROUND: usize = 16;

/// The light of a site by night.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LightTold {
    /// Each target that lies before a head.
    pub targets: Vec<LitTarget>,
    /// Each head with infrared light and each target before it.
    pub infrared: Vec<InfraredOn>,
    /// What washes out in the picture of each head with infrared light that serves some target best.
    pub washed: Vec<Washed>,
    /// Each head that has lamps in its picture, or so near to it that they spoil it.
    pub spoiled: Vec<Spoiled>,
    /// Lamps that are drawn inside of a solid: their light goes nowhere.
    pub buried: Vec<Buried>,
}

/// The light of lamps on a target.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct LitTarget {
    /// The target's id.
    pub target: String,
    /// The place that decides, metres east and north.
    pub at: [f64; 2],
    /// The light there on an upright surface that faces the camera of its best head, lux.
    pub lux_upright: f64,
    /// The lamps that it comes from.
    pub lamps: Vec<String>,
}

/// The infrared light of a head on a target.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct InfraredOn {
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// The target's id.
    pub target: String,
    /// How much of what its rated range stands for: (R/s)²·cosᵐθ.
    pub relative: f64,
    /// The same in stops over 1; null where there is none.
    #[schema(required)]
    pub stops: Option<f64>,
}

/// What of a head's picture is more stops over what its target gets than it bears.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Washed {
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// The id of the preset or flattened view; null for its own aim.
    #[schema(required)]
    pub view: Option<String>,
    /// The target that it must be exposed for.
    pub target: String,
    /// The share of the picture, 0 to 1.
    pub share: f64,
    /// What does it, the most first.
    pub by: Vec<WashedBy>,
    /// The id of what throws light back into the bubble; null for a build without one, and where nothing comes near.
    #[schema(required)]
    pub bubble: Option<String>,
}

/// Something that throws infrared light back.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct WashedBy {
    /// The obstacle's id; null for the ground.
    #[schema(required)]
    pub obstacle: Option<String>,
    /// The share of the picture, 0 to 1.
    pub share: f64,
    /// By how many stops it is over the target at most.
    pub stops: f64,
    /// How near it comes, m.
    pub nearest_m: f64,
}

/// Lamps in or near a head's picture.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Spoiled {
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// The id of the preset or flattened view; null for its own aim.
    #[schema(required)]
    pub view: Option<String>,
    /// The lamp's id.
    pub lamp: String,
    /// How far outside of the picture it stands, degrees; zero in it.
    pub off_deg: f64,
}

/// A lamp inside of a solid.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Buried {
    /// The lamp's id.
    pub lamp: String,
    /// The obstacle's id.
    pub inside: String,
}

/// The light of a site by night, whether it is judged by night or not.
pub fn light_told(session: &Session) -> LightTold {
    let site = session.site();
    let eyes = crate::judge::evaluation::eyes(site);
    let heads = || site.heads().iter().map(|head| (head, &eyes[head.camera()]));
    LightTold {
        targets: lit_targets(session),
        infrared: infrared(session),
        washed: heads().filter_map(|(head, eye)| washed(session, head, eye)).collect(),
        spoiled: heads().flat_map(|(head, eye)| spoiled(site, head, eye)).collect(),
        buried: site
            .lamps()
            .iter()
            .filter_map(|lamp| Some(Buried { lamp: lamp.id.clone(), inside: lamp.inside.clone()? }))
            .collect(),
    }
}

/// Where the sight line of a head's view to a target is decided.
fn decided_at(session: &Session, head: usize, target: usize) -> Option<DVec3> {
    session.views()[head].targets[target].deciding.map(|deciding| deciding.point)
}

fn lit_targets(session: &Session) -> Vec<LitTarget> {
    let site = session.site();
    let lit = session.results().iter().enumerate().filter_map(|(place, result)| {
        let best = result.best.as_ref()?;
        let head = site.heads().iter().position(|head| head.name() == *best)?;
        let point = decided_at(session, head, place)?;
        let (lux, lamps) = lux_upright(site.lamps(), site.scene(), point, site.heads()[head].position());
        Some(LitTarget { target: result.target.clone(), at: [point.x, point.y], lux_upright: lux, lamps })
    });
    lit.collect()
}

fn infrared(session: &Session) -> Vec<InfraredOn> {
    let site = session.site();
    let lit = site.heads().iter().enumerate().filter_map(|(place, head)| Some((place, head, head.light().beam?)));
    lit.flat_map(|(place, head, beam)| {
        let targets = site.targets().iter().enumerate();
        targets.filter_map(move |(target, file)| {
            let relative = beam.at(decided_at(session, place, target)?);
            Some(InfraredOn {
                camera: head.camera_id().to_owned(),
                head: head.id().to_owned(),
                target: file.id.clone(),
                relative,
                stops: (relative > 0.0).then(|| relative.log2()),
            })
        })
    })
    .collect()
}

/// The target that a head must be exposed for, of those that it serves best that which gets least of its light, with that light.
fn exposed_for(session: &Session, head: &Head, beam: &Beam) -> Option<(usize, f64)> {
    let site = session.site();
    let name = head.name();
    let place = site.heads().iter().position(|known| known.name() == name)?;
    let results = session.results().iter().enumerate();
    let served = results.filter(|(_, result)| result.best.as_ref() == Some(&name)).map(|(target, _)| target);
    let light = served.filter_map(|target| {
        let at = decided_at(session, place, target)?;
        Some((target, beam.at(at) * thrown_back(site, head, target, at)))
    });
    light.filter(|(_, light)| *light > 0.0).min_by(|a, b| a.1.total_cmp(&b.1))
}

fn washed(session: &Session, head: &Head, eye: &Eye) -> Option<Washed> {
    let (target, light) = exposed_for(session, head, &head.light().beam?)?;
    Some(washed_at(session.site(), head, eye, target, light))
}

/// How many times brighter than paint a target at a point comes back.
fn thrown_back(site: &Site, head: &Head, target: usize, at: DVec3) -> f64 {
    let reflecting = site.targets()[target].is_reflecting;
    if reflecting { head.light().thrown_back(head.position(), at, site.rules().retro_times) } else { 1.0 }
}

/// What washes out in the picture of a head, perhaps another than the site's, that is exposed for a target: its place among the site's,
/// and where it stands.
pub(crate) fn washed_for(session: &Session, head: &Head, eye: &Eye, target: usize, at: DVec3) -> Option<Washed> {
    let site = session.site();
    let light = head.light().beam?.at(at) * thrown_back(site, head, target, at);
    (light > 0.0).then(|| washed_at(site, head, eye, target, light))
}

/// The target that a head of the site must be exposed for, and where it stands.
pub(crate) fn exposed_target(session: &Session, name: &HeadRef) -> Result<Option<(usize, DVec3)>, Fault> {
    let site = session.site();
    let place = site.view_place(&name.camera, &name.head, name.view.as_deref())?;
    let head = &site.heads()[place];
    let Some(beam) = head.light().beam else { return Ok(None) };
    let found = exposed_for(session, head, &beam);
    Ok(found.and_then(|(target, _)| Some((target, decided_at(session, place, target)?))))
}

fn washed_at(site: &Site, head: &Head, eye: &Eye, target: usize, light: f64) -> Washed {
    let beam = head.light().beam;
    let size = head.view().projection.size();
    let limit = site.rules().washed_out_stops;
    let mut by: BTreeMap<Option<usize>, (u32, f64, f64)> = BTreeMap::new();
    let mut all = 0_u32;
    for row in 0..ROWS {
        for column in 0..COLUMNS {
            let place = DVec2::new((column as f64 + 0.5) / COLUMNS as f64, (row as f64 + 0.5) / ROWS as f64);
            let Some(ray) = ray(head, eye, site.scene(), place * size) else { continue };
            all += 1;
            let far = ray.distance.min(1e4);
            let pane = site.scene().has_see_through().then(|| {
                let panes = site.scene().passed_at(ray.from, ray.from + ray.direction * far);
                panes.into_iter().min_by(|a, b| a.0.total_cmp(&b.0))
            });
            let (distance, what) = match (pane.flatten(), ray.met) {
                (Some((share, pane)), _) => (share * far, Some(pane)),
                (None, Met::Obstacle(_)) => (ray.distance, ray.solid),
                (None, Met::Ground) => (ray.distance, None),
                (None, Met::Sky) => continue,
            };
            let own = beam.map_or(0.0, |beam| beam.at(ray.from + ray.direction * distance));
            let stops = (own / light).log2();
            if stops > limit {
                let (count, most, nearest) = by.entry(what).or_insert((0, stops, distance));
                (*count, *most, *nearest) = (*count + 1, most.max(stops), nearest.min(distance));
            }
        }
    }
    let share = |count: u32| f64::from(count) / f64::from(all.max(1));
    let id = |what: Option<usize>| what.map(|place| site.scene().solids()[place].id().to_owned());
    // A tree is two solids of one name.
    let mut named: Vec<WashedBy> = Vec::new();
    for (what, (count, stops, nearest_m)) in by {
        let own = WashedBy { obstacle: id(what), share: share(count), stops, nearest_m };
        match named.iter_mut().find(|known| known.obstacle == own.obstacle) {
            Some(known) => {
                known.share += own.share;
                known.stops = known.stops.max(own.stops);
                known.nearest_m = known.nearest_m.min(own.nearest_m);
            }
            None => named.push(own),
        }
    }
    named.sort_by(|a, b| b.share.total_cmp(&a.share));
    Washed {
        camera: head.camera_id().to_owned(),
        head: head.id().to_owned(),
        view: head.view_id().map(str::to_owned),
        target: site.targets()[target].id.clone(),
        share: named.iter().map(|by| by.share).fold(0.0, |sum, share| sum + share),
        by: named,
        bubble: bubble(site, head, eye),
    }
}

/// What stands so near in the beam of a head under a bubble that it comes back into that.
fn bubble(site: &Site, head: &Head, eye: &Eye) -> Option<String> {
    let own = matches!(head.mounting().form, Form::Dome | Form::VandalDome | Form::MultiHead | Form::Ptz);
    let beam = head.light().beam?;
    if !own || beam.from != head.position() {
        return None;
    }
    let half = beam.edge;
    let right = head.view().pose.right;
    let down = head.view().pose.down;
    let around = (0..AROUND).map(|i| (i as f64 / AROUND as f64 * std::f64::consts::TAU).sin_cos());
    let mut nearest: Option<(f64, usize)> = None;
    for (sin, cos) in around {
        for part in [0.35, 0.7, 1.0] {
            let angle = half.min(1.5) * part;
            let way = beam.axis * angle.cos() + (right * cos + down * sin) * angle.sin();
            let to = eye.from() + way * BUBBLE_M;
            if let Some((share, place)) = eye.first_solid(site.scene(), to)
                && nearest.is_none_or(|(so_far, _)| share < so_far)
            {
                nearest = Some((share, place));
            }
        }
    }
    nearest.map(|(_, place)| site.scene().solids()[place].id().to_owned())
}

/// Lamps in a head's picture, or nearer to its edge than they may be.
fn spoiled(site: &Site, head: &Head, eye: &Eye) -> Vec<Spoiled> {
    let lit = site.lamps().iter().filter(|lamp| lamp.candela > 0.0 && lamp.inside.is_none());
    let near = lit.filter_map(|lamp| {
        let off_deg = off_picture_deg(head, lamp.from)?;
        let near = off_deg <= site.rules().lamp_near_deg && !eye.is_blocked(site.scene(), lamp.from);
        near.then(|| Spoiled {
            camera: head.camera_id().to_owned(),
            head: head.id().to_owned(),
            view: head.view_id().map(str::to_owned),
            lamp: lamp.id.clone(),
            off_deg,
        })
    });
    near.collect()
}

/// How far outside of a head's picture a point stands, degrees: to the nearest of points along its edge; zero in it.
fn off_picture_deg(head: &Head, point: DVec3) -> Option<f64> {
    const STEPS: usize = 24;
    let way = (point - head.position()).try_normalize()?;
    if head.holds_direction(way) {
        return Some(0.0);
    }
    let view = head.view();
    let size = view.projection.size();
    let edge = (0..4 * STEPS).map(|i| {
        let along = (i % STEPS) as f64 / STEPS as f64;
        size * match i / STEPS {
            0 => DVec2::new(along, 0.0),
            1 => DVec2::new(1.0, along),
            2 => DVec2::new(1.0 - along, 1.0),
            _ => DVec2::new(0.0, 1.0 - along),
        }
    });
    let middle = size / 2.0;
    let angles = edge.filter_map(|pixel| {
        // Outside of an image circle the picture ends earlier.
        let held = (0..=STEPS).rev().map(|step| middle.lerp(pixel, step as f64 / STEPS as f64));
        let pixel = held.into_iter().find(|pixel| view.projection.holds(*pixel))?;
        Some(view.pose.to_site(view.projection.unproject(pixel)?).angle_between(way).to_degrees())
    });
    angles.reduce(f64::min)
}
