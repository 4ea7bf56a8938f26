//! A grid of square cells over the plan.

use glam::DVec2;

/// Square cells in rows from south to north, each row from west to east. A cell stands for its centre.
///
/// ```
/// use bright_angle_core::math::Grid;
/// let grid = Grid::over([0.0, 0.0, 10.0, 4.0], 0.5);
/// assert_eq!((grid.columns, grid.rows), (20, 8));
/// assert_eq!(grid.centre(0, 0).to_array(), [0.25, 0.25]);
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Grid {
    /// South-west corner, m.
    pub corner: DVec2,
    /// Side of a cell, m.
    pub cell: f64,
    /// Cells in a row.
    pub columns: usize,
    /// Rows.
    pub rows: usize,
}

impl Grid {
    /// The grid whose cells cover the bounds `[x0, y0, x1, y1]`, m, beginning at their south-west corner.
    pub fn over([x0, y0, x1, y1]: [f64; 4], cell: f64) -> Self {
        // A whole number of cells, but for rounding.
        let count = |length: f64| (length / cell - 1e-9).ceil().max(1.0) as usize;
        Grid { corner: DVec2::new(x0, y0), cell, columns: count(x1 - x0), rows: count(y1 - y0) }
    }

    /// The centre of a cell, m.
    pub fn centre(&self, column: usize, row: usize) -> DVec2 {
        self.corner + DVec2::new((column as f64 + 0.5) * self.cell, (row as f64 + 0.5) * self.cell)
    }

    /// The centre of a cell by its place: rows from south to north, each from west to east, m.
    pub fn centre_of(&self, cell: usize) -> DVec2 {
        self.centre(cell % self.columns, cell / self.columns)
    }

    /// The place of the cell that a point of the plan lies in; `None` off the grid.
    pub fn cell_at(&self, point: DVec2) -> Option<usize> {
        let at = (point - self.corner) / self.cell;
        let inside = at.x >= 0.0 && at.y >= 0.0 && at.x < self.columns as f64 && at.y < self.rows as f64;
        inside.then(|| at.y as usize * self.columns + at.x as usize)
    }

    /// How many cells it has.
    pub fn cells(&self) -> usize {
        self.columns * self.rows
    }

    /// The columns, `start..end`, whose centres lie strictly between two eastings.
    pub fn columns_between(&self, west: f64, east: f64) -> (usize, usize) {
        between(west - self.corner.x, east - self.corner.x, self.cell, self.columns)
    }

    /// The rows, `start..end`, whose centres lie from one northing up to, but not on, another: lines that meet at a corner
    /// share no row and leave none out.
    pub fn rows_from(&self, south: f64, north: f64) -> (usize, usize) {
        let place = |y: f64| (((y - self.corner.y) / self.cell - 0.5).ceil().max(0.0) as usize).min(self.rows);
        (place(south), place(north))
    }
}

/// The places `start..end` of `count` whose middles (place + ½)·cell lie strictly between two distances.
fn between(low: f64, high: f64, cell: f64, count: usize) -> (usize, usize) {
    // Conversions from float saturate: what lies far outside stays outside.
    let start = ((low / cell - 0.5).floor() + 1.0).max(0.0) as usize;
    let end = ((high / cell - 0.5).ceil().max(0.0) as usize).min(count);
    (start.min(end), end)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_row_lies_in_one_of_two_lines_that_meet() {
        let grid = Grid::over([0.0, 0.0, 1.0, 8.0], 0.9);
        for corner in [0.45, 1.35, 2.0, 3.15, 7.65] {
            let (below, above) = (grid.rows_from(-5.0, corner), grid.rows_from(corner, 50.0));
            assert_eq!((below.0, below.1, above.1), (0, above.0, grid.rows), "{corner}");
        }
    }

    #[test]
    fn centres_strictly_between() {
        let grid = Grid::over([10.0, 0.0, 14.0, 1.0], 1.0);
        assert_eq!(grid.columns_between(10.5, 12.5), (1, 2), "a centre on the edge is not between");
        assert_eq!(grid.columns_between(10.4, 12.6), (0, 3));
        assert_eq!(grid.columns_between(-1e9, 1e9), (0, 4));
        assert_eq!(grid.columns_between(20.0, 30.0).0, grid.columns_between(20.0, 30.0).1);
        assert_eq!(grid.columns_between(-30.0, -20.0), (0, 0));
    }
}
