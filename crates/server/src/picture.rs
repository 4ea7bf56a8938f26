//! Pictures from outside: what they may be, checked by decoding them whole, and freed of what they tell beside the picture.

use image::codecs::jpeg::JpegEncoder;
use image::{DynamicImage, ImageDecoder, ImageFormat, ImageReader, Limits, metadata::Orientation};
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
/// Quality of a JPEG that had to be written anew.
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

impl Picture {
    /// Takes a PNG or JPEG file. One that carries camera data (place, device, orientation) is turned upright and written anew
    /// without it.
    ///
    /// # Errors
    /// In words: not a picture, too many pixels, damaged.
    pub fn take(bytes: Vec<u8>) -> Result<Picture, String> {
        let format = match image::guess_format(&bytes) {
            Ok(format @ (ImageFormat::Png | ImageFormat::Jpeg)) => format,
            Ok(other) => return Err(format!("is a picture of another kind ({other:?}); PNG and JPEG are taken")),
            Err(_) => return Err("is no picture: PNG and JPEG are taken".to_owned()),
        };
        let mut limits = Limits::default();
        limits.max_image_width = Some(WIDEST_PX);
        limits.max_image_height = Some(WIDEST_PX);
        limits.max_alloc = Some(MOST_MEMORY);
        let mut reader = ImageReader::with_format(Cursor::new(&bytes), format);
        reader.limits(limits);
        let damaged = |error: image::ImageError| match error {
            image::ImageError::Limits(_) => format!("is larger than {WIDEST_PX} px one way"),
            other => format!("is damaged: {other}"),
        };
        let mut decoder = reader.into_decoder().map_err(damaged)?;
        let (width, height) = decoder.dimensions();
        if u64::from(width) * u64::from(height) > MOST_PIXELS {
            return Err(format!("has {width} × {height} pixels, more than {} million", MOST_PIXELS / 1_000_000));
        }
        let orientation = decoder.orientation().unwrap_or(Orientation::NoTransforms);
        let told = decoder.exif_metadata().ok().flatten().is_some() || decoder.xmp_metadata().ok().flatten().is_some();
        let mut image = DynamicImage::from_decoder(decoder).map_err(damaged)?;
        let bytes = if told {
            image.apply_orientation(orientation);
            write(&image, format)?
        } else {
            bytes
        };
        let media_type = if format == ImageFormat::Png { "image/png" } else { "image/jpeg" };
        let name = Sha256::digest(&bytes).iter().map(|byte| format!("{byte:02x}")).collect();
        Ok(Picture { name, media_type, width_px: image.width(), height_px: image.height(), bytes })
    }

    /// What is said of it.
    pub fn head(&self) -> PictureHead {
        PictureHead { name: self.name.clone(), width_px: self.width_px, height_px: self.height_px }
    }
}

fn write(image: &DynamicImage, format: ImageFormat) -> Result<Vec<u8>, String> {
    let mut out = Cursor::new(Vec::new());
    let written = match format {
        ImageFormat::Png => image.write_to(&mut out, ImageFormat::Png),
        _ => image.to_rgb8().write_with_encoder(JpegEncoder::new_with_quality(&mut out, QUALITY)),
    };
    written.map_err(|error| format!("cannot be written anew: {error}"))?;
    Ok(out.into_inner())
}

#[cfg(test)]
mod tests {
    use super::*;

    fn png(width: u32, height: u32) -> Vec<u8> {
        write(&DynamicImage::new_rgb8(width, height), ImageFormat::Png).unwrap()
    }

    /// A JPEG with an EXIF segment: orientation 6 (a quarter turn) and a GPS block.
    fn jpeg_with_place() -> Vec<u8> {
        let plain = write(&DynamicImage::new_rgb8(40, 20), ImageFormat::Jpeg).unwrap();
        // TIFF, big-endian: one directory with orientation = 6 and a pointer to a GPS directory with one latitude reference.
        let tiff: &[u8] =
            b"MM\0\x2a\0\0\0\x08\0\x02\x01\x12\0\x03\0\0\0\x01\0\x06\0\0\x88\x25\0\x04\0\0\0\x01\0\0\0\x26\0\0\0\0\
            \0\x01\0\x01\0\x02\0\0\0\x02N\0\0\0\0\0\0\0";
        let length = u16::try_from(2 + 6 + tiff.len()).unwrap().to_be_bytes();
        [&plain[..2], b"\xff\xe1", &length, b"Exif\0\0", tiff, &plain[2..]].concat()
    }

    #[test]
    fn a_plain_picture_is_kept_as_it_is() {
        let bytes = png(30, 20);
        let taken = Picture::take(bytes.clone()).unwrap();
        assert_eq!((taken.media_type, taken.width_px, taken.height_px, &taken.bytes), ("image/png", 30, 20, &bytes));
        assert_eq!(taken.name.len(), 64);
    }

    #[test]
    fn the_place_is_lost_and_the_picture_stands_upright() {
        let told = jpeg_with_place();
        assert!(told.windows(4).any(|bytes| bytes == b"Exif"));
        let taken = Picture::take(told).unwrap();
        assert_eq!((taken.width_px, taken.height_px), (20, 40), "turned a quarter");
        assert!(!taken.bytes.windows(4).any(|bytes| bytes == b"Exif"));
    }

    #[test]
    fn disguised_corrupt_and_bursting_pictures_are_refused() {
        let refused = |bytes: Vec<u8>| Picture::take(bytes).err().unwrap();
        assert!(refused(b"#!/bin/sh\necho hello".to_vec()).contains("no picture"));
        assert!(refused(b"GIF89a\x01\0\x01\0\0\0\0".to_vec()).contains("another kind"));
        assert!(refused(vec![]).contains("no picture"));
        let good = png(300, 200);
        assert!(refused(good[..good.len() / 2].to_vec()).contains("damaged"));
        let mut flipped = good.clone();
        let middle = flipped.len() / 2;
        flipped[middle..middle + 8].fill(0x5a);
        assert!(refused(flipped).contains("damaged"));
        // A picture bomb: a black plane packs to next to nothing.
        let bomb = png(7_000, 6_000);
        assert!(bomb.len() < 1024 * 1024, "{}", bomb.len());
        assert!(refused(bomb).contains("7000 × 6000 pixels"));
        let mut huge = png(10, 10);
        huge[16..20].copy_from_slice(&60_000_u32.to_be_bytes());
        assert!(!refused(huge).is_empty());
    }
}
