//! What comes before the drivers and what comes after the box: amplifier, filters and passive parts; room, cabin and field; energy and
//! exposure.
//!
//! SI throughout, time factor `exp(+j omega t)`, phasors are RMS.

pub mod biquad;
pub mod filter;
pub mod passive;
