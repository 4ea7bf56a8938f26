//! A country's number plate as data.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What a plate is like besides its size, which is the target's.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PlateKind {
    /// What the kind is called.
    pub name: String,
    /// Height of its characters, m.
    pub character_m: f64,
    /// Width of their strokes, m.
    pub stroke_m: f64,
    /// Whether it throws infrared light back to where it came from.
    pub reflecting: bool,
    /// The density that reading it takes in place of the task's, px/m.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub needs_px_per_m: Option<f64>,
}

impl Default for PlateKind {
    /// The one that sizes are told for where nobody said which (handbook, sections 5 and 10; from memory).
    fn default() -> Self {
        PlateKind {
            name: "European".to_owned(),
            character_m: 0.079,
            stroke_m: 0.014,
            reflecting: true,
            needs_px_per_m: None,
        }
    }
}

/// A kind of plate with its usual size.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct KnownPlate {
    /// Width and height, m.
    pub size_m: [f64; 2],
    /// What it is like.
    pub plate: PlateKind,
    /// Where the figures come from.
    pub basis: &'static str,
}

/// The kinds that can be chosen from.
pub fn known_plates() -> Vec<KnownPlate> {
    let plain = PlateKind { name: "European, not reflecting".to_owned(), reflecting: false, ..PlateKind::default() };
    let north_american = PlateKind {
        name: "North American".to_owned(),
        // 2.5 in high at least, strokes of 0.2 to 0.4 in: the least of each is what has to be read.
        character_m: 0.0635,
        stroke_m: 0.2 * 0.0254,
        reflecting: true,
        needs_px_per_m: None,
    };
    vec![
        KnownPlate { size_m: [0.52, 0.11], plate: PlateKind::default(), basis: "UK regulations of 2001, from memory" },
        KnownPlate { size_m: [0.52, 0.11], plate: plain, basis: "UK regulations of 2001, from memory" },
        KnownPlate { size_m: [0.305, 0.152], plate: north_american, basis: "AAMVA standard, from memory" },
    ]
}
