//! How far a stated figure may be off, and the corners of the box that makes.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How a target's distance was got.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DistanceHow {
    /// Read off the plan.
    #[default]
    Plan,
    /// Measured with a laser rangefinder.
    Laser,
    /// Guessed by eye.
    Guess,
}

/// How a target's distance was got, for its uncertainty.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Distance {
    /// Plan, laser or guess.
    pub how: DistanceHow,
    /// Its own uncertainty from wherever it is looked at, ± m, in place of the blanket one; it comes out of an adjustment.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub plus_minus_m: Option<f64>,
    /// Its own uncertainty from a spot, along the line: what was measured between the two is known better than where either is.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub from: Vec<FromSpot>,
}

/// How well the distance from a spot is known.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FromSpot {
    /// The spot's id.
    pub spot: String,
    /// ± m.
    pub plus_minus_m: f64,
}

/// The stated uncertainties (handbook, section 4, "Verdicts"): defaults that a firm can change.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct Uncertainties {
    /// Distance measured by laser, ± m.
    #[schema(required = false)]
    pub laser_m: f64,
    /// Distance read off the plan, ± this share of it …
    #[schema(required = false)]
    pub plan_share: f64,
    /// … plus this, ± m.
    #[schema(required = false)]
    pub plan_m: f64,
    /// Distance guessed by eye, ± this share of it.
    #[schema(required = false)]
    pub guess_share: f64,
    /// Height, ± m.
    #[schema(required = false)]
    pub height_m: f64,
    /// Aim in pan and in tilt, ± degrees.
    #[schema(required = false)]
    pub aim_deg: f64,
    /// Focal length of a fixed lens, ± share.
    #[schema(required = false)]
    pub focal_share: f64,
    /// Focal length of a zoom set on site, ± share.
    #[schema(required = false)]
    pub zoom_focal_share: f64,
}

impl Default for Uncertainties {
    fn default() -> Self {
        Uncertainties {
            laser_m: 0.05,
            plan_share: 0.02,
            plan_m: 0.25,
            guess_share: 0.10,
            height_m: 0.05,
            aim_deg: 1.0,
            focal_share: 0.03,
            zoom_focal_share: 0.01,
        }
    }
}

impl Uncertainties {
    /// How far a ground distance may be off, ± m: what an adjustment found for a camera on this spot, else for the target, else the
    /// blanket figure.
    pub fn distance(&self, distance: &Distance, spot: Option<&str>, ground_m: f64) -> f64 {
        let of_spot = distance.from.iter().find(|from| Some(from.spot.as_str()) == spot);
        if let Some(own) = of_spot.map(|from| from.plus_minus_m).or(distance.plus_minus_m) {
            return own;
        }
        match distance.how {
            DistanceHow::Laser => self.laser_m,
            DistanceHow::Plan => self.plan_share * ground_m + self.plan_m,
            DistanceHow::Guess => self.guess_share * ground_m,
        }
    }

    /// How far a focal length may be off, ± share.
    pub fn focal(&self, zoom: bool) -> f64 {
        if zoom { self.zoom_focal_share } else { self.focal_share }
    }
}
