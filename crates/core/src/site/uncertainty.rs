//! How far a stated figure may be off (handbook, section 4, "Verdicts").

use crate::file::{Distance, DistanceHow, Uncertainties};

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

    /// How far a target may lie to either side of the line to it, ± m: what an adjustment found for it, else the blanket figure.
    pub fn across(&self, distance: &Distance, ground_m: f64) -> f64 {
        if let Some(own) = distance.plus_minus_m {
            return own;
        }
        match distance.how {
            DistanceHow::Laser => self.laser_across_m,
            DistanceHow::Plan => self.plan_across_m,
            DistanceHow::Guess => self.guess_across_m + self.guess_across_share * ground_m,
        }
    }

    /// How far the height of a target over or under a camera may be off, ± m: both ends count.
    pub fn rise(&self) -> f64 {
        self.height_m + self.camera_height_m
    }

    /// How far a focal length may be off, ± share.
    pub fn focal(&self, zoom: bool) -> f64 {
        if zoom { self.zoom_focal_share } else { self.focal_share }
    }
}
