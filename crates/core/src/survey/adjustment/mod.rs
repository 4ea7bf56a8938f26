//! The drawing agrees with the tape: a least-squares adjustment of drawn positions to measured distances.
//!
//! Minimises Σ ((d − |p_from − p_to|)/σ)² over the used readings + Σ |p − p0|²/σ_p² over the points that are not fixed, by
//! Gauss–Newton from the drawn positions p0 until no point moves a micrometre. The variance of unit weight is taken as 1.
//! Sources: the site-file contract; the method is that of any textbook on survey adjustment (variation of coordinates with
//! weighted parameters).

mod accept;
mod ellipse;
mod network;

use crate::file::{Fault, PatchOp};
use crate::site::Site;
use crate::work::Patience;
pub use ellipse::Ellipse;
use network::{Network, Solution};
use serde::Serialize;
use utoipa::ToSchema;

/// A standardised residual past this is doubtful.
const DOUBTFUL_PAST: f64 = 3.0;

/// What the readings make of the drawn positions.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Adjustment {
    /// All spots and point targets.
    pub points: Vec<AdjustedPoint>,
    /// All readings.
    pub readings: Vec<AdjustedReading>,
    /// How many steps it took.
    pub iterations: u32,
    /// The change to the site file that takes the adjusted positions over, as a JSON Patch; empty when there is nothing to take over.
    pub patch: Vec<PatchOp>,
    /// Why nothing is taken over though points would move; null if nothing stands against it.
    #[schema(required)]
    pub held_back: Option<String>,
}

/// A spot or point target after the adjustment.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct AdjustedPoint {
    /// Its id.
    pub id: String,
    /// Where it is, metres east and north.
    pub position: [f64; 2],
    /// How far that is from where it was drawn, m.
    pub moved_m: f64,
    /// How well that is known: the standard error ellipse.
    pub ellipse: Ellipse,
}

/// A reading after the adjustment.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct AdjustedReading {
    /// Its id.
    pub id: String,
    /// Horizontal distance, m.
    pub horizontal_m: f64,
    /// The same distance as it is drawn, m.
    pub drawn_m: f64,
    /// Observed minus adjusted distance, m.
    pub residual_m: f64,
    /// The residual over its own standard deviation, √(σ² − a Q aᵀ); null for a reading that is not used.
    #[schema(required)]
    pub standardised: Option<f64>,
    /// By how much the reading itself would have to be wrong to explain its residual, m: residual · σ² / (σ² − a Q aᵀ), the residual
    /// over the reading's redundancy number. A network takes up a part of a gross error; this is the whole.
    #[schema(required)]
    pub gross_error_m: Option<f64>,
    /// Whether it is the one with the largest standardised residual, and that is over 3.
    pub doubtful: bool,
}

/// Adjusts a site's spots and point targets to its readings.
///
/// # Errors
/// Names what keeps the positions from settling.
pub fn adjust(site: &Site) -> Result<Adjustment, Fault> {
    adjust_within(site, &Patience::ENDLESS)
}

/// The same while somebody waits.
///
/// # Errors
/// Names what keeps the positions from settling, or says that it takes too long.
pub fn adjust_within(site: &Site, patience: &Patience) -> Result<Adjustment, Fault> {
    let network = Network::of(site);
    let solution = network.solve(patience)?;
    let points: Vec<AdjustedPoint> = network
        .points
        .iter()
        .enumerate()
        .map(|(place, point)| AdjustedPoint {
            id: point.id.clone(),
            position: solution.places[place].to_array(),
            moved_m: solution.places[place].distance(point.drawn),
            ellipse: Ellipse::of(solution.covariance_of(&network, place)),
        })
        .collect();
    let readings = readings(site, &network, &solution);
    let held_back = readings.iter().find(|reading| reading.doubtful).map(held_back);
    let patch = match held_back {
        Some(_) => vec![],
        None => accept::patch(site, &network, &solution, &points),
    };
    Ok(Adjustment { points, readings, iterations: solution.iterations, patch, held_back })
}

/// A gross error would be spread over everything that it is tied to.
fn held_back(reading: &AdjustedReading) -> String {
    let off = reading.gross_error_m.unwrap_or(0.0);
    format!(
        "Reading {} contradicts the others by about {:.1} m: shoot it again, or leave it out, before positions are taken over.",
        reading.id,
        off.abs()
    )
}

fn readings(site: &Site, network: &Network, solution: &Solution) -> Vec<AdjustedReading> {
    let mut found: Vec<AdjustedReading> = network
        .observations
        .iter()
        .zip(&site.file().readings)
        .map(|(observation, reading)| {
            let residual_m = observation.distance_m - solution.distance(observation);
            let variance = observation.sigma_m.powi(2) - solution.variance(observation);
            let counts = observation.used && variance > 0.0;
            AdjustedReading {
                id: reading.id.clone(),
                horizontal_m: observation.distance_m,
                drawn_m: network.drawn(observation),
                residual_m,
                standardised: counts.then(|| residual_m / variance.sqrt()),
                gross_error_m: counts.then(|| residual_m * observation.sigma_m.powi(2) / variance),
                doubtful: false,
            }
        })
        .collect();
    let size = |reading: &AdjustedReading| reading.standardised.map_or(0.0, f64::abs);
    let worst = found.iter_mut().max_by(|a, b| size(a).total_cmp(&size(b)));
    if let Some(worst) = worst.filter(|worst| size(worst) > DOUBTFUL_PAST) {
        worst.doubtful = true;
    }
    found
}
