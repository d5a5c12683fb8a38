//! How values of a data sheet come out wrong: common practice, what builders find again and again.

use oak_acoustics::driver::Quantity;
use oak_cabinetry::CONE_OF_FRAME;

use super::sheet::field_of;
use crate::field::{self, Field};

/// How a value may have come about.
pub(super) struct Slip {
    pub quantity: Quantity,
    /// What it then was, SI.
    pub right: fn(f64) -> f64,
    /// How much more must speak for it where nothing but strangeness does.
    pub rare: f64,
    /// Begins with a verb: what the value looks like.
    pub words: &'static str,
}

const fn slip(quantity: Quantity, right: fn(f64) -> f64, rare: f64, words: &'static str) -> Slip {
    Slip { quantity, right, rare, words }
}

const DECIMAL: &str = "looks as if it had lost its decimal point";
const CUBIC_FOOT: f64 = 28.317;
const OUNCE: f64 = 28.35;
/// Square centimetres.
const SQUARE_INCH: f64 = 6.4516;

/// Area of a cone (m2) in a frame so far across, m.
fn cone_in(frame: f64) -> f64 {
    CONE_OF_FRAME * std::f64::consts::PI / 4.0 * frame * frame
}

pub(super) static SLIPS: &[Slip] = {
    use Quantity::{Bl, Cms, Fs, Mms, Qes, Qms, Qts, Re, Sd, Vas};
    &[
        slip(Vas, |vas| vas * CUBIC_FOOT, 0.0, "looks like cubic feet read as litres"),
        slip(Vas, |vas| vas / CUBIC_FOOT, 0.0, "looks like litres read as cubic feet"),
        slip(Vas, |vas| vas / 1e3, 0.1, "looks like litres read as cubic metres"),
        slip(Vas, |vas| vas / 10.0, 0.2, DECIMAL),
        slip(Fs, |fs| fs / 10.0, 0.0, DECIMAL),
        slip(Fs, |fs| fs * 10.0, 0.2, "looks as if its decimal point were one place too far left"),
        slip(Mms, |mms| mms * OUNCE, 0.0, "looks like ounces read as grams"),
        slip(Mms, |mms| mms * 1e3, 0.1, "looks like kilograms read as grams"),
        slip(Mms, |mms| mms / 1e3, 0.1, "looks like grams read as kilograms"),
        slip(Cms, |cms| cms / 1e3, 0.0, "looks like micrometres per newton read as millimetres"),
        slip(Cms, |cms| cms * 1e3, 0.1, "looks like metres per newton read as millimetres"),
        // Millimetres, or centimetres, that were written where square centimetres are asked: 1e-4 m2 for each.
        slip(Sd, |sd| cone_in(10.0 * sd), 0.0, "looks like the diameter of the frame in millimetres"),
        slip(Sd, |sd| cone_in(100.0 * sd), 0.0, "looks like the diameter of the frame in centimetres"),
        slip(
            Sd,
            |sd| CONE_OF_FRAME * sd,
            0.0,
            "looks like the area of the whole frame; the cone counts with half its surround",
        ),
        slip(Sd, |sd| sd * SQUARE_INCH, 0.0, "looks like square inches read as square centimetres"),
        slip(Sd, |sd| sd / 100.0, 0.1, "looks like square millimetres read as square centimetres"),
        slip(Bl, |bl| bl / 2.0, 0.1, "looks like both coils in series beside values of both in parallel"),
        slip(Bl, |bl| bl * 2.0, 0.1, "looks like both coils in parallel beside values of both in series"),
        slip(Re, |re| re * 2.0, 0.0, "looks like one coil of two that are in series"),
        slip(Re, |re| re / 2.0, 0.0, "looks like one coil of two that are in parallel"),
        slip(Re, |re| re / 4.0, 0.1, "looks like both coils in series beside values of both in parallel"),
        slip(Re, |re| re * 4.0, 0.1, "looks like both coils in parallel beside values of both in series"),
        slip(Qms, |q| q / 10.0, 0.1, DECIMAL),
        slip(Qes, |q| q / 10.0, 0.1, DECIMAL),
        slip(Qts, |q| q / 10.0, 0.1, DECIMAL),
        slip(Qts, |q| q * 2.0, 0.1, "looks like two drivers, or the driver on a stronger amplifier"),
    ]
};

/// A slip counts when what it makes of a value is this near, as a logarithm.
const NEAR: f64 = 0.14;

/// What probably happened to a value that others contradict.
pub(super) fn likely(field: &Field, stated: f64, derived: f64) -> Option<&'static str> {
    if field.path == field::LEVEL_1W.path && (stated - derived - 3.0).abs() < 0.8 {
        return Some("looks like the level for 2.83 V into 4 ohm, which is 2 W");
    }
    let off = |slip: &Slip| ((slip.right)(stated) / derived).ln().abs();
    let found = SLIPS.iter().filter(|slip| field_of(slip.quantity).path == field.path && off(slip) < NEAR);
    found.min_by(|a, b| off(a).total_cmp(&off(b))).map(|slip| slip.words)
}
