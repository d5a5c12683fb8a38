//! Cells of tables that a spreadsheet opens without computing anything.

use std::borrow::Cow;

/// A cell that no spreadsheet takes for a formula: with an apostrophe before a sign that would begin one, and before an apostrophe that
/// [`plain`] would take off. Numbers stay as they are.
pub fn harmless(cell: &str) -> Cow<'_, str> {
    if begins_formula(cell) || begins_formula(cell.trim_start_matches('\'')) && cell.starts_with('\'') {
        Cow::Owned(format!("'{cell}"))
    } else {
        Cow::Borrowed(cell)
    }
}

/// What [`harmless`] made of a cell, as it was.
pub fn plain(cell: &str) -> &str {
    match cell.strip_prefix('\'') {
        Some(rest) if begins_formula(rest.trim_start_matches('\'')) => rest,
        _ => cell,
    }
}

fn begins_formula(cell: &str) -> bool {
    let number = cell.parse::<f64>().is_ok_and(f64::is_finite);
    !number && cell.starts_with(['=', '+', '-', '@', '\t', '\r'])
}
