//! The ranges of a site's limits and stated uncertainties: what the file may say, and what a dial offers.

use super::{Rules, Uncertainties};

/// A figure of some settings with the range that it may take.
pub struct Limit<Of> {
    /// Its name in the file.
    pub field: &'static str,
    /// The unit, as it is said after the figure.
    pub unit: &'static str,
    /// The least and the greatest.
    pub range: [f64; 2],
    /// What the settings say.
    pub of: fn(&Of) -> f64,
}

macro_rules! limits {
    ($of:ty: $($field:ident $range:expr, $unit:literal;)*) => {
        [$(Limit { field: stringify!($field), unit: $unit, range: $range, of: |held: &$of| held.$field }),*]
    };
}

/// The limits of a site.
pub const LIMITS: [Limit<Rules>; 26] = limits! { Rules:
    identify_turned_kept_deg [0.0, 90.0], "°";
    identify_turned_tight_deg [0.0, 90.0], "°";
    recognise_turned_kept_deg [0.0, 90.0], "°";
    recognise_turned_tight_deg [0.0, 90.0], "°";
    face_kept_deg [0.0, 90.0], "°";
    face_tight_deg [0.0, 90.0], "°";
    level_side_deg [0.0, 90.0], "°";
    level_vertical_deg [0.0, 90.0], "°";
    raised_side_deg [0.0, 90.0], "°";
    raised_vertical_deg [0.0, 90.0], "°";
    hidden_small_share [0.0, 0.9], "";
    hidden_large_share [0.0, 0.9], "";
    mount_min_m [0.1, 100.0], " m";
    mount_max_m [0.1, 100.0], " m";
    usual_max_m [0.1, 100.0], " m";
    looks_kept [1.0, 1000.0], "";
    looks_tight [1.0, 1000.0], "";
    tour_chance [0.0, 1.0], "";
    blur_kept_px [0.01, 100.0], " px";
    zone_stops [0.1, 20.0], " stops";
    lane_width_m [1.0, 100.0], " m";
    washed_out_stops [0.5, 20.0], " stops";
    overexposed_times [1.1, 1000.0], " times";
    retro_times [1.0, 1000.0], " times";
    backlit_deg [0.0, 90.0], "°";
    lamp_near_deg [0.0, 90.0], "°";
};

/// What a site's verdicts hold at worst.
pub const UNCERTAINTIES: [Limit<Uncertainties>; 14] = limits! { Uncertainties:
    laser_m [0.0, 10.0], " m";
    plan_share [0.0, 0.9], "";
    plan_m [0.0, 10.0], " m";
    guess_share [0.0, 0.9], "";
    laser_across_m [0.0, 10.0], " m";
    plan_across_m [0.0, 10.0], " m";
    guess_across_m [0.0, 10.0], " m";
    guess_across_share [0.0, 0.9], "";
    height_m [0.0, 10.0], " m";
    camera_height_m [0.0, 10.0], " m";
    roll_deg [0.0, 45.0], "°";
    aim_deg [0.0, 45.0], "°";
    focal_share [0.0, 0.9], "";
    zoom_focal_share [0.0, 0.9], "";
};
