//! A plan as it goes out: the file, with what was found out about it, for whatever format it is written in.

use super::drawn::box_of;
use crate::file::{Cable, Point2, PrivatePlace, SiteFile, TargetFile, Task, Whose};
use crate::judge::Session;
use crate::math::Grid;
use crate::verdict::Verdict;
use crate::wire::conduit::end_of;
use crate::wire::wired::wired;
use glam::DVec2;

/// What coverage is told for, the widest first.
pub const TASKS: [Task; 5] = [Task::Monitor, Task::Detect, Task::Observe, Task::Recognise, Task::Identify];
/// The height that coverage is told at: about that of a face, m.
pub const HEIGHT_M: f64 = 1.6;
/// Coverage is told so far around all that is drawn, m.
const AROUND_M: f64 = 15.0;
/// Its cells are no smaller than this, m, and so many along the longer side at most.
const CELL_M: f64 = 0.25;
const MOST_CELLS: f64 = 240.0;
/// An aim is drawn so long, m.
const AIM_M: f64 = 5.0;

/// Where cameras give at least what a task needs.
#[derive(Clone, Debug, PartialEq)]
pub struct Coverage {
    /// The task.
    pub task: Task,
    /// What it needs, px/m.
    pub px_per_m: f64,
    /// Areas, each an outer ring and the rings of its holes; no ring repeats its first point.
    pub areas: Vec<Vec<Vec<Point2>>>,
}

/// A plan to be written.
#[derive(Clone, Debug)]
pub struct Plan<'a> {
    /// The site.
    pub file: &'a SiteFile,
    /// The verdict of each target, by its id, where they were judged.
    pub verdicts: Vec<(String, Verdict)>,
    /// Where what is covered, the widest first; empty where that was not worked out.
    pub coverage: Vec<Coverage>,
}

impl<'a> Plan<'a> {
    /// The plan of a site of which nothing was found out.
    pub fn bare(file: &'a SiteFile) -> Plan<'a> {
        Plan { file, verdicts: vec![], coverage: vec![] }
    }

    /// The plan of a site that was judged.
    pub fn judged(session: &'a Session) -> Plan<'a> {
        let verdicts = session.summary().targets.into_iter().map(|found| (found.target, found.verdict)).collect();
        Plan { file: session.site().file(), verdicts, coverage: vec![] }
    }

    /// How a target stands, where it was judged.
    pub fn verdict(&self, target: &TargetFile) -> Option<Verdict> {
        self.verdicts.iter().find(|(id, _)| *id == target.id).map(|(_, verdict)| *verdict)
    }

    /// The ways that the heads of each camera look: a line from the camera, with the head's place in it.
    pub fn aims(&self) -> impl Iterator<Item = (usize, usize, [Point2; 2])> {
        self.file.cameras.iter().enumerate().flat_map(|(place, camera)| {
            camera.heads.iter().enumerate().map(move |(head, looks)| {
                let (sin, cos) = looks.pan_deg.to_radians().sin_cos();
                let [x, y] = camera.position;
                (place, head, [[x, y], [x + AIM_M * sin, y + AIM_M * cos]])
            })
        })
    }
}

/// A cable with its line from end to end and how long it is, m.
pub struct CableLine<'a> {
    /// It.
    pub cable: &'a Cable,
    /// Its line, m.
    pub line: Vec<Point2>,
    /// How long it is, m.
    pub length_m: f64,
}

/// The cables of a site that lead from one thing to another.
pub fn cable_lines(file: &SiteFile) -> Vec<CableLine<'_>> {
    let told = wired(file);
    let cables = file.network.iter().flat_map(|network| &network.cables);
    cables
        .filter_map(|cable| {
            let length_m = told.cables.iter().find(|told| told.id == cable.id)?.length_m;
            let [from, to] = [end_of(file, &cable.from)?, end_of(file, &cable.to)?];
            let line = [from].into_iter().chain(cable.route.iter().copied()).chain([to]).collect();
            Some(CableLine { cable, line, length_m })
        })
        .collect()
}

/// The layer of a private place, or of ground that is somebody else's.
pub fn layer_of(place: &PrivatePlace) -> &'static str {
    match place.whose {
        Whose::Private => "private places",
        Whose::Public => "public ground",
        Whose::Neighbour => "neighbours' ground",
    }
}

/// The layer of the outlines of what is covered.
pub fn coverage_layer(coverage: &Coverage) -> String {
    format!("coverage {} px per m {}", coverage.px_per_m, coverage.task.word())
}

/// The box around all that a plan draws; a metre at the origin for an empty one.
pub fn bounds(file: &SiteFile) -> [Point2; 2] {
    let outlines = file.obstacles.iter().flat_map(|obstacle| obstacle.standing());
    let targets = file.targets.iter().flat_map(|target| &target.shape.points);
    let private = file.private.iter().flat_map(|place| &place.outline);
    let cameras = file.cameras.iter().map(|camera| &camera.position);
    let spots = file.spots.iter().map(|spot| &spot.position);
    let [low, high] = box_of(outlines.chain(targets).chain(private).chain(cameras).chain(spots));
    if low[0] > high[0] { [[0.0; 2], [1.0; 2]] } else { [low, high] }
}

/// The grid over which coverage is worked out.
pub fn coverage_grid(file: &SiteFile) -> Grid {
    let [low, high] = bounds(file).map(DVec2::from_array);
    let (low, high) = (low - AROUND_M, high + AROUND_M);
    let cell = ((high - low).max_element() / MOST_CELLS).max(CELL_M);
    Grid::over([low.x, low.y, high.x, high.y], cell)
}
