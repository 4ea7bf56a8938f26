//! What laying costs: in the firm's money where it has said all of it, else in metres.

use crate::file::{CableWay, WirePrices};

/// What laying a metre costs by how it goes, and what boxes cost.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Laying {
    /// Whether it is in money; else it is in metres along a wall.
    pub priced: bool,
    /// Digging a metre of trench, once.
    pub dig: f64,
    /// A switch of eight ports.
    pub switch_8: f64,
    /// A switch of sixteen ports.
    pub switch_16: f64,
    /// An injector, a repeater, a box that feeds two cameras.
    pub small_box: f64,
    /// The two ends of a fibre.
    pub fibre_ends: f64,
    ways: [f64; 5],
}

/// In metres along a wall, where there are no prices (common practice, no source).
const IN_METRES: Laying = Laying {
    priced: false,
    dig: 3.0,
    switch_8: 40.0,
    switch_16: 70.0,
    small_box: 15.0,
    fibre_ends: 30.0,
    ways: [1.0, 1.0, 1.2, 1.0, 1.5],
};

impl Laying {
    /// By a firm's prices.
    ///
    /// ```
    /// use bright_angle_core::{file::{CableWay, WirePrices}, wire::prices::Laying};
    /// let unknown = Laying::of(&WirePrices::default());
    /// assert!(!unknown.priced && unknown.per_m(CableWay::Wall) == 1.0);
    /// ```
    pub fn of(prices: &WirePrices) -> Laying {
        let all = || {
            Some(Laying {
                priced: true,
                dig: prices.dig?,
                switch_8: prices.switch_8?,
                switch_16: prices.switch_16?,
                small_box: prices.small_box?,
                fibre_ends: prices.fibre_ends?,
                ways: [prices.wall?, prices.ceiling?, prices.conduit?, prices.trench?, prices.air?],
            })
        };
        all().unwrap_or(IN_METRES)
    }

    /// A metre of cable by how it goes.
    pub fn per_m(&self, way: CableWay) -> f64 {
        match way {
            CableWay::Wall => self.ways[0],
            CableWay::Ceiling => self.ways[1],
            CableWay::Conduit => self.ways[2],
            CableWay::Trench => self.ways[3],
            CableWay::Air => self.ways[4],
        }
    }
}
