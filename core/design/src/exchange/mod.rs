//! Tables in and out.

mod cell;
mod columns;
mod data_sheet;
mod driver_list;
mod driver_table;
mod drivers;
mod kit;
mod response_table;
mod trace_text;

pub use cell::{harmless, plain};
pub use columns::{ColumnChoice, ColumnReport};
pub use data_sheet::{RawDataSheet, SheetReading, SheetValue, read_data_sheet};
pub use driver_table::{
    AlikeRow, ImportAsk, ImportReport, MOST_ROWS, RowProblem, TableError, write_driver_table,
};
pub use drivers::{read_driver_table, read_drivers};
pub use kit::{KitBoard, KitReading, RawKit};
pub use response_table::{response_columns, write_limit_table, write_response_table};
pub use trace_text::{MOST_TRACE_ROWS, TraceReading, TraceUnit, read_trace_text};
