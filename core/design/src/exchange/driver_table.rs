//! Drivers as CSV.

use std::fmt;

use oak_units::{Unit, unit_named};
use serde::Serialize;
use utoipa::ToSchema;

use crate::field::{Field, driver_fields};
use crate::file::{RawDriver, RawSheetCoils, Typed};
use crate::resolve::resolve_driver;

/// Most rows in one table.
pub const MOST_ROWS: usize = 20_000;
/// Most columns in one table.
const MOST_COLUMNS: usize = 200;
/// Problems beyond this many are counted, not listed.
const MOST_PROBLEMS: usize = 500;

/// What came of reading a table.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ImportReport {
    /// Rows with content, without the header.
    pub rows: usize,
    /// Drivers taken in: all of them, or none where any row has a problem.
    pub imported: usize,
    /// What is wrong, row by row; at most 500 are listed.
    pub problems: Vec<RowProblem>,
    /// How many problems there are in all.
    pub problem_count: usize,
    /// Columns that mean nothing here.
    pub ignored_columns: Vec<String>,
}

/// One problem in a table.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct RowProblem {
    /// Line in the file, the header being 1.
    pub line: u64,
    /// Name of the driver, where it could be read.
    pub name: String,
    /// Which column.
    pub field: String,
    /// What is wrong, with the value and what is allowed.
    pub message: String,
}

/// Why a table cannot be read at all.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum TableError {
    /// Not text.
    NotText,
    /// No header or no rows.
    Empty,
    /// No column is called `name`.
    NoNameColumn {
        /// What the columns are called.
        found: Vec<String>,
    },
    /// Two columns for one value.
    TwiceTheSame {
        /// The value.
        field: &'static str,
    },
    /// A unit in a header that does not fit the value.
    HeaderUnit {
        /// The header.
        header: String,
        /// What the value measures.
        wanted: &'static str,
    },
    /// More than is reasonable.
    TooLarge {
        /// Rows or columns.
        what: &'static str,
        /// Most allowed.
        most: usize,
    },
}

impl fmt::Display for TableError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::NotText => write!(f, "the file is not UTF-8 text"),
            Self::Empty => write!(f, "the file has no header and no rows"),
            Self::NoNameColumn { found } => write!(
                f,
                "no column is called \"name\"; the columns are {}",
                found.iter().map(|name| format!("\"{name}\"")).collect::<Vec<_>>().join(", ")
            ),
            Self::TwiceTheSame { field } => write!(f, "two columns hold {field}; leave one out"),
            Self::HeaderUnit { header, wanted } => {
                write!(f, "the unit in \"{header}\" is not one of {wanted}")
            }
            Self::TooLarge { what, most } => write!(f, "the file has more than {most} {what}"),
        }
    }
}

impl std::error::Error for TableError {}

/// What a column holds.
enum Column {
    Name,
    Maker,
    Notes,
    Coils,
    Value(&'static Field, Option<&'static Unit>),
    Ignored,
}

/// Reads a table of drivers. The delimiter (comma, semicolon, tab) is found from the header; a
/// header may carry a unit, `vas (l)`, or each cell its own.
///
/// All drivers are returned only where no row has a problem; else none.
///
/// # Errors
/// What makes the table unreadable as a whole.
pub fn read_driver_table(bytes: &[u8]) -> Result<(Vec<RawDriver>, ImportReport), TableError> {
    let text = std::str::from_utf8(bytes).map_err(|_| TableError::NotText)?;
    let text = text.strip_prefix('\u{feff}').unwrap_or(text);
    if text.contains('\0') {
        return Err(TableError::NotText);
    }
    let header_line = text.lines().next().unwrap_or("");
    let mut reader = csv::ReaderBuilder::new()
        .delimiter(delimiter(header_line))
        .flexible(true)
        .trim(csv::Trim::All)
        .from_reader(text.as_bytes());
    let headers = reader.headers().map_err(|_| TableError::NotText)?.clone();
    if headers.len() > MOST_COLUMNS {
        return Err(TableError::TooLarge { what: "columns", most: MOST_COLUMNS });
    }
    let columns = columns(&headers)?;
    let mut table = Table { drivers: Vec::new(), problems: Vec::new(), rows: 0 };
    for record in reader.records() {
        let record = record.map_err(|_| TableError::NotText)?;
        if record.iter().all(str::is_empty) {
            continue;
        }
        if table.rows == MOST_ROWS {
            return Err(TableError::TooLarge { what: "rows", most: MOST_ROWS });
        }
        table.read_row(&record, &columns);
    }
    if table.rows == 0 {
        return Err(TableError::Empty);
    }
    Ok(table.finish(ignored(&headers, &columns)))
}

struct Table {
    drivers: Vec<RawDriver>,
    problems: Vec<RowProblem>,
    rows: usize,
}

impl Table {
    fn read_row(&mut self, record: &csv::StringRecord, columns: &[Column]) {
        self.rows += 1;
        let line = record.position().map_or(0, csv::Position::line);
        let driver = row(record, columns);
        let mut report = |field: &str, message: String| {
            let (name, field) = (driver.name.clone(), field.to_owned());
            self.problems.push(RowProblem { line, name, field, message });
        };
        if record.len() != columns.len() {
            report("", format!("has {} cells, and the header has {}", record.len(), columns.len()));
            return;
        }
        let mut coils = record.iter().zip(columns).filter(|(_, column)| matches!(column, Column::Coils));
        if let Some((cell, _)) = coils.find(|(cell, _)| !cell.is_empty() && coils_named(cell).is_none()) {
            let allowed: Vec<_> = RawSheetCoils::ALL.iter().map(|(_, name)| *name).collect();
            report("coils", format!("\"{cell}\" is not one of {}", allowed.join(", ")));
            return;
        }
        match resolve_driver(&driver) {
            Ok(_) => self.drivers.push(driver),
            Err(found) => found.iter().for_each(|problem| report(&problem.field, problem.kind.to_string())),
        }
    }

    fn finish(mut self, ignored_columns: Vec<String>) -> (Vec<RawDriver>, ImportReport) {
        let problem_count = self.problems.len();
        if problem_count > 0 {
            self.drivers.clear();
        }
        self.problems.truncate(MOST_PROBLEMS);
        let imported = self.drivers.len();
        let report = ImportReport {
            rows: self.rows,
            imported,
            problems: self.problems,
            problem_count,
            ignored_columns,
        };
        (self.drivers, report)
    }
}

fn delimiter(header: &str) -> u8 {
    [b',', b';', b'\t']
        .into_iter()
        .max_by_key(|candidate| (header.bytes().filter(|byte| byte == candidate).count(), *candidate == b','))
        .unwrap_or(b',')
}

fn columns(headers: &csv::StringRecord) -> Result<Vec<Column>, TableError> {
    let mut columns = Vec::with_capacity(headers.len());
    for header in headers {
        let column = column(header)?;
        if let Column::Value(field, _) = column
            && columns.iter().any(|other| matches!(other, Column::Value(taken, _) if *taken == field))
        {
            return Err(TableError::TwiceTheSame { field: field.symbol });
        }
        columns.push(column);
    }
    if columns.iter().any(|column| matches!(column, Column::Name)) {
        Ok(columns)
    } else {
        Err(TableError::NoNameColumn { found: headers.iter().map(str::to_owned).collect() })
    }
}

fn column(header: &str) -> Result<Column, TableError> {
    let (word, unit) = match header.split_once(['(', '[']) {
        Some((word, unit)) => (word, Some(unit.trim_end_matches([')', ']']).trim())),
        None => (header, None),
    };
    let word = word.trim().to_lowercase();
    let Some(field) = driver_fields().find(|field| field.name() == word) else {
        return Ok(match word.as_str() {
            "name" | "model" => Column::Name,
            "maker" | "brand" => Column::Maker,
            "notes" => Column::Notes,
            "coils" => Column::Coils,
            _ => Column::Ignored,
        });
    };
    let Some(unit) = unit.filter(|unit| !unit.is_empty()) else {
        return Ok(Column::Value(field, None));
    };
    match unit_named(unit) {
        Some(found) if found.dimension == field.dimension => Ok(Column::Value(field, Some(found))),
        _ => Err(TableError::HeaderUnit { header: header.to_owned(), wanted: field.dimension.noun() }),
    }
}

fn ignored(headers: &csv::StringRecord, columns: &[Column]) -> Vec<String> {
    let pairs = headers.iter().zip(columns);
    pairs
        .filter(|(_, column)| matches!(column, Column::Ignored))
        .map(|(header, _)| header.to_owned())
        .collect()
}

fn row(record: &csv::StringRecord, columns: &[Column]) -> RawDriver {
    let mut driver = RawDriver::default();
    for (cell, column) in record.iter().zip(columns).filter(|(cell, _)| !cell.is_empty()) {
        match column {
            Column::Name => cell.clone_into(&mut driver.name),
            Column::Maker => cell.clone_into(&mut driver.maker),
            Column::Notes => cell.clone_into(&mut driver.notes),
            Column::Coils => driver.coils = coils_named(cell),
            Column::Value(field, unit) => {
                if let Some(value) = driver.value_mut(field.name()) {
                    *value = Some(typed(cell, *unit));
                }
            }
            Column::Ignored => {}
        }
    }
    driver
}

fn coils_named(cell: &str) -> Option<RawSheetCoils> {
    RawSheetCoils::ALL.iter().find(|(_, name)| *name == cell).map(|(coils, _)| *coils)
}

/// The header's unit goes to cells that are a bare number.
fn typed(cell: &str, unit: Option<&Unit>) -> Typed {
    let bare = cell.chars().all(|c| c.is_ascii_digit() || " .,-+−/eE".contains(c));
    match unit {
        Some(unit) if bare => Typed::Text(format!("{cell} {}", unit.symbol)),
        _ => Typed::from(cell),
    }
}

fn coils(driver: &RawDriver) -> &'static str {
    RawSheetCoils::ALL.iter().find(|(coils, _)| driver.coils == Some(*coils)).map_or("", |(_, name)| name)
}

/// Writes drivers as a table that [`read_driver_table`] reads back as they were.
///
/// # Panics
/// Never: a row always has as many cells as the header, and memory is written to.
pub fn write_driver_table<'a>(drivers: impl IntoIterator<Item = &'a RawDriver>) -> String {
    let never = "writing rows of equal length to memory";
    let mut writer = csv::Writer::from_writer(Vec::new());
    let header =
        ["name", "maker"].into_iter().chain(driver_fields().map(Field::name)).chain(["coils", "notes"]);
    writer.write_record(header).expect(never);
    for driver in drivers {
        let values =
            driver.values().map(|(_, value)| value.as_ref().map(Typed::to_string).unwrap_or_default());
        let row = [driver.name.clone(), driver.maker.clone()]
            .into_iter()
            .chain(values)
            .chain([coils(driver).to_owned(), driver.notes.clone()]);
        writer.write_record(row).expect(never);
    }
    String::from_utf8(writer.into_inner().expect(never)).expect("made of strings")
}
