//! What a camera does when something happens: zones of its picture, hours, alarm lines, who is told (handbook, section 13).

use super::Point2;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What a camera does when something happens.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct Reacts {
    /// Zones of its picture.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub zones: Vec<PictureZone>,
    /// At which hours, as in `18 to 7, all of Sunday`.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub hours: Option<String>,
    /// What comes in on its alarm line.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub alarm_in: Option<String>,
    /// What goes out on its alarm line.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub alarm_out: Option<String>,
    /// Who is told what.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub tells: Option<String>,
    /// A voice or a light that it uses; local law first.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub voice: Option<String>,
}

/// A zone of a picture.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PictureZone {
    /// Its id, unique in its camera.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// The head's id.
    pub head: String,
    /// Whether what happens in it counts; else it is left out.
    pub counts: bool,
    /// Its corners, shares of the picture's width and height from the top-left corner.
    #[schema(value_type = Vec<[f64; 2]>)]
    pub corners: Vec<Point2>,
}
