//! Air, drivers, the acoustic network and its solution.
//!
//! SI throughout, time factor `exp(+j omega t)`, phasors are RMS. Excursions and air speeds are
//! reported as one-way peak values, levels in dB re 20 uPa at 1 m in the space that the setting names, half
//! space where none is named.
//!
//! The path through the crate is `enclosure` (a cabinet becomes a network) -> `network` (what was
//! compiled) -> `solve` (flows and pressures at a frequency) -> `response` (curves and figures).
//! Only `enclosure` knows cabinet families; only `element` knows physical effects.

pub mod cavity;
mod complex;
pub mod driver;
pub mod element;
pub mod enclosure;
pub mod lanes;
pub mod medium;
pub mod network;
mod node;
pub mod profile;
pub mod response;
pub mod root;
pub mod solve;
pub mod source;
pub mod starting_point;
mod stop;

pub use complex::Complex;
#[cfg(test)]
pub(crate) use complex::J;
pub(crate) use complex::{inverse, root};
pub use stop::Stop;
