//! Pictures from outside: what they may be, checked by decoding them whole, and written anew so that nothing hides in them.

use image::codecs::jpeg::JpegEncoder;
use image::{
    DynamicImage, ImageDecoder, ImageError, ImageFormat, ImageReader, Limits, RgbImage, metadata::Orientation,
};
use moxcms::{ColorProfile, Layout, TransformOptions};
use serde::Serialize;
use sha2::{Digest, Sha256};
use std::io::Cursor;
use utoipa::ToSchema;

/// The largest picture that is taken, MiB.
pub const LARGEST_MIB: u64 = 6;
/// The most pixels that a picture may have, so that a small file cannot unpack to a huge one.
const MOST_PIXELS: u64 = 40_000_000;
const WIDEST_PX: u32 = 12_000;
/// What decoding may take, bytes.
const MOST_MEMORY: u64 = 256 * 1024 * 1024;
/// Quality of a JPEG that is written anew.
const QUALITY: u8 = 88;

/// A picture that was decoded and found in order.
pub struct Picture {
    /// The SHA-256 of the bytes, in hex.
    pub name: String,
    /// `image/png` or `image/jpeg`.
    pub media_type: &'static str,
    /// Width, px.
    pub width_px: u32,
    /// Height, px.
    pub height_px: u32,
    /// The file.
    pub bytes: Vec<u8>,
}

/// What is said of a picture that was taken.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct PictureHead {
    /// Its name: the SHA-256 of its bytes, in hex.
    pub name: String,
    /// Width, px.
    pub width_px: u32,
    /// Height, px.
    pub height_px: u32,
}

/// Opens a picture, as far as its head.
fn open(bytes: &[u8]) -> Result<(ImageFormat, impl ImageDecoder + '_), String> {
    let format = match image::guess_format(bytes) {
        Ok(format @ (ImageFormat::Png | ImageFormat::Jpeg)) => format,
        Ok(other) => return Err(format!("is a picture of another kind ({other:?}); PNG and JPEG are taken")),
        Err(_) => return Err("is no picture: PNG and JPEG are taken".to_owned()),
    };
    let mut limits = Limits::default();
    limits.max_image_width = Some(WIDEST_PX);
    limits.max_image_height = Some(WIDEST_PX);
    limits.max_alloc = Some(MOST_MEMORY);
    let mut reader = ImageReader::with_format(Cursor::new(bytes), format);
    reader.limits(limits);
    let decoder = reader.into_decoder().map_err(damaged)?;
    let (width, height) = decoder.dimensions();
    if u64::from(width) * u64::from(height) > MOST_PIXELS {
        return Err(format!("has {width} × {height} pixels, more than {} million", MOST_PIXELS / 1_000_000));
    }
    Ok((format, decoder))
}

fn damaged(error: ImageError) -> String {
    match error {
        ImageError::Limits(_) => format!("is larger than {WIDEST_PX} px one way"),
        other => format!("is damaged: {other}"),
    }
}

/// What a picture takes while it is unpacked and written anew, MiB: itself, what its decoder holds beside it, and a copy with eight
/// bits a channel where it has more.
///
/// # Errors
/// In words: not a picture, too many pixels, more memory than is there.
pub fn unpacked_mib(bytes: &[u8]) -> Result<u32, String> {
    let (format, decoder) = open(bytes)?;
    let (width, height) = decoder.dimensions();
    let pixels = u64::from(width) * u64::from(height);
    let deep = decoder.color_type().bytes_per_pixel() > decoder.color_type().channel_count();
    let copy = if deep { 4 * pixels } else { 0 };
    // A progressive picture's coefficients, two bytes each, are held until its last scan.
    let coefficients = if format == ImageFormat::Jpeg && is_progressive(bytes) { 6 * pixels } else { 0 };
    let all = decoder.total_bytes() + copy + coefficients + bytes.len() as u64;
    if all > MOST_MEMORY {
        return Err(format!(
            "has {width} × {height} pixels in a form that takes {} MiB to unpack: make it smaller",
            all >> 20
        ));
    }
    Ok(u32::try_from(all >> 20).unwrap_or(u32::MAX) + 1)
}

/// Whether a JPEG's frame is a progressive one (ITU-T T.81, table B.1: SOF2, 6, 10, 14).
fn is_progressive(bytes: &[u8]) -> bool {
    let mut at = 2;
    while let Some([0xff, marker, high, low]) = bytes.get(at..at + 4) {
        match marker {
            0xff => at += 1,
            0xc2 | 0xc6 | 0xca | 0xce => return true,
            // The scan begins: all frames' heads are before it.
            0xda => return false,
            _ => at += 2 + usize::from(u16::from_be_bytes([*high, *low])),
        }
    }
    false
}

/// The pixels of a PNG or JPEG, upright, eight bits a channel.
///
/// # Errors
/// In words, as [`Picture::take`].
pub fn pixels(bytes: &[u8]) -> Result<RgbImage, String> {
    let (_, mut decoder) = open(bytes)?;
    let orientation = decoder.orientation().unwrap_or(Orientation::NoTransforms);
    let mut image = eight_bits(DynamicImage::from_decoder(decoder).map_err(damaged)?);
    image.apply_orientation(orientation);
    Ok(image.into_rgb8())
}

impl Picture {
    /// Takes a PNG or JPEG file: decodes it, applies its colour profile, turns it upright and writes it anew. So nothing comes along
    /// that is not in the picture: no place, no device, no text, no other file behind its end.
    ///
    /// # Errors
    /// In words: not a picture, too many pixels, damaged.
    pub fn take(bytes: &[u8]) -> Result<Picture, String> {
        let (format, mut decoder) = open(bytes)?;
        let orientation = decoder.orientation().unwrap_or(Orientation::NoTransforms);
        let profile = decoder.icc_profile().ok().flatten();
        let image = DynamicImage::from_decoder(decoder).map_err(damaged)?;
        let mut image = eight_bits(image);
        if let Some(profile) = profile {
            to_srgb(&mut image, &profile);
        }
        image.apply_orientation(orientation);
        let (width_px, height_px) = (image.width(), image.height());
        let bytes = write(image, format)?;
        let media_type = if format == ImageFormat::Png { "image/png" } else { "image/jpeg" };
        let name = digest(&bytes);
        Ok(Picture { name, media_type, width_px, height_px, bytes })
    }

    /// Takes a PNG or JPEG file as evidence: decoded whole, as [`Picture::take`], but kept to the last byte.
    ///
    /// # Errors
    /// In words, as [`Picture::take`].
    pub fn take_as_it_is(bytes: Vec<u8>) -> Result<Picture, String> {
        let (format, _) = open(&bytes)?;
        let image = pixels(&bytes)?;
        let media_type = if format == ImageFormat::Png { "image/png" } else { "image/jpeg" };
        Ok(Picture { name: digest(&bytes), media_type, width_px: image.width(), height_px: image.height(), bytes })
    }

    /// What is said of it.
    pub fn head(&self) -> PictureHead {
        PictureHead { name: self.name.clone(), width_px: self.width_px, height_px: self.height_px }
    }
}

/// The SHA-256 of some bytes, in hex: what a picture is called.
pub fn digest(bytes: &[u8]) -> String {
    Sha256::digest(bytes).iter().map(|byte| format!("{byte:02x}")).collect()
}

/// A picture with eight bits a channel: no screen shows more.
fn eight_bits(image: DynamicImage) -> DynamicImage {
    match image {
        DynamicImage::ImageLuma8(_) | DynamicImage::ImageLumaA8(_) => image,
        DynamicImage::ImageRgb8(_) | DynamicImage::ImageRgba8(_) => image,
        deep if deep.color().has_alpha() => DynamicImage::ImageRgba8(deep.into_rgba8()),
        deep => DynamicImage::ImageRgb8(deep.into_rgb8()),
    }
}

/// Turns colours of another profile into sRGB, a row at a time. A profile that cannot be read, or is for another kind of picture, is
/// let be: then the numbers are what they were.
fn to_srgb(image: &mut DynamicImage, profile: &[u8]) {
    let Ok(from) = ColorProfile::new_from_slice(profile) else { return };
    let width = image.width() as usize;
    let (layout, channels, pixels) = match image {
        DynamicImage::ImageRgb8(image) => (Layout::Rgb, 3, image.as_flat_samples_mut().samples),
        DynamicImage::ImageRgba8(image) => (Layout::Rgba, 4, image.as_flat_samples_mut().samples),
        _ => return,
    };
    let srgb = ColorProfile::new_srgb();
    let Ok(turn) = from.create_transform_8bit(layout, &srgb, layout, TransformOptions::default()) else { return };
    let mut turned = vec![0; width * channels];
    for row in pixels.chunks_exact_mut(turned.len().max(1)) {
        if turn.transform(row, &mut turned).is_ok() {
            row.copy_from_slice(&turned);
        }
    }
}

fn write(image: DynamicImage, format: ImageFormat) -> Result<Vec<u8>, String> {
    let mut out = Cursor::new(Vec::new());
    let written = match format {
        ImageFormat::Png => image.write_to(&mut out, ImageFormat::Png),
        _ => image.into_rgb8().write_with_encoder(JpegEncoder::new_with_quality(&mut out, QUALITY)),
    };
    written.map_err(|error| format!("cannot be written anew: {error}"))?;
    Ok(out.into_inner())
}

#[cfg(test)]
mod tests {
    use super::*;

    fn png(width: u32, height: u32) -> Vec<u8> {
        write(DynamicImage::new_rgb8(width, height), ImageFormat::Png).unwrap()
    }

    /// A JPEG with an EXIF segment: orientation 6 (a quarter turn) and a GPS block.
    fn jpeg_with_place() -> Vec<u8> {
        let plain = write(DynamicImage::new_rgb8(40, 20), ImageFormat::Jpeg).unwrap();
        // TIFF, big-endian: one directory with orientation = 6 and a pointer to a GPS directory with one latitude reference.
        let tiff: &[u8] =
            b"MM\0\x2a\0\0\0\x08\0\x02\x01\x12\0\x03\0\0\0\x01\0\x06\0\0\x88\x25\0\x04\0\0\0\x01\0\0\0\x26\0\0\0\0\
            \0\x01\0\x01\0\x02\0\0\0\x02N\0\0\0\0\0\0\0";
        with_segment(&plain, 0xe1, &[b"Exif\0\0", tiff].concat())
    }

    /// A JPEG with a segment after its beginning.
    fn with_segment(jpeg: &[u8], marker: u8, content: &[u8]) -> Vec<u8> {
        let length = u16::try_from(2 + content.len()).unwrap().to_be_bytes();
        [&jpeg[..2], &[0xff, marker], &length, content, &jpeg[2..]].concat()
    }

    /// A PNG with a chunk before its end.
    fn with_chunk(png: &[u8], kind: &[u8; 4], content: &[u8]) -> Vec<u8> {
        let checked = [kind.as_slice(), content].concat();
        let sum = checked.iter().fold(u32::MAX, |sum, byte| {
            (0..8).fold(sum ^ u32::from(*byte), |sum, _| if sum & 1 == 1 { (sum >> 1) ^ 0xedb8_8320 } else { sum >> 1 })
        });
        let length = u32::try_from(content.len()).unwrap().to_be_bytes();
        let end = png.len() - 12;
        [&png[..end], &length, &checked, &(!sum).to_be_bytes(), &png[end..]].concat()
    }

    fn holds(bytes: &[u8], word: &[u8]) -> bool {
        bytes.windows(word.len()).any(|bytes| bytes == word)
    }

    #[test]
    fn what_is_written_anew_once_stays_as_it_is() {
        let taken = Picture::take(&png(30, 20)).unwrap();
        assert_eq!((taken.media_type, taken.width_px, taken.height_px, taken.name.len()), ("image/png", 30, 20, 64));
        let again = Picture::take(&taken.bytes).unwrap();
        assert_eq!((again.name, again.bytes), (taken.name, taken.bytes));
    }

    #[test]
    fn the_place_is_lost_and_the_picture_stands_upright() {
        let told = jpeg_with_place();
        assert!(holds(&told, b"Exif"));
        let taken = Picture::take(&told).unwrap();
        assert_eq!((taken.width_px, taken.height_px), (20, 40), "turned a quarter");
        assert!(!holds(&taken.bytes, b"Exif"));
    }

    #[test]
    fn whatever_hides_in_a_picture_stays_behind() {
        let secret = b"51.5N 0.1W";
        let plain = write(DynamicImage::new_rgb8(40, 20), ImageFormat::Jpeg).unwrap();
        let another = [plain.clone(), secret.to_vec(), plain.clone()].concat();
        let hidden = [
            with_chunk(&png(30, 20), b"tEXt", &[b"Comment\0", secret.as_slice()].concat()),
            with_chunk(&png(30, 20), b"prVt", secret),
            [png(30, 20), secret.to_vec()].concat(),
            with_segment(&plain, 0xe2, &[b"MPF\0", secret.as_slice()].concat()),
            with_segment(&plain, 0xed, &[b"Photoshop 3.0\0", secret.as_slice()].concat()),
            with_segment(&plain, 0xfe, secret),
            another,
        ];
        for (place, bytes) in hidden.into_iter().enumerate() {
            assert!(holds(&bytes, secret));
            let taken = Picture::take(&bytes).unwrap();
            assert!(!holds(&taken.bytes, secret), "number {place}");
        }
    }

    /// What LittleCMS makes of the same picture under the same profile (`outside/colour/generate.py`).
    #[test]
    fn colours_of_another_profile_become_what_littlecms_makes_of_them() {
        let wide = include_bytes!("../../../outside/colour/wide.png");
        let expected =
            image::load_from_memory(include_bytes!("../../../outside/colour/expected.png")).unwrap().into_rgb8();
        let unturned = image::load_from_memory(wide).unwrap().into_rgb8();
        let taken = Picture::take(wide).unwrap();
        assert!(!holds(&taken.bytes, b"iCCP"));
        let found = image::load_from_memory(&taken.bytes).unwrap().into_rgb8();
        let off = |image: &image::RgbImage| {
            expected.as_raw().iter().zip(image.as_raw()).map(|(a, b)| a.abs_diff(*b)).max().unwrap()
        };
        assert!(off(&found) <= 2, "{} steps off", off(&found));
        assert!(off(&unturned) > 20, "the picture would show nothing");
    }

    #[test]
    fn disguised_corrupt_and_bursting_pictures_are_refused() {
        let refused = |bytes: &[u8]| Picture::take(bytes).err().unwrap();
        assert!(refused(b"#!/bin/sh\necho hello").contains("no picture"));
        assert!(refused(b"GIF89a\x01\0\x01\0\0\0\0").contains("another kind"));
        assert!(refused(&[]).contains("no picture"));
        let good = png(300, 200);
        assert!(refused(&good[..good.len() / 2]).contains("damaged"));
        let mut flipped = good.clone();
        let middle = flipped.len() / 2;
        flipped[middle..middle + 8].fill(0x5a);
        assert!(refused(&flipped).contains("damaged"));
        // A picture bomb: a black plane packs to next to nothing.
        let bomb = png(7_000, 6_000);
        assert!(bomb.len() < 1024 * 1024, "{}", bomb.len());
        assert!(refused(&bomb).contains("7000 × 6000 pixels"));
        let mut huge = png(10, 10);
        huge[16..20].copy_from_slice(&60_000_u32.to_be_bytes());
        assert!(!refused(&huge).is_empty());
    }

    #[test]
    fn what_unpacking_takes_is_told_before_it_is_done() {
        // 6000 × 4000 px of three bytes, and a little for the file.
        let mib = unpacked_mib(&png(6_000, 4_000)).unwrap();
        assert!((69..=71).contains(&mib), "{mib}");
        let deep = DynamicImage::new_rgb16(1_000, 1_000);
        let deep = write_as_it_is(&deep);
        let mib = unpacked_mib(&deep).unwrap();
        assert!((10..=11).contains(&mib), "{mib}");
        let jpeg = write(DynamicImage::new_rgb8(5_000, 5_000), ImageFormat::Jpeg).unwrap();
        assert!(!is_progressive(&jpeg));
        // The same, said to be progressive, holds its coefficients too: 25 million pixels of nine bytes.
        let mut progressive = jpeg.clone();
        let frame = progressive.windows(2).position(|two| two == [0xff, 0xc0]).unwrap();
        progressive[frame + 1] = 0xc2;
        assert!(is_progressive(&progressive));
        assert!(unpacked_mib(&progressive).unwrap() >= (5_000 * 5_000 * 9) >> 20);
    }

    fn write_as_it_is(image: &DynamicImage) -> Vec<u8> {
        let mut out = Cursor::new(Vec::new());
        image.write_to(&mut out, ImageFormat::Png).unwrap();
        out.into_inner()
    }
}
