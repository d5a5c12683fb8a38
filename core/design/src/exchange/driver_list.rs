//! Drivers as JSON: one driver file, or a list of them.

use serde_json::Value;

use super::driver_table::{ImportReport, MOST_ROWS, Table, TableError};
use crate::file::{RawDriver, open_driver};

/// Reads a driver file or a list of them; `line` in the report is the place in the list.
pub(super) fn read(text: &str, skip_bad: bool) -> Result<(Vec<RawDriver>, ImportReport), TableError> {
    let document: Value =
        serde_json::from_str(text).map_err(|error| TableError::NotJson { reason: error.to_string() })?;
    let list = match document {
        Value::Array(list) => list,
        one => vec![one],
    };
    if list.is_empty() {
        return Err(TableError::Empty);
    }
    if list.len() > MOST_ROWS {
        return Err(TableError::TooLarge { what: "drivers", most: MOST_ROWS });
    }
    let mut table = Table::default();
    for (index, value) in list.iter().enumerate() {
        let line = index as u64 + 1;
        match open_driver(value.to_string().as_bytes()) {
            Ok(driver) => table.take(line, driver),
            Err(problem) => table.refuse(line, &problem.field, problem.kind.to_string()),
        }
    }
    Ok(table.finish(skip_bad))
}
