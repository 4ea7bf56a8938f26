//! The limits and prices of wiring: settings that a firm can change, each with where its usual value comes from.

use super::CableWay;
use serde::{Deserialize, Serialize};
use std::net::Ipv4Addr;
use utoipa::ToSchema;

/// The limits of a site's wiring. Each has the handbook's value (sections 7 and 12) unless the firm sets its own.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct WiringRules {
    /// A channel of copper at most, m (IEEE 802.3, ANSI/TIA-568).
    #[schema(required = false)]
    pub channel_m: f64,
    /// Past so many metres poor or outdoor cable may fail (common practice, no source).
    #[schema(required = false)]
    pub sure_m: f64,
    /// An extended-reach port of a switch at most, m (common practice, no source).
    #[schema(required = false)]
    pub extended_m: f64,
    /// With its partner at the far end, or at a recorder's own port, m (common practice, no source).
    #[schema(required = false)]
    pub extended_pair_m: f64,
    /// How fast that is, Mbit/s (common practice, no source).
    #[schema(required = false)]
    pub extended_mbps: f64,
    /// What a repeater or an extender draws itself, W (common practice, no source).
    #[schema(required = false)]
    pub passes_w: f64,
    /// The share of ports and power that is left free (common practice, no source).
    #[schema(required = false)]
    pub free_share: f64,
    /// The most of a cord's voltage that may be lost, as a share (common practice, no source).
    #[schema(required = false)]
    pub cord_drop_share: f64,
    /// Slack of a cable, as a share of its way (common practice, no source).
    #[schema(required = false)]
    pub slack_share: f64,
    /// What of a cable lies in a housing, m (common practice, no source).
    #[schema(required = false)]
    pub housing_m: f64,
    /// The least signal of a wireless link where the camera hangs, dBm (common practice, no source).
    #[schema(required = false)]
    pub signal_dbm: f64,
    /// So much less than its start value a bit rate may be, as a share (common practice, no source).
    #[schema(required = false)]
    pub rate_less_share: f64,
    /// So much more than its start value a bit rate may be, as a share (common practice, no source).
    #[schema(required = false)]
    pub rate_more_share: f64,
    /// The network segment of the cameras, as its first address.
    #[schema(required = false, value_type = String)]
    pub segment: Ipv4Addr,
    /// How many bits of it are fixed.
    #[schema(required = false)]
    pub segment_bits: u8,
    /// What laying costs, where the firm has said.
    #[schema(required = false)]
    #[serde(skip_serializing_if = "WirePrices::is_unknown")]
    pub prices: WirePrices,
}

impl Default for WiringRules {
    fn default() -> Self {
        WiringRules {
            channel_m: 100.0,
            sure_m: 90.0,
            extended_m: 250.0,
            extended_pair_m: 300.0,
            extended_mbps: 10.0,
            passes_w: 3.0,
            free_share: 0.2,
            cord_drop_share: 0.1,
            slack_share: 0.1,
            housing_m: 0.12,
            signal_dbm: -65.0,
            rate_less_share: 0.4,
            rate_more_share: 0.6,
            segment: Ipv4Addr::new(192, 168, 50, 0),
            segment_bits: 24,
            prices: WirePrices::default(),
        }
    }
}

impl WiringRules {
    /// Whether these are the handbook's.
    pub fn is_default(&self) -> bool {
        *self == WiringRules::default()
    }
}

/// What laying a metre costs, cable and labour together, by how it goes, and what boxes cost; in the money of the firm's catalogue.
#[derive(Clone, Copy, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct WirePrices {
    /// A metre along a wall.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub wall: Option<f64>,
    /// A metre above a ceiling.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub ceiling: Option<f64>,
    /// A metre in a conduit.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub conduit: Option<f64>,
    /// A metre of cable in a trench that is there.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub trench: Option<f64>,
    /// Digging a metre of trench, paid once however many cables lie in it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub dig: Option<f64>,
    /// A metre through the air.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub air: Option<f64>,
    /// A switch of eight ports.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub switch_8: Option<f64>,
    /// A switch of sixteen ports.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub switch_16: Option<f64>,
    /// A small box: an injector, a repeater, one that feeds two cameras from one cable.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub small_box: Option<f64>,
    /// What a fibre takes at its two ends together.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub fibre_ends: Option<f64>,
}

impl WirePrices {
    /// Whether nobody has said any.
    pub fn is_unknown(&self) -> bool {
        *self == WirePrices::default()
    }

    /// A metre of cable by how it goes, digging left aside.
    pub fn per_m(&self, way: CableWay) -> Option<f64> {
        match way {
            CableWay::Wall => self.wall,
            CableWay::Ceiling => self.ceiling,
            CableWay::Conduit => self.conduit,
            CableWay::Trench => self.trench,
            CableWay::Air => self.air,
        }
    }
}
