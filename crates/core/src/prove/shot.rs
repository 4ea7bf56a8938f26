//! A picture as it is compared.

use super::plane::Plane;

/// A picture: its rows from the top, three bytes a pixel.
pub struct Shot {
    /// Columns.
    pub width: usize,
    /// Rows.
    pub height: usize,
    /// Red, green, blue.
    pub rgb: Vec<u8>,
}

impl Shot {
    /// Its light: Rec. 709's luma.
    pub fn grey(&self) -> Plane {
        let of = self
            .rgb
            .chunks_exact(3)
            .map(|pixel| 0.2126 * f32::from(pixel[0]) + 0.7152 * f32::from(pixel[1]) + 0.0722 * f32::from(pixel[2]));
        Plane { width: self.width, height: self.height, of: of.collect() }
    }
}
