//! Faults to order.

use std::str::FromStr;

/// Something that is not as it was planned, at a port.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Fault {
    /// A bad joint so many metres from the switch: the link falls to 10 Mbit/s. On a shorter cable at four fifths of it.
    Joint {
        /// The port.
        port: usize,
        /// How far off it is, m.
        at_m: f64,
    },
    /// The port gave all that it can and turned power off.
    Limit {
        /// The port.
        port: usize,
    },
    /// What hangs there draws more at night: its heater, its infrared light.
    Night {
        /// The port.
        port: usize,
    },
    /// Nothing is plugged in.
    Empty {
        /// The port.
        port: usize,
    },
}

impl FromStr for Fault {
    type Err = String;

    /// Reads `joint:3@80`, `limit:5`, `night:2`, `empty:4`.
    fn from_str(text: &str) -> Result<Self, String> {
        let wrong = || format!("{text} is no fault: joint:PORT@METRES, limit:PORT, night:PORT or empty:PORT");
        let (kind, rest) = text.split_once(':').ok_or_else(wrong)?;
        let (port, at) = rest.split_once('@').unwrap_or((rest, ""));
        let port: usize = port.parse().ok().filter(|port| *port > 0).ok_or_else(wrong)?;
        match (kind, at) {
            ("joint", at) => {
                let at_m = at.parse().ok().filter(|at: &f64| at.is_finite() && *at > 0.0).ok_or_else(wrong)?;
                Ok(Fault::Joint { port, at_m })
            }
            ("limit", "") => Ok(Fault::Limit { port }),
            ("night", "") => Ok(Fault::Night { port }),
            ("empty", "") => Ok(Fault::Empty { port }),
            _ => Err(wrong()),
        }
    }
}
