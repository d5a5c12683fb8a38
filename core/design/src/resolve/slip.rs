//! What probably went wrong where a data sheet contradicts itself: common practice, what builders find again and again.

use crate::field::{self, Field};

/// A slip shows as this ratio of stated to derived.
struct Slip {
    field: &'static Field,
    ratio: f64,
    words: &'static str,
}

const fn slip(field: &'static Field, ratio: f64, words: &'static str) -> Slip {
    Slip { field, ratio, words }
}

/// A ratio counts as a slip's when it is this near, as a logarithm.
const NEAR: f64 = 0.14;

static SLIPS: &[Slip] = &[
    slip(&field::MMS, 1000.0, "the number looks like grams and was read as kilograms"),
    slip(&field::MMS, 0.001, "the number looks like kilograms and was read as grams"),
    slip(&field::MMS, 1.0 / 28.35, "the number looks like ounces and was read as grams"),
    slip(&field::VAS, 28.32, "the number looks like litres and was read as cubic feet"),
    slip(&field::VAS, 1.0 / 28.32, "the number looks like cubic feet and was read as litres"),
    slip(&field::VAS, 1000.0, "the number looks like litres and was read as cubic metres"),
    slip(&field::CMS, 1000.0, "the number looks like micrometres per newton and was read as millimetres"),
    slip(&field::CMS, 0.001, "the number looks like metres per newton and was read as millimetres"),
    slip(
        &field::SD,
        1.4,
        "it looks like the area of the whole frame; the cone counts with half the surround",
    ),
    slip(&field::SD, 1.0 / 6.452, "the number looks like square inches and was read as square centimetres"),
    slip(&field::SD, 100.0, "the number looks like square millimetres and was read as square centimetres"),
    slip(
        &field::BL,
        2.0,
        "it looks like the value of both coils in series beside values of both in parallel",
    ),
    slip(
        &field::BL,
        0.5,
        "it looks like the value of both coils in parallel beside values of both in series",
    ),
    slip(&field::RE, 4.0, "it looks like both coils in series beside values of both in parallel"),
    slip(&field::RE, 0.25, "it looks like both coils in parallel beside values of both in series"),
    slip(
        &field::QTS,
        0.5,
        "it looks like the value of two drivers, or of the driver on a stronger amplifier",
    ),
];

/// What probably happened.
pub(super) fn likely(field: &Field, stated: f64, derived: f64) -> Option<&'static str> {
    if field.path == field::LEVEL_1W.path && (stated - derived - 3.0).abs() < 0.8 {
        return Some("it looks like the level for 2.83 V into 4 ohm, which is 2 W");
    }
    let off = (stated / derived).ln();
    let found = SLIPS.iter().filter(|slip| slip.field == field && (off - slip.ratio.ln()).abs() < NEAR);
    found
        .min_by(|a, b| (off - a.ratio.ln()).abs().total_cmp(&(off - b.ratio.ln()).abs()))
        .map(|slip| slip.words)
}
