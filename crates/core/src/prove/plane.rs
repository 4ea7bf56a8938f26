//! A plane of one figure a pixel, and what is done with it: scaled down by areas, softened, differenced.

/// A plane of figures, row by row from the top.
#[derive(Clone, Debug, PartialEq)]
pub struct Plane {
    /// Columns.
    pub width: usize,
    /// Rows.
    pub height: usize,
    /// The figures.
    pub of: Vec<f32>,
}

impl Plane {
    /// A plane of nothing.
    pub fn empty(width: usize, height: usize) -> Plane {
        Plane { width, height, of: vec![0.0; width * height] }
    }

    /// The figure of a pixel.
    pub fn at(&self, x: usize, y: usize) -> f32 {
        self.of[y * self.width + x]
    }

    /// The figure at a place between pixels, whose centres lie at whole numbers; `None` outside.
    pub fn between(&self, x: f64, y: f64) -> Option<f32> {
        if !(x >= 0.0 && y >= 0.0 && x <= (self.width - 1) as f64 && y <= (self.height - 1) as f64) {
            return None;
        }
        let (left, top) =
            ((x as usize).min(self.width.saturating_sub(2)), (y as usize).min(self.height.saturating_sub(2)));
        let (across, down) = ((x - left as f64) as f32, (y - top as f64) as f32);
        let row = |y: usize| self.at(left, y) * (1.0 - across) + self.at((left + 1).min(self.width - 1), y) * across;
        Some(row(top) * (1.0 - down) + row((top + 1).min(self.height - 1)) * down)
    }

    /// Scaled down: each pixel is the mean of the area that it covers.
    pub fn scaled_to(&self, width: usize, height: usize) -> Plane {
        let columns = shares(self.width, width);
        let rows = shares(self.height, height);
        let mut across = Plane::empty(width, self.height);
        for y in 0..self.height {
            let row = &self.of[y * self.width..][..self.width];
            for (x, (first, parts)) in columns.iter().enumerate() {
                across.of[y * width + x] = parts.iter().zip(&row[*first..]).map(|(part, figure)| part * figure).sum();
            }
        }
        let mut scaled = Plane::empty(width, height);
        for (y, (first, parts)) in rows.iter().enumerate() {
            let to = &mut scaled.of[y * width..][..width];
            for (place, part) in parts.iter().enumerate() {
                let from = &across.of[(first + place) * width..][..width];
                to.iter_mut().zip(from).for_each(|(sum, figure)| *sum += part * figure);
            }
        }
        scaled
    }

    /// Softened by the binomial of five, both ways, so many times: about a Gaussian's one pixel each time.
    pub fn softened(&self, times: usize) -> Plane {
        let (width, height) = (self.width, self.height);
        let mut plane = self.clone();
        let mut other = Plane::empty(width, height);
        const KERNEL: [f32; 5] = [0.0625, 0.25, 0.375, 0.25, 0.0625];
        for _ in 0..times {
            for y in 0..height {
                let row = &plane.of[y * width..][..width];
                for x in 0..width {
                    let tap = |step: usize| row[(x + step).saturating_sub(2).min(width - 1)];
                    other.of[y * width + x] = (0..5).map(|step| KERNEL[step] * tap(step)).sum();
                }
            }
            for y in 0..height {
                let rows = [0, 1, 2, 3, 4].map(|step| (y + step).saturating_sub(2).min(height - 1) * width);
                for x in 0..width {
                    plane.of[y * width + x] = (0..5).map(|step| KERNEL[step] * other.of[rows[step] + x]).sum();
                }
            }
        }
        plane
    }

    /// Slopes to the right and down: half the step between the neighbours.
    pub fn slopes(&self) -> (Plane, Plane) {
        let (width, height) = (self.width, self.height);
        let (mut across, mut down) = (Plane::empty(width, height), Plane::empty(width, height));
        for y in 1..height.saturating_sub(1) {
            for x in 1..width.saturating_sub(1) {
                let place = y * width + x;
                across.of[place] = 0.5 * (self.of[place + 1] - self.of[place - 1]);
                down.of[place] = 0.5 * (self.of[place + width] - self.of[place - width]);
            }
        }
        (across, down)
    }
}

/// For each of so many pixels the first that it covers and how much of each.
fn shares(from: usize, to: usize) -> Vec<(usize, Vec<f32>)> {
    let step = from as f64 / to as f64;
    (0..to)
        .map(|place| {
            let (begin, end) = (place as f64 * step, ((place + 1) as f64 * step).min(from as f64));
            let (first, last) = (begin as usize, (end.ceil() as usize).min(from));
            let part = |pixel: usize| ((pixel + 1) as f64).min(end) - (pixel as f64).max(begin);
            (first, (first..last).map(|pixel| (part(pixel) / step) as f32).collect())
        })
        .collect()
}

/// Sums over any rectangle of a plane at once (F. Crow, "Summed-area tables for texture mapping", 1984).
pub struct Sums {
    width: usize,
    of: Vec<f64>,
}

impl Sums {
    /// The sums of a plane.
    pub fn of(plane: &Plane) -> Sums {
        let width = plane.width + 1;
        let mut of = vec![0.0; width * (plane.height + 1)];
        for y in 0..plane.height {
            let mut row = 0.0;
            for x in 0..plane.width {
                row += f64::from(plane.at(x, y));
                of[(y + 1) * width + x + 1] = of[y * width + x + 1] + row;
            }
        }
        Sums { width, of }
    }

    /// The sum over a rectangle: its left and top pixel, and those behind its right and bottom one.
    pub fn over(&self, [left, top, right, bottom]: [usize; 4]) -> f64 {
        let at = |x: usize, y: usize| self.of[y * self.width + x];
        at(right, bottom) - at(left, bottom) - at(right, top) + at(left, top)
    }
}
