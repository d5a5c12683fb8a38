//! The moving-coil driver.

mod cable;
mod change;
mod complete;
mod doubt;
mod driver_array;
mod inductance;
mod parameters;
mod relation;

pub use cable::cable_resistance;
pub use change::{Change, Coils, DualCoil, SheetCoils};
pub use complete::{Completed, Sheet};
pub use doubt::{Doubt, Stated};
pub use driver_array::{DriverArray, Isobaric, Wiring};
pub use inductance::Inductance;
pub use parameters::{Driver, REFERENCE_PRESSURE, ShortedCoil};
pub use relation::Missing;
pub use relation::Quantity;
