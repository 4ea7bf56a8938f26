//! The cameras of a site as they hang: the design, what is wrong with it to order, and what hands and motors turned since.

use crate::fault::{Fault, Wrong};
use bright_angle_core::Site;
use bright_angle_core::file::{CameraFile, HeadRef, Lens, SiteFile};
use bright_angle_core::judge::Session;
use bright_angle_core::picture::{Light, Picture, PictureWish, Window};
use image::{ImageBuffer, Rgb, RgbImage, imageops};
use std::collections::HashMap;

/// The widest picture that is given, px: what a slow machine renders in a second or two.
const WIDEST_PX: u32 = 1600;
const QUALITY: u8 = 88;

/// So far a head was turned since.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct Turned {
    /// To the right, degrees.
    pub pan_deg: f64,
    /// Down, degrees.
    pub tilt_deg: f64,
    /// Clockwise as seen from behind, degrees.
    pub roll_deg: f64,
    /// The focal length times so much; 0 for none.
    pub zoom: f64,
}

/// The cameras of a site.
#[derive(Debug)]
pub struct StandIn {
    site: SiteFile,
    faults: Vec<Fault>,
    turned: HashMap<(String, String), Turned>,
}

impl StandIn {
    /// Cameras of a site, with what is wrong with them.
    pub fn of(site: SiteFile, faults: Vec<Fault>) -> StandIn {
        StandIn { site, faults, turned: HashMap::new() }
    }

    /// Takes another site: what was turned stays turned.
    pub fn take(&mut self, site: SiteFile) {
        self.site = site;
    }

    /// Turns a head from where it is.
    ///
    /// # Errors
    /// Says what is not there.
    pub fn turn(&mut self, camera: &str, head: &str, by: Turned) -> Result<(), String> {
        self.head(camera, head)?;
        let held = self.turned.entry((camera.to_owned(), head.to_owned())).or_default();
        held.pan_deg += by.pan_deg;
        held.tilt_deg += by.tilt_deg;
        held.roll_deg += by.roll_deg;
        let before = if held.zoom > 0.0 { held.zoom } else { 1.0 };
        held.zoom = if by.zoom > 0.0 { before * by.zoom } else { before };
        Ok(())
    }

    fn head(&self, camera: &str, head: &str) -> Result<(usize, usize), String> {
        let place = self.site.cameras.iter().position(|held| held.id == camera);
        let place = place.ok_or_else(|| format!("no camera {camera}"))?;
        let heads = &self.site.cameras[place].heads;
        let head_place = heads.iter().position(|held| held.id == head).ok_or_else(|| format!("no head {head}"))?;
        Ok((place, head_place))
    }

    /// What is wrong with a head: what it was begun with, and what is asked for besides.
    fn wrong(&self, camera: &str, head: &str, also: &[Wrong]) -> Vec<Wrong> {
        let own = self.faults.iter().filter(|fault| fault.is_of(camera, head)).map(|fault| fault.wrong);
        own.chain(also.iter().copied()).collect()
    }

    /// By how many minutes the clock of a camera is fast.
    pub fn clock_off_min(&self, camera: &str, also: &[Wrong]) -> f64 {
        let of = |wrong| if let Wrong::Clock(minutes) = wrong { minutes } else { 0.0 };
        let own = self.faults.iter().filter(|fault| fault.camera == camera).map(|fault| fault.wrong);
        own.chain(also.iter().copied()).map(of).sum()
    }

    /// The camera as it hangs. Its design is that of the file, whatever was taken over there as built.
    fn hung(&self, camera: &str, head: &str, wrong: &[Wrong]) -> Result<CameraFile, String> {
        let (place, head_place) = self.head(camera, head)?;
        let mut hung = self.site.cameras[place].clone();
        let model_lens = hung.model.lens;
        let turned = self.turned.get(&(camera.to_owned(), head.to_owned())).copied().unwrap_or_default();
        let mut lens_mm = None;
        {
            let one = &mut hung.heads[head_place];
            // What somebody turned on the plan since is the design again.
            let designed = one.as_built().map(|built| built.designed);
            one.as_built = None;
            if let Some(designed) = designed {
                (one.pan_deg, one.tilt_deg, one.roll_deg) = (designed.pan_deg, designed.tilt_deg, designed.roll_deg);
                (one.focal_mm, one.lens) = (designed.focal_mm, None);
            }
            one.pan_deg += turned.pan_deg;
            one.tilt_deg += turned.tilt_deg;
            one.roll_deg += turned.roll_deg;
            if turned.zoom > 0.0 {
                one.focal_mm *= turned.zoom;
            }
        }
        for wrong in wrong.iter().copied() {
            let one = &mut hung.heads[head_place];
            match wrong {
                Wrong::Turned(by) => one.pan_deg += by,
                Wrong::Tilted(by) => one.tilt_deg += by,
                Wrong::Rolled(by) => one.roll_deg += by,
                Wrong::UpsideDown => one.roll_deg += 180.0,
                Wrong::Moved(by) => hung.position[0] += by,
                Wrong::Lens(mm) => lens_mm = Some(mm),
                _ => {}
            }
        }
        let one = &mut hung.heads[head_place];
        one.pan_deg = one.pan_deg.rem_euclid(360.0);
        one.tilt_deg = one.tilt_deg.clamp(-90.0, 90.0);
        one.roll_deg = (one.roll_deg + 180.0).rem_euclid(360.0) - 180.0;
        if let Some(mm) = lens_mm {
            one.focal_mm = mm;
        }
        let inside = model_lens.has_focal(one.focal_mm);
        if !inside && model_lens.is_zoom() && lens_mm.is_none() {
            // A zoom ends where it ends.
            one.focal_mm = one.focal_mm.clamp(model_lens.focal_min_mm, model_lens.focal_max_mm);
        } else if !inside {
            one.lens = Some(other_lens(&hung.model.sensor, model_lens, one.focal_mm));
        }
        Ok(hung)
    }

    /// The picture of a head as a JPEG.
    ///
    /// # Errors
    /// Says what is not there or cannot hang so.
    pub fn picture(
        &self,
        camera: &str,
        head: &str,
        night: bool,
        width: u32,
        also: &[Wrong],
    ) -> Result<Vec<u8>, String> {
        let wrong = self.wrong(camera, head, also);
        let (place, _) = self.head(camera, head)?;
        let mut site = self.site.clone();
        site.cameras[place] = self.hung(camera, head, &wrong)?;
        let site = Site::from_file(site).map_err(|faults| faults[0].to_string())?;
        let session = Session::on(site);
        let head_ref = HeadRef { camera: camera.to_owned(), head: head.to_owned(), view: None };
        let wish = PictureWish {
            window: Window::Whole { width: width.clamp(64, WIDEST_PX) },
            light: if night { Light::Night { stops: 0.0, exposed: None } } else { Light::Day },
            grid: false,
            samples: 2,
            shutter_s: 0.0,
        };
        let mut picture = Picture::begin(&session, &head_ref, &wish, None).map_err(|fault| fault.to_string())?;
        while picture.step(session.site()) {}
        let (wide, high) = (picture.width(), picture.height());
        let of = |x: u32, y: u32| {
            let at = 4 * (y * wide + x) as usize;
            Rgb([picture.rgba()[at], picture.rgba()[at + 1], picture.rgba()[at + 2]])
        };
        let plain: RgbImage = ImageBuffer::from_fn(wide, high, of);
        let shown = wrong.into_iter().fold(plain, spoilt);
        let mut bytes = vec![];
        let mut encoder = image::codecs::jpeg::JpegEncoder::new_with_quality(&mut bytes, QUALITY);
        encoder.encode_image(&shown).map_err(|error| error.to_string())?;
        Ok(bytes)
    }
}

/// A lens of another focal length on a sensor: its field as the model's bend has it.
fn other_lens(sensor: &bright_angle_core::file::Sensor, model: Lens, focal_mm: f64) -> Lens {
    let fitted = bright_angle_core::equipment::lens::FittedLens::new(model, *sensor);
    let held = focal_mm.clamp(model.focal_min_mm, model.focal_max_mm);
    let hfov = fitted.projection(held).scaled(focal_mm / held).hfov().to_degrees();
    Lens {
        focal_min_mm: focal_mm,
        focal_max_mm: focal_mm,
        hfov_at_min_deg: Some(hfov),
        hfov_at_max_deg: Some(hfov),
        f_number: model.f_number,
    }
}

/// A picture through what is wrong with it.
fn spoilt(mut picture: RgbImage, wrong: Wrong) -> RgbImage {
    let grey = |picture: &mut RgbImage, left: f64, towards: f64| {
        for value in picture.pixels_mut().flat_map(|pixel| &mut pixel.0) {
            *value = (f64::from(*value) * left + towards * (1.0 - left)).round() as u8;
        }
    };
    match wrong {
        Wrong::Blurred(px) => imageops::blur(&picture, px as f32),
        Wrong::Corridor => imageops::rotate90(&picture),
        Wrong::Dirty(left) => {
            grey(&mut picture, left, 150.0);
            picture
        }
        Wrong::Film => {
            grey(&mut picture, 0.55, 200.0);
            imageops::blur(&picture, 3.0)
        }
        Wrong::Overgrown(share) => {
            let upto = (f64::from(picture.height()) * share) as u32;
            for (x, y, pixel) in picture.enumerate_pixels_mut() {
                // Leaves hang in from above, their edge ragged.
                if y + (x * 37 % 29) < upto {
                    *pixel = Rgb([40 + (x * 7 % 23) as u8, 70 + (y * 5 % 31) as u8, 35]);
                }
            }
            picture
        }
        _ => picture,
    }
}
