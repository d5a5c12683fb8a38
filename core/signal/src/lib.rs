//! What comes before the drivers and what comes after the box: amplifier, filters and passive parts; room, cabin and field; energy and
//! exposure.
//!
//! SI throughout, time factor `exp(+j omega t)`, phasors are RMS.

pub mod amplifier;
pub mod best_place;
pub mod biquad;
pub mod boundary;
pub mod cabin;
pub mod crossover;
pub mod energy;
pub mod exposure;
pub mod filter;
pub mod helper;
pub mod in_place;
pub mod outdoors;
pub mod passive;
pub mod room;
