//! The quiet path: the way across the site, from its edge to a chosen place, on which one is seen least.
//!
//! Steps go to the eight neighbours of a cell. A step costs its length, and its length × [`SEEN`] more where it leads from or to a cell
//! that is seen, half for each end: so a way that is seen nowhere is the shortest of its kind, and of ways that are seen the one that is
//! seen for the least time comes first unless it takes a thousand times that in detours. Cheapest first with buckets a cell's width
//! wide (Dial 1969; no step costs less than a bucket is wide, so the answer is exact: Denardo and Fox 1979; both from memory).

use super::steps::{NEIGHBOURS, Steps};
use crate::math::Grid;

/// What a metre in sight costs, in metres of detour.
pub const SEEN: f64 = 1000.0;
const NOBODY: u32 = u32::MAX;

/// A way over the cells of a grid.
#[derive(Clone, Debug, PartialEq)]
pub struct Way {
    /// The cells, from the edge to the goal.
    pub cells: Vec<usize>,
    /// Its length, m.
    pub length_m: f64,
    /// How much of it is seen, m: a step counts half for each of its ends that is seen.
    pub seen_m: f64,
}

/// The way from the edge of the grid to a cell on which one is seen least; `None` where no way leads there. `seen` tells of each cell
/// whether it is seen.
pub fn quiet_path(grid: &Grid, steps: &Steps, seen: &[bool], goal: usize) -> Option<Way> {
    if !steps.is_open(goal) {
        return None;
    }
    let lengths = NEIGHBOURS.map(|(east, north)| f64::from(east.abs() + north.abs()).sqrt());
    // Costs in cells.
    let cost = |from: usize, to: usize, length: f64| {
        length * (1.0 + SEEN * 0.5 * f64::from(u8::from(seen[from]) + u8::from(seen[to])))
    };
    // From the goal outwards: the first cell of the edge that is settled ends it.
    let mut reached = vec![f64::INFINITY; grid.cells()];
    let mut next = vec![NOBODY; grid.cells()];
    let most = (2.0_f64.sqrt() * (1.0 + SEEN)).ceil() as usize + 2;
    let mut buckets: Vec<Vec<u32>> = vec![Vec::new(); most];
    reached[goal] = 0.0;
    buckets[0].push(goal as u32);
    let (mut at, mut waiting) = (0_usize, 1_usize);
    let mut end = None;
    while waiting > 0 {
        let bucket = std::mem::take(&mut buckets[at % most]);
        waiting -= bucket.len();
        let mut on_edge: Option<(f64, usize)> = None;
        for cell in bucket {
            let cell = cell as usize;
            let here = reached[cell];
            if here as usize != at {
                // It was reached at less since.
                continue;
            }
            if is_edge(grid, cell) && on_edge.is_none_or(|(least, _)| here < least) {
                on_edge = Some((here, cell));
            }
            for (to, step) in steps.from(grid, cell) {
                let there = here + cost(cell, to, lengths[step]);
                if there < reached[to] {
                    reached[to] = there;
                    next[to] = cell as u32;
                    buckets[there as usize % most].push(to as u32);
                    waiting += 1;
                }
            }
        }
        if on_edge.is_some() {
            end = on_edge;
            break;
        }
        at += 1;
    }
    let (_, mut cell) = end?;
    let mut way = Way { cells: vec![cell], length_m: 0.0, seen_m: 0.0 };
    while cell != goal {
        let to = next[cell] as usize;
        let diagonal = to % grid.columns != cell % grid.columns && to / grid.columns != cell / grid.columns;
        let length = grid.cell * if diagonal { 2.0_f64.sqrt() } else { 1.0 };
        way.length_m += length;
        way.seen_m += length * 0.5 * f64::from(u8::from(seen[cell]) + u8::from(seen[to]));
        cell = to;
        way.cells.push(cell);
    }
    Some(way)
}

fn is_edge(grid: &Grid, cell: usize) -> bool {
    let (column, row) = (cell % grid.columns, cell / grid.columns);
    column == 0 || row == 0 || column + 1 == grid.columns || row + 1 == grid.rows
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::scene::{Scene, Solid};

    #[test]
    fn one_hugs_the_wall_that_nobody_looks_at() {
        // Ten by ten: only the column along the western edge of a lit middle is dark.
        let grid = Grid::over([0.0, 0.0, 11.0, 11.0], 1.0);
        let steps = Steps::over(&grid, &Scene::default());
        let dark = |cell: usize| cell % 11 == 5 && cell / 11 <= 5;
        let seen: Vec<bool> = (0..121).map(|cell| !dark(cell)).collect();
        let way = quiet_path(&grid, &steps, &seen, 5 * 11 + 5).unwrap();
        assert!(way.cells.iter().all(|cell| dark(*cell)) && way.length_m == 5.0 && way.seen_m == 0.0);
    }

    #[test]
    fn where_one_must_be_seen_one_is_seen_briefly() {
        // A wall with one gap; the ground west of it is seen but for the gap's own row.
        let grid = Grid::over([0.0, 0.0, 20.0, 20.0], 1.0);
        let wall = |y0: f64, y1: f64| Solid::new("w", &[[10.0, y0], [10.0, y1]], false, 0.0, 2.0, 0.0);
        let frame = Solid::new("f", &[[10.0, 1.3], [18.3, 1.3], [18.3, 18.7], [10.0, 18.7]], false, 0.0, 2.0, 0.0);
        let steps = Steps::over(&grid, &Scene::new(vec![wall(1.3, 12.0), wall(13.0, 18.7), frame]));
        let seen: Vec<bool> = (0..400).map(|cell| (3..6).contains(&(cell % 20))).collect();
        let way = quiet_path(&grid, &steps, &seen, 12 * 20 + 15).unwrap();
        assert_eq!(way.seen_m, 0.0, "between the lit columns and the wall");
        let all: Vec<bool> = vec![true; 400];
        let straight = quiet_path(&grid, &steps, &all, 12 * 20 + 15).unwrap();
        assert_eq!(straight.seen_m, straight.length_m);
        assert_eq!(straight.length_m, 13.0, "six steps through the gap, seven along the wall to the edge");
    }

    #[test]
    fn where_no_way_leads_there_is_none() {
        let grid = Grid::over([0.0, 0.0, 9.0, 9.0], 1.0);
        let shut = Solid::new("b", &[[3.0, 3.0], [6.0, 3.0], [6.0, 6.0], [3.0, 6.0], [3.0, 3.0]], false, 0.0, 2.0, 0.0);
        let steps = Steps::over(&grid, &Scene::new(vec![shut]));
        assert_eq!(quiet_path(&grid, &steps, &[false; 81], 4 * 9 + 4), None);
    }
}
