//! World files (`.pgw`, `.jgw`): six numbers, a line each, that say how a picture lies on the ground.

use crate::file::Fault;
use crate::file::drawing::SCALES;
use serde::Serialize;
use utoipa::ToSchema;

/// How far a picture may be sheared or stretched and still be drawn as it is, share.
const SQUARE_WITHIN: f64 = 0.01;

/// What a world file says of a picture's scale and turn. Where on Earth it lies is of no use here.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, ToSchema)]
pub struct WorldFile {
    /// Scale, m per px.
    pub metres_per_px: f64,
    /// The bearing that the picture's top points to, degrees.
    pub turn_deg: f64,
}

impl WorldFile {
    /// The same for a picture that was scaled down to this share of its width: its pixels are larger.
    pub fn of_picture_scaled_to(self, share: f64) -> Self {
        WorldFile { metres_per_px: self.metres_per_px / share, ..self }
    }
}

/// Reads a world file: A, D, B, E, C, F with x = A·u + B·v + C, y = D·u + E·v + F. (Esri's plain-text convention, from memory.)
///
/// # Errors
/// Names the line at fault.
///
/// ```
/// use bright_angle_core::survey::drawing::parse_world_file;
/// let found = parse_world_file("0.1\n0\n0\n-0.1\n500000\n5900000\n").unwrap();
/// assert_eq!((found.metres_per_px, found.turn_deg), (0.1, 0.0));
/// ```
pub fn parse_world_file(text: &str) -> Result<WorldFile, Fault> {
    let lines: Vec<&str> =
        text.trim_start_matches('\u{feff}').lines().map(str::trim).filter(|l| !l.is_empty()).collect();
    if lines.len() != 6 {
        return Err(Fault::new("", format!("a world file has six lines with a number each, this has {}", lines.len())));
    }
    let mut n = [0.0; 6];
    for (place, line) in lines.iter().enumerate() {
        let value: Option<f64> = line.replace(',', ".").parse().ok().filter(|value: &f64| value.is_finite());
        let shown: String = line.chars().take(40).collect();
        n[place] =
            value.ok_or_else(|| Fault::new(format!("line {}", place + 1), format!("\"{shown}\" is no number")))?;
    }
    let [a, d, b, e, ..] = n;
    // The picture's right is (a, d), its up is (−b, −e): both as long, and square to each other.
    let (across, up) = (a.hypot(d), b.hypot(e));
    if !SCALES.contains(&across) {
        let message = format!("{across} m per px is no scale of a site (is it in degrees?)");
        return Err(Fault::new("line 1", message));
    }
    let square = (across - up).abs() <= SQUARE_WITHIN * across
        && (a * b + d * e).abs() <= SQUARE_WITHIN * across * up
        && a * e - b * d < 0.0;
    if !square {
        return Err(Fault::new("", "stretches, shears or mirrors the picture; set its scale by a distance instead"));
    }
    let turn = (-b).atan2(-e).to_degrees();
    Ok(WorldFile { metres_per_px: 0.5 * (across + up), turn_deg: if turn == 0.0 { 0.0 } else { turn } })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_turned_picture() {
        // Top to the east (90°), 0.25 m per px: right is south, so one px right is y − 0.25; one px down is x − 0.25.
        let found = parse_world_file("0\n-0.25\n-0.25\n0\n10\n20").unwrap();
        assert!((found.metres_per_px - 0.25).abs() < 1e-12 && (found.turn_deg - 90.0).abs() < 1e-9);
    }

    #[test]
    fn nonsense_is_named() {
        let first = |text: &str| parse_world_file(text).unwrap_err().to_string();
        assert!(first("").contains("this has 0"));
        assert!(first("0.1\n0\n0\n-0.1\nfar\n1").starts_with("line 5: \"far\""));
        assert!(first("0.1\n0\n0\n-0.1\nNaN\n1").starts_with("line 5: "));
        assert!(first("0.000001\n0\n0\n-0.000001\n8\n53").contains("degrees"));
        assert!(first("0.1\n0\n0\n-0.3\n0\n0").contains("stretches"));
        assert!(first("0.1\n0\n0\n0.1\n0\n0").contains("mirrors"));
        assert!(first("1e308\n0\n0\n-1e308\n0\n0").contains("no scale"));
    }
}
