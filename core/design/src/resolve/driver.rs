//! A driver file becomes a driver.

use oak_acoustics::driver::{Driver, Missing, Sheet, SuspensionFrom};
use oak_acoustics::medium::Air;

use super::reading::Reading;
use crate::field::{self, Field};
use crate::file::{LONGEST_NAME, LONGEST_NOTE, RawDriver};
use crate::problem::{Problem, ProblemKind};

/// Stated and derived values may differ by this much before it is worth saying (data sheets round).
const DOUBT_ABOVE: f64 = 0.05;

/// A complete driver with what is known about where it came from.
#[derive(Debug, Clone, PartialEq)]
pub struct ResolvedDriver {
    /// The driver.
    pub driver: Driver,
    /// What its suspension was taken from.
    pub suspension_from: SuspensionFrom,
    /// Stated values that the others contradict.
    pub doubts: Vec<Doubt>,
}

/// A stated value that differs from what the other values give.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Doubt {
    /// Which value.
    pub field: &'static Field,
    /// As stated, SI.
    pub stated: f64,
    /// As it follows from the values that were used, SI.
    pub derived: f64,
}

/// Resolves a driver; data sheets are read with reference air.
///
/// # Errors
/// Every problem, with places as in the driver file.
pub fn resolve_driver(raw: &RawDriver) -> Result<ResolvedDriver, Vec<Problem>> {
    let air = Air::reference();
    let mut reading = Reading::default();
    reading.text("name", &raw.name, 1, LONGEST_NAME);
    reading.text("maker", &raw.maker, 0, LONGEST_NAME);
    reading.text("notes", &raw.notes, 0, LONGEST_NOTE);
    let sheet = read_sheet(raw, &mut reading);
    let completed = sheet.complete(&air);
    if let Err(missing) = &completed {
        for kind in missing {
            note_missing(raw, *kind, &mut reading);
        }
    }
    let (Ok((driver, suspension_from)), true) = (completed, reading.problems.is_empty()) else {
        return Err(reading.problems);
    };
    for (derived, value) in [(&field::MMS, driver.mms), (&field::BL, driver.bl), (&field::CMS, driver.cms)] {
        if !(derived.min..=derived.max).contains(&value) {
            reading.note("", ProblemKind::Inconsistent { derived, value });
        }
    }
    if !reading.problems.is_empty() {
        return Err(reading.problems);
    }
    let doubts = doubts(&sheet, &driver, &air);
    Ok(ResolvedDriver { driver, suspension_from, doubts })
}

fn read_sheet(raw: &RawDriver, reading: &mut Reading) -> Sheet {
    reading.optional("size", &field::SIZE, &raw.size);
    reading.optional("depth", &field::DEPTH, &raw.depth);
    match (&raw.l2, &raw.r2) {
        (Some(_), None) => drop(reading.required("r2", &field::R2, &raw.r2)),
        (None, Some(_)) => drop(reading.required("l2", &field::L2, &raw.l2)),
        _ => {}
    }
    Sheet {
        re: reading.optional("re", &field::RE, &raw.re),
        le: reading.optional("le", &field::LE, &raw.le),
        l2: reading.optional("l2", &field::L2, &raw.l2),
        r2: reading.optional("r2", &field::R2, &raw.r2),
        inductance_exponent: reading.optional(
            "inductance_exponent",
            &field::INDUCTANCE_EXPONENT,
            &raw.inductance_exponent,
        ),
        fs: reading.optional("fs", &field::FS, &raw.fs),
        qms: reading.optional("qms", &field::QMS, &raw.qms),
        qes: reading.optional("qes", &field::QES, &raw.qes),
        qts: reading.optional("qts", &field::QTS, &raw.qts),
        vas: reading.optional("vas", &field::VAS, &raw.vas),
        cms: reading.optional("cms", &field::CMS, &raw.cms),
        mms: reading.optional("mms", &field::MMS, &raw.mms),
        bl: reading.optional("bl", &field::BL, &raw.bl),
        sd: reading.optional("sd", &field::SD, &raw.sd),
        xmax: reading.optional("xmax", &field::XMAX, &raw.xmax),
        pe: reading.optional("pe", &field::PE, &raw.pe),
        nominal: reading.optional("nominal", &field::NOMINAL, &raw.nominal),
    }
}

/// Says what is missing, but not where a value is there and has its own problem already.
fn note_missing(raw: &RawDriver, missing: Missing, reading: &mut Reading) {
    match missing {
        Missing::Re if raw.re.is_none() => drop(reading.required("re", &field::RE, &raw.re)),
        Missing::Fs if raw.fs.is_none() => drop(reading.required("fs", &field::FS, &raw.fs)),
        Missing::Sd if raw.sd.is_none() => drop(reading.required("sd", &field::SD, &raw.sd)),
        Missing::TwoOfTheQs if [&raw.qms, &raw.qes, &raw.qts].into_iter().flatten().count() < 2 => {
            let names = &["qms", "qes", "qts"];
            let place = names[usize::from(raw.qms.is_some())];
            reading.note(place, ProblemKind::MissingOneOf { names, needed: 2 });
        }
        Missing::Suspension if [&raw.vas, &raw.cms, &raw.mms, &raw.bl].into_iter().all(Option::is_none) => {
            let names = &["vas", "cms", "mms", "bl"];
            reading.note("vas", ProblemKind::MissingOneOf { names, needed: 1 });
        }
        Missing::QtsNotBelow { qts, other } => reading.note("qts", ProblemKind::QtsNotBelow { qts, other }),
        _ => {}
    }
}

fn doubts(sheet: &Sheet, driver: &Driver, air: &Air) -> Vec<Doubt> {
    [
        (&field::QTS, sheet.qts, driver.qts()),
        (&field::VAS, sheet.vas, driver.vas(air)),
        (&field::CMS, sheet.cms, driver.cms),
        (&field::MMS, sheet.mms, driver.mms),
        (&field::BL, sheet.bl, driver.bl),
    ]
    .into_iter()
    .filter_map(|(field, stated, derived)| stated.map(|stated| Doubt { field, stated, derived }))
    .filter(|doubt| (doubt.stated / doubt.derived - 1.0).abs() > DOUBT_ABOVE)
    .collect()
}
