//! Drivers from a file: a table, or JSON.

use super::driver_table::{ImportAsk, ImportReport, TableError};
use super::{driver_list, driver_table};
use crate::file::RawDriver;

/// Reads a table of drivers, all rows or none; see [`read_drivers`].
///
/// # Errors
/// What makes the table unreadable as a whole.
pub fn read_driver_table(bytes: &[u8]) -> Result<(Vec<RawDriver>, ImportReport), TableError> {
    read_drivers(bytes, &ImportAsk::default())
}

/// Reads drivers: a table, or JSON where the text begins like it. The delimiter (comma, semicolon, tab, bar) is found from
/// the header; a header may carry a unit, `vas (l)`, or each cell its own.
///
/// The drivers are returned only where no row has a problem, or where bad rows are to be skipped; else none.
///
/// # Errors
/// What makes the file unreadable as a whole.
pub fn read_drivers(bytes: &[u8], ask: &ImportAsk) -> Result<(Vec<RawDriver>, ImportReport), TableError> {
    let text = std::str::from_utf8(bytes).map_err(|_| TableError::NotText)?;
    let text = text.strip_prefix('\u{feff}').unwrap_or(text);
    if text.contains('\0') {
        return Err(TableError::NotText);
    }
    if text.trim_start().starts_with(['[', '{']) {
        return driver_list::read(text, ask.skip_bad);
    }
    driver_table::read(text, ask)
}
