//! The sun's year kept between questions, and worked out head by head.

use super::sun_told::{sun_of_head, sun_year};
use crate::file::{Fault, GeoPlace, HeadRef};
use crate::judge::Session;
use crate::judge::evaluation::eye_around;
use crate::light::SunYear;
use crate::site::Site;
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

/// A year of the sun over a site, and what was worked out with it.
#[derive(Clone, Debug, Default)]
pub struct LiveSun {
    held: Option<(GeoPlace, SunYear)>,
    hours: Vec<SunHours>,
    next: usize,
}

impl LiveSun {
    /// The sun of a year over the site; worked out once a place and a year.
    ///
    /// # Errors
    /// A site without a place, or a year that the sun is not told for.
    pub fn year(&mut self, site: &Site, year: i32) -> Result<&SunYear, Fault> {
        let place = site.file().place.as_ref();
        let known = self.held.take().filter(|(at, held)| Some(at) == place && held.year() == year);
        let held = match known {
            Some(known) => known,
            None => {
                let sun = sun_year(site, year)?;
                (
                    place
                        .cloned()
                        .ok_or_else(|| Fault::new("place", "the site does not say where on the earth it is"))?,
                    sun,
                )
            }
        };
        Ok(&self.held.insert(held).1)
    }

    /// Begins to work out the hours of all heads anew.
    ///
    /// # Errors
    /// As for [`LiveSun::year`].
    pub fn want(&mut self, site: &Site, year: i32) -> Result<(), Fault> {
        self.year(site, year)?;
        (self.hours, self.next) = (vec![], 0);
        Ok(())
    }

    /// Works out one head more; `false` when there are none left.
    pub fn step(&mut self, session: &Session) -> bool {
        let site = session.site();
        let (Some(head), Some((_, year))) = (site.heads().get(self.next), &self.held) else { return false };
        let found = sun_of_head(head, &eye_around(site, head), site, year, &[], 1);
        self.hours.push(SunHours { head: head.name(), hours: found.in_picture.len() as f64 / 60.0 });
        self.next += 1;
        self.next < site.heads().len()
    }

    /// What is worked out so far, in the site's order.
    pub fn hours(&self) -> &[SunHours] {
        &self.hours
    }
}
