//! The moving-coil driver.

mod complete;
mod parameters;

pub use complete::{Missing, Sheet, SuspensionFrom};
pub use parameters::{Driver, REFERENCE_PRESSURE};
