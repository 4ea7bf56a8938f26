//! From when to when it is day by the clock on the wall, also where the sun goes down after midnight or not at all.

use super::clock::Clock;
use super::position;
use crate::file::{Fault, GeoPlace};
use jiff::civil::Date;

/// Minutes of a day.
const DAY: usize = 1440;

/// When the sun is up on a day, by the clock.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Daylight {
    /// It does not rise.
    Never,
    /// It does not set.
    Always,
    /// It rises and sets at these minutes; it sets before it rises where the night is short and begins after midnight.
    Between {
        /// The first minute at which it is up.
        rise: u16,
        /// The first at which it is down.
        set: u16,
    },
}

/// The daylight of a local day: the longest stretch of dark in it is its night.
///
/// # Errors
/// A day that the sun is not told for.
pub fn daylight(place: &GeoPlace, clock: &Clock, date: Date) -> Result<Daylight, Fault> {
    let mut up = Vec::with_capacity(DAY);
    for minute in 0..DAY as u16 {
        let at =
            clock.moment(date, minute).ok_or_else(|| Fault::new("date", format!("{date} is at an end of time")))?;
        up.push(position::over(place, at)?.apparent_elevation_deg > 0.0);
    }
    Ok(match (up.contains(&true), up.contains(&false)) {
        (false, _) => Daylight::Never,
        (_, false) => Daylight::Always,
        _ => {
            let (set, long) = longest_dark(&up);
            Daylight::Between { rise: ((set + long) % DAY) as u16, set: set as u16 }
        }
    })
}

/// Where the longest dark stretch of a day begins that goes on into itself, and how long it is.
fn longest_dark(up: &[bool]) -> (usize, usize) {
    let begins = (0..DAY).filter(|minute| !up[*minute] && up[(minute + DAY - 1) % DAY]);
    let long = |begin: &usize| (0..DAY).take_while(|step| !up[(begin + step) % DAY]).count();
    begins.map(|begin| (begin, long(&begin))).max_by_key(|(_, long)| *long).unwrap_or((0, DAY))
}

#[cfg(test)]
mod tests {
    use super::*;

    fn on(latitude_deg: f64, longitude_deg: f64, zone: &str, date: &str) -> Daylight {
        let place = GeoPlace { latitude_deg, longitude_deg, elevation_m: 0.0, time_zone: zone.into() };
        daylight(&place, &Clock::of(zone), date.parse().unwrap()).unwrap()
    }

    fn close(found: Daylight, [rise, set]: [u16; 2]) {
        let Daylight::Between { rise: r, set: s } = found else { panic!("{found:?}") };
        assert!(r.abs_diff(rise) <= 4 && s.abs_diff(set) <= 4, "{r} {s}, not {rise} {set}");
    }

    /// Times as almanacs have them, from memory, to a few minutes.
    #[test]
    fn the_last_day_of_a_year_has_its_evening_in_every_zone() {
        // Los Angeles 6:58 and 16:54, Auckland 6:06 and 20:43, London 8:06 and 16:02.
        close(on(34.05, -118.24, "America/Los_Angeles", "2027-12-31"), [418, 1014]);
        close(on(-36.85, 174.76, "Pacific/Auckland", "2027-12-31"), [366, 1243]);
        close(on(-36.85, 174.76, "Pacific/Auckland", "2027-01-01"), [366, 1243]);
        close(on(51.51, -0.13, "Europe/London", "2027-12-31"), [486, 962]);
    }

    #[test]
    fn polar_days_and_nights_are_named() {
        assert_eq!(on(69.65, 18.96, "Europe/Oslo", "2027-06-21"), Daylight::Always);
        assert_eq!(on(69.65, 18.96, "Europe/Oslo", "2027-12-21"), Daylight::Never);
        // Late in May the sun goes down after midnight: the day is not the rest of the night before it.
        let Daylight::Between { rise, set } = on(65.0, 25.5, "Europe/Helsinki", "2027-06-21") else { panic!() };
        assert!(set < rise && rise < 300, "{set} {rise}");
    }
}
