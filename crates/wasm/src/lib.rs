//! The core for the browser: one session that a worker holds. Changes and questions go in as JSON, small answers come out as
//! JSON, the relief as floats. Whatever is refused is thrown as the JSON of its faults.

use bright_angle_core::Fault;
use bright_angle_core::answer::{Ask, answer};
use bright_angle_core::change::ways::mend::sun_ways;
use bright_angle_core::file::{HeadRef, SiteChange, SiteFile, read_json};
use bright_angle_core::ground::told::{GroundWish, LiveGround};
use bright_angle_core::judge::Session;
use bright_angle_core::math::Grid;
use bright_angle_core::picture::{Drape, Picture, PictureWish};
use bright_angle_core::show::live_relief::LiveRelief;
use bright_angle_core::show::live_sun::LiveSun;
use bright_angle_core::show::sun_told::calendar;
use bright_angle_core::words::units::Units;
use std::sync::Arc;
use wasm_bindgen::prelude::wasm_bindgen;

/// Faults as JSON.
type Refused = String;

/// A session with its relief.
#[wasm_bindgen]
pub struct Core {
    session: Session,
    /// A coarse one for a hand on the move, and a fine one.
    reliefs: [Option<LiveRelief>; 2],
    /// The ground, once it was asked about.
    ground: Option<LiveGround>,
    /// The sun, once it was asked about.
    sun: LiveSun,
    /// A picture under work.
    picture: Option<Picture>,
    /// The overhead picture's pixels, and as it lies on the ground.
    overhead: Option<Overhead>,
    drape: Option<Arc<Drape>>,
}

/// A decoded picture: width and height, px, and red, green, blue and opacity of each pixel.
struct Overhead {
    size: (u32, u32),
    rgba: Vec<u8>,
}

#[wasm_bindgen]
impl Core {
    /// Opens a site file.
    ///
    /// # Errors
    /// The faults of the file.
    pub fn open(site: &str) -> Result<Core, Refused> {
        let session = SiteFile::parse(site).and_then(Session::open).map_err(|faults| refused(&faults))?;
        Ok(Core {
            session,
            reliefs: [None, None],
            ground: None,
            sun: LiveSun::default(),
            picture: None,
            overhead: None,
            drape: None,
        })
    }

    /// Makes a change (a `SiteChange`); answers what it did (a `Delta`). On faults nothing is changed.
    ///
    /// # Errors
    /// The faults of the site that would come of it.
    pub fn change(&mut self, change: &str) -> Result<String, Refused> {
        let change: SiteChange = read(change)?;
        let delta = self.session.apply(change).map_err(|faults| refused(&faults))?;
        // It is of a site that is no more.
        self.picture = None;
        if delta.touched.heading {
            self.lay();
        }
        for relief in self.reliefs.iter_mut().flatten() {
            relief.changed(self.session.site(), &delta);
        }
        if let Some(ground) = &mut self.ground {
            ground.changed(self.session.site(), &delta);
        }
        serde_json::to_string(&delta).map_err(|error| refused(&[Fault::new("", error.to_string())]))
    }

    /// Answers a question (an `Ask`).
    ///
    /// # Errors
    /// Names what the site does not have, or what makes no sense.
    pub fn ask(&self, ask: &str) -> Result<String, Refused> {
        let ask: Ask = read(ask)?;
        answer(&self.session, ask).map_err(|faults| refused(&faults))
    }

    /// What the relief tells about the ground (a `GroundWish` in, a `Ground` out); what is worked out is kept for the next time.
    ///
    /// # Errors
    /// A wish that makes no sense.
    pub fn ground(&mut self, wish: &str) -> Result<String, Refused> {
        let wish: GroundWish = read(wish)?;
        wish.checked().map_err(|fault| refused(&[fault]))?;
        let site = self.session.site();
        let held = self.ground.take().filter(|ground| ground.height() == wish.height_m);
        let ground = self.ground.insert(held.unwrap_or_else(|| LiveGround::new(site, wish.height_m)));
        let told = ground.tell(site, &wish).map_err(|fault| refused(&[fault]))?;
        serde_json::to_string(&told).map_err(|error| refused(&[Fault::new("", error.to_string())]))
    }

    /// A head's calendar of the sun (a `HeadRef`, the id of a target or none; a `SunCalendar` out); the sun's year is kept.
    ///
    /// # Errors
    /// What the site does not have, or a year that the sun is not told for.
    pub fn sun_calendar(&mut self, head: &str, target: Option<String>, year: i32) -> Result<String, Refused> {
        let head: HeadRef = read(head)?;
        let site = self.session.site();
        let year = self.sun.year(site, year).map_err(|fault| refused(&[fault]))?;
        json(&calendar(&self.session, &head, target.as_deref(), year).map_err(|fault| refused(&[fault]))?)
    }

    /// The ways that lessen the sun in a head's picture (a `HeadRef` and `Units`; `Mends` out).
    ///
    /// # Errors
    /// As for the calendar.
    pub fn sun_ways(&mut self, head: &str, year: i32, units: &str) -> Result<String, Refused> {
        let (head, units): (HeadRef, Units) = (read(head)?, read(units)?);
        let year = self.sun.year(self.session.site(), year).map_err(|fault| refused(&[fault]))?;
        json(&sun_ways(&self.session, &head, year, units).map_err(|fault| refused(&[fault]))?)
    }

    /// Begins to work out the hours of sun in every head's picture.
    ///
    /// # Errors
    /// As for the calendar.
    pub fn want_sun(&mut self, year: i32) -> Result<(), Refused> {
        self.sun.want(self.session.site(), year).map_err(|fault| refused(&[fault]))
    }

    /// Works out one head more; `false` when it is done.
    pub fn step_sun(&mut self) -> bool {
        self.sun.step(&self.session)
    }

    /// The hours of each head that is worked out (`SunHours`).
    pub fn sun_hours(&self) -> String {
        serde_json::to_string(self.sun.hours()).unwrap_or_default()
    }

    /// How many cameras that never look away see each cell of the ground, as last told, at a need, rows from south to north.
    pub fn ground_counts(&self, need: f32) -> Vec<u8> {
        let ground = self.ground.as_ref();
        ground.map(|ground| ground.counts(self.session.site(), need).steady).unwrap_or_default()
    }

    /// Takes the overhead picture for the ground of pictures: red, green, blue and opacity of its pixels from the top left; it may
    /// be smaller than the drawing says. None of it where the site has no drawing, or one without a scale.
    pub fn take_overhead(&mut self, width: u32, height: u32, rgba: Vec<u8>) {
        self.overhead = Some(Overhead { size: (width, height), rgba });
        self.lay();
    }

    /// Begins the picture of a head (a `HeadRef` and a `PictureWish`).
    ///
    /// # Errors
    /// Names the head or target that the site does not have.
    pub fn want_picture(&mut self, head: &str, wish: &str) -> Result<(), Refused> {
        let (head, wish): (HeadRef, PictureWish) = (read(head)?, read(wish)?);
        let picture =
            Picture::begin(&self.session, &head, &wish, self.drape.clone()).map_err(|fault| refused(&[fault]))?;
        self.picture = Some(picture);
        Ok(())
    }

    /// Works out some rows more of it; `false` when it is done.
    pub fn step_picture(&mut self) -> bool {
        self.picture.as_mut().is_some_and(|picture| picture.step(self.session.site()))
    }

    /// Red, green, blue and opacity of its pixels, from the top left.
    pub fn picture(&self) -> Vec<u8> {
        self.picture.as_ref().map(|picture| picture.rgba().to_vec()).unwrap_or_default()
    }

    /// What it shows (a `PictureTold`).
    pub fn picture_told(&self) -> String {
        let told = self.picture.as_ref().map(Picture::told);
        serde_json::to_string(&told).unwrap_or_default()
    }

    /// Wants the relief over bounds (west, south, east, north, m) at a height, m, of the heads `hand`, `hand + hands`, …;
    /// `slot` 0 or 1 keeps what is worked out for the next time.
    #[allow(clippy::too_many_arguments)]
    pub fn want_relief(
        &mut self,
        slot: usize,
        west: f64,
        south: f64,
        east: f64,
        north: f64,
        cell: f64,
        height: f64,
        hand: usize,
        hands: usize,
    ) {
        let grid = Grid::over([west, south, east, north], cell);
        let held = &mut self.reliefs[slot % 2];
        if !held.as_ref().is_some_and(|relief| relief.is_of(&grid, height)) {
            *held = Some(LiveRelief::new(self.session.site(), grid, height, hand, hands));
        }
    }

    /// Works out one layer of the relief in a slot; `false` when it is up to date.
    pub fn step_relief(&mut self, slot: usize) -> bool {
        let site = self.session.site();
        self.reliefs[slot % 2].as_mut().is_some_and(|relief| relief.step(site))
    }

    /// The best density of each cell, px/m, rows from south to north; zero where none of the heads sees.
    pub fn relief(&self, slot: usize) -> Vec<f32> {
        self.reliefs[slot % 2].as_ref().map(|relief| relief.relief().best().to_vec()).unwrap_or_default()
    }
}

impl Core {
    /// Lays the overhead picture where the drawing of the site says.
    fn lay(&mut self) {
        let drawing = self.session.site().file().drawing.as_ref();
        let laid = self.overhead.as_ref().zip(drawing);
        self.drape = laid.and_then(|(held, drawing)| Drape::new(drawing, held.size, &held.rgba)).map(Arc::new);
    }
}

fn read<T: for<'a> serde::Deserialize<'a>>(json: &str) -> Result<T, Refused> {
    read_json(json).map_err(|faults| refused(&faults))
}

fn json(value: &impl serde::Serialize) -> Result<String, Refused> {
    serde_json::to_string(value).map_err(|error| refused(&[Fault::new("", error.to_string())]))
}

fn refused(faults: &[Fault]) -> Refused {
    serde_json::to_string(faults).unwrap_or_default()
}
