//! Pictures of the workshop.

use std::io::Cursor;

use image::{DynamicImage, ImageFormat, RgbImage};
use oak_server::photo::reencode;
use serde_json::json;

use crate::support::{Site, driver};

const SECRET: &[u8] = b"GPS 51.5N 0.1W";

fn picture(width: u32, height: u32, format: ImageFormat) -> Vec<u8> {
    let image = RgbImage::from_fn(width, height, |x, y| image::Rgb([(x % 256) as u8, (y % 256) as u8, 90]));
    let mut bytes = Cursor::new(Vec::new());
    DynamicImage::from(image).write_to(&mut bytes, format).expect("a picture");
    bytes.into_inner()
}

/// A JPEG as a camera writes it: with where it was taken, and lying on its side.
fn as_from_a_camera(width: u32, height: u32) -> Vec<u8> {
    let plain = picture(width, height, ImageFormat::Jpeg);
    // TIFF, little-endian, one entry: orientation 6, to be turned to the right.
    let mut exif = b"Exif\0\0II*\0\x08\0\0\0\x01\0\x12\x01\x03\0\x01\0\0\0\x06\0\0\0\0\0\0\0".to_vec();
    exif.extend_from_slice(SECRET);
    let length = u16::try_from(exif.len() + 2).expect("short");
    let mut bytes = plain[..2].to_vec();
    bytes.extend([0xff, 0xe1]);
    bytes.extend(length.to_be_bytes());
    bytes.extend(exif);
    bytes.extend(&plain[2..]);
    bytes
}

fn holds(bytes: &[u8], part: &[u8]) -> bool {
    bytes.windows(part.len()).any(|window| window == part)
}

#[test]
fn a_picture_is_written_anew_upright_smaller_and_without_what_a_camera_notes() {
    let sent = as_from_a_camera(64, 40);
    assert!(holds(&sent, b"Exif") && holds(&sent, SECRET));
    let kept = reencode(&sent).expect("a picture");
    assert!(!holds(&kept.content, b"Exif") && !holds(&kept.content, SECRET));
    let read = image::load_from_memory_with_format(&kept.content, ImageFormat::Jpeg).expect("a JPEG");
    assert_eq!((read.width(), read.height()), (40, 64));
    for format in [ImageFormat::Png, ImageFormat::WebP, ImageFormat::Jpeg] {
        let kept = reencode(&picture(3000, 200, format)).expect("a picture");
        let read = image::load_from_memory(&kept.content).expect("a JPEG");
        assert_eq!(read.width(), 2048, "{format:?}");
    }
    // What hangs on behind a picture is left behind.
    let mut polyglot = picture(20, 20, ImageFormat::Jpeg);
    polyglot.extend_from_slice(b"PK\x03\x04<script>alert(1)</script>");
    assert!(!holds(&reencode(&polyglot).expect("a picture").content, b"script"));
}

#[test]
fn what_is_no_picture_or_too_large_is_refused() {
    let told = |bytes: &[u8]| reencode(bytes).expect_err("refused")[0].to_string();
    assert!(
        told(b"<svg xmlns='http://www.w3.org/2000/svg'><script/></svg>").contains("no JPEG, PNG or WebP")
    );
    assert!(told(b"GIF89a\x01\0\x01\0").contains("no JPEG"));
    assert!(told(b"").contains("no JPEG"));
    let png = picture(30, 30, ImageFormat::Png);
    assert!(told(&png[..png.len() / 2]).contains("cannot be read"));
    // A header that promises sixty thousand pixels a side.
    let mut bomb = png;
    bomb[16..24].copy_from_slice(&[0, 0, 0xea, 0x60, 0, 0, 0xea, 0x60]);
    assert!(told(&bomb).contains("cannot be read"));
}

#[test]
fn a_picture_is_kept_with_its_build_and_read_by_its_name_alone() {
    let site = Site::start();
    let (build, _) = site.build_with_variant();
    let path = format!("/api/v1/builds/{build}/photos");
    let sent = as_from_a_camera(64, 40);
    let send = |kind: &str, bytes: &[u8]| site.send("POST", &path, &[("content-type", kind)], bytes);
    let hash = send("image/jpeg", &sent).expect(201).json()["hash"].as_str().expect("a name").to_owned();
    // The same picture is there once, whatever it is sent as.
    assert_eq!(send("image/png", &sent).expect(201).json()["hash"], hash.as_str());
    let read = site.get(&format!("/api/v1/photos/{hash}")).expect(200);
    assert_eq!(read.kind, "image/jpeg");
    assert!(read.headers.get("x-content-type-options").is_some_and(|value| value == "nosniff"));
    for name in ["..%2f..%2fetc%2fpasswd", "%00", &"0".repeat(64), &format!("{hash}'--")] {
        site.get(&format!("/api/v1/photos/{name}")).expect(404);
    }
    send("text/html", &sent).expect(415);
    send("image/jpeg", b"<svg/>").expect(422);
    send("image/jpeg", &vec![0xff; 25 << 20]).expect(413);
    let nobody = format!("/api/v1/builds/{}/photos", uuid::Uuid::now_v7());
    site.send("POST", &nobody, &[("content-type", "image/jpeg")], &sent).expect(404);
    let entry = json!({ "at": "2026-05-01T18:30:00Z", "text": driver()["name"], "photos": [hash] });
    site.new_document(&build, "entry", &entry).expect(201);
    let wrong = json!({ "at": "2026-05-01T18:30:00Z", "text": "", "photos": ["../secret"] });
    let told = site.new_document(&build, "entry", &wrong).expect(422).json();
    assert_eq!(told["errors"][0]["field"], "photos[0]");
}
