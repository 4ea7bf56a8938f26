//! The core for the browser: one door that a worker holds. Changes and questions go in as JSON, answers come out as JSON; only
//! pictures and rasters have ways of their own. Whatever is refused is thrown as the JSON of its faults.

use bright_angle_core::Fault;
use bright_angle_core::answer::{Ask, Door};
use bright_angle_core::file::{HeadRef, SiteChange, SiteFile, read_json};
use bright_angle_core::picture::{Drape, Picture, PictureWish};
use bright_angle_core::show::coverage::live_relief::{ReliefWish, Share};
use std::sync::Arc;
use wasm_bindgen::prelude::wasm_bindgen;

/// Faults as JSON.
type Refused = String;

/// The door, and what goes through it as pixels.
#[wasm_bindgen]
pub struct Core {
    door: Door,
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
        let door = SiteFile::parse(site).and_then(Door::open).map_err(|faults| refused(&faults))?;
        Ok(Core { door, picture: None, overhead: None, drape: None })
    }

    /// Makes a change (a `SiteChange`); answers what it did (a `Delta`). On faults nothing is changed.
    ///
    /// # Errors
    /// The faults of the site that would come of it.
    pub fn change(&mut self, change: &str) -> Result<String, Refused> {
        let change: SiteChange = read(change)?;
        let delta = self.door.change(change).map_err(|faults| refused(&faults))?;
        // It is of a site that is no more.
        self.picture = None;
        if delta.touched.heading {
            self.lay();
        }
        json(&delta)
    }

    /// Takes the firm's own models (an array of `Model`), which ways and lines are found among. What this core cannot read, as a newer
    /// one may have written it, is left out.
    ///
    /// # Errors
    /// What is no array.
    pub fn stock(&mut self, own: &str) -> Result<(), Refused> {
        let own: Vec<serde_json::Value> = read(own)?;
        self.door.keep_own(own.into_iter().filter_map(|model| serde_json::from_value(model).ok()).collect());
        Ok(())
    }

    /// Answers a question (an `Ask` in; what the `Answer` to it holds out).
    ///
    /// # Errors
    /// Names what the site does not have, or what makes no sense.
    pub fn ask(&mut self, ask: &str) -> Result<String, Refused> {
        let ask = Ask::read(ask).map_err(|faults| refused(&faults))?;
        json(&self.door.ask(ask).map_err(|faults| refused(&faults))?)
    }

    /// How many cameras that never look away see each cell of the ground, as last told, at a need, rows from south to north.
    pub fn ground_counts(&self, need: f32) -> Vec<u8> {
        self.door.ground_counts(need)
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
            Picture::begin(self.door.session(), &head, &wish, self.drape.clone()).map_err(|fault| refused(&[fault]))?;
        self.picture = Some(picture);
        Ok(())
    }

    /// Works out some rows more of it; `false` when it is done.
    pub fn step_picture(&mut self) -> bool {
        self.picture.as_mut().is_some_and(|picture| picture.step(self.door.session().site()))
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

    /// Wants a relief (a `ReliefWish`) of the heads `hand`, `hand + hands`, …; `slot` 0 or 1 keeps what is worked out for the next time.
    ///
    /// # Errors
    /// A wish that makes no sense.
    pub fn want_relief(&mut self, wish: &str, slot: usize, hand: usize, hands: usize) -> Result<(), Refused> {
        let wish: ReliefWish = read(wish)?;
        self.door.want_relief(slot, &wish, Share { hand, hands }).map_err(|fault| refused(&[fault]))
    }

    /// Works out one layer of the relief in a slot; `false` when it is up to date.
    pub fn step_relief(&mut self, slot: usize) -> bool {
        self.door.step_relief(slot)
    }

    /// The best density of each cell, px/m, rows from south to north; zero where none of the heads sees.
    pub fn relief(&self, slot: usize) -> Vec<f32> {
        self.door.relief(slot).to_vec()
    }
}

impl Core {
    /// Lays the overhead picture where the drawing of the site says.
    fn lay(&mut self) {
        let drawing = self.door.session().site().file().drawing.as_ref();
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
