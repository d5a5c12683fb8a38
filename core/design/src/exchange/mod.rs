//! Tables in and out.

mod driver_table;
mod response_table;

pub use driver_table::{
    ImportReport, MOST_ROWS, RowProblem, TableError, read_driver_table, write_driver_table,
};
pub use response_table::{response_columns, write_limit_table, write_response_table};
