//! Pictures of the workshop: judged by their content, made smaller, and written anew, so that nothing but the picture is kept.

use std::fmt::Write as _;
use std::io::Cursor;

use image::codecs::jpeg::JpegEncoder;
use image::imageops::FilterType;
use image::{DynamicImage, ImageDecoder, ImageFormat, ImageReader, Limits};
use oak_design::problem::{Problem, ProblemKind};
use sha2::{Digest, Sha256};

/// Largest side that is read and that is kept, pixels, and how much memory decoding may take, bytes.
const MOST_READ: u32 = 12_000;
const MOST_KEPT: u32 = 2048;
const MEMORY: u64 = 300 << 20;
/// Of what is written, of 100.
const QUALITY: u8 = 85;

/// A picture as it is stored.
#[derive(Debug)]
pub struct Photo {
    /// JPEG without anything but the picture.
    pub content: Vec<u8>,
    /// SHA-256 of that, in hexadecimal digits.
    pub hash: String,
}

/// Makes a picture of what was sent, whatever it says it is: JPEG, PNG or WebP by its first bytes.
///
/// # Errors
/// It is none of these, damaged, or too large.
pub fn reencode(bytes: &[u8]) -> Result<Photo, Vec<Problem>> {
    let wrong = |reason: String| vec![Problem::new("photo", ProblemKind::Unshapeable { reason })];
    let format = image::guess_format(bytes).ok();
    let known = [ImageFormat::Jpeg, ImageFormat::Png, ImageFormat::WebP];
    let Some(format) = format.filter(|format| known.contains(format)) else {
        return Err(wrong("it is no JPEG, PNG or WebP picture".to_owned()));
    };
    let unreadable = |error: image::ImageError| wrong(format!("it cannot be read: {error}"));
    let mut limits = Limits::default();
    limits.max_image_width = Some(MOST_READ);
    limits.max_image_height = Some(MOST_READ);
    limits.max_alloc = Some(MEMORY);
    let mut reader = ImageReader::with_format(Cursor::new(bytes), format);
    reader.limits(limits);
    let mut decoder = reader.into_decoder().map_err(unreadable)?;
    // Which way was up is the one thing that is used of what a camera notes.
    let orientation = decoder.orientation().map_err(unreadable)?;
    let mut picture = DynamicImage::from_decoder(decoder).map_err(unreadable)?;
    picture.apply_orientation(orientation);
    if picture.width().max(picture.height()) > MOST_KEPT {
        picture = picture.resize(MOST_KEPT, MOST_KEPT, FilterType::Triangle);
    }
    let mut content = Vec::new();
    JpegEncoder::new_with_quality(&mut content, QUALITY)
        .encode_image(&picture.to_rgb8())
        .map_err(unreadable)?;
    let hash = Sha256::digest(&content).iter().fold(String::new(), |mut text, byte| {
        let _ = write!(text, "{byte:02x}");
        text
    });
    Ok(Photo { content, hash })
}
