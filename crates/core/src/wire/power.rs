//! What a cable loses: Ohm's law with a load that draws the same power at whatever voltage reaches it.
//!
//! With the source at V volts, a loop of R ohms and a load of P watts the voltage at the load is the greater root of
//! V_d² − V V_d + R P = 0, and P² R / V_d² is lost on the way (handbook, section 12).

/// Resistance of one conductor, ohms per metre: the most that ANSI/TIA-568 allows at 20 °C.
pub const CONDUCTOR_OHM_M: f64 = 0.0938;

/// What reaches a load.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Reaches {
    /// Voltage at the load, V.
    pub volts: f64,
    /// Lost in the cable, W.
    pub lost_w: f64,
}

/// Resistance of the loop of a network cable, ohms: there and back, over two pairs or over four.
pub fn loop_ohm(length_m: f64, pairs: u32) -> f64 {
    // A pair carries the current in both of its conductors; half of the pairs there, half back.
    2.0 * CONDUCTOR_OHM_M * length_m / f64::from(pairs)
}

/// What reaches a load over a loop; none where the loop takes more than there is: it will not run.
///
/// ```
/// use bright_angle_core::wire::power::reaches;
/// // The worst channel of class 3: 44 V, 20 Ω, 12.95 W leave 37 V (IEEE 802.3).
/// assert!((reaches(44.0, 20.0, 12.95).unwrap().volts - 37.0).abs() < 1e-9);
/// assert!(reaches(44.0, 40.0, 12.95).is_none());
/// ```
pub fn reaches(source_v: f64, loop_ohm: f64, load_w: f64) -> Option<Reaches> {
    let under = source_v * source_v - 4.0 * loop_ohm * load_w;
    (under >= 0.0).then(|| {
        let volts = 0.5 * (source_v + under.sqrt());
        Reaches { volts, lost_w: if load_w > 0.0 { load_w * load_w * loop_ohm / (volts * volts) } else { 0.0 } }
    })
}
