//! A camera's pictures over the years: the one that is kept at hand-over, and later ones held against it.

use super::evidence::view_of;
use super::{Evidence, HeadRef, Hung};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A picture of a camera that is kept.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Snapshot {
    /// Its id.
    pub id: String,
    /// The camera's id.
    pub camera: String,
    /// The head's id.
    pub head: String,
    /// The id of the preset or flattened view; its own aim where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub view: Option<String>,
    /// When it was taken, as in `2026-11-24T14:02:00Z`.
    pub at: String,
    /// Who took it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub by: Option<String>,
    /// By night.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub night: bool,
    /// The picture.
    pub picture: Evidence,
    /// How the camera hung by the file.
    pub hung: Hung,
    /// By how many seconds the camera's own clock was fast, where it said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub clock_off_s: Option<f64>,
    /// What it was held against, and what differed; a reference where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub against: Option<Against>,
}

/// What a later picture was held against, and what came of it.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = HeldAgainst)]
pub struct Against {
    /// The reference's id among the snapshots.
    pub reference: String,
    /// What differs.
    pub found: Compared,
}

impl Snapshot {
    /// The view that took it.
    pub fn head_ref(&self) -> HeadRef {
        view_of(&self.camera, &self.head, self.view.as_deref())
    }
}

/// What differs.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[schema(as = PictureDiffers)]
pub enum Differs {
    /// The camera turned, or its lens was set otherwise.
    Moved,
    /// It is out of focus.
    OutOfFocus,
    /// Contrast is lost: a dirty cover, haze, light into the lens.
    Hazed,
    /// Something hides what was seen.
    Blocked,
    /// There is less light.
    Darker,
}

/// How a camera turned.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = PictureMoved)]
pub struct Moved {
    /// To the right, degrees.
    pub right_deg: f64,
    /// Down, degrees.
    pub down_deg: f64,
    /// Clockwise as seen from behind, degrees.
    pub roll_deg: f64,
    /// Over 1: zoomed in.
    pub scale: f64,
}

/// A part of the picture in which something differs.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Region {
    /// What.
    pub kind: Differs,
    /// Left, top, right, bottom, px of the later picture.
    pub box_px: [f64; 4],
    /// How much of the picture it is.
    pub share: f64,
}

/// A comparison. Names and meanings: the site-file contract, *Compare*.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Compared {
    /// What differs for the worse.
    pub says: Vec<Differs>,
    /// How the camera turned; null where the pictures do not tell.
    #[schema(required)]
    pub moved: Option<Moved>,
    /// Sharpness, later over reference.
    pub sharpness_share: f64,
    /// Contrast.
    pub contrast_share: f64,
    /// Light.
    pub light_share: f64,
    /// Where something differs.
    pub regions: Vec<Region>,
    /// Which tiles are hidden, however few: growth is what stays hidden over several pictures.
    #[serde(default, skip_serializing_if = "HiddenTiles::is_empty")]
    #[schema(required = false)]
    pub hidden: HiddenTiles,
}

/// Tiles of a picture that something hides.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HiddenTiles {
    /// So many in a row.
    pub columns: usize,
    /// Rows.
    pub rows: usize,
    /// Those that are hidden, by their place row by row.
    pub places: Vec<usize>,
}

impl HiddenTiles {
    /// Whether none is.
    pub fn is_empty(&self) -> bool {
        self.places.is_empty()
    }
}
