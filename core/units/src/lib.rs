//! Quantities as builders type and read them.
//!
//! Inside the core every value is SI. This crate is the one place that knows how people write
//! values (`"1.5 cuft"`, `"11 5/16 in"`, `"0,9 mH"`) and turns them into SI and back.

mod dimension;
mod format;
mod number;
mod parse;
mod table;

pub use dimension::Dimension;
pub use format::{format_in, significant};
pub use number::{NumberError, parse_number};
pub use parse::{Parsed, QuantityError, gauge_named, note_named, parse_quantity};
pub use table::{UNITS, Unit, unit_named, units_of};
