//! The site's overhead picture, laid on the ground.

use crate::file::Drawing;
use crate::math::Angle;
use glam::{DVec2, Vec3};

/// An overhead picture with where it lies. It is kept at every half of its size, so that what lies far away is a mean and does not
/// shimmer.
#[derive(Clone, Debug)]
pub struct Drape {
    levels: Vec<Level>,
    /// Size of the drawing's own pixels, px.
    size: DVec2,
    metres_per_px: f64,
    centre: DVec2,
    turn: Angle,
}

#[derive(Clone, Debug)]
struct Level {
    width: usize,
    height: usize,
    /// Linear shares of light.
    colours: Vec<Vec3>,
}

impl Drape {
    /// A picture of a size, px, of red, green, blue and opacity, placed as the drawing says; it may be smaller than the drawing.
    /// `None` without a scale, or where the bytes are not that many.
    pub fn new(drawing: &Drawing, (width, height): (u32, u32), rgba: &[u8]) -> Option<Drape> {
        let metres_per_px = drawing.metres_per_px?;
        let (width, height) = (width as usize, height as usize);
        if width == 0 || height == 0 || rgba.len() != width * height * 4 {
            return None;
        }
        let light: Vec<f32> = (0..=255_u8).map(linear).collect();
        let colour =
            |pixel: &[u8]| Vec3::new(light[pixel[0] as usize], light[pixel[1] as usize], light[pixel[2] as usize]);
        let mut levels = vec![Level { width, height, colours: rgba.chunks_exact(4).map(colour).collect() }];
        while let Some(last) = levels.last().filter(|level| level.width > 1 && level.height > 1) {
            let half = last.halved();
            levels.push(half);
        }
        Some(Drape {
            levels,
            size: DVec2::new(f64::from(drawing.width_px), f64::from(drawing.height_px)),
            metres_per_px,
            centre: DVec2::from_array(drawing.centre),
            turn: Angle::degrees(drawing.turn_deg),
        })
    }

    /// The colour of a place of the ground of which one pixel covers `pixel` m; `None` beside the picture.
    pub fn at(&self, place: DVec2, pixel: f64) -> Option<Vec3> {
        let off = place - self.centre;
        let (sin, cos) = (self.turn.sin(), self.turn.cos());
        let right = off.x * cos - off.y * sin;
        let up = off.x * sin + off.y * cos;
        let share = DVec2::new(right, -up) / (self.metres_per_px * self.size) + 0.5;
        if share.cmplt(DVec2::ZERO).any() || share.cmpge(DVec2::ONE).any() {
            return None;
        }
        let finest = self.metres_per_px * self.size.x / self.levels[0].width as f64;
        let level = (pixel / finest).log2().round().clamp(0.0, self.levels.len() as f64 - 1.0);
        Some(self.levels[level as usize].at(share))
    }
}

impl Level {
    fn at(&self, share: DVec2) -> Vec3 {
        let at = share * DVec2::new(self.width as f64, self.height as f64);
        let (column, row) = ((at.x as usize).min(self.width - 1), (at.y as usize).min(self.height - 1));
        self.colours[row * self.width + column]
    }

    fn halved(&self) -> Level {
        let (width, height) = (self.width / 2, self.height / 2);
        let mean = |place: usize| {
            let (column, row) = (2 * (place % width), 2 * (place / width));
            let at = |right: usize, down: usize| self.colours[(row + down) * self.width + column + right];
            (at(0, 0) + at(1, 0) + at(0, 1) + at(1, 1)) / 4.0
        };
        Level { width, height, colours: (0..width * height).map(mean).collect() }
    }
}

/// The linear share of light of a byte (IEC 61966-2-1).
fn linear(byte: u8) -> f32 {
    let curved = f32::from(byte) / 255.0;
    if curved <= 0.040_45 { curved / 12.92 } else { ((curved + 0.055) / 1.055).powf(2.4) }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Two pixels, red to the west and green to the east, 10 m each.
    fn two(turn_deg: f64) -> Drape {
        let drawing = Drawing {
            picture: String::new(),
            width_px: 2,
            height_px: 2,
            metres_per_px: Some(10.0),
            centre: [100.0, 50.0],
            turn_deg,
            fade: 0.0,
            scale_from: vec![],
        };
        let (red, green) = ([255, 0, 0, 255], [0, 255, 0, 255]);
        Drape::new(&drawing, (2, 2), &[red, green, red, green].concat()).unwrap()
    }

    #[test]
    fn it_lies_where_the_plan_shows_it() {
        let drape = two(0.0);
        let at = |x: f64, y: f64| drape.at(DVec2::new(x, y), 0.1);
        assert_eq!([at(95.0, 50.0), at(105.0, 50.0)], [Some(Vec3::X), Some(Vec3::Y)]);
        assert_eq!([at(89.0, 50.0), at(100.0, 61.0)], [None, None]);
        // Its top points east: what was its west lies north.
        let turned = two(90.0);
        assert_eq!(turned.at(DVec2::new(100.0, 55.0), 0.1), Some(Vec3::X));
        assert_eq!(turned.at(DVec2::new(100.0, 45.0), 0.1), Some(Vec3::Y));
    }

    #[test]
    fn far_away_it_is_its_mean() {
        assert_eq!(two(0.0).at(DVec2::new(95.0, 50.0), 40.0), Some(Vec3::new(0.5, 0.5, 0.0)));
    }
}
