//! Lengths in words, in metres or in feet and inches.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One inch, m.
pub const INCH_M: f64 = 0.0254;

/// How lengths are told to people. Files and computations are in metres always.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Units {
    /// Metres.
    #[default]
    Metres,
    /// Feet and inches.
    Feet,
}

/// Metres in a foot, by definition.
const FOOT_M: f64 = 0.3048;

impl Units {
    /// A speed in words, metres or feet a second.
    ///
    /// ```
    /// use bright_angle_core::words::units::Units;
    /// assert_eq!(Units::Metres.speed(5.56), "5.6 m/s");
    /// assert_eq!(Units::Feet.speed(5.56), "18.2 ft/s");
    /// ```
    pub fn speed(self, mps: f64) -> String {
        match self {
            Units::Metres => format!("{mps:.1} m/s"),
            Units::Feet => format!("{:.1} ft/s", mps / FOOT_M),
        }
    }

    /// How far something reaches, in words: no finer than it is known, whole metres or feet.
    ///
    /// ```
    /// use bright_angle_core::words::units::Units;
    /// assert_eq!(Units::Metres.reach(61.88), "62 m");
    /// assert_eq!(Units::Feet.reach(61.88), "203 ft");
    /// ```
    pub fn reach(self, metres: f64) -> String {
        match self {
            Units::Metres => format!("{metres:.0} m"),
            Units::Feet => format!("{:.0} ft", metres / FOOT_M),
        }
    }

    /// A length in words.
    ///
    /// ```
    /// use bright_angle_core::words::units::Units;
    /// assert_eq!(Units::Metres.length(3.6), "3.60 m");
    /// assert_eq!(Units::Feet.length(3.6), "11' 10\"");
    /// ```
    pub fn length(self, metres: f64) -> String {
        match self {
            Units::Metres => format!("{metres:.2} m"),
            Units::Feet => {
                let inches = (metres.abs() / INCH_M).round() as i64;
                let sign = if metres < 0.0 && inches > 0 { "-" } else { "" };
                format!("{sign}{}' {}\"", inches / 12, inches % 12)
            }
        }
    }
}
