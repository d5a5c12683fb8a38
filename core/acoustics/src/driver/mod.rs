//! The moving-coil driver.

mod cable;
mod change;
mod complete;
mod doubt;
mod inductance;
mod motor;
mod parameters;
mod relation;

pub use cable::cable_resistance;
pub use change::{Change, Coils, DualCoil, SheetCoils};
pub use complete::{Completed, Missing, Sheet};
pub use doubt::{Doubt, Stated};
pub use inductance::Inductance;
pub use motor::{Isobaric, Motor, Wiring};
pub use parameters::{Brake, Driver, REFERENCE_PRESSURE};
pub use relation::Quantity;
