//! The expected view of a head as a picture to print, with where each promise lies in it.

use bright_angle_core::Fault;
use bright_angle_core::file::HeadRef;
use bright_angle_core::judge::Session;
use bright_angle_core::picture::{Light, Picture, PictureWish, Window};
use bright_angle_core::work::Patience;
use image::codecs::jpeg::JpegEncoder;
use krilla::image::Image;

/// A view is at most so wide, px: 150 dots to an inch of the width of a page.
const WIDEST: f64 = 1100.0;
/// So many rays take some seconds on two slow cores; of more views each gets fewer.
const MOST_RAYS: f64 = 14e6;
/// Samples to a side of each pixel.
const SAMPLES: u32 = 2;
const QUALITY: u8 = 84;

/// A view.
pub struct View {
    /// Its pixels.
    pub image: Image,
    /// Where each promise lies in it, in shares of the picture: left, top, right, bottom; and its target's id.
    pub marks: Vec<([f32; 4], String)>,
}

/// The view of a head, one of so many; `None` where the site has no such head.
///
/// # Errors
/// When nobody waits any more; what the codec says.
pub fn view(session: &Session, head: &HeadRef, of: usize, patience: &Patience) -> Result<Option<View>, Fault> {
    let Ok(found) = session.site().view(head) else { return Ok(None) };
    let size = found.view().projection.size();
    let rays = MOST_RAYS / of.max(1) as f64;
    let fits = (rays / f64::from(SAMPLES * SAMPLES) * size.x / size.y).sqrt();
    let wish = PictureWish {
        window: Window::Whole { width: fits.clamp(240.0, WIDEST) as u32 },
        light: if session.site().file().conditions.night {
            Light::Night { stops: 0.0, exposed: None }
        } else {
            Light::Day
        },
        grid: false,
        samples: SAMPLES,
        shutter_s: 0.0,
    };
    let mut picture = Picture::begin(session, head, &wish, None)?;
    while picture.step(session.site()) {
        patience
            .check(|| "its views take longer than is allowed here".to_owned())
            .map_err(|over| Fault::new("", over.to_string()))?;
    }
    let [width, height] = [picture.width(), picture.height()];
    let rgb: Vec<u8> = picture.rgba().chunks_exact(4).flat_map(|pixel| [pixel[0], pixel[1], pixel[2]]).collect();
    let mut bytes = Vec::new();
    JpegEncoder::new_with_quality(&mut bytes, QUALITY)
        .encode(&rgb, width, height, image::ExtendedColorType::Rgb8)
        .map_err(|error| Fault::new("", error.to_string()))?;
    let image = Image::from_jpeg(bytes.into(), true).map_err(|error| Fault::new("", error))?;
    let told = picture.told();
    let share = |value: f64, whole: f64| (value / whole).clamp(0.0, 1.0) as f32;
    let marks = told.marks.iter().filter(|mark| mark.clear).filter_map(|mark| {
        let [left, top, right, bottom] = mark.bracket?;
        let outside = right < 0.0 || left > size.x || bottom < 0.0 || top > size.y;
        let at = [share(left, size.x), share(top, size.y), share(right, size.x), share(bottom, size.y)];
        (!outside).then(|| (at, mark.target.clone()))
    });
    Ok(Some(View { image, marks: marks.collect() }))
}
