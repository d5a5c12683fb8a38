//! What a driver's impedance in free air says of it, alone and with a mass on its cone.

mod bench;
mod coil;
mod model;
mod points;

pub use bench::{Bench, Measured, measure};
pub use coil::{Coil, Inductive};
pub(crate) use model::BAND;
pub use model::Model;
pub use points::{Points, points};
