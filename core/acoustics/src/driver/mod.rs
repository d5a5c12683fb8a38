//! The moving-coil driver.

mod change;
mod complete;
mod inductance;
mod motor;
mod parameters;

pub use change::{Change, Coils, DualCoil, SheetCoils};
pub use complete::{Missing, Sheet, SuspensionFrom};
pub use inductance::Inductance;
pub use motor::{Isobaric, Motor, Wiring};
pub use parameters::{Brake, Driver, REFERENCE_PRESSURE};
