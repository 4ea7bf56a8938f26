//! Ground that nobody sees, in patches: cells that hang together, with their area and their shape.

use super::steps::Steps;
use crate::math::Grid;
use serde::Serialize;
use utoipa::ToSchema;

/// A patch of ground.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Patch {
    /// Its area, m².
    pub area_m2: f64,
    /// A place in it, as far from its edge as any, m east and north.
    pub at: [f64; 2],
    /// Its outlines, m: the outer one and those of holes, corners not repeated.
    pub outlines: Vec<Vec<[f64; 2]>>,
}

/// The patches of the cells that are `open` and not `seen`, the largest first; those under `least_m2` are left out. Cells hang together
/// over free steps along the rows and columns.
pub fn patches(grid: &Grid, steps: &Steps, unseen: &[bool], least_m2: f64) -> Vec<Patch> {
    let mut of = vec![0_u32; grid.cells()];
    let mut found = Vec::new();
    for first in (0..grid.cells()).filter(|cell| unseen[*cell]) {
        if of[first] != 0 {
            continue;
        }
        let name = found.len() as u32 + 1;
        let mut cells = vec![first];
        of[first] = name;
        let mut looked = 0;
        while let Some(cell) = cells.get(looked).copied() {
            looked += 1;
            for (to, step) in steps.from(grid, cell) {
                // The first four neighbours lie along rows and columns.
                if step < 4 && unseen[to] && of[to] == 0 {
                    of[to] = name;
                    cells.push(to);
                }
            }
        }
        found.push(cells);
    }
    let area = |cells: &Vec<usize>| cells.len() as f64 * grid.cell * grid.cell;
    let mut named: Vec<(u32, Vec<usize>)> = (1..).zip(found).filter(|(_, cells)| area(cells) >= least_m2).collect();
    named.sort_by_key(|(_, cells)| std::cmp::Reverse(cells.len()));
    named
        .into_iter()
        .map(|(name, cells)| Patch {
            area_m2: area(&cells),
            at: grid.centre_of(deepest(grid, &of, name, &cells)).to_array(),
            outlines: outlines(grid, &of, name, &cells),
        })
        .collect()
}

/// The cell of a patch that is the most steps away from its edge.
fn deepest(grid: &Grid, of: &[u32], name: u32, cells: &[usize]) -> usize {
    let outside = |cell: usize, east: isize, north: isize| {
        let (column, row) = ((cell % grid.columns) as isize + east, (cell / grid.columns) as isize + north);
        let inside = column >= 0 && row >= 0 && column < grid.columns as isize && row < grid.rows as isize;
        !inside || of[row as usize * grid.columns + column as usize] != name
    };
    let sides = [(1, 0), (-1, 0), (0, 1), (0, -1)];
    let mut wave: Vec<usize> =
        cells.iter().copied().filter(|cell| sides.iter().any(|(e, n)| outside(*cell, *e, *n))).collect();
    let mut left: std::collections::HashSet<usize> = cells.iter().copied().collect();
    let mut last = cells[0];
    while !wave.is_empty() {
        wave.retain(|cell| left.remove(cell));
        let Some(cell) = wave.get(wave.len() / 2) else { break };
        last = *cell;
        let columns = grid.columns as isize;
        wave = wave
            .iter()
            .flat_map(|cell| {
                sides
                    .iter()
                    .filter(|(e, n)| !outside(*cell, *e, *n))
                    .map(move |(e, n)| (*cell as isize + n * columns + e) as usize)
            })
            .filter(|cell| left.contains(cell))
            .collect();
    }
    last
}

/// The outlines of a patch along the sides of its cells, the patch to their left, corners only.
fn outlines(grid: &Grid, of: &[u32], name: u32, cells: &[usize]) -> Vec<Vec<[f64; 2]>> {
    use std::collections::HashMap;
    type Corner = (usize, usize);
    let inside = |column: isize, row: isize| {
        column >= 0
            && row >= 0
            && column < grid.columns as isize
            && row < grid.rows as isize
            && of[row as usize * grid.columns + column as usize] == name
    };
    let mut edges: HashMap<Corner, Vec<Corner>> = HashMap::new();
    for cell in cells {
        let (c, r) = ((cell % grid.columns) as isize, (cell / grid.columns) as isize);
        let (x, y) = (c as usize, r as usize);
        let sides = [
            (c, r - 1, (x, y), (x + 1, y)),
            (c + 1, r, (x + 1, y), (x + 1, y + 1)),
            (c, r + 1, (x + 1, y + 1), (x, y + 1)),
            (c - 1, r, (x, y + 1), (x, y)),
        ];
        for (column, row, from, to) in sides {
            if !inside(column, row) {
                edges.entry(from).or_default().push(to);
            }
        }
    }
    let mut rings = Vec::new();
    let mut starts: Vec<Corner> = edges.keys().copied().collect();
    starts.sort_unstable();
    for start in starts {
        while edges.get(&start).is_some_and(|ends| !ends.is_empty()) {
            let mut ring = vec![start];
            let mut before: Option<Corner> = None;
            let mut at = start;
            while let Some(ends) = edges.get_mut(&at).filter(|ends| !ends.is_empty()) {
                // Where two cells touch at a corner only, the outline turns left: it stays with its own cell.
                let turn = |to: &Corner| match before {
                    Some(from) => {
                        let (a, b) = (step(from, at), step(at, *to));
                        a.0 * b.1 - a.1 * b.0
                    }
                    None => 0,
                };
                let place = (0..ends.len()).max_by_key(|place| turn(&ends[*place])).unwrap_or(0);
                let to = ends.swap_remove(place);
                before = Some(at);
                at = to;
                if at == start {
                    break;
                }
                ring.push(at);
            }
            rings.push(corners_only(&ring));
        }
    }
    let place =
        |corner: &Corner| [grid.corner.x + corner.0 as f64 * grid.cell, grid.corner.y + corner.1 as f64 * grid.cell];
    rings.iter().map(|ring| ring.iter().map(place).collect()).collect()
}

fn step(from: (usize, usize), to: (usize, usize)) -> (isize, isize) {
    (to.0 as isize - from.0 as isize, to.1 as isize - from.1 as isize)
}

fn corners_only(ring: &[(usize, usize)]) -> Vec<(usize, usize)> {
    let count = ring.len();
    let turns = |place: &usize| {
        let (before, here, after) = (ring[(place + count - 1) % count], ring[*place], ring[(place + 1) % count]);
        step(before, here) != step(here, after)
    };
    (0..count).filter(turns).map(|place| ring[place]).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::scene::Scene;

    fn found(rows: &[&str]) -> Vec<Patch> {
        let grid = Grid::over([0.0, 0.0, rows[0].len() as f64, rows.len() as f64], 1.0);
        let unseen: Vec<bool> = rows.iter().rev().flat_map(|row| row.chars().map(|c| c == '#')).collect();
        patches(&grid, &Steps::over(&grid, &Scene::default()), &unseen, 0.0)
    }

    #[test]
    fn a_patch_has_its_area_its_outline_and_its_hole() {
        let found = found(&["#####..", "#...#..", "#...#.#", "#####.."]);
        assert_eq!(found.iter().map(|patch| patch.area_m2).collect::<Vec<_>>(), [14.0, 1.0]);
        assert_eq!(found[0].outlines.iter().map(Vec::len).collect::<Vec<_>>(), [4, 4], "outer and hole, corners only");
        assert_eq!(found[1].outlines[0], [[6.0, 1.0], [7.0, 1.0], [7.0, 2.0], [6.0, 2.0]]);
    }

    #[test]
    fn what_touches_at_a_corner_only_is_two() {
        assert_eq!(found(&["#.", ".#"]).len(), 2);
    }

    #[test]
    fn the_place_that_is_named_is_deep_inside() {
        let found = found(&["#######", "#######", "#######", "###....", "###...."]);
        assert!((1.0..6.0).contains(&found[0].at[0]) && (3.0..4.0).contains(&found[0].at[1]), "{:?}", found[0].at);
    }
}
