//! Pictures that are kept as evidence, and how the camera hung that took them.

use super::{Aimed, HeadRef, Point2};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A picture as it came from a camera, unaltered.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Evidence {
    /// Its name in the store: the SHA-256 of its bytes as they came, in hex.
    pub picture: String,
    /// Its width, px.
    pub width_px: f64,
    /// Its height, px.
    pub height_px: f64,
}

/// How a camera hung when its picture was taken: what was found then says nothing of one that hangs otherwise.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Hung {
    /// Where.
    #[schema(value_type = [f64; 2])]
    pub position: Point2,
    /// How high, m.
    pub height_m: f64,
    /// Aim and focal length of the view.
    pub aimed: Aimed,
    /// The model's name.
    pub model: String,
}

/// So far off a place and an aim are still the same: m, degrees, and the focal length as a share.
const SAME_M: f64 = 0.01;
const SAME_DEG: f64 = 0.05;
const SAME_FOCAL: f64 = 0.001;

impl Hung {
    /// Whether it hangs where it hung.
    pub fn same_place(&self, now: &Hung) -> bool {
        let apart = |axis: usize| (self.position[axis] - now.position[axis]).abs() > SAME_M;
        !apart(0) && !apart(1) && (self.height_m - now.height_m).abs() <= SAME_M
    }

    /// What is otherwise now, in words; `None` where nothing is.
    pub fn differs(&self, now: &Hung) -> Option<&'static str> {
        let turned = |a: f64, b: f64| ((a - b + 180.0).rem_euclid(360.0) - 180.0).abs() > SAME_DEG;
        let (then, now_at) = (&self.aimed, &now.aimed);
        if self.model != now.model {
            Some("it is another camera now")
        } else if !self.same_place(now) {
            Some("it hangs elsewhere now")
        } else if turned(then.pan_deg, now_at.pan_deg)
            || turned(then.tilt_deg, now_at.tilt_deg)
            || turned(then.roll_deg, now_at.roll_deg)
        {
            Some("it looks elsewhere now")
        } else if (then.focal_mm / now_at.focal_mm - 1.0).abs() > SAME_FOCAL {
            Some("its lens is set otherwise now")
        } else {
            None
        }
    }
}

/// The view that something was found with, as a name.
pub(crate) fn view_of(camera: &str, head: &str, view: Option<&str>) -> HeadRef {
    HeadRef { camera: camera.to_owned(), head: head.to_owned(), view: view.map(str::to_owned) }
}
