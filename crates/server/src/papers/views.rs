//! The expected view of a head as a picture to print, with where each promise lies in it.

use crate::picture::pixels;
use bright_angle_core::Fault;
use bright_angle_core::file::HeadRef;
use bright_angle_core::judge::Session;
use bright_angle_core::offer::photo_view::PhotoLaid;
use bright_angle_core::picture::{Light, Picture, PictureWish, Window};
use bright_angle_core::work::Patience;
use image::RgbImage;
use image::codecs::jpeg::JpegEncoder;
use krilla::image::Image;

/// A view is at most so wide, px: 150 dots to an inch of the width of a page.
const WIDEST: f64 = 1100.0;
/// So many rays take some seconds on two slow cores; of more views each gets fewer.
const MOST_RAYS: f64 = 14e6;
/// Samples to a side of each pixel.
const SAMPLES: u32 = 2;
const QUALITY: u8 = 84;
/// What a photo does not show.
const PAPER: [u8; 3] = [255, 253, 247];

/// A view.
pub struct View {
    /// Its pixels.
    pub image: Image,
    /// Where each promise lies in it, in shares of the picture: left, top, right, bottom; and its target's id.
    pub marks: Vec<([f32; 4], String)>,
    /// Whether it is a photo's.
    pub in_photo: bool,
}

/// The view of a head, one of so many, laid into a photo from its spot where there is one; `None` where the site has no such head.
///
/// # Errors
/// When nobody waits any more; what the codec says.
pub fn view(
    session: &Session,
    head: &HeadRef,
    of: usize,
    photo: Option<(&PhotoLaid, &[u8])>,
    patience: &Patience,
) -> Result<Option<View>, Fault> {
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
    // A photo that cannot be read leaves the computed view.
    let laid = photo.and_then(|(laid, bytes)| {
        let size = [picture.width(), picture.height()];
        Some(warp(laid, &pixels(bytes).ok()?, size))
    });
    while laid.is_none() && picture.step(session.site()) {
        patience
            .check(|| "its views take longer than is allowed here".to_owned())
            .map_err(|over| Fault::new("", over.to_string()))?;
    }
    let [width, height] = [picture.width(), picture.height()];
    let in_photo = laid.is_some();
    let rgb = laid
        .unwrap_or_else(|| picture.rgba().chunks_exact(4).flat_map(|pixel| [pixel[0], pixel[1], pixel[2]]).collect());
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
    Ok(Some(View { image, marks: marks.collect(), in_photo }))
}

/// A view out of a photo, RGB: each pixel where the core says that it lies, between its neighbours; what the photo does not show is paper.
fn warp(laid: &PhotoLaid, photo: &RgbImage, [width, height]: [u32; 2]) -> Vec<u8> {
    let mut rgb = Vec::with_capacity((width * height * 3) as usize);
    for y in 0..height {
        for x in 0..width {
            let share = [(f64::from(x) + 0.5) / f64::from(width), (f64::from(y) + 0.5) / f64::from(height)];
            let pixel = laid
                .place(share)
                .map(|[u, v]| sample(photo, u * f64::from(photo.width()), v * f64::from(photo.height())));
            rgb.extend(pixel.unwrap_or(PAPER));
        }
    }
    rgb
}

/// A photo's colour at a place, between four pixels.
fn sample(photo: &RgbImage, u: f64, v: f64) -> [u8; 3] {
    let [right, bottom] = [photo.width() - 1, photo.height() - 1];
    let [u, v] = [(u - 0.5).clamp(0.0, f64::from(right)), (v - 0.5).clamp(0.0, f64::from(bottom))];
    let [x, y] = [u as u32, v as u32];
    let [across, down] = [u.fract(), v.fract()];
    let [next, under] = [(x + 1).min(right), (y + 1).min(bottom)];
    [0, 1, 2].map(|channel| {
        let at = |x: u32, y: u32| f64::from(photo.get_pixel(x, y)[channel]);
        let upper = at(x, y) * (1.0 - across) + at(next, y) * across;
        let lower = at(x, under) * (1.0 - across) + at(next, under) * across;
        (upper * (1.0 - down) + lower * down).round() as u8
    })
}
