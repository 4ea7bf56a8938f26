//! The limits and the stated uncertainties of a site: settings that a firm can change.

use super::proving_rules::ProvingRules;
use super::task::NeedSet;
use super::wiring_rules::WiringRules;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The limits of a site. Each has the handbook's value unless the firm sets its own.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct Rules {
    /// Which table of needs applies.
    #[schema(required = false)]
    pub needs: NeedSet,
    /// Which school of plate cameras applies.
    #[schema(required = false)]
    pub plate_school: PlateSchool,
    /// Which school of overlap the client wishes for, if any; it changes advice and ranking, no verdict.
    #[schema(required = false)]
    #[serde(skip_serializing_if = "Option::is_none")]
    pub overlap: Option<OverlapSchool>,
    /// Face seen from above: kept up to this depression, degrees …
    #[schema(required = false)]
    pub face_kept_deg: f64,
    /// … tight up to this one, broken past it.
    #[schema(required = false)]
    pub face_tight_deg: f64,
    /// Turned away, to identify or inspect: kept up to this angle off the face's own direction, degrees …
    #[schema(required = false)]
    pub identify_turned_kept_deg: f64,
    /// … tight up to this one, broken past it.
    #[schema(required = false)]
    pub identify_turned_tight_deg: f64,
    /// Turned away, to recognise: kept up to this angle, degrees …
    #[schema(required = false)]
    pub recognise_turned_kept_deg: f64,
    /// … tight up to this one, broken past it.
    #[schema(required = false)]
    pub recognise_turned_tight_deg: f64,
    /// Greatest share of a face or a plate that may be hidden.
    #[schema(required = false)]
    pub hidden_small_share: f64,
    /// Greatest share of a person or a vehicle that may be hidden.
    #[schema(required = false)]
    pub hidden_large_share: f64,
    /// Level school: greatest side angle to the plate, degrees.
    #[schema(required = false)]
    pub level_side_deg: f64,
    /// Level school: greatest vertical angle to the plate, degrees.
    #[schema(required = false)]
    pub level_vertical_deg: f64,
    /// Raised school: greatest side angle to the plate, degrees.
    #[schema(required = false)]
    pub raised_side_deg: f64,
    /// Raised school: greatest vertical angle to the plate, degrees.
    #[schema(required = false)]
    pub raised_vertical_deg: f64,
    /// Lowest mounting height that ways may propose, m: out of reach.
    #[schema(required = false)]
    pub mount_min_m: f64,
    /// Greatest mounting height that ways may propose, m: can still be serviced.
    #[schema(required = false)]
    pub mount_max_m: f64,
    /// The greatest mounting height that is usual, m: a head that hangs higher is told.
    #[schema(required = false)]
    pub usual_max_m: f64,
    /// A plate on the move: kept with so many looks at it …
    #[schema(required = false)]
    pub looks_kept: f64,
    /// … tight with so many, broken with fewer.
    #[schema(required = false)]
    pub looks_tight: f64,
    /// A plate on the move, seen from a tour: broken where the chance to see it at all is smaller than this.
    #[schema(required = false)]
    pub tour_chance: f64,
    /// A plate on the move: kept up to this blur, px; tight up to half a stroke.
    #[schema(required = false)]
    pub blur_kept_px: f64,
    /// By how many stops infrared light may differ between the ends of where a plate reads.
    #[schema(required = false)]
    pub zone_stops: f64,
    /// How wide the picture may be where a plate reads, m.
    #[schema(required = false)]
    pub lane_width_m: f64,
    /// Whether who reads plates wants a second camera that keeps *observe* on the same lane.
    #[schema(required = false)]
    pub overview_pair: bool,
    /// What is so many stops lighter than what a head must see washes out.
    #[schema(required = false)]
    pub washed_out_stops: f64,
    /// A plate that gets more than so many times the light that it needs is bleached.
    #[schema(required = false)]
    pub overexposed_times: f64,
    /// How many times brighter than paint a plate comes back to a lens beside the light; coarse.
    #[schema(required = false)]
    pub retro_times: f64,
    /// The sun back-lights what stands so near to its direction, degrees.
    #[schema(required = false)]
    pub backlit_deg: f64,
    /// A lamp so near to the picture spoils it, degrees.
    #[schema(required = false)]
    pub lamp_near_deg: f64,
    /// The stated uncertainties.
    #[schema(required = false)]
    pub uncertainties: Uncertainties,
    /// The limits and prices of wiring.
    #[schema(required = false)]
    #[serde(skip_serializing_if = "WiringRules::is_default")]
    pub wiring: WiringRules,
    /// The limits of proving and upkeep.
    #[schema(required = false)]
    #[serde(skip_serializing_if = "ProvingRules::is_default")]
    pub proving: ProvingRules,
}

/// The two schools of plate cameras (handbook, section 6).
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PlateSchool {
    /// Near plate height, both angles as small as possible.
    #[default]
    Level,
    /// Two to six metres up, steeper angles allowed.
    Raised,
}

/// The two schools of overlap (handbook, section 6).
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum OverlapSchool {
    /// Each camera its own area, least overlap.
    Spread,
    /// Every target seen twice, and some cameras look back at the building.
    BackUp,
}

impl Default for Rules {
    fn default() -> Self {
        Rules {
            needs: NeedSet::default(),
            plate_school: PlateSchool::default(),
            overlap: None,
            face_kept_deg: 15.0,
            face_tight_deg: 30.0,
            identify_turned_kept_deg: 30.0,
            identify_turned_tight_deg: 60.0,
            recognise_turned_kept_deg: 60.0,
            recognise_turned_tight_deg: 80.0,
            hidden_small_share: 0.0,
            hidden_large_share: 1.0 / 3.0,
            level_side_deg: 15.0,
            level_vertical_deg: 15.0,
            raised_side_deg: 30.0,
            raised_vertical_deg: 30.0,
            mount_min_m: 2.4,
            mount_max_m: 6.0,
            usual_max_m: 3.6,
            looks_kept: 3.0,
            looks_tight: 1.0,
            tour_chance: 0.9,
            blur_kept_px: 1.0,
            zone_stops: 2.0,
            lane_width_m: 6.0,
            overview_pair: true,
            washed_out_stops: 4.0,
            overexposed_times: 4.0,
            retro_times: 50.0,
            backlit_deg: 20.0,
            lamp_near_deg: 10.0,
            uncertainties: Uncertainties::default(),
            wiring: WiringRules::default(),
            proving: ProvingRules::default(),
        }
    }
}

impl Rules {
    /// Whether these are the handbook's.
    pub fn is_default(&self) -> bool {
        *self == Rules::default()
    }
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
    /// Across the line, of a target measured by laser to a known spot, ± m.
    #[schema(required = false)]
    pub laser_across_m: f64,
    /// Across the line, of a target read off the plan, ± m.
    #[schema(required = false)]
    pub plan_across_m: f64,
    /// Across the line, of a target guessed by eye, ± m …
    #[schema(required = false)]
    pub guess_across_m: f64,
    /// … plus this share of the distance.
    #[schema(required = false)]
    pub guess_across_share: f64,
    /// Height of a target, ± m.
    #[schema(required = false)]
    pub height_m: f64,
    /// Mounting height of a camera, ± m.
    #[schema(required = false)]
    pub camera_height_m: f64,
    /// Turn about the optical axis, ± degrees.
    #[schema(required = false)]
    pub roll_deg: f64,
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
            laser_across_m: 0.1,
            plan_across_m: 0.25,
            guess_across_m: 0.5,
            guess_across_share: 0.02,
            height_m: 0.05,
            camera_height_m: 0.05,
            roll_deg: 1.0,
            aim_deg: 1.0,
            focal_share: 0.03,
            zoom_focal_share: 0.01,
        }
    }
}
