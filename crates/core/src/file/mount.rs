//! What a camera hangs by: the surface, what is behind it, and the parts of its mount in order from the surface outwards.

use super::{Form, Point2};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What a mount is screwed to.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Surface {
    /// Boards, beams, a soffit of wood.
    Wood,
    /// Bricks.
    Brick,
    /// Hollow blocks.
    Block,
    /// Concrete.
    Concrete,
    /// Render over insulation or lath.
    Stucco,
    /// Plasterboard.
    Plasterboard,
    /// Tiles of a hung ceiling.
    CeilingTile,
    /// Cladding of thin metal.
    SheetMetal,
    /// A steel beam, or a pole.
    Steel,
}

impl Surface {
    /// The word for it.
    pub fn word(self) -> &'static str {
        match self {
            Surface::Wood => "wood",
            Surface::Brick => "brick",
            Surface::Block => "hollow block",
            Surface::Concrete => "concrete",
            Surface::Stucco => "render",
            Surface::Plasterboard => "plasterboard",
            Surface::CeilingTile => "ceiling tile",
            Surface::SheetMetal => "sheet metal",
            Surface::Steel => "steel",
        }
    }

    /// The surface that a surveyor's words name, as in `brick, painted`.
    ///
    /// ```
    /// use bright_angle_core::file::Surface;
    /// assert_eq!(Surface::named("Steel cladding"), Some(Surface::SheetMetal));
    /// ```
    pub fn named(words: &str) -> Option<Surface> {
        let words = words.to_lowercase();
        let known = [
            (&["cladding", "sheet metal", "corrugated"][..], Surface::SheetMetal),
            (&["tile"], Surface::CeilingTile),
            (&["plaster", "drywall", "gypsum"], Surface::Plasterboard),
            (&["stucco", "render"], Surface::Stucco),
            (&["block"], Surface::Block),
            (&["brick"], Surface::Brick),
            (&["concrete", "stone"], Surface::Concrete),
            (&["wood", "timber", "board", "oak", "pine"], Surface::Wood),
            (&["steel", "metal", "iron", "pole"], Surface::Steel),
        ];
        known.into_iter().find(|(named, _)| named.iter().any(|word| words.contains(word))).map(|(_, surface)| surface)
    }

    /// Whether there is room behind it for a plug and for tails.
    pub fn is_hollow(self) -> bool {
        matches!(self, Surface::Plasterboard | Surface::CeilingTile | Surface::SheetMetal | Surface::Wood)
    }
}

/// What is behind a surface.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Behind {
    /// The same stuff goes on.
    Solid,
    /// Room for a hand's breadth of cable.
    Cavity,
    /// Soft insulation.
    Insulation,
}

/// Where a cable comes in.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CableEntry {
    /// Through the surface behind it.
    Back,
    /// By the side, from below.
    Below,
    /// By the side, level.
    Side,
    /// By the side, from above.
    Above,
}

/// From what it is put up and looked after.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Access {
    /// A ladder.
    Ladder,
    /// A lift or a tower.
    Lift,
    /// A roof or a floor that one stands on.
    Roof,
}

/// A sort of part.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PartKind {
    /// A plate that spreads a load, or turns one hole pattern into another.
    Plate,
    /// A box behind a camera, for its joints.
    BackBox,
    /// Around an outside corner.
    Corner,
    /// Out from a wall.
    Arm,
    /// What a camera hangs from at the end of an arm or a pipe.
    Cap,
    /// A pipe down from a ceiling.
    Pipe,
    /// Over a parapet, swinging in for service.
    Parapet,
    /// Around a pole.
    PoleStrap,
    /// In a ceiling.
    CeilingRing,
    /// Around a box camera.
    Housing,
}

/// A part of a mount.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MountPart {
    /// Its id, unique in its mount.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// What it is.
    pub kind: PartKind,
    /// What it weighs, kg.
    pub weight_kg: f64,
    /// What it is rated to carry, kg.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub carries_kg: Option<f64>,
    /// How far it brings the camera out, m.
    #[serde(default, skip_serializing_if = "super::is_zero")]
    pub reach_m: f64,
    /// How far it brings the camera down, m.
    #[serde(default, skip_serializing_if = "super::is_zero")]
    pub drop_m: f64,
    /// How high its plate on the surface is, m.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub plate_m: Option<f64>,
    /// How many screws hold it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub screws: Option<u32>,
    /// Whether it has room for a camera's tails and their joints.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub holds_tails: bool,
    /// The widest conduit that it takes at its side, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub conduit_mm: Option<f64>,
    /// The forms of camera that fit; all where left out.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub forms: Vec<Form>,
    /// What has to be bought with it, as it does not come with it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub bought_with: Vec<String>,
    /// What one costs, in the firm's own money.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub price: Option<f64>,
}

/// What a camera hangs by. What is left out is not judged, or is as its spot says.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct Mount {
    /// What it is screwed to.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub surface: Option<Surface>,
    /// What is behind that.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub behind: Option<Behind>,
    /// Its parts, from the surface outwards.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub parts: Vec<MountPart>,
    /// The place where it is screwed on, m; the camera hangs off it by the reach of its parts.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(value_type = Option<[f64; 2]>)]
    pub foot: Option<Point2>,
    /// The height of that place over its ground, m.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub foot_height_m: Option<f64>,
    /// The bearing in which it stands out from there, degrees.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub out_deg: Option<f64>,
    /// Where its cable comes in.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub entry: Option<CableEntry>,
    /// The conduit that its cable comes in, mm; none where left out.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub conduit_mm: Option<f64>,
    /// Whether its cable has its plug on before it goes through the seal.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub crimped_before: Option<bool>,
    /// How many holes its seal has.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub seal_holes: Option<u32>,
    /// How far the middle of its plate is from the nearest edge or corner of the surface, m.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub edge_m: Option<f64>,
    /// From what it is put up and looked after.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub access: Option<Access>,
}

impl Mount {
    /// How far its parts bring the camera out and down, m.
    pub fn offset_m(&self) -> [f64; 2] {
        let sum = |of: fn(&MountPart) -> f64| self.parts.iter().map(of).sum();
        [sum(|part| part.reach_m), sum(|part| part.drop_m)]
    }

    /// Whether a part of a sort is in it.
    pub fn has(&self, kind: PartKind) -> bool {
        self.parts.iter().any(|part| part.kind == kind)
    }
}
