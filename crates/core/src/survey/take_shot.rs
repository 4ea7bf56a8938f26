//! A shot written into a reading: the mean of what counts, and what is known of it.

use super::shots::shots;
use crate::change::edits::{fresh_id, neat};
use crate::file::{Fault, MOST_SHOTS, Reading, SiteFile};
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
    /// Slope distance, m; the level one where `level` is set.
    pub slope_m: f64,
    /// Whether the display showed the level distance: a shot of its own kind, which is never averaged with slopes as it stands.
    #[serde(default)]
    pub level: bool,
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

/// The reading of a site between two points with one more shot in it. A level distance is turned into the slope that it has between
/// the heights of its ends: `√(level² + rise²)`.
///
/// # Errors
/// What [`take_shot`] refuses, or a level distance to a point that the site does not have.
pub fn take_shot_on(site: &SiteFile, shot: &TakenShot) -> Result<Reading, Fault> {
    if !shot.level {
        return take_shot(&site.readings, shot);
    }
    let height = |id: &String, field: &str| {
        let spot = site.spots.iter().find(|spot| &spot.id == id).map(|spot| spot.ground_m + spot.height_m);
        let target =
            site.targets.iter().find(|target| &target.id == id).map(|target| target.ground_m + target.height_m);
        spot.or(target).ok_or_else(|| Fault::new(field, format!("there is no spot or target \"{id}\"")))
    };
    let rise = height(&shot.to, "to")? - height(&shot.from, "from")?;
    let slope_m = shot.slope_m.hypot(rise);
    let inclination_deg = Some(rise.atan2(shot.slope_m).to_degrees());
    take_shot(&site.readings, &TakenShot { slope_m, inclination_deg, level: false, ..shot.clone() })
}

/// The reading between two points with one more shot in it: the one among `readings`, or a new one.
///
/// What counts is decided by the slopes: all that don't go past make the mean together, and the inclination is the mean over the
/// same shots, each as seen from the reading's `from`. A reading that was typed or brought in without its shots is their first.
///
/// # Errors
/// A slope or an inclination that is none, or more shots than a reading holds.
pub fn take_shot(readings: &[Reading], shot: &TakenShot) -> Result<Reading, Fault> {
    if !(0.01..=10_000.0).contains(&shot.slope_m) {
        return Err(Fault::new("slope_m", format!("{} is outside 0.01 to 10000 m", shot.slope_m)));
    }
    if let Some(inclination) = shot.inclination_deg.filter(|angle| !(-89.0..=89.0).contains(angle)) {
        return Err(Fault::new("inclination_deg", format!("{inclination}° is outside -89 to 89°")));
    }
    let between = |r: &&Reading| (r.from == shot.from && r.to == shot.to) || (r.from == shot.to && r.to == shot.from);
    let mut reading = match readings.iter().find(between) {
        Some(held) => with_its_shots(held.clone()),
        None => empty(fresh_id("r", readings.iter().map(|reading| reading.id.as_str())), shot),
    };
    if reading.shots_m.len() >= MOST_SHOTS {
        return Err(Fault::new("shots_m", format!("this reading has {MOST_SHOTS} shots already")));
    }
    let way = if reading.from == shot.from { 1.0 } else { -1.0 };
    reading.shots_m.push(shot.slope_m);
    reading.shots_deg.push(shot.inclination_deg.map(|inclination| way * inclination));
    put_together(&mut reading);
    reading.taken = shot.taken.clone().or(reading.taken);
    reading.device = shot.device.clone().or(reading.device);
    reading.by = shot.by.clone().or(reading.by);
    Ok(reading)
}

/// A reading with all that it was made of: its own figures where the shots were not kept.
fn with_its_shots(mut reading: Reading) -> Reading {
    if reading.shots_m.is_empty() {
        reading.shots_m = vec![reading.slope_m];
    }
    if reading.shots_deg.is_empty() {
        reading.shots_deg = vec![reading.inclination_deg; reading.shots_m.len()];
    }
    reading
}

/// Makes a reading's figures anew out of its shots.
fn put_together(reading: &mut Reading) {
    let Some(together) = shots(&reading.shots_m) else { return };
    reading.slope_m = neat(together.slope_m, 1e-4);
    reading.sigma_m = Some(neat(together.sigma_m, 1e-4));
    let counted = |(place, _): &(usize, &Option<f64>)| !together.left_out.contains(place);
    let known: Vec<f64> = reading.shots_deg.iter().enumerate().filter(counted).filter_map(|(_, deg)| *deg).collect();
    let mean = known.iter().sum::<f64>() / known.len() as f64;
    reading.inclination_deg = (!known.is_empty()).then(|| neat(mean, 1e-3));
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
        shots_deg: vec![],
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
        TakenShot { from, to, slope_m, level: false, inclination_deg, device: None, taken: None, by: Some("A".into()) }
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
    fn a_shot_that_turns_out_to_have_gone_past_loses_its_say_in_the_inclination_too() {
        let mut held: Vec<Reading> = vec![];
        // Of two nobody can tell which is wrong; the third tells.
        for (slope, inclination) in [(14.0, 40.0), (10.0, 5.0), (10.02, 5.4)] {
            held = vec![take_shot(&held, &shot(slope, Some(inclination))).unwrap()];
        }
        assert_eq!((held[0].slope_m, held[0].inclination_deg), (10.01, Some(5.2)));
    }

    #[test]
    fn shots_without_an_inclination_make_no_claim_about_it() {
        let held = take_shot(&[], &shot(10.0, Some(6.0))).unwrap();
        let held = take_shot(&[held], &shot(10.02, None)).unwrap();
        let held = take_shot(&[held], &shot(10.01, Some(5.0))).unwrap();
        assert_eq!((held.slope_m, held.inclination_deg), (10.01, Some(5.5)));
        assert_eq!(held.shots_deg, [Some(6.0), None, Some(5.0)]);
    }

    #[test]
    fn a_level_distance_and_a_slope_are_not_averaged_as_they_stand() {
        let mut site: SiteFile = serde_json::from_value(serde_json::json!({
            "format": "bright-angle/site", "version": 1, "name": "Yard", "cameras": [],
            "spots": [{"id": "s1", "name": "S", "position": [0, 0], "height_m": 4.6}],
            "targets": [{"id": "t1", "name": "T", "subject": "face", "task": "identify", "height_m": 1.6,
                "shape": {"kind": "point", "points": [[4, 0]]}}]
        }))
        .unwrap();
        // 4 m level and 3 m up: 5 m along the slope, at 36.87°.
        let level = TakenShot { level: true, ..shot(4.0, None) };
        site.readings = vec![take_shot_on(&site, &level).unwrap()];
        assert_eq!((site.readings[0].slope_m, site.readings[0].inclination_deg), (5.0, Some(36.87)));
        let both = take_shot_on(&site, &shot(5.02, Some(36.8))).unwrap();
        assert_eq!((both.slope_m, both.inclination_deg), (5.01, Some(36.835)));
        let nowhere = TakenShot { from: "t9".into(), ..level };
        assert_eq!(take_shot_on(&site, &nowhere).unwrap_err().path, "from");
    }

    #[test]
    fn a_reading_that_was_typed_before_is_the_first_shot_and_not_replaced() {
        let mut typed = take_shot(&[], &shot(10.0, Some(4.0))).unwrap();
        (typed.shots_m, typed.shots_deg) = (vec![], vec![]);
        let taken = take_shot(&[typed], &shot(10.04, Some(5.0))).unwrap();
        assert_eq!((taken.shots_m.as_slice(), taken.slope_m), (&[10.0, 10.04][..], 10.02));
        assert_eq!(taken.inclination_deg, Some(4.5));
    }

    #[test]
    fn more_shots_than_a_reading_holds_are_refused_and_none_is_lost() {
        let mut held = take_shot(&[], &shot(10.0, None)).unwrap();
        for _ in 1..MOST_SHOTS {
            held = take_shot(&[held], &shot(10.0, None)).unwrap();
        }
        let full = take_shot(&[held.clone()], &shot(10.0, None)).unwrap_err();
        assert!(full.message.contains("50 shots"), "{full}");
        assert_eq!(held.shots_m.len(), MOST_SHOTS);
    }

    #[test]
    fn a_shot_the_other_way_turns_its_inclination() {
        let mut held = take_shot(&[], &shot(10.0, Some(5.0))).unwrap();
        (held.from, held.to) = ("s1".to_owned(), "t1".to_owned());
        (held.inclination_deg, held.shots_deg) = (Some(-5.0), vec![Some(-5.0)]);
        let taken = take_shot(&[held], &shot(10.0, Some(7.0))).unwrap();
        assert_eq!(taken.inclination_deg, Some(-6.0));
        assert!(take_shot(&[], &shot(f64::NAN, None)).is_err());
    }
}
