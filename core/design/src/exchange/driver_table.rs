//! Drivers as CSV.

use std::fmt;

use oak_units::Unit;
use serde::Serialize;
use utoipa::ToSchema;

use super::cell::{harmless, plain};
use super::columns::{Column, ColumnChoice, ColumnReport};
use crate::field::{Field, driver_fields};
use crate::file::{RawDriver, RawSheetCoils, Typed, plain_text};
use crate::resolve::resolve_driver;

/// Most rows in one table.
pub const MOST_ROWS: usize = 20_000;
/// Most columns in one table.
const MOST_COLUMNS: usize = 200;
/// Problems beyond this many are counted, not listed.
const MOST_PROBLEMS: usize = 500;

/// How a file of drivers is to be read.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct ImportAsk {
    /// What each column holds, in order; guessed from the headers where absent.
    pub columns: Option<Vec<ColumnChoice>>,
    /// Whether the good rows are taken although others are bad.
    pub skip_bad: bool,
}

/// What came of reading a table.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ImportReport {
    /// Rows with content, without the header.
    pub rows: usize,
    /// Drivers taken in: all of them, or none where any row has a problem, or the good ones where that was chosen.
    pub imported: usize,
    /// Rows that can be taken.
    pub good: usize,
    /// What is wrong, row by row; at most 500 are listed.
    pub problems: Vec<RowProblem>,
    /// How many problems there are in all.
    pub problem_count: usize,
    /// How each column was understood.
    pub columns: Vec<ColumnReport>,
    /// The first good rows as they were read.
    pub preview: Vec<RawDriver>,
    /// Drivers much like one in the library or in an earlier row; told, not refused.
    pub alike: Vec<AlikeRow>,
}

/// A row that is much like another driver.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct AlikeRow {
    /// Name of the row's driver.
    pub name: String,
    /// What it is like, and how.
    pub like: String,
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
    /// Text that begins like JSON and is none.
    NotJson {
        /// What the reader says.
        reason: String,
    },
    /// No header or no rows.
    Empty,
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
            Self::NotJson { reason } => write!(f, "the file begins like JSON and cannot be read: {reason}"),
            Self::Empty => write!(f, "the file has no header and no rows"),
            Self::TooLarge { what, most } => write!(f, "the file has more than {most} {what}"),
        }
    }
}

impl std::error::Error for TableError {}

/// Good rows that are shown before an import.
const PREVIEW: usize = 8;

/// Rows as they are read.
#[derive(Debug, Default)]
pub(super) struct Table {
    drivers: Vec<RawDriver>,
    problems: Vec<RowProblem>,
    rows: usize,
    columns: Vec<ColumnReport>,
    /// Something is wrong with the table as a whole, so that no row can be taken.
    barred: bool,
}

impl Table {
    fn read_row(&mut self, record: &csv::StringRecord, columns: &[Column]) {
        let line = record.position().map_or(0, csv::Position::line);
        let driver = row(record, columns);
        for (report, cell) in self.columns.iter_mut().zip(record).filter(|(_, cell)| !cell.is_empty()) {
            if report.samples.len() < 3 {
                report.samples.push(cell.to_owned());
            }
        }
        if record.len() != columns.len() {
            self.rows += 1;
            let message = format!("has {} cells, and the header has {}", record.len(), columns.len());
            self.report(line, &driver.name, "", message);
            return;
        }
        if let Some(problem) = record.iter().find_map(|cell| plain_text("", cell).err()) {
            self.rows += 1;
            let name: String = driver.name.chars().filter(|c| !c.is_control()).collect();
            self.report(line, &name, "", problem.kind.to_string());
            return;
        }
        let is_coils = |column: &Column| *column == Column::Text("coils");
        let mut coils = record.iter().zip(columns).filter(|(_, column)| is_coils(column));
        if let Some((cell, _)) = coils.find(|(cell, _)| !cell.is_empty() && coils_named(cell).is_none()) {
            self.rows += 1;
            let allowed: Vec<_> = RawSheetCoils::ALL.iter().map(|(_, name)| *name).collect();
            let message = format!("\"{cell}\" is not one of {}", allowed.join(", "));
            self.report(line, &driver.name, "coils", message);
            return;
        }
        self.take(line, driver);
    }

    /// Counts a row and takes its driver where it is complete.
    pub fn take(&mut self, line: u64, driver: RawDriver) {
        self.rows += 1;
        match resolve_driver(&driver) {
            Ok(_) => self.drivers.push(driver),
            Err(found) => {
                for problem in found {
                    self.report(line, &driver.name, &problem.field, problem.kind.to_string());
                }
            }
        }
    }

    /// Counts a row that cannot be read.
    pub fn refuse(&mut self, line: u64, field: &str, message: String) {
        self.rows += 1;
        self.report(line, "", field, message);
    }

    fn report(&mut self, line: u64, name: &str, field: &str, message: String) {
        self.problems.push(RowProblem { line, name: name.to_owned(), field: field.to_owned(), message });
    }

    fn bar(&mut self, field: &str, message: String) {
        self.barred = true;
        self.report(1, "", field, message);
    }

    pub fn finish(mut self, skip_bad: bool) -> (Vec<RawDriver>, ImportReport) {
        let problem_count = self.problems.len();
        if self.barred {
            self.drivers.clear();
        }
        let good = self.drivers.len();
        let preview = self.drivers.iter().take(PREVIEW).cloned().collect();
        if problem_count > 0 && !skip_bad {
            self.drivers.clear();
        }
        self.problems.truncate(MOST_PROBLEMS);
        let report = ImportReport {
            rows: self.rows,
            imported: self.drivers.len(),
            good,
            problems: self.problems,
            problem_count,
            columns: self.columns,
            preview,
            alike: Vec::new(),
        };
        (self.drivers, report)
    }
}

fn delimiter(header: &str) -> u8 {
    [b',', b';', b'\t', b'|']
        .into_iter()
        .max_by_key(|candidate| (header.bytes().filter(|byte| byte == candidate).count(), *candidate == b','))
        .unwrap_or(b',')
}

/// What the columns hold; what is wrong with them is reported for the header's line.
fn columns(headers: &csv::StringRecord, choices: Option<&[ColumnChoice]>, table: &mut Table) -> Vec<Column> {
    if let Some(choices) = choices.filter(|choices| choices.len() != headers.len()) {
        table.bar("", format!("{} columns were chosen, and the file has {}", choices.len(), headers.len()));
    }
    let mut columns: Vec<Column> = Vec::with_capacity(headers.len());
    for (index, header) in headers.iter().enumerate() {
        let column = match choices.and_then(|choices| choices.get(index)) {
            Some(choice) => Column::chosen(choice),
            None => Column::guess(header),
        };
        let mut column = column.unwrap_or_else(|message| {
            table.bar(header, message);
            Column::Ignored
        });
        if column != Column::Ignored && columns.iter().any(|other| other.field() == column.field()) {
            table.bar(header, format!("two columns hold {}; leave one out", column.field()));
            column = Column::Ignored;
        }
        table.columns.push(ColumnReport {
            header: header.to_owned(),
            field: column.field(),
            unit: column.unit(),
            samples: Vec::new(),
        });
        columns.push(column);
    }
    if !columns.contains(&Column::Text("name")) {
        let found: Vec<_> = headers.iter().map(|name| format!("\"{name}\"")).collect();
        table.bar("name", format!("no column holds the name; the columns are {}", found.join(", ")));
    }
    columns
}

fn row(record: &csv::StringRecord, columns: &[Column]) -> RawDriver {
    let mut driver = RawDriver::default();
    for (cell, column) in record.iter().map(plain).zip(columns).filter(|(cell, _)| !cell.is_empty()) {
        match column {
            Column::Text("name") => cell.clone_into(&mut driver.name),
            Column::Text("maker") => cell.clone_into(&mut driver.maker),
            Column::Text("notes") => cell.clone_into(&mut driver.notes),
            Column::Text("frequency_range") => cell.clone_into(&mut driver.frequency_range),
            Column::Text("tags") => driver.tags = tags(cell),
            Column::Text("coils") => driver.coils = coils_named(cell),
            Column::Value(field, unit) => {
                if let Some(value) = driver.value_mut(field.name()) {
                    *value = Some(typed(cell, unit.or(field.usual_unit())));
                }
            }
            Column::Text(_) | Column::Ignored => {}
        }
    }
    driver
}

/// Tags in one cell stand apart by bars or commas.
fn tags(cell: &str) -> Vec<String> {
    cell.split(['|', ',']).map(str::trim).filter(|tag| !tag.is_empty()).map(str::to_owned).collect()
}

fn coils_named(cell: &str) -> Option<RawSheetCoils> {
    RawSheetCoils::ALL.iter().find(|(_, name)| *name == cell).map(|(coils, _)| *coils)
}

/// The column's unit goes to cells that are a bare number.
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
    let last = ["coils", "frequency_range", "tags", "notes"];
    let header = ["name", "maker"].into_iter().chain(driver_fields().map(Field::name)).chain(last);
    writer.write_record(header).expect(never);
    for driver in drivers {
        let values =
            driver.values().map(|(_, value)| value.as_ref().map(Typed::to_string).unwrap_or_default());
        let row = [driver.name.clone(), driver.maker.clone()].into_iter().chain(values).chain([
            coils(driver).to_owned(),
            driver.frequency_range.clone(),
            driver.tags.join(" | "),
            driver.notes.clone(),
        ]);
        writer.write_record(row.map(|cell| harmless(&cell).into_owned())).expect(never);
    }
    String::from_utf8(writer.into_inner().expect(never)).expect("made of strings")
}

/// Reads a table.
pub(super) fn read(text: &str, ask: &ImportAsk) -> Result<(Vec<RawDriver>, ImportReport), TableError> {
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
    if headers.iter().all(str::is_empty) {
        return Err(TableError::Empty);
    }
    let mut table = Table::default();
    let columns = columns(&headers, ask.columns.as_deref(), &mut table);
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
    Ok(table.finish(ask.skip_bad))
}
