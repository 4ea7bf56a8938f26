//! The work in visits: bench before cable before camera, ladder and lift apart, the way between ladders short. Hours are usual ones (ours).

use super::materials::{Material, packing};
use super::shortest_walk::{length, shortest_walk};
use super::spot_facts::SpotFacts;
use super::steps::{FitState, Steps, all_steps};
use crate::file::{Access, CameraFile, Fault, Form, Point2, SiteFile};
use crate::wire::wired::wired;
use glam::DVec2;
use serde::Serialize;
use utoipa::ToSchema;

/// A visit is no longer than this, h.
const DAY_H: f64 = 8.0;
/// On the bench a camera takes so long, h.
const BENCH_H: f64 = 0.4;
/// Moving a ladder or a lift, h, and walking with it, m an hour.
const MOVE_H: f64 = 0.2;
const WALK_M_PER_H: f64 = 1500.0;
/// Pulling cable, m an hour, and both ends of one, h; a box, h.
const PULL_M_PER_H: f64 = 40.0;
const ENDS_H: f64 = 0.4;
const BOX_H: f64 = 0.8;
/// Looking at a camera by night, h.
const NIGHT_H: f64 = 0.25;

/// How long a camera takes at its spot, h.
fn spot_h(form: Form) -> f64 {
    match form {
        Form::Turret | Form::Dome | Form::Bullet => 1.0,
        Form::VandalDome | Form::Fisheye => 1.2,
        Form::Box | Form::Plate => 2.0,
        Form::MultiHead => 2.5,
        Form::Ptz => 3.0,
    }
}

/// What is done on a visit.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Trade {
    /// Cameras on the bench.
    Bench,
    /// Cables and boxes.
    Cable,
    /// Cameras from ladders.
    Ladder,
    /// Cameras from a lift.
    Lift,
    /// Looking again by night.
    Night,
}

impl Trade {
    /// What such a visit is called, and who comes.
    fn words(self) -> (&'static str, &'static str) {
        match self {
            Trade::Bench => ("Bench", "one, indoors"),
            Trade::Cable => ("Cables and boxes", "two; mains by a licensed electrician"),
            Trade::Ladder => ("Cameras, from a ladder", "two: one at the foot of the ladder"),
            Trade::Lift => ("Cameras, from a lift", "two, one with a licence for the lift"),
            Trade::Night => ("By night", "one, with the client"),
        }
    }
}

/// A stop of a visit.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Stop {
    /// The id of a camera, box or cable.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// Where, m; null on the bench.
    #[schema(required, value_type = Option<[f64; 2]>)]
    pub at: Option<Point2>,
    /// How long it takes, h.
    pub hours: f64,
    /// Whether it is a box of the network.
    pub is_box: bool,
    /// Whether it is done.
    pub done: bool,
    /// How far a camera is.
    #[schema(required)]
    pub state: Option<FitState>,
    /// What must be there before, by name.
    pub after: Vec<String>,
}

/// A visit.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Visit {
    /// What is done.
    pub trade: Trade,
    /// What it is called.
    pub name: String,
    /// Who comes.
    pub who: String,
    /// How long it takes, with the way between, h.
    pub hours: f64,
    /// How far one walks between stops, m.
    pub walk_m: f64,
    /// The stops, in order.
    pub stops: Vec<Stop>,
    /// What is packed; for visits to cameras.
    pub packing: Vec<Material>,
}

/// The work.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Days {
    /// The visits, in order.
    pub visits: Vec<Visit>,
    /// All hours.
    pub hours: f64,
    /// All hours of what is done.
    pub done_hours: f64,
}

/// The work of a site in visits.
///
/// # Errors
/// As [`all_steps`].
pub fn days(site: &SiteFile) -> Result<Days, Fault> {
    let cards = all_steps(site)?;
    let mut visits = vec![];
    let cameras: Vec<&CameraFile> = site.cameras.iter().filter(|camera| !camera.goes()).collect();
    let state = |id: &str| cards.iter().find(|card| card.camera == id).map(|card: &Steps| card.state);
    let new: Vec<&CameraFile> =
        cameras.iter().copied().filter(|camera| camera.existing != Some(crate::file::Existing::Stays)).collect();
    let stop = |camera: &CameraFile, hours: f64, done_from: FitState, after: Vec<String>, at: Option<Point2>| Stop {
        id: camera.id.clone(),
        name: camera.name.clone(),
        at,
        hours,
        is_box: false,
        done: state(&camera.id) >= Some(done_from),
        state: state(&camera.id),
        after,
    };
    let bench = new.iter().map(|camera| stop(camera, BENCH_H, FitState::Ready, vec![], None)).collect();
    visits.extend(split(site, Trade::Bench, bench));
    visits.extend(split(site, Trade::Cable, cable_stops(site, &new, &cards)));
    for (trade, lift) in [(Trade::Ladder, false), (Trade::Lift, true)] {
        let of = new.iter().filter(|camera| (SpotFacts::of(site, camera).access() == Access::Lift) == lift);
        let stops = of.map(|camera| {
            let after = vec!["Bench".to_owned(), format!("cable of {}", camera.name)];
            stop(camera, spot_h(camera.model.form), FitState::Closed, after, Some(camera.position))
        });
        visits.extend(split(site, trade, in_order(site, stops.collect())));
    }
    let night = cameras.iter().map(|camera| {
        stop(camera, NIGHT_H, FitState::Closed, vec![format!("{} closed", camera.name)], Some(camera.position))
    });
    // By night nothing is done until somebody says so, and that is the stage of proving.
    let night = night.map(|stop| Stop { done: false, ..stop }).collect();
    visits.extend(split(site, Trade::Night, in_order(site, night)));
    let hours = |done: bool| {
        let stops = visits.iter().flat_map(|visit: &Visit| &visit.stops);
        stops.filter(|stop| !done || stop.done).fold(0.0, |sum, stop| sum + stop.hours)
    };
    Ok(Days { hours: hours(false), done_hours: hours(true), visits })
}

/// Where a visit begins: at the recorder, where one is drawn, else at its first stop.
fn door(site: &SiteFile) -> Option<DVec2> {
    let nodes = site.network.iter().flat_map(|network| &network.nodes);
    let recorder = nodes.into_iter().find(|node| node.kind == crate::file::NodeKind::Recorder);
    recorder.map(|node| DVec2::from_array(node.position))
}

/// Stops in the order of the shortest way from the recorder.
fn in_order(site: &SiteFile, stops: Vec<Stop>) -> Vec<Stop> {
    let places: Vec<DVec2> = stops.iter().map(|stop| DVec2::from_array(stop.at.unwrap_or_default())).collect();
    let from = door(site).or(places.first().copied()).unwrap_or_default();
    let mut held: Vec<Option<Stop>> = stops.into_iter().map(Some).collect();
    shortest_walk(from, &places).into_iter().filter_map(|place| held[place].take()).collect()
}

/// Boxes, then the runs, box by box.
fn cable_stops(site: &SiteFile, cameras: &[&CameraFile], cards: &[Steps]) -> Vec<Stop> {
    let Some(network) = &site.network else { return vec![] };
    let told = wired(site);
    let new_boxes = network.nodes.iter().filter(|node| node.existing.is_none());
    let linked = |id: &str| {
        let card = cards.iter().find(|card| card.camera == id);
        card.is_some_and(|card| card.steps.iter().any(|step| step.id == "link-lights" && step.how.is_some()))
    };
    let mut stops: Vec<Stop> = new_boxes
        .map(|node| {
            let fed = told.runs.iter().filter(|run| run.nodes.contains(&node.id));
            let done = fed.clone().count() > 0 && fed.clone().any(|run| linked(&run.camera));
            let (id, name) = (node.id.clone(), node.name.clone());
            Stop { id, name, at: Some(node.position), hours: BOX_H, is_box: true, done, state: None, after: vec![] }
        })
        .collect();
    let mut runs: Vec<Stop> = vec![];
    for camera in cameras {
        let Some(run) = told.runs.iter().find(|run| run.camera == camera.id && !run.cables.is_empty()) else {
            continue;
        };
        // The cable that ends at the camera: those before it belong to the box's own.
        let last = network.cables.iter().find(|cable| cable.from == camera.id || cable.to == camera.id);
        let Some(length) = last.and_then(|last| told.cables.iter().find(|one| one.id == last.id)) else { continue };
        if last.is_some_and(|last| last.existing.is_some() || !last.kind.takes_a_port()) {
            continue;
        }
        runs.push(Stop {
            id: length.id.clone(),
            name: format!("cable of {}", camera.name),
            at: Some(camera.position),
            hours: length.length_m / PULL_M_PER_H + ENDS_H,
            is_box: false,
            done: linked(&camera.id),
            state: None,
            after: run
                .nodes
                .last()
                .and_then(|id| stops.iter().find(|stop| stop.id == *id))
                .map(|stop| stop.name.clone())
                .into_iter()
                .collect(),
        });
    }
    stops.extend(in_order(site, runs));
    stops
}

/// Stops in visits of a day each, in their order.
fn split(site: &SiteFile, trade: Trade, stops: Vec<Stop>) -> Vec<Visit> {
    let mut days: Vec<(f64, Vec<Stop>)> = vec![];
    let ladders = matches!(trade, Trade::Ladder | Trade::Lift);
    for stop in stops {
        let hours = stop.hours + if ladders { MOVE_H } else { 0.0 };
        match days.last_mut().filter(|(so_far, _)| *so_far + hours <= DAY_H) {
            Some((so_far, held)) => {
                *so_far += hours;
                held.push(stop);
            }
            None => days.push((hours, vec![stop])),
        }
    }
    let count = days.len();
    let visit = |(place, (hours, stops)): (usize, (f64, Vec<Stop>))| {
        let places: Vec<DVec2> = stops.iter().filter_map(|stop| stop.at).map(DVec2::from_array).collect();
        let from = door(site).or(places.first().copied()).unwrap_or_default();
        let walk_m = length(from, &places, &(0..places.len()).collect::<Vec<_>>());
        let ids: Vec<&str> = stops.iter().map(|stop| stop.id.as_str()).collect();
        let packed = if ladders { packing(site, &ids) } else { vec![] };
        let (name, who) = trade.words();
        let name = if count > 1 { format!("{name}, {} of {count}", place + 1) } else { name.to_owned() };
        Visit { trade, name, who: who.to_owned(), hours: hours + walk_m / WALK_M_PER_H, walk_m, packing: packed, stops }
    };
    days.into_iter().enumerate().map(visit).collect()
}
