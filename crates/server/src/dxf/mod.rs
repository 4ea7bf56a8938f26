//! Outlines from and to DXF, through a library that reads and writes it. Whatever it makes of a broken file is an answer, never a fall.

mod curves;
mod opened;
mod sieve;
mod text;
mod unit;
mod write;

pub use unit::Unit;
pub use write::write;

use bright_angle_core::Fault;
use bright_angle_core::exchange::{Found, Import, LeftOut, take};
use dxf::Drawing;
use opened::opened;

/// What the header's project is called in a plan of ours.
const PROJECT: &str = "Bright Angle plan";
/// The layers of such a plan that hold no solids; those of coverage begin so.
const NO_SOLIDS: [&str; 10] = [
    "promises",
    "spots",
    "cameras",
    "aims",
    "private places",
    "public ground",
    "neighbours' ground",
    "cables",
    "boxes",
    "cable ways",
];
const COVERAGE: &str = "coverage ";

/// So many corners and things a drawing may have, its blocks opened.
const MOST_POINTS: usize = 400_000;
const MOST_THINGS: usize = 100_000;

/// What a DXF file brings, text or binary.
///
/// # Errors
/// What cannot be read, holds too much, or nothing that can be taken.
pub fn read(bytes: &[u8], unit: Option<Unit>) -> Result<Import, Fault> {
    let bad = |why: String| Fault::new("file", format!("is no DXF that can be read: {why}"));
    let (text, unknown_page) = text::text_of(bytes)?;
    let sieved = sieve::sieve(&text, sieve::Most { things: MOST_THINGS, corners: MOST_POINTS })?;
    // The library was written for files of programs that write it well.
    let loaded =
        std::panic::catch_unwind(|| Drawing::load_with_encoding(&mut sieved.text.as_bytes(), encoding_rs::UTF_8));
    let drawing = match loaded {
        Ok(Ok(drawing)) => drawing,
        Ok(Err(error)) => return Err(bad(error.to_string())),
        Err(_) => return Err(bad("it is broken inside".to_owned())),
    };
    let (scale, says) = match (unit, unit::of_header(drawing.header.default_drawing_units)) {
        (Some(unit), _) => (unit.metres().0, format!("{}, as was chosen", unit.metres().1)),
        (None, Some((scale, word))) => (scale, format!("{word}, by its header")),
        (None, None) => (1.0, "metres: its header names no unit".to_owned()),
    };
    let mut found = opened(&drawing, scale)?;
    if drawing.header.project_name == PROJECT {
        let is_solid = |layer: &str| !NO_SOLIDS.contains(&layer) && !layer.starts_with(COVERAGE);
        found.drawn.retain(|one| is_solid(&one.layer));
        found.points.retain(|one| is_solid(&one.layer));
        found.texts.retain(|one| is_solid(&one.layer));
    }
    let page = unknown_page.map(|page| LeftOut {
        source: format!("code page {page}"),
        layer: String::new(),
        why: "is not known here: names may have wrong letters".to_owned(),
    });
    let left_out = page.into_iter().chain(found.left_out).collect();
    take(says, Found { left_out, holds: sieved.holds, ..found })
}
