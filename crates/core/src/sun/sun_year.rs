//! A year of the sun over a place, minute by minute.
//!
//! The algorithm costs some microseconds a call, too much for half a million minutes. Seen against the turning sky the sun moves
//! slowly: its hour angle, less the even turn of the earth, and its declination are taken from the algorithm every three hours and
//! interpolated by cubics in between (error below 0.00001°, held against the algorithm by a test).

use super::clock::start_of;
use super::position::{check_year, julian, lifted_deg, without_air};
use crate::file::{Fault, GeoPlace};
use glam::DVec3;
use jiff::Timestamp;
use std::f64::consts::{PI, TAU};

/// Minutes between two calls of the algorithm.
const STEP: usize = 180;
/// Under this the sun is surely down even with its light bent, as the sine of its height.
const SURELY_DOWN: f64 = -0.0155;

/// The sun over a place through a year: the way to it at every whole minute, UTC, at which it is up.
#[derive(Clone, Debug)]
pub struct SunYear {
    place: GeoPlace,
    year: i32,
    begin: Timestamp,
    minutes: u32,
    up: Vec<Up>,
}

/// A minute at which the sun is up.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Up {
    /// Whole minutes since the year began.
    pub minute: u32,
    /// The way to the sun in the site, of length one, with the bending of the light.
    pub direction: DVec3,
}

impl SunYear {
    /// The sun of a year.
    ///
    /// # Errors
    /// A year that it is not told for.
    pub fn new(place: &GeoPlace, year: i32) -> Result<SunYear, Fault> {
        check_year(year, "year")?;
        let unknown = || Fault::new("year", format!("there is no year {year}"));
        let (begin, end) = (start_of(year).ok_or_else(unknown)?, start_of(year + 1).ok_or_else(unknown)?);
        let minutes = ((end.as_second() - begin.as_second()) / 60) as usize;
        SunYear::of(place, year, begin, minutes).ok_or_else(unknown)
    }

    /// The day before it and the day after it, UTC: parts of the year as clocks east and west of Greenwich count it.
    pub fn edges(&self) -> Vec<SunYear> {
        let second = |minutes: i64| Timestamp::from_second(self.begin.as_second() + minutes * 60).ok();
        let begins = [second(-1440), second(i64::from(self.minutes))];
        begins.into_iter().flatten().filter_map(|begin| SunYear::of(&self.place, self.year, begin, 1440)).collect()
    }

    fn of(place: &GeoPlace, year: i32, begin: Timestamp, minutes: usize) -> Option<SunYear> {
        let (sin, cos) = place.latitude_deg.to_radians().sin_cos();
        let longitude = place.longitude_deg.to_radians();
        // One node before the year and two after it, for the cubics at its ends.
        let nodes = (0..minutes / STEP + 4).map(|i| {
            let days = (i as f64 - 1.0) * STEP as f64 / 1440.0;
            let (azimuth, height) = without_air(place, julian(begin) + days)?;
            let (sa, ca) = azimuth.sin_cos();
            let (sh, ch) = height.sin_cos();
            let declination = (sin * sh + cos * ch * ca).clamp(-1.0, 1.0).asin();
            let hour = (-ch * sa).atan2(sh * cos - ch * ca * sin);
            let apart = hour - TAU * days.fract() - longitude;
            // The equation of time and the parallax: some degrees at most, plus the half turn of midnight.
            Some([(apart - PI).rem_euclid(TAU), declination])
        });
        let nodes: Option<Vec<[f64; 2]>> = nodes.collect();
        let nodes = unwrapped(nodes?);
        let weights: Vec<[f64; 4]> = (0..STEP).map(|minute| cubic(minute as f64 / STEP as f64)).collect();
        let mut up = Vec::with_capacity(minutes / 2 + minutes / 16);
        for minute in 0..minutes {
            let (node, weights) = (minute / STEP, &weights[minute % STEP]);
            let at = |what: usize| (0..4).map(|k| weights[k] * nodes[node + k][what]).sum::<f64>();
            let hour = at(0) + PI + TAU * ((minute % 1440) as f64 / 1440.0) + longitude;
            let (sd, cd) = at(1).sin_cos();
            let (sh, ch) = hour.sin_cos();
            let sine = sin * sd + cos * cd * ch;
            if sine < SURELY_DOWN {
                continue;
            }
            let height = sine.clamp(-1.0, 1.0).asin().to_degrees();
            let apparent = (height + lifted_deg(height)).to_radians();
            if apparent <= 0.0 {
                continue;
            }
            let flat = DVec3::new(-cd * sh, sd * cos - cd * ch * sin, 0.0).normalize_or(DVec3::Y);
            up.push(Up { minute: minute as u32, direction: flat * apparent.cos() + DVec3::Z * apparent.sin() });
        }
        Some(SunYear { place: place.clone(), year, begin, minutes: minutes as u32, up })
    }

    /// Which year it is.
    pub fn year(&self) -> i32 {
        self.year
    }

    /// How many minutes it has.
    pub fn minutes(&self) -> u32 {
        self.minutes
    }

    /// The minutes at which the sun is up, in order.
    pub fn up(&self) -> &[Up] {
        &self.up
    }

    /// When a minute is.
    pub fn time(&self, minute: u32) -> Timestamp {
        Timestamp::from_second(self.begin.as_second() + i64::from(minute) * 60).unwrap_or(self.begin)
    }
}

/// Angles as they go on, without steps of a whole turn.
fn unwrapped(mut nodes: Vec<[f64; 2]>) -> Vec<[f64; 2]> {
    for i in 1..nodes.len() {
        nodes[i][0] -= ((nodes[i][0] - nodes[i - 1][0]) / TAU).round() * TAU;
    }
    nodes
}

/// The weights of four even nodes at a share of the way between the middle two (Lagrange).
fn cubic(t: f64) -> [f64; 4] {
    [
        -t * (t - 1.0) * (t - 2.0) / 6.0,
        (t + 1.0) * (t - 1.0) * (t - 2.0) / 2.0,
        -(t + 1.0) * t * (t - 2.0) / 2.0,
        (t + 1.0) * t * (t - 1.0) / 6.0,
    ]
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::sun::position::over;

    fn place(latitude_deg: f64, longitude_deg: f64) -> GeoPlace {
        GeoPlace { latitude_deg, longitude_deg, elevation_m: 20.0, time_zone: "UTC".into() }
    }

    #[test]
    fn between_its_nodes_it_is_where_the_algorithm_has_it() {
        for (latitude, longitude) in
            [(51.5, -0.1), (-33.9, 151.2), (0.0, 179.9), (78.2, 15.6), (90.0, 0.0), (-90.0, 40.0)]
        {
            let place = place(latitude, longitude);
            let year = SunYear::new(&place, 2028).unwrap();
            assert_eq!(year.minutes(), 366 * 1440);
            let mut worst = 0.0_f64;
            for up in year.up().iter().step_by(997) {
                let exact = over(&place, year.time(up.minute)).unwrap();
                worst = worst.max(up.direction.angle_between(exact.direction()).to_degrees());
            }
            assert!(worst < 2e-5, "{latitude} {longitude}: {worst}°");
        }
    }

    #[test]
    fn the_sun_is_up_as_long_as_the_algorithm_says() {
        let place = place(60.0, 25.0);
        let year = SunYear::new(&place, 2027).unwrap();
        let ups: std::collections::HashSet<u32> = year.up().iter().map(|up| up.minute).collect();
        for minute in (0..year.minutes()).step_by(101) {
            let exact = over(&place, year.time(minute)).unwrap().apparent_elevation_deg;
            if exact.abs() > 1e-4 {
                assert_eq!(ups.contains(&minute), exact > 0.0, "{minute}");
            }
        }
    }

    #[test]
    fn years_that_nobody_knows_are_refused() {
        for year in [1, 1899, 2101, 9999, -5] {
            assert!(SunYear::new(&place(50.0, 0.0), year).unwrap_err().message.contains("1900 to 2100"), "{year}");
        }
    }
}
