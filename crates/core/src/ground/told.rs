//! What a relief tells about the ground, in figures: how much of it is seen how often, what nobody sees, the quiet path.

use super::count::{Counts, counts};
use super::patches::{Patch, patches};
use super::quiet_path::quiet_path;
use super::steps::Steps;
use crate::file::{Fault, HeadRef, ShapeKind, Task};
use crate::math::{Grid, sampling};
use crate::show::coverage::live_relief::{LiveRelief, Share};
use crate::show::coverage::relief::Relief;
use crate::site::Site;
use glam::DVec2;
use serde::{Deserialize, Serialize};
use std::collections::HashMap;
use utoipa::ToSchema;

/// How fast somebody walks who does not want to be noticed, m/s; common practice, no source.
pub const WALKS_MPS: f64 = 1.4;
/// A patch of unseen ground that somebody can stand in, m²; our default.
const LEAST_PATCH_M2: f64 = 2.0;
/// How many patches are told.
const MOST_PATCHES: usize = 12;
/// So much of the ground around what is drawn is looked at, m.
const AROUND_M: f64 = 5.0;
/// Cells are at least so wide, m …
const LEAST_CELL_M: f64 = 0.25;
/// … and there are about so many of them.
const CELLS: f64 = 40_000.0;

/// What is asked about the ground.
#[derive(Clone, Copy, Debug, PartialEq, Deserialize, Serialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GroundWish {
    /// The density that counts as seen, px/m.
    pub need_px_per_m: f64,
    /// The height that is looked at, m.
    pub height_m: f64,
    /// Where the quiet path leads, m east and north; none for no path.
    #[serde(default)]
    #[schema(value_type = Option<[f64; 2]>)]
    pub goal: Option<[f64; 2]>,
}

/// What the relief tells about the ground. Areas are of ground that somebody can stand on, in the box around all that is drawn and
/// five metres more.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Ground {
    /// The need, px/m.
    pub need_px_per_m: f64,
    /// The needs of the site's table, from the least.
    pub needs: Vec<TaskNeed>,
    /// The height that was looked at, m.
    pub height_m: f64,
    /// The bounds, m: west, south, east, north.
    pub bounds: [f64; 4],
    /// Side of a cell, m: nothing narrower is told apart.
    pub cell_m: f64,
    /// All ground that somebody can stand on, m².
    pub open_m2: f64,
    /// Seen at the need by a camera that never looks away, m².
    pub seen_m2: f64,
    /// Seen by two that don't fail together, m².
    pub twice_m2: f64,
    /// Seen only in turns, m².
    pub in_turns_m2: f64,
    /// The share of each area target that is seen, and seen twice.
    pub targets: Vec<AreaShare>,
    /// Ground that nobody sees at the need, the largest patch first.
    pub unseen: Vec<Patch>,
    /// The quiet path, if one was asked for and leads there.
    #[schema(required)]
    pub path: Option<QuietPath>,
    /// Why there is none.
    #[schema(required)]
    pub no_path: Option<String>,
}

/// What a task needs.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct TaskNeed {
    /// The task.
    pub task: Task,
    /// Its need, px/m.
    pub px_per_m: f64,
}

/// How much of an area target is seen.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct AreaShare {
    /// The target's id.
    pub target: String,
    /// Share that is seen at the need asked for, 0 to 1.
    pub seen: f64,
    /// Share that is seen by two that don't fail together.
    pub twice: f64,
}

/// The way to a place on which one is seen least.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct QuietPath {
    /// Its corners, from the edge to the goal, m.
    pub points: Vec<[f64; 2]>,
    /// Its length, m.
    pub length_m: f64,
    /// How much of it is seen, m.
    pub seen_m: f64,
    /// How long one is seen, walking, s.
    pub seen_s: f64,
    /// By whom and how long, s; the longest first.
    pub by: Vec<SeenBy>,
}

/// How long a head sees somebody on the path.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SeenBy {
    /// The head.
    pub head: HeadRef,
    /// How long, s.
    pub seconds: f64,
}

/// The ground of a site under a hand: its relief, coarse, kept up with the changes, and where one can walk.
#[derive(Clone, Debug)]
pub struct LiveGround {
    relief: LiveRelief,
    steps: Steps,
}

impl LiveGround {
    /// The ground of a site at a height, nothing of it worked out yet.
    pub fn new(site: &Site, height_m: f64) -> LiveGround {
        let grid = grid_over(site);
        let steps = Steps::over(&grid, site.scene());
        LiveGround { relief: LiveRelief::new(site, grid, height_m, Share::WHOLE), steps }
    }

    /// Takes up a change of the site.
    pub fn changed(&mut self, site: &Site, delta: &crate::judge::session::Delta) {
        if *self.relief.relief().grid() != grid_over(site) {
            *self = LiveGround::new(site, self.relief.relief().height());
            return;
        }
        if delta.touched.all || !delta.touched.obstacles.is_empty() {
            self.steps = Steps::over(self.relief.relief().grid(), site.scene());
        }
        self.relief.changed(site, delta);
    }

    /// The height that it is of, m.
    pub fn height(&self) -> f64 {
        self.relief.relief().height()
    }

    /// How many see each cell at a need, px/m, as far as it is worked out.
    pub fn counts(&self, site: &Site, need: f32) -> Counts {
        counts(site, self.relief.relief(), need)
    }

    /// What it tells.
    ///
    /// # Errors
    /// A wish that makes no sense.
    pub fn tell(&mut self, site: &Site, wish: &GroundWish) -> Result<Ground, Fault> {
        wish.checked()?;
        while self.relief.step(site) {}
        Ok(ground_of(site, self.relief.relief(), &self.steps, wish))
    }
}

impl GroundWish {
    /// Refuses what is no need, no height or no place.
    ///
    /// # Errors
    /// Names the figure.
    pub fn checked(&self) -> Result<(), Fault> {
        if !(0.1..=100_000.0).contains(&self.need_px_per_m) {
            return Err(Fault::new("need_px_per_m", format!("{} is outside 0.1 to 100000 px/m", self.need_px_per_m)));
        }
        if !(0.0..=100.0).contains(&self.height_m) {
            return Err(Fault::new("height_m", format!("{} is outside 0 to 100 m", self.height_m)));
        }
        match self.goal {
            Some(goal) if !goal.iter().all(|axis| axis.abs() <= 1e6) => {
                Err(Fault::new("goal", "is no place of a site"))
            }
            _ => Ok(()),
        }
    }
}

/// What the relief of a site tells about its ground.
///
/// # Errors
/// A wish that makes no sense.
pub fn ground(site: &Site, wish: &GroundWish) -> Result<Ground, Fault> {
    wish.checked()?;
    LiveGround::new(site, wish.height_m).tell(site, wish)
}

/// The cells over all that is drawn and a little more.
pub fn grid_over(site: &Site) -> Grid {
    let file = site.file();
    let outlines = file.obstacles.iter().flat_map(|o| o.outline.iter());
    let targets = file.targets.iter().flat_map(|t| t.shape.points.iter());
    let spots = file.spots.iter().map(|spot| &spot.position);
    let cameras = file.cameras.iter().map(|camera| &camera.position);
    let points = outlines.chain(targets).chain(spots).chain(cameras).map(|p| DVec2::from_array(*p));
    let (mut lower, mut upper) =
        points.fold((DVec2::MAX, DVec2::MIN), |(lower, upper), p| (lower.min(p), upper.max(p)));
    if lower.x > upper.x {
        (lower, upper) = (DVec2::ZERO, DVec2::ZERO);
    }
    // On whole metres, so that a corner that is dragged does not move every cell.
    let (lower, upper) = ((lower - AROUND_M).floor(), (upper + AROUND_M).ceil());
    let size = upper - lower;
    let cell = (size.x * size.y / CELLS).sqrt().max(LEAST_CELL_M);
    // Neat, and whole cells to a metre where they are small.
    let cell = [0.25, 0.5, 1.0, 2.0].into_iter().find(|neat| cell <= *neat).unwrap_or(cell.ceil());
    Grid::over([lower.x, lower.y, upper.x, upper.y], cell)
}

fn ground_of(site: &Site, relief: &Relief, steps: &Steps, wish: &GroundWish) -> Ground {
    let grid = relief.grid();
    let counts = counts(site, relief, wish.need_px_per_m as f32);
    let open: Vec<usize> = (0..grid.cells()).filter(|cell| steps.is_open(*cell)).collect();
    let area =
        |holds: &dyn Fn(usize) -> bool| open.iter().filter(|cell| holds(**cell)).count() as f64 * grid.cell * grid.cell;
    let unseen: Vec<bool> = (0..grid.cells())
        .map(|cell| steps.is_open(cell) && counts.steady[cell] == 0 && counts.in_turns[cell] == 0)
        .collect();
    let mut found = patches(grid, steps, &unseen, LEAST_PATCH_M2);
    found.truncate(MOST_PATCHES);
    let seen: Vec<bool> = counts.steady.iter().map(|count| *count > 0).collect();
    let (path, no_path) = match wish.goal {
        Some(goal) => path_to(site, relief, steps, &seen, goal, wish.need_px_per_m),
        None => (None, None),
    };
    let corner = grid.corner;
    let needs = site.rules().needs.contours();
    Ground {
        need_px_per_m: wish.need_px_per_m,
        needs: needs.into_iter().map(|(task, px_per_m)| TaskNeed { task, px_per_m }).collect(),
        height_m: wish.height_m,
        bounds: [
            corner.x,
            corner.y,
            corner.x + grid.columns as f64 * grid.cell,
            corner.y + grid.rows as f64 * grid.cell,
        ],
        cell_m: grid.cell,
        open_m2: area(&|_| true),
        seen_m2: area(&|cell| counts.steady[cell] > 0),
        twice_m2: area(&|cell| counts.steady[cell] > 1),
        in_turns_m2: area(&|cell| counts.steady[cell] == 0 && counts.in_turns[cell] > 0),
        targets: area_shares(site, grid, &counts),
        unseen: found,
        path,
        no_path,
    }
}

/// The shares of the area targets, by the cells whose middles lie in them.
fn area_shares(site: &Site, grid: &Grid, counts: &Counts) -> Vec<AreaShare> {
    let areas = site.file().targets.iter().filter(|target| target.shape.kind == ShapeKind::Area);
    areas
        .map(|target| {
            let (samples, _) = sampling::within(&target.shape.points);
            let cells: Vec<usize> =
                samples.iter().filter_map(|point| grid.cell_at(DVec2::from_array(*point))).collect();
            let share = |least: u8| {
                cells.iter().filter(|cell| counts.steady[**cell] >= least).count() as f64 / cells.len().max(1) as f64
            };
            AreaShare { target: target.id.clone(), seen: share(1), twice: share(2) }
        })
        .collect()
}

fn path_to(
    site: &Site,
    relief: &Relief,
    steps: &Steps,
    seen: &[bool],
    goal: [f64; 2],
    need: f64,
) -> (Option<QuietPath>, Option<String>) {
    let grid = relief.grid();
    let Some(cell) = grid.cell_at(DVec2::from_array(goal)).and_then(|cell| standing_by(grid, steps, cell)) else {
        return (None, Some("Nobody can stand there.".to_owned()));
    };
    let Some(way) = quiet_path(grid, steps, seen, cell) else {
        return (None, Some("No route leads there: it is shut in.".to_owned()));
    };
    let mut seconds: HashMap<usize, f64> = HashMap::new();
    for pair in way.cells.windows(2) {
        let half = grid.centre_of(pair[0]).distance(grid.centre_of(pair[1])) * 0.5 / WALKS_MPS;
        for cell in pair {
            for (place, head) in site.heads().iter().enumerate() {
                let steady = head.gap_s().is_none_or(|gap| gap == 0.0);
                if steady && f64::from(relief.density(place, *cell)) >= need {
                    *seconds.entry(place).or_default() += half;
                }
            }
        }
    }
    let mut by: Vec<(usize, f64)> = seconds.into_iter().collect();
    by.sort_by(|a, b| b.1.total_cmp(&a.1).then(a.0.cmp(&b.0)));
    let points: Vec<DVec2> = way.cells.iter().map(|cell| grid.centre_of(*cell)).collect();
    let path = QuietPath {
        points: corners_of(&points),
        length_m: way.length_m,
        seen_m: way.seen_m,
        seen_s: way.seen_m / WALKS_MPS,
        by: by.into_iter().map(|(place, seconds)| SeenBy { head: site.heads()[place].name(), seconds }).collect(),
    };
    (Some(path), None)
}

/// A cell that somebody can stand on, this one or one beside it: a target may lie against a wall.
fn standing_by(grid: &Grid, steps: &Steps, cell: usize) -> Option<usize> {
    let at = grid.centre_of(cell);
    let near = |reach: f64| {
        let cells = (0..grid.cells()).filter(|other| steps.is_open(*other));
        let close = cells.filter(|other| grid.centre_of(*other).distance(at) <= reach * grid.cell + 1e-9);
        close.min_by(|a, b| grid.centre_of(*a).distance(at).total_cmp(&grid.centre_of(*b).distance(at)))
    };
    if steps.is_open(cell) { Some(cell) } else { near(3.0) }
}

/// A line without the points that lie straight between others.
fn corners_of(points: &[DVec2]) -> Vec<[f64; 2]> {
    let last = points.len().saturating_sub(1);
    let bends = |place: &usize| {
        *place == 0 || *place == last || {
            let (before, here, after) = (points[place - 1], points[*place], points[place + 1]);
            ((here - before) - (after - here)).length() > 1e-9
        }
    };
    (0..points.len()).filter(bends).map(|place| points[place].to_array()).collect()
}
