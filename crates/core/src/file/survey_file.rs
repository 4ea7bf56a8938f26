//! What the survey adds to the site file: spots, readings, the brief, the drawing, photos. All of it may be left out.

use super::{Height, Point2};
use crate::math;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How well a drawn position is known unless the file says better, ± m (one standard deviation).
pub const DRAWN_SIGMA_M: f64 = 0.5;
/// How well a reading is known unless the file says better, ± m (one standard deviation).
pub const READING_SIGMA_M: f64 = 0.02;

/// A place that a camera can be mounted at.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Spot {
    /// Its id, unique among spots and targets.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// Where it is.
    #[schema(value_type = [f64; 2])]
    pub position: Point2,
    /// Height available, m.
    pub height_m: f64,
    /// Height of the ground at its foot, m; `height_m` is over it.
    #[serde(default, skip_serializing_if = "super::is_zero")]
    pub ground_m: f64,
    /// How well the drawn position is known: one standard deviation, m; 0.5 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub position_sigma_m: Option<f64>,
    /// Whether the position is known and must not move.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub fixed: bool,
    /// What sort of place it is.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub kind: Option<SpotKind>,
    /// What it is made of, as in `brick` or `steel cladding`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub surface: Option<String>,
    /// Whether a back box is needed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub back_box: Option<bool>,
    /// Length of the cable way to the recorder, an estimate, m.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cable_m: Option<f64>,
    /// Whether it is outdoors.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub outdoor: Option<bool>,
    /// Whether somebody standing can reach it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub in_reach: Option<bool>,
    /// What becomes of the hole and the box that were there before; new where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub existing: Option<Existing>,
    /// Anything else.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub note: Option<String>,
    /// Its photos.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub photos: Vec<Photo>,
}

impl Spot {
    /// A spot at the origin, with nothing said of it but its name.
    pub fn named(id: &str, name: &str) -> Spot {
        Spot {
            id: id.to_owned(),
            name: name.to_owned(),
            position: [0.0, 0.0],
            height_m: 0.0,
            ground_m: 0.0,
            position_sigma_m: None,
            fixed: false,
            kind: None,
            surface: None,
            back_box: None,
            cable_m: None,
            outdoor: None,
            in_reach: None,
            existing: None,
            note: None,
            photos: vec![],
        }
    }
}

/// What becomes of something that was there before.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Existing {
    /// It stays as it is.
    Stays,
    /// It is taken down: nothing counts on it.
    Goes,
    /// It is used again, here.
    Reused,
}

/// What sort of place a spot is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SpotKind {
    /// Where two walls meet and a camera sees both.
    InsideCorner,
    /// The underside of a roof's overhang.
    Soffit,
    /// A plain wall.
    Wall,
    /// A pole or post.
    Pole,
    /// The top of a wall or roof edge.
    Parapet,
    /// A ceiling.
    Ceiling,
    /// A tree.
    Tree,
}

/// A photo that is kept beside the file.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Photo {
    /// The picture's name in the store: the SHA-256 of its bytes, in hex.
    pub picture: String,
    /// What it shows.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub note: Option<String>,
    /// Where it was taken, if the surveyor keeps that: degrees north, degrees east.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(value_type = Option<[f64; 2]>)]
    pub taken_at: Option<Point2>,
    /// Its width and height, px, where points were clicked in it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(value_type = Option<[f64; 2]>)]
    pub size_px: Option<[f64; 2]>,
    /// Known points that were clicked in it: four of them tell how it was held, and a camera's view can be laid into it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub marks: Vec<PhotoMark>,
}

/// A point of the site, where it was clicked in a photo.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PhotoMark {
    /// What it is, from the ids of the file.
    pub id: String,
    /// Where it is: east, north and up, m.
    pub at: [f64; 3],
    /// How well that is known, m each way; surely where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sigma_m: Option<f64>,
    /// Where it is in the photo: right from its left edge, down from its top edge, px.
    pub px: [f64; 2],
}

/// One measured distance.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Reading {
    /// Its id, unique among the readings.
    pub id: String,
    /// The id of the spot or point target that it was taken from.
    pub from: String,
    /// The id of the spot or point target that it was taken to.
    pub to: String,
    /// Slope distance, m: the mean of the shots where there are several.
    pub slope_m: f64,
    /// Inclination if the device gave it, degrees above the horizontal.
    #[serde(default)]
    pub inclination_deg: Option<f64>,
    /// Height that it was taken from, m; the point's own where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub from_height_m: Option<f64>,
    /// Height that it was taken to, m; the point's own where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub to_height_m: Option<f64>,
    /// How well it is known: one standard deviation, m; 0.02 where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sigma_m: Option<f64>,
    /// Whether it takes part; one that was thrown out stays on record.
    #[serde(default = "used")]
    pub used: bool,
    /// The shots that it is the mean of, slope distances, m.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub shots_m: Vec<f64>,
    /// The inclinations of these shots as seen from `from`, degrees above the horizontal, null where the device gave none; empty
    /// where they were not kept.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub shots_deg: Vec<Option<f64>>,
    /// Who took it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub by: Option<String>,
    /// When, as in `2026-11-24T14:02:00Z`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub taken: Option<String>,
    /// With which device.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub device: Option<String>,
    /// Anything else.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub note: Option<String>,
}

fn used() -> bool {
    true
}

/// What the client was asked, so that nobody has to ring back.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct Brief {
    /// Who the client is.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub client: Option<String>,
    /// How to reach the client.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub contact: Option<String>,
    /// Where the site is.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub address: Option<String>,
    /// What sort of site it is.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub kind: Option<SiteKind>,
    /// The main worry, in the client's words.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub worry: Option<String>,
    /// What must be seen, in the client's words.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub must_see: Option<String>,
    /// Days of recording that are kept.
    #[serde(skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1, maximum = 3660)]
    pub retention_days: Option<u32>,
    /// Where the recorder goes.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub recorder_place: Option<String>,
    /// Wishes for colour, as in `black`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub colour: Option<String>,
    /// Wishes for style, as in `domes, unobtrusive`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub style: Option<String>,
    /// Whether sound is wanted; local law may forbid it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub sound: Option<bool>,
    /// Who may see recordings.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub viewers: Option<String>,
    /// Hours of work on the site.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub hours: Option<String>,
    /// Lighting at night.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub night_light: Option<String>,
    /// Access for the fitters: ladder, lift, permit.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub access: Option<String>,
    /// Neighbours and private places to keep out of view.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub private_places: Option<String>,
    /// Who decides.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub decides: Option<String>,
}

/// What sort of site it is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SiteKind {
    /// A home.
    Home,
    /// A shop.
    Shop,
    /// An office.
    Office,
    /// A yard.
    Yard,
    /// Anything else.
    Other,
}

impl Reading {
    /// Horizontal distance, m, between two heights: slope·cos(inclination), or √(slope² − Δh²) without an inclination; `None`
    /// where the slope is shorter than the heights are apart.
    pub(crate) fn horizontal_m(&self, from: Height, to: Height) -> Option<f64> {
        let at = |given: Option<f64>, height: Height| given.unwrap_or(height.over_ground) + height.ground;
        let rise = at(self.to_height_m, to) - at(self.from_height_m, from);
        math::horizontal_m(self.slope_m, self.inclination_deg, rise)
    }
}
