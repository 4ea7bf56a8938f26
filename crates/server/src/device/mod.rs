//! Devices: those that measure behind one trait, a connected rangefinder and a reading typed by hand; a managed switch; cameras' pictures.

pub mod camera;
mod connected;
mod managed_switch;
mod talk;
mod typed;

pub use connected::Connected;
pub use managed_switch::read_switch;
use serde::{Deserialize, Serialize};
use std::future::Future;
pub use talk::Broken;
pub use typed::Typed;
use utoipa::ToSchema;

/// A place as drawn: metres east, north, up.
pub type Place = [f64; 3];

/// One shot.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Shot {
    /// Slope distance, m.
    pub slope_m: f64,
    /// Inclination, degrees above the horizontal, if the device gives it.
    #[schema(required)]
    pub inclination_deg: Option<f64>,
    /// Strength of the return, %, if the device gives it.
    #[schema(required)]
    pub signal: Option<f64>,
    /// The device.
    pub device: String,
}

/// Why there is no shot.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
pub enum DeviceError {
    /// The device does not answer.
    #[error("the rangefinder does not answer: {0}")]
    Away(String),
    /// Nothing came back.
    #[error("no return: glass, sun or nothing there. Shoot again, or aim at something dull beside it")]
    NoReturn,
    /// The device said something that is no answer.
    #[error("the rangefinder answered nonsense: {0}")]
    Nonsense(String),
    /// The figures typed make no distance.
    #[error("{0}")]
    Typed(String),
}

/// Something that measures the distance between two places.
pub trait Rangefinder {
    /// Takes one shot from one place at another.
    fn measure(&mut self, from: Place, to: Place) -> impl Future<Output = Result<Shot, DeviceError>> + Send;
}
