//! Where somebody can walk: the cells of a grid that nothing stands on, and between which neighbours no wall runs.

use crate::math::Grid;
use crate::scene::{Scene, Solid};
use glam::DVec2;

/// Whoever walks is stopped by what stands between these heights over the ground, m: what is lower is stepped over, what begins
/// higher is walked under. Common practice, no source.
const STOPPED_FROM_M: f64 = 0.5;
const STOPPED_TO_M: f64 = 1.8;
/// The eight neighbours of a cell, by steps east and north.
pub const NEIGHBOURS: [(i32, i32); 8] = [(1, 0), (-1, 0), (0, 1), (0, -1), (1, 1), (1, -1), (-1, 1), (-1, -1)];

/// Which steps from cell to cell can be walked.
#[derive(Clone, Debug, PartialEq)]
pub struct Steps {
    /// For each cell, one bit a neighbour: whether the step there is free. A cell that something stands on has none.
    free: Vec<u8>,
}

impl Steps {
    /// The free steps over a grid. Solids stop whoever walks whether they can be seen through or not.
    pub fn over(grid: &Grid, scene: &Scene) -> Steps {
        let mut taken = vec![false; grid.cells()];
        let mut cut = vec![0_u8; grid.cells()];
        for solid in scene.solids().iter().filter(|solid| stops(solid)) {
            take(grid, solid, &mut taken);
            solid.edges().for_each(|(a, b)| cut_along(grid, a, b, &mut cut));
        }
        let free = |cell: usize| {
            if taken[cell] {
                return 0;
            }
            let mut bits = 0_u8;
            for (bit, step) in NEIGHBOURS.iter().enumerate() {
                let open = neighbour(grid, cell, *step).is_some_and(|next| !taken[next]) && cut[cell] & (1 << bit) == 0;
                bits |= u8::from(open) << bit;
            }
            bits
        };
        Steps { free: (0..grid.cells()).map(free).collect() }
    }

    /// Whether somebody can stand on a cell and go on from it.
    pub fn is_open(&self, cell: usize) -> bool {
        self.free[cell] != 0
    }

    /// The cells that a free step leads to, each with which of the neighbours it is.
    #[inline]
    pub fn from<'a>(&'a self, grid: &'a Grid, cell: usize) -> impl Iterator<Item = (usize, usize)> + 'a {
        let free = self.free[cell];
        let columns = grid.columns as isize;
        NEIGHBOURS.iter().enumerate().filter(move |(bit, _)| free & (1 << bit) != 0).map(move |(bit, (east, north))| {
            ((cell as isize + *north as isize * columns + *east as isize) as usize, bit)
        })
    }
}

/// The neighbour of a cell, if the grid has it.
fn neighbour(grid: &Grid, cell: usize, (east, north): (i32, i32)) -> Option<usize> {
    let (column, row) = ((cell % grid.columns) as i32 + east, (cell / grid.columns) as i32 + north);
    let inside = column >= 0 && row >= 0 && (column as usize) < grid.columns && (row as usize) < grid.rows;
    inside.then(|| row as usize * grid.columns + column as usize)
}

fn stops(solid: &Solid) -> bool {
    solid.top() > STOPPED_FROM_M && solid.base() < STOPPED_TO_M
}

/// Takes the cells whose middles lie inside a filled solid.
fn take(grid: &Grid, solid: &Solid, taken: &mut [bool]) {
    if !solid.is_filled() {
        return;
    }
    let (lower, upper) = solid.bounds();
    let (first, last) = grid.rows_from(lower.y, upper.y);
    for row in first..last {
        let y = grid.centre(0, row).y;
        let (from, to) = (DVec2::new(lower.x, y), DVec2::new(upper.x, y));
        for over in solid.over(from, to) {
            let east = |share: f64| from.x + (to.x - from.x) * share;
            let (start, end) = grid.columns_between(east(over.start), east(over.end));
            taken[row * grid.columns + start..row * grid.columns + end.max(start)].fill(true);
        }
    }
}

/// Cuts the steps that a wall runs across.
fn cut_along(grid: &Grid, a: DVec2, b: DVec2, cut: &mut [u8]) {
    let place = |at: f64, from: f64, count: usize| (((at - from) / grid.cell).floor().max(0.0) as usize).min(count - 1);
    let (lower, upper) = (a.min(b) - grid.cell, a.max(b) + grid.cell);
    let rows = place(lower.y, grid.corner.y, grid.rows)..=place(upper.y, grid.corner.y, grid.rows);
    for row in rows {
        // The stretch of the wall that comes near this row, and the columns beside it.
        let (south, north) =
            (grid.corner.y + (row as f64 - 1.0) * grid.cell, grid.corner.y + (row as f64 + 2.0) * grid.cell);
        let Some((west, east)) = between(a, b, south, north) else { continue };
        let columns =
            place(west - grid.cell, grid.corner.x, grid.columns)..=place(east + grid.cell, grid.corner.x, grid.columns);
        for column in columns {
            let here = grid.centre(column, row);
            for (bit, (step_east, step_north)) in NEIGHBOURS.iter().enumerate() {
                let there = here + DVec2::new(f64::from(*step_east), f64::from(*step_north)) * grid.cell;
                if crosses(here, there, a, b) {
                    cut[row * grid.columns + column] |= 1 << bit;
                }
            }
        }
    }
}

/// The eastings between which a line runs while it is between two northings.
fn between(a: DVec2, b: DVec2, south: f64, north: f64) -> Option<(f64, f64)> {
    let rise = b.y - a.y;
    let (mut start, mut end) = (0.0_f64, 1.0_f64);
    if rise == 0.0 {
        if a.y < south || a.y > north {
            return None;
        }
    } else {
        let (from, to) = ((south - a.y) / rise, (north - a.y) / rise);
        (start, end) = (start.max(from.min(to)), end.min(from.max(to)));
    }
    (start <= end).then(|| {
        let (x, y) = (a.x + (b.x - a.x) * start, a.x + (b.x - a.x) * end);
        (x.min(y), x.max(y))
    })
}

/// Whether two lines meet, ends included.
fn crosses(p: DVec2, q: DVec2, a: DVec2, b: DVec2) -> bool {
    let side = |from: DVec2, to: DVec2, at: DVec2| (to - from).perp_dot(at - from);
    let (of_a, of_b) = (side(p, q, a), side(p, q, b));
    let (of_p, of_q) = (side(a, b, p), side(a, b, q));
    let boxes = a.min(b).cmple(p.max(q)).all() && p.min(q).cmple(a.max(b)).all();
    boxes && of_a * of_b <= 0.0 && of_p * of_q <= 0.0
}

#[cfg(test)]
mod tests {
    use super::*;

    fn steps(solids: Vec<Solid>) -> (Grid, Steps) {
        let grid = Grid::over([0.0, 0.0, 10.0, 10.0], 1.0);
        let steps = Steps::over(&grid, &Scene::new(solids));
        (grid, steps)
    }

    #[test]
    fn a_wall_between_two_cells_cuts_the_steps_across_it_and_no_others() {
        let wall = Solid::new("w", &[[5.0, 2.0], [5.0, 8.0]], false, 0.0, 2.0, 0.9);
        let (grid, steps) = steps(vec![wall]);
        let goes = |from: (usize, usize), to: (usize, usize)| {
            steps.from(&grid, from.1 * 10 + from.0).any(|(next, _)| next == to.1 * 10 + to.0)
        };
        assert!(
            !goes((4, 5), (5, 5)) && !goes((5, 5), (4, 5)) && !goes((4, 5), (5, 6)),
            "across it, also when seen through"
        );
        assert!(goes((4, 5), (4, 6)) && goes((4, 0), (5, 0)), "along it and past its end");
    }

    #[test]
    fn what_is_low_is_stepped_over_and_what_hangs_is_walked_under() {
        let slab = |base: f64, top: f64| {
            Solid::new("s", &[[3.0, 3.0], [6.0, 3.0], [6.0, 6.0], [3.0, 6.0]], true, base, top, 0.0)
        };
        let open = |solid: Solid| steps(vec![solid]).1.is_open(4 * 10 + 4);
        assert_eq!([open(slab(0.0, 0.4)), open(slab(2.5, 4.0)), open(slab(0.0, 1.0))], [true, true, false]);
    }
}
