//! Values of a data sheet that contradict nothing and are still not those of a woofer of its size, and the one slip that would explain it.
//!
//! The ranges are common practice: what published sheets of woofers from 100 to 530 mm show, with room to both sides.

use oak_acoustics::driver::{Driver, Quantity, Sheet};
use oak_acoustics::medium::Air;

use super::sheet::{SheetHint, field_of};
use super::slip::SLIPS;
use crate::field;

/// What a measure of a driver may be.
struct Measure {
    /// Its value, where it can be told.
    of: fn(&Driver, &Given, &Air) -> Option<f64>,
    least: f64,
    most: f64,
    /// Whose value is called into question where no slip explains it.
    asked: Quantity,
    words: &'static str,
}

/// What is printed beside what is computed with.
struct Given {
    /// Nominal size of the frame, m.
    size: Option<f64>,
    nominal: Option<f64>,
}

/// Diameter of a cone of an area (m2), m.
fn across(sd: f64) -> f64 {
    (4.0 * sd / std::f64::consts::PI).sqrt()
}

static MEASURES: &[Measure] = &[
    Measure {
        of: |driver, given, _| Some((across(driver.sd) / given.size?).powi(2)),
        least: 0.45,
        most: 0.88,
        asked: Quantity::Sd,
        words: "is not the area of a cone in so large a frame; about two thirds of the frame's area are usual",
    },
    Measure {
        of: |driver, _, _| Some(driver.mms / (driver.sd * across(driver.sd))),
        least: 2.0,
        most: 42.0,
        asked: Quantity::Mms,
        words: "is not the mass of so large a cone",
    },
    Measure {
        of: |driver, _, _| Some(driver.cms),
        least: 4e-5,
        most: 3e-3,
        asked: Quantity::Vas,
        words: "means a suspension that no woofer of this cone has",
    },
    Measure {
        of: |driver, _, _| Some(driver.fs()),
        least: 12.0,
        most: 140.0,
        asked: Quantity::Fs,
        words: "is not the resonance of a woofer",
    },
    Measure {
        of: |driver, _, _| Some(driver.fs() * across(driver.sd)),
        least: 2.2,
        most: 36.0,
        asked: Quantity::Fs,
        words: "is not the resonance of so large a cone",
    },
    Measure {
        of: |driver, _, air| Some(driver.eta0(air)),
        least: 2e-4,
        most: 0.07,
        asked: Quantity::Qes,
        words: "makes an efficiency that no woofer has",
    },
    Measure {
        of: |driver, given, _| Some(driver.re / given.nominal?),
        least: 0.56,
        most: 0.995,
        asked: Quantity::Re,
        words: "is not the resistance of a coil of that impedance; a meter reads 65 to 95 % of it",
    },
    Measure {
        of: |driver, _, _| Some(driver.qms()),
        least: 0.9,
        most: 20.0,
        asked: Quantity::Qms,
        words: "is not the mechanical Q of a woofer",
    },
    Measure {
        of: |driver, _, _| Some(driver.qes()),
        least: 0.1,
        most: 2.5,
        asked: Quantity::Qes,
        words: "is not the electrical Q of a woofer",
    },
];

/// How far a driver is from what woofers are, as the sum of natural logarithms; none where all is usual.
fn strangeness(driver: &Driver, given: &Given, air: &Air) -> f64 {
    off(driver, given, air).map(|(_, far)| far).sum()
}

fn off<'a>(
    driver: &'a Driver,
    given: &'a Given,
    air: &'a Air,
) -> impl Iterator<Item = (&'static Measure, f64)> + 'a {
    MEASURES.iter().filter_map(move |measure| {
        let value = (measure.of)(driver, given, air)?;
        let far = (measure.least / value).ln().max((value / measure.most).ln());
        (far > 0.0).then_some((measure, far))
    })
}

/// What is left where a slip explains nearly all, as a share.
const EXPLAINED: f64 = 0.1;

/// What of a complete sheet is not as woofers are: the one slip that explains it, or else each value that is strange.
pub(super) fn hints(sheet: &Sheet, driver: &Driver, size: Option<f64>, air: &Air) -> Vec<SheetHint> {
    let given = Given { size, nominal: sheet.nominal };
    let strange = strangeness(driver, &given, air);
    if strange <= 0.0 {
        return Vec::new();
    }
    let doubts = |sheet: &Sheet| {
        let completed = sheet.complete(air).ok()?;
        Some((sheet.doubts(&completed, air).len(), completed.driver))
    };
    let before = doubts(sheet).map_or(0, |(count, _)| count);
    let explained = SLIPS.iter().filter_map(|slip| {
        let stated = sheet.stated(slip.quantity)?;
        let value = (slip.right)(stated);
        let (after, driver) = doubts(&sheet.with(slip.quantity, value))?;
        let left = strangeness(&driver, &given, air) / strange;
        (after <= before && left <= EXPLAINED).then_some((left + slip.rare, slip, value))
    });
    let likeliest = explained.min_by(|a, b| a.0.total_cmp(&b.0));
    if let Some((_, slip, value)) = likeliest {
        return vec![SheetHint { field: field_of(slip.quantity), slip: slip.words, value: Some(value) }];
    }
    let mut hints: Vec<SheetHint> = Vec::new();
    for (measure, _) in off(driver, &given, air) {
        // What was not stated follows from what was.
        let asked = [measure.asked, Quantity::Cms, Quantity::Vas, Quantity::Mms, Quantity::Sd];
        let Some(asked) = asked.into_iter().find(|quantity| sheet.stated(*quantity).is_some()) else {
            continue;
        };
        let field = field_of(asked);
        if !hints.iter().any(|hint| hint.field.path == field.path) {
            hints.push(SheetHint { field, slip: measure.words, value: None });
        }
    }
    hints
}

/// A cone that moves farther one way than this share of its own diameter is rare.
const FAR: f64 = 0.1;

/// An Xmax that is printed peak to peak.
pub(super) fn far_travel(sheet: &Sheet, driver: &Driver) -> Option<SheetHint> {
    let xmax = sheet.xmax.filter(|xmax| *xmax > FAR * across(driver.sd))?;
    let slip = "is very far for so small a cone. Is it peak to peak? Then half of it counts";
    Some(SheetHint { field: &field::XMAX, slip, value: Some(xmax / 2.0) })
}
