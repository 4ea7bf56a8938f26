//! A reading that a person reads off a display and types.

use super::{DeviceError, Place, Rangefinder, Shot};

/// Figures as typed.
pub struct Typed {
    /// Slope distance, m.
    pub slope_m: f64,
    /// Inclination, degrees above the horizontal.
    pub inclination_deg: Option<f64>,
}

impl Rangefinder for Typed {
    async fn measure(&mut self, _from: Place, _to: Place) -> Result<Shot, DeviceError> {
        if !(0.01..=10_000.0).contains(&self.slope_m) {
            return Err(DeviceError::Typed(format!("{} m is outside 0.01 to 10000 m", self.slope_m)));
        }
        if let Some(inclination) = self.inclination_deg.filter(|angle| !(-89.0..=89.0).contains(angle)) {
            return Err(DeviceError::Typed(format!("{inclination}° is outside -89 to 89°")));
        }
        Ok(Shot {
            slope_m: self.slope_m,
            inclination_deg: self.inclination_deg,
            signal: None,
            device: "typed by hand".to_owned(),
        })
    }
}
