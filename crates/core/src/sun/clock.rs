//! The clock on the wall: local time of a zone, clock changes right.

use crate::file::zones::rule_of;
use jiff::Timestamp;
use jiff::civil::Date;
use jiff::tz::TimeZone;

/// Years that the sun and the clock are told for. Further away nobody knows how the earth will have turned, nor the zones.
pub const YEARS: std::ops::RangeInclusive<i32> = 1900..=2100;

/// The clock of a zone.
#[derive(Clone, Debug)]
pub struct Clock {
    zone: TimeZone,
}

/// A local day and the minute of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct LocalMinute {
    /// The day.
    pub date: Date,
    /// Minutes since its midnight by the clock.
    pub minute: u16,
}

impl Clock {
    /// The clock of a zone by its name in the IANA database, by the rule that holds there now; UTC for one that is not known.
    pub fn of(zone: &str) -> Clock {
        let known = rule_of(zone).and_then(|rule| TimeZone::posix(rule).ok());
        Clock { zone: known.unwrap_or(TimeZone::UTC) }
    }

    /// How far the clock is ahead of UTC then, s.
    pub fn ahead_s(&self, at: Timestamp) -> i32 {
        self.zone.to_offset(at).seconds()
    }

    /// The local day and minute.
    pub fn read(&self, at: Timestamp) -> LocalMinute {
        let local = self.zone.to_datetime(at);
        LocalMinute { date: local.date(), minute: (i32::from(local.hour()) * 60 + i32::from(local.minute())) as u16 }
    }

    /// The moments of a year at which the clock is put on or back, by how many seconds.
    pub fn changes(&self, year: i32) -> Vec<(Timestamp, i32)> {
        let (Some(begin), Some(end)) = (start_of(year), start_of(year + 1)) else { return vec![] };
        let mut changes = self.zone.following(begin);
        std::iter::from_fn(move || changes.next())
            .map(|change| change.timestamp())
            .take_while(|at| *at < end)
            .filter_map(|at| {
                let before = Timestamp::from_second(at.as_second() - 1).ok()?;
                Some((at, self.ahead_s(at) - self.ahead_s(before)))
            })
            .filter(|(_, by)| *by != 0)
            .collect()
    }
}

/// The first moment of a year, UTC.
pub fn start_of(year: i32) -> Option<Timestamp> {
    let date = Date::new(i16::try_from(year).ok()?, 1, 1).ok()?;
    TimeZone::UTC.to_timestamp(date.at(0, 0, 0, 0)).ok()
}

/// A minute of the day as a clock shows it.
pub fn shown(minute: u16) -> String {
    format!("{:02}:{:02}", minute / 60, minute % 60)
}

impl Clock {
    /// The moment at which the clock shows a minute of a day; of a minute that it skips the one it shows instead.
    pub fn moment(&self, date: Date, minute: u16) -> Option<Timestamp> {
        let time = jiff::civil::Time::new((minute / 60) as i8, (minute % 60) as i8, 0, 0).ok()?;
        self.zone.to_timestamp(date.to_datetime(time)).ok()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// The clock changes of thirteen zones over four years as Python's zoneinfo has them, with the tables of the IANA database
    /// (`outside/zones`).
    #[test]
    fn clocks_change_when_the_published_tables_say() {
        let table = include_str!("../../../../outside/zones/changes.csv");
        let mut checked = 0;
        for line in table.lines().skip(1) {
            let fields: Vec<&str> = line.split(',').collect();
            let at: Timestamp = fields[1].parse().unwrap();
            let clock = Clock::of(fields[0]);
            let [before, after] = [fields[2], fields[3]].map(|offset| offset.parse::<i32>().unwrap());
            assert_eq!(clock.ahead_s(at), after, "{line}");
            if before != after {
                assert_eq!(clock.ahead_s(Timestamp::from_second(at.as_second() - 1).unwrap()), before, "{line}");
                let year = i32::from(TimeZone::UTC.to_datetime(at).year());
                assert!(clock.changes(year).contains(&(at, after - before)), "{line}");
                checked += 1;
            }
        }
        assert!(checked > 60, "{checked}");
        assert!(Clock::of("Asia/Kolkata").changes(2027).is_empty());
    }

    #[test]
    fn a_clock_is_read_and_set() {
        let london = Clock::of("Europe/London");
        let at: Timestamp = "2027-06-21T12:00:00Z".parse().unwrap();
        let read = london.read(at);
        assert_eq!((read.date.to_string().as_str(), shown(read.minute).as_str()), ("2027-06-21", "13:00"));
        assert_eq!(london.moment(read.date, read.minute), Some(at));
    }
}
