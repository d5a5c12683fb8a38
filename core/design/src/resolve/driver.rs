//! A driver file becomes a driver.

use oak_acoustics::driver::{Doubt, Driver, Missing, Quantity, Sheet, Stated};
use oak_acoustics::medium::Air;
use oak_cabinetry::BoltCircle;

use super::reading::Reading;
use super::sheet::{SheetHint, field_of};
use super::{plausible, slip};
use crate::field::{self, Field};
use crate::file::{LONGEST_NAME, LONGEST_NOTE, LONGEST_TAG, MOST_TAGS, RawDriver, RawSheetCoils};
use crate::problem::{Problem, ProblemKind};

/// A complete driver with what is known about where it came from.
#[derive(Debug, Clone, PartialEq)]
pub struct ResolvedDriver {
    /// The driver.
    pub driver: Driver,
    /// The stated values it was made from; others follow.
    pub used: Vec<&'static Field>,
    /// Stated values that the ones in use contradict.
    pub doubts: Vec<SheetDoubt>,
    /// Values that would, each alone, put everything in agreement.
    pub reconciling: Vec<Reconciled>,
    /// What else looks like a slip.
    pub hints: Vec<SheetHint>,
    /// What is kept about it and computed with nowhere.
    pub record: Record,
}

/// What is kept about a driver and computed with nowhere.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub struct Record {
    /// Nominal size of the frame, m.
    pub size: Option<f64>,
    /// From the front of the frame to the back of the magnet, m.
    pub depth: Option<f64>,
    /// Across the hole it needs, m.
    pub cutout: Option<f64>,
    /// Across its magnet, m.
    pub magnet: Option<f64>,
    /// What it takes of the room in a box, m3.
    pub displacement: Option<f64>,
    /// How thick its frame is, m.
    pub rim: Option<f64>,
    /// Its bolts, where they are known.
    pub bolts: Option<BoltCircle>,
    /// Net volume of the closed box that its maker recommends, m3.
    pub sealed: Option<f64>,
    /// Net volume (m3) and tuning (Hz) of the ported one.
    pub ported: Option<[f64; 2]>,
    /// What one costs.
    pub price: Option<f64>,
    /// How many are on hand.
    pub on_hand: Option<u32>,
}

/// A stated value that differs from what the other values give.
#[derive(Debug, Clone, PartialEq)]
pub struct SheetDoubt {
    /// Which value.
    pub field: &'static Field,
    /// As stated, SI.
    pub stated: f64,
    /// As it follows from the values that were used, SI.
    pub derived: f64,
    /// What probably happened.
    pub slip: Option<&'static str>,
}

/// A value that would put everything in agreement.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Reconciled {
    /// Which value.
    pub field: &'static Field,
    /// As it would be, SI.
    pub value: f64,
    /// How what was stated probably came about.
    pub slip: Option<&'static str>,
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
    reading.text("frequency_range", &raw.frequency_range, 0, LONGEST_NAME);
    let record = read_record(raw, &mut reading);
    let sheet = read_sheet(raw, &mut reading);
    let completed = sheet.complete(&air);
    if let Err(missing) = &completed {
        for kind in missing {
            note_missing(raw, *kind, &mut reading);
        }
    }
    let (Ok(completed), true) = (completed, reading.problems.is_empty()) else {
        return Err(reading.problems);
    };
    let driver = completed.driver;
    for (derived, value) in [(&field::MMS, driver.mms), (&field::BL, driver.bl), (&field::CMS, driver.cms)] {
        if !(derived.min..=derived.max).contains(&value) {
            let hints = plausible::hints(&sheet, &driver, record.size, &air);
            let likeliest = hints.iter().find_map(|hint| Some((hint.field, hint.slip, hint.value?)));
            let place = likeliest.map_or("", |(field, ..)| field.name());
            reading.note(place, ProblemKind::Inconsistent { derived, value, likeliest });
        }
    }
    if !reading.problems.is_empty() {
        return Err(reading.problems);
    }
    let used = Quantity::ALL.into_iter().filter(|quantity| completed.uses(*quantity)).map(field_of).collect();
    let doubts = sheet.doubts(&completed, &air).iter().map(in_fields).collect();
    let reconciling = sheet.reconciling(&air).unwrap_or_default();
    let reconciled = |(quantity, value): (Quantity, f64)| {
        let field = field_of(quantity);
        let slip = sheet.stated(quantity).and_then(|stated| slip::likely(field, stated, value));
        Reconciled { field, value, slip }
    };
    let reconciling = reconciling.into_iter().map(reconciled).collect();
    let mut hints = plausible::hints(&sheet, &driver, record.size, &air);
    hints.extend(plausible::far_travel(&sheet, &driver));
    Ok(ResolvedDriver { driver, used, doubts, reconciling, hints, record })
}

fn read_record(raw: &RawDriver, reading: &mut Reading) -> Record {
    if raw.tags.len() > MOST_TAGS {
        reading.note("tags", ProblemKind::TooMany { found: raw.tags.len(), max: MOST_TAGS });
    }
    for (index, tag) in raw.tags.iter().enumerate() {
        reading.text(&format!("tags[{index}]"), tag, 1, LONGEST_TAG);
    }
    for (name, source) in &raw.sources {
        let place = format!("sources.{name}");
        reading.text(&place, &source.on, 0, LONGEST_TAG);
        if !raw.values().iter().any(|(known, _)| known == name) {
            reading.note(&place, ProblemKind::NoSuchField { name: name.clone() });
        }
    }
    Record {
        size: reading.optional("size", &field::SIZE, &raw.size),
        depth: reading.optional("depth", &field::DEPTH, &raw.depth),
        cutout: reading.optional("cutout", &field::CUTOUT, &raw.cutout),
        magnet: reading.optional("magnet", &field::MAGNET, &raw.magnet),
        displacement: reading.optional("displacement", &field::DISPLACEMENT, &raw.displacement),
        rim: reading.optional("rim", &field::RIM, &raw.rim),
        bolts: read_bolts(raw, reading),
        sealed: reading.optional("sealed_volume", &field::SEALED_VOLUME, &raw.sealed_volume),
        ported: read_ported(raw, reading),
        price: reading.optional("price", &field::PRICE, &raw.price),
        on_hand: raw.on_hand.as_ref().and_then(|_| reading.count("on_hand", &field::ON_HAND, &raw.on_hand)),
    }
}

/// Usual bolts where only their circle is stated (common practice): so many, and a hole of so many m.
const USUAL_BOLTS: (u32, f64) = (8, 0.0055);

fn read_bolts(raw: &RawDriver, reading: &mut Reading) -> Option<BoltCircle> {
    let count = raw.bolts.as_ref().and_then(|_| reading.count("bolts", &field::BOLTS, &raw.bolts));
    let hole = reading.optional("bolt_hole", &field::BOLT_HOLE, &raw.bolt_hole);
    let circle = reading.optional("bolt_circle", &field::BOLT_CIRCLE, &raw.bolt_circle)?;
    let (usual, usual_hole) = USUAL_BOLTS;
    Some(BoltCircle { diameter: circle, count: count.unwrap_or(usual), hole: hole.unwrap_or(usual_hole) })
}

/// Neither is a box without the other.
fn read_ported(raw: &RawDriver, reading: &mut Reading) -> Option<[f64; 2]> {
    let volume = reading.optional("ported_volume", &field::PORTED_VOLUME, &raw.ported_volume);
    let tuning = reading.optional("ported_tuning", &field::PORTED_TUNING, &raw.ported_tuning);
    match (&raw.ported_volume, &raw.ported_tuning) {
        (Some(_), None) => drop(reading.required("ported_tuning", &field::PORTED_TUNING, &None)),
        (None, Some(_)) => drop(reading.required("ported_volume", &field::PORTED_VOLUME, &None)),
        _ => {}
    }
    Some([volume?, tuning?])
}

fn read_sheet(raw: &RawDriver, reading: &mut Reading) -> Sheet {
    match (&raw.l2, &raw.r2) {
        (Some(_), None) => drop(reading.required("r2", &field::R2, &raw.r2)),
        (None, Some(_)) => drop(reading.required("l2", &field::L2, &raw.l2)),
        _ => {}
    }
    // Both in parallel: half the resistance of one, its force and, as they share their flux, its inductance.
    let share = if raw.coils == Some(RawSheetCoils::DualEach) { 0.5 } else { 1.0 };
    let mut both = |name: &str, field, typed| reading.optional(name, field, typed).map(|each| share * each);
    let (re, nominal) = (both("re", &field::RE, &raw.re), both("nominal", &field::NOMINAL, &raw.nominal));
    Sheet {
        re,
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
        nominal,
        level_1w: reading.optional("level_1w", &field::LEVEL_1W, &raw.level_1w),
        level_2v83: reading.optional("level_2v83", &field::LEVEL_2V83, &raw.level_2v83),
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

fn in_fields(doubt: &Doubt) -> SheetDoubt {
    let field = match doubt.stated {
        Stated::Quantity(quantity) => field_of(quantity),
        Stated::Level1W => &field::LEVEL_1W,
        Stated::Level2V83 => &field::LEVEL_2V83,
    };
    let slip = slip::likely(field, doubt.value, doubt.derived);
    SheetDoubt { field, stated: doubt.value, derived: doubt.derived, slip }
}
