//! The units of drawings.

use bright_angle_core::Fault;
use dxf::enums::Units;

/// A unit that somebody chose in place of the header's.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Unit {
    /// 0.001 m.
    Millimetre,
    /// 0.01 m.
    Centimetre,
    /// The metre.
    Metre,
    /// 0.0254 m.
    Inch,
    /// 0.3048 m.
    Foot,
}

impl Unit {
    /// Reads mm, cm, m, in or ft.
    ///
    /// # Errors
    /// Anything else.
    pub fn parse(text: &str) -> Result<Unit, Fault> {
        match text {
            "mm" => Ok(Unit::Millimetre),
            "cm" => Ok(Unit::Centimetre),
            "m" => Ok(Unit::Metre),
            "in" => Ok(Unit::Inch),
            "ft" => Ok(Unit::Foot),
            other => Err(Fault::new("unit", format!("\"{other}\" is not mm, cm, m, in or ft"))),
        }
    }

    /// The metres in it, and its word.
    pub(super) fn metres(self) -> (f64, &'static str) {
        match self {
            Unit::Millimetre => (0.001, "millimetres"),
            Unit::Centimetre => (0.01, "centimetres"),
            Unit::Metre => (1.0, "metres"),
            Unit::Inch => (0.0254, "inches"),
            Unit::Foot => (0.3048, "feet"),
        }
    }
}

/// The metres in a unit of the header; `None` where it says nothing that is a length here.
pub(super) fn of_header(units: Units) -> Option<(f64, &'static str)> {
    Some(match units {
        Units::Millimeters => Unit::Millimetre.metres(),
        Units::Centimeters => Unit::Centimetre.metres(),
        Units::Decimeters => (0.1, "decimetres"),
        Units::Meters => Unit::Metre.metres(),
        Units::Kilometers => (1000.0, "kilometres"),
        Units::Inches => Unit::Inch.metres(),
        Units::Feet => Unit::Foot.metres(),
        Units::Yards => (0.9144, "yards"),
        _ => return None,
    })
}
