//! Where cameras give at least what a task needs, as outlines: the lines of equal density of the coverage map.

use crate::relief::whole_relief;
use bright_angle_core::exchange::plan::{Coverage, HEIGHT_M, TASKS, coverage_grid};
use bright_angle_core::file::Point2;
use bright_angle_core::work::{Over, Patience};
use bright_angle_core::{Fault, Site};
use contour::ContourBuilder;
use geo::{LineString, Simplify};

/// An outline may be simpler than its cells by so much of one.
const SIMPLER: f64 = 0.2;

/// What a site's cameras cover, the widest first.
///
/// # Errors
/// When it takes longer than somebody waits, or the lines cannot be drawn.
pub fn coverage(site: &Site, patience: &Patience) -> Result<Vec<Coverage>, Fault> {
    let grid = coverage_grid(site.file());
    let over = |over: Over| Fault::new("", over.to_string());
    let relief = whole_relief(site, grid, HEIGHT_M, patience).map_err(over)?;
    let values: Vec<f64> = relief.best().iter().copied().map(f64::from).collect();
    let needs: Vec<f64> = TASKS.iter().map(|task| site.rules().needs.need(*task).px_per_m).collect();
    let lines = ContourBuilder::new(grid.columns, grid.rows, true)
        .x_origin(grid.corner.x)
        .y_origin(grid.corner.y)
        .x_step(grid.cell)
        .y_step(grid.cell)
        .contours(&values, &needs)
        .map_err(|error| Fault::new("", error.to_string()))?;
    let ring = |line: &LineString<f64>| -> Vec<Point2> {
        let simple = line.simplify(grid.cell * SIMPLER);
        let mut points: Vec<Point2> = simple.coords().map(|at| [at.x, at.y].map(|a| (a * 1e3).round() / 1e3)).collect();
        points.pop();
        points
    };
    let told = TASKS.iter().zip(needs).zip(&lines).map(|((task, px_per_m), line)| {
        let areas = line.geometry().iter().filter_map(|polygon| {
            let outer = ring(polygon.exterior());
            let holes = polygon.interiors().iter().map(ring).filter(|hole| hole.len() > 2);
            (outer.len() > 2).then(|| std::iter::once(outer).chain(holes).collect())
        });
        Coverage { task: *task, px_per_m, areas: areas.collect() }
    });
    Ok(told.collect())
}
