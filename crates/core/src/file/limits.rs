//! The ranges of a site's limits and stated uncertainties: what the file may say, and what a dial offers.

use super::{ProvingRules, Rules, Uncertainties, WirePrices, WiringRules};

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

macro_rules! prices {
    ($($field:ident),*) => {
        [$(Limit { field: stringify!($field), unit: "", range: [0.0, 1_000_000.0], of: |held: &WirePrices| held.$field.unwrap_or(0.0) }),*]
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

/// What wiring may take and give.
pub const WIRING: [Limit<WiringRules>; 13] = limits! { WiringRules:
    channel_m [1.0, 1000.0], " m";
    sure_m [1.0, 1000.0], " m";
    extended_m [1.0, 2000.0], " m";
    extended_pair_m [1.0, 2000.0], " m";
    extended_mbps [1.0, 10000.0], " Mbit/s";
    passes_w [0.0, 100.0], " W";
    free_share [0.0, 0.9], "";
    cord_drop_share [0.01, 0.9], "";
    slack_share [0.0, 1.0], "";
    housing_m [0.0, 10.0], " m";
    signal_dbm [-100.0, 0.0], " dBm";
    rate_less_share [0.0, 0.9], "";
    rate_more_share [0.0, 5.0], "";
};

/// From where on a difference is told, and what is due how often.
pub const PROVING: [Limit<ProvingRules>; 14] = limits! { ProvingRules:
    moved_deg [0.05, 45.0], "°";
    sharpness_share [0.05, 1.0], "";
    contrast_share [0.05, 1.0], "";
    light_share [0.01, 1.0], "";
    region_share [0.005, 1.0], "";
    grown_share [0.002, 1.0], "";
    clock_s [1.0, 86_400.0], " s";
    density_share [0.01, 1.0], "";
    cover_months [1.0, 120.0], " months";
    pictures_months [1.0, 120.0], " months";
    playback_months [1.0, 120.0], " months";
    firmware_months [1.0, 120.0], " months";
    password_months [1.0, 120.0], " months";
    joints_months [1.0, 120.0], " months";
};

/// What laying it costs; zero where nobody has said.
pub const WIRE_PRICES: [Limit<WirePrices>; 10] = prices! {
    wall, ceiling, conduit, trench, dig, air, switch_8, switch_16, small_box, fibre_ends
};
