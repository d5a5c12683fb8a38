//! What has been done in the workshop, checked.

use super::reading::Reading;
use crate::field;
use crate::file::{
    LONGEST_ACCOUNT, LONGEST_NOTE, MOST_PHOTOS, MOST_PRINTED, MOST_TICKS, RawEntry, RawProgress,
};
use crate::problem::{Problem, ProblemKind};

const LONGEST_STEP: usize = 80;
const LONGEST_PAGE: usize = 40;
const LONGEST_SAID: usize = 120;
const MOST_SAID: usize = 200;

/// Checks what has been done.
///
/// # Errors
/// Every problem, with its place.
pub fn check_progress(raw: &RawProgress) -> Result<(), Vec<Problem>> {
    let mut reading = Reading::default();
    for (name, found, max) in
        [("ticks", raw.ticks.len(), MOST_TICKS), ("printed", raw.printed.len(), MOST_PRINTED)]
    {
        if found > max {
            reading.note(name, ProblemKind::TooMany { found, max });
        }
    }
    for (index, tick) in raw.ticks.iter().take(MOST_TICKS).enumerate() {
        reading.text(&format!("ticks[{index}].step"), &tick.step, 1, LONGEST_STEP);
        moment(&format!("ticks[{index}].at"), &tick.at, &mut reading);
    }
    for (index, printed) in raw.printed.iter().take(MOST_PRINTED).enumerate() {
        let at = |name: &str| format!("printed[{index}].{name}");
        reading.text(&at("page"), &printed.page, 1, LONGEST_PAGE);
        moment(&at("at"), &printed.at, &mut reading);
        if printed.said.len() > MOST_SAID {
            reading.note(&at("said"), ProblemKind::TooMany { found: printed.said.len(), max: MOST_SAID });
        }
        for (line, said) in printed.said.iter().take(MOST_SAID).enumerate() {
            reading.text(&at(&format!("said[{line}].what")), &said.what, 1, LONGEST_STEP);
            reading.text(&at(&format!("said[{line}].value")), &said.value, 0, LONGEST_SAID);
        }
    }
    if reading.problems.is_empty() { Ok(()) } else { Err(reading.problems) }
}

/// Checks an entry of the logbook; gives the time that it took, s, and what it cost.
///
/// # Errors
/// Every problem, with its place.
pub fn check_entry(raw: &RawEntry) -> Result<(Option<f64>, Option<f64>), Vec<Problem>> {
    let mut reading = Reading::default();
    moment("at", &raw.at, &mut reading);
    reading.text("text", &raw.text, 0, LONGEST_NOTE);
    if let Some(step) = &raw.step {
        reading.text("step", step, 1, LONGEST_STEP);
    }
    for (name, text) in [("mistake", &raw.mistake), ("cause", &raw.cause), ("fix", &raw.fix)] {
        reading.text(name, text, 0, LONGEST_ACCOUNT);
    }
    if raw.photos.len() > MOST_PHOTOS {
        reading.note("photos", ProblemKind::TooMany { found: raw.photos.len(), max: MOST_PHOTOS });
    }
    for (index, photo) in raw.photos.iter().take(MOST_PHOTOS).enumerate() {
        hash(&format!("photos[{index}]"), photo, &mut reading);
    }
    let hours = reading.optional("hours", &field::ENTRY_HOURS, &raw.hours);
    let cost = reading.optional("cost", &field::ENTRY_COST, &raw.cost);
    if reading.problems.is_empty() { Ok((hours, cost)) } else { Err(reading.problems) }
}

/// The hash that something is kept by.
pub(super) fn hash(place: &str, given: &str, reading: &mut Reading) {
    if given.len() != 64 || !given.bytes().all(|byte| byte.is_ascii_hexdigit()) {
        reading.note(place, ProblemKind::NotHash { given: given.to_owned() });
    }
}

/// A moment in RFC 3339: `2026-05-01T18:30:00Z`, or with an offset.
pub(super) fn moment(place: &str, given: &str, reading: &mut Reading) {
    let bytes = given.as_bytes();
    let digits = |range: std::ops::Range<usize>| {
        bytes.get(range).is_some_and(|part| part.iter().all(u8::is_ascii_digit))
    };
    let signs = |at: usize, sign: u8| bytes.get(at) == Some(&sign);
    let good = (20..=40).contains(&bytes.len())
        && [0..4, 5..7, 8..10, 11..13, 14..16, 17..19].into_iter().all(digits)
        && signs(4, b'-')
        && signs(7, b'-')
        && signs(10, b'T')
        && signs(13, b':')
        && signs(16, b':')
        && bytes[19..].iter().all(|byte| byte.is_ascii_digit() || b".:+-Z".contains(byte));
    if !good {
        reading.note(place, ProblemKind::NotDate { given: given.to_owned() });
    }
}
