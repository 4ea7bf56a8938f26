//! The relief: the best pixel density that any head gives, over the cells of a grid at one height.
//!
//! Each head has a layer of its own: the density `across` at the centres of the cells that are in its picture, zero where a
//! blocking solid shades them. Solids are upright, so their shadow on a level is a polygon ([`scene::shadow`](crate::scene::shadow)):
//! polygons are filled, no ray is cast. The relief of the site is the greatest over its layers.

use crate::math::{Grid, Interval, hull};
use crate::scene::{BLOCKS_UP_TO, Scene, Solid, shadow};
use crate::site::{Head, Site};
use glam::{DVec2, DVec3};

/// What is written where no head sees, in an ESRI ASCII grid.
pub const NO_DATA: f64 = -9999.0;

/// The density that one head gives on a level.
#[derive(Clone, Debug, PartialEq)]
pub struct Layer {
    /// Each row of the grid.
    rows: Vec<Row>,
    /// The values of all rows, px/m; zero where nothing is seen.
    values: Vec<f32>,
}

/// The cells of a row that a head may see.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
struct Row {
    /// The first column.
    start: usize,
    /// The column past the last.
    end: usize,
    /// Where its values begin.
    offset: usize,
}

impl Layer {
    /// The layer of a head: its density across at each cell's centre, at `height` m.
    pub fn of(head: &Head, scene: &Scene, grid: &Grid, height: f64) -> Layer {
        let rows = Rows { head, grid, height };
        let mut spans: Vec<Row> = (0..grid.rows).map(|row| rows.in_cone(row)).collect();
        let mut cells = 0;
        for span in &mut spans {
            span.offset = cells;
            cells += span.end - span.start;
        }
        let mut layer = Layer { rows: spans, values: vec![0.0; cells] };
        if cells > 0 {
            let shade = Shade::of(head, scene, grid, height, &layer.rows);
            for row in 0..grid.rows {
                rows.fill(row, &mut layer, &shade);
            }
        }
        layer
    }

    /// The night reading of a layer: only the cells at which somebody has light enough, of the head's own or of lamps, at its shutter.
    fn lit(mut self, head: &Head, site: &Site, grid: &Grid, height: f64) -> Layer {
        for row in 0..grid.rows {
            let Row { start, end, offset } = self.rows[row];
            for column in start..end {
                let value = &mut self.values[offset + column - start];
                let point = grid.centre(column, row).extend(height);
                let is_lit = || head.light().is_enough(head.position(), point, site.scene(), site.lamps());
                if *value > 0.0 && !is_lit() {
                    *value = 0.0;
                }
            }
        }
        self
    }

    /// A layer of a head that sees nothing.
    fn nothing(grid: &Grid) -> Layer {
        Layer { rows: vec![Row::default(); grid.rows], values: vec![] }
    }

    /// The density at a cell, px/m; zero where the head does not see it.
    pub fn at(&self, column: usize, row: usize) -> f32 {
        let Row { start, end, offset } = self.rows[row];
        if (start..end).contains(&column) { self.values[offset + column - start] } else { 0.0 }
    }

    /// The cells of a row with their values, from the column where they begin.
    fn row(&self, row: usize) -> (usize, &[f32]) {
        let Row { start, end, offset } = self.rows[row];
        (start, &self.values[offset..offset + end - start])
    }
}

/// The geometry of one head over a grid.
struct Rows<'a> {
    head: &'a Head,
    grid: &'a Grid,
    height: f64,
}

impl Rows<'_> {
    /// The centre of a row's first cell as seen from the head.
    fn first(&self, row: usize) -> DVec3 {
        self.grid.centre(0, row).extend(self.height) - self.head.position()
    }

    /// The cells of a row that lie in the cone around the picture, a little more than less.
    fn in_cone(&self, row: usize) -> Row {
        let all = Row { start: 0, end: self.grid.columns, offset: 0 };
        let cosine = self.head.view().projection.corner_cosine();
        if cosine <= 1e-3 {
            return all;
        }
        let forward = self.head.view().pose.forward;
        let (first, step) = (self.first(row), DVec3::X * self.grid.cell);
        // In the cone where forward·p ≥ cos·|p| with p = first + i·step: between the roots of a·i² + 2b·i + c, in front.
        let (z, dz, square) = (forward.dot(first), forward.dot(step), cosine * cosine);
        let a = dz * dz - square * step.length_squared();
        let b = z * dz - square * first.dot(step);
        let c = z * z - square * first.length_squared();
        let to_row = |from: f64, to: f64| {
            let start = (from - 1.0).floor().max(0.0) as usize;
            let end = ((to + 2.0).ceil().max(0.0) as usize).min(self.grid.columns);
            Row { start: start.min(end), end, offset: 0 }
        };
        let inside = b * b - a * c;
        if inside < 0.0 {
            // No root: all of the row in the double cone, or none of it.
            return if a > 0.0 && z + dz * (self.grid.columns as f64) / 2.0 > 0.0 { all } else { to_row(-9.0, -9.0) };
        }
        // Both roots without cancellation.
        let q = -(b + inside.sqrt().copysign(b));
        let (one, other) = (q / a, c / q);
        let (low, high) = (one.min(other), one.max(other));
        if !low.is_finite() || !high.is_finite() {
            return all;
        }
        let in_front = |i: f64| z + dz * i > 0.0;
        if a < 0.0 {
            // One stretch, in front or behind as a whole.
            return if in_front(0.5 * (low + high)) { to_row(low, high) } else { to_row(-9.0, -9.0) };
        }
        // Two branches, one of them in front.
        if in_front(high + 1.0 + high.abs()) { to_row(high, self.grid.columns as f64) } else { to_row(0.0, low) }
    }

    /// Computes the cells of a row that nothing shades.
    fn fill(&self, row: usize, layer: &mut Layer, shade: &Shade) {
        let Row { start, end, offset } = layer.rows[row];
        if start == end {
            return;
        }
        let view = self.head.view();
        let curve = self.head.curve();
        let (pose, projection) = (&view.pose, &view.projection);
        let focal = projection.focal_px();
        let half = projection.size() / (2.0 * focal);
        let corner = projection.corner_cosine();
        let first = self.first(row);
        let origin = pose.to_camera(first);
        let step = pose.to_camera(DVec3::X * self.grid.cell);
        // The step square to the bearing, times the ground distance: (dy, −dx, 0).
        let (forward, dy) = (pose.forward, first.y);
        let above = first.z * first.z;
        let values = &mut layer.values[offset..offset + end - start];
        for (value, (column, shaded)) in values.iter_mut().zip((start..end).zip(shade.row(offset, end - start))) {
            if *shaded {
                continue;
            }
            let i = column as f64;
            let direction = origin + step * i;
            let dx = first.x + self.grid.cell * i;
            let ground = dx * dx + dy * dy;
            let square = ground + above;
            let length = square.sqrt();
            let cosine = direction.z / length;
            if cosine < corner {
                continue;
            }
            let factor = curve.factor(cosine);
            let scale = factor / length;
            if (direction.x * scale).abs() > half.x || (direction.y * scale).abs() > half.y {
                continue;
            }
            *value = if ground < 1e-12 {
                let point = self.grid.centre(column, row).extend(self.height);
                view.across_at(point) as f32
            } else {
                let across = (forward.x * dy - forward.y * dx) / ground.sqrt();
                (focal * curve.density(square, cosine, factor, across)) as f32
            };
        }
    }
}

/// Which cells of a layer solids shade.
struct Shade(Vec<bool>);

impl Shade {
    /// Fills the shadows of all blocking solids that lie in the way.
    fn of(head: &Head, scene: &Scene, grid: &Grid, height: f64, rows: &[Row]) -> Shade {
        let from = scene.out_of_mounting(head.position(), head.mounted_on());
        let blocking = scene.solids().iter().filter(|solid| solid.blocks());
        let mut shaded = Shade::behind(blocking, from, grid, height, rows);
        if scene.has_several_see_through() {
            // What several see-through solids let through multiplies.
            let mut left = vec![1.0_f64; shaded.len()];
            for pane in scene.solids().iter().filter(|solid| !solid.blocks()) {
                let behind = Shade::behind(std::iter::once(pane), from, grid, height, rows);
                left.iter_mut()
                    .zip(behind)
                    .filter(|(_, behind)| *behind)
                    .for_each(|(left, _)| *left *= pane.see_through());
            }
            shaded.iter_mut().zip(left).for_each(|(shaded, left)| *shaded |= left <= BLOCKS_UP_TO);
        }
        Shade(shaded)
    }

    /// Which cells lie behind one of some solids.
    fn behind<'a>(
        solids: impl Iterator<Item = &'a Solid>,
        from: DVec3,
        grid: &Grid,
        height: f64,
        rows: &[Row],
    ) -> Vec<bool> {
        let cells = rows.last().map_or(0, |row| row.offset + row.end - row.start);
        // Where shadows begin (+1) and end (−1) along each row, a place more a row than it has cells.
        let mut steps = Steps { rows, changes: vec![0; cells + rows.len()] };
        for solid in solids {
            let Some(shadow) = shadow(solid, from, height) else { continue };
            shadow.hulls.iter().for_each(|hull| fill_hull(grid, hull, &mut steps));
            if let Some(outline) = &shadow.filled {
                fill_outline(grid, outline, &mut steps);
            }
        }
        let mut shaded = Vec::with_capacity(cells);
        for (place, row) in rows.iter().enumerate() {
            let begins = row.offset + place;
            let mut depth = 0_i32;
            shaded.extend(steps.changes[begins..begins + row.end - row.start].iter().map(|change| {
                depth += i32::from(*change);
                depth > 0
            }));
        }
        shaded
    }

    fn row(&self, offset: usize, length: usize) -> &[bool] {
        &self.0[offset..offset + length]
    }
}

/// Beginnings and ends of shadows along the rows.
struct Steps<'a> {
    rows: &'a [Row],
    changes: Vec<i16>,
}

impl Steps<'_> {
    /// Shades the cells of a row whose centres lie strictly between two eastings.
    #[inline]
    fn shade(&mut self, grid: &Grid, row: usize, west: f64, east: f64) {
        let Row { start, end, offset } = self.rows[row];
        let (from, to) = grid.columns_between(west, east);
        let (from, to) = (from.max(start), to.min(end));
        if from < to {
            let begins = offset + row;
            self.changes[begins + from - start] += 1;
            self.changes[begins + to - start] -= 1;
        }
    }
}

/// Shades the convex hull of some points. The hull's border is part of the lines between them, so each row of it lies between
/// the least and the greatest easting at which a line crosses the row.
fn fill_hull(grid: &Grid, points: &[DVec2], steps: &mut Steps) {
    let hull = hull(points.iter().copied());
    let (south, north) = hull.iter().fold((f64::MAX, f64::MIN), |(low, high), p| (low.min(p.y), high.max(p.y)));
    let (from, to) = grid.rows_from(south, north);
    if from >= to {
        return;
    }
    let (west, east) = hull.iter().fold((f64::MAX, f64::MIN), |(low, high), p| (low.min(p.x), high.max(p.x)));
    if grid.columns_between(west, east).0 >= grid.columns_between(west, east).1 {
        return;
    }
    let mut spans = vec![Interval { start: f64::INFINITY, end: f64::NEG_INFINITY }; to - from];
    for (place, a) in hull.iter().enumerate() {
        let b = hull[(place + 1) % hull.len()];
        cross(grid, *a, b, |row, x| {
            let span = &mut spans[row - from];
            *span = Interval { start: span.start.min(x), end: span.end.max(x) };
        });
    }
    for (place, span) in spans.iter().enumerate() {
        // What lies on the hull's southern side is touched only.
        if grid.centre(0, from + place).y <= south {
            continue;
        }
        steps.shade(grid, from + place, span.start, span.end);
    }
}

/// Shades a simple outline: between each odd crossing of a row and the next.
fn fill_outline(grid: &Grid, outline: &[DVec2], steps: &mut Steps) {
    let mut crossings: Vec<Vec<f64>> = vec![Vec::new(); grid.rows];
    for (place, a) in outline.iter().enumerate() {
        cross(grid, *a, outline[(place + 1) % outline.len()], |row, x| crossings[row].push(x));
    }
    for (row, crossed) in crossings.iter_mut().enumerate() {
        crossed.sort_by(f64::total_cmp);
        crossed.chunks_exact(2).for_each(|pair| steps.shade(grid, row, pair[0], pair[1]));
    }
}

/// Tells the eastings at which a line crosses the middles of rows.
fn cross(grid: &Grid, a: DVec2, b: DVec2, mut crossed: impl FnMut(usize, f64)) {
    let (low, high) = if a.y <= b.y { (a, b) } else { (b, a) };
    let (from, to) = grid.rows_from(low.y, high.y);
    if from >= to {
        return;
    }
    // Reckoned from the end that lies nearer: the other may be as good as infinitely far.
    let anchor = if (a - grid.corner).length_squared() <= (b - grid.corner).length_squared() { a } else { b };
    let slope = (high.x - low.x) / (high.y - low.y);
    for row in from..to {
        crossed(row, anchor.x + (grid.centre(0, row).y - anchor.y) * slope);
    }
}

/// The relief of some heads, with their layers, so that one that changes costs only itself.
#[derive(Clone, Debug)]
pub struct Relief {
    grid: Grid,
    height: f64,
    /// Each head's layer, by the heads' order; none for heads that somebody else works out.
    layers: Vec<Option<Layer>>,
    best: Vec<f32>,
}

impl Relief {
    /// An empty relief for so many heads.
    pub fn empty(grid: Grid, height: f64, heads: usize) -> Relief {
        Relief { grid, height, layers: vec![None; heads], best: vec![0.0; grid.cells()] }
    }

    /// The relief of a whole site at a height, m.
    pub fn of(site: &Site, grid: Grid, height: f64) -> Relief {
        let mut relief = Relief::empty(grid, height, site.heads().len());
        for place in 0..site.heads().len() {
            relief.put(site, place);
        }
        relief
    }

    /// The grid.
    pub fn grid(&self) -> &Grid {
        &self.grid
    }

    /// The height that it is of, m.
    pub fn height(&self) -> f64 {
        self.height
    }

    /// The best density of each cell, px/m, rows from south to north; zero where no head sees.
    pub fn best(&self) -> &[f32] {
        &self.best
    }

    /// The density that a head gives a cell, by the head's and the cell's place, px/m; zero where it does not see it.
    pub fn density(&self, head: usize, cell: usize) -> f32 {
        let (column, row) = (cell % self.grid.columns, cell / self.grid.columns);
        self.layers[head].as_ref().map_or(0.0, |layer| layer.at(column, row))
    }

    /// Visits the cells that a head gives at least a density, px/m.
    pub fn each_at_least(&self, head: usize, least: f32, mut visit: impl FnMut(usize)) {
        let Some(layer) = &self.layers[head] else { return };
        for row in 0..self.grid.rows {
            let (start, values) = layer.row(row);
            let begins = row * self.grid.columns + start;
            for (place, _) in values.iter().enumerate().filter(|(_, value)| **value >= least) {
                visit(begins + place);
            }
        }
    }

    /// Works out a head's layer, and the best where it was or is the best.
    pub fn put(&mut self, site: &Site, head: usize) {
        let layer = self.layer(site, head);
        if let Some(old) = self.layers[head].take() {
            self.take_out(&old);
        }
        self.raise(&layer);
        self.layers[head] = Some(layer);
    }

    /// Works out a head's layer and takes what is better; the layer is not held, so the head cannot be put again.
    pub fn add(&mut self, site: &Site, head: usize) {
        let layer = self.layer(site, head);
        self.raise(&layer);
    }

    fn layer(&self, site: &Site, head: usize) -> Layer {
        // A flat picture shows no more than the round one that it is cut out of.
        if site.heads()[head].is_flattened() {
            return Layer::nothing(&self.grid);
        }
        let layer = Layer::of(&site.heads()[head], site.scene(), &self.grid, self.height);
        if site.file().conditions.night { layer.lit(&site.heads()[head], site, &self.grid, self.height) } else { layer }
    }

    fn raise(&mut self, layer: &Layer) {
        for row in 0..self.grid.rows {
            let (start, values) = layer.row(row);
            let best = &mut self.best[row * self.grid.columns + start..][..values.len()];
            best.iter_mut().zip(values).for_each(|(best, value)| *best = best.max(*value));
        }
    }

    /// Finds the next best where a layer, out of the list already, was the best.
    fn take_out(&mut self, old: &Layer) {
        for row in 0..self.grid.rows {
            let (start, values) = old.row(row);
            for (place, value) in values.iter().enumerate().filter(|(_, value)| **value > 0.0) {
                let cell = row * self.grid.columns + start + place;
                if *value >= self.best[cell] {
                    let others = self.layers.iter().flatten().map(|layer| layer.at(start + place, row));
                    self.best[cell] = others.fold(0.0, f32::max);
                }
            }
        }
    }

    /// Takes the greater of this relief's and another's best in each cell; both are of the same grid.
    pub fn merge(&mut self, other: &Relief) {
        self.best.iter_mut().zip(&other.best).for_each(|(best, value)| *best = best.max(*value));
    }

    /// As an ESRI ASCII grid: a head of six lines, then the rows from north to south; [`NO_DATA`] where no head sees.
    /// (The format is plain text that most programs for maps read; its layout is from memory.)
    pub fn to_ascii_grid(&self) -> String {
        use std::fmt::Write;
        let Grid { corner, cell, columns, rows } = self.grid;
        let mut text = format!(
            "ncols {columns}\nnrows {rows}\nxllcorner {}\nyllcorner {}\ncellsize {cell}\nNODATA_value {NO_DATA}\n",
            corner.x, corner.y
        );
        for row in self.best.chunks(columns).rev() {
            for (column, value) in row.iter().enumerate() {
                let space = if column == 0 { "" } else { " " };
                // Writing to a string cannot fail.
                let _ = if *value > 0.0 { write!(text, "{space}{value}") } else { write!(text, "{space}{NO_DATA}") };
            }
            text.push('\n');
        }
        text
    }
}
