//! The relief of a whole site with all cores of the machine: the heads are shared out, the best of their layers is one.

use bright_angle_core::math::Grid;
use bright_angle_core::show::coverage::relief::Relief;
use bright_angle_core::work::{Over, Patience};
use bright_angle_core::{Fault, Site};
use std::num::NonZero;
use std::thread;

/// The most cells that are worked out at once.
const MOST_CELLS: f64 = 4_000_000.0;
/// Sides that a cell may have, m.
const CELLS_M: std::ops::RangeInclusive<f64> = 0.01..=1_000.0;
/// Heights that may be looked at, m.
const HEIGHTS_M: std::ops::RangeInclusive<f64> = 0.0..=500.0;
/// How far from the origin bounds may lie, m.
const FAR_M: f64 = 200_000.0;

/// The grid that somebody asked for, if it makes sense.
///
/// # Errors
/// Names the figure that does not.
pub fn asked_grid(bounds: [f64; 4], cell_m: f64, at_height_m: f64) -> Result<Grid, Fault> {
    if !CELLS_M.contains(&cell_m) {
        let message = format!("{cell_m} is outside {} to {} m", CELLS_M.start(), CELLS_M.end());
        return Err(Fault::new("cell_m", message));
    }
    if !HEIGHTS_M.contains(&at_height_m) {
        let message = format!("{at_height_m} is outside {} to {} m", HEIGHTS_M.start(), HEIGHTS_M.end());
        return Err(Fault::new("at_height_m", message));
    }
    let [west, south, east, north] = bounds;
    if bounds.iter().any(|bound| !(-FAR_M..=FAR_M).contains(bound)) || west >= east || south >= north {
        return Err(Fault::new("bounds", "are west, south, east, north, m, and enclose something"));
    }
    let cells = ((east - west) / cell_m).ceil() * ((north - south) / cell_m).ceil();
    if cells > MOST_CELLS {
        return Err(Fault::new("cell_m", format!("makes {cells} cells, more than {MOST_CELLS}")));
    }
    Ok(Grid::over(bounds, cell_m))
}

/// The relief of a site, each core with its share of the heads.
///
/// # Errors
/// When it takes longer than somebody waits.
pub fn whole_relief(site: &Site, grid: Grid, height: f64, patience: &Patience) -> Result<Relief, Over> {
    let heads = site.heads().len();
    let hands = thread::available_parallelism().map_or(1, NonZero::get).min(heads.max(1));
    let share = |hand: usize| {
        let mut relief = Relief::empty(grid, height, heads);
        // Only the best is wanted: a layer that is worked out is let go.
        for head in (hand..heads).step_by(hands) {
            patience.check(|| {
                format!("{heads} heads over {} cells take longer than is allowed here", grid.columns * grid.rows)
            })?;
            relief.add(site, head);
        }
        Ok(relief)
    };
    thread::scope(|scope| {
        let others: Vec<_> = (1..hands).map(|hand| scope.spawn(move || share(hand))).collect();
        let mut whole = share(0)?;
        for other in others {
            match other.join() {
                Ok(part) => whole.merge(&part?),
                Err(panic) => std::panic::resume_unwind(panic),
            }
        }
        Ok(whole)
    })
}
