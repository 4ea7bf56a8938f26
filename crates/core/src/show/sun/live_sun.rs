//! The sun's year kept between questions, and the hours of one head after the other.

use super::sun_told::{place_of, sun_of_head};
use crate::file::{Fault, GeoPlace, HeadRef};
use crate::judge::Session;
use crate::judge::evaluation::eye_around;
use crate::site::{Head, Site};
use crate::sun::SunYear;
use serde::Serialize;
use utoipa::ToSchema;

/// Hours a year with the sun in a head's picture.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SunHours {
    /// The head.
    pub head: HeadRef,
    /// Hours.
    pub hours: f64,
}

/// How many heads there are, and the hours of the one that was asked about.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct SunHoursTold {
    /// The head of that place; null past the last.
    #[schema(required)]
    pub of_head: Option<SunHours>,
    /// Heads and views in all.
    pub heads: usize,
}

/// A year of the sun over a site, kept between questions.
#[derive(Clone, Debug, Default)]
pub struct LiveSun {
    held: Option<(GeoPlace, SunYear)>,
}

impl LiveSun {
    /// The sun of a year over the site; worked out once a place and a year.
    ///
    /// # Errors
    /// A site without a place, or a year that the sun is not told for.
    pub fn year(&mut self, site: &Site, year: i32) -> Result<&SunYear, Fault> {
        let place = place_of(site)?;
        let known = self.held.take().filter(|(at, held)| at == place && held.year() == year);
        let held = match known {
            Some(known) => known,
            None => (place.clone(), SunYear::new(place, year)?),
        };
        Ok(&self.held.insert(held).1)
    }
}

/// The hours of a year with the sun in the picture of the head at a place of the site's order.
pub fn sun_hours(session: &Session, year: &SunYear, place: usize) -> SunHoursTold {
    let site = session.site();
    let hours = |head: &Head| {
        let found = sun_of_head(head, &eye_around(site, head), site, year, &[], 1);
        SunHours { head: head.name(), hours: found.in_picture.len() as f64 / 60.0 }
    };
    SunHoursTold { of_head: site.heads().get(place).map(hours), heads: site.heads().len() }
}
