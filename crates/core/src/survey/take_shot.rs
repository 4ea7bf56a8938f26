//! A shot written into a reading: the mean of what counts, and what is known of it.

use super::shots::shots;
use crate::change::edits::{fresh_id, neat};
use crate::file::{Fault, Reading};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One shot from a target to a spot, measured or typed.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TakenShot {
    /// The id of the target that it was taken from.
    pub from: String,
    /// The id of the spot that it was taken to.
    pub to: String,
    /// Slope distance, m.
    pub slope_m: f64,
    /// Inclination as seen from `from`, degrees above the horizontal, if it is known.
    #[serde(default)]
    pub inclination_deg: Option<f64>,
    /// With which device.
    #[serde(default)]
    pub device: Option<String>,
    /// When.
    #[serde(default)]
    pub taken: Option<String>,
    /// Who took it.
    #[serde(default)]
    pub by: Option<String>,
}

/// The reading between two points with one more shot in it: the one among `readings`, or a new one.
///
/// All shots make the mean together; one that went past is left out of it and says nothing about the inclination.
///
/// # Errors
/// A slope that is no distance.
pub fn take_shot(readings: &[Reading], shot: &TakenShot) -> Result<Reading, Fault> {
    if !(0.01..=10_000.0).contains(&shot.slope_m) {
        return Err(Fault::new("slope_m", format!("{} is outside 0.01 to 10000 m", shot.slope_m)));
    }
    let between = |r: &&Reading| (r.from == shot.from && r.to == shot.to) || (r.from == shot.to && r.to == shot.from);
    let mut reading = readings.iter().find(between).cloned().unwrap_or_else(|| {
        let id = fresh_id("r", readings.iter().map(|reading| reading.id.as_str()));
        empty(id, shot)
    });
    let before = reading.shots_m.len();
    reading.shots_m.push(shot.slope_m);
    let Some(together) = shots(&reading.shots_m) else { return Ok(reading) };
    reading.slope_m = neat(together.slope_m, 1e-4);
    reading.sigma_m = Some(neat(together.sigma_m, 1e-4));
    if !together.left_out.contains(&before) {
        let way = if reading.from == shot.from { 1.0 } else { -1.0 };
        let now = shot.inclination_deg.map(|inclination| way * inclination);
        let mean = match (reading.inclination_deg, now) {
            (Some(held), Some(now)) => Some((held * before as f64 + now) / (before + 1) as f64),
            _ => now,
        };
        reading.inclination_deg = mean.map(|mean| neat(mean, 1e-3));
    }
    reading.taken = shot.taken.clone().or(reading.taken);
    reading.device = shot.device.clone().or(reading.device);
    reading.by = shot.by.clone().or(reading.by);
    Ok(reading)
}

fn empty(id: String, shot: &TakenShot) -> Reading {
    Reading {
        id,
        from: shot.from.clone(),
        to: shot.to.clone(),
        slope_m: shot.slope_m,
        inclination_deg: None,
        from_height_m: None,
        to_height_m: None,
        sigma_m: None,
        used: true,
        shots_m: vec![],
        by: None,
        taken: None,
        device: None,
        note: None,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn shot(slope_m: f64, inclination_deg: Option<f64>) -> TakenShot {
        let (from, to) = ("t1".to_owned(), "s1".to_owned());
        TakenShot { from, to, slope_m, inclination_deg, device: None, taken: None, by: Some("A".into()) }
    }

    #[test]
    fn shots_gather_in_one_reading_and_a_stray_is_left_out() {
        let mut held: Vec<Reading> = vec![];
        for (slope, inclination) in [(10.0, 5.0), (10.02, 5.4), (14.0, 40.0)] {
            held = vec![take_shot(&held, &shot(slope, Some(inclination))).unwrap()];
        }
        assert_eq!(held[0].shots_m, [10.0, 10.02, 14.0]);
        assert!((held[0].slope_m - 10.01).abs() < 1e-9, "{}", held[0].slope_m);
        assert_eq!(held[0].inclination_deg, Some(5.2), "the stray says nothing about it");
        assert_eq!((held[0].id.as_str(), held[0].by.as_deref()), ("r1", Some("A")));
    }

    #[test]
    fn a_shot_the_other_way_turns_its_inclination() {
        let mut held = take_shot(&[], &shot(10.0, Some(5.0))).unwrap();
        (held.from, held.to) = ("s1".to_owned(), "t1".to_owned());
        held.inclination_deg = Some(-5.0);
        let taken = take_shot(&[held], &shot(10.0, Some(7.0))).unwrap();
        assert_eq!(taken.inclination_deg, Some(-6.0));
        assert!(take_shot(&[], &shot(f64::NAN, None)).is_err());
    }
}
